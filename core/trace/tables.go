package trace

import "strings"

// What the walk knows of calls by their names, apart from how it goes: what ends a
// program, what may listen, what changes things, what compares them.

// endings are calls that end the program (documentation of Node.js 24, Deno 2,
// Python 3.14, Ruby 3.4, PHP 8.4 and Java 25).
var endings = words("process.exit process.abort Deno.exit sys.exit os._exit os.abort exit quit exit! abort die fail Process.exit Kernel.exit System.exit")

// loud are last names of calls that may listen, or run what was handed over.
var loud = words(`listen run run! start serve serve_forever run_app run_simple run_until_complete run_forever execute
	bind bootstrap boot join await accept forEach each map apply call send eval exec require load import_module create_server start_server
	extract parse_str mb_parse_str exec_module class_eval instance_eval instance_exec instance_variable_set local_variable_set globals locals`)

// changing are last names of calls that change what they belong to, or what they
// are given.
var changing = words(`push append add update set extend insert pop remove delete clear setdefault sort reverse unshift splice shift
	assign merge defaults defaultsDeep put putAll putIfAbsent setProperty store concat fill defineProperty from_object from_pyfile from_mapping
	setattr delattr putenv config read parse parse_args add_argument option merge! replace compact!`)

// environing are last names of calls of libraries that put variables into the environment
// (python-dotenv 1.0, django-environ 0.11, dotenv 16 and dotenv-flow 4 for Node.js, the
// gem dotenv 3, phpdotenv 5, Node.js 24 process.loadEnvFile).
var environing = words("load_dotenv read_env loadEnvFile safeLoad overload overwrite")

// words are the words of a list.
func words(list string) map[string]bool {
	m := map[string]bool{}
	for w := range strings.FieldsSeq(list) {
		m[w] = true
	}
	return m
}

// quiet are names of the languages whose calls only write or look.
var quiet = words("console print println echo logging log logger System.out STDERR STDOUT $stderr $stdout puts p pp warn printf print_r var_dump error_log len str int float bool isinstance typeof String Number Boolean parseInt parseFloat JSON Math")

// turning are methods that call what they are given once for each of the things
// that they belong to.
var turning = words(`forEach map filter reduce some every find findIndex flatMap sort each each_char each_line each_byte each_with_index each_with_object each_pair
	times step upto downto collect select reject inject any? all? tap then ifPresent ifPresentOrElse removeIf replaceAll`)

// goEndings are calls that end the program (package documentation of os, log,
// runtime and syscall, Go 1.25).
var goEndings = words("os.Exit log.Fatal log.Fatalf log.Fatalln log.Panic log.Panicf log.Panicln runtime.Goexit syscall.Exit panic")

// goLoud are last names of calls that may listen, run what they are given, or
// change what the program reads.
var goLoud = words(`Listen ListenAndServe ListenAndServeTLS ListenTCP ListenUnix ListenPacket Serve ServeTLS Run Start StartServer StartTLS Execute ExecuteContext
	Do Go Setenv Unsetenv Clearenv Set SetDefault BindEnv BindPFlag AutomaticEnv Parse Load Overload Unmarshal UnmarshalKey Decode Process Scan Sscan Sscanf Fscan
	Store Swap CompareAndSwap Add Delete Sort Reverse Shuffle Copy Insert Push Pop Chdir Wait Lock Read ReadFull ReadInConfig MergeInConfig Send Close`)

// comparingItems are methods of collections and functions that compare items with each
// other or with what they are given (Ruby 3.4, PHP 8.4, Java 25, Python 3.14).
var comparingItems = words(`include? member? index find_index rindex count uniq uniq! max min minmax sum join tally group_by sort sort! difference union intersection
	intersect? - & | == != === eql? <=> sort_by max_by min_by each_cons chunk_while partition disjoint? subset? superset? to_set
	contains containsAll indexOf lastIndexOf distinct sorted max min sum equals hashCode toSet joining removeAll retainAll containsValue frequency disjoint
	in_array array_search array_unique sort rsort usort asort arsort ksort krsort array_sum array_product implode join array_flip array_count_values array_diff array_intersect
	array_combine json_encode http_build_query vsprintf array_fill_keys array_column range str_split str_word_count array_diff_key array_intersect_key`)

// choosing are those that choose by what they are given.
var choosing = words(`[] fetch dig key? has_key? has_value? value? slice values_at delete at except key
	get getOrDefault containsKey remove computeIfAbsent merge putIfAbsent computeIfPresent
	array_key_exists array_slice array_chunk array_pad array_fill str_repeat substr_count ucfirst ucwords lcfirst strrev strtr str_pad number_format
	hash md5 crc32 sha1 base64_encode base64_decode bin2hex urlencode rawurlencode urldecode parse_url parse_str nl2br htmlspecialchars addslashes ord chr
	floor ceil round abs fmod intdiv pow sqrt hexdec bindec octdec dechex ctype_alpha ctype_alnum ctype_upper ctype_lower str_word_count similar_text levenshtein strcmp strcasecmp strncmp strncasecmp strnatcmp
	preg_replace preg_split preg_match_all preg_quote stripos strrpos stristr strstr strrchr substr_replace is_bool is_float is_callable is_object is_iterable array_rand version_compare checkdate`)

// gunicornSettings are the names of gunicorn's settings (gunicorn 23, "Settings").
const gunicornSettings = `config wsgi_app bind backlog workers worker_class threads worker_connections
	max_requests max_requests_jitter timeout graceful_timeout keepalive limit_request_line
	limit_request_fields limit_request_field_size reload reload_engine reload_extra_files spew
	check_config print_config preload_app sendfile reuse_port chdir daemon raw_env pidfile
	worker_tmp_dir user group umask initgroups tmp_upload_dir secure_scheme_headers
	forwarded_allow_ips accesslog disable_redirect_access_to_syslog access_log_format errorlog
	loglevel capture_output logger_class logconfig logconfig_dict logconfig_json syslog_addr
	syslog syslog_prefix syslog_facility enable_stdio_inheritance statsd_host dogstatsd_tags
	statsd_prefix proc_name default_proc_name pythonpath paste on_starting on_reload when_ready
	pre_fork post_fork post_worker_init worker_int worker_abort pre_exec pre_request post_request
	child_exit worker_exit nworkers_changed on_exit ssl_context proxy_protocol proxy_allow_ips
	keyfile certfile ssl_version cert_reqs ca_certs suppress_ragged_eofs do_handshake_on_connect
	ciphers raw_paste_global_conf permit_obsolete_folding strip_header_spaces
	permit_unconventional_http_method permit_unconventional_http_version casefold_http_method
	forwarder_headers header_map`

// expressSettings are the settings that an application of Express has from the
// start (Express 5, API, "app.set", table of settings).
var expressSettings = map[string]bool{"env": true, "etag": true, "etag fn": true, "jsonp callback name": true, "query parser": true, "query parser fn": true,
	"subdomain offset": true, "trust proxy": true, "trust proxy fn": true, "view": true, "views": true, "view cache": true, "x-powered-by": true}

// makers are the calls that always give an object: of Node.js 20, Express 5, Koa 3,
// Fastify 5, Hono 4, of the JDK 21; those of PHP 8.4 are taken to work.
var makers = words(`express express.Router fastify fastify.fastify http.createServer https.createServer http2.createServer http2.createSecureServer net.createServer
	node:http.createServer polka restify.createServer connect micro.serve socket.io h3.createApp h3.createRouter
	com.sun.net.httpserver.HttpServer.create HttpServer.create HttpsServer.create java.util.concurrent.Executors.newFixedThreadPool Executors.newFixedThreadPool
	Executors.newCachedThreadPool Executors.newVirtualThreadPerTaskExecutor
	stream_socket_server socket_create_listen socket_import_stream`)

// counting are objects that may hold as nothing does (Python 3.14, "Truth Value
// Testing").
var counting = words(`collections.Counter() collections.deque() decimal.Decimal() fractions.Fraction() datetime.timedelta() array.array()`)

// classNamed reports whether a name of Python is written as classes are (PEP 8,
// "Class Names").
func classNamed(name string) bool {
	return len(name) > 1 && name[0] >= 'A' && name[0] <= 'Z' && strings.ToUpper(name) != name
}

// goServes are the functions of Go that answer what comes in on a listener, and stay in it
// (documentation of net/http, net/http/fcgi and fasthttp).
var goServes = words("net/http.Serve net/http.ServeTLS net/http/fcgi.Serve github.com/valyala/fasthttp.Serve github.com/valyala/fasthttp.ServeTLS github.com/valyala/fasthttp.ServeConn")

// goMethodPath reports whether a path is that of a method, not of a function of a package:
// what stands before its name was made, or is a type.
func goMethodPath(p string) bool {
	of := p[:max(0, strings.LastIndexByte(p, '.'))]
	of = of[strings.LastIndexByte(of, '/')+1:]
	_, typ, _ := strings.Cut(of, ".")
	return strings.Contains(of, "()") || typ != "" && typ[0] >= 'A' && typ[0] <= 'Z'
}

// goCertificates are functions and methods of Go that read a certificate and its key from
// files, and how many results they give (documentation of crypto/tls, net/http, grpc, gin,
// echo and fasthttp).
var goCertificates = map[string]int{"LoadX509KeyPair": 2, "NewServerTLSFromFile": 2, "ListenAndServeTLS": 1, "ServeTLS": 1, "RunTLS": 1, "StartTLS": 1, "ListenTLS": 1}

// goFaults are calls that make an error, whatever they are given (documentation of
// github.com/pkg/errors, google.golang.org/grpc/status, golang.org/x/xerrors and
// github.com/cockroachdb/errors).
var goFaults = words("Errorf() Error() Newf() New() NewError()")

// goWraps are those that give nothing where they are given none.
var goWraps = words("Wrap() Wrapf() WithStack() WithMessage() WithMessagef() Annotate() Annotatef()")

// goMakes reports whether something of Go was made by a function that is named as
// those are that make things (Effective Go, "Package names").
func goMakes(o *opaque) bool {
	call, ok := strings.CutSuffix(o.path, "()")
	name := call[strings.LastIndexByte(call, '.')+1:]
	return ok && (strings.HasPrefix(name, "New") || strings.HasPrefix(name, "Must") || goMaking[name]) && !strings.Contains(call, "()")
}

// goMaking are functions that always give something and are not named New (documentation of
// context, os/signal, golang.org/x/sync/errgroup and gin, Go 1.26).
var goMaking = words("Default Background TODO WithCancel WithCancelCause WithDeadline WithTimeout WithValue WithoutCancel WithContext NotifyContext")

// emitters are the emitters of events that a program makes.
var emitters = words(`events() events.EventEmitter() events.default() eventemitter3() eventemitter3.EventEmitter()`)

// jsMakes are the classes of what calls of Node.js make, and jsServers the classes of
// which that can be asked (Node.js 24, "HTTP", "HTTPS", "TLS", "Net": Class Server).
var jsMakes = map[string]map[string]bool{
	"http.createServer()":        words("http.Server net.Server events events.EventEmitter"),
	"http.Server()":              words("http.Server net.Server events events.EventEmitter"),
	"https.createServer()":       words("https.Server tls.Server net.Server events events.EventEmitter"),
	"https.Server()":             words("https.Server tls.Server net.Server events events.EventEmitter"),
	"tls.createServer()":         words("tls.Server net.Server events events.EventEmitter"),
	"net.createServer()":         words("net.Server events events.EventEmitter"),
	"net.Server()":               words("net.Server events events.EventEmitter"),
	"http2.createServer()":       words("net.Server events events.EventEmitter"),
	"http2.createSecureServer()": words("tls.Server net.Server events events.EventEmitter"),
}

var jsServers = words("http.Server https.Server tls.Server net.Server events events.EventEmitter")

// bottleServers are the names by which Bottle knows servers; another is the name of a module
// (Bottle 0.12, "Deployment", "Server Options").
var bottleServers = words("cgi flup wsgiref waitress cherrypy cheroot paste fapws3 tornado gae twisted diesel meinheld gunicorn eventlet gevent geventSocketIO rocket bjoern aiohttp uvloop auto")
