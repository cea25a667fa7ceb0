"""How soon a person knows: from adding a row of the ledger to verdict, first file, best file, last advice.

Pages of four heights, each under three limits, through the running application; all in one run with the
plain script of :mod:`bench.fit`. ``verdict`` is there when the sample's is told, ``first`` when a file is
there to be seen, ``best`` when the file that stays is there, ``advice`` when all of it is. The page is asked
for as its screen asks, ten times a second.
"""

from __future__ import annotations

import io
import itertools
import statistics
import tempfile
import time
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

from PIL import Image

from bench.fit import plain
from bench.running import Visitor, running_demo
from tallpage.core.capture import PRESETS, Browser, PageRequest, take_page
from tallpage.core.render import save_joined_png

WIDTH_PX = 720
HEIGHTS_PX = (3_000, 15_000, 26_000, 60_000)
_QUALITIES = {"easy": 85, "tight": 25, "impossible": 3}
"""Quality at which the plain script's file is as heavy as the limit."""
_ALL = ("jpeg", "png", "webp", "avif")
_ASKED_EVERY_S = 0.1
WANTED = {"verdict": 0.5, "first": 2.0, "best": 10.0, "advice": 15.0, "best, JPEG only": 3.0}


@dataclass(slots=True)
class Moments:
    """Seconds from adding the row until each was there."""

    seconds: dict[str, float] = field(default_factory=dict)
    told: dict[str, Any] = field(default_factory=dict)

    def note(self, moment: str, at_s: float) -> None:
        """Note it, if it was not there before."""
        self.seconds.setdefault(moment, at_s)


def pages(site: str) -> Iterator[tuple[int, Image.Image]]:
    """Pages of the demo site: one cut to three heights, and two of them one below the other."""
    with tempfile.TemporaryDirectory() as scratch, Browser() as browser:
        taken = []
        for name in ("islands", "timetable"):
            strips, file = Path(scratch) / name, Path(scratch) / f"{name}.png"
            strips.mkdir()
            request = PageRequest(address=f"{site}/{name}", screen=PRESETS["desk"])
            manifest, _ = take_page(browser, request, strips)
            save_joined_png(strips, manifest, file)
            taken.append(Image.open(file).convert("RGB"))
    guide, timetable = taken
    whole = Image.new("RGB", (guide.width, HEIGHTS_PX[-1]))
    top_px = 0
    while top_px < whole.height:
        for page in (guide, timetable, guide.transpose(Image.Transpose.FLIP_LEFT_RIGHT)):
            whole.paste(page, (0, top_px))
            top_px += page.height
    for height_px in HEIGHTS_PX:
        yield height_px, whole.crop((0, 0, whole.width, height_px))


def limits(page: Image.Image) -> dict[str, int]:
    """Limits that are easy, tight and impossible to meet for a page."""
    small = page.resize((WIDTH_PX, round(page.height * WIDTH_PX / page.width)))
    found = {}
    for name, quality in _QUALITIES.items():
        buffer = io.BytesIO()
        small.save(buffer, "JPEG", quality=quality, optimize=True, progressive=True, subsampling=2)
        found[name] = buffer.tell()
    return found


def put_on_shelf(visitor: Visitor, page: Image.Image) -> int:
    """Drop a picture and wait until it is taken in; its first cut."""
    buffer = io.BytesIO()
    page.save(buffer, "PNG", compress_level=1)
    capture = visitor.post_picture("page.png", buffer.getvalue())
    while capture["job"]["state"] in ("queued", "running"):
        time.sleep(0.2)
        capture = visitor.get(f"/captures/{capture['id']}")
    cuts = capture.get("cuts") or [visitor.post(f"/captures/{capture['id']}/cuts", {})]
    return int(cuts[0]["id"])


def watched(visitor: Visitor, cut: int, limit_bytes: int, formats: Sequence[str]) -> Moments:
    """Add a row to a cut's ledger and watch it as its screen does."""
    moments = Moments()
    shown = ("", 0)
    started = time.perf_counter()
    rules = {"width_px": WIDTH_PX, "limit_bytes": limit_bytes, "formats": list(formats)}
    added = visitor.post(f"/cuts/{cut}/outputs", {"rules": rules})["id"]
    while True:
        row = next(row for row in visitor.get(f"/cuts/{cut}/outputs") if row["id"] == added)
        at_s = time.perf_counter() - started
        told = row["job"]["told"] or {}
        ended = row["job"]["state"] not in ("queued", "running")
        if told.get("expected") or ended:
            moments.note("verdict", at_s)
        if row["file_key"]:
            moments.note("first", at_s)
        if (row["format"], row["bytes"]) != shown:
            shown = (row["format"], row["bytes"])
            moments.seconds["best"] = at_s
        for advice in row["advice"]:
            moments.note(f"advice {advice['kind']}", at_s)
        if ended:
            if row["job"]["error"]:
                raise SystemExit(row["job"]["error"]["sentence"])
            moments.told = row
            if row["advice"]:
                moments.note("advice", max(s for name, s in moments.seconds.items() if "advice " in name))
            moments.note("done", at_s)
            return moments
        time.sleep(_ASKED_EVERY_S)


def _script_seconds(page: Image.Image, limit_bytes: int) -> float:
    started = time.perf_counter()
    plain(page, WIDTH_PX, limit_bytes)
    return time.perf_counter() - started


def _in_words(row: dict[str, Any]) -> str:
    chosen = next((made for made in row["candidates"] if row["candidates"]), None)
    recipe = chosen["recipe"] if chosen else row["format"]
    return (
        f"{row['bytes'] / 1000:.1f} kB {recipe} {row['fidelity'] or 0:.0f}{'' if row['met'] else ', not met'}"
    )


def main() -> None:
    """Print a row a page and limit, then the medians beside what is wanted."""
    ratios: dict[str, list[float]] = {name: [] for name in WANTED}
    with (
        tempfile.TemporaryDirectory(ignore_cleanup_errors=True) as home,
        running_demo(Path(home)) as (address, site, _),
    ):
        visitor = Visitor(address)
        shifts = itertools.count(step=8)
        for height_px, page in pages(site):
            for name, limit_bytes in limits(page).items():
                # Of other pixels each time: nothing is remembered from the limit before.
                first, second = (put_on_shelf(visitor, _moved(page, next(shifts))) for _ in range(2))
                script_s = _script_seconds(page, limit_bytes)
                every = watched(visitor, first, limit_bytes, _ALL)
                jpeg = watched(visitor, second, limit_bytes, ["jpeg"])
                found = {"best, JPEG only": jpeg.seconds["best"]}
                found |= {key: every.seconds[key] for key in WANTED if key in every.seconds}
                for key, seconds in found.items():
                    ratios[key].append(seconds / script_s)
                figures = "  ".join(
                    f"{key} {s:.2f} s ×{s / script_s:.1f}" for key, s in sorted(found.items())
                )
                pieces = " ".join(f"{k[7:]} {s:.1f}" for k, s in every.seconds.items() if k[:7] == "advice ")
                print(
                    f"{height_px:6,} px {name:10} {limit_bytes / 1000:7.1f} kB  script {script_s:.2f} s  "
                    f"{figures}  [{pieces}] done {every.seconds['done']:.1f} s: {_in_words(every.told)}",
                    flush=True,
                )
    for key, wanted in WANTED.items():
        row = ratios[key]
        print(
            f"{key}: × the script's time, median {statistics.median(row):.2f}, most {max(row):.2f}, "
            f"of {len(row)}; wanted {wanted:g}"
        )


def _moved(page: Image.Image, by_px: int) -> Image.Image:
    moved = Image.new("RGB", page.size)
    moved.paste(page.crop((0, by_px, page.width, page.height)), (0, 0))
    moved.paste(page.crop((0, 0, page.width, by_px)), (0, page.height - by_px))
    return moved
