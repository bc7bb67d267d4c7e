# From sources to what runs. Sourced.

# Maven's own libraries use what newer JDKs warn about.
export MAVEN_OPTS="${MAVEN_OPTS:-} --sun-misc-unsafe-memory-access=allow"
maven() { mvn -q -B -f "$home/pom.xml" "$@"; }

application="$home/server/target/polymetron-server-0.1.0-application.jar"
command_line="$home/cli/target/polymetron-cli-0.1.0.jar"

newer_than() {
    local made=$1
    shift
    [ ! -e "$made" ] && return 0
    [ -n "$(find "$@" -newer "$made" -type f -print -quit 2>/dev/null)" ]
}

build_front_end() {
    local ui="$home/ui"
    if newer_than "$ui/node_modules/.package-lock.json" "$ui/package-lock.json"; then
        say "fetching the front end's packages"
        (cd "$ui" && npm ci --no-audit --no-fund --loglevel=error >&2) || fail "npm could not fetch the packages"
        touch "$ui/node_modules/.package-lock.json"
    fi
    if newer_than "$ui/dist/index.html" "$ui/src" "$ui/index.html" "$ui/package.json" "$ui/vite.config.ts"; then
        say "building the front end"
        (cd "$ui" && npm run --silent build >&2) || fail "the front end does not build"
    fi
}

java_sources() {
    printf '%s\n' "$home"/{library,core,bench,cli,server}/src/main "$home"/{,library/,core/,bench/,cli/,server/}pom.xml
}

build_all() {
    build_front_end
    local sources
    mapfile -t sources < <(java_sources)
    if newer_than "$application" "${sources[@]}" "$home/ui/dist"; then
        need_for_own_hdl
        say "building the application"
        maven package -DskipTests -pl library,core,bench,cli,server >&2 || fail "the application does not build"
        touch "$application"
    fi
}

build_command_line() {
    local sources
    mapfile -t sources < <(java_sources)
    if newer_than "$command_line" "${sources[@]}"; then
        say "building the command line"
        maven package -DskipTests -pl library,core,bench,cli >&2 || fail "the command line does not build"
        touch "$command_line"
    fi
}
