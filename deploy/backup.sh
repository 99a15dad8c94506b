#!/bin/sh
# One backup, as postgres: whole on Sundays, else what has changed since. On a standby it does nothing. What
# is written between two backups is archived by PostgreSQL itself.
set -eu
standby=$(psql -XAtq -d postgres -c 'select pg_is_in_recovery()')
[ "$standby" = f ] || exit 0
type=diff
[ "$(date +%u)" != 7 ] || type=full
pgbackrest --stanza=gravek --type=$type backup
