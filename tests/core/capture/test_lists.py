"""Lists that draw only the rows in view come out with every row once, whichever library draws them."""

import threading
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import replace
from pathlib import Path
from urllib.parse import quote

import pytest

from tallpage.core.capture import PRESETS, Browser, PageRequest, take_page
from tallpage.core.picture import StripManifest
from tallpage.core.render import whole_page
from tests.conftest import Take
from tests.core.capture.kinds_server import KindsServer
from tests.core.capture.landmarks import find_landmarks
from tests.long import long_but

ROW_BITS = 12
ROWS = 60
WINDOW_OR_PANEL = [
    "react-virtuoso",
    "@tanstack/react-virtual",
    "virtua",
    "@lit-labs/virtualizer",
    "vue-virtual-scroller",
    "vue-virtual-scroller, measured",
]
PANEL_ONLY = ["react-window", "tabulator-tables", "ag-grid-community", "fixed-data-table-2", "clusterize.js"]
LISTS = [(name, place) for name in WINDOW_OR_PANEL for place in ("window", "panel")]
LISTS += [(name, "panel") for name in PANEL_ONLY]
KEPT = [("virtua", "window")]
SLOW = [("virtua", "window"), ("tabulator-tables", "panel"), ("ag-grid-community", "panel")]


@pytest.fixture(scope="module")
def server() -> Iterator[KindsServer]:
    with KindsServer({}) as running:
        threading.Thread(target=running.serve_forever, daemon=True).start()
        yield running
        running.closing.set()
        running.shutdown()


def _request(server: KindsServer, name: str, place: str) -> PageRequest:
    address = f"{server.address}/lists/index.html?list={quote(name)}&in={place}&rows={ROWS}"
    return PageRequest(address=address, screen=PRESETS["desk"])


def _rows(folder: Path) -> list[int]:
    manifest = StripManifest.load(folder)
    pixels = whole_page(folder, manifest).rows(0, manifest.height_px)
    return [row.number for row in find_landmarks(pixels, bits=ROW_BITS)]


@pytest.mark.parametrize(("name", "place"), long_but(KEPT, LISTS))
def test_every_row_of_a_list_is_there_once(
    name: str, place: str, server: KindsServer, take: Take, tmp_path: Path
) -> None:
    _, report = take(_request(server, name, place), tmp_path)
    assert _rows(tmp_path) == list(range(1, ROWS + 1))
    assert report.warnings == ()


class _SlowBrowser(Browser):
    """A browser on a machine that is four times as slow."""

    @contextmanager
    def open_page(self, request):  # type: ignore[no-untyped-def]
        with super().open_page(request) as page:
            page._session.send("Emulation.setCPUThrottlingRate", {"rate": 4})
            yield page


@pytest.mark.long
@pytest.mark.parametrize(("name", "place"), SLOW)
def test_every_row_is_there_on_a_slow_machine(
    name: str, place: str, server: KindsServer, tmp_path: Path
) -> None:
    failed: list[BaseException] = []

    def run() -> None:
        try:
            with _SlowBrowser() as browser:
                take_page(browser, _request(server, name, place), tmp_path)
        except BaseException as error:
            failed.append(error)

    # The driver keeps an event loop in its thread; this one stays free of it.
    thread = threading.Thread(target=run)
    thread.start()
    thread.join()
    assert failed == []
    assert _rows(tmp_path) == list(range(1, ROWS + 1))


@pytest.mark.long
def test_a_list_that_is_cut_off_goes_on_where_it_ended(
    server: KindsServer, take: Take, tmp_path: Path
) -> None:
    upper, lower = tmp_path / "upper", tmp_path / "lower"
    request = _request(server, "virtua", "panel")
    _, cut_off = take(replace(request, max_height_px=1_500), upper)
    assert cut_off.truncated
    assert cut_off.wholeness.is_whole, "what was left out on purpose is not missing"
    _, rest = take(replace(request, from_px=1_500), lower)
    assert not rest.truncated
    rows = _rows(upper) + _rows(lower)
    assert rows == sorted(set(rows))
    assert rows[-1] == ROWS


@pytest.mark.long
def test_a_panel_with_a_list_is_taken_on_a_phone(server: KindsServer, take: Take, tmp_path: Path) -> None:
    request = replace(
        _request(server, "react-virtuoso", "panel"),
        screen=PRESETS["phone"],
        extent="panel",
        element="#list",
    )
    take(request, tmp_path)
    manifest = StripManifest.load(tmp_path)
    pixels = whole_page(tmp_path, manifest).rows(0, manifest.height_px)
    found = [row.number for row in find_landmarks(pixels, 3, bits=ROW_BITS)]
    assert found == list(range(1, ROWS + 1))
