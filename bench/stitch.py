"""Sequences of views joined: how many come out exact to the px, how many are refused, how many are wrong.

Forty sequences from pages of documentation and of the demo, on a desk and a phone, with what happens in
practice: compression, bars that stay, something that moves in a corner, rows that repeat, blank stretches,
half px, pages scrolled too far. Of some a piece is truly missing, or nobody could tell: these should be
refused, with the right place.
"""

from __future__ import annotations

import tempfile
import threading
import time
from collections import Counter
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from pathlib import Path

import numpy as np
from tests.core.stitch.sequences import (
    Pixels,
    Views,
    beside_side_bar,
    compressed,
    like_rows,
    over_foot_line,
    scrolled,
    shuffled,
    under_header,
    with_animation,
    with_button,
)

from bench.pictures import OTHER_PAGES, PAGES, pages, take_picture
from tallpage.core.capture import Browser
from tallpage.core.picture import Raster
from tallpage.core.stitch import Join, join_pictures
from tallpage.demo.photo_store import PhotoStore
from tallpage.demo.site_server import DemoSite

_WINDOWS_PX = {"desk": 800, "phone": 2_532}
_DEMO = ("/timetable", "/departures")
_MOST_CSS_PX = 6_000


@dataclass(frozen=True, slots=True)
class Sequence:
    """Views, and between which of them a piece is missing or cannot be told, if so."""

    name: str
    views: Views
    in_order: bool
    missing: frozenset[tuple[int, int]] = frozenset()


def sequences() -> Iterator[Sequence]:
    """Forty of them: each kind on pages in turn, so that every page is used several times."""
    taken = list(_taken())
    if not taken:
        raise SystemExit("No page to make sequences of: install python3.11-doc or debian-handbook.")
    for number in range(40):
        name, screen, page = taken[number % len(taken)]
        kind, make = _KINDS[number % len(_KINDS)]
        rng = np.random.default_rng(number)
        made = make(page, _WINDOWS_PX[screen], rng)
        yield Sequence(f"{number + 1}: {name}, {screen}, {kind}", *made)


_Made = tuple[Views, bool] | tuple[Views, bool, frozenset[tuple[int, int]]]


def _steps(page: Pixels, window_px: int, rng: np.random.Generator, *, half: bool = False) -> list[float]:
    tops = [float(rng.integers(0, 60))]
    while len(tops) < 7:
        step = float(rng.integers(int(0.3 * window_px), int(0.75 * window_px)))
        step += 0.5 if half and rng.random() < 0.5 else 0
        if tops[-1] + step + window_px + 2 > len(page):
            break
        tops.append(tops[-1] + step)
    return tops


def _scale(window_px: int) -> int:
    return 3 if window_px > 1_000 else 1


def _plain(page: Pixels, window_px: int, rng: np.random.Generator) -> _Made:
    return scrolled(page, _steps(page, window_px, rng), window_px), True


def _dropped(page: Pixels, window_px: int, rng: np.random.Generator) -> _Made:
    views = scrolled(page, _steps(page, window_px, rng), window_px)
    return shuffled(compressed(views, 85), rng), False


def _compressed(page: Pixels, window_px: int, rng: np.random.Generator) -> _Made:
    return compressed(scrolled(page, _steps(page, window_px, rng), window_px), 60), True


def _bars(page: Pixels, window_px: int, rng: np.random.Generator) -> _Made:
    scale = _scale(window_px)
    views = under_header(scrolled(page, _steps(page, window_px, rng), window_px), 64 * scale, scale=scale)
    return compressed(over_foot_line(views, 48 * scale, scale=scale), 80), True


def _side_bar(page: Pixels, window_px: int, rng: np.random.Generator) -> _Made:
    return beside_side_bar(scrolled(page, _steps(page, window_px, rng), window_px), 240), True


def _moving(page: Pixels, window_px: int, rng: np.random.Generator) -> _Made:
    views = scrolled(page, _steps(page, window_px, rng), window_px)
    return with_animation(views, rng, side_px=120 * _scale(window_px)), True


def _floating(page: Pixels, window_px: int, rng: np.random.Generator) -> _Made:
    return compressed(with_button(scrolled(page, _steps(page, window_px, rng), window_px)), 80), True


def _half(page: Pixels, window_px: int, rng: np.random.Generator) -> _Made:
    return scrolled(page, _steps(page, window_px, rng, half=True), window_px), True


def _small_steps(page: Pixels, window_px: int, rng: np.random.Generator) -> _Made:
    tops = [0.0]
    for step in rng.integers(-window_px // 10, window_px // 4, 24):
        tops.append(float(np.clip(tops[-1] + step, 0, len(page) - window_px)))
    return compressed(scrolled(page, tops, window_px), 80), True


def _numbered(page: Pixels, window_px: int, rng: np.random.Generator) -> _Made:
    rows = like_rows(50, page.shape[1], numbered=True, row_px=40 * _scale(window_px))
    page = np.concatenate([page[:window_px], rows, page[window_px : 2 * window_px]])
    return compressed(scrolled(page, _steps(page, window_px, rng), window_px), 85), True


def _too_far(page: Pixels, window_px: int, _: np.random.Generator) -> _Made:
    tops = [0.0, *(float(int(share * window_px)) for share in (0.5, 1.7, 2.1))]
    tops = [top for top in tops if top + window_px <= len(page)]
    return scrolled(page, tops, window_px), True, frozenset({(1, 2)})


def _all_alike(page: Pixels, window_px: int, _: np.random.Generator) -> _Made:
    rows = like_rows(60, page.shape[1], numbered=False, row_px=40 * _scale(window_px))
    page = np.concatenate([page[:window_px], rows[: 3 * window_px]])
    tops = [float(int(share * window_px)) for share in (0, 0.6, 1.2, 1.8, 2.4)]
    return scrolled(page, tops, window_px), True, frozenset({(1, 2), (2, 3), (3, 4)})


def _blank(page: Pixels, window_px: int, _: np.random.Generator) -> _Made:
    blank = np.full((int(1.3 * window_px), *page.shape[1:]), 255, dtype=np.uint8)
    page = np.concatenate([page[:window_px], blank, page[window_px : 2 * window_px]])
    tops = [float(int(share * window_px)) for share in (0, 0.55, 1.1, 1.65, 2.2)]
    return scrolled(page, tops, window_px), True, frozenset({(1, 2), (2, 3)})


_KINDS: tuple[tuple[str, Callable[[Pixels, int, np.random.Generator], _Made]], ...] = (
    ("plain", _plain),
    ("dropped in any order", _dropped),
    ("compressed", _compressed),
    ("header and foot line", _bars),
    ("side bar", _side_bar),
    ("moving corner", _moving),
    ("floating button", _floating),
    ("half px", _half),
    ("small steps to and fro", _small_steps),
    ("numbered rows", _numbered),
    ("scrolled too far", _too_far),
    ("rows all alike", _all_alike),
    ("blank stretch", _blank),
)


def _taken() -> Iterator[tuple[str, str, Pixels]]:
    """Pages of documentation and of the demo, on a desk and a phone, that are high enough."""
    names = tuple(name for name in (*PAGES, *OTHER_PAGES) if name != "doc index")
    found = {screen: pages(names, _MOST_CSS_PX, screen) for screen in _WINDOWS_PX}
    with (
        tempfile.TemporaryDirectory() as photos,
        DemoSite(0, PhotoStore(Path(photos))) as site,
        Browser() as browser,
    ):
        threading.Thread(target=site.serve_forever, daemon=True).start()
        for path in _DEMO:
            address = f"http://127.0.0.1:{site.server_port}{path}"
            for screen, pictures in found.items():
                pictures[f"demo {path[1:]}"] = take_picture(browser, address, screen, _MOST_CSS_PX)
        site.shutdown()
    for name in (*names, *(f"demo {path[1:]}" for path in _DEMO)):
        for screen, window_px in _WINDOWS_PX.items():
            picture = found[screen].get(name)
            if picture is not None and picture.height > 2.6 * window_px:
                yield name, screen, np.asarray(picture)


def judged(sequence: Sequence, join: Join) -> str:
    """What became of a sequence: exact, refused rightly, refused for nothing, named elsewhere, or wrong."""
    named = {(min(gap.below, gap.above), max(gap.below, gap.above)) for gap in join.gaps}
    if named:
        if not sequence.missing:
            return "refused for nothing"
        return "refused rightly" if named <= sequence.missing else "named elsewhere"
    tops = np.array(sequence.views.tops_px)
    apart = np.abs(np.array(join.tops_px) + tops.min() - tops).max()
    return "wrong" if sequence.missing or apart > 0.5 else "exact"


def main() -> None:
    """Print what became of each, and the shares."""
    counts: Counter[str] = Counter()
    seconds = 0.0
    for sequence in sequences():
        rasters = [Raster.from_rows(view) for view in sequence.views.views]
        started = time.monotonic()
        join = join_pictures(rasters, in_order=sequence.in_order)
        seconds += time.monotonic() - started
        became = judged(sequence, join)
        counts[became] += 1
        places = ", ".join(f"{gap.below + 1}-{gap.above + 1} {gap.doubt}" for gap in join.gaps)
        print(f"  {sequence.name} ({len(rasters)} views): {became}{f' ({places})' if places else ''}")
    joinable = counts["exact"] + counts["refused for nothing"] + counts["wrong"]
    print(f"Of 40: {dict(counts)}")
    print(f"Exact of those that can be joined: {counts['exact'] / joinable:.0%} (wanted: 90 %, none wrong)")
    print(f"{seconds:.1f} s in all")


if __name__ == "__main__":
    main()
