"""Every kind of page comes out whole: each landmark once, in order, in its place, sharp."""

from collections import Counter
from collections.abc import Iterator
from pathlib import Path

import pytest

from tallpage.core.capture import PRESETS, PageRequest, Screen, Timeouts
from tallpage.core.errors import AddressError, PageError, PageUnreachable
from tallpage.core.render import whole_page
from tests.conftest import Take
from tests.core.capture.kinds import kinds
from tests.core.capture.kinds_in_motion import moving, redrawn
from tests.core.capture.kinds_server import KindsServer, serving
from tests.core.capture.landmarks import Landmark, find_landmarks
from tests.long import long_but, short_but
from tests.pictures import Pixels, assert_same_pixels

KINDS = kinds() | redrawn()
MOVING = moving()
STILL = ["movement without end", "a fixed application with a grid", *MOVING]
SLOW = [
    "very tall",
    "pictures swapped in by an observer",
    "pictures swapped in by a handler that looks seldom",
    "pictures swapped in by a timer",
    "pictures swapped in by a loop of frames",
    "sections revealed and hidden again by an observer",
    "sections shown by a scroll handler",
    "sections skipped while far away",
    "sections animated by scrolling",
    "a list that draws only the rows near the window",
    "a list inside a scroller that draws only the rows near",
    "a slow endless feed on a page that is never quiet",
    "a picture that never comes",
    "a fixed application with a grid",
    "a body that scrolls itself",
    "pictures swapped in once scrolling rests",
    "a hero of the window's height",
    "smooth scrolling with snap",
    "dialogs",
    "content wider than the screen",
    "frames, a canvas and a poster",
    "movement without end",
    "a page behind a lock",
]
DESK = PRESETS["desk"]
HASTY = Timeouts(answer_ms=4_000, load_ms=3_000, quiet_ms=5_000, growth_screens=6, operation_ms=20_000)


@pytest.fixture(scope="module")
def server() -> Iterator[KindsServer]:
    with serving(KINDS | MOVING) as running:
        yield running


def _taken(take: Take, request: PageRequest, folder: Path) -> tuple[Pixels, list[Landmark], tuple[str, ...]]:
    manifest, report = take(request, folder)
    pixels = whole_page(folder, manifest).rows(0, manifest.height_px)
    return pixels, find_landmarks(pixels, request.screen.scale), report.warnings


@pytest.mark.parametrize("name", short_but(SLOW, KINDS))
def test_a_kind_of_page_comes_out_whole(name: str, server: KindsServer, take: Take, tmp_path: Path) -> None:
    kind = KINDS[name]
    request = PageRequest(address=f"{server.address}/kind/{name}", screen=DESK, timeouts=HASTY)
    pixels, found, warnings = _taken(take, request, tmp_path)
    counted = Counter(row.number for row in found)
    assert counted[-1] == 0, "broken landmarks"
    assert [number for number in kind.expected if counted[number] != 1] == []
    assert [number for number in kind.absent if counted[number]] == []
    where = {row.number: row.y_px for row in found}
    wrong = {
        number: (where[number], y_px)
        for number, y_px in kind.expected.items()
        if y_px is not None and where[number] != y_px
    }
    assert wrong == {}, "found at, expected at"
    if kind.height_px is not None:
        assert pixels.shape[0] == kind.height_px
    assert pixels.shape[1] == kind.width_px
    assert kind.warns in " ".join(warnings)
    assert bool(warnings) == bool(kind.warns)


@pytest.mark.parametrize("scale", long_but([2], [2, 3]))
def test_pages_of_80_000_and_120_000_device_px_are_whole_and_sharp(
    scale: int, server: KindsServer, take: Take, tmp_path: Path
) -> None:
    request = PageRequest(
        address=f"{server.address}/kind/very tall",
        screen=Screen(width_px=390, height_px=844, scale=scale),
        timeouts=HASTY,
    )
    manifest, _ = take(request, tmp_path)
    assert manifest.height_px == 40_000 * scale
    raster = whole_page(tmp_path, manifest, access="random")
    for number in (1, 50, 100):
        top_px = ((number - 1) * 400 + 20) * scale
        found = find_landmarks(raster.rows(top_px - 5, 40 * scale), scale)
        assert [(row.number, row.y_px * scale) for row in found] == [(number, 5)]


def test_a_fixed_background_is_behind_the_whole_page(server: KindsServer, take: Take, tmp_path: Path) -> None:
    from tests.core.capture.kinds import Kind, page, sections

    html = page(
        sections(8).replace("background:hsl", "background-color:x;color:hsl"),
        style="body{background:linear-gradient(#fc0,#f60) fixed}",
    )
    server.pages["fixed background"] = Kind(html=html, expected={})
    request = PageRequest(address=f"{server.address}/kind/fixed background", screen=DESK, timeouts=HASTY)
    pixels, _, _ = _taken(take, request, tmp_path)
    assert pixels.shape[0] == 3_200
    assert (pixels[:, 1_000, 2] < 60).all(), "white shows where the background ends"
    assert (pixels[:, 1_000, 0] > 200).all()


@pytest.mark.long
def test_fixed_overlays_can_be_kept_once(server: KindsServer, take: Take, tmp_path: Path) -> None:
    request = PageRequest(
        address=f"{server.address}/kind/a fixed bar, a notice and a bubble",
        screen=DESK,
        timeouts=HASTY,
        fixed_overlays="keep",
    )
    _, found, _ = _taken(take, request, tmp_path)
    counted = Counter(row.number for row in found)
    assert (counted[200], counted[201], counted[202]) == (1, 1, 1)
    assert next(row.y_px for row in found if row.number == 201) > 3_900


def test_own_selectors_are_left_out(server: KindsServer, take: Take, tmp_path: Path) -> None:
    request = PageRequest(
        address=f"{server.address}/kind/plain",
        screen=DESK,
        timeouts=HASTY,
        leave_out=("section:nth-of-type(3)", "section:nth-of-type(5)"),
    )
    _, found, _ = _taken(take, request, tmp_path)
    assert [row.number for row in found] == [number for number in range(1, 21) if number not in (3, 5)]


@pytest.mark.parametrize("name", long_but(["movement without end"], STILL))
def test_two_takes_are_the_same_to_the_pixel(
    name: str, server: KindsServer, take: Take, tmp_path: Path
) -> None:
    request = PageRequest(address=f"{server.address}/kind/{name}", screen=DESK, timeouts=HASTY)
    first, _, _ = _taken(take, request, tmp_path / "1")
    second, _, _ = _taken(take, request, tmp_path / "2")
    assert_same_pixels(first, second)


def test_redirects_are_followed_and_the_final_address_is_told(
    server: KindsServer, take: Take, tmp_path: Path
) -> None:
    _, report = take(PageRequest(address=f"{server.address}/redirect", screen=DESK), tmp_path)
    assert report.final_address == f"{server.address}/kind/plain"
    assert report.status == 200


@pytest.mark.parametrize(("path", "status"), [("/error", 500), ("/slow", 200)])
def test_error_pages_and_slow_ones_are_taken(
    path: str, status: int, server: KindsServer, take: Take, tmp_path: Path
) -> None:
    manifest, report = take(PageRequest(address=f"{server.address}{path}", screen=DESK), tmp_path)
    assert (report.status, manifest.height_px) == (status, 800)


@pytest.mark.parametrize(
    ("path", "kind", "code"),
    [
        ("/silent", PageUnreachable, "page_no_answer"),
        ("/to-file", PageError, "page_failed"),
    ],
)
def test_faults_are_told_apart(
    path: str, kind: type[PageError], code: str, server: KindsServer, take: Take, tmp_path: Path
) -> None:
    request = PageRequest(address=f"{server.address}{path}", screen=DESK, timeouts=HASTY)
    with pytest.raises((kind, AddressError)) as refused:
        take(request, tmp_path)
    assert refused.value.code == code


def test_a_page_that_hangs_is_given_up_and_said_so(server: KindsServer, tmp_path: Path) -> None:
    from concurrent.futures import ThreadPoolExecutor

    from tallpage.core.capture import Browser, take_page

    hasty = Timeouts(load_ms=1_000, operation_ms=2_000)
    request = PageRequest(address=f"{server.address}/hang", screen=DESK, timeouts=hasty)

    def run() -> str:
        with Browser() as browser:
            try:
                take_page(browser, request, tmp_path)
            except PageError as error:
                return error.code
        return "it was taken"

    with ThreadPoolExecutor(max_workers=1) as thread:
        assert thread.submit(run).result() == "page_hung"
