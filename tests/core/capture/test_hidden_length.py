"""Pages that hide how long they are come out whole, or it is said what is missing."""

from collections import Counter
from collections.abc import Iterator
from pathlib import Path

import pytest

from tallpage.core.capture import PRESETS, PageRequest
from tallpage.core.render import whole_page
from tests.conftest import Take
from tests.core.capture.kinds import Kind, page
from tests.core.capture.kinds_hidden import hidden, inventive, served_beside, told
from tests.core.capture.kinds_server import KindsServer, serving
from tests.core.capture.landmarks import find_landmarks
from tests.long import long_but

KINDS = hidden() | inventive()
KEPT = [
    "a consent dialog that locks html and body",
    "a closed shadow root",
    "an article behind a button",
    "sections that never appear",
    "sections moved up by the wheel",
    "a frame in a frame",
]
_RAIL = "position:fixed;right:0;top:0;height:300px;width:200px;overflow:auto"
_NOTICE = "position:fixed;bottom:0;height:300px;left:0;right:0;overflow:auto"
_SLIDES = "".join(f'<p style="flex:none;width:1280px">{"Slide of the harbour " * 40}</p>' for _ in range(5))
ORDINARY = {
    "a menu under the pointer": f'<nav style="position:absolute;opacity:0">{"<p>Pier" * 300}</nav>',
    "closed tabs": f'<div style="display:none">{"<p>Later sailings" * 200}</div>',
    "a closed section": f"<details><summary>Fares</summary>{'<p>Two pounds a head' * 200}</details>",
    "words for those who listen": f'<p style="position:absolute;left:-9999px">{"Read aloud " * 200}</p>',
    "a rail of links that scrolls": f'<div style="{_RAIL}">{"<p><a href=#>A pier</a></p>" * 300}</div>',
    "slides beside one another": f'<div style="width:1280px;overflow:hidden;display:flex">{_SLIDES}</div>',
    "a cookie notice with much to say": f'<div style="{_NOTICE}">{"We use cookies. " * 200}</div>',
}


@pytest.fixture(scope="module")
def server() -> Iterator[KindsServer]:
    ordinary = {name: Kind(html=page(told(6) + body), expected={}) for name, body in ORDINARY.items()}
    with serving(KINDS | served_beside() | ordinary) as running:
        yield running


@pytest.mark.parametrize("name", long_but(KEPT, KINDS))
def test_a_page_that_hides_its_length_is_whole_or_told(
    name: str, server: KindsServer, take: Take, tmp_path: Path
) -> None:
    kind = KINDS[name]
    request = PageRequest(address=f"{server.address}/kind/{name}", screen=PRESETS["desk"])
    manifest, report = take(request, tmp_path)
    found = find_landmarks(whole_page(tmp_path, manifest).rows(0, manifest.height_px))
    counted = Counter(row.number for row in found)
    assert [number for number in kind.expected if counted[number] != 1] == []
    where = {row.number: row.y_px for row in found}
    wrong = {
        number: (where[number], y_px)
        for number, y_px in kind.expected.items()
        if y_px is not None and where[number] != y_px
    }
    assert wrong == {}, "found at, expected at"
    if kind.height_px is not None:
        assert manifest.height_px == kind.height_px
    assert kind.warns in " ".join(report.warnings)
    assert report.wholeness.is_whole == (not kind.warns)
    assert bool(report.warnings) == bool(kind.warns)


@pytest.mark.parametrize("name", long_but(["a closed section", "slides beside one another"], ORDINARY))
def test_what_nobody_meets_by_scrolling_is_not_missed(
    name: str, server: KindsServer, take: Take, tmp_path: Path
) -> None:
    request = PageRequest(address=f"{server.address}/kind/{name}", screen=PRESETS["desk"])
    _, report = take(request, tmp_path)
    assert report.wholeness.is_whole
    assert report.warnings == ()


def test_a_page_that_is_blank_because_its_scripts_failed_says_so(
    server: KindsServer, take: Take, tmp_path: Path
) -> None:
    server.pages["broken"] = Kind(
        html=page("<div id=app></div>", script="document.querySelector('#ap').innerHTML='Sailings'"),
        expected={},
    )
    _, report = take(PageRequest(address=f"{server.address}/kind/broken", screen=PRESETS["desk"]), tmp_path)
    assert not report.wholeness.is_whole
    assert "its scripts failed" in " ".join(report.warnings)
    assert "null" in " ".join(report.warnings)


@pytest.mark.long
def test_what_was_left_out_is_told_of_a_page_that_only_hears_the_wheel(
    server: KindsServer, take: Take, tmp_path: Path
) -> None:
    notice = '<div style="position:fixed;bottom:0;height:60px;left:0;right:0">We use cookies</div>'
    server.pages["hears"] = Kind(
        html=page(told(1) + notice, script="addEventListener('wheel',()=>{})"), expected={}
    )
    _, report = take(PageRequest(address=f"{server.address}/kind/hears", screen=PRESETS["desk"]), tmp_path)
    assert report.left_out == ("We use cookies",)


def test_a_page_that_is_laid_out_anew_for_its_picture_is_taken_to_its_new_end(
    server: KindsServer, take: Take, tmp_path: Path
) -> None:
    grows = "addEventListener('resize',()=>{document.querySelector('#more').style.height='900px'})"
    server.pages["grows"] = Kind(
        html=page(told(4) + "<div id=more></div>" + told(2, first=5), script=grows), expected={}
    )
    request = PageRequest(address=f"{server.address}/kind/grows", screen=PRESETS["desk"])
    manifest, _ = take(request, tmp_path)
    found = find_landmarks(whole_page(tmp_path, manifest).rows(0, manifest.height_px))
    assert [row.number for row in found] == [1, 2, 3, 4, 5, 6]
