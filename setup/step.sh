#!/bin/sh
# One step of setting up: says what it is and how long it took. What its tools print is kept to
# themselves, and shown only when the step fails.
#     setup/step.sh "Python packages" command argument …
set -u

words=$1
shift
log=$(mktemp)
trap 'rm -f "$log"' EXIT
printf '%s … ' "$words"
began=$(date +%s)
if "$@" >"$log" 2>&1; then
    echo "$(($(date +%s) - began)) s"
else
    status=$?
    echo "failed after $(($(date +%s) - began)) s"
    cat "$log" >&2
    exit "$status"
fi
