"""A browser that does not start: what is said of it, and what is not."""

import logging
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import psutil
import pytest
from playwright.sync_api import Error as PlaywrightError

from tallpage.core.capture import Browser
from tallpage.core.errors import BrowserMissing, PageError, TallPageError


def _start() -> None:
    with Browser():
        pass


def _started_alone() -> None:
    """In a thread of its own, since a browser of other tests may run in this one's."""
    with ThreadPoolExecutor(max_workers=1) as thread:
        thread.submit(_start).result()


def test_a_browser_that_is_none_is_called_missing(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    for path in ("/bin/false", str(tmp_path / "nowhere")):
        monkeypatch.setenv("TALLPAGE_CHROMIUM", path)
        with pytest.raises(BrowserMissing, match=path):
            _started_alone()


@pytest.mark.parametrize(
    ("error", "told"),
    [
        (PlaywrightError("Target closed"), PageError),
        pytest.param(
            Exception("Connection closed while reading from the driver"), PageError, marks=pytest.mark.long
        ),
        (psutil.NoSuchProcess(1), PageError),
        pytest.param(ProcessLookupError(), PageError, marks=pytest.mark.long),
        pytest.param(StopIteration(), None, marks=pytest.mark.long),
        (KeyError("processInfo"), None),
        pytest.param(OSError("Too many open files"), None, marks=pytest.mark.long),
    ],
    ids=["closed", "driver ended", "dead", "dead too", "no row", "key", "files"],
)
def test_only_what_ended_the_browser_is_called_its_end(
    monkeypatch: pytest.MonkeyPatch, error: Exception, told: type[TallPageError] | None
) -> None:
    def fail(_: Browser) -> int:
        raise error

    monkeypatch.setattr(Browser, "_find_process", fail)
    with pytest.raises(told or type(error)) as raised:
        _started_alone()
    if told:
        assert raised.value.code == "browser_closed"


def test_the_log_is_not_filled_with_what_was_still_asked_of_a_browser_that_ended(
    caplog: pytest.LogCaptureFixture,
) -> None:
    log = logging.getLogger("asyncio")
    for error in (Exception("Connection closed while reading from the driver"), ZeroDivisionError("ours")):
        log.error("Future exception was never retrieved", exc_info=error)
    assert [record.exc_info[0] for record in caplog.records if record.exc_info] == [ZeroDivisionError]
