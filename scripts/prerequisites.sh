# Shared by ./start and ./test: finds what the program needs, installs Debian packages where it may, and says
# exactly what to do where it may not. Source this file; it defines functions only.

say() { printf '%s\n' "$*"; }

stop_with() {
  printf '\nZesty Pocket cannot go on: %s\n' "$1" >&2
  shift
  for line in "$@"; do printf '  %s\n' "$line" >&2; done
  exit 1
}

require_dotnet() {
  command -v dotnet >/dev/null 2>&1 ||
    stop_with 'the .NET SDK 10 is missing.' 'Install the .NET SDK 10 from your distribution or from its makers, then run this again.'
  (cd "$ROOT" && dotnet --version >/dev/null 2>&1) ||
    stop_with 'the installed .NET SDK is too old.' "Found: $(dotnet --list-sdks 2>/dev/null | tr '\n' ' ')" 'Needed: 10.0.100 or later.'
}

require_node() {
  command -v node >/dev/null 2>&1 && command -v npm >/dev/null 2>&1 ||
    stop_with 'Node.js with npm is missing.' "Install Node.js 20.19 or later (Debian 12's own nodejs is too old), then run this again."
  node -e 'const [a, b] = process.versions.node.split(".").map(Number); process.exit(a > 20 || (a === 20 && b >= 19) ? 0 : 1)' ||
    stop_with "Node.js $(node --version) is too old." 'Needed: 20.19 or later.'
}

# require_debian PROGRAM PACKAGE...: installs the packages when the program is missing and we are root.
require_debian() {
  local program="$1"
  shift
  if command -v "$program" >/dev/null 2>&1; then return 0; fi
  if [ "$(id -u)" -ne 0 ]; then
    stop_with "$program is missing." 'Ask an administrator to run:' "  apt-get update && apt-get install -y $*"
  fi
  command -v apt-get >/dev/null 2>&1 || stop_with "$program is missing and there is no apt-get to install it with."
  say "Installing $* …"
  if [ -z "${APT_UPDATED:-}" ]; then
    apt-get -o DPkg::Lock::Timeout=300 update -qq >/dev/null || stop_with 'the list of Debian packages could not be fetched.' 'Check the network and run this again.'
    APT_UPDATED=1
  fi
  DEBIAN_FRONTEND=noninteractive apt-get -o DPkg::Lock::Timeout=300 install -y -qq --no-install-recommends "$@" >/dev/null ||
    stop_with "Debian's packages $* could not be installed." 'Run the same command by hand to see why:' "  apt-get install -y $*"
}

# require_library NAME PACKAGE: the same for a shared library.
require_library() {
  ldconfig -p 2>/dev/null | grep -q "$1" || /sbin/ldconfig -p 2>/dev/null | grep -q "$1" || require_debian "library-$1" "$2"
}

# The newest installed PostgreSQL server programs, or nothing.
postgres_bin() {
  local candidate
  for candidate in $(ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -t/ -k5 -n -r); do
    if [ -x "$candidate/initdb" ] && [ -x "$candidate/postgres" ]; then
      printf '%s' "$candidate"
      return 0
    fi
  done
  return 1
}

require_postgres() {
  if PG_BIN="$(postgres_bin)"; then return 0; fi
  if [ "$(id -u)" -ne 0 ]; then
    stop_with "PostgreSQL's server programs are missing." 'Ask an administrator to run:' '  apt-get update && apt-get install -y postgresql'
  fi
  # No cluster of Debian's own: the program keeps a private one.
  mkdir -p /etc/postgresql-common
  [ -e /etc/postgresql-common/createcluster.conf ] || echo 'create_main_cluster = false' >/etc/postgresql-common/createcluster.conf
  require_debian initdb-of-postgresql postgresql
  PG_BIN="$(postgres_bin)" || stop_with 'PostgreSQL was installed but its server programs were not found.'
}

# Content hash of everything that a build depends on.
sources_hash() {
  (cd "$ROOT" && find src Directory.Build.props Directory.Packages.props global.json -type f \
    -not -path '*/bin/*' -not -path '*/obj/*' -not -path '*/node_modules/*' -not -path '*/dist/*' -print0 |
    sort -z | xargs -0 sha256sum | sha256sum | cut -d' ' -f1)
}

install_web() {
  local want
  want="$(sha256sum "$ROOT/src/web/package-lock.json" | cut -d' ' -f1)"
  if [ "$(cat "$ROOT/src/web/node_modules/.installed" 2>/dev/null)" != "$want" ]; then
    say 'Installing front-end packages …'
    (cd "$ROOT/src/web" && npm ci --no-progress --loglevel=error) || stop_with 'the front-end packages could not be installed.' 'Check the network and run this again.'
    printf '%s' "$want" >"$ROOT/src/web/node_modules/.installed"
  fi
}
