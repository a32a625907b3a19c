package code_test

import (
	"strings"
	"testing"

	"ubique/core/code"
	"ubique/core/place"
)

func readAs(name, src string) *code.File {
	return code.Read(name, []byte(src), place.NewLines([]byte(src)))
}

// sketch writes an expression in short.
func sketch(n *code.Node) string {
	if n == nil {
		return "-"
	}
	var kids []string
	for _, k := range n.Kids {
		kids = append(kids, sketch(k))
	}
	all := strings.Join(kids, " ")
	switch n.Kind {
	case code.Name:
		return n.Name
	case code.String:
		return `"` + n.Name + `"`
	case code.Number:
		return n.Name
	case code.Template:
		return "`" + all + "`"
	case code.True, code.False, code.Null:
		return map[code.Kind]string{code.True: "true", code.False: "false", code.Null: "null"}[n.Kind]
	case code.Member:
		return kids[0] + "." + n.Name
	case code.Index:
		return kids[0] + "[" + strings.Join(kids[1:], "") + "]"
	case code.Call:
		return kids[0] + "(" + strings.Join(kids[1:], ", ") + ")"
	case code.New:
		return "new " + kids[0] + "(" + strings.Join(kids[1:], ", ") + ")"
	case code.Keyword, code.Pair:
		return n.Name + ": " + all
	case code.Object:
		return "{" + strings.Join(kids, ", ") + "}"
	case code.Array:
		return "[" + strings.Join(kids, ", ") + "]"
	case code.Binary:
		return "(" + kids[0] + " " + n.Name + " " + kids[1] + ")"
	case code.Cond:
		return "(" + kids[0] + " ? " + kids[1] + " : " + kids[2] + ")"
	case code.Unary:
		return n.Name + all
	case code.Func:
		return "fn"
	}
	return all
}

// facts lists what a file binds and calls, and what it imports.
func facts(f *code.File) string {
	var list []string
	for _, i := range f.Imports {
		list = append(list, "import "+i.Node.Name)
	}
	f.Body.Walk(func(n *code.Node) bool {
		switch n.Kind {
		case code.Class:
			list = append(list, "class "+n.Name)
		case code.Func:
			if n.Name != "" {
				list = append(list, "func "+n.Name)
			}
		case code.Bind:
			list = append(list, sketch(n.Kid(0))+" = "+sketch(n.Kid(1)))
		case code.Assign:
			list = append(list, sketch(n.Kid(0))+" "+n.Name+" "+sketch(n.Kid(1)))
			return false
		case code.ExprStmt:
			if n.Kid(0).Is(code.Call) || n.Kid(0).Is(code.Await) {
				list = append(list, sketch(n.Kid(0)))
			}
		case code.Return:
			list = append(list, "return "+sketch(n.Kid(0)))
		case code.If:
			list = append(list, "if "+sketch(n.Kid(0)))
		}
		return true
	})
	return strings.Join(list, "\n")
}

func TestReadsTheOtherLanguages(t *testing.T) {
	for _, c := range []struct{ name, src, want string }{
		{"Gemfile.rb", "source \"https://index\"\nruby \"3.4.1\" # no 9.9\ngem 'rails', '~> 8.0', '>= 8.0.1'\ngroup :development, :test do\n  gem \"debug\", require: false, :platforms => %i[mri windows]\nend\ngem \"puma\" if ENV[\"PUMA\"]\n",
			"source(\"https://index\")\nruby(\"3.4.1\")\ngem(\"rails\", \"~> 8.0\", \">= 8.0.1\")\ngroup(\"development\", \"test\", fn)\ngem(\"debug\", require: false, platforms: [\"mri\", \"windows\"])\nif ENV[\"PUMA\"]\ngem(\"puma\")"},
		{"app.rb", "require 'sinatra'\nrequire_relative \"lib/stars\"\n=begin\nset :port, 1\n=end\nset :port, ENV.fetch('PORT') { 4567 }.to_i\nPORT = (ENV['PORT'] || \"3#{0}00\").to_i\nclass Gate < Sinatra::Base\n  def self.port = 5\n  def hello(name, at = 2)\n    return nil unless name&.up?\n    puts <<~TEXT, 1\n      say #{name} end\n    TEXT\n  end\nend\n",
			"import sinatra\nimport ./lib/stars\nrequire(\"sinatra\")\nrequire_relative(\"lib/stars\")\nset(\"port\", ENV.fetch(\"PORT\", fn).to_i)\nPORT = (ENV[\"PORT\"] || `\"3\" 0 \"00\"`).to_i\nclass Gate\nfunc port\nfunc hello\nif !name.up?\nreturn null\nputs(`\"say \" name \" end\n\"`, 1)"},
		{"Main.java", "package hill.gate;\nimport static java.util.Map.*;\nimport spark.Spark;\n@SpringBootApplication(scanBasePackages = \"hill\")\npublic class Main extends Base implements Runnable {\n  private static final int PORT = Integer.parseInt(System.getenv().getOrDefault(\"PORT\", \"8080\"));\n  public static void main(String[] args) throws Exception {\n    var server = HttpServer.create(new InetSocketAddress(PORT), 0); // server.start()\n    Map<String, List<Integer>> m = new HashMap<>();\n    if (args.length > 0) { Spark.port(1_000); } else Spark.port(2000);\n    server.createContext(\"/\", x -> x.close());\n    String s = \"\"\"\n      port(1)\n      \"\"\";\n    int p = (int) Long.parseLong(s);\n    for (String a : args) use(a);\n  }\n}\n",
			"import java.util.Map.*\nimport spark.Spark\npackage(\"hill.gate\")\nclass Main\nPORT = Integer.parseInt(System.getenv().getOrDefault(\"PORT\", \"8080\"))\nfunc main\nserver = HttpServer.create(new InetSocketAddress(PORT), 0)\nm = new HashMap()\nif (args.length > 0)\nSpark.port(1000)\nSpark.port(2000)\nserver.createContext(\"/\", fn)\ns = \"port(1)\n\"\np = int(Long.parseLong(s))\na = -\nuse(a)"},
		{"Main.kt", "import io.ktor.server.engine.*\nfun main() {\n  val port = System.getenv(\"PORT\")?.toInt() ?: 8080 /* a /* b */ */\n  embeddedServer(Netty, port = port, host = \"0.0.0.0\") {\n    routing { get(\"/\") { call.respondText(\"up $port ${port + 1}\") } }\n  }.start(wait = true)\n}\nclass Night(val at: Int = 3) : Base() {\n  fun clear(): Boolean = true\n}\n",
			"import io.ktor.server.engine.*\nfunc main\nport = (System.getenv(\"PORT\").toInt() ?? 8080)\nembeddedServer(Netty, port: port, host: \"0.0.0.0\", fn).start(wait: true)\nrouting(fn)\nget(\"/\", fn)\ncall.respondText(`\"up \" port \" \" (port + 1)`)\nclass Night\nfunc constructor\nfunc clear\nreturn true"},
		{"build.gradle", "plugins {\n  id 'java'\n  id 'org.springframework.boot' version '4.0.0'\n}\nversion = '1.2'\ndependencies {\n  implementation 'org.slf4j:slf4j-api:2.0.17', 'a:b:1'\n  testImplementation(\"c:d:$v\")\n  implementation group: 'e', name: 'f', version: '1'\n}\njava { toolchain { languageVersion = JavaLanguageVersion.of(21) } }\n",
			"plugins(fn)\nid(\"java\")\nid(\"org.springframework.boot\").version(\"4.0.0\")\nversion = \"1.2\"\ndependencies(fn)\nimplementation(\"org.slf4j:slf4j-api:2.0.17\", \"a:b:1\")\ntestImplementation(`\"c:d:\" v`)\nimplementation(group: \"e\", name: \"f\", version: \"1\")\njava(fn)\ntoolchain(fn)\nlanguageVersion = JavaLanguageVersion.of(21)"},
		{"index.php", "<html><?= $title ?></html>\n<?php\nuse Slim\\Factory\\AppFactory;\nrequire __DIR__ . '/vendor/autoload.php'; # no\n$port = getenv('PORT') ?: 8080;\n$app = AppFactory::create();\n$app->get('/', function ($q, $r) use ($port) { return $r->write(\"up {$q->a} $port\"); });\nclass Night extends Base { public int $at = 3; private const MAX = ['a' => 1, 'b' => 2]; public function clear(string $x = 'y'): bool { return true; } }\n$t = <<<EOT\n  say $x\n  EOT;\n$app->run();\n",
			"import Slim\\Factory\\AppFactory\nimport ./vendor/autoload.php\nrequire((__DIR__ .+ \"/vendor/autoload.php\"))\n$port = (getenv(\"PORT\") || 8080)\n$app = AppFactory.create()\n$app.get(\"/\", fn)\nreturn $r.write(`\"up \" $q.a \" \" $port`)\nclass Night\n$at = 3\nMAX = {a: 1, b: 2}\nfunc clear\nreturn true\n$t = `\"say \" $x`\n$app.run()"},
		{"Program.cs", "using Microsoft.AspNetCore.Builder;\nusing Alias = System.Text;\nnamespace Hill.Gate;\nvar builder = WebApplication.CreateBuilder(args);\nvar port = Environment.GetEnvironmentVariable(\"PORT\") ?? \"8080\";\nbuilder.WebHost.UseUrls($\"http://0.0.0.0:{port}\");\nvar app = builder.Build();\napp.MapGet(\"/\", () => \"up\");\n[ApiController]\n[Route(\"api\")]\npublic class Night : Base {\n  public int At { get; set; } = 3;\n  public string Path => @\"C:\\a\"\"b\";\n  public async Task<int> Clear(string x = \"y\") { await Task.Delay(1); return 2; }\n}\napp.Run();\n",
			"import Microsoft.AspNetCore.Builder\nimport System.Text\nbuilder = WebApplication.CreateBuilder(args)\nport = (Environment.GetEnvironmentVariable(\"PORT\") ?? \"8080\")\nbuilder.WebHost.UseUrls(`\"http://0.0.0.0:\" port`)\napp = builder.Build()\napp.MapGet(\"/\", fn)\nclass Night\nAt = 3\nPath = \"C:\\a\"b\"\nfunc Clear\nTask.Delay(1)\nreturn 2\napp.Run()"},
		{"main.rs", "use axum::{routing::get, Router};\nuse std::env;\n#[tokio::main]\nasync fn main() -> Result<(), Box<dyn Error>> {\n    let port: u16 = env::var(\"PORT\").unwrap_or_else(|_| \"3000\".to_string()).parse().expect(\"x\");\n    let listener = tokio::net::TcpListener::bind(format!(\"0.0.0.0:{port}\")).await.unwrap();\n    let raw = r#\"a \"b\" c\"#; // 'x\n    let c: &'static str = \"d\"; let k = 'k';\n    let v = xs.iter().collect::<Vec<_>>();\n    if cfg!(debug_assertions) { return Ok(()); }\n    axum::serve(listener, app).await?;\n    Ok(())\n}\npub struct Night { at: u8 }\nimpl Night { pub fn clear(&self) -> bool { true } }\n",
			"import axum\nimport std::env\nfunc main\nport = env.var(\"PORT\").unwrap_or_else(fn).parse().expect(\"x\")\nlistener = tokio.net.TcpListener.bind(format(\"0.0.0.0:{port}\")).unwrap()\nraw = \"a \"b\" c\"\nc = \"d\"\nk = \"k\"\nv = xs.iter().collect()\nif cfg(debug_assertions)\nreturn Ok([])\naxum.serve(listener, app)\nOk([])\nclass Night\nat = -\nclass Night\nfunc clear"},
		{"mix.exs", "defmodule Gate.MixProject do\n  use Mix.Project\n  @port 4000\n  def project do\n    [app: :gate, version: \"0.1.0\", elixir: \"~> 1.18\", deps: deps()]\n  end\n  defp deps, do: [{:bandit, \"~> 1.8\"}, {:ex_doc, \">= 0.0.0\", only: :dev}]\nend\n",
			"import Mix.Project\nclass Gate.MixProject\nport = 4000\nfunc project\nfunc deps"},
		{"runtime.exs", "import Config\nif config_env() == :prod do\n  port = String.to_integer(System.get_env(\"PORT\") || \"4000\")\n  config :gate, GateWeb.Endpoint, http: [ip: {0, 0, 0, 0}, port: port], url: [host: \"h\"]\nelse\n  config :gate, x: ~s(a b), y: \"#{port}x\"\nend\n\"8\" |> String.to_integer() |> serve(1)\n",
			"import Config\nif (config_env() == \"prod\")\nport = String.to_integer((System.get_env(\"PORT\") || \"4000\"))\nconfig(\"gate\", GateWeb.Endpoint, http: {ip: [0, 0, 0, 0], port: port}, url: {host: \"h\"})\nconfig(\"gate\", x: \"a b\", y: `port \"x\"`)\nserve(String.to_integer(\"8\"), 1)"},
	} {
		got := facts(readAs(c.name, c.src))
		if got != c.want {
			g, w := strings.Split(got, "\n"), strings.Split(c.want, "\n")
			for i := range max(len(g), len(w)) {
				a, b := "", ""
				if i < len(g) {
					a = g[i]
				}
				if i < len(w) {
					b = w[i]
				}
				if a != b {
					t.Errorf("%s, line %d:\n\tread   %s\n\twanted %s", c.name, i+1, a, b)
					break
				}
			}
			t.Logf("%s:\n%s", c.name, got)
		}
	}
}

func FuzzMoreLanguages(f *testing.F) {
	for _, s := range []string{"gem 'a' do |x| end if y", "<?php $a->b('c') ?: 1; ?>", "fn a<'b>(c: &'b str) { d!(1) }", "a |> b(c) ~s(d)", "class A<B> { C d(E f) throws G { } }", "<<~X + 1\n a\nX\n", "$\"a{b}\" @\"c\" \"\"\"d\"\"\""} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, src string) {
		for _, name := range []string{"a.rb", "a.java", "a.kt", "a.gradle", "a.php", "a.cs", "a.rs", "a.ex"} {
			file := readAs(name, src)
			file.Body.Walk(func(n *code.Node) bool {
				if n.Off < 0 || int(n.End) > len(src) {
					t.Fatalf("%s: a node from %d to %d of %d bytes", name, n.Off, n.End, len(src))
				}
				return true
			})
		}
	})
}
