package trace_test

import (
	"strings"
	"testing"
)

// TestLanguages follows programs of Ruby, PHP and Java. What they print was read
// from their own interpreters (ruby 3.1, php 8.2, java 17).
func TestLanguages(t *testing.T) {
	t.Parallel()
	for _, c := range []struct{ file, source, env, want string }{
		{"s.rb", "h = { a: 1, 'b' => 2 }\nprobe(h[:a], h['a'].nil?, h.map { |k, v| \"#{k}#{v}\" }.join('-'), h.sum { |_, v| v })\n", "", "1 true \"a1-b2\" 3"},
		{"s.rb", "a, (b, *c), d = 1, [2, 3, 4], 5\nprobe(a, b, c.length, d)\n", "", "1 2 2 5"},
		{"s.rb", "def f(a, b = a + 1, *r, k: 3, **o, &blk) = blk.call(a + b + r.sum + k + o.length)\nprobe(f(1, 2, 3, k: 4, z: 0) { |x| x * 10 }, f(1) { |x| x })\n", "", "110 6"},
		{"s.rb", "x = [1, 2, 3, 4].each_slice(2).map(&:sum)\nprobe(*x, x.inject(:*), x.include?(7), x.first, x.last)\n", "", "3 7 21 true 3 7"},
		{"s.rb", "class A\n  attr_accessor :n\n  def initialize(n) = @n = n\n  def +(o) = A.new(n + o.n)\n  def [](i) = n * i\n  def n=(v)\n    @n = v * 2\n  end\n  def self.[](n) = new(n)\nend\na = A[3] + A.new(4)\na.n = 5\nprobe(a.n, a[2], A.new(1).n)\n", "", "10 20 1"},
		{"s.rb", "class B\n  def each\n    yield 1\n    yield 2\n    3\n  end\nend\nt = 0\nr = B.new.each { |x| next if x == 1; t += x }\nb = B.new.each { |x| break x * 100 }\nprobe(t, r, b)\n", "", "2 3 100"},
		{"s.rb", "def f\n  [1, 2].each { |x| return x if x > 1 }\n  0\nend\nl = ->(x) { return x + 1 }\nprobe(f, l.call(1), l.(2))\n", "", "2 2 3"},
		{"s.rb", "v = begin\n  Integer(ENV['P'])\nrescue ArgumentError => e\n  -1\nelse\n  99\nensure\n  probe('end')\nend\nprobe(v)\n", "P=x", "\"end\"; -1"},
		{"s.rb", "class E1 < StandardError; end\nclass E2 < E1; end\nbegin\n  raise E2, 'far'\nrescue E1 => e\n  probe(e.message, e.is_a?(StandardError))\nend\n", "", "\"far\" true"},
		{"s.rb", "i = 0\ni += 1 while i < 7\nj = 10\nuntil j < 5 do j -= 2 end\nprobe(i, j, (1..3).to_a.length, (1...10).step(3).to_a.last)\n", "", "7 4 3 7"},
		{"s.rb", "s = +'a'\ns << 'b' << 'c'\nprobe(s, s.sub('b', 'x'), s =~ /c/, 'k=v=w'.split('=', 2).last, 'AbC'.swapcase.length)\n", "", "\"abc\" \"axc\" 2 \"v=w\" 3"},
		{"s.rb", "m = /(?<h>\\w+):(\\d+)/.match('dome:80')\nprobe(m[:h]) if m\nprobe('a1b22'.scan(/\\d+/).length, 'x'.match?(/y/), $~.nil?)\n", "", "\"dome\"; 2 false false"},
		{"s.rb", "case [1, 'x']\nwhen Array then probe('list')\nend\ncase 7\nwhen 1..5, 9 then probe(1)\nwhen ->(n) { n > 6 } then probe(2)\nelse probe(3)\nend\n", "", "\"list\"; 2"},
		{"s.rb", "module M\n  def self.included(b) = b.extend(C)\n  module C\n    def make(n) = new(n)\n  end\n  def twice = @n * 2\nend\nclass K\n  include M\n  def initialize(n) = (@n = n)\nend\nprobe(K.make(4).twice)\n", "", "8"},
		{"s.rb", "P = Struct.new(:x, :y) do\n  def sum = x + y\nend\np = P.new(1, 2)\np.x = 5\nQ = Struct.new(:h, keyword_init: true)\nprobe(p.sum, p.to_a.length, Q.new(h: 'z').h)\n", "", "7 2 \"z\""},
		{"s.rb", "o = Object.new\ndef o.hi(x) = x.to_s * 2\nprobe(o.hi(3), o.respond_to?(:hi), [3, 1, 2].sort_by { |z| -z }.first, %w[b a].min)\n", "", "\"33\" true 3 \"a\""},
		{"s.rb", "h = Hash.new { |hash, k| hash[k] = k.to_s.length }\nh[:abc]\nprobe(h[:abc], h.size, h.fetch(:q, 9), h.dig(:abc), { a: { b: 1 } }.dig(:a, :b))\n", "", "3 1 9 3 1"},
		{"s.rb", "catch(:done) do\n  10.times { |i| throw :done if i == 3; probe(i) }\nend\n", "", "0; 1; 2"},
		{"s.rb", "x = 5.clamp(1, 3)\ny = -7 / 2\nz = -7 % 3\nprobe(x, y, z, 7.fdiv(2), 2**10)\n", "", "3 -4 2 3.5 1024"},
		{"s.rb", "def m(*args, **kw)\n  \"#{args.length}#{kw.keys.join}\"\nend\nopts = { a: 1 }\nprobe(m(1, **opts, b: 2), m(*[1, 2], 3), m({ c: 1 }))\n", "", "\"1ab\" \"3\" \"1\""},
		{"s.rb", "a = [1, nil, 2].compact.each_with_index.map { |x, i| x * i }\nb = %i[p q].zip([1, 2]).to_h\nprobe(a.sum, b[:q], b.key(1).to_s, b.any? { |k, v| v > 1 }, b.reject { |k, _| k == :p }.keys.first.to_s)\n", "", "2 2 \"p\" true \"q\""},
		{"s.rb", "class S\n  class << self\n    attr_writer :v\n    def v = @v ||= 3\n  end\n  @@n = 0\n  N = 2\n  def initialize = @@n += N\n  def self.n = @@n\nend\nS.new\nS.new\nprobe(S.v, S.n, S::N)\n", "", "3 4 2"},
		{"s.rb", "v = ENV.fetch('A') { |k| k.downcase }\nw = ENV['B']&.to_i || 4\nprobe(v, w, ENV.key?('C'), ENV.fetch('C', nil).to_s.empty?)\n", "B=6", "\"a\" 6 false true"},
		{"s.php", "<?php\n$a = ['x' => 1, 2, 3]; $b = $a; $b['x'] = 9; $b[] = 4; probe($a['x'], count($b), $b[2], implode(',', array_keys($b)), end($b));\n", "", "1 4 4 \"x,0,1,2\" 4"},
		{"s.php", "<?php\n[$p, [, $q]] = [1, [2, 3]]; ['k' => $r] = ['k' => 5]; [$p, $q] = [$q, $p]; probe($p, $q, $r);\n", "", "3 1 5"},
		{"s.php", "<?php\nfunction f(int $a, int ...$r) { return $a + array_sum($r); } $g = fn($x) => $x * 2; $h = function ($x) use (&$n) { $n += $x; }; $h(3); $h(4); probe(f(1, 2, 3), $g(4), $n, array_map('strtoupper', ['a'])[0]);\n", "", "6 8 7 \"A\""},
		{"s.php", "<?php\nfunction inc(&$x, array &$l) { $x++; $l[] = $x; } $v = 1; $l = []; inc($v, $l); inc($v, $l); probe($v, count($l), $l[1]);\n", "", "3 2 3"},
		{"s.php", "<?php\nforeach ([1, 2, 3] as $i => &$x) {} $l = [1, 2, 3]; foreach ($l as $k => &$y) { $y *= 10; } unset($y); probe($l[2], array_search(20, $l), '10' == '1e1', 'abc' == 0, null ?? 'd', 0 ?: 'e', '5' + '6', '5' . '6', 7 % 3, intdiv(7, 2));\n", "", "30 1 true false \"d\" \"e\" 11 \"56\" 1 3"},
		{"s.php", "<?php\nabstract class A { protected static int $n = 0; public function __construct(protected string $name = 'a') { static::$n++; self::note(); } abstract function hi(): string; static function note() { static::$n += 10; } static function n() { return self::$n; } } class B extends A { const K = 'k'; function hi(): string { return $this->name . self::K . parent::class; } function __get($p) { return \"no $p\"; } } $b = new B('z'); probe($b->hi(), A::n(), $b->far, $b instanceof A);\n", "", "\"zkA\" 11 \"no far\" true"},
		{"s.php", "<?php\ntry { throw new DomainException('far'); } catch (RuntimeException $e) { probe(1); } catch (LogicException $e) { probe($e->getMessage()); } finally { probe('end'); }\n", "", "\"far\"; \"end\""},
		{"s.php", "<?php\n$i = 0; while (true) { if (++$i > 5) break; if ($i % 2) continue; probe($i); } for ($i = 0, $s = ''; $i < 3; $s .= $i++); probe($s); do { $i--; } while ($i > 1); probe($i);\n", "", "2; 4; \"012\"; 1"},
		{"s.php", "<?php\nenum S: int { case A = 1; case B = 2; const D = self::B; function up(): int { return match(true) { $this->value > 1 => 20, default => 10 }; } } probe(S::from(2)->name, S::tryFrom(9) === null, S::D->up(), count(S::cases()));\n", "", "\"B\" true 20 2"},
		{"s.php", "<?php\nprobe(sprintf('%s:%05d', 'h', 42), substr('abcdef', -3, 2), strpos('dome', 'm'), str_pad('7', 3, '0', STR_PAD_LEFT), ucfirst('sky'), trim(' x '), explode(':', 'a:b:c', 2)[1], preg_replace('/(\\d+)/', '<$1>', 'a1b'), json_decode('{\"a\": {\"b\": [1, 2]}}', true)['a']['b'][1]);\n", "", "\"h:00042\" \"de\" 2 \"007\" \"Sky\" \"x\" \"b:c\" \"a<1>b\" 2"},
		{"s.php", "<?php\n$x = ['b' => 2, 'a' => 1]; ksort($x); probe(array_key_first($x));\n", "", "\"a\""},
		{"s.php", "<?php\n$f = array_filter(['a' => '', 'b' => '0', 'c' => 'x']); $m = array_merge(['p' => 1, 5], ['p' => 2, 6]); $c = array_column([['i' => 1, 'n' => 'x'], ['i' => 2, 'n' => 'y']], 'n', 'i'); probe(count($f), $m['p'], $m[1], $c[2], array_reduce([1, 2], fn($s, $v) => $s + $v, 10), in_array('1', [1, 2], true), array_slice([1, 2, 3], 1)[0]);\n", "", "1 2 6 \"y\" 13 false 2"},
		{"s.php", "<?php\n$v = getenv('A'); probe($v === false, getenv('B'), $_SERVER['B'] ?? 'no', isset($_SERVER['A']), empty(getenv('B')), (int) getenv('B') + 1);\n", "B=7", "true \"7\" \"7\" false false 8"},
		{"S.java", "import java.util.*; import java.util.function.*; import java.util.stream.*;\nclass S {\npublic static void main(String[] args) throws Exception { int n = 0; outer: for (int i = 0; i < 3; i++) { for (int j : new int[] {1, 2}) { if (j == 2) continue outer; if (i == 2) break outer; n += i + j; } } probe(n, 7 / 2, 7.0 / 2, -7 % 3, 'a' + 1, (char) ('a' + 1)); }\n}\n", "", "3 3 3.5 -1 98 \"b\""},
		{"S.java", "import java.util.*; import java.util.function.*; import java.util.stream.*;\nclass S {\npublic static void main(String[] args) throws Exception { String s = \"a:b\"; String[] p = s.split(\":\"); probe(p.length, p[1].toUpperCase(), s.indexOf(':'), s.substring(2), \"x\".repeat(3), String.join(\"-\", p), \"%03d|%s\".formatted(7, true)); }\n}\n", "", "2 \"B\" 1 \"b\" \"xxx\" \"a-b\" \"007|true\""},
		{"S.java", "import java.util.*; import java.util.function.*; import java.util.stream.*;\nclass S {\npublic static void main(String[] args) throws Exception { Map<String, Integer> m = new LinkedHashMap<>(); m.put(\"a\", 1); m.merge(\"a\", 4, Integer::sum); m.computeIfAbsent(\"b\", k -> k.length()); int t = 0; for (Map.Entry<String, Integer> e : m.entrySet()) t += e.getValue(); probe(t, m.getOrDefault(\"c\", 9), m.containsKey(\"b\"), m.keySet().iterator().next()); }\n}\n", "", "6 9 true \"a\""},
		{"S.java", "import java.util.*; import java.util.function.*; import java.util.stream.*;\nclass S {\npublic static void main(String[] args) throws Exception { List<Integer> l = Stream.of(3, 1, 2).sorted().map(x -> x * 2).filter(x -> x > 2).toList(); probe(l.size(), l.get(0), l.stream().mapToInt(Integer::intValue).sum(), IntStream.rangeClosed(1, 4).reduce(1, (a, b) -> a * b), l.contains(6)); }\n}\n", "", "2 4 10 24 true"},
		{"S.java", "import java.util.*; import java.util.function.*; import java.util.stream.*;\nclass S {\npublic static void main(String[] args) throws Exception { int r; try { r = Integer.parseInt(\"x\"); } catch (NumberFormatException | NullPointerException e) { r = -1; } finally { probe(\"end\"); } probe(r); }\n}\n", "", "\"end\"; -1"},
		{"S.java", "import java.util.*; import java.util.function.*; import java.util.stream.*;\nclass S {\npublic static void main(String[] args) throws Exception { String v = System.getenv(\"A\"); var o = Optional.ofNullable(v).map(String::trim).filter(x -> !x.isEmpty()); probe(o.isPresent(), o.map(Integer::valueOf).orElseGet(() -> 5), o.or(() -> Optional.of(\"z\")).get()); }\n}\n", "A= 7 ", "true 7 \"7\""},
		{"S.java", "import java.util.*; import java.util.function.*; import java.util.stream.*;\nclass S {\npublic static void main(String[] args) throws Exception { var sb = new StringBuilder(); int i = 0; do { sb.append(i++).append(','); } while (i < 3); sb.setLength(sb.length() - 1); probe(sb.toString(), sb.reverse().toString()); }\n}\n", "", "\"0,1,2\" \"2,1,0\""},
		{"S.java", "import java.util.*; import java.util.function.*; import java.util.stream.*;\nclass S {\npublic static void main(String[] args) throws Exception { int k = switch (\"b\") { case \"a\" -> 1; case \"b\", \"c\" -> { int q = 4; yield q * 2; } default -> 0; }; probe(k); switch (k) { case 8: probe(\"eight\"); break; default: probe(\"no\"); } }\n}\n", "", "8; \"eight\""},
		{"S.java", "import java.util.*; import java.util.function.*; import java.util.stream.*;\nclass S {\npublic static void main(String[] args) throws Exception { Object x = \"text\"; if (x instanceof String s && s.length() == 4) probe(s); Runnable r = () -> probe(1); r.run(); Supplier<Integer> q = () -> 2; Function<Integer, Integer> f = a -> a + 1; probe(f.andThen(b -> b * 10).apply(q.get())); }\n}\n", "", "\"text\"; 1; 30"},
	} {
		env := map[string]string{}
		if k, v, ok := strings.Cut(c.env, "="); ok {
			env[k] = v
		}
		if got, r := follow(t, c.file, map[string]string{c.file: c.source}, env); got != c.want {
			t.Errorf("%s\ngives %s\n  not %s (%s%s)", c.source, got, c.want, r.Reason, r.Ended)
		}
	}
}
