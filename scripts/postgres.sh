# A private PostgreSQL cluster on loopback. Source after prerequisites.sh; needs PG_BIN.
# Used by ./start (durable) and ./test (fast and thrown away).

# As root the server runs as the user "postgres", which Debian's package makes: PostgreSQL refuses root.
as_postgres() {
  if [ "$(id -u)" -eq 0 ]; then
    runuser -u postgres -- "$@"
  else
    "$@"
  fi
}

# postgres_init FOLDER: makes a cluster once. A broken first attempt leaves no marker and is done again.
postgres_init() {
  local folder="$1"
  [ -e "$folder/.ready" ] && return 0
  rm -rf "$folder/cluster"
  mkdir -p "$folder"
  chmod 700 "$folder"
  (umask 077 && head -c 24 /dev/urandom | base64 | tr '+/' 'ab' >"$folder/password")
  local password_file="$folder/password" passed
  if [ "$(id -u)" -eq 0 ]; then
    chown postgres "$folder"
    # initdb runs as postgres and must read the secret; the copy lives only for this call.
    passed="$(mktemp /tmp/zesty-pw.XXXXXX)"
    cat "$password_file" >"$passed"
    chown postgres "$passed"
  else
    passed="$password_file"
  fi
  as_postgres "$PG_BIN/initdb" -D "$folder/cluster" -U zesty -A scram-sha-256 --pwfile="$passed" -E UTF8 \
    --locale-provider=icu --icu-locale=und --locale=C.UTF-8 --data-checksums >"$folder/initdb.log" 2>&1 ||
    { [ "$passed" = "$password_file" ] || rm -f "$passed"; stop_with 'the database could not be made.' "$(tail -n 5 "$folder/initdb.log")"; }
  [ "$passed" = "$password_file" ] || rm -f "$passed"
  : >"$folder/.ready"
}

# postgres_start FOLDER PORT [OPTIONS]: starts it and waits until it answers. After a kill -9 the old
# postmaster may need a moment to be seen as gone, so it is tried for a few seconds.
postgres_start() {
  local folder="$1" port="$2" options="${3:-}" try
  local log="$folder/postgres.log"
  if [ "$(id -u)" -eq 0 ]; then
    touch "$log"
    chown postgres "$log"
  fi
  # A postmaster that was killed leaves its children behind for a moment; they end by themselves.
  for try in $(seq 1 40); do
    if as_postgres "$PG_BIN/pg_ctl" -D "$folder/cluster" -l "$log" -w -t 60 \
      -o "-c listen_addresses=127.0.0.1 -c port=$port -c unix_socket_directories='' -c timezone=UTC -c log_timezone=UTC $options" start >/dev/null 2>&1; then
      return 0
    fi
    sleep 0.5
  done
  [ "${POSTGRES_MAY_FAIL:-}" = yes ] && return 1
  stop_with 'the database did not start.' "$(tail -n 6 "$log")"
}

# postgres_role FOLDER PORT: the role and database that the application uses. It owns its database and may do nothing
# else; what an older version made as the superuser is handed over to it.
postgres_role() {
  local folder="$1" port="$2"
  [ -e "$folder/.role" ] && return 0
  (umask 077 && [ -e "$folder/app-password" ] || head -c 24 /dev/urandom | base64 | tr '+/' 'ab' >"$folder/app-password")
  local sql
  sql() { PGPASSWORD="$(cat "$folder/password")" psql -X -q -v ON_ERROR_STOP=1 -h 127.0.0.1 -p "$port" -U zesty -d "$1" >"$folder/role.log" 2>&1; }
  {
    printf "SELECT 'CREATE ROLE zesty_app LOGIN' WHERE NOT EXISTS (SELECT FROM pg_roles WHERE rolname = 'zesty_app') \\gexec\n"
    printf "ALTER ROLE zesty_app PASSWORD '%s' NOSUPERUSER NOCREATEDB NOCREATEROLE;\n" "$(cat "$folder/app-password")"
    printf "SELECT 'CREATE DATABASE zesty OWNER zesty_app' WHERE NOT EXISTS (SELECT FROM pg_database WHERE datname = 'zesty') \\gexec\n"
    printf 'ALTER DATABASE zesty OWNER TO zesty_app;\nREVOKE CONNECT ON DATABASE zesty FROM PUBLIC;\n'
  } | sql postgres || stop_with "the application's database role could not be made." "$(tail -n 5 "$folder/role.log")"
  cat <<'SQL' | sql zesty || stop_with 'the tables could not be handed over to the application.' "$(tail -n 5 "$folder/role.log")"
ALTER SCHEMA public OWNER TO zesty_app;
DO $$
DECLARE thing record;
BEGIN
  FOR thing IN SELECT nspname FROM pg_namespace WHERE nspname = 'hangfire' LOOP
    EXECUTE format('ALTER SCHEMA %I OWNER TO zesty_app', thing.nspname);
  END LOOP;
  FOR thing IN SELECT n.nspname, c.relname, c.relkind FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace
    WHERE n.nspname IN ('public', 'hangfire') AND c.relkind IN ('r', 'p', 'v', 'm')
      AND NOT EXISTS (SELECT FROM pg_depend d WHERE d.objid = c.oid AND d.deptype = 'e') LOOP
    EXECUTE format('ALTER TABLE %I.%I OWNER TO zesty_app', thing.nspname, thing.relname);
  END LOOP;
  FOR thing IN SELECT n.nspname, c.relname FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace
    WHERE n.nspname IN ('public', 'hangfire') AND c.relkind = 'S'
      AND NOT EXISTS (SELECT FROM pg_depend d WHERE d.objid = c.oid AND d.deptype IN ('a', 'i', 'e')) LOOP
    EXECUTE format('ALTER SEQUENCE %I.%I OWNER TO zesty_app', thing.nspname, thing.relname);
  END LOOP;
END $$;
SQL
  : >"$folder/.role"
}

postgres_running() { as_postgres "$PG_BIN/pg_ctl" -D "$1/cluster" status >/dev/null 2>&1; }

# postgres_answers FOLDER: whether it takes connections. After a kill -9 the process may still be listed for a moment,
# with a port that nobody listens on any more.
postgres_answers() { "$PG_BIN/pg_isready" -q -h 127.0.0.1 -p "$(postgres_port "$1")" 2>/dev/null; }

# postgres_settled FOLDER: waits until it either answers (0) or is not running (1).
postgres_settled() {
  local try
  for try in $(seq 1 60); do
    postgres_running "$1" || return 1
    postgres_answers "$1" && return 0
    sleep 0.5
  done
  return 1
}

postgres_stop() {
  if postgres_running "$1"; then
    as_postgres "$PG_BIN/pg_ctl" -D "$1/cluster" -m "${2:-fast}" -w stop >/dev/null 2>&1 || true
  fi
}

# The port a running cluster listens on (line 4 of its pid file).
postgres_port() { as_postgres sed -n 4p "$1/cluster/postmaster.pid" 2>/dev/null; }

# A port nobody listens on, asked of the system.
free_port() { node -e 'const s = require("net").createServer(); s.listen(0, "127.0.0.1", () => { console.log(s.address().port); s.close(); })'; }

# port_taken PORT: whether somebody listens there on loopback.
port_taken() {
  node -e 'const c = require("net").connect(Number(process.argv[1]), "127.0.0.1"); c.on("connect", () => { c.destroy(); process.exit(0); }); c.on("error", () => process.exit(1));' "$1"
}
