# What has to be there: installed when root calls, else named. Sourced.

apt_ready=
install_packages() {
    as_root || fail "these packages are missing: $*; install them with: sudo apt-get install --no-install-recommends $*"
    say "installing $*"
    if [ -z "$apt_ready" ]; then
        apt-get update -qq >&2 || fail "apt-get update failed"
        apt_ready=yes
    fi
    DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "$@" >/dev/null ||
        fail "apt-get could not install $*"
}

# need COMMAND PACKAGE ...: installs the packages whose command is not there.
need() {
    local missing=()
    while [ $# -gt 0 ]; do
        command -v "$1" >/dev/null 2>&1 || missing+=("$2")
        shift 2
    done
    [ ${#missing[@]} -eq 0 ] || install_packages "${missing[@]}"
}

# need_for_own_hdl: what block types of one's own are built, compiled and measured with. Without it all the rest works, so
# what cannot be installed is only named.
need_for_own_hdl() {
    (need verilator verilator g++ g++ make make prlimit util-linux bwrap bubblewrap ghdl ghdl-mcode yosys yosys) ||
        say "without them the HDL of block types of one's own does not run on the bench, is not compiled and not measured"
}

java_version() { "$1/bin/java" -version 2>&1 | sed -n '1s/.*version "\([0-9]*\).*/\1/p'; }

find_java() {
    local candidate
    for candidate in "${JAVA_HOME:-}" /usr/lib/jvm/*; do
        if [ -n "$candidate" ] && [ -x "$candidate/bin/javac" ] && [ "$(java_version "$candidate")" -ge 25 ] 2>/dev/null; then
            export JAVA_HOME="$candidate"
            return 0
        fi
    done
    return 1
}

need_java() {
    find_java && return
    if as_root && { apt-get update -qq >&2 || true; apt-cache show openjdk-25-jdk-headless >/dev/null 2>&1; }; then
        install_packages openjdk-25-jdk-headless
        find_java && return
    fi
    fail "a JDK of version 25 or newer is missing; install one below /usr/lib/jvm or set JAVA_HOME"
}

need_postgres() {
    newest_postgres >/dev/null || install_packages postgresql
    newest_postgres >/dev/null || fail "PostgreSQL is installed, but not below $postgres_root"
}

need_build_tools() {
    need_java
    need mvn maven node nodejs npm npm
    [ "$(node -p 'process.versions.node.split(".")[0]')" -ge 20 ] ||
        fail "Node.js 20 or newer is needed to build the front end; this is $(node --version)"
}

need_test_tools() {
    need_build_tools
    need_postgres
    need chromium chromium dtc device-tree-compiler gcc gcc iverilog iverilog srec_cat srecord unzip unzip \
        riscv64-unknown-elf-gcc gcc-riscv64-unknown-elf qemu-system-riscv32 qemu-system-misc \
        clang clang yosys yosys tclsh tcl verilator verilator g++ g++ make make z3 z3 ghdl ghdl-mcode pgrep procps bwrap bubblewrap ccache ccache
    export PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD=1
}
