"""A sweep of 60 pages on two screens, against a plain loop: one page after the other, one browser.

The demo site answers as sites far away do, after 50 to 400 ms. Both save whole PNG files; a page of ours
must be at least as high as the plain one's.
"""

from __future__ import annotations

import tempfile
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from playwright.sync_api import sync_playwright

from tallpage.core.capture import PRESETS, PageRequest, Screen, find_chromium
from tallpage.core.picture import open_foreign
from tallpage.core.sweep import (
    Found,
    Pace,
    Pattern,
    SweepOrder,
    list_of,
    sweep_into,
    workers_for_this_machine,
)
from tallpage.demo.photo_store import PhotoStore
from tallpage.demo.site_server import DemoSite

_PATHS = ("/", "/timetable", "/fleet", "/islands", "/departures", "/planning")
_NOTICES = 54
_SCREENS = (PRESETS["desk"], Screen(width_px=390, height_px=844, scale=2))
_PACE = Pace(at_once=16, pause_s=0)


@contextmanager
def _site(scratch: Path) -> Iterator[str]:
    photos = PhotoStore(scratch / "photographs")
    photos.paint_all()
    with DemoSite(0, photos, far_away=True) as site:
        threading.Thread(target=site.serve_forever, daemon=True).start()
        yield f"http://127.0.0.1:{site.server_port}"
        site.shutdown()


def plain(addresses: list[str], folder: Path) -> float:
    """Seconds that the plain loop takes."""
    started = time.perf_counter()
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(
            executable_path=find_chromium(), args=["--no-sandbox", "--hide-scrollbars"]
        )
        for number, address in enumerate(addresses):
            for at, screen in enumerate(_SCREENS):
                context = browser.new_context(
                    viewport={"width": screen.width_px, "height": screen.height_px},
                    device_scale_factor=screen.scale,
                )
                page = context.new_page()
                page.goto(address, wait_until="load")
                page.screenshot(full_page=True, path=folder / f"{number}-{at}.png")
                context.close()
        browser.close()
    return time.perf_counter() - started


def ours(addresses: list[str], folder: Path, workers: int) -> float:
    """Seconds that a sweep takes, processes and browsers started anew."""
    order = SweepOrder(
        pages=list_of(Found(text=address, line=line) for line, address in enumerate(addresses, 1)),
        screens=_SCREENS,
        how=PageRequest(address="", screen=_SCREENS[0]),
        pattern=Pattern("{number}-{screen}"),
    )
    started = time.perf_counter()
    rows = sweep_into(folder, order, pace=_PACE, workers=workers)
    seconds = time.perf_counter() - started
    if any(row.failed for row in rows) or len(rows) != len(addresses) * len(_SCREENS):
        raise RuntimeError("not every page was taken")
    return seconds


def _heights(folder: Path) -> list[int]:
    return [open_foreign(path).size.height_px for path in sorted(folder.glob("*.png"), key=_order)]


def _order(path: Path) -> tuple[int, int]:
    number, _, rest = path.stem.partition("-")
    return int(number), 0 if rest in ("0", f"{_SCREENS[0].width_px}x{_SCREENS[0].height_px}") else 1


def main() -> None:
    """Print pages a minute of both, and by how much ours is faster."""
    with tempfile.TemporaryDirectory() as made:
        scratch = Path(made)
        with _site(scratch) as root:
            paths = [*_PATHS, *(f"/notices/{number}" for number in range(_NOTICES))]
            addresses = [root + path for path in paths]
            pictures = len(addresses) * len(_SCREENS)
            (scratch / "plain").mkdir()
            plain_s = plain(addresses, scratch / "plain")
            print(f"plain loop: {plain_s:.1f} s, {pictures * 60 / plain_s:.0f} pictures a minute", flush=True)
            for workers in sorted({2, 4, workers_for_this_machine()}):
                folder = scratch / f"ours-{workers}"
                folder.mkdir()
                seconds = ours(addresses, folder, workers)
                pairs = zip(_heights(folder), _heights(scratch / "plain"), strict=True)
                shorter = sum(mine < theirs for mine, theirs in pairs)
                print(
                    f"ours, {workers} at once: {seconds:.1f} s, {pictures * 60 / seconds:.0f} pictures a "
                    f"minute, {plain_s / seconds:.2f} × the plain loop's; {shorter} shorter than its",
                    flush=True,
                )


if __name__ == "__main__":
    main()
