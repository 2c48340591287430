# Sends everything to every page and reader for so many minutes; sourced by ./meadow hostile. Exit code 1 when something broke.
minutes=${1:-60}
[[ $minutes =~ ^[0-9]+$ ]] || fail "hostile takes a whole number of minutes"
need_dotnet
data=$(data_folder)
unset MEADOW_DB
start_cluster "$data/pg-hostile" meadow
export MEADOW_TEST_DB="$MEADOW_DB"
unset MEADOW_DB
trap 'stop_cluster "$data/pg-hostile"' EXIT
dotnet build tests/hostile -c Release -v quiet --nologo -clp:ErrorsOnly || fail "the build failed"
say "Sending for $minutes minutes…"
# One after the other: each is held to its time.
HOSTILE_MINUTES=$minutes HOSTILE_SEED=${HOSTILE_SEED:-$RANDOM} artifacts/bin/Hostile/release_linux-x64/UnrulyMeadow.Hostile -parallel none -showLiveOutput
