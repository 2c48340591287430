# Kills, fills and holds up everything for so many minutes while people work; sourced by ./meadow endure. Exit code 1 when something was lost.
minutes=${1:-30}
[[ $minutes =~ ^[0-9]+$ ]] || fail "endure takes a whole number of minutes"
need_dotnet
missing=()
[[ -x $pg_bin/initdb ]] || missing+=(postgresql-15)
[[ -e /usr/lib/x86_64-linux-gnu/faketime/libfaketime.so.1 ]] || missing+=(libfaketime)
[[ -x /usr/sbin/nginx ]] || missing+=(nginx-light)
install_packages "${missing[@]}"
dotnet build tests/endurance -c Release -v quiet --nologo -clp:ErrorsOnly || fail "the build failed"
say "Enduring for $minutes minutes…"
# Each makes clusters of its own; the server of all tests is not asked.
MEADOW_TEST_DB=none ENDURE_MINUTES=$minutes ENDURE_SEED=${ENDURE_SEED:-$RANDOM} \
  artifacts/bin/Endurance/release_linux-x64/UnrulyMeadow.Endurance -parallel none -showLiveOutput
