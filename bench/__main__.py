"""``python -m bench`` runs every measurement, ``python -m bench memory`` only that one."""

from __future__ import annotations

import importlib
import sys

MEASUREMENTS = (
    "capture",
    "lists",
    "page_memory",
    "memory",
    "fit",
    "exhaustive",
    "resampling",
    "fidelity",
    "sweep",
    "while_sweeping",
    "answer",
    "rest",
    "frames",
    "marks",
    "following",
    "pdf",
    "shelf",
    "archive",
    "routines",
    "stitch",
    "live",
    "clip",
)


def main() -> int:
    """Run what was named, or everything."""
    names = sys.argv[1:] or MEASUREMENTS
    unknown = sorted(set(names) - set(MEASUREMENTS))
    if unknown:
        print(f"There is no measurement {unknown[0]}. Known: {', '.join(MEASUREMENTS)}.", file=sys.stderr)
        return 2
    for name in names:
        print(f"== {name}", flush=True)
        importlib.import_module(f"bench.{name}").main()
    return 0


if __name__ == "__main__":
    sys.exit(main())
