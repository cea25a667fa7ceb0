"""Our best file under a limit against a plain Pillow script's: same pictures, same limits, same run.

The plain script resizes by Lanczos and bisects the quality of a progressive, optimised 4:2:0 JPEG
from 1 to 95. Both are judged by ssimulacra2 against the same resized picture.
"""

from __future__ import annotations

import io
import statistics
import tempfile
import time
from collections.abc import Iterable
from dataclasses import dataclass
from pathlib import Path

import numpy as np
from PIL import Image
from ssimulacra2 import compute_ssimulacra2

from bench.pictures import Job, held_out, jobs, special
from tallpage.core.fit import ACCEPTABLE_FIDELITY, Candidate, FitResult, FitWatch, fit_raster
from tallpage.core.fit.encoding._formats import Format
from tallpage.core.picture import Raster, decode, encode_png, open_foreign

FORMATS: dict[str, tuple[Format, ...]] = {
    "jpeg": ("jpeg",),
    "no avif": ("jpeg", "png", "webp"),
    "all": ("jpeg", "png", "webp", "avif"),
}
_TURNS = 3


@dataclass(frozen=True, slots=True)
class Made:
    """A file, how long it took, and how it was judged."""

    name: str
    data: bytes
    seconds: float
    score: float
    first_seconds: float | None = None


def plain(picture: Image.Image, width_px: int, limit_bytes: int) -> bytes:
    """The best JPEG that the plain script finds; the lightest when none fits."""
    size = (width_px, max(1, round(picture.height * width_px / picture.width)))
    small = picture.convert("RGB").resize(size, Image.Resampling.LANCZOS)
    low, high, best = 1, 95, b""
    while low <= high:
        middle = (low + high) // 2
        buffer = io.BytesIO()
        small.save(buffer, "JPEG", quality=middle, optimize=True, progressive=True, subsampling=2)
        if buffer.tell() <= limit_bytes:
            best, low = buffer.getvalue(), middle + 1
        else:
            high = middle - 1
    return best


def opened(picture: Image.Image) -> Raster:
    """A picture as Tall Page takes it in, once for all that is made of it: a colour profile is worked in."""
    if "icc_profile" not in picture.info:
        return Raster.from_rows(np.asarray(picture))
    with tempfile.TemporaryDirectory() as scratch:
        path = Path(scratch) / "picture.png"
        picture.save(path, icc_profile=picture.info["icc_profile"])
        return open_foreign(path).normalised().held()


def ours(
    whole: Raster, width_px: int, limit_bytes: int, formats: tuple[Format, ...]
) -> tuple[FitResult, float | None]:
    """What Tall Page makes of the same, and after how many seconds a first acceptable file was there."""
    started = time.perf_counter()
    raster = whole.resized(whole.size.at_width(width_px)).held()
    first: list[float] = []
    result = fit_raster(
        raster,
        limit_bytes=limit_bytes,
        formats=formats,
        watch=_FirstFile(started, first),
    )
    return result, first[0] if first else None


class _FirstFile(FitWatch):
    """Notes after how many seconds the first file was there."""

    def __init__(self, started: float, seconds: list[float]) -> None:
        self._started, self._seconds = started, seconds

    def best_so_far(self, candidate: Candidate) -> None:
        if candidate.fidelity >= ACCEPTABLE_FIDELITY:
            self._seconds.append(time.perf_counter() - self._started)


def judged(original: Raster, data: bytes) -> float:
    """ssimulacra2 of a file; transparency is seen over white. A file that is not there scores -100."""
    if not data:
        return -100.0
    with tempfile.TemporaryDirectory() as scratch:
        first, second = Path(scratch) / "a.png", Path(scratch) / "b.png"
        for path, raster in ((first, original), (second, decode(data).held())):
            path.write_bytes(encode_png(raster.flattened((255, 255, 255)).without_alpha(), compression=1))
        return float(compute_ssimulacra2(str(first), str(second)))


def run(job: Job) -> dict[str, Made]:
    """All three for one job."""
    whole = opened(job.picture)
    reference = whole.resized(whole.size.at_width(job.width_px)).held()
    seconds: dict[str, list[float]] = {name: [] for name in ("plain", *FORMATS, "first")}
    results: dict[str, FitResult] = {}
    data = b""
    for _ in range(_TURNS):  # in turns, so that what else the machine does slows all alike
        started = time.perf_counter()
        data = plain(job.picture, job.width_px, job.limit_bytes)
        seconds["plain"].append(time.perf_counter() - started)
        for name, formats in FORMATS.items():
            started = time.perf_counter()
            results[name], first_seconds = ours(whole, job.width_px, job.limit_bytes, formats)
            seconds[name].append(time.perf_counter() - started)
            if name == "all" and first_seconds is not None:
                seconds["first"].append(first_seconds)
    times = {name: statistics.median(row) for name, row in seconds.items() if row}
    made = {"plain": Made("JPEG", data, times["plain"], judged(reference, data))}
    for name, result in results.items():
        data = result.chosen.data if result.chosen else b""
        if len(data) > job.limit_bytes:
            raise RuntimeError(f"{job.name}: over the limit")
        if name != "jpeg" and data and decode(data).has_alpha != reference.has_alpha:
            raise RuntimeError(f"{job.name}: transparency was dropped")
        label = f"{result.chosen.recipe} ({result.tries})" if result.chosen else "none"
        made[name] = Made(label, data, times[name], judged(reference, data), times.get("first"))
    return made


def measure(title: str, found: Iterable[Job]) -> None:
    """Print a row a job, then the figures that are asked for."""
    print(f"-- {title}")
    rows = []
    for job in found:
        made = run(job)
        rows.append(made)
        figures = "  ".join(
            f"{name} {row.score:6.1f} {row.seconds:5.2f} s {len(row.data) / 1000:6.1f} kB {row.name}"
            for name, row in made.items()
        )
        print(f"{job.name:28} {job.limit_bytes / 1000:6.1f} kB  {figures}", flush=True)
    fair = [row for row in rows if row["plain"].data]
    for name in FORMATS:
        gains = [row[name].score - row["plain"].score for row in fair]
        times = [row[name].seconds / row["plain"].seconds for row in fair]
        print(
            f"{name}: gain mean {statistics.mean(gains):.1f}, least {min(gains):.1f}; "
            f"time × script's, median {statistics.median(times):.1f}, most {max(times):.1f}"
        )
    firsts = [
        row["all"].first_seconds / row["plain"].seconds
        for row in fair
        if row["all"].first_seconds is not None
    ]
    if firsts:
        print(
            f"first acceptable file: {len(firsts)} of {len(fair)} jobs, time × script's, "
            f"median {statistics.median(firsts):.1f}, most {max(firsts):.1f}"
        )


def main() -> None:
    """Measure the pictures that the search was tuned on, those it was not, and the odd ones."""
    measure("tuned on", jobs())
    measure("held out", held_out())
    measure("odd ones", special())


if __name__ == "__main__":
    main()
