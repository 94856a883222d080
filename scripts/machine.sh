# Shared by demo and check: packages, Rust, and PostgreSQL clusters of our own on loopback.
# shellcheck shell=bash

die() {
  printf '%s\n' "$*" >&2
  exit 1
}

is_root() { [ "$(id -u)" -eq 0 ]; }

# need_packages PACKAGE=PROBE...: installs those whose probe fails.
need_packages() {
  local missing=() pair
  for pair in "$@"; do
    "${pair#*=}" >/dev/null 2>&1 || missing+=("${pair%%=*}")
  done
  [ ${#missing[@]} -gt 0 ] || return 0
  command -v apt-get >/dev/null ||
    die "This machine has no apt-get: install what Debian calls ${missing[*]} by its own means, then run $0 again."
  is_root || die "Some packages are missing. Run this once, then $0 again:
  sudo apt-get update && sudo apt-get install --no-install-recommends ${missing[*]}"
  echo "Installing ${missing[*]}"
  local log
  log=$(mktemp)
  if ! { apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}"; } >"$log" 2>&1; then
    tail -n 5 "$log" >&2
    rm -f "$log"
    die "The packages could not be installed; see above, mend that, and run $0 again."
  fi
  rm -f "$log"
}

has_postgres() { [ -n "$(postgres_bin)" ]; }
has_libpq() { [ -e /usr/include/postgresql/libpq-fe.h ] || pkg-config --exists libpq; }
has_cc() { command -v cc && command -v make; }
has_chromium() { command -v chromium; }
has_chromedriver() { command -v chromedriver; }
has_pdfinfo() { command -v pdfinfo; }
has_curl() { command -v curl; }
has_pgbouncer() { [ -x /usr/sbin/pgbouncer ] || command -v pgbouncer; }

need_rust() {
  [ -x "${CARGO_HOME:-$HOME/.cargo}/bin/cargo" ] && PATH="${CARGO_HOME:-$HOME/.cargo}/bin:$PATH"
  local wanted have
  wanted=$(sed -n 's/^rust-version = "\(.*\)"/\1/p' Cargo.toml)
  have=$(cargo --version 2>/dev/null | cut -d' ' -f2)
  [ -n "$have" ] || die "Rust $wanted or newer is missing: install it as https://rustup.rs says, then run $0 again."
  [ "$(printf '%s\n%s\n' "$wanted" "$have" | sort -V | head -n 1)" = "$wanted" ] ||
    die "Rust $have is too old, $wanted or newer is needed: run rustup update, then $0 again."
}

# need_room FOLDER MEGABYTES
need_room() {
  local free
  free=$(df -Pm "$1" | awk 'NR == 2 { print $4 }')
  [ "$free" -ge "$2" ] || die "The disk under $1 is full: $free MB free, $2 MB needed. Make room, then run $0 again."
}

# The folder of the server's own programs: as told, as Debian lays it out, or from PATH.
postgres_bin() {
  local folder
  for folder in "${PG_BIN_DIR:-}" $(printf '%s\n' /usr/lib/postgresql/*/bin | sort -Vr) "$(dirname "$(command -v initdb 2>/dev/null || echo /none/initdb)")"; do
    [ -n "$folder" ] && [ -x "$folder/initdb" ] && [ -x "$folder/pg_ctl" ] && { echo "$folder"; return; }
  done
}

# Runs as the account that may run PostgreSQL, which refuses root.
as_postgres() {
  if is_root; then (cd / && runuser -u postgres -- "$@"); else "$@"; fi
}

port_is_taken() { (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }

free_port() {
  local port
  for port in $(shuf -i 20000-32000 -n 50); do
    port_is_taken "$port" || { echo "$port"; return; }
  done
  die "No free port was found for PostgreSQL."
}

# make_cluster FOLDER: an empty cluster with a password of its own beside it.
make_cluster() {
  local password
  password=$(od -An -tx1 -N16 /dev/urandom | tr -d ' \n')
  (umask 077 && printf '%s' "$password" >"$1.password")
  is_root && chown postgres "$1.password"
  local said
  said=$(as_postgres "$(postgres_bin)/initdb" -D "$1" -U wise_badger --pwfile="$1.password" --auth=scram-sha-256 \
    --encoding=UTF8 --locale=C.UTF-8 2>&1) || { tail -n 3 <<<"$said" >&2; die "PostgreSQL could not be set up in $1."; }
}

# start_cluster FOLDER [OPTION...]: starts it on loopback, at $cluster_port where that is set, and leaves its URL, without a
# database, in $cluster_url.
start_cluster() {
  local folder=$1 port
  shift
  port=${cluster_port:-$(free_port)}
  as_postgres "$(postgres_bin)/pg_ctl" -D "$folder" -l "$folder.log" -w -s \
    -o "-h 127.0.0.1 -p $port -k $(dirname "$folder") $*" start >/dev/null 2>&1 ||
    { tail -n 3 "$folder.log" 2>/dev/null >&2; die "PostgreSQL could not be started; its log is $folder.log."; }
  cluster_url="postgres://wise_badger:$(cat "$folder.password")@127.0.0.1:$port"
}

cluster_is_up() { as_postgres "$(postgres_bin)/pg_ctl" -D "$1" status >/dev/null 2>&1; }

stop_cluster() { as_postgres "$(postgres_bin)/pg_ctl" -D "$1" -m fast -w -s stop >/dev/null 2>&1; }

# scratch_cluster: a throwaway cluster for tests and benchmarks, gone when the script ends; its URL goes to the tests.
scratch_cluster() {
  scratch=$(mktemp -d "${TMPDIR:-/tmp}/wise-badger.XXXXXX")
  need_room "$scratch" 300
  if is_root; then chown postgres "$scratch"; fi
  trap 'stop_cluster "$scratch/tests" || true; rm -rf "$scratch"' EXIT
  trap 'exit 130' INT TERM HUP
  make_cluster "$scratch/tests"
  start_cluster "$scratch/tests" -c fsync=off -c synchronous_commit=off -c full_page_writes=off -c max_connections=200
  export WISE_BADGER_TEST_SERVER=$cluster_url
}
