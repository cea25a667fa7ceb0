"""A page in a person's hands: used, asked, answered, taken as it stands."""

from __future__ import annotations

import json
from collections.abc import Iterator
from pathlib import Path

import numpy as np
import pytest

from tallpage.core.capture import PRESETS, FilteringProxy, PrivateHosts
from tallpage.core.capture.live import (
    Choices,
    DialogClosed,
    DialogOpened,
    Ended,
    Failed,
    Frame,
    NotTaken,
    Place,
    Pointed,
    Recorded,
    Said,
    Stuck,
    Taken,
    TakeOrder,
)
from tallpage.core.geometry import Box
from tallpage.core.picture import decode
from tests.core.capture.live_hands import Hands, hands_on, kill_browsers
from tests.core.capture.live_site import live_site


@pytest.fixture(scope="module")
def site() -> Iterator[str]:
    with live_site() as address:
        yield address


@pytest.fixture
def hands(site: str) -> Iterator[Hands]:
    with hands_on(f"{site}/") as found:
        yield found


def _steps(hands: Hands, *lines: str) -> None:
    hands.until(Recorded, lambda event: tuple(map(str, event.recording.steps)) == lines)


def _take(hands: Hands, folder: Path, **order: object) -> Taken:
    folder.mkdir()
    hands.page.take(TakeOrder(**order), folder)  # type: ignore[arg-type]
    return hands.until(Taken)


def _pixels(png: bytes) -> np.ndarray:
    raster = decode(png)
    return raster.rows(0, raster.size.height_px)


def test_what_is_done_is_noted_as_steps_and_a_password_never_is(hands: Hands) -> None:
    hands.click(100, 155)
    hands.type("auk")
    hands.rested()
    _steps(hands, 'type input[name="harbour"] = auk')
    hands.click(100, 195)
    hands.type("kettle")
    hands.rested()
    told = hands.until(Recorded, lambda event: "password" in event.recording.left_out).recording
    assert [str(step) for step in told.steps] == ['type input[name="harbour"] = auk']
    hands.click(100, 395)
    hands.type("kettle")
    hands.rested()
    hands.page.show_again()
    hands.until(Recorded, lambda event: len(event.recording.steps) == 1)
    assert "kettle" not in repr(hands.events)


@pytest.mark.long
def test_pointing_is_a_step_only_where_something_opened(hands: Hands) -> None:
    hands.point(100, 155)
    hands.rested()
    hands.point(350, 30)
    hands.rested()
    _steps(hands, "hover body > div:nth-of-type(1)")


def test_a_page_taken_whole_keeps_what_is_open_and_is_as_it_was_afterwards(
    hands: Hands, tmp_path: Path
) -> None:
    hands.point(350, 30)
    before = hands.rested()
    taken = _take(hands, tmp_path / "taken", extent="full")
    assert taken.manifest.height_px == 3400
    assert "Evening boats" in json.dumps(json.loads((tmp_path / "taken" / "map.json").read_text()))
    hands.point(350, 31)
    assert np.array_equal(_pixels(before), _pixels(hands.rested()))


def test_what_is_seen_is_taken_where_the_page_was_scrolled_to(hands: Hands, tmp_path: Path) -> None:
    hands.wheel(900)
    hands.rested()
    taken = _take(hands, tmp_path / "taken", extent="view")
    assert (taken.manifest.height_px, taken.report.top_px) == (800, 900)
    assert [step.partition(" ")[0] for step in taken.report.done_before] == ["scroll"]


@pytest.mark.long
def test_an_element_and_a_panel_are_taken_in_their_whole_length(hands: Hands, tmp_path: Path) -> None:
    hands.page.point(590, 45)
    target = hands.until(Pointed, lambda event: event.box_px is not None).target
    row = _take(hands, tmp_path / "row", extent="element", target=target)
    assert row.manifest.height_px < 60
    hands.page.point(590, 45, outer=1)
    assert hands.until(Pointed).box_px == Box(x_px=560, y_px=20, width_px=200, height_px=120)
    hands.page.point(590, 45, panel=True)
    scrolling = hands.until(Pointed).target
    panel = _take(hands, tmp_path / "panel", extent="panel", target=scrolling)
    assert panel.manifest.height_px > 200
    tall = _take(hands, tmp_path / "tall", extent="element", target=".tall")
    assert tall.manifest.height_px == 3000
    folder = tmp_path / "none"
    folder.mkdir()
    hands.page.take(TakeOrder(extent="element", target="#not-there"), folder)
    assert hands.until(NotTaken).error.code == "element_missing"


@pytest.mark.long
def test_what_the_page_asks_is_answered(hands: Hands) -> None:
    hands.click(100, 35)
    asked = hands.until(DialogOpened)
    assert (asked.kind, asked.message, asked.default) == ("prompt", "Your island?", "Auk")
    hands.page.answer(accept=True, text="Skerrin")
    hands.until(DialogClosed)
    hands.until(Place, lambda place: place.title == "Everything")
    hands.page.show_again()
    hands.until(Place, lambda place: place.title == "Skerrin")


@pytest.mark.long
def test_a_new_window_is_shown_in_its_place_and_left_again(hands: Hands) -> None:
    hands.click(100, 75)
    hands.until(Said, lambda said: "new window" in said.sentence)
    hands.until(Place, lambda place: place.title == "The other")
    hands.page.move(-1)
    hands.until(Place, lambda place: place.title == "Everything")


@pytest.mark.long
def test_windows_have_an_end(hands: Hands) -> None:
    for _ in range(5):
        hands.click(100, 75)
        hands.until(Said, lambda said: "new window" in said.sentence)
        hands.until(Place, lambda place: place.title == "The other")
        hands.until(Frame, lambda frame: frame.sharp and frame.after_input == 0)
    hands.click(100, 75)
    hands.until(Said, lambda said: "no more are shown" in said.sentence)


@pytest.mark.long
def test_a_window_that_closes_itself_shows_what_is_below(hands: Hands) -> None:
    hands.click(100, 75)
    hands.until(Place, lambda place: place.title == "The other" and not place.loading)
    hands.forget(Place)
    hands.click(100, 35)
    hands.until(Place, lambda place: place.title == "Everything")


@pytest.mark.long
def test_a_page_left_by_a_click_fails_with_nothing(hands: Hands) -> None:
    for _ in range(3):
        hands.click(100, 455)
        hands.until(Place, lambda place: place.title == "Keys" and not place.loading)
        hands.forget(Place)
        hands.page.move(-1)
        hands.until(Place, lambda place: place.title == "Everything" and not place.loading)
    assert not [event for event in hands.events if isinstance(event, Failed)]


@pytest.mark.long
def test_files_and_permissions_are_refused_with_a_word(hands: Hands) -> None:
    hands.click(100, 115)
    hands.until(Said, lambda said: "file.zip" in said.sentence)
    hands.click(100, 275)
    hands.until(Said, lambda said: "where you are" in said.sentence)


@pytest.mark.long
def test_a_list_is_told_and_chosen_from(hands: Hands) -> None:
    hands.click(100, 235)
    assert hands.until(Choices) == Choices(("Auklet", "Little Tern"), 0)
    hands.page.choose(1)
    _steps(hands, 'type select[name="ship"] = Little Tern')


@pytest.mark.long
def test_a_page_that_hangs_is_said_to_and_can_be_closed(hands: Hands) -> None:
    hands.click(100, 315)
    hands.until(Stuck)


def test_a_browser_that_is_killed_says_so(site: str) -> None:
    with hands_on(f"{site}/") as hands:
        kill_browsers()
        ended = hands.until(Ended)
        assert ended.error is not None
        assert ended.error.code == "browser_closed"


def test_an_address_that_does_not_answer_is_told_and_another_can_be_opened(hands: Hands, site: str) -> None:
    hands.page.go("http://127.0.0.1:9/")
    assert hands.until(Failed).error.code in ("page_refused", "page_failed")
    hands.page.go(f"{site}/keys")
    hands.until(Place, lambda place: place.title == "Keys")


@pytest.mark.long
def test_frames_of_a_dense_screen_are_sharp_at_rest(site: str) -> None:
    with hands_on(f"{site}/", PRESETS["phone"]) as hands:
        hands.wheel(100)
        assert _pixels(hands.rested()).shape[:2] == (844 * 3, 390 * 3)


def test_what_is_not_to_be_opened_is_not_by_a_link_either(site: str) -> None:
    with (
        FilteringProxy(PrivateHosts.parse("127.0.0.1").allows) as proxy,
        hands_on(f"{site}/", filtering_proxy=proxy) as hands,
    ):
        hands.click(100, 355)
        hands.until(Said, lambda said: "private network" in said.sentence)


@pytest.mark.long
def test_a_finger_taps_on_a_screen_that_is_touched(site: str) -> None:
    with hands_on(f"{site}/", PRESETS["phone"]) as hands:
        hands.tap(100, 75)
        hands.until(Place, lambda place: place.title == "The other")
