package value

import (
	"strings"

	"ubique/core/code"
)

// Starred is the path of a name that a file of Python has from a package all of
// whose names it takes; empty where none of them is known to have it.
func Starred(l Loader, f *code.File, name string) string {
	if f.Lang != code.Python || len(f.Stars) == 0 || pyNames[name] {
		return ""
	}
	var from []string
	for i := len(f.Stars) - 1; i >= 0; i-- {
		p := f.Stars[i].Name
		if _, inTree := l.Resolve(f, p, ""); inTree || strings.HasPrefix(p, ".") {
			continue
		}
		if has := starNames[p]; has != nil {
			if has[name] {
				return p + "." + name
			}
			continue
		}
		from = append(from, p)
	}
	if len(from) == 1 {
		return from[0] + "." + name
	}
	return ""
}

func names(list string) map[string]bool {
	m := map[string]bool{}
	for _, w := range strings.Fields(list) {
		m[w] = true
	}
	return m
}

// pyNames are built in (Python 3.14, "Built-in Functions", "Built-in Constants",
// "Built-in Exceptions").
var pyNames = names(`abs aiter all anext any ascii bin bool breakpoint bytearray bytes callable chr classmethod compile complex delattr dict dir divmod enumerate eval exec filter float
	format frozenset getattr globals hasattr hash help hex id input int isinstance issubclass iter len list locals map max memoryview min next object oct open ord pow print property
	range repr reversed round set setattr slice sorted staticmethod str sum super tuple type vars zip exit quit __import__ __name__ __file__ __doc__ __builtins__ NotImplemented Ellipsis
	BaseException Exception ArithmeticError AssertionError AttributeError BlockingIOError ConnectionError EOFError FileNotFoundError ImportError IndexError KeyError KeyboardInterrupt
	LookupError ModuleNotFoundError NameError NotImplementedError OSError EnvironmentError IOError OverflowError PermissionError RuntimeError StopIteration SyntaxError SystemExit TimeoutError
	TypeError ValueError ZeroDivisionError Warning DeprecationWarning UserWarning ResourceWarning RuntimeWarning`)

// starNames are what some modules give to who takes all (Python 3.14: their
// __all__, else the names without an underscore that matter here).
var starNames = map[string]map[string]bool{
	"http.server": names("HTTPServer ThreadingHTTPServer HTTPSServer ThreadingHTTPSServer BaseHTTPRequestHandler SimpleHTTPRequestHandler CGIHTTPRequestHandler"),
	"socketserver": names(`BaseServer TCPServer UDPServer ThreadingUDPServer ThreadingTCPServer BaseRequestHandler StreamRequestHandler DatagramRequestHandler ThreadingMixIn ForkingUDPServer
		ForkingTCPServer ForkingMixIn UnixStreamServer UnixDatagramServer ThreadingUnixStreamServer ThreadingUnixDatagramServer`),
	"socket": names(`socket create_connection create_server has_dualstack_ipv6 socketpair getaddrinfo gethostname gethostbyname AF_INET AF_INET6 AF_UNIX SOCK_STREAM SOCK_DGRAM SOL_SOCKET
		SO_REUSEADDR SO_REUSEPORT SO_KEEPALIVE IPPROTO_TCP TCP_NODELAY SHUT_RDWR SOMAXCONN error timeout`),
	"os":        names("environ getenv path getcwd getpid listdir makedirs mkdir putenv unsetenv sep linesep name system walk remove rename stat urandom cpu_count kill fork chdir"),
	"sys":       names("argv exit path platform stdin stdout stderr version version_info modules executable"),
	"typing":    names("Any Optional Union List Dict Tuple Set Callable Iterable Iterator Sequence Mapping Type TypeVar Generic NamedTuple Protocol ClassVar Final Literal TypedDict cast"),
	"threading": names("Thread Lock RLock Event Timer Condition Semaphore current_thread local"),
	"datetime":  names("date datetime time timedelta timezone tzinfo"),
	"time":      names("sleep time monotonic perf_counter strftime localtime gmtime"),
	"random":    names("random randint choice choices shuffle sample uniform seed randrange"),
	"math":      names("ceil floor sqrt pi e inf nan log pow"),
}

// PythonBuiltin reports whether Python itself has a name.
func PythonBuiltin(name string) bool { return pyNames[name] }
