# Measures the pages of the running demo app and the core's main computations; sourced by ./meadow bench. Whatever a busy machine does to
# one measurement, the others are made and printed.
command -v node >/dev/null || fail "the bench needs Node.js"
build src/Web "$web_dll"
data=$(data_folder)
bench_pid=
unmeasured=0
end_bench() { end_app; stop_cluster "$data/pg-bench"; }
trap end_bench EXIT

# WHAT SECONDS COMMAND…: one measurement, for at most so long.
measured() {
  local what=$1 seconds=$2
  shift 2
  say "── $what"
  timeout "$seconds" "$@" || { say "   not measured whole: it ended with code $?"; unmeasured=$((unmeasured + 1)); }
}
begin_app() {
  port=$(free_port)
  (cd src/Web && exec env ASPNETCORE_ENVIRONMENT=Production dotnet "$here/$web_dll" --urls "http://127.0.0.1:$port" >/dev/null) &
  bench_pid=$!
  for _ in $(seq 1 300); do
    curl -sf "http://127.0.0.1:$port/health" >/dev/null && return
    sleep 0.3
  done
  say "   the app did not answer"
}
end_app() {
  [[ -z $bench_pid ]] || { kill -TERM "$bench_pid" 2>/dev/null; wait "$bench_pid" 2>/dev/null || true; bench_pid=; }
}
with_browser() { [[ -d tests/browser/node_modules && -x /usr/bin/chromium ]]; }

start_cluster "$data/pg-bench" bench
if errand is-empty; then load_demo; fi
site_db=$MEADOW_DB
begin_app
measured "pages of the demo" 600 node bench/pages.mjs "http://127.0.0.1:$port"
if with_browser; then
  measured "the map" 300 node bench/grounds.mjs "http://127.0.0.1:$port"
  measured "an arrangement" 300 node bench/arrange.mjs "http://127.0.0.1:$port"
fi
end_app
# The same app over a thousand planters, then over five thousand.
begin_many() {
  start_cluster "$data/pg-bench" "bench_$1"
  if errand is-empty; then
    node bench/thousand.mjs "$1" >"$data/$1.plan.json"
    errand bring-plan "$data/$1.plan.json"
    errand bring-people demo/kittiwake-quay.people.json
    errand bring-weather demo/kittiwake-quay.dly --lat 43.1 --lon -66.9 --elevation 6
  fi
  begin_app
}
begin_many 1000
if with_browser; then
  measured "the year of a thousand planters" 600 node bench/year.mjs "http://127.0.0.1:$port"
fi
errand bring-supply demo/kittiwake-quay.supply.json
errand bring-crew demo/kittiwake-quay.crew.json
if with_browser; then
  measured "a phone of the crew at a thousand planters" 300 node bench/phone.mjs "http://127.0.0.1:$port"
fi
measured "supply at a thousand planters" 300 node bench/supply.mjs "http://127.0.0.1:$port"
measured "reads while others write" 300 node bench/writes.mjs "http://127.0.0.1:$port"
measured "pages and edits at a thousand planters" 300 node bench/edits.mjs "http://127.0.0.1:$port"
measured "fifty people and five writes a second at a thousand planters" 900 node bench/clients.mjs "http://127.0.0.1:$port"
end_app
# Fifty sites of four hundred planters each in one database.
begin_sites() {
  start_cluster "$data/pg-bench" bench_sites
  if errand is-empty; then
    node bench/thousand.mjs 400 >"$data/400.plan.json"
    local n
    for n in $(seq 1 50); do
      [[ $n -eq 1 ]] || errand add-site "Meadow $n"
      export MEADOW_SITE="meadow-$n"
      [[ $n -gt 1 ]] || unset MEADOW_SITE
      sed "s/Kittiwake Quay/Meadow $n/" "$data/400.plan.json" >"$data/400-of-$n.plan.json"
      errand bring-plan "$data/400-of-$n.plan.json"
      rm "$data/400-of-$n.plan.json"
      errand bring-people demo/kittiwake-quay.people.json
      errand bring-weather demo/kittiwake-quay.dly --lat 43.1 --lon -66.9 --elevation 6
    done
    unset MEADOW_SITE
  fi
  begin_app
}
begin_sites
measured "fifty people and five writes a second over fifty sites of four hundred planters" 900 node bench/clients.mjs "http://127.0.0.1:$port"
say "   memory of the app: $(($(awk '/VmRSS/ {print $2}' "/proc/$bench_pid/status") / 1024)) MB"
end_app
begin_many 5000
measured "pages and edits at five thousand planters" 300 node bench/edits.mjs "http://127.0.0.1:$port"
say "   memory of the app: $(($(awk '/VmRSS/ {print $2}' "/proc/$bench_pid/status") / 1024)) MB"
end_app
start_cluster "$data/pg-bench" bench_figures
errand is-empty || true
if dotnet build bench/Figures -c Release -v quiet --nologo -clp:ErrorsOnly; then
  measured "the core" 7200 dotnet artifacts/bin/Figures/release_linux-x64/UnrulyMeadow.Figures.dll
fi
MEADOW_DB=$site_db
[[ $unmeasured -eq 0 ]] || say "$unmeasured measurements are not whole; the machine may have been busy."
