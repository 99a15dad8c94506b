#!/bin/sh
# Makes the standby the primary when the old one is gone for good, and sends the pooler there. The old
# primary must not come back as one: keep it off until it has been made a standby of the new one.
#
# PGDATA         data directory of the standby
# PGBOUNCER_INI  the pooler's configuration, and PGBOUNCER_PID its pidfile
# NEW_HOST, NEW_PORT  where the standby listens
set -eu
: "${PGDATA:?}" "${PGBOUNCER_INI:?}" "${PGBOUNCER_PID:?}" "${NEW_HOST:?}" "${NEW_PORT:?}"
# Nobody follows the new primary yet; waiting for a standby would hold up every commit.
for conf in "$PGDATA/postgresql.conf" "$PGDATA/postgresql.auto.conf"; do
  sed -i '/^ *synchronous_standby_names/d' "$conf"
done
pg_ctl reload -D "$PGDATA" -s
pg_ctl promote -D "$PGDATA" -w -t 60 -s
sed "s/^gravek = .*/gravek = host=$NEW_HOST port=$NEW_PORT dbname=gravek/" "$PGBOUNCER_INI" >"$PGBOUNCER_INI.new"
mv "$PGBOUNCER_INI.new" "$PGBOUNCER_INI"
kill -HUP "$(cat "$PGBOUNCER_PID")"
