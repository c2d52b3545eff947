#!/usr/bin/env bash
# Builds and starts Pyrometron. ./run.sh --help tells the options.
set -euo pipefail
root=$(cd "$(dirname "$0")" && pwd)
. "$root/scripts/build.sh"

demo=true data="" port=5117 build=true
house=() log=()
while [ $# -gt 0 ]; do
  case "$1" in
    --empty) demo=false ;;
    --data) data=${2:?--data needs a folder}; shift ;;
    --port) port=${2:?--port needs a number}; shift ;;
    --solo) house=() ;;
    --house) [ ${#house[@]} -gt 0 ] || house=(--solo false) ;;
    --listen|--name|--certificate|--certificate-key|--proxy)
      house=(--solo false ${house[@]:2} "$1" "${2:?$1 needs a value}"); shift ;;
    --log) log=(--log "${2:?--log needs text, json or journal}"); shift ;;
    --no-build) build=false ;;
    --help|-h)
      echo "usage: ./run.sh [--empty] [--data DIR] [--port N] [--no-build] [--house [--listen ADDRESS] [--name NAMES] ...]"
      echo "  --empty     an empty database for your own machines (default: the demo)"
      echo "  --data DIR  where the database lies (default: data/demo, with --empty data/own)"
      echo "  --port N    port on 127.0.0.1 (default: 5117)"
      echo "  --log F     how the log is written: text, json or journal (default: text, for a journal where one listens)"
      echo "  --no-build  start what was built last"
      echo "  --solo      for one person at this machine: no accounts, no network (the default)"
      echo "  --house     for a house: everybody signs in, over HTTPS; the options below mean it too"
      echo "  --listen A  the address it listens on, such as 0.0.0.0 for all networks (default: 127.0.0.1)"
      echo "  --name N    names under which it answers, with commas between them"
      echo "  --certificate F, --certificate-key F   the house's own certificate, PEM or PFX (default: one made here)"
      echo "  --proxy A   addresses of reverse proxies that speak HTTPS for it"
      exit 0 ;;
    *) echo "run.sh: unknown option '$1'; --help lists what there is." >&2; exit 2 ;;
  esac
  shift
done
[ -n "$data" ] || data="$root/data/$([ "$demo" = true ] && echo demo || echo own)"

check_tools
if [ "$build" = true ]; then
  build_to_run || { echo "run.sh: the build failed; what it said is above." >&2; exit 1; }
elif [ ! -f "$server_dll" ]; then
  echo "run.sh: nothing has been built yet; run it once without --no-build." >&2
  exit 1
fi

mkdir -p "$data" || { echo "run.sh: the folder $data cannot be made; name another with --data." >&2; exit 1; }
# A larger nursery: judging goes through much short-lived memory, and this saves a fifth of its time.
export DOTNET_GCgen0size=${DOTNET_GCgen0size:-0x4000000}
# The server takes this script's place: Ctrl-C and signals reach it, and it says where it is once it answers.
exec dotnet "$server_dll" --contentRoot "$root/src/Pyrometron.Server" --demo "$demo" --data "$(cd "$data" && pwd)" --port "$port" \
  ${house[@]+"${house[@]}"} ${log[@]+"${log[@]}"}
