"""One browser for many pages, and what becomes of them when it dies."""

from concurrent.futures import ThreadPoolExecutor
from contextlib import suppress
from pathlib import Path

import psutil
import pytest

from tallpage.core.capture import PRESETS, BrowserPool, PageRequest, Timeouts
from tests.long import long_but

PARTS = {"driver": "run-driver", "browser": "--headless", "zygote": "--type=zygote"}
"""What their command lines hold."""


def _running(part: str) -> set[psutil.Process]:
    """The processes below this one that are such a part of a browser."""
    found = set()
    for process in psutil.Process().children(recursive=True):
        with suppress(psutil.NoSuchProcess):
            if PARTS[part] in process.cmdline():
                found.add(process)
    return found


def _kill(processes: set[psutil.Process]) -> None:
    for process in processes:
        with suppress(psutil.NoSuchProcess):
            process.kill()


@pytest.mark.long
@pytest.mark.parametrize("part", long_but(["browser"], PARTS))
def test_a_browser_that_loses_a_part_of_itself_is_replaced(part: str, site: str, tmp_path: Path) -> None:
    # Killed between two pages, it may die while the next is being opened: waited for without end once.
    others = _running(part)

    def kill_ours() -> None:
        ours = _running(part) - others
        assert ours
        _kill(ours)

    def take(pool: BrowserPool, number: int, *, kill_under_way: bool) -> int:
        folder = tmp_path / str(number)
        folder.mkdir()
        left = [kill_ours] if kill_under_way else []
        manifest, _ = pool.take(
            PageRequest(
                address=f"{site}/notices/{number}",
                screen=PRESETS["desk"],
                timeouts=Timeouts(open_ms=5_000),
            ),
            folder,
            on_progress=lambda _: left.pop()() if left else None,
        )
        return manifest.height_px

    def take_some() -> list[int]:
        pool = BrowserPool()
        try:
            heights_px = []
            for number in range(3):
                heights_px.append(take(pool, number, kill_under_way=number % 2 == 0))
                if number % 2:
                    kill_ours()
            return heights_px
        finally:
            pool.close()

    with ThreadPoolExecutor(max_workers=1) as thread:
        assert all(height_px > 500 for height_px in thread.submit(take_some).result(timeout=120))
