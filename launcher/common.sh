# What all parts of the launcher use. Sourced.

say() { printf '%s\n' "$*" >&2; }
fail() {
    say "polymetron: $*"
    exit 2
}

as_root() { [ "$(id -u)" = 0 ]; }

# await SECONDS COMMAND ...: tries it until it succeeds; fails when the time is over.
await() {
    local end=$((SECONDS + $1))
    shift
    until "$@"; do
        [ "$SECONDS" -lt "$end" ] || return 1
        sleep 0.2
    done
}

# --- one at a time --------------------------------------------------------------------------------------------

# Only one of start, stop, backup and restore works on a state. The lock ends with the process that has it, so what
# is started to stay must not inherit it: it is started with 9>&-.
take_lock() {
    locate
    exec 9>"$state/lock"
    flock -n 9 && return
    say "another ./polymetron is at work here; waiting for it"
    flock -w 300 9 || fail "the other ./polymetron does not come to an end; look for it with: fuser $state/lock"
}

# --- processes ------------------------------------------------------------------------------------------------

# A process is known by its number, when it began, and which start of the machine that was: the number alone may
# belong to another process by now.
identity() {
    local began
    began=$(sed 's/.*) //' "/proc/$1/stat" 2>/dev/null | cut -d' ' -f20) || return 1
    [ -n "$began" ] || return 1
    printf '%s %s %s' "$1" "$began" "$(cat /proc/sys/kernel/random/boot_id)"
}

# remember PID FILE
remember() { identity "$1" > "$2.new" && mv "$2.new" "$2"; }

# process_of FILE: the number of the process that was remembered there, when it still is that one.
process_of() {
    local kept
    kept=$(cat "$1" 2>/dev/null) || return 1
    [ -n "$kept" ] && [ "$(identity "${kept%% *}")" = "$kept" ] || return 1
    # One that has ended and waits to be noticed is no process any more.
    [ "$(sed 's/.*) //' "/proc/${kept%% *}/stat" | cut -c1)" != Z ] || return 1
    printf '%s' "${kept%% *}"
}

is_over() { ! process_of "$1" >/dev/null; }

# end_process FILE SECONDS: asks it to end; one that does not, also because it was stopped, is ended by force.
end_process() {
    local pid
    pid=$(process_of "$1") || return 0
    kill -TERM "$pid" 2>/dev/null || true
    kill -CONT "$pid" 2>/dev/null || true
    if ! await "$2" is_over "$1"; then
        pid=$(process_of "$1") && kill -KILL "$pid" 2>/dev/null
        await 10 is_over "$1" || fail "process $pid does not end"
        return 1
    fi
}

# --- ports ----------------------------------------------------------------------------------------------------

port_is_free() { ! { (exec 3<>"/dev/tcp/127.0.0.1/$1"); } 2>/dev/null; }

free_port() {
    local port=$1
    while ! port_is_free "$port"; do port=$((port + 1)); done
    printf '%s' "$port"
}
