from dataclasses import replace
from pathlib import Path

import pytest

from tallpage.core.capture import PRESETS, PageRequest, Progress, Screen, StopMode, Timeouts
from tallpage.core.errors import PageError, PageUnreachable, Stopped
from tallpage.core.picture import strips_so_far
from tallpage.core.render import whole_page
from tests.conftest import Take
from tests.long import long_but
from tests.pictures import Pixels, assert_same_pixels

DESK = PRESETS["desk"]
HASTY = Timeouts(answer_ms=3_000, load_ms=1_500, quiet_ms=1_500, growth_screens=4)


def _pixels(folder: Path, manifest) -> Pixels:
    return whole_page(folder, manifest).rows(0, manifest.height_px)


def test_a_page_is_taken_whole_with_its_late_photographs(site: str, take: Take, tmp_path: Path) -> None:
    manifest, report = take(PageRequest(address=f"{site}/fleet", screen=DESK), tmp_path)
    assert (report.status, report.truncated, report.warnings) == (200, False, ())
    assert report.title.startswith("The fleet")
    assert manifest.width_px == 1280
    assert manifest.height_px == report.page_height_px > 5_000
    pixels = _pixels(tmp_path, manifest)
    # A photograph that did not load leaves a long stretch of one colour.
    calm = (pixels.std(axis=(1, 2)) < 1.0).astype(int)
    longest = max(len(run) for run in "".join(map(str, calm)).split("0"))
    assert longest < 400


@pytest.mark.long
def test_two_takes_of_an_unchanged_page_are_the_same_to_the_pixel(
    site: str, take: Take, tmp_path: Path
) -> None:
    takes = [
        _pixels(folder, take(PageRequest(address=f"{site}/", screen=DESK), folder)[0])
        for folder in (tmp_path / "1", tmp_path / "2")
    ]
    assert_same_pixels(takes[0], takes[1])


def test_what_hangs_in_the_window_is_left_out_and_named(site: str, take: Take, tmp_path: Path) -> None:
    _, report = take(PageRequest(address=f"{site}/", screen=DESK), tmp_path)
    assert len(report.left_out) == 2
    assert any("cookie" in words.lower() for words in report.left_out)


@pytest.mark.parametrize("scale", long_but([2], [1, 2, 3]))
def test_the_scale_multiplies_the_pixels(site: str, take: Take, tmp_path: Path, scale: int) -> None:
    screen = Screen(width_px=390, height_px=844, scale=scale)
    manifest, report = take(PageRequest(address=f"{site}/departures", screen=screen), tmp_path)
    assert manifest.width_px == 390 * scale
    assert manifest.height_px == report.page_height_px * scale


def test_the_first_screen_alone_can_be_taken(site: str, take: Take, tmp_path: Path) -> None:
    request = PageRequest(address=f"{site}/islands", screen=DESK, extent="view")
    manifest, report = take(request, tmp_path)
    assert (manifest.width_px, manifest.height_px) == (1280, 800)
    assert not report.truncated


def test_one_element_can_be_taken_or_is_said_to_be_missing(site: str, take: Take, tmp_path: Path) -> None:
    request = PageRequest(address=f"{site}/timetable", screen=DESK, extent="element", element="table")
    manifest, _ = take(request, tmp_path / "there")
    assert 300 < manifest.width_px < 1280
    assert 200 < manifest.height_px < 2_000
    with pytest.raises(PageError) as refused:
        take(replace(request, extent="element", element=".no-such-thing"), tmp_path / "missing")
    assert refused.value.code == "element_missing"
    with pytest.raises(PageError) as refused:
        take(replace(request, extent="element", element="p[["), tmp_path / "malformed")
    assert refused.value.code == "element_malformed"


def test_a_greatest_height_cuts_off_and_says_so(site: str, take: Take, tmp_path: Path) -> None:
    manifest, report = take(
        PageRequest(address=f"{site}/islands", screen=DESK, max_height_px=1_234), tmp_path
    )
    assert manifest.height_px == 1_234
    assert report.truncated
    assert "1,234 px" in report.warnings[0]


def test_an_endless_feed_stops_and_says_so(site: str, take: Take, tmp_path: Path) -> None:
    manifest, report = take(PageRequest(address=f"{site}/notices", screen=DESK, timeouts=HASTY), tmp_path)
    assert report.truncated
    assert "kept growing" in report.warnings[0]
    assert manifest.height_px >= 4 * 800


def test_a_missing_page_is_taken_with_its_status(site: str, take: Take, tmp_path: Path) -> None:
    _, report = take(PageRequest(address=f"{site}/nowhere", screen=DESK), tmp_path)
    assert report.status == 404
    assert "404" in report.warnings[0]


@pytest.mark.long
def test_a_page_that_never_ends_is_taken_with_a_warning(site: str, take: Take, tmp_path: Path) -> None:
    manifest, report = take(PageRequest(address=f"{site}/never", screen=DESK, timeouts=HASTY), tmp_path)
    assert manifest.height_px >= 800
    assert "Still loading" in report.warnings[0]
    assert "/never" in report.warnings[0]


def test_dead_hosts_are_told_apart(take: Take, tmp_path: Path, closed_port: int) -> None:
    for address, code in (
        (f"http://127.0.0.1:{closed_port}/", "page_refused"),
        ("http://no-such-host.invalid/", "page_host_unknown"),
    ):
        with pytest.raises(PageUnreachable) as refused:
            take(PageRequest(address=address, screen=DESK, timeouts=HASTY), tmp_path)
        assert refused.value.code == code
    assert not list(tmp_path.iterdir())


def test_a_file_instead_of_a_page_is_told_apart(site: str, take: Take, tmp_path: Path) -> None:
    with pytest.raises(PageError) as refused:
        take(PageRequest(address=f"{site}/sailings.csv", screen=DESK, timeouts=HASTY), tmp_path)
    assert refused.value.code == "page_is_file"


@pytest.mark.parametrize(
    ("stage", "path"),
    long_but([("scrolling", "/notices")], [("scrolling", "/notices"), ("taking", "/archive")]),
)
def test_enough_keeps_what_there_is_and_says_where_it_ends(
    stage: str, path: str, site: str, take: Take, tmp_path: Path
) -> None:
    seen: list[Progress] = []

    def stop_mode() -> StopMode:
        return "keep" if stage in [row.stage for row in seen] else "go_on"

    request = PageRequest(address=f"{site}{path}", screen=DESK)
    manifest, report = take(request, tmp_path, on_progress=seen.append, ask_stop_mode=stop_mode)
    assert 0 < manifest.height_px < 40_000
    assert report.truncated
    assert report.page_height_px == manifest.height_px
    assert report.warnings == (f"Cut off after {manifest.height_px:,} px: it was stopped there.",)
    assert strips_so_far(tmp_path) == manifest


@pytest.mark.long
def test_a_strip_that_is_told_of_can_be_looked_at(site: str, take: Take, tmp_path: Path) -> None:
    told: list[tuple[int, int]] = []

    def look(progress: Progress) -> None:
        there = strips_so_far(tmp_path)
        told.append((progress.done if progress.stage == "taking" else 0, len(there.strips) if there else 0))

    take(PageRequest(address=f"{site}/islands", screen=DESK), tmp_path, on_progress=look)
    assert max(done for done, _ in told) > 0
    assert all(done <= there for done, there in told)


def test_a_capture_that_is_stopped_gives_nothing(site: str, take: Take, tmp_path: Path) -> None:
    with pytest.raises(Stopped):
        take(PageRequest(address=f"{site}/archive", screen=DESK), tmp_path, ask_stop_mode=lambda: "stop")
