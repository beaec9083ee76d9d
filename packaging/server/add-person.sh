#!/usr/bin/env bash
# Lets somebody in at the shop's server, or changes what he may do.
#   sudo packaging/server/add-person.sh NAME [plans] [builds] [inspects] [signs]
# The password is asked for, or read from RIKTIG_PASSWORD. Without a right, he may look and change nothing.
# RIKTIG_DATABASE: another database than riktig. With PGHOST set, it is done on that server, as the role PGUSER.
set -euo pipefail
database="${RIKTIG_DATABASE:-riktig}"
say() { printf 'riktig: %s\n' "$*" >&2; }
as_owner() { if [ -n "${PGHOST:-}" ]; then "$@"; else (cd / && runuser -u postgres -- "$@"); fi; }

name="${1:-}"
[[ "$name" =~ ^[a-z][a-z0-9_]{0,30}$ ]] || { say "a name is small letters and figures: add-person.sh ida plans builds"; exit 2; }
shift
plans=false builds=false inspects=false signs=false
for right in "$@"; do
  case "$right" in
    plans | builds | inspects | signs) declare "$right=true" ;;
    *) say "there is no right “$right”: plans, builds, inspects, signs"; exit 2 ;;
  esac
done
known="$(as_owner psql -XAtc "SELECT 1 FROM pg_roles WHERE rolname = '$name'" "$database")"
password="${RIKTIG_PASSWORD:-}"
if [ -z "$password" ] && [ -z "$known" ]; then
  read -rsp "Password for $name: " password
  printf '\n' >&2
fi
as_owner psql -Xq -v ON_ERROR_STOP=1 -v name="$name" -v password="$password" -d "$database" <<SQL
$([ -n "$known" ] || echo 'CREATE ROLE :"name" LOGIN;')
$([ -z "$password" ] || echo "ALTER ROLE :\"name\" LOGIN PASSWORD :'password';")
GRANT riktig_people TO :"name";
INSERT INTO riktig.person VALUES (:'name', $plans, $builds, $inspects, $signs)
    ON CONFLICT (login) DO UPDATE SET plans = excluded.plans, builds = excluded.builds,
        inspects = excluded.inspects, signs = excluded.signs;
SQL
say "$name may: $([ $# -gt 0 ] && echo "$*" || echo 'look')."
