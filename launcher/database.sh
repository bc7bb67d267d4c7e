# The private PostgreSQL cluster. Sourced.
#
# The cluster has its own superuser, whose password only the launcher knows; the application logs in with a role that
# owns its database and nothing else.

postgres_root="${POLYMETRON_POSTGRES:-/usr/lib/postgresql}"
database=polymetron
role=polymetron_application

newest_postgres() {
    local folder
    for folder in $(ls -d "$postgres_root"/*/bin 2>/dev/null | sort -rV); do
        if [ -x "$folder/initdb" ] && [ -x "$folder/postgres" ]; then
            printf '%s' "$folder"
            return 0
        fi
    done
    return 1
}

cluster() { printf '%s/database/cluster' "$base"; }

cluster_version() { as_owner cat "$(cluster)/PG_VERSION" 2>/dev/null; }

# The programs of the version that the cluster was made with: another one does not read it.
postgres_programs() {
    local version
    version=$(cluster_version) || { newest_postgres; return; }
    [ -x "$postgres_root/$version/bin/postgres" ] ||
        fail "the database was made by PostgreSQL $version, whose programs are not below $postgres_root any more." \
            "Install postgresql-$version. To go on with another version: with $version installed, ./polymetron backup;" \
            "then move $(cluster) away, ./polymetron start, ./polymetron restore FILE"
    printf '%s' "$postgres_root/$version/bin"
}

pg_ctl() { as_owner "$(postgres_programs)/pg_ctl" -D "$(cluster)" -s "$@"; }

database_runs() { pg_ctl status >/dev/null 2>&1; }

database_port() { as_owner sed -n 4p "$(cluster)/postmaster.pid"; }

# sql DATABASE STATEMENT: as the superuser of the cluster.
sql() {
    PGPASSWORD=$(secret database.password) PGCONNECT_TIMEOUT=10 PGOPTIONS='-c client_min_messages=warning' \
        "$(postgres_programs)/psql" -X -q -v ON_ERROR_STOP=1 -h 127.0.0.1 -p "$(database_port)" -U polymetron -d "$1" -tAc "$2"
}

make_cluster() {
    say "creating a database cluster"
    local folder="$base/database" programs
    programs=$(newest_postgres)
    # One that was not finished is left from a start that was ended in the middle.
    as_owner rm -rf "$folder/cluster.new" "$folder/password"
    secret database.password | as_owner bash -c 'umask 077; cat > "$1/password"' - "$folder"
    as_owner "$programs/initdb" -D "$folder/cluster.new" -U polymetron -E UTF8 --locale=C.UTF-8 \
        --auth=scram-sha-256 --pwfile="$folder/password" >/dev/null || fail "the database cluster cannot be created"
    as_owner rm "$folder/password"
    as_owner mv -T "$folder/cluster.new" "$folder/cluster"
}

run_database() {
    local port folder="$base/database"
    port=$(free_port "${POLYMETRON_DB_PORT:-5440}")
    as_owner bash -c "$(declare -f keep_few); keep_few \"\$1\"" - "$folder/log"
    if ! pg_ctl -w -t 90 -l "$folder/log" \
        -o "-p $port -c listen_addresses=127.0.0.1 -c unix_socket_directories=$folder" start >/dev/null 2>&1; then
        as_owner tail -n 5 "$folder/log" >&2
        if as_owner tail -n 50 "$folder/log" | grep -q "No space left"; then
            fail "the disk of $folder is full. Free some space there and start again: nothing acknowledged is lost"
        fi
        fail "the database does not start; see $folder/log"
    fi
}

start_database() {
    choose_base
    need_postgres
    as_owner test -e "$(cluster)/PG_VERSION" || make_cluster
    postgres_programs >/dev/null
    database_runs || run_database
    export POLYMETRON_DB_URL POLYMETRON_DB_USER=$role POLYMETRON_DB_PASSWORD
    POLYMETRON_DB_URL="jdbc:postgresql://127.0.0.1:$(database_port)/$database"
    POLYMETRON_DB_PASSWORD=$(secret application.password)
    prepare_database
}

prepare_database() {
    [ -n "$(sql postgres "select 1 from pg_roles where rolname = '$role'")" ] ||
        sql postgres "create role $role login nosuperuser nocreatedb nocreaterole"
    sql postgres "alter role $role password '$POLYMETRON_DB_PASSWORD'"
    undo_half_a_restore
    [ -n "$(sql postgres "select 1 from pg_database where datname = '$database'")" ] ||
        sql postgres "create database $database owner $role"
    give_to_role "$database"
}

# A restore that was ended in the middle has put the database aside, or closed it.
undo_half_a_restore() {
    local aside
    if [ -z "$(sql postgres "select 1 from pg_database where datname = '$database'")" ]; then
        aside=$(sql postgres "select max(datname) from pg_database where datname like 'polymetron\\_before\\_%'")
        [ -z "$aside" ] || sql postgres "alter database $aside rename to $database"
    fi
    [ -z "$(sql postgres "select 1 from pg_database where datname = '$database' and not datallowconn")" ] ||
        sql postgres "alter database $database allow_connections true"
}

# give_to_role DATABASE: in earlier versions, and after a restore, the superuser owns what is in it.
give_to_role() {
    [ "$(sql "$1" "select pg_get_userbyid(datdba) from pg_database where datname = '$1'")" = "$role" ] ||
        sql "$1" "alter database $1 owner to $role"
    sql "$1" "alter schema public owner to $role"
    sql "$1" "
        do \$\$
        declare each record;
        begin
            for each in select c.oid::regclass as name, c.relkind from pg_class c
                join pg_namespace n on n.oid = c.relnamespace
                left join pg_depend d on d.objid = c.oid and d.deptype in ('a', 'i') and c.relkind = 'S'
                where n.nspname = 'public' and c.relkind in ('r', 'S', 'v') and d.objid is null
                  and pg_get_userbyid(c.relowner) <> '$role'
            loop
                execute format('alter %s %s owner to $role',
                    case each.relkind when 'r' then 'table' when 'S' then 'sequence' else 'view' end, each.name);
            end loop;
        end \$\$"
}

stop_database() {
    as_owner test -e "$(cluster)/PG_VERSION" 2>/dev/null || return 0
    database_runs || return 0
    local pid
    pid=$(as_owner sed -n 1p "$(cluster)/postmaster.pid")
    # It may have been stopped, and then would not hear.
    as_owner kill -CONT "$pid" 2>/dev/null || true
    pg_ctl -m fast -w -t 30 stop >/dev/null 2>&1 || pg_ctl -m immediate -w -t 30 stop >/dev/null 2>&1 ||
        fail "the database does not stop; its process is $pid"
}
