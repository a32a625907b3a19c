package check_test

import "testing"

// shellStatements are what start scripts do to come to a port, P; the files beside them; the
// arguments; and what a shell (GNU Bash 5.2) came to.
var shellStatements = []struct{ script, files, args, want string }{
	{`P=7000; let P+=5`, "", "", "=> loopback 7005"},
	{`P=7000; (( P += 10 ))`, "", "", "=> loopback 7010"},
	{`P=7000; ((P++))`, "", "", "=> loopback 7001"},
	{`mapfile -t L < list.txt; P=${L[1]}`, `-- list.txt --
7001
7002
`, "", "=> loopback 7002"},
	{`readarray -t L <<< $'7003\n7004'; P=${L[0]}`, "", "", "=> loopback 7003"},
	{`eval "P=7005"`, "", "", "=> loopback 7005"},
	{`name=P; eval "$name=7006"`, "", "", "=> loopback 7006"},
	{`f() { local P=1; P2=7008; }; f; P=$P2`, "", "", "=> loopback 7008"},
	{`f() { P=7009; }; f`, "", "", "=> loopback 7009"},
	{`f() { echo 7010; }; P=$(f)`, "", "", "=> loopback 7010"},
	{`P=$(echo 7012 | tr -d x)`, "", "", "=> loopback 7012"},
	{`P=$(printf '%d' 7013)`, "", "", "=> loopback 7013"},
	{`P=$(expr 7000 + 14)`, "", "", "=> loopback 7014"},
	{`set -- a b 7016; P=$3`, "", "", "=> loopback 7016"},
	{`set -- 7017 b; P=$1; shift; [ "$1" = b ] && P=$((P + 1))`, "", "", "=> loopback 7018"},
	{`for P in 1 2 7019; do :; done`, "", "", "=> loopback 7019"},
	{`for ((i = 0; i < 5; i++)); do P=$((7000 + i)); done`, "", "", "=> loopback 7004"},
	{`i=0; while [ $i -lt 3 ]; do i=$((i + 1)); P=$((7020 + i)); done`, "", "", "=> loopback 7023"},
	{`case abc in a*) P=7033 ;; *) P=1 ;; esac`, "", "", "=> loopback 7033"},
	{`case abc in x|abc) P=7034 ;;& a*) P=7035 ;; esac`, "", "", "=> loopback 7035"},
	{`case abc in abc) P=7036 ;& z) P=7037 ;; esac`, "", "", "=> loopback 7037"},
	{`[[ abc == a* ]] && P=7038 || P=1`, "", "", "=> loopback 7038"},
	{`if ! false; then P=7040; else P=1; fi`, "", "", "=> loopback 7040"},
	{`true && P=7041; false || P=$((P + 1))`, "", "", "=> loopback 7042"},
	{`{ P=7043; }`, "", "", "=> loopback 7043"},
	{`(P=7044); P=${P:-7045}`, "", "", "=> loopback 7045"},
	{`P=7046 ; unset P; P=${P-7047}`, "", "", "=> loopback 7047"},
	{`P=${UNSET:+1}; P=${P:-7048}`, "", "", "=> loopback 7048"},
	{`X=1; P=${X:+7049}`, "", "", "=> loopback 7049"},
	{`X=a.b.c; P=70${#X}`, "", "", "=> loopback 705"},
	{`X=host:7051; P=${X#*:}`, "", "", "=> loopback 7051"},
	{`X=7052/tcp; P=${X%/tcp}`, "", "", "=> loopback 7052"},
	{`X=7-0-5-3; P=${X//-/}`, "", "", "=> loopback 7053"},
	{`X=abc7054def; P=${X:3:4}`, "", "", "=> loopback 7054"},
	{`X=AB; Y=${X,,}; [ "$Y" = ab ] && P=7055`, "", "", "=> loopback 7055"},
	{`readonly P=7056`, "", "", "=> loopback 7056"},
	{`export P=7057`, "", "", "=> loopback 7057"},
	{`P=1; env P=7058 true; P=$((P + 7057))`, "", "", "=> loopback 7058"},
	{`IFS=, read -r A B <<< "1,7059"; P=$B`, "", "", "=> loopback 7059"},
	{`IFS=,; set -- $(echo 1,7060); P=$2; unset IFS`, "", "", "=> loopback 7060"},
	{`A=(1 2 3); P=$((7060 + ${#A[@]}))`, "", "", "=> loopback 7063"},
	{`A=(x); A+=(7064); P=${A[1]}`, "", "", "=> loopback 7064"},
	{`A=(5 6 7); S=0; for x in "${A[@]}"; do S=$((S + x)); done; P=$((7000 + S))`, "", "", "=> loopback 7018"},
	{`declare -A M; M[p]=7066; P=${M[p]}`, "", "", "=> loopback 7066"},
	{`declare -A M=([a]=1 [b]=2); for k in a b; do P=$((7000 + ${M[$k]})); done`, "", "", "=> loopback 7002"},
	{`P=$(cat port.txt)`, `-- port.txt --
7067
`, "", "=> loopback 7067"},
	{`P=$(head -n 1 port.txt)`, `-- port.txt --
7068
7069
`, "", "=> loopback 7068"},
	{`P=$(grep '^PORT=' my.env | cut -d= -f2)`, `-- my.env --
HOST=x
PORT=7070
`, "", "=> loopback 7070"},
	{`P=$(sed -n 's/^port: //p' c.yml)`, `-- c.yml --
port: 7071
`, "", "=> loopback 7071"},
	{`. ./vars.sh`, `-- vars.sh --
P=7075
`, "", "=> loopback 7075"},
	{`source vars.sh 7076`, `-- vars.sh --
P=$1
`, "", "=> loopback 7076"},
	{`trap 'echo bye' EXIT; P=7077`, "", "", "=> loopback 7077"},
	{`P=7078 && readonly P`, "", "", "=> loopback 7078"},
	{`: "${P:=7079}"`, "", "", "=> loopback 7079"},
	{`P=${P:-7081}; [ "$P" -gt 7000 ] || exit 1`, "", "", "=> loopback 7081"},
	{`P=7082; test "$P" = 7082 -a -n "$P" || P=1`, "", "", "=> loopback 7082"},
	{`P=7083; [ "$P" = 1 -o "$P" = 7083 ] && P=7084`, "", "", "=> loopback 7084"},
	{`P=$((2 ** 12 + 3000))`, "", "", "=> loopback 7096"},
	{`P=$(( 7000 + (3 > 2 ? 87 : 88) ))`, "", "", "=> loopback 7087"},
	{`n=3; P=$((7000 + n--)); P=$((P + n))`, "", "", "=> loopback 7005"},
	{`P=$(( $(echo 7000) + 90 ))`, "", "", "=> loopback 7090"},
	{`usage() { exit 1; }; while getopts p: o; do case $o in p) P=$OPTARG ;; *) usage ;; esac; done`, "", " -p 7091", "=> loopback 7091"},
	{`while [ $# -gt 0 ]; do case "$1" in --port) P=$2; shift 2 ;; --port=*) P=${1#*=}; shift ;; *) shift ;; esac; done`, "", " x --port=7092", "=> loopback 7092"},
	{`while (( $# )); do case $1 in -p) shift; P=$1 ;; esac; shift; done`, "", " -v -p 7093", "=> loopback 7093"},
	{`for a in "$@"; do case $a in port=*) P=${a#port=} ;; esac; done`, "", " host=x port=7094", "=> loopback 7094"},
	{`for a; do P=$a; done`, "", " 1 7095", "=> loopback 7095"},
	{`P=$1; P=${P:-7096}`, "", "", "=> loopback 7096"},
	{`P=$(dirname a/7097)7097; P=${P#a}`, "", "", "=> loopback 7097"},
	{`P=$(basename x/7098)`, "", "", "=> loopback 7098"},
	{`P=$(seq 7100 7100)`, "", "", "=> loopback 7100"},
	{`command -v bash >/dev/null && P=7106`, "", "", "=> loopback 7106"},
	{`[ -n "${ENVP}" ] && P=$ENVP`, "", "", "ENVP=7108 => loopback 7108"},
	{`if [ "${MODE}" == "a" ]; then P=7109; elif [ "${MODE}" == "b" ]; then P=7110; else P=7111; fi`, "", "", "MODE=b => loopback 7110"},
	{`case "${MODE,,}" in b*) P=7112 ;; esac`, "", "", "MODE=BETA => loopback 7112"},
	{`select x in a; do break; done < /dev/null; P=7114`, "", "", "=> loopback 7114"},
	{`P=7115; P=${P/5/6}`, "", "", "=> loopback 7116"},
	{`P=7117; function g { P=$((P + $1)); }; g 1`, "", "", "=> loopback 7118"},
	{`g() { if [ -z "$1" ]; then P=7121; return; fi; P=1; }; g`, "", "", "=> loopback 7121"},
	{`set -e; P=7122; false || true`, "", "", "=> loopback 7122"},
	{`coproc cat; P=7126`, "", "", "=> loopback 7126"},
	{`time P=7127`, "", "", "=> loopback 7127"},
	{`P=7128; alias x=y`, "", "", "=> loopback 7128"},
	{`P=7129; wait`, "", "", "=> loopback 7129"},
	{`P=$RANDOM; P=7130`, "", "", "=> loopback 7130"},
	{`[[ -v P ]] || P=7131`, "", "", "=> loopback 7131"},
	{`[[ -n $P || -z $Q ]] && P=7132`, "", "", "=> loopback 7132"},
	{`read -r P < <(echo 7136)`, "", "", "=> loopback 7136"},
	{`echo 7137 | read P; P=${P:-7138}`, "", "", "=> loopback 7138"},
	{`cat port.txt | while read l; do P=$l; done; P=${P:-7139}`, `-- port.txt --
1
`, "", "=> loopback 7139"},
	{`P=7201 Q=$P; P=$Q`, "", "", "=> loopback 7201"},
	{`P=7202
P=$P`, "", "", "=> loopback 7202"},
	{`export P=7203 Q=1`, "", "", "=> loopback 7203"},
	{`P=7204; export P; export Q=$P`, "", "", "=> loopback 7204"},
	{`local_port() { local p=${1:-7205}; echo "$p"; }; P=$(local_port)`, "", "", "=> loopback 7205"},
	{`local_port() { local p=${1:-7205}; echo "$p"; }; P=$(local_port 7206)`, "", "", "=> loopback 7206"},
	{`die() { echo "$*" >&2; exit 1; }; P=7207; [ -n "$P" ] || die "no port"`, "", "", "=> loopback 7207"},
	{`need() { for v in "$@"; do [ -n "${!v}" ] || { echo "$v"; exit 2; }; done; }; P=7208; need P`, "", "", "=> loopback 7208"},
	{`log() { echo "[$(date)] $*"; }; log start; P=7209`, "", "", "=> loopback 7209"},
	{`retry() { local n=0; until "$@"; do n=$((n+1)); [ $n -ge 3 ] && return 1; done; }; retry true; P=7210`, "", "", "=> loopback 7210"},
	{`default() { eval "[ -n \"\${$1:-}\" ] || $1=\$2"; }; default P 7211`, "", "", "=> loopback 7211"},
	{`: "${BASE:=7200}" "${OFF:=12}"; P=$((BASE + OFF))`, "", "", "=> loopback 7212"},
	{`BASE=7200; OFF=13; P=$((${BASE}+${OFF}))`, "", "", "=> loopback 7213"},
	{`BASE=7200; P=$[BASE+14]`, "", "", "=> loopback 7214"},
	{`P=7215; if [ -z "$NOPE" ]; then P=7216; fi`, "", "", "=> loopback 7216"},
	{`P=7217; if [[ -z $NOPE && $P == 72* ]]; then P=7218; fi`, "", "", "=> loopback 7218"},
	{`P=7219; if [ "$P" -ge 7000 ] && [ "$P" -le 8000 ]; then P=7220; fi`, "", "", "=> loopback 7220"},
	{`P=7221; [ "$P" -lt 1024 ] && exit 1; P=7222`, "", "", "=> loopback 7222"},
	{`P=7223; ((P < 1024)) && exit 1; P=$((P + 1))`, "", "", "=> loopback 7224"},
	{`if (( ${N:-2} > 1 )); then P=7225; fi`, "", "", "=> loopback 7225"},
	{`while :; do P=7226; break; done`, "", "", "=> loopback 7226"},
	{`for i in 1 2 3; do [ "$i" = 2 ] && continue; P=$((7230 + i)); done`, "", "", "=> loopback 7233"},
	{`for i in $(seq 1 1); do P=$((7240 + i)); done`, "", "", "=> loopback 7241"},
	{`for f in .env .env.local; do if [ -f "$f" ]; then set -a; . "./$f"; set +a; fi; done`, `-- .env --
P=7246
`, "", "=> loopback 7246"},
	{`set -o allexport; [[ -f .env ]] && source .env; set +o allexport`, `-- .env --
P=7247
`, "", "=> loopback 7247"},
	{`export $(cat .env | xargs)`, `-- .env --
P=7248
`, "", "=> loopback 7248"},
	{`export $(grep -v '^#' .env | xargs -d '\n')`, `-- .env --
# c
P=7249
`, "", "=> loopback 7249"},
	{`eval $(cat .env)`, `-- .env --
P=7250
`, "", "=> loopback 7250"},
	{`while IFS= read -r line; do case $line in P=*) P=${line#P=} ;; esac; done < .env`, `-- .env --
A=1
P=7252
`, "", "=> loopback 7252"},
	{`. .env`, `-- .env --
P="7253"
`, "", "=> loopback 7253"},
	{`. ./.env; P=${P}`, `-- .env --
P='7254' # with a comment
`, "", "=> loopback 7254"},
	{`source ./lib/all.sh; P=$(port)`, `-- lib/all.sh --
port() { echo 7255; }
`, "", "=> loopback 7255"},
	{`source "$(dirname "$0")/lib/all.sh"; port`, `-- lib/all.sh --
port() { P=7256; }
`, "", "=> loopback 7256"},
	{`DIR="$( cd "$( dirname "${BASH_SOURCE[0]}" )" >/dev/null 2>&1 && pwd )"; . "$DIR/lib/all.sh"`, `-- lib/all.sh --
P=7257
`, "", "=> loopback 7257"},
	{`cd "$(dirname "$0")" || exit 1; . lib/all.sh`, `-- lib/all.sh --
P=7258
`, "", "=> loopback 7258"},
	{`cd conf && P=$(cat port) && cd ..`, `-- conf/port --
7259
`, "", "=> loopback 7259"},
	{`P=${1:-7261}; shift || true`, "", "", "=> loopback 7261"},
	{`P=${1:?port}; `, "", " 7262", "=> loopback 7262"},
	{`[ $# -eq 0 ] && set -- 7263; P=$1`, "", "", "=> loopback 7263"},
	{`[ $# -gt 0 ] && P=$1 || P=7264`, "", "", "=> loopback 7264"},
	{`if [ "$#" -ne 1 ]; then echo usage; exit 2; fi; P=$1`, "", " 7265", "=> loopback 7265"},
	{`if [ "$1" = "serve" ]; then shift; fi; P=$1`, "", " serve 7266", "=> loopback 7266"},
	{`case $1 in serve|web) P=7267 ;; worker) exit 0 ;; '') P=7268 ;; esac`, "", " web", "=> loopback 7267"},
	{`case $1 in serve|web) P=7267 ;; worker) exit 0 ;; '') P=7268 ;; esac`, "", "", "=> loopback 7268"},
	{`case "$1" in -h|--help) exit 0 ;; -*) P=7269 ;; [0-9]*) P=$1 ;; esac`, "", " 7270", "=> loopback 7270"},
	{`cmd=$1; shift; case $cmd in start) P=${1#port:} ;; esac`, "", " start port:7271", "=> loopback 7271"},
	{`OPTS=$(getopt -o p: -- "$@"); P=7272`, "", "", "=> loopback 7272"},
	{`PORTS=(7273 7274); P=${PORTS[0]}`, "", "", "=> loopback 7273"},
	{`PORTS=(7273 7274); for p in ${PORTS[*]}; do P=$p; done`, "", "", "=> loopback 7274"},
	{`ADDR=0.0.0.0:7276; IFS=: read H P <<< "$ADDR"`, "", "", "=> loopback 7276"},
	{`ADDR=http://h:7278/path; P=${ADDR##*:}; P=${P%%/*}`, "", "", "=> loopback 7278"},
	{`ADDR=h:7279; P=$(echo "$ADDR" | cut -d: -f2)`, "", "", "=> loopback 7279"},
	{`V="port=7281"; P="${V/port=/}"`, "", "", "=> loopback 7281"},
	{`V="  7282  "; P=$(echo $V)`, "", "", "=> loopback 7282"},
	{`V='"7284"'; P=${V//\"/}; `, "", "", "=> loopback 7284"},
	{`V=7285; P="$V"""`, "", "", "=> loopback 7285"},
	{`P='72'"86"`, "", "", "=> loopback 7286"},
	{`P=$'7288'`, "", "", "=> loopback 7288"},
	{`P=7289 # comment`, "", "", "=> loopback 7289"},
	{`P=7290; # P=1`, "", "", "=> loopback 7290"},
	{`P=7291; : <<'END'
P=1
END`, "", "", "=> loopback 7291"},
	{`read P < port`, `-- port --
7294
`, "", "=> loopback 7294"},
	{`P=7296; function noop() { :; }; noop && P=7297`, "", "", "=> loopback 7297"},
	{`P=7298; false && P=1; true || P=1`, "", "", "=> loopback 7298"},
	{`! false && P=7299`, "", "", "=> loopback 7299"},
	{`P=$(true && echo 7300 || echo 1)`, "", "", "=> loopback 7300"},
	{`P=$(if true; then echo 7301; else echo 1; fi)`, "", "", "=> loopback 7301"},
	{`P=$([ -n "$NOPE" ] && echo 1 || echo 7302)`, "", "", "=> loopback 7302"},
	{`P=${NOPE:-${NOPE2:-7303}}`, "", "", "=> loopback 7303"},
	{`P=${NOPE-7304}`, "", "", "=> loopback 7304"},
	{`NOPE=; P=${NOPE-1}; P=${P:-7305}`, "", "", "=> loopback 7305"},
	{`Q=7306; R=Q; P=${!R}`, "", "", "=> loopback 7306"},
	{`readonly Q=7307; P=$Q`, "", "", "=> loopback 7307"},
	{`typeset P=7308`, "", "", "=> loopback 7308"},
	{`declare P=7309 Q`, "", "", "=> loopback 7309"},
	{`declare -x P=7310`, "", "", "=> loopback 7310"},
	{`declare -r P=7311`, "", "", "=> loopback 7311"},
	{`unset P; P=7312`, "", "", "=> loopback 7312"},
	{`P=1; unset P; P=${P:-7313}`, "", "", "=> loopback 7313"},
	{`trap - TERM; ulimit -n 1024; umask 022; P=7314`, "", "", "=> loopback 7314"},
	{`set -euo pipefail; P=${NOPE:-7315}`, "", "", "=> loopback 7315"},
	{`set -e; if ! false; then P=7316; fi`, "", "", "=> loopback 7316"},
	{`shopt -s nullglob; P=7317`, "", "", "=> loopback 7317"},
	{`P=7318 && export P && true`, "", "", "=> loopback 7318"},
	{`P=7319; (exit 0) && P=7320`, "", "", "=> loopback 7320"},
	{`P=7321; hash ls; which ls >/dev/null; P=7322`, "", "", "=> loopback 7322"},
	{`if [ -r conf/x ]; then P=$(cat conf/x); fi`, `-- conf/x --
7327
`, "", "=> loopback 7327"},
	{`HOST=$(hostname); P=7328`, "", "", "=> loopback 7328"},
	{`NOW=$(date +%s); P=7329`, "", "", "=> loopback 7329"},
	{`WORKERS=$(( $(nproc) * 2 + 1 )); P=7330`, "", "", "=> loopback 7330"},
	{`MEM=$(free -m | awk '/Mem/{print $2}'); P=7331`, "", "", "=> loopback 7331"},
	{`P=$(node -p 7332); P=7333`, "", "", "=> loopback 7333"},
	{`n=0; ((n++)) && ((n+=10)) || true; P=$((7000 + n))`, "", "", "=> loopback 7001"},
	{`n=0; (( n += 1 )) && (( n += 1 )) && (( n += 1 )) && P=$((7000 + n))`, "", "", "=> loopback 7003"},
	{`n=5; for ((i = 0; i < n; i++)); do [ "$i" = 3 ] && break; done; P=$((7000 + i))`, "", "", "=> loopback 7003"},
	{`a=(1 2); (a=(3)); P=$((7000 + ${#a[@]}))`, "", "", "=> loopback 7002"},
	{`n=0; until ((n++ >= 3)); do :; done; P=$((7000 + n))`, "", "", "=> loopback 7004"},
	{`x=1; (unset x); P=${x-5}; P=$((7000 + P))`, "", "", "=> loopback 7001"},
	{`set -- 1; (set -- 2 3); P=$((7000 + $#))`, "", "", "=> loopback 7001"},
}

func TestShellStatements(t *testing.T) {
	t.Parallel()
	for _, c := range shellStatements {
		t.Run(c.script, func(t *testing.T) {
			t.Parallel()
			outcome(t, "-- Procfile --\nweb: bash run.sh"+c.args+"\n-- package.json --\n{\"name\":\"gate\"}\n-- server.js --\nrequire('http').createServer().listen(Number(process.argv[2]), '127.0.0.1');\n-- run.sh --\n"+c.script+"\nexec node server.js \"$P\"\n"+c.files, c.want)
		})
	}
}
