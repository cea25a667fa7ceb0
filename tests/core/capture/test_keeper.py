"""One browser for many pages, and what becomes of them when it dies."""

from concurrent.futures import ThreadPoolExecutor
from contextlib import suppress
from pathlib import Path

import psutil

from tallpage.core.capture import PRESETS, BrowserKeeper, PageRequest


def _browsers() -> set[psutil.Process]:
    """The processes of browsers below this one."""
    found = set()
    for process in psutil.Process().children(recursive=True):
        with suppress(psutil.NoSuchProcess):
            if "--headless" in process.cmdline():
                found.add(process)
    return found


def _kill(processes: set[psutil.Process]) -> None:
    for process in processes:
        with suppress(psutil.NoSuchProcess):
            process.kill()


def test_a_browser_that_died_between_two_pages_is_replaced(site: str, tmp_path: Path) -> None:
    # Killed at once before a page, it may die while the page is being opened: waited for without end once.
    others = _browsers()

    def take_some() -> list[int]:
        keeper = BrowserKeeper()
        try:
            heights_px = []
            for number in range(5):
                folder = tmp_path / str(number)
                folder.mkdir()
                manifest, _ = keeper.take(
                    PageRequest(address=f"{site}/notices/{number}", screen=PRESETS["desk"]),
                    folder,
                )
                heights_px.append(manifest.height_px)
                ours = _browsers() - others
                assert ours
                _kill(ours)
            return heights_px
        finally:
            keeper.close()

    with ThreadPoolExecutor(max_workers=1) as thread:
        assert all(height_px > 500 for height_px in thread.submit(take_some).result(timeout=120))
