#!/usr/bin/env bash
# Everything that proves Pyrometron: format and lint, types, xUnit, unit tests of the front end, browser tests.
set -euo pipefail
root=$(cd "$(dirname "$0")" && pwd)
. "$root/scripts/build.sh"
check_tools
cd "$root"
# Dozens of short-lived processes: measuring their code to compile it again costs each of them half its time.
export DOTNET_TieredPGO=0
mkdir -p artifacts
passed=0 failed=0

phase() { echo "== $1 (after $SECONDS s)"; }

# Runs a check that is one pass or one fail.
check() {
  phase "$1"
  if "${@:2}"; then passed=$((passed + 1)); else failed=$((failed + 1)); echo "FAILED: $1" >&2; fi
}

browser() {
  command -v chromium >/dev/null 2>&1 && return
  echo "Installing Chromium …"
  if [ "$(id -u)" = 0 ]; then apt-get update -qq && apt-get install -y -qq chromium >/dev/null
  else sudo -n apt-get update -qq && sudo -n apt-get install -y -qq chromium >/dev/null
  fi
}

echo "Building …"
packages() { front_end && npm_install "$root/e2e"; }
quietly web-build packages &
packages=$!
dotnet build Pyrometron.slnx -c Release -v quiet --nologo
dotnet tool restore >/dev/null
wait "$packages"
bill_of_materials
# What only reads, and the units of the front end, run beside the tests that wait on files and sockets.
lints() {
  set +e
  dotnet csharpier check . >artifacts/lint-csharp.log 2>&1; echo $? >artifacts/lint-csharp.code
  (cd web && npm run --silent check) >artifacts/lint-web.log 2>&1; echo $? >artifacts/lint-web.code
  (cd e2e && npm run --silent check) >artifacts/lint-e2e.log 2>&1; echo $? >artifacts/lint-e2e.code
  (cd web && npx vitest run --reporter=default --reporter=json --outputFile.json=../artifacts/vitest.json) >artifacts/vitest.log 2>&1
}
# The outcome of one of them.
linted() { cat "artifacts/lint-$1.log"; return "$(cat "artifacts/lint-$1.code" 2>/dev/null || echo 1)"; }
rm -f artifacts/lint-* artifacts/vitest.*
lints &
lints=$!

phase xUnit
rm -rf artifacts/trx
dotnet test Pyrometron.slnx -c Release --no-build --nologo -v quiet --logger "trx" --results-directory artifacts/trx || true
wait "$lints" || true
check "C# format" linted csharp
check "front end: types, lint, format" linted web
check "browser tests: types, format" linted e2e
counts=$(cat artifacts/trx/*.trx | grep -o '<Counters [^>]*>' | sed -E 's/.* passed="([0-9]+)" failed="([0-9]+)".*/\1 \2/')
[ -n "$counts" ] || { echo "FAILED: xUnit ran nothing" >&2; failed=$((failed + 1)); }
while read -r p f; do [ -z "$p" ] || { passed=$((passed + p)); failed=$((failed + f)); }; done <<<"$counts"
xunit_failures=$(cat artifacts/trx/*.trx | grep -o '<UnitTestResult [^>]*outcome="Failed"[^>]*>' | sed -E 's/.* testName="([^"]*)".*/\1/') || true

# Adds the counts of a report in the JSON form of Vitest or Playwright.
tally() {
  local sums
  sums=$(node -e '
    const r = JSON.parse(require("fs").readFileSync(process.argv[1], "utf8"));
    console.log(r.stats ? `${r.stats.expected + r.stats.flaky} ${r.stats.unexpected}` : `${r.numPassedTests} ${r.numFailedTests}`);
  ' "$1" 2>/dev/null) || sums="0 1"
  read -r p f <<<"$sums"
  passed=$((passed + p)) failed=$((failed + f))
}

phase "Front end units"
rm -f artifacts/playwright.json
tail -n 25 artifacts/vitest.log
tally artifacts/vitest.json

phase Browser
if browser; then
  (cd e2e && npx playwright test) || true
  tally artifacts/playwright.json
else
  echo "FAILED: no Chromium, and it could not be installed" >&2
  failed=$((failed + 1))
fi

phase done
# What failed, once more where a reader of the last lines finds it.
[ -z "$xunit_failures" ] || sed 's/^/FAILED: /' <<<"$xunit_failures"
node -e '
  const read = (f) => { try { return JSON.parse(require("fs").readFileSync("artifacts/" + f, "utf8")); } catch { return {}; } };
  for (const file of read("vitest.json").testResults ?? [])
    for (const t of file.assertionResults) if (t.status === "failed") console.log("FAILED: " + t.fullName);
  const walk = (suite) => {
    for (const s of suite.specs ?? [])
      for (const t of s.tests)
        if (t.status !== "expected" && t.status !== "skipped")
          console.log(`${t.status === "flaky" ? "Passed at the second try" : "FAILED"}: ${s.file}: ${s.title}`);
    (suite.suites ?? []).forEach(walk);
  };
  (read("playwright.json").suites ?? []).forEach(walk);
'
echo "$passed passed, $failed failed"
[ "$failed" = 0 ]
