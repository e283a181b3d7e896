# Shared by run and test: where things are, and what must be there before anything can be built.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
export DOTNET_NOLOGO=1 DOTNET_CLI_TELEMETRY_OPTOUT=1 DOTNET_GENERATE_ASPNET_CERTIFICATE=false MSBUILDDISABLENODEREUSE=1

fail() {
  echo "$*" >&2
  exit 1
}

need_tools() {
  command -v dotnet >/dev/null || fail "Inky Badger needs the .NET 10 SDK, and there is no dotnet on the PATH: install it and start again."
  dotnet --list-sdks 2>/dev/null | grep -q '^10\.' || fail "Inky Badger needs the .NET 10 SDK, and this dotnet has none: install version 10 and start again."
  command -v npm >/dev/null && command -v node >/dev/null || fail "Inky Badger needs Node.js 20 or newer with npm, and there is none on the PATH: install it and start again."
  [ "$(node -p 'process.versions.node.split(".")[0]')" -ge 20 ] || fail "Inky Badger needs Node.js 20 or newer, and this is $(node --version): install a newer one and start again."
}

# True when anything under the paths is newer than the mark, files that went included (their folder is newer).
changed_since() {
  local mark=$1
  shift
  [ ! -e "$mark" ] || [ -n "$(find "$@" \( -name bin -o -name obj -o -name node_modules -o -name dist \) -prune -o -newer "$mark" -print -quit)" ]
}

# Runs a command whose output matters only when it fails.
quietly() {
  local log=.build/$1.log
  shift
  if ! "$@" >"$log" 2>&1; then
    cat "$log" >&2
    fail "That failed: $*"
  fi
}

build_web() {
  mkdir -p .build
  if changed_since .build/npm web/package-lock.json; then
    echo "Fetching the front end's packages"
    quietly npm npm ci --prefix web --no-audit --no-fund
    touch .build/npm
  fi
  if [ ! -d web/dist ] || changed_since .build/web web docs/format/design.schema.json docs/method.md; then
    echo "Building the front end"
    quietly web npm run build --prefix web
    touch .build/web
  fi
}

# The server as it is started: compiled ahead of time where the compiler for that can be had, which halves a start.
build_server() {
  changed_since .build/server.mark src docs/format/design.schema.json Directory.Build.props Directory.Packages.props global.json || return 0
  echo "Building the server"
  rm -rf .build/server
  dotnet publish src/InkyBadger.Server -c Release --use-current-runtime --self-contained false -p:PublishReadyToRun=true -o .build/server >.build/server-ahead.log 2>&1 ||
    quietly server dotnet publish src/InkyBadger.Server -c Release -o .build/server
  touch .build/server.mark
}
