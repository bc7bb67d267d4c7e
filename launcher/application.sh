# The application: started, kept running, asked and ended. Sourced.

keeper_file() { printf '%s/keeper.process' "$state"; }
application_file() { printf '%s/application.process' "$state"; }

# Whether what listens on the port says that it is ready; an answer that does not come is no answer.
is_healthy() {
    local reply
    # shellcheck disable=SC2016
    reply=$(timeout 4 bash -c '
        exec 3<>"/dev/tcp/127.0.0.1/$1" || exit 1
        printf "GET /actuator/health/readiness HTTP/1.0\r\nHost: 127.0.0.1:%s\r\n\r\n" "$1" >&3
        cat <&3' - "$1" 2>/dev/null) || return 1
    [[ $reply == HTTP/1.?" 200"* ]]
}

server_port() { cat "$state/server.port" 2>/dev/null; }

address() { printf 'http://127.0.0.1:%s/\n' "$(server_port)"; }

# Unpacked, a JVM starts it faster.
unpack_application() {
    local unpacked="$base/application"
    if [ ! -e "$unpacked/made" ] || [ "$application" -nt "$unpacked/made" ]; then
        rm -rf "$unpacked" "$unpacked.new"
        "$JAVA_HOME/bin/java" -Djarmode=tools -jar "$application" extract --destination "$unpacked.new" >/dev/null ||
            fail "the application cannot be unpacked"
        mv "$unpacked.new"/*.jar "$unpacked.new/polymetron.jar"
        chmod -R a+rX "$unpacked.new"
        touch -r "$application" "$unpacked.new/made"
        mv -T "$unpacked.new" "$unpacked"
        as "$(application_user)" rm -f "$base/cache/start.aot"
    fi
}

has_fast_start() { as "$(application_user)" test -e "$base/cache/start.aot"; }

# Becomes a JVM that loads what the application loads at its start, keeps that for later starts (JEP 483, JEP 514) and ends.
# It needs half a minute, so it does it beside the first start, with what is left of the machine.
become_fast_start_maker() {
    await 120 is_healthy "$(server_port)" || exit 1
    become "$(application_user)" nice -n 19 "$JAVA_HOME/bin/java" "${jvm_options[@]}" \
        -XX:AOTCacheOutput="$base/cache/new.aot" -Dspring.context.exit=onRefresh \
        -jar "$base/application/polymetron.jar" < /dev/null > /dev/null 2>&1
}

jvm_options=(-XX:+UseSerialGC -Xmx1g -XX:+ExitOnOutOfMemoryError)

# Becomes the application.
run_application() {
    local options=("${jvm_options[@]}")
    ! has_fast_start || options+=(-XX:AOTCache="$base/cache/start.aot")
    export LOGGING_FILE_NAME="$base/log/server.log" LOGGING_THRESHOLD_CONSOLE=off
    export POLYMETRON_MODELS="$base/cache/models"
    become "$(application_user)" "$JAVA_HOME/bin/java" "${options[@]}" -jar "$base/application/polymetron.jar"
}

start() {
    take_lock
    choose_base
    if process_of "$(keeper_file)" >/dev/null; then
        if is_healthy "$(server_port)" || await 60 is_healthy "$(server_port)"; then
            say "Polymetron runs already"
            address
            return
        fi
        tail -n 3 "$state/keeper.log" >&2
        fail "it runs but does not answer; see $base/log. End it with ./polymetron stop, then start it again"
    fi
    # What is left of a run whose keeper was ended by force.
    end_process "$(application_file)" 15 || true
    need_build_tools
    build_all
    local began=$EPOCHREALTIME database_up
    start_database
    database_up=$EPOCHREALTIME
    unpack_application
    local wanted="${POLYMETRON_PORT:-8440}" port
    port=$(free_port "$wanted")
    [ "$port" = "$wanted" ] || say "port $wanted is taken; using $port"
    printf '%s' "$port" > "$state/server.port"
    keep_few "$state/keeper.log"
    POLYMETRON_PORT=$port POLYMETRON_STATE=$state setsid bash "$home/launcher/keep-running" "$home" \
        < /dev/null > "$state/keeper.log" 2>&1 9>&- &
    remember $! "$(keeper_file)"
    answers_or_ended() { is_healthy "$port" || is_over "$(keeper_file)"; }
    await 120 answers_or_ended || true
    if ! is_healthy "$port"; then
        tail -n 20 "$state/keeper.log" >&2
        end_all
        fail "the application does not start; see $base/log/server.log and $state/keeper.log"
    fi
    say "Polymetron runs ($(seconds "$began" "$database_up") s for the database," \
        "$(seconds "$database_up" "$EPOCHREALTIME") s for the application); stop it with ./polymetron stop"
    address
}

seconds() { printf '%d.%d' $(((${2/./} - ${1/./}) / 1000000)) $(((${2/./} - ${1/./}) / 100000 % 10)); }

end_all() {
    end_process "$(keeper_file)" 25 || true
    end_process "$(application_file)" 15 || say "the application did not end by itself and was ended by force"
    rm -f "$(keeper_file)" "$(application_file)"
    stop_database
}

stop() {
    take_lock
    end_all
    say "Polymetron is stopped"
}

status() {
    [ ! -d "$state" ] || locate
    if ! process_of "$(keeper_file)" >/dev/null && ! process_of "$(application_file)" >/dev/null; then
        printf 'stopped\n'
        return 1
    elif is_healthy "$(server_port)"; then
        printf 'running at %s\n' "$(address)"
    else
        printf 'started at %s, but not ready: it is starting, without its database, or does not answer\n' "$(address)"
        return 1
    fi
}
