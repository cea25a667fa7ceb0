#!/bin/sh
# Two commands at once. What the first prints is seen as it comes, what the second prints once it has ended.
# As soon as one fails the other is ended as well.
#     setup/side_by_side.sh "make check" ".venv/bin/pytest tests/browser"
set -u

printed=$(mktemp)
trap 'rm -f "$printed"' EXIT
setsid sh -c "$2" >"$printed" 2>&1 &
second=$!
setsid sh -c "$1" &
first=$!
end_both() {
    kill -TERM -- "-$first" "-$second" 2>/dev/null
}
trap 'end_both; exit 130' INT TERM

status=0
while [ -n "$first$second" ]; do
    for one in $first $second; do
        kill -0 "$one" 2>/dev/null && continue
        wait "$one" || status=$?
        [ "$one" = "$second" ] && cat "$printed" && second=""
        [ "$one" = "$first" ] && first=""
        [ "$status" -eq 0 ] || { end_both; [ -z "$second" ] || cat "$printed"; exit "$status"; }
    done
    sleep 0.2
done
