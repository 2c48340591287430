# Measures the pages of the running demo app and the core's main computations; sourced by ./meadow bench.
command -v node >/dev/null || fail "the bench needs Node.js"
build src/Web "$web_dll"
data=$(data_folder)
start_cluster "$data/pg-bench" bench
errand is-empty && load_demo
site_db=$MEADOW_DB
port=$(free_port)
(cd src/Web && exec env ASPNETCORE_ENVIRONMENT=Production dotnet "$here/$web_dll" --urls "http://127.0.0.1:$port" >/dev/null) &
bench_pid=$!
trap 'kill -TERM $bench_pid 2>/dev/null; wait $bench_pid 2>/dev/null || true; stop_cluster "$data/pg-bench"' EXIT
node bench/pages.mjs "http://127.0.0.1:$port"
if [[ -d tests/browser/node_modules && -x /usr/bin/chromium ]]; then
  node bench/grounds.mjs "http://127.0.0.1:$port"
  node bench/arrange.mjs "http://127.0.0.1:$port"
fi
# The same app over a thousand planters.
kill -TERM "$bench_pid" 2>/dev/null
wait "$bench_pid" 2>/dev/null || true
start_cluster "$data/pg-bench" bench_thousand
if errand is-empty; then
  node bench/thousand.mjs >"$data/thousand.plan.json"
  errand bring-plan "$data/thousand.plan.json"
  errand bring-weather demo/kittiwake-quay.dly --lat 43.1 --lon -66.9 --elevation 6
fi
(cd src/Web && exec env ASPNETCORE_ENVIRONMENT=Production dotnet "$here/$web_dll" --urls "http://127.0.0.1:$port" >/dev/null) &
bench_pid=$!
until curl -sf "http://127.0.0.1:$port/health" >/dev/null; do sleep 0.3; done
if [[ -d tests/browser/node_modules && -x /usr/bin/chromium ]]; then
  node bench/year.mjs "http://127.0.0.1:$port"
fi
kill -TERM "$bench_pid" 2>/dev/null
wait "$bench_pid" 2>/dev/null || true
start_cluster "$data/pg-bench" bench_figures
errand is-empty || true
dotnet build bench/Figures -c Release -v quiet --nologo -clp:ErrorsOnly
dotnet artifacts/bin/Figures/release_linux-x64/UnrulyMeadow.Figures.dll
MEADOW_DB=$site_db
