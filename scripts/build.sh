# Builds server and front end; sourced by run.sh and test.sh. Expects $root.

need() {
  command -v "$1" >/dev/null 2>&1 || { echo "Pyrometron needs $2, which is not on this machine's PATH." >&2; exit 1; }
}

check_tools() {
  need dotnet "the .NET 10 SDK (dotnet)"
  need node "Node.js 20 or later (node)"
  need npm "npm, which comes with Node.js"
  dotnet --list-sdks 2>/dev/null | grep -q '^10\.' || { echo "Pyrometron needs the .NET 10 SDK; dotnet is here, but no SDK of version 10." >&2; exit 1; }
  [ "$(node -p 'process.versions.node.split(".")[0]')" -ge 20 ] || { echo "Pyrometron needs Node.js 20 or later; here is $(node --version)." >&2; exit 1; }
}

# npm ci takes a while: only when the lock file has changed since the last time.
npm_install() {
  local stamp="$1/node_modules/.pyrometron-lock"
  if ! cmp -s "$1/package-lock.json" "$stamp"; then
    echo "Installing packages of $(basename "$1") …"
    (cd "$1" && npm ci --no-audit --no-fund --loglevel=error) && cp "$1/package-lock.json" "$stamp"
  fi
}

export DOTNET_CLI_TELEMETRY_OPTOUT=1 DOTNET_NOLOGO=1

# Runs a step whose output matters only when it fails.
quietly() {
  local log="$root/artifacts/$1.log"
  "${@:2}" >"$log" 2>&1 || { cat "$log" >&2; return 1; }
}

# What running needs, server and front end at the same time: without analyzers, type checks and the API's document.
build_to_run() {
  mkdir -p "$root/artifacts"
  echo "Building server and front end …"
  quietly server-build dotnet build "$root/src/Pyrometron.Server" -c Release -v quiet --nologo \
    -p:RunAnalyzers=false -p:EnforceCodeStyleInBuild=false -p:OpenApiGenerateDocumentsOnBuild=false &
  local server_build=$! failed=0
  # What a script puts into the background does not hear Ctrl-C by itself.
  trap 'kill "$server_build" 2>/dev/null; exit 130' INT TERM
  quietly web-build front_end || failed=1
  wait "$server_build" || failed=1
  trap - INT TERM
  [ "$failed" = 0 ] && bill_of_materials
}

# The front end as it is served; its types are made from the server's API document and checked apart.
front_end() {
  npm_install "$root/web" && (cd "$root/web" && node languages/pseudo.js && npx vite build)
}

# What ships and under which licences, written beside a program that is built: bill_of_materials [FOLDER]
bill_of_materials() { node "$root/web/bill-of-materials/make.js" "${1:-$(dirname "$server_dll")}"; }

server_dll="$root/src/Pyrometron.Server/bin/Release/net10.0/Pyrometron.Server.dll"
