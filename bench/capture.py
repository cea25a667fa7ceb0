"""How long a page takes, against the browser driver's own full-page screenshot in the same run.

The plain one opens the page, waits until it calls itself loaded, and takes one picture. It does not
wait for what loads late; pages that it gets wrong are marked.
"""

from __future__ import annotations

import statistics
import tempfile
import threading
import time
from pathlib import Path

from tallpage.core.capture import PRESETS, Browser, PageRequest, take_page
from tallpage.demo.photo_store import PhotoStore
from tallpage.demo.site_server import DemoSite

RUNS = 5
# Page -> whether the plain screenshot gets it right.
PAGES = {"/departures": True, "/timetable": True, "/": True, "/archive": True, "/islands": False}
PHOTOGRAPHS = Path(__file__).resolve().parent.parent / "var" / "demo" / "demo-photographs"


def plain_seconds(browser: Browser, address: str) -> float:
    """One plain screenshot in the same browser, from a new page to the bytes."""
    started = time.monotonic()
    context = browser._running().new_context(viewport={"width": 1280, "height": 800})
    page = context.new_page()
    page.goto(address, wait_until="load")
    page.screenshot(full_page=True)
    seconds = time.monotonic() - started
    context.close()
    return seconds


def our_seconds(browser: Browser, address: str) -> tuple[float, int]:
    """One capture, from a new page to the strips on disk; and its height in px."""
    started = time.monotonic()
    with tempfile.TemporaryDirectory() as folder:
        manifest, _ = take_page(browser, PageRequest(address=address, screen=PRESETS["desk"]), Path(folder))
    return time.monotonic() - started, manifest.height_px


def main() -> None:
    """Measure and print medians and ratios."""
    store = PhotoStore(PHOTOGRAPHS)
    store.paint_all()
    server = DemoSite(0, store)
    threading.Thread(target=server.serve_forever, daemon=True).start()
    root = f"http://127.0.0.1:{server.server_port}"
    with Browser() as browser:
        for path, plain_is_right in PAGES.items():
            # In turns, so that a machine that is busier for a while is so for both.
            pairs = [
                (plain_seconds(browser, root + path), *our_seconds(browser, root + path)) for _ in range(RUNS)
            ]
            plain, ours = (statistics.median(row[place] for row in pairs) for place in (0, 1))
            note = "" if plain_is_right else "  (the plain one lacks the late photographs)"
            print(
                f"{path:12} {pairs[0][2]:6} px  plain {plain:.2f} s  ours {ours:.2f} s  "
                f"ratio {ours / plain:.2f}{note}",
                flush=True,
            )
    server.shutdown()


if __name__ == "__main__":
    main()
