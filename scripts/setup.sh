# Steps that ./start and ./test share. Sourced, from the project's root.

# How Go builds here, the same in every script, so that nothing is compiled twice. What only a
# debugger reads is a tenth of the compiler's work, and is linked into nothing. The routes are a
# generic function for each; inlined, they take twice as long to compile and answer hardly sooner.
export CGO_ENABLED=0
[[ ${GOFLAGS:-} == *-dwarf=false* ]] ||
  export GOFLAGS="${GOFLAGS:+$GOFLAGS }-gcflags=all=-dwarf=false '-gcflags=earlychorus/server/api=-l -dwarf=false'"

say() { printf '%s\n' "$*"; }

# debian PACKAGE...: installs as root, or says what to type and stops.
debian() {
  local command="apt-get install -y --no-install-recommends $*"
  if [[ $(id -u) -ne 0 ]]; then
    say "This machine lacks: $*. Please run:" "  sudo $command" >&2
    exit 1
  fi
  say "Installing $* …"
  apt-get update -qq
  DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "$@" >/dev/null
}

need_postgresql() {
  compgen -G '/usr/lib/postgresql/*/bin/initdb' >/dev/null && return
  if [[ $(id -u) -eq 0 ]]; then
    # Only the programs are wanted, not a cluster that runs on its own.
    mkdir -p /etc/postgresql-common
    [[ -e /etc/postgresql-common/createcluster.conf ]] || echo 'create_main_cluster = false' >/etc/postgresql-common/createcluster.conf
  fi
  debian postgresql
}

# Sampled real instruments, to hold the ear against.
need_samples() {
  [[ -e /usr/share/sounds/sf2/TimGM6mb.sf2 && -e /usr/share/sounds/sf2/sf_GMbank.sf2 ]] && command -v fluidsynth >/dev/null ||
    debian fluidsynth timgm6mb-soundfont csound-soundfont
}

# What the bench compares the ear with.
need_references() {
  need_samples
  local tool missing=()
  for tool in praat:praat aubiopitch:aubio-tools lame:lame taskset:util-linux; do
    command -v "${tool%%:*}" >/dev/null || missing+=("${tool##*:}")
  done
  [[ ${#missing[@]} -eq 0 ]] || debian "${missing[@]}"
}

# Reads what is printed back.
need_pdf_reader() { command -v pdftotext >/dev/null || debian poppler-utils; }

# Names in every script on paper: Chinese, Japanese and Korean, and the rest.
need_fonts() {
  compgen -G '/usr/share/fonts-droid-fallback/truetype/*.ttf' >/dev/null &&
    compgen -G '/usr/share/fonts/truetype/noto/NotoSansDevanagari-Regular.ttf' >/dev/null && return
  local packages="fonts-droid-fallback fonts-noto-core"
  # Nothing stops without them: on cards, names in some scripts are boxes.
  if [[ $(id -u) -eq 0 ]]; then debian $packages; else say "For names in every script: sudo apt-get install $packages"; fi
}

# The one without a window is quicker; the same program otherwise, and who has that needs no other.
need_chromium() {
  command -v chromium-headless-shell >/dev/null || command -v chromium >/dev/null || debian chromium-headless-shell
}

# The other browsers that schools have, a screen nobody sees, and sound that plays into nothing.
need_other_browsers() {
  local tool missing=()
  for tool in firefox-esr:firefox-esr WebKitWebDriver:webkit2gtk-driver Xvfb:xvfb pulseaudio:pulseaudio; do
    command -v "${tool%%:*}" >/dev/null || missing+=("${tool##*:}")
  done
  [[ ${#missing[@]} -eq 0 ]] || debian "${missing[@]}"
}

need_toolchains() {
  local tool
  for tool in go node npm; do
    command -v "$tool" >/dev/null || { say "This needs $tool: Go 1.26 and Node 20.19 or newer." >&2; exit 1; }
  done
}

# fresh STAMP FILES...: whether nothing among the files is newer than the stamp.
fresh() {
  local stamp=$1
  shift
  [[ -e $stamp && -z $(find "$@" -newer "$stamp" -type f -print -quit) ]]
}

# web_packages WHAT: with "build", only what the interface is built from; a third of all.
web_packages() {
  local all=web/node_modules/.installed less=web/node_modules/.installed-to-build without=()
  fresh $all web/package-lock.json web/package.json && return
  if [[ ${1:-} == build ]]; then
    fresh $less web/package-lock.json web/package.json && return
    all=$less without=(--omit=dev)
  fi
  say "Installing the front end's packages …"
  (cd web && npm ci "${without[@]}" --prefer-offline --no-fund --no-audit --loglevel=error)
  touch $all
}

# compile_ear FILE FLAGS...: the core for the browser as the compiler leaves it. What lays exercises
# out is a tenth of it and runs once a step: nothing of that is inlined.
compile_ear() {
  GOOS=wasip1 GOARCH=wasm go build -buildmode=c-shared -trimpath \
    -gcflags=all=-dwarf=false -gcflags=earlychorus/core/exercise='-l -dwarf=false' -o "$@" ./wasm
}

# The core's ear for the browser, from the packages the server hears with.
build_ear() {
  fresh web/public/ear.wasm core wasm cmd/earpack go.mod scripts/setup.sh && return
  say "Building the ear for the browser …"
  mkdir -p bin
  compile_ear bin/ear.wasm -ldflags='-s -w'
  go run ./cmd/earpack bin/ear.wasm web/public/ear.wasm
}

programs=(./cmd/earlychorus ./cmd/ear)

# needed_by PACKAGE...: the packages of ours and others' that they are made of, as go list is asked.
needed_by() {
  go list -deps -f '{{if and (not .Standard) (not .ForTest) (ne .Name "main")}}{{.ImportPath}}{{end}}' "$@"
}

# compile_ahead PACKAGE...: compiles, in the background, what they need and does not wait for the
# interface: while packages are loaded the processors have nothing else to do.
compile_ahead() {
  [[ -x bin/earlychorus ]] && return
  (go build $(needed_by "$@") || true) >/dev/null 2>&1 &
  ahead=$!
}

# The stamp is set when all of it is there: who stops a build half way gets no half of a page.
build_web() {
  web_packages build
  build_ear
  local built=bin/.interface
  local made_of=(web/src web/public web/index.html web/vite web/vite.config.ts web/package-lock.json)
  [[ -e web/dist/index.html ]] && fresh $built "${made_of[@]}" && return
  say "Building the interface …"
  (cd web && npm run --silent build -- --logLevel warn) && mkdir -p bin && touch $built
}

build_program() {
  [[ -x bin/earlychorus ]] || say "Building the program (the first time takes minutes) …"
  # Two at once would each compile what the other is at.
  [[ -z ${ahead:-} ]] || wait "$ahead"
  go build -ldflags=-w -o bin/ "${programs[@]}" # without what only a debugger reads
}
