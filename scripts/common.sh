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
  # Read whole before it is looked through: a pipe that closes early would be taken for a failure.
  local sdks
  sdks=$(dotnet --list-sdks 2>/dev/null || true)
  grep -q '^10\.' <<<"$sdks" || fail "Inky Badger needs the .NET 10 SDK, and this dotnet has none: install version 10 and start again."
  command -v npm >/dev/null && command -v node >/dev/null || fail "Inky Badger needs Node.js with npm (20.19, 22.12 or newer), and there is none on the PATH: install it and start again."
  node -e 'const [a, b] = process.versions.node.split(".").map(Number); process.exit(a > 22 || (a === 22 && b >= 12) || (a === 20 && b >= 19) ? 0 : 1)' ||
    fail "Inky Badger needs Node.js 20.19, 22.12 or newer, and this is $(node --version): install a newer one and start again."
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

# A mark is as old as the beginning of the build it stands for: what changes meanwhile is newer.
begin_build() { touch "$1.begun"; }
end_build() { mv "$1.begun" "$1"; }

build_web() {
  mkdir -p .build
  if changed_since .build/npm web/package-lock.json || [ ! -d web/node_modules ]; then
    echo "Fetching the front end's packages"
    begin_build .build/npm
    quietly npm npm ci --prefix web --no-audit --no-fund
    end_build .build/npm
  fi
  if [ ! -f web/dist/index.html ] || changed_since .build/web web docs/format/design.schema.json docs/format/figures.json docs/method.md; then
    echo "Building the front end"
    # The folder is there before the mark: made by the build, it would make web newer than it, and everything be built twice.
    mkdir -p web/dist
    begin_build .build/web
    quietly web npm run build --prefix web -- --outDir "$PWD/.build/web-fresh" --emptyOutDir
    put_in_place .build/web-fresh web/dist
    end_build .build/web
  fi
}

# New files before the pages that name them, and only then the old ones away: a page that is being loaded finds all of its parts.
put_in_place() {
  local fresh=$1 place=$2
  [ ! -d "$fresh/assets" ] || cp -r "$fresh/assets" "$place/"
  cp -r "$fresh/." "$place/"
  (cd "$place" && find . -type f) | while IFS= read -r file; do
    [ -e "$fresh/$file" ] || rm -f "$place/$file"
  done
}

# Where the newest server lies: each build in a folder of its own, so that a server that runs is not overwritten.
server_folder() { readlink -f .build/server; }

# The server as it is started: compiled ahead of time where the compiler for that can be had, which halves a start.
build_server() {
  [ ! -f .build/server/InkyBadger.Server.dll ] || changed_since .build/server.mark src docs/format/design.schema.json docs/format/figures.json Directory.Build.props Directory.Packages.props global.json || return 0
  echo "Building the server"
  begin_build .build/server.mark
  local folder
  folder=.build/servers/$(date +%Y%m%d-%H%M%S)-$$
  dotnet publish src/InkyBadger.Server -c Release --use-current-runtime --self-contained false -p:PublishReadyToRun=true -o "$folder" >.build/server-ahead.log 2>&1 ||
    { rm -rf "$folder"; quietly server dotnet publish src/InkyBadger.Server -c Release -o "$folder"; }
  [ -L .build/server ] || rm -rf .build/server
  ln -sfn "${folder#.build/}" .build/server
  end_build .build/server.mark
  # Older ones go, but for those that may still be running.
  ls -1d .build/servers/* | head -n -3 | xargs -r rm -rf
}
