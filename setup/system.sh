#!/bin/sh
# What Tall Page needs from the system, looked at before anything is installed. As root, missing
# packages are installed from Debian; as anybody else, the exact command to run is printed and
# nothing is changed.
#     setup/system.sh [for-tests]
set -eu
here=$(dirname "$0")

least_free_mb=2500 # the environment, the interface's packages, a database and some pictures
free_mb=$(df -Pm . | awk 'NR == 2 { print $4 }')
if [ "$free_mb" -lt "$least_free_mb" ] && [ ! -e .venv/.ready ]; then
    echo "Only $free_mb MB are free here, and about $least_free_mb MB are needed. Make room, then run this again." >&2
    exit 1
fi

missing=""
need() { # need COMMAND PACKAGE
    command -v "$1" >/dev/null 2>&1 || missing="$missing $2"
}
if command -v python3 >/dev/null 2>&1; then
    python3 -c "import sys; sys.exit(sys.version_info < (3, 11))" || {
        echo "Python 3.11 or newer is needed, and python3 is $(python3 --version | cut -d' ' -f2)." >&2
        echo "Install a newer one, or put it first in PATH, then run this again." >&2
        exit 1
    }
    python3 -c "import ensurepip, venv" 2>/dev/null || missing="$missing python3-venv"
else
    missing="$missing python3 python3-venv"
fi
need_library() { # need_library FILE PACKAGE
    PATH="$PATH:/sbin:/usr/sbin" ldconfig -p 2>/dev/null | grep -q "$1" || missing="$missing $2"
}
need chromium chromium
need_library libatomic.so.1 libatomic1 # for the browser's driver
need fc-match fontconfig
fc-match "DejaVu Sans" 2>/dev/null | grep -q DejaVuSans || missing="$missing fonts-dejavu-core"
if [ "${1:-}" = for-tests ]; then
    need chromedriver chromium-driver
    need redis-server redis-server # for the tests of several machines
fi

if [ -n "$missing" ]; then
    if [ "$(id -u)" -ne 0 ]; then
        echo "Missing from this machine:$missing" >&2
        echo "Install them as root, then run this again:" >&2
        echo "    apt-get update && apt-get install -y$missing" >&2
        exit 1
    fi
    # A server that only tests need is started by them, and by nobody else.
    had_policy=no
    [ -e /usr/sbin/policy-rc.d ] && had_policy=yes
    if [ "$had_policy" = no ]; then
        printf '#!/bin/sh\nexit 101\n' >/usr/sbin/policy-rc.d
        chmod +x /usr/sbin/policy-rc.d
        trap 'rm -f /usr/sbin/policy-rc.d' EXIT
    fi
    "$here/step.sh" "Debian's lists of packages" apt-get update
    # shellcheck disable=SC2086  # a list of packages, split on purpose
    DEBIAN_FRONTEND=noninteractive "$here/step.sh" "Debian's packages:$missing" apt-get -o DPkg::Lock::Timeout=300 install -y $missing
fi

# Takes pages with a third of the work. Where it cannot be had, chromium takes them.
lighter=chromium-headless-shell
if [ "$(id -u)" -eq 0 ] && ! command -v "$lighter" >/dev/null 2>&1; then
    apt-cache policy "$lighter" 2>/dev/null | grep -q "Candidate: [0-9]" || apt-get update -qq || true
    DEBIAN_FRONTEND=noninteractive "$here/step.sh" "A lighter browser for taking pages" \
        apt-get -o DPkg::Lock::Timeout=300 install -y "$lighter" 2>/dev/null || echo "$lighter cannot be had here: chromium takes the pages."
fi
