#!/bin/sh
# Writes the whole database to one file: backup.sh FILE. It asks as the role that owns everything (PGHOST,
# PGPORT, PGUSER, PGPASSWORD), may run while the club trains, and is worth as much as its last restore.
set -eu
umask 077
pg_dump --format=custom --file="$1.part" gravek
mv "$1.part" "$1"
