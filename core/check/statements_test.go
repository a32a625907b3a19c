package check_test

import (
	"fmt"
	"strings"
	"testing"
)

// javaStatements are statements and, behind the last ;;, an expression: the port is made of its text.
var javaStatements = []struct {
	code string
	port int
}{
	{`"a,b,,c".split(",").length + "x".repeat(3) + "abc".chars().filter(c -> c > 'a').count()`, 12402},
	{`String.join("-", List.of("a", "b")) + " ab ".strip() + "Ab".toLowerCase()`, 12120},
	{`"a=b=c".split("=", 2)[1] + "abc".indexOf('c') + "abcabc".lastIndexOf("b") + "abc".charAt(1)`, 12848},
	{`"%s:%d %05.1f %x".formatted("h", 80, 3.14, 255)`, 12176},
	{`String.format("%-5s|%5s|%03d|%,d|%b", "a", "b", 7, 12345, true)`, 12795},
	{`"abc".substring(1) + "abc".replace('a', 'z') + "a1b2".replaceAll("[0-9]", "#") + "abc".contains("b")`, 12059},
	{`Integer.toHexString(255) + Integer.toBinaryString(5) + Integer.valueOf("12") + Integer.parseInt("-7") + Long.parseLong("9")`, 12036},
	{`Integer.compare(3, 5) + Integer.MAX_VALUE`, 12315},
	{`(byte) 200 + (short) 70000`, 12448},
	{`7 / 2 + 7 % 3 + -7 / 2 + -7 % 3`, 12048},
	{`7.0 / 2 + 1 / 3.0`, 12860},
	{`1 << 4 | 3 & 6 ^ 1`, 12676},
	{`5 > 3 ? "a" : "b"`, 12097},
	{`Math.max(3, 4) + Math.abs(-2) + Math.floorMod(-7, 3) + Math.round(2.5)`, 12668},
	{`Objects.requireNonNullElse(null, "d") + Objects.toString(null, "n") + Objects.equals("a", "a")`, 12148},
	{`Optional.ofNullable((String) null).map(String::length).orElseGet(() -> 5)`, 12053},
	{`Optional.of("7").filter(s -> s.length() > 3).or(() -> Optional.of("q")).get()`, 12113},
	{`List.of(3, 1, 2).stream().sorted(Comparator.reverseOrder()).map(String::valueOf).collect(Collectors.joining(","))`, 12238},
	{`IntStream.rangeClosed(1, 4).filter(i -> i % 2 == 0).sum() + IntStream.range(0, 3).boxed().toList().toString()`, 12117},
	{`Arrays.stream(new int[]{1, 2, 3}).max().getAsInt() + Arrays.asList(1, 2).toString() + Arrays.toString(new int[]{4})`, 12556},
	{`Map<String, Integer> m = new HashMap<>() ;; m.put("a", 1) ;; m.merge("a", 5, Integer::sum) ;; m.computeIfAbsent("b", k -> 9) ;; m.getOrDefault("c", 0) + m.get("a") * 10 + m.get("b")`, 12831},
	{`Map<String, String> m = new TreeMap<>(Map.of("b", "2", "a", "1")) ;; m.entrySet().stream().map(e -> e.getKey() + e.getValue()).collect(Collectors.joining())`, 12504},
	{`List<Integer> l = new ArrayList<>(List.of(1, 2, 3, 4)) ;; l.removeIf(x -> x % 2 == 0) ;; l.replaceAll(x -> x * 3) ;; l.toString() + l.indexOf(9) + l.contains(3)`, 12295},
	{`List<String> l = new ArrayList<>() ;; l.add("b") ;; l.add(0, "a") ;; Collections.reverse(l) ;; l.get(0) + l.size() + l.subList(0, 1)`, 12790},
	{`Deque<Integer> d = new ArrayDeque<>() ;; d.push(1) ;; d.addLast(2) ;; d.pop() + d.peekLast()`, 12051},
	{`StringBuilder b = new StringBuilder("ab") ;; b.append(1).insert(0, 'x').reverse().setLength(3) ;; b.toString() + b.length()`, 12895},
	{`int x = 5 ;; x += 3.7 ;; x`, 12056},
	{`char c = 'a' ;; c += 1 ;; c + "" + (char) (c + 1) + (int) c`, 12580},
	{`TOP enum Mode { DEV(1), LIVE(2); final int n; Mode(int n) { this.n = n; } static Mode of(String s) { return valueOf(s.toUpperCase()); } } ;; Mode.of("live").n + Mode.values().length + Mode.DEV.name() + Mode.LIVE.ordinal()`, 12504},
	{`TOP record P(String h, int p) { P { if (p < 0) throw new IllegalArgumentException(); } static P of(String s) { var a = s.split(":"); return new P(a[0], Integer.parseInt(a[1])); } P with(int n) { return new P(h, n); } } ;; P.of("h:80").with(9) + "" + P.of("a:1").equals(new P("a", 1))`, 12807},
	{`TOP sealed interface S permits A1, B1 {} ;; TOP record A1(int x) implements S {} ;; TOP record B1(String y) implements S {} ;; TOP static String f(S s) { if (s instanceof A1 a) return "a" + a.x(); return "b"; } ;; f(new A1(4)) + f(new B1("q"))`, 12427},
	{`TOP static abstract class Base { int n() { return 1 + m(); } abstract int m(); } ;; TOP static class Sub extends Base { int m() { return 4; } @Override int n() { return super.n() * 2; } } ;; new Sub().n()`, 12667},
	{`TOP static <T> T pick(T a, T b) { return a != null ? a : b; } ;; pick(null, "z") + pick(1, 2)`, 12231},
	{`TOP static int fact(int n) { return n < 2 ? 1 : n * fact(n - 1); } ;; fact(5)`, 12087},
	{`TOP static int count; ;; TOP static { count = 7; } ;; count++ ;; count`, 12056},
	{`String r; switch ("b") { case "a": r = "1"; break; case "b": r = "2"; default: r = "3"; } ;; r`, 12051},
	{`int d = 6 ;; switch (d) { case 1, 7 -> "we"; case 6 -> { String t2 = "s"; yield t2 + "at"; } default -> "x"; }`, 12238},
	{`Object o = 5 ;; o instanceof Integer n2 && n2 > 3 ? "big" : "small"`, 12336},
	{`int s = 0 ;; for (int k = 0; k < 5; k++) { if (k == 1) continue; if (k == 4) break; s += k; } ;; s`, 12053},
	{`int s = 0 ;; outer: for (int a = 0; a < 3; a++) for (int b = 0; b < 3; b++) { if (b == 2) continue outer; s += a * b + 1; } ;; s`, 12057},
	{`int s = 0 ;; int w = 5 ;; do { s += w--; } while (w > 2) ;; s`, 12669},
	{`String t2; try { Integer.parseInt("q"); t2 = "ok"; } catch (NumberFormatException e) { t2 = e.getMessage(); } finally { } ;; t2`, 12743},
	{`String t2; try { Object o2 = null; o2.toString(); t2 = "a"; } catch (IllegalStateException | NullPointerException e) { t2 = "npe"; } ;; t2`, 12383},
	{`int[][] g = {{1, 2}, {3}} ;; g[1][0] + g.length + g[0].length`, 12055},
	{`int[] a = new int[3] ;; Arrays.fill(a, 2) ;; a[1] = 5 ;; Arrays.stream(a).sum() + Arrays.copyOf(a, 5).length`, 12671},
	{`Pattern p2 = Pattern.compile("(\\w+):(?<port>\\d+)") ;; Matcher mm = p2.matcher("host:80") ;; mm.matches() + mm.group(1) + mm.group("port")`, 12038},
	{`URI u = URI.create("http://u:p@h.example:8080/a?x=1") ;; u.getHost() + u.getPort() + u.getPath() + u.getQuery() + u.getScheme()`, 12698},
	{`Path.of("a", "b").resolve("../c").normalize().toString() + Path.of("/x/y.txt").getFileName()`, 12762},
	{`Duration.ofMinutes(2).toSeconds() + Duration.parse("PT1H").toMinutes()`, 12273},
	{`BiFunction<Integer, Integer, Integer> f2 = (a, b) -> a * b ;; f2.andThen(x -> x + 1).apply(3, 4)`, 12670},
	{`Supplier<String> sp = () -> "s" ;; UnaryOperator<String> up = String::toUpperCase ;; up.apply(sp.get()) + Function.<Integer>identity().apply(3)`, 12824},
	{`Predicate<String> pr = String::isBlank ;; pr.negate().or(x -> x == null).test(" ")`, 12823},
	{`var list = new ArrayList<Map<String, Object>>() ;; list.add(Map.of("k", 1)) ;; list.get(0).get("k")`, 12049},
	{`Runnable r3 = () -> {} ;; r3.run() ;; String.valueOf((Object) null) + Boolean.parseBoolean("TRUE") + Character.isDigit('4') + Character.getNumericValue('7')`, 12584},
	{`"ab".equals("ab") + "" + "b".compareTo("a") + "Ab".equalsIgnoreCase("aB") + "abc".startsWith("b", 1) + "".isEmpty()`, 12341},
	{`Stream.iterate(1, x -> x * 2).limit(6).reduce(0, Integer::sum)`, 12825},
	{`Stream.of(1, 2, 3, 4).takeWhile(x -> x < 3).mapToInt(Integer::intValue).sum() + Stream.of("b", "a").sorted().findFirst().get()`, 12778},
	{`Arrays.asList("a:1", "b:2").stream().map(x -> x.split(":")).collect(Collectors.toMap(x -> x[0], x -> Integer.valueOf(x[1]))).get("b")`, 12050},
	{`List.of(List.of(1, 2), List.of(3)).stream().flatMap(List::stream).map(x -> x + "").toList().toString()`, 12246},
	{`Iterator<Integer> it = List.of(5, 6).iterator() ;; int q = 0 ;; while (it.hasNext()) q = q * 10 + it.next() ;; q`, 12797},
	{`Properties pp = new Properties() ;; pp.load(new java.io.StringReader("a=1\nb: 2\n#c\n")) ;; pp.getProperty("b") + pp.getProperty("z", "q") + pp.size()`, 12303},
	{`final int[] box = {1} ;; Runnable inc = () -> box[0] += 4 ;; inc.run() ;; inc.run() ;; box[0]`, 12057},
	{`-7 / 2`, 12546},
	{`-7 % 3`, 12544},
	{`7 / -2`, 12546},
	{`(-7) % 3`, 12544},
	{`-7 % 3 + 10`, 12057},
	{`int a = -7 ;; a % 3`, 12544},
	{`int a = -7 ;; a / 2`, 12546},
	{`String r = null; switch ("b") { case "a": r = "1"; break; case "b": r = "2"; default: r = "3"; } ;; r`, 12051},
	{`String r; if (3 > 2) { r = "x"; } else { r = "y"; } ;; r`, 12120},
	{`String r; switch ("b") { case "b": r = "2"; break; default: r = "3"; } ;; r`, 12050},
	{`List<Integer> l = new ArrayList<>(List.of(1, 2, 3, 4)) ;; l.removeIf(x -> x % 2 == 0) ;; l.toString()`, 12300},
	{`List<Integer> l = new ArrayList<>(List.of(1, 3)) ;; l.replaceAll(x -> x * 3) ;; l.toString()`, 12728},
	{`List<Integer> l = new ArrayList<>(List.of(1, 3)) ;; l.indexOf(3) + "" + l.contains(3)`, 12167},
	{`int[] a = new int[3] ;; Arrays.fill(a, 2) ;; a[1] = 5 ;; Arrays.stream(a).sum()`, 12057},
	{`Arrays.copyOf(new int[]{1}, 5).length`, 12053},
	{`Arrays.asList(1, 2).toString()`, 12269},
	{`Arrays.toString(new int[]{4})`, 12056},
	{`Arrays.stream(new int[]{1, 2, 3}).max().getAsInt()`, 12051},
	{`Duration.ofMinutes(2).toSeconds()`, 12087},
	{`Duration.parse("PT1H").toMinutes()`, 12822},
}

// goStatements are statements and, behind the last ;;, an expression: the port is made of its text.
var goStatements = []struct {
	code string
	port int
}{
	{`strings.Map(func(r rune) rune { if r == '-' { return '_' }; return unicode.ToUpper(r) }, "a-b")`, 12676},
	{`strings.Fields("  a b  c ")[1]`, 12098},
	{`strings.SplitN("a:b:c", ":", 2)[1]`, 12675},
	{`strings.TrimFunc("xxabxx", func(r rune) bool { return r == 'x' })`, 12405},
	{`strings.EqualFold("Go", "GO")`, 12538},
	{`strings.Repeat("ab", 3) + strings.Title("x")`, 12853},
	{`strings.Count("cheese", "e")`, 12051},
	{`strings.LastIndex("go gopher", "go")`, 12051},
	{`strings.IndexFunc("ab12", unicode.IsDigit)`, 12050},
	{`strings.TrimLeft("0008080", "0")`, 12808},
	{`strings.TrimSuffix(strings.TrimPrefix("http://h:80/", "http://"), "/")`, 12386},
	{`strings.NewReplacer("a", "1", "b", "2").Replace("abc")`, 12138},
	{`strings.Join([]string{"a", "b"}, "-")`, 12210},
	{`strings.ContainsAny("hello", "xyz") || strings.ContainsRune("abc", 'b')`, 12538},
	{`strings.Compare("a", "b")`, 12544},
	{`strconv.Quote("a\"b") + strconv.FormatInt(255, 16) + strconv.FormatBool(true)`, 12891},
	{`n, err := strconv.ParseInt("0x1f", 0, 64) ;; fmt.Sprint(n, err)`, 12247},
	{`n, err := strconv.ParseUint("70000", 10, 16) ;; fmt.Sprint(n, err)`, 12790},
	{`b, err := strconv.ParseBool("yes") ;; fmt.Sprint(b, err)`, 12794},
	{`f, _ := strconv.ParseFloat("1e3", 64) ;; int(f)`, 12823},
	{`_, err := strconv.Atoi("8080x") ;; err.Error()`, 12294},
	{`fmt.Sprintf("%s", errors.New("bad")) + fmt.Sprint(nil, 1, 2, "a", "b", 3)`, 12039},
	{`fmt.Errorf("wrap: %w", errors.New("x")).Error()`, 12532},
	{`e := errors.New("a") ;; w := fmt.Errorf("b: %w", e) ;; errors.Is(w, e)`, 12538},
	{`errors.Join(errors.New("a"), errors.New("b")).Error()`, 12025},
	{`m := map[string]int{"b": 2, "a": 1} ;; keys := slices.Sorted(maps.Keys(m)) ;; strings.Join(keys, ",")`, 12179},
	{`a := []int{3, 1, 2} ;; sort.Ints(a) ;; a`, 12818},
	{`a := []int{3, 1, 2} ;; slices.SortFunc(a, func(x, y int) int { return cmp.Compare(y, x) }) ;; a`, 12158},
	{`slices.Contains([]string{"a", "b"}, "b")`, 12538},
	{`slices.Index([]int{1, 2, 3}, 3) + slices.Max([]int{4, 9, 2})`, 12668},
	{`a := []int{1, 2, 3, 4} ;; a = append(a[:1], a[2:]...) ;; fmt.Sprint(a, len(a), cap(a))`, 12207},
	{`a := [...]int{1, 2, 3} ;; b := a ;; b[0] = 9 ;; fmt.Sprint(a, b)`, 12716},
	{`copyTo := make([]int, 2) ;; n := copy(copyTo, []int{7, 8, 9}) ;; fmt.Sprint(n, copyTo)`, 12379},
	{`x := 0 ;; for i := range 5 { x += i } ;; x`, 12667},
	{`x := "" ;; for i, r := range "aé" { x += fmt.Sprint(i, string(r)) } ;; x`, 12438},
	{`x := 0 ; outer: ; for i := 0; i < 3; i++ { ; for j := 0; j < 3; j++ { ; if j == 2 { continue outer } ; if i == 2 { break outer } ; x += i*3 + j ; } ; } ;; x`, 12056},
	{`var x any = 5 ;; s := "" ;; switch v := x.(type) { case string: s = "s" + v; case int: s = fmt.Sprint("i", v+1); default: s = "d" } ;; s`, 12609},
	{`x := 3 ;; s := "" ;; switch { case x > 2: s += "a"; fallthrough; case x > 10: s += "b"; default: s += "c" } ;; s`, 12405},
	{`TOP const ( A = iota + 1 ; B ; C ) ;; A + B*10 + C*100`, 12210},
	{`TOP const ( KB = 1 << (10 * (iota + 1)) ; MB ) ;; MB / KB`, 12889},
	{`TOP type Level int ;; TOP const ( Low Level = iota ; High ) ;; TOP func (l Level) String() string { return [...]string{"low", "high"}[l] } ;; fmt.Sprint(High, Low)`, 12246},
	{`TOP type S struct{ Name string; Port int } ;; TOP func (s *S) Set(p int) *S { s.Port = p; return s } ;; (&S{Name: "a"}).Set(4).Port`, 12052},
	{`TOP type Base struct{ Port int } ;; TOP func (b Base) Addr() string { return fmt.Sprint(":", b.Port) } ;; TOP type Srv struct { Base; Name string } ;; Srv{Base{80}, "x"}.Addr()`, 12822},
	{`TOP type Opt func(*cfg) ;; TOP type cfg struct{ p int } ;; TOP func P(p int) Opt { return func(c *cfg) { c.p = p } } ;; TOP func New(o ...Opt) cfg { c := cfg{1}; for _, f := range o { f(&c) }; return c } ;; New(P(3), P(5)).p`, 12053},
	{`TOP func Map[T, U any](a []T, f func(T) U) []U { var out []U; for _, x := range a { out = append(out, f(x)) }; return out } ;; Map([]int{1, 2}, func(i int) string { return strconv.Itoa(i * 2) })`, 12318},
	{`TOP type Num interface{ ~int | ~float64 } ;; TOP func Sum[T Num](a ...T) (s T) { for _, x := range a { s += x }; return } ;; Sum(1, 2, 3)`, 12054},
	{`TOP func f() (n int, err error) { defer func() { if r := recover(); r != nil { err = fmt.Errorf("got %v", r); n = 7 } }(); panic("p") } ;; n, err := f() ;; fmt.Sprint(n, err)`, 12531},
	{`s := "" ;; func() { for i := 0; i < 3; i++ { defer func() { s += strconv.Itoa(i) }() } }() ;; s`, 12117},
	{`url.QueryEscape("a b&c") + url.PathEscape("a b/c")`, 12884},
	{`net.JoinHostPort("::1", "80")`, 12571},
	{`net.ParseIP("10.0.0.1").String() + fmt.Sprint(net.ParseIP("x") == nil, net.ParseIP("127.0.0.1").IsLoopback())`, 12018},
	{`path.Join("/a", "../b", "c.txt") + path.Base("/x/y") + path.Ext("a.tar.gz") + path.Dir("/x/y/z")`, 12336},
	{"regexp.MustCompile(`(\\d+)-(\\w+)`).FindStringSubmatch(\"12-ab\")[2]", 12405},
	{"regexp.MustCompile(`a+`).ReplaceAllString(\"baaac\", \"x\")", 12797},
	{"regexp.MustCompile(`^\\d+$`).MatchString(\"123\")", 12538},
	{`d, _ := time.ParseDuration("1h30m") ;; d.Minutes()`, 12015},
	{`(90 * time.Second).String()`, 12762},
	{"var out struct{ A int `json:\"a\"`; B []string } ;; err := json.Unmarshal([]byte(`{\"a\": 3, \"B\": [\"x\"]}`), &out) ;; fmt.Sprint(out.A, out.B, err)", 12324},
	{"var m map[string]any ;; json.Unmarshal([]byte(`{\"p\": 80, \"n\": {\"x\": \"y\"}}`), &m) ;; m[\"n\"].(map[string]any)[\"x\"].(string) + fmt.Sprint(int(m[\"p\"].(float64)))", 12165},
	{`sc := bufio.NewScanner(strings.NewReader("a=1\nb=2\n")) ;; s := "" ;; for sc.Scan() { k, v, _ := strings.Cut(sc.Text(), "="); s += v + k } ;; s`, 12324},
	{`var b strings.Builder ;; b.WriteString("ab") ;; b.WriteByte('c') ;; fmt.Fprintf(&b, "%d", 4) ;; b.String()`, 12826},
	{`var b bytes.Buffer ;; b.WriteString("xy") ;; b.String() + fmt.Sprint(b.Len())`, 12321},
	{`os.Expand("$A-${B}", func(k string) string { return strings.ToLower(k) })`, 12210},
	{`math.Max(2, 3) + math.Floor(2.7) + math.Abs(-1)`, 12054},
	{`7/2 + 7%3 - -7/2`, 12055},
	{`1<<3 | 1 &^ 1 ^ 6`, 12671},
	{`string(rune(65)) + string([]byte{66, 67}) + fmt.Sprint([]rune("é")[0])`, 12680},
	{`len("é") + utf8.RuneCountInString("é")`, 12051},
	{`min(3, 1, 2) + max(4, 5)`, 12054},
	{`f := func(a ...int) int { return len(a) } ;; f([]int{1, 2}...) + f()`, 12050},
	{`var mu sync.Mutex ;; n := 0 ;; var wg sync.WaitGroup ;; for i := 0; i < 3; i++ { wg.Add(1); go func() { defer wg.Done(); mu.Lock(); n += i; mu.Unlock() }() } ;; wg.Wait() ;; n`, 12051},
	{`ch := make(chan int, 3) ;; go func() { for i := 0; i < 3; i++ { ch <- i * i }; close(ch) }() ;; s := 0 ;; for v := range ch { s += v } ;; s`, 12053},
	{`var once sync.Once ;; n := 0 ;; for i := 0; i < 3; i++ { once.Do(func() { n++ }) } ;; n`, 12049},
	{`ctx := context.WithValue(context.Background(), "k", 5) ;; ctx.Value("k").(int)`, 12053},
	{`TOP func gen(n int) func(func(int) bool) { return func(yield func(int) bool) { for i := 0; i < n; i++ { if !yield(i) { return } } } } ;; s := 0 ;; for v := range gen(4) { if v == 3 { break }; s += v } ;; s`, 12051},
	{`x, y := 1, 2 ;; x, y = y, x ;; x*10 + y`, 12699},
	{`if v, err := strconv.Atoi("12"); err == nil { _ = v } ;; fmt.Sprintf("%v %v", true && !false, 3 != 3)`, 12433},
	{`type kv struct { k string; v int } ;; l := []kv{{"a", 2}, {"b", 1}} ;; sort.Slice(l, func(i, j int) bool { return l[i].v < l[j].v }) ;; l[0].k`, 12098},
	{`cmp.Or("", "x", "y") + cmp.Or(os.Getenv("ZZ"), "d")`, 12220},
}

// split takes a line of statements apart: declarations at the top, statements, an expression.
func split(code string) (tops, statements, expression string) {
	parts := strings.Split(code, " ;; ")
	for _, p := range parts[:len(parts)-1] {
		if top, ok := strings.CutPrefix(p, "TOP "); ok {
			tops += top + "\n"
		} else {
			statements += p + " ;; "
		}
	}
	return tops, statements, parts[len(parts)-1]
}

func TestStatementsOfJava(t *testing.T) {
	t.Parallel()
	for i, c := range javaStatements {
		t.Run(fmt.Sprint(i), func(t *testing.T) {
			t.Parallel()
			tops, statements, expression := split(c.code)
			tree := "-- Procfile --\nweb: java A.java\n-- A.java --\n" +
				"import java.util.*; import java.util.function.*; import java.util.stream.*; import java.util.regex.*; import java.nio.file.*; import java.net.*; import java.time.*; import java.math.*;\n" +
				"public class A {\n" + tops + "public static void main(String[] args) throws Exception {\n" + strings.ReplaceAll(statements, " ;; ", ";\n") +
				"Object v = " + expression + ";\nString t = String.valueOf(v);\nint p = 0;\nfor (int i = 0; i < t.length(); i++) p = (p * 31 + t.charAt(i)) % 900;\n" +
				"new ServerSocket(12000 + p, 5, InetAddress.getByName(\"127.0.0.1\")).accept();\n}\n}\n"
			outcome(t, tree, fmt.Sprintf(" => loopback %d", c.port))
		})
	}
}

func TestStatementsOfGo(t *testing.T) {
	t.Parallel()
	for i, c := range goStatements {
		t.Run(fmt.Sprint(i), func(t *testing.T) {
			t.Parallel()
			tops, statements, expression := split(c.code)
			body := strings.ReplaceAll(tops, " ; ", "\n") + "func main() {\n" + strings.NewReplacer(" ;; ", "\n", " ; ", "\n").Replace(statements) + "v := " + expression +
				"\nt := fmt.Sprint(v)\np := 0\nfor i := 0; i < len(t); i++ {\np = (p*31 + int(t[i])) % 900\n}\nhttp.ListenAndServe(\"127.0.0.1:\"+strconv.Itoa(12000+p), nil)\n}\n"
			tree := "-- Procfile --\nweb: go run .\n-- go.mod --\nmodule dome\n\ngo 1.24\n-- main.go --\npackage main\n\n"
			for _, p := range strings.Fields("os strconv net/http strings net/url fmt errors sort slices maps math bytes time path path/filepath regexp bufio encoding/json unicode text/template sync context net cmp unicode/utf8") {
				if strings.Contains(body, p[strings.LastIndexByte(p, '/')+1:]+".") {
					tree += fmt.Sprintf("import %q\n", p)
				}
			}
			outcome(t, tree+body, fmt.Sprintf(" => loopback %d", c.port))
		})
	}
}
