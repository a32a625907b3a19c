package check_test

import (
	"slices"
	"strings"
	"testing"
)

// reads are programs that read variables in every way their language has for
// it: "must" where the program ends without it, the fallback where there is
// one, nothing where it may be missing.
var reads = []struct{ name, tree, want string }{
	{"Ruby", `-- Procfile --
web: ruby s.rb
-- s.rb --
a = ENV["A1"]
b = ENV.fetch("B1")
c = ENV.fetch("C1", "x")
d = ENV["D1"] || "y"
e = ENV.fetch("E1") { 3 }
puts 1 if ENV.key?("F1")
g = ENV["G1"] or raise "no"
h = ENV["H1"].to_i
# ENV["NOT"]
i = "ENV['NOT']"
`, "A1, B1 must, C1 x, D1 y, E1 3, F1, G1 must, H1"},
	{"PHP", `-- Procfile --
web: php s.php
-- s.php --
<?php
$a = getenv("A1");
$b = $_ENV["B1"];
$c = $_SERVER["C1"] ?? "x";
$d = getenv("D1") ?: "y";
$e = env("E1", 3);
if (isset($_ENV["F1"])) {
  echo 1;
}
$g = getenv("G1") ?: throw new Exception("no");
$h = getenv("H1") or die("no");
$i = $_SERVER["REQUEST_METHOD"] . $_SERVER["HTTP_HOST"];
// getenv("NOT")
`, "A1, B1, C1 x, D1 y, E1 3, F1, G1 must, H1 must"},
	{"Java", `-- Procfile --
web: java S.java
-- S.java --
import java.util.Objects;
import java.util.Optional;

class S {
  public static void main(String[] args) {
    String a = System.getenv("A1");
    String b = System.getenv().get("B1");
    String c = System.getenv().getOrDefault("C1", "x");
    String d = Optional.ofNullable(System.getenv("D1")).orElse("y");
    if (System.getenv("F1") != null) {
      System.out.println(a + b + c + d);
    }
    var g = Objects.requireNonNull(System.getenv("G1"));
    /* System.getenv("NOT") */
  }
}
`, "A1, B1, C1 x, D1 y, F1, G1 must"},
	{"Elixir", `-- Procfile --
web: elixir s.exs
-- s.exs --
a = System.get_env("A1")
b = System.fetch_env!("B1")
c = System.get_env("C1", "x")
d = System.get_env("D1") || "y"

case System.fetch_env("E1") do
  {:ok, v} -> v
  :error -> 1
end

if System.get_env("F1"), do: 1
g = System.get_env("G1") || raise "no"
`, "A1, B1 must, C1 x, D1 y, E1, F1, G1 must"},
	{".NET", dotnet("") + `-- Program.cs --
var builder = WebApplication.CreateBuilder(args);
var a = Environment.GetEnvironmentVariable("A1");
var b = Environment.GetEnvironmentVariable("B1") ?? throw new Exception("no");
var c = Environment.GetEnvironmentVariable("C1") ?? "x";
var d = builder.Configuration["D1"];
if (Environment.GetEnvironmentVariable("F1") is null)
{
    Console.WriteLine(a);
}
builder.Build().Run();
`, "A1, B1 must, C1 x, D1, F1"},
	{"Rust", cargo("") + `-- Procfile --
web: ./target/release/dome
-- src/main.rs --
use std::env;

fn main() {
    let a = env::var("A1").unwrap();
    let b = env::var("B1").expect("no");
    let c = env::var("C1").unwrap_or_else(|_| "x".into());
    let d = env::var("D1").unwrap_or("y".to_string());
    let e = env::var("E1").ok();
    if let Ok(v) = env::var("F1") {
        println!("{v}");
    }
    let g = match env::var("G1") {
        Ok(v) => v,
        Err(_) => "z".into(),
    };
    let h = env::var("H1").map(|p| p.parse().unwrap()).unwrap_or(3);
    let Ok(i) = env::var("I1") else {
        std::process::exit(1);
    };
}
`, "A1 must, B1 must, C1 x, D1 y, E1, F1, G1, H1 3, I1 must"},
	{"Go", `-- go.mod --
module dome

go 1.25
-- Procfile --
web: bin/dome
-- main.go --
package main

import "fmt"; import "log"; import "os"

func main() {
	a := os.Getenv("A1")
	b := os.Getenv("B1")
	if b == "" {
		log.Fatal("no")
	}
	c := os.Getenv("C1")
	if c == "" {
		c = "x"
	}
	d, ok := os.LookupEnv("D1")
	fmt.Println(a, b, c, d, ok)
}
`, "A1, B1 must, C1, D1"},
	{"Node.js", `-- Procfile --
web: node s.js
-- s.js --
const a = process.env.A1;
const { B1, C1 = "x" } = process.env;
const d = process.env["D1"] ?? "y";
if (process.env.E1 === "on") console.log(a, B1, C1, d);
const need = (name) => {
  if (!process.env[name]) throw new Error(name);
};
if (!process.env.G1) throw new Error("no");
`, "A1, B1, C1 x, D1 y, E1, G1 must"},
}

func TestReads(t *testing.T) {
	t.Parallel()
	for _, c := range reads {
		t.Run(c.name, func(t *testing.T) {
			t.Parallel()
			r := run(t, plant(t, c.tree), nil)
			if len(r.Components) == 0 || len(r.Components[0].Starts) == 0 {
				t.Fatal("nothing is found that starts")
			}
			var got []string
			for _, v := range r.Components[0].Starts[0].Variables {
				switch {
				case v.Required:
					got = append(got, v.Name+" must")
				case v.HasFall:
					got = append(got, v.Name+" "+v.Fallback)
				default:
					got = append(got, v.Name)
				}
			}
			slices.Sort(got)
			if all := strings.Join(got, ", "); all != c.want {
				t.Errorf("reads %s\nwanted %s", all, c.want)
			}
		})
	}
}
