#!/bin/sh
# What Tall Page needs from the system. As root, missing packages are installed from Debian;
# as anybody else, the exact command to run is printed and nothing is changed.
set -eu

missing=""
need() { # need COMMAND PACKAGE
    command -v "$1" >/dev/null 2>&1 || missing="$missing $2"
}
need chromium chromium
need chromedriver chromium-driver
need fc-match fontconfig
need redis-server redis-server  # for the tests of several machines
fc-match "DejaVu Sans" 2>/dev/null | grep -q DejaVuSans || missing="$missing fonts-dejavu-core"
python3 -c "import ensurepip, venv" 2>/dev/null || missing="$missing python3-venv"

if [ -n "$missing" ]; then
    if [ "$(id -u)" -ne 0 ]; then
        echo "Missing from this machine:$missing" >&2
        echo "Install them as root, then run this again:" >&2
        echo "    apt-get update && apt-get install -y$missing" >&2
        exit 1
    fi
    echo "Installing$missing"
    apt-get update -qq
    # shellcheck disable=SC2086  # a list of packages, split on purpose
    DEBIAN_FRONTEND=noninteractive apt-get install -y -qq $missing >/dev/null
fi

# Takes pages with a third of the work. Where it cannot be had, chromium takes them.
lighter=chromium-headless-shell
if [ "$(id -u)" -eq 0 ] && ! command -v "$lighter" >/dev/null 2>&1; then
    apt-cache policy "$lighter" 2>/dev/null | grep -q "Candidate: [0-9]" || apt-get update -qq || true
    DEBIAN_FRONTEND=noninteractive apt-get install -y -qq "$lighter" >/dev/null 2>&1 ||
        echo "$lighter cannot be installed here; chromium takes the pages."
fi

python3 -c "import sys; sys.exit(sys.version_info < (3, 11))" || {
    echo "Python 3.11 or newer is needed; this is $(python3 --version)." >&2
    exit 1
}
command -v node >/dev/null 2>&1 && command -v npm >/dev/null 2>&1 || {
    echo "Node 20 or newer with npm is needed. Install it, then run this again." >&2
    exit 1
}
node -e 'process.exit(Number(process.versions.node.split(".")[0]) < 20 ? 1 : 0)' || {
    echo "Node 20 or newer is needed; this is $(node --version)." >&2
    exit 1
}
