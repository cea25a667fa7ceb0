#!/bin/sh
# Several commands at once. What the first prints is seen as it comes, what another prints once it has ended.
# As soon as one fails the others are ended as well.
#     setup/side_by_side.sh "make check" ".venv/bin/pytest tests/browser" ".venv/bin/pytest tests/core"
set -u

folder=$(mktemp -d)
running=""
end_all() {
    for number in $running; do
        kill -TERM -- "-$(cat "$folder/$number.pid")" 2>/dev/null
    done
    wait # a test clears up what it has started
    rm -rf "$folder"
}
trap end_all EXIT
trap 'exit 130' INT TERM

number=0
for command in "$@"; do
    number=$((number + 1))
    if [ "$number" -eq 1 ]; then
        setsid sh -c "$command" &
    else
        setsid sh -c "$command" >"$folder/$number" 2>&1 &
    fi
    echo $! >"$folder/$number.pid"
    running="$running $number"
done

while [ -n "$running" ]; do
    left=""
    for number in $running; do
        pid=$(cat "$folder/$number.pid")
        if kill -0 "$pid" 2>/dev/null; then
            left="$left $number"
            continue
        fi
        wait "$pid"
        status=$?
        [ ! -e "$folder/$number" ] || cat "$folder/$number"
        [ "$status" -eq 0 ] || exit "$status"
    done
    running=$left
    sleep 0.2
done
