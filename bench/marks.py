"""What 200 marks add to the rendering of a file, on pages of several heights.

Each page is rendered with and without its marks in turns, in the same run: read from its strips, brought to
the width of a slot, and pulled through to the last row; then written once as WebP. A file that is fitted
is rendered once and written several times.
"""

from __future__ import annotations

import statistics
import tempfile
import time
from dataclasses import replace
from pathlib import Path

import numpy as np
from pydantic import TypeAdapter

from bench.frames import some_marks
from tallpage.core.cut import Cut
from tallpage.core.geometry import Box, bands
from tallpage.core.marks import Mark
from tallpage.core.picture import Raster, StripWriter, encode_png, encode_webp
from tallpage.core.render import CaptureSource, Rendering, RenderRules
from tallpage.core.sizing import Sizing

_WIDTH_PX, _STRIP_PX = 1_280, 2_048
_HEIGHTS_PX = (3_000, 10_000, 40_000)
_MARKS, _TURNS = 200, 5
_HIGHEST_WEBP_PX = 16_000
WANTED = 0.25
"""Of the time without marks."""
_ANY_MARK: TypeAdapter[Mark] = TypeAdapter(Mark)


def _page(folder: Path, height_px: int) -> CaptureSource:
    rng = np.random.default_rng(1)
    writer = StripWriter(folder, width_px=_WIDTH_PX)
    for top_px in range(0, height_px, _STRIP_PX):
        rows = min(_STRIP_PX, height_px - top_px)
        coarse = rng.integers(0, 255, (rows // 8 + 1, _WIDTH_PX // 8, 3), dtype=np.uint8)
        pixels = np.repeat(np.repeat(coarse, 8, axis=0), 8, axis=1)[:rows]
        writer.add(encode_png(Raster.from_rows(pixels)), height_px=rows)
    return CaptureSource(folder, writer.finish())


def _seconds(rendering: Rendering) -> tuple[float, float]:
    """How long the pixels take; and they together with one writing."""
    started = time.perf_counter()
    raster = rendering.draw(rendering.whole()).held()
    drawn = time.perf_counter()
    for top_px, height_px in bands(raster.size.height_px, _HIGHEST_WEBP_PX):
        encode_webp(
            raster.cropped(replace(Box.whole(raster.size), y_px=top_px, height_px=height_px)), quality=80
        )
    return drawn - started, time.perf_counter() - started


def _in_words(times: dict[str, list[tuple[float, float]]], at: int) -> str:
    without, with_marks = (statistics.median(row[at] for row in rows) for rows in times.values())
    return f"{without:.3f} s, with marks {with_marks:.3f} s, {(with_marks / without - 1) * 100:+.0f} %"


def main() -> None:
    """Print a row a height, beside what is wanted."""
    rules = RenderRules(sizing=Sizing(width_px=720))
    for height_px in _HEIGHTS_PX:
        with tempfile.TemporaryDirectory() as scratch:
            source = _page(Path(scratch), height_px)
            plain = Cut.whole(Box(x_px=0, y_px=0, width_px=_WIDTH_PX, height_px=height_px).size)
            marks = tuple(_ANY_MARK.validate_python(mark) for mark in some_marks(_MARKS, height_px))
            marked = Cut(frame=plain.frame, marks=marks)
            times: dict[str, list[tuple[float, float]]] = {"plain": [], "marked": []}
            for _ in range(_TURNS):
                times["plain"].append(_seconds(Rendering(source, plain, rules)))
                times["marked"].append(_seconds(Rendering(source, marked, rules)))
        print(f"{height_px:>6,} px, pixels alone: {_in_words(times, 0)}", flush=True)
        print(f"{height_px:>6,} px, and one WebP: {_in_words(times, 1)}", flush=True)
    print(f"wanted: at most {WANTED * 100:+.0f} % for {_MARKS} marks")


if __name__ == "__main__":
    main()
