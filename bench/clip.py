"""Clips under a limit against a plain script: ssimulacra2 of what is seen at the same moments.

The plain script shows ten pictures a second and makes them narrower until the file fits: Pillow with a
palette for each picture of a GIF, and with its usual quality for WebP and AVIF; the video encoders with
their usual rate factor. And how much memory a long clip takes against a short one.
"""

from __future__ import annotations

import multiprocessing
import resource
import tempfile
import threading
import time
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from fractions import Fraction
from pathlib import Path
from typing import Any

import av
import numpy as np
from PIL import Image
from ssimulacra2 import compute_ssimulacra2

from tallpage.core.capture import PRESETS, Browser, PageRequest, Screen
from tallpage.core.capture.clip import ClipRequest, Scroll, take_clip
from tallpage.core.clip import (
    CLIP_FORMATS,
    ClipDocument,
    ClipFormat,
    Frames,
    FramesWriter,
    Shown,
    draw,
    length_ms,
    played,
)
from tallpage.core.clip.making import ClipRules, fidelity_over_time, fit_clip, read_clip
from tallpage.core.geometry import Size
from tallpage.core.picture import Raster, encode_png
from tallpage.demo.photo_store import PhotoStore
from tallpage.demo.site_server import DemoSite

_PLAIN_FPS = 10
_PLAIN_FACTORS = {"mp4": ("libx264", "23"), "webm": ("libvpx-vp9", "32")}
_MOMENTS = 12
_DOCUMENT = ClipDocument()
_MB = 1_000_000


@dataclass(frozen=True, slots=True)
class Trial:
    """A clip, how wide it is wanted, and under how many bytes."""

    name: str
    path: str
    screen: Screen
    width_px: int
    limits: dict[ClipFormat, int]
    clip: dict[str, object]


_TRIALS = (
    Trial(
        "home scrolled",
        "/",
        PRESETS["desk"],
        640,
        {"gif": 900_000, "webp": 600_000, "avif": 200_000, "mp4": 200_000, "webm": 200_000},
        {"scroll": Scroll(to_px=1_500)},
    ),
    Trial(
        "board at the quay",
        "/quay",
        PRESETS["desk"],
        640,
        {"gif": 120_000, "webp": 120_000, "avif": 60_000, "mp4": 60_000, "webm": 60_000},
        {"seconds": 5.0, "element": ".quay"},
    ),
    Trial(
        "notices on a phone",
        "/notices",
        Screen(width_px=390, height_px=844, scale=1, touch=True),
        320,
        {"gif": 700_000, "webp": 400_000, "avif": 120_000, "mp4": 120_000, "webm": 120_000},
        {"scroll": Scroll(to_px=1_800)},
    ),
)


def main() -> None:
    """Print every clip in every format, and the means."""
    won: dict[ClipFormat, list[float]] = {format_: [] for format_ in CLIP_FORMATS}
    with tempfile.TemporaryDirectory() as scratch:
        for trial, frames in _taken(Path(scratch)):
            for format_ in CLIP_FORMATS:
                ours, plain, told = _compared(trial, frames, format_, Path(scratch))
                won[format_].append(ours - plain)
                print(
                    f"  {trial.name}, {format_}: {ours:.1f} against {plain:.1f} ({ours - plain:+.1f}); {told}"
                )
    for made, points in won.items():
        print(f"{made}: {np.mean(points):+.1f} points")
    everything = [point for points in won.values() for point in points]
    print(f"All formats: {np.mean(everything):+.1f} points (wanted: +12; GIF alone +8)")
    short, long = (_peak_mb(seconds) for seconds in (4, 16))
    print(f"Most memory for 4 s: {short:.0f} MB, for 16 s: {long:.0f} MB")


def _taken(scratch: Path) -> Iterator[tuple[Trial, Frames]]:
    with DemoSite(0, PhotoStore(scratch / "photographs")) as site, Browser() as browser:
        threading.Thread(target=site.serve_forever, daemon=True).start()
        for trial in _TRIALS:
            folder = scratch / trial.name
            folder.mkdir()
            page = PageRequest(
                address=f"http://127.0.0.1:{site.server_port}{trial.path}", screen=trial.screen
            )
            frames, _ = take_clip(browser, ClipRequest(page=page, **trial.clip), folder)  # type: ignore[arg-type]
            yield trial, frames
        site.shutdown()


def _compared(trial: Trial, frames: Frames, format_: ClipFormat, scratch: Path) -> tuple[float, float, str]:
    limit = trial.limits[format_]
    started = time.monotonic()
    rules = ClipRules(format=format_, limit_bytes=limit, width_px=trial.width_px)
    made = fit_clip(frames, _DOCUMENT, rules, scratch / "ours")
    seconds = time.monotonic() - started
    shown = played(frames, _DOCUMENT)
    ours = _score(frames, shown, made.wanted, read_clip(scratch / "ours", format_))
    width = _plain(frames, shown, made.wanted, format_, limit, scratch / f"plain.{format_}")
    plain = _score(frames, shown, made.wanted, read_clip(scratch / f"plain.{format_}", format_))
    told = (
        f"{made.byte_count / 1_000:.0f} of {limit / 1_000:.0f} kB, {made.size.width_px} px, "
        f"{made.frames} of {made.wanted_frames} pictures, {made.settings.in_words()}, {seconds:.0f} s; "
        f"plain {width} px"
    )
    return ours, plain, told


def _score(
    frames: Frames, shown: tuple[Shown, ...], size: Size, result: Iterable[tuple[np.ndarray, float]]
) -> float:
    """Mean ssimulacra2 at some moments, evenly over the clip."""
    at_ms = [length_ms(shown) * (number + 0.5) / _MOMENTS for number in range(_MOMENTS)]
    rows = [next(row for row in reversed(shown) if row.start_ms <= moment_ms) for moment_ms in at_ms]
    originals = ((draw(frames, _DOCUMENT, row.frame, size), row) for row in dict.fromkeys(rows))
    return fidelity_over_time(originals, result, judge=_ssimulacra2)


def _ssimulacra2(original: Raster, result: Raster) -> float:
    with tempfile.TemporaryDirectory() as folder:
        files = [Path(folder) / name for name in ("original.png", "result.png")]
        for file, raster in zip(files, (original, result), strict=True):
            file.write_bytes(encode_png(raster))
        return float(compute_ssimulacra2(*map(str, files)))


def _plain(
    frames: Frames, shown: tuple[Shown, ...], size: Size, format_: ClipFormat, limit: int, out: Path
) -> int:
    """The widest plain file under the limit, in steps of 8 px; its width."""
    step_ms = 1_000 / _PLAIN_FPS
    count = max(1, round(length_ms(shown) / step_ms))
    rows = [
        next(row for row in reversed(shown) if row.start_ms <= number * step_ms) for number in range(count)
    ]
    pictures = [Image.fromarray(draw(frames, _DOCUMENT, row.frame, size)) for row in rows]
    low, high = 8, size.width_px // 8
    kept = out.with_name(f"kept.{format_}")
    _write_plain(pictures, low * 8, format_, kept)
    while low < high:
        middle = (low + high + 1) // 2
        _write_plain(pictures, middle * 8, format_, out)
        if out.stat().st_size <= limit:
            out.replace(kept)
            low = middle
        else:
            high = middle - 1
    kept.replace(out)
    return low * 8


def _write_plain(pictures: list[Image.Image], width_px: int, format_: ClipFormat, out: Path) -> None:
    height_px = max(2, round(pictures[0].height * width_px / pictures[0].width) // 2 * 2)
    small = [row.resize((width_px, height_px), Image.Resampling.LANCZOS) for row in pictures]
    duration_ms = 1_000 // _PLAIN_FPS
    if format_ in _PLAIN_FACTORS:
        codec, factor = _PLAIN_FACTORS[format_]
        with av.open(str(out), "w", format=format_) as container:
            stream: Any = container.add_stream(
                codec,
                rate=_PLAIN_FPS,
                options={"crf": factor, "b": "0"} if format_ == "webm" else {"crf": factor},
            )
            stream.width, stream.height, stream.pix_fmt = width_px, height_px, "yuv420p"
            for number, picture in enumerate(small):
                frame = av.VideoFrame.from_ndarray(np.asarray(picture), format="rgb24")
                frame.pts, frame.time_base = number, Fraction(1, _PLAIN_FPS)
                container.mux(stream.encode(frame))
            container.mux(stream.encode(None))
        return
    if format_ == "gif":
        small = [row.convert("P", palette=Image.Palette.ADAPTIVE, colors=256) for row in small]
    small[0].save(out, save_all=True, append_images=small[1:], duration=duration_ms, loop=0)


def _peak_mb(seconds: int) -> float:
    """The most memory that a process takes which makes a clip of so many seconds."""
    with multiprocessing.get_context("spawn").Pool(1) as pool:
        return float(pool.apply(_make_long, (seconds,)))


def _make_long(seconds: int) -> float:
    values = np.random.default_rng(5)
    with tempfile.TemporaryDirectory() as scratch:
        folder = Path(scratch) / "frames"
        folder.mkdir()
        writer = FramesWriter(folder, rate_fps=15)
        page = values.integers(0, 256, (60, 64, 3), dtype=np.uint8).repeat(12, 0).repeat(12, 1)
        for number in range(seconds * 15):
            writer.add(encode_png(Raster.from_rows(np.roll(page, number * 7, axis=0)[:480, :640])))
        rules = ClipRules(format="gif", limit_bytes=2 * _MB)
        fit_clip(writer.finish(), _DOCUMENT, rules, Path(scratch) / "out")
    return resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1_000


if __name__ == "__main__":
    main()
