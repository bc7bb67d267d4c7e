# Backups: the whole database with its history, as it was at one moment. Sourced.
#
# A backup is a tar archive of two files: "contents" says what is in it, "dump" is PostgreSQL's own archive. It is checked
# by restoring it beside the database before it counts as made.

backup_format="polymetron-backup/1"

newest_migration() {
    ls "$home"/server/src/main/resources/db/migration | sed -n 's/^V\([0-9]*\)__.*/\1/p' | sort -n | tail -n 1
}

# What tells two databases apart: counts and sums over every row, and the programs against their own sums.
digest_of="
    select 'schema ' || max(version::int) from flyway_schema_history where success
    union all select 'platforms ' || count(*) || ' ' || coalesce(md5(string_agg(md5(t::text), '' order by id)), '-') from platform t
    union all select 'revisions ' || count(*) || ' ' || coalesce(md5(string_agg(md5(t::text), '' order by platform_id, number)), '-') from revision t
    union all select 'boards and recipes ' || count(*) || ' ' || coalesce(md5(string_agg(md5(t::text), '' order by kind, identity)), '-') from library_entry t
    union all select 'programs ' || count(*) || ' ' || coalesce(md5(string_agg(id::text || platform_id || name || sha256 || octet_length(contents), '' order by id)), '-') from program
    union all select 'damaged programs ' || count(*) from program where encode(sha256(contents), 'hex') <> sha256"

# tool NAME DATABASE ...: a program of PostgreSQL, logged in as the application's role.
tool() {
    local name=$1 on=$2
    shift 2
    PGPASSWORD=$(secret application.password) PGCONNECT_TIMEOUT=10 "$(postgres_programs)/$name" \
        -h 127.0.0.1 -p "$(database_port)" -U "$role" -d "$on" "$@"
}

digest() { tool psql "$1" -X -q -v ON_ERROR_STOP=1 -tAc "$digest_of"; }

# restore_beside DUMP CONTENTS DATABASE: a new database from a dump, which has to be what the contents say. As the
# application's role: what comes from outside must not do more than the application may.
restore_beside() {
    local found
    sql postgres "drop database if exists $3 with (force)"
    sql postgres "create database $3 owner $role"
    give_to_role "$3"
    if ! tool pg_restore "$3" --no-owner --no-acl --exit-on-error "$1" 2> "$work/said"; then
        sql postgres "drop database $3 with (force)"
        say "$(tail -n 3 "$work/said")"
        fail "this backup cannot be restored"
    fi
    found=$(digest "$3")
    if [ "$(sed 1,2d "$2")" != "$found" ]; then
        sql postgres "drop database $3 with (force)"
        say "in the backup: $(sed 1,2d "$2")"
        say "restored:      $found"
        fail "what was restored is not what the backup says it holds"
    fi
}

# What is left at the end, also when something fails: no files, and no database that did not run before.
work=
stop_at_the_end=
clean_up() {
    [ -z "$work" ] || rm -rf "$work"
    [ -z "$stop_at_the_end" ] || stop_database
}

make_work_folder() {
    work=$(mktemp -d)
    trap clean_up EXIT
}

# A snapshot lives as long as the session that exported it.
dump_with_digest() {
    local snapshot line
    coproc SESSION {
        PGPASSWORD=$(secret application.password) "$(postgres_programs)/psql" -X -q -tA -v ON_ERROR_STOP=1 \
            -h 127.0.0.1 -p "$(database_port)" -U "$role" -d "$database"
    }
    local from=${SESSION[0]} to=${SESSION[1]} session=$SESSION_PID
    printf 'begin isolation level repeatable read read only;\nselect pg_export_snapshot();\n' >&"$to"
    read -r -t 30 -u "$from" snapshot || fail "the database does not answer"
    tool pg_dump "$database" --format=custom --snapshot="$snapshot" --file="$work/dump"
    printf "%s;\nselect '.';\n" "$digest_of" >&"$to"
    while read -r -t 600 -u "$from" line && [ "$line" != . ]; do printf '%s\n' "$line"; done >> "$work/contents"
    printf '\\q\n' >&"$to"
    wait "$session" 2>/dev/null || true
}

backup() {
    local file="${1:-$launched_from/polymetron-$(date -u +%Y%m%d-%H%M%S).backup}"
    [[ $file == /* ]] || file="$launched_from/$file"
    [ ! -e "$file" ] || fail "$file is there already"
    take_lock
    choose_base
    as_owner test -e "$(cluster)/PG_VERSION" 2>/dev/null || fail "there is nothing to back up yet; ./polymetron start makes it"
    make_work_folder
    database_runs || stop_at_the_end=yes
    start_database
    [ -n "$(sql "$database" "select to_regclass('flyway_schema_history')")" ] || fail "there is nothing to back up yet"
    printf '%s\nmade %s\n' "$backup_format" "$(date -u +%Y-%m-%dT%H:%M:%SZ)" > "$work/contents"
    dump_with_digest
    say "checking the backup by restoring it"
    restore_beside "$work/dump" "$work/contents" polymetron_check
    sql postgres "drop database polymetron_check with (force)"
    (umask 077 && tar -C "$work" -cf "$file.new" contents dump) && mv "$file.new" "$file" || fail "$file cannot be written"
    sed -n 's/^\(\(platforms\|revisions\|boards and recipes\|programs\) [0-9]*\).*/\1/p' "$work/contents" >&2
    printf '%s\n' "$file"
}

# Sessions end a moment after they are told to, and PostgreSQL itself looks into databases now and then.
rename_database() {
    local from=$1 to=$2 try
    sql postgres "alter database $from allow_connections false"
    for try in {1..40}; do
        sql postgres "select pg_terminate_backend(pid) from pg_stat_activity where datname = '$from'" >/dev/null
        if sql postgres "alter database $from rename to $to" 2>/dev/null; then
            sql postgres "alter database $to allow_connections true"
            return
        fi
        sleep 0.25
    done
    sql postgres "alter database $from allow_connections true"
    fail "database $from is still in use; end what uses it and try again"
}

restore() {
    local file="${1:-}" was_running= old schema
    [ -n "$file" ] || fail "which backup? ./polymetron restore FILE"
    [[ $file == /* ]] || file="$launched_from/$file"
    [ -r "$file" ] || fail "there is no backup $file"
    make_work_folder
    tar -xOf "$file" contents > "$work/contents" 2>/dev/null && tar -xOf "$file" dump > "$work/dump" 2>/dev/null ||
        fail "$file is no backup of Polymetron"
    [ "$(head -n 1 "$work/contents")" = "$backup_format" ] ||
        fail "$file is of format $(head -n 1 "$work/contents" | tr -cd '[:print:]' | cut -c1-60); what is read here is $backup_format"
    schema=$(sed -n 's/^schema \([0-9]\{1,6\}\)$/\1/p' "$work/contents")
    [ -n "$schema" ] || fail "$file does not say of which version its tables are"
    [ "$schema" -le "$(newest_migration)" ] || fail "$file was made by a newer Polymetron; update this one first"
    take_lock
    choose_base
    if process_of "$(keeper_file)" >/dev/null; then was_running=yes; else stop_at_the_end=yes; fi
    start_database
    restore_beside "$work/dump" "$work/contents" polymetron_restored
    end_process "$(keeper_file)" 25 || true
    end_process "$(application_file)" 15 || true
    start_database
    old="polymetron_before_$(date -u +%Y%m%d%H%M%S)"
    rename_database "$database" "$old"
    (rename_database polymetron_restored "$database") || {
        rename_database "$old" "$database"
        fail "not restored; everything is as it was before"
    }
    say "restored; what was there before is kept as database $old until the next restore"
    local older
    for older in $(sql postgres "select datname from pg_database where datname like 'polymetron\\_before\\_%' and datname <> '$old'"); do
        sql postgres "drop database $older with (force)"
    done
    [ -z "$was_running" ] || start
}
