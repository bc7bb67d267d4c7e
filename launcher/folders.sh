# Where things are kept, and who may touch them. Sourced.
#
# The database and the application never run as root. When root calls, what they have to reach is kept in $state only
# where no other user can have put anything on the way there; otherwise below /var/lib, where only root can.

state="${POLYMETRON_STATE:-$home/.polymetron}"

database_user() { if as_root; then printf postgres; else id -un; fi; }

application_user() {
    if ! as_root; then
        id -un
    elif id polymetron >/dev/null 2>&1; then
        printf polymetron
    else
        printf postgres
    fi
}

need_application_user() {
    if as_root && ! id polymetron >/dev/null 2>&1; then
        useradd --system --no-create-home --home-dir /nonexistent --shell /usr/sbin/nologin polymetron 2>/dev/null ||
            say "a user for the application cannot be made; it runs as $(application_user)"
    fi
}

# become USER COMMAND ...: this shell becomes the command, in a folder that everybody can be in, without the lock.
become() {
    local user=$1
    shift
    cd /
    if as_root; then
        exec setpriv --reuid="$user" --regid="$(id -g "$user")" --init-groups "$@" 9>&-
    else
        exec "$@" 9>&-
    fi
}

as() { (become "$@"); }

as_owner() { as "$(database_user)" "$@"; }

# Whether every folder on the way to one is root's, lets others through, and cannot be written by them; a sticky one may
# be, as no other user can replace in it what is root's. It goes by the folders alone, so that it is the same answer before and
# after the users are made.
is_roots_and_open() {
    local folder=$1 seen
    while :; do
        seen=$(stat -c '%u %a %F' "$folder" 2>/dev/null) || return 1
        case $seen in
            0\ *\ directory) ;;
            *) return 1 ;;
        esac
        seen=${seen#* }
        seen=$((8#${seen%% *}))
        [ $((seen & 1)) = 1 ] || return 1
        [ $((seen & 8#22)) = 0 ] || { [ "$folder" != "$1" ] && [ $((seen & 8#1000)) != 0 ]; } || return 1
        [ "$folder" != / ] || return 0
        folder=$(dirname "$folder")
    done
}

# locate: which folder it is, here and in $base; nothing is made but that folder.
base=
locate() {
    [ -z "$base" ] || return 0
    mkdir -p "$state"
    state=$(cd "$state" && pwd -P)
    if as_root && ! is_roots_and_open "$state"; then
        local asked=$state id
        id=$(printf '%s' "$state" | cksum | cut -d' ' -f1)
        # Everything, since root must not write through what another user may have put into the other one.
        state="/var/lib/polymetron/$id"
        install -d -m 755 /var/lib/polymetron "$state"
        take_over_old "$asked" "/var/tmp/polymetron-$id"
    fi
    base=$state
}

# Earlier versions kept the database in the second folder and its password in the first. Only what belongs to whom it
# should, and is no link, is taken over.
take_over_old() {
    if [ ! -e "$state/database" ] && [ "$(stat -c '%U %F' "$2" 2>/dev/null)" = "postgres directory" ]; then
        mv -T "$2" "$state/database"
    fi
    if [ ! -e "$state/database.password" ] && [ "$(stat -c '%u %a %F' "$1/database.password" 2>/dev/null)" = "0 600 regular file" ]; then
        (umask 077 && cat "$1/database.password" > "$state/database.password")
    fi
}

choose_base() {
    if as_root; then need_postgres; fi
    need_application_user
    locate
    own_folder "$base/database" "$(database_user)"
    own_folder "$base/log" "$(application_user)"
    own_folder "$base/cache" "$(application_user)"
}

# own_folder FOLDER USER
own_folder() {
    if ! as_root; then
        mkdir -p -m 700 "$1"
    elif [ ! -e "$1" ]; then
        install -d -m 700 -o "$2" -g "$(id -g "$2")" "$1"
    elif [ "$(stat -c %U "$1")" != "$2" ]; then
        chown -hR "$2" "$1"
    fi
}

# A secret that is made once.
secret() {
    [ -s "$state/$1" ] || (umask 077 && head -c 24 /dev/urandom | od -An -tx1 | tr -d ' \n' > "$state/$1")
    cat "$state/$1"
}

# keep_few FILE: before a file is replaced, its last five versions stay.
keep_few() {
    local number
    [ -s "$1" ] || return 0
    for number in 4 3 2 1; do
        [ ! -e "$1.$number" ] || mv -T "$1.$number" "$1.$((number + 1))"
    done
    mv -T "$1" "$1.1"
}
