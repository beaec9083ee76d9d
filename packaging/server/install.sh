#!/usr/bin/env bash
# Sets the shop's server up on Debian: PostgreSQL, one database, Riktig's tables, and the way in for the house's network.
#   sudo packaging/server/install.sh [DATABASE]          (riktig)
# With PGHOST set, only the database and its tables are made on that server, as the role PGUSER.
set -euo pipefail
here="$(cd "$(dirname "$0")" && pwd)"
tables="$here/../../src/riktig/server/tables.sql"
database="${1:-riktig}"
say() { printf 'riktig: %s\n' "$*" >&2; }
as_owner() { if [ -n "${PGHOST:-}" ]; then "$@"; else (cd / && runuser -u postgres -- "$@"); fi; }

if [ -z "${PGHOST:-}" ]; then
  [ "$(id -u)" = 0 ] || { say "run it as root: sudo $0"; exit 2; }
  if ! command -v psql >/dev/null 2>&1 || ! compgen -G '/etc/postgresql/*/main' >/dev/null; then
    say "installing PostgreSQL ..."
    apt-get update -qq
    DEBIAN_FRONTEND=noninteractive apt-get install -y -qq postgresql
  fi
  restart() { systemctl "$1" postgresql 2>/dev/null || service postgresql "$1"; }
  as_owner psql -XAtc 'SELECT 1' postgres >/dev/null 2>&1 || { restart start && sleep 2; }
fi
if as_owner psql -XAtc "SELECT 1 FROM pg_database WHERE datname = '$database'" postgres | grep -q 1; then
  say "there is a database $database already; it was left as it is."
else
  as_owner createdb --encoding=UTF8 --template=template0 "$database"
  as_owner psql -XqA -v ON_ERROR_STOP=1 -d "$database" <"$tables"
  say "the database $database has Riktig's tables."
fi
[ -n "${PGHOST:-}" ] && exit 0

settings="$(ls -d /etc/postgresql/*/main | sort -V | tail -n 1)"
printf "listen_addresses = '*'\n" >"$settings/conf.d/riktig.conf"
line="hostssl $database +riktig_people samenet scram-sha-256"
grep -qxF "$line" "$settings/pg_hba.conf" || printf '# Riktig: benches of the house\n%s\n' "$line" >>"$settings/pg_hba.conf"
restart restart
say "benches of this network reach it as postgresql://NAME@$(hostname)/$database. Next: $here/add-person.sh NAME RIGHTS"
