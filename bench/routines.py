"""A routine of eight steps over 500 pictures, against the same steps in a plain Pillow script.

Both work in two processes on the same files, and say how many pictures a minute they make. The plain
script bisects the quality of a progressive 4:2:0 JPEG; each file is judged by ssimulacra2 against the
pixels that its own steps drew. The memory of ours is looked at while it runs: it must not grow with the
pictures made.
"""

from __future__ import annotations

import io
import os
import statistics
import tempfile
import threading
import time
from collections.abc import Iterator, Sequence
from concurrent.futures import ProcessPoolExecutor
from contextlib import contextmanager
from datetime import date
from pathlib import Path

import numpy as np
import psutil
from PIL import Image, ImageChops, ImageDraw, ImageEnhance, ImageFont, ImageOps

from bench.fit import judged
from tallpage.core.capture import PRESETS, Browser, PageRequest, Screen, take_page
from tallpage.core.cut import page_facts
from tallpage.core.picture import Raster
from tallpage.core.render import PictureSource, Rendering, save_joined_png
from tallpage.core.routine import Page, Routine, apply_routine, routine_of, slots_of
from tallpage.core.sweep import Pace, PageList, Pattern, SweepOrder, sweep_into
from tallpage.demo.photo_store import PhotoStore
from tallpage.demo.site_server import DemoSite

_COUNT = int(os.environ.get("TALLPAGE_BENCH_PICTURES", "500"))
_PROCESSES = 2
_JUDGED = 50
_WIDTH_PX, _HEIGHT_PX, _FILE_PX, _LIMIT_BYTES = 1_280, 1_000, 720, 90_000
_PATHS = ("/islands", "/timetable", "/fleet", "/planning", "/departures", "/archive", "/", "/notices/7")
_GREY = "#B8B2A4"
_LOOK_S = 0.5


def _routine() -> Routine:
    return routine_of(
        {
            "version": 1,
            "name": "Article picture",
            "steps": [
                {"kind": "frame_corner", "x_px": 40, "y_px": 20, "width_px": 1_200, "height_px": 900},
                {"kind": "trim"},
                {"kind": "tone", "tone": {"contrast": 1.05}},
                {
                    "kind": "marks",
                    "marks": [
                        {"kind": "box", "x_px": 40.0, "y_px": 40.0, "width_px": 300.0, "height_px": 120.0}
                    ],
                },
                {"kind": "dress", "dressing": {"border": {"width_px": 2, "colour": _GREY}}},
                {"kind": "dress", "dressing": {"stamp": {"text": "Skerrin Sound Ferries", "size_px": 14.0}}},
                {
                    "kind": "slot",
                    "name": "Article",
                    "width_px": _FILE_PX,
                    "limit_bytes": _LIMIT_BYTES,
                    "formats": ["jpeg", "png", "webp"],
                },
                {"kind": "out", "names": "{title}"},
            ],
        }
    )


def paint(folder: Path, count: int) -> list[Path]:
    """So many different pictures: stretches of the demo site's pages, with photographs on some of them."""
    sources = list(_pages())
    made = []
    for number in range(count):
        page = sources[number % len(sources)]
        top_px = (number // len(sources) * 271) % max(1, page.height - _HEIGHT_PX)
        path = folder / f"picture-{number:04d}.png"
        page.crop((0, top_px, _WIDTH_PX, top_px + _HEIGHT_PX)).save(path, compress_level=1)
        made.append(path)
    return made


def _pages() -> Iterator[Image.Image]:
    with tempfile.TemporaryDirectory() as made:
        photos = PhotoStore(Path(made) / "photographs")
        photos.paint_all()
        with DemoSite(0, photos) as site, Browser() as browser:
            threading.Thread(target=site.serve_forever, daemon=True).start()
            for number, path in enumerate(_PATHS):
                folder = Path(made) / str(number)
                folder.mkdir()
                address = f"http://127.0.0.1:{site.server_port}{path}"
                manifest, _ = take_page(browser, PageRequest(address=address, screen=PRESETS["desk"]), folder)
                file = Path(made) / f"{number}.png"
                save_joined_png(folder, manifest, file)
                yield Image.open(file).convert("RGB")
            site.shutdown()


def plain_steps(path: Path) -> Image.Image:
    """The eight steps but for the file."""
    picture = Image.open(path).convert("RGB").crop((40, 20, 1_240, 920))
    ground = Image.new("RGB", picture.size, picture.getpixel((0, 0)))
    picture = picture.crop(ImageChops.difference(picture, ground).getbbox() or (0, 0, *picture.size))
    picture = ImageEnhance.Contrast(picture).enhance(1.05)
    ImageDraw.Draw(picture).rectangle((40, 40, 340, 160), outline="#6B3A5B", width=4)
    inner_px = _FILE_PX - 4
    small = picture.resize(
        (inner_px, max(1, round(picture.height * inner_px / picture.width))), Image.Resampling.LANCZOS
    )
    dressed = ImageOps.expand(small, 2, _GREY)
    font = ImageFont.load_default(14)
    layer = Image.new("RGBA", dressed.size, (0, 0, 0, 0))
    ImageDraw.Draw(layer).text(
        (dressed.width - 12, dressed.height - 12), "Skerrin Sound Ferries", (29, 43, 42, 128), font, "rs"
    )
    return Image.alpha_composite(dressed.convert("RGBA"), layer).convert("RGB")


def plain(path: Path, folder: Path) -> None:
    """One picture by the plain script."""
    picture = plain_steps(path)
    low, high, best = 1, 95, b""
    while low <= high:
        middle = (low + high) // 2
        buffer = io.BytesIO()
        picture.save(buffer, "JPEG", quality=middle, optimize=True, progressive=True, subsampling=2)
        if buffer.tell() <= _LIMIT_BYTES:
            best, low = buffer.getvalue(), middle + 1
        else:
            high = middle - 1
    (folder / f"{path.stem}.jpg").write_bytes(best)


def _plain_run(pictures: Sequence[Path], folder: Path) -> float:
    started = time.perf_counter()
    with ProcessPoolExecutor(_PROCESSES) as pool:
        list(pool.map(plain, pictures, [folder] * len(pictures)))
    return time.perf_counter() - started


def _our_run(pictures: Sequence[Path], folder: Path) -> tuple[float, list[int]]:
    """Seconds, and the memory of all processes after each moment that was looked at."""
    screen = Screen.parse("1280x800")
    order = SweepOrder(
        pages=PageList(pages=()),
        screens=(screen,),
        how=PageRequest(address="", screen=screen),
        pattern=Pattern("{title}"),
        pictures=tuple(pictures),
        routine=_routine(),
    )
    with _memory_looked_at() as seen:
        started = time.perf_counter()
        rows = sweep_into(folder, order, pace=Pace(), workers=_PROCESSES)
        seconds = time.perf_counter() - started
    if any(row.failed or not row.met for row in rows) or len(rows) != len(pictures):
        raise RuntimeError("not every picture was made as asked")
    return seconds, seen


@contextmanager
def _memory_looked_at() -> Iterator[list[int]]:
    seen: list[int] = []
    over = threading.Event()

    def look() -> None:
        while not over.wait(_LOOK_S):
            family = psutil.Process().children(recursive=True)
            total = 0
            for one in family:
                try:
                    total += one.memory_full_info().pss
                except psutil.Error:
                    continue
            seen.append(total)

    thread = threading.Thread(target=look)
    thread.start()
    try:
        yield seen
    finally:
        over.set()
        thread.join()


def _our_pixels(path: Path) -> Raster:
    """What the routine draws of a picture, before it is made a file."""
    source = PictureSource(path, held=True)
    applied = apply_routine(_routine(), Page(source=source))
    cut = applied.cut.resolved(page_facts(name=path.stem, taken_on=date(2026, 11, 28)))
    rendering = Rendering(source, cut, slots_of(_routine())[0].rules)
    return rendering.draw(rendering.whole()).held()


def main() -> None:
    """Print pictures a minute of both, how the files look, and the memory of ours."""
    with tempfile.TemporaryDirectory() as made:
        scratch = Path(made)
        for name in ("pictures", "plain", "ours"):
            (scratch / name).mkdir()
        pictures = paint(scratch / "pictures", _COUNT)
        plain_s = _plain_run(pictures, scratch / "plain")
        print(f"plain script: {plain_s:.1f} s, {_COUNT * 60 / plain_s:.0f} pictures a minute", flush=True)
        our_s, memory = _our_run(pictures, scratch / "ours")
        print(
            f"ours: {our_s:.1f} s, {_COUNT * 60 / our_s:.0f} pictures a minute, "
            f"{plain_s / our_s:.2f} × the plain script's pace (wanted 0.8)",
            flush=True,
        )
        third = max(1, len(memory) // 3)
        early, late = (
            statistics.median(memory[third : 2 * third] or memory),
            statistics.median(memory[-third:]),
        )
        print(
            f"memory: {early / 1e6:.0f} MB in the middle, {late / 1e6:.0f} MB at the end, "
            f"at most {max(memory) / 1e6:.0f} MB"
        )
        ours, plains = [], []
        for path in pictures[:: max(1, _COUNT // _JUDGED)]:
            (file,) = (scratch / "ours").glob(f"{path.stem}.*")
            ours.append(judged(_our_pixels(path), file.read_bytes()))
            reference = Raster.from_rows(np.asarray(plain_steps(path)))
            plains.append(judged(reference, (scratch / "plain" / f"{path.stem}.jpg").read_bytes()))
        print(
            f"fidelity of {len(ours)}: ours {statistics.mean(ours):.1f}, "
            f"plain {statistics.mean(plains):.1f}, "
            f"{statistics.mean(ours) - statistics.mean(plains):+.1f} (wanted +14)"
        )


if __name__ == "__main__":
    main()
