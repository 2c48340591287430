# Runs everything; sourced by ./meadow test. Ends with one line "N passed, N failed" and an honest exit code.
need_dotnet
data=$(data_folder)
unset MEADOW_DB
started=$SECONDS
# As the projects' own (Directory.Build.props), for the compiler and the tools too: a sixth of the processor is saved.
export DOTNET_TieredPGO=0
mkdir -p artifacts
missing=()
[[ -x $pg_bin/initdb ]] || missing+=(postgresql-15)
[[ -x /usr/bin/chromium ]] || missing+=(chromium)
command -v node >/dev/null || missing+=(nodejs)
command -v npm >/dev/null || missing+=(npm)
[[ -x /usr/sbin/nginx ]] || missing+=(nginx-light)
[[ -e /usr/lib/x86_64-linux-gnu/faketime/libfaketime.so.1 ]] || missing+=(libfaketime)
command -v gpg >/dev/null || missing+=(gpg gpg-agent)
install_packages "${missing[@]}"

# A cluster left by a run that was cut off is started anew, so that nothing of it is left over.
stop_cluster "$data/pg-test"
rm -rf "$data/pg-test"
start_cluster "$data/pg-test" meadow
export MEADOW_TEST_DB="$MEADOW_DB"
unset MEADOW_DB
end_tests() { stop_cluster "$data/pg-test"; }
trap end_tests EXIT

# Sites for the browser, each on a new database and a free port: the demo, which no test changes, two more that tests change,
# two without anything to walk over, and a new one with what ships with the app.
make_browser_sites() {
  local name
  for name in demo studio desk empty walk new; do
    start_cluster "$data/pg-test" "browser_$name"
    errand is-empty || true
    errand bring-people demo/kittiwake-quay.people.json
    errand bring-people tests/browser/people.json
    case $name in
      demo | studio | desk) load_demo ;;
      new) errand add-starter ;;
    esac
    export "MEADOW_${name^^}_DB=$MEADOW_DB" "MEADOW_${name^^}_PORT=$(free_port)"
  done
  unset MEADOW_DB
}

passed=0
failed=0
step() { # NAME COMMAND…: counts as one check
  local name=$1
  shift
  say "── $name"
  if "$@"; then passed=$((passed + 1)); else failed=$((failed + 1)); say "   failed: $name"; fi
}

say "── restore and build"
dotnet restore UnrulyMeadow.slnx --locked-mode -v quiet || fail "the lock files do not match the projects; run dotnet restore and commit them"
dotnet tool restore > /dev/null || fail "the tools of .config/dotnet-tools.json could not be restored"
if ! dotnet build UnrulyMeadow.slnx -c Release --no-restore -v quiet --nologo -clp:ErrorsOnly; then
  say "0 passed, 1 failed"
  exit 1
fi

say "── unit, database and web tests"
log=artifacts/dotnet-test.log
dotnet test --solution UnrulyMeadow.slnx -c Release --no-build --no-restore > "$log" 2>&1 || true
grep -E '^\s*(total|failed|succeeded|skipped):' "$log" || true
dotnet_failed=$(sed -nE 's/^ *failed: ([0-9]+).*/\1/p' "$log" | tail -1)
dotnet_passed=$(sed -nE 's/^ *succeeded: ([0-9]+).*/\1/p' "$log" | tail -1)
if [[ -z $dotnet_passed || -z $dotnet_failed || $dotnet_passed -eq 0 ]]; then
  cat "$log"
  failed=$((failed + 1))
else
  passed=$((passed + dotnet_passed))
  failed=$((failed + dotnet_failed))
  [[ $dotnet_failed -eq 0 ]] || cat "$log"
fi

step "formatting of the code" dotnet csharpier check src tests demo bench

say "── front end and browser"
if (cd tests/browser && npm ci --no-audit --no-fund --loglevel=error); then
  step "ESLint" npm --prefix tests/browser run --silent lint
  make_browser_sites
  report=artifacts/browser-tests.json
  rm -f "$report"
  (cd tests/browser && PLAYWRIGHT_JSON_OUTPUT_NAME="$here/$report" npx playwright test) || true
  if [[ -s $report ]]; then
    read -r browser_passed browser_failed < <(node -e '
      const s = JSON.parse(require("fs").readFileSync(process.argv[1], "utf8")).stats;
      console.log(s.expected + s.flaky, s.unexpected);' "$report")
    passed=$((passed + browser_passed))
    failed=$((failed + browser_failed))
    [[ $browser_passed -gt 0 ]] || failed=$((failed + 1))
  else
    failed=$((failed + 1))
  fi
else
  failed=$((failed + 1))
  say "   the front end's test packages could not be installed"
fi

# Said again at the end, where it is seen.
[[ ${dotnet_failed:-0} -eq 0 ]] || { say "── failed:"; grep -E -A 8 '^ *failed +[A-Za-z]' "$log" | head -60 || true; }
say "took $((SECONDS - started)) s"
say "$passed passed, $failed failed"
[[ $failed -eq 0 ]]
