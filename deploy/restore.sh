#!/bin/sh
# Brings the whole cluster as it was at a moment into a new folder and starts it there, beside the running one:
# restore.sh FOLDER '2031-05-14 18:30:00+00' PORT, as postgres. Nothing of it is archived.
set -eu
umask 077
mkdir "$1"
pgbackrest --stanza=gravek --pg1-path="$1" --type=time --target="$2" --target-action=promote restore
PATH=$(ls -d /usr/lib/postgresql/*/bin | sort -V | tail -n 1):$PATH
options="-p $3 -h 127.0.0.1 -c unix_socket_directories=$1 -c archive_mode=off -c synchronous_standby_names="
files="-c hba_file=$1/pg_hba.conf -c ident_file=$1/pg_ident.conf"
pg_ctl start -s -w -t 300 -D "$1" -l "$1/restored.log" -o "$options $files"
# It can be read before all of it is there.
until [ "$(psql -h "$1" -p "$3" -XAtq -d postgres -c 'select pg_is_in_recovery()')" = f ]; do
  pg_ctl status -D "$1" >/dev/null || { tail -n 3 "$1/restored.log" >&2; exit 1; }
  sleep 1
done
