"""Lists that draw only the rows in view: how many takes hold every row once, in order.

The lists of the tests, by the libraries that pages really use, in the window and in a panel: 300 rows
on this machine, and 150 on one whose processor is four times as slow.
"""

from __future__ import annotations

import statistics
import sys
import tempfile
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from urllib.parse import quote

from tests.core.capture.kinds_server import KindsServer
from tests.core.capture.landmarks import find_landmarks
from tests.core.capture.test_lists import LISTS, ROW_BITS

from tallpage.core.capture import PRESETS, Browser, PageRequest, take_page
from tallpage.core.capture.browser._page_session import PageSession
from tallpage.core.render import whole_page

ROWS, ROWS_SLOW = 300, 150
TAKES = 5
SLOWER = 4


class SlowBrowser(Browser):
    """A browser on a machine that is so many times as slow."""

    @contextmanager
    def open_page(self, request: PageRequest, *, moving: bool = False) -> Iterator[PageSession]:
        with super().open_page(request, moving=moving) as page:
            page._session.send("Emulation.setCPUThrottlingRate", {"rate": SLOWER})
            yield page


def take(browser: Browser, address: str, count: int) -> tuple[bool, float]:
    """Whether every row is there once, in order; and seconds."""
    started = time.monotonic()
    with tempfile.TemporaryDirectory() as scratch:
        folder = Path(scratch)
        manifest, _ = take_page(browser, PageRequest(address=address, screen=PRESETS["desk"]), folder)
        seconds = time.monotonic() - started
        pixels = whole_page(folder, manifest).rows(0, manifest.height_px)
    rows = [row.number for row in find_landmarks(pixels, bits=ROW_BITS)]
    return rows == list(range(1, count + 1)), seconds


def measure(kind: type[Browser], words: str, count: int, server: KindsServer, takes: int) -> None:
    """Take every list so often, and print how many takes were exact."""
    all_exact = all_takes = 0
    with kind() as browser:
        for name, place in LISTS:
            address = f"{server.address}/lists/index.html?list={quote(name)}&in={place}&rows={count}"
            results = [take(browser, address, count) for _ in range(takes)]
            exact = sum(is_exact for is_exact, _ in results)
            seconds = statistics.median(seconds for _, seconds in results)
            print(f"{words:8} {name:32} {place:7} exact {exact} of {takes}, {seconds:.1f} s", flush=True)
            all_exact, all_takes = all_exact + exact, all_takes + takes
    print(f"{words}: {all_exact} of {all_takes} takes exact", flush=True)


def main(takes: int = TAKES) -> None:
    """Measure and print."""
    with KindsServer({}) as server:
        threading.Thread(target=server.serve_forever, daemon=True).start()
        measure(Browser, "quiet", ROWS, server, takes)
        measure(SlowBrowser, f"{SLOWER} × slow", ROWS_SLOW, server, takes)
        server.closing.set()
        server.shutdown()


if __name__ == "__main__":
    main(*(int(text) for text in sys.argv[1:]))
