#!/bin/sh
# Brings a backup into a new database beside the old one: restore.sh FILE NAME. The roles must be there.
# Look at it, then stop Gravek and rename: alter database NAME rename to gravek.
set -eu
createdb --owner=gravek_owner "$2"
pg_restore --exit-on-error --dbname="$2" "$1"
