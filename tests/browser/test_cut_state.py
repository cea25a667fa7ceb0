"""What is done to a cut is neither lost nor said to be saved before it is."""

import pytest

from tests.browser.person import Person

TRIES = 2
pytestmark = pytest.mark.browser


def _offline(person: Person, *, offline: bool) -> None:
    person.driver.execute_cdp_cmd("Network.enable", {})
    person.driver.execute_cdp_cmd(
        "Network.emulateNetworkConditions",
        {"offline": offline, "latency": 0, "downloadThroughput": -1, "uploadThroughput": -1},
    )


def _failed_saves(person: Person, so_far: list[str]) -> list[str]:
    """What the browser says of saves that did not get through, added to what it said before."""
    so_far += [row["message"] for row in person.driver.get_log("browser") if "/api/cuts/" in row["message"]]
    return so_far


def _second_window(person: Person, picture_id: int) -> tuple[str, str]:
    """Both windows' handles; the second has the same cut open and is in hand."""
    first = person.driver.current_window_handle
    person.driver.switch_to.new_window("tab")
    person.open_bench(picture_id)
    return first, person.driver.current_window_handle


def _folds(person: Person, picture_id: int) -> list[tuple[int, int]]:
    folds = person.ask(f"/captures/{picture_id}")["cuts"][0]["document"]["frame"]["folds"]
    return [(fold["top_px"], fold["height_px"]) for fold in folds]


@pytest.mark.long
def test_what_was_done_can_be_undone_after_a_reload_and_not_in_another_cut(
    person: Person, picture_id: int
) -> None:
    person.open_bench(picture_id)
    person.type_number("height_px", 700)
    person.type_number("y_px", 50)
    person.until(lambda _: person.stored_frame(picture_id) == (0, 50, 600, 700))
    person.driver.refresh()
    person.see_frame(0, 50, 600, 700)
    assert person.button("Undo").get_attribute("title") == "Undo: upper edge typed (Ctrl+Z)"
    person.click("Undo")
    person.see_frame(0, 0, 600, 700)
    person.until(lambda _: person.stored_frame(picture_id) == (0, 0, 600, 700))
    person.driver.refresh()
    person.see_frame(0, 0, 600, 700)
    person.click("Redo")
    person.see_frame(0, 50, 600, 700)
    person.click("New cut")
    person.see_frame(0, 0, 600, 1_500)
    assert not person.button("Undo").is_enabled()


def test_two_windows_that_change_different_things_of_one_cut_both_have_their_way(
    person: Person, picture_id: int
) -> None:
    person.open_bench(picture_id)
    first, second = _second_window(person, picture_id)
    person.type_number("height_px", 900)
    person.until(lambda _: person.stored_frame(picture_id)[3] == 900)
    person.driver.switch_to.window(first)
    cut = person.ask(f"/captures/{picture_id}")["cuts"][0]
    person.press("f")
    person.drag("[data-pointer-layer]", (300, 100), (0, 100))
    person.until(lambda _: _folds(person, picture_id) == [(100, 100)])
    person.see_frame(0, 0, 600, 900)
    person.see_text("Another window changed this cut as well")
    assert person.stored_frame(picture_id) == (0, 0, 600, 900)
    assert person.ask(f"/cuts/{cut['id']}")["version"] > cut["version"]
    person.driver.switch_to.window(second)
    person.driver.close()
    person.driver.switch_to.window(first)


@pytest.mark.parametrize(
    ("choice", "chosen", "other"),
    [
        ("Keep this one", (0, 0, 500, 1_500), (0, 0, 600, 400)),
        pytest.param("Take the other", (0, 0, 600, 400), (0, 0, 500, 1_500), marks=pytest.mark.long),
    ],
)
def test_two_windows_that_change_the_same_thing_are_asked_and_neither_is_lost(
    person: Person, picture_id: int, choice: str, chosen: tuple[int, ...], other: tuple[int, ...]
) -> None:
    person.open_bench(picture_id)
    first, _ = _second_window(person, picture_id)
    person.type_number("height_px", 400)
    person.until(lambda _: person.stored_frame(picture_id)[3] == 400)
    person.driver.close()
    person.driver.switch_to.window(first)
    person.type_number("width_px", 500)
    person.see_text("Another window changed the same part of this cut")
    person.see_frame(0, 0, 500, 1_500)
    assert "600 × 400 px" in person.see("[data-other-frame]").text
    person.click(choice)
    person.see_frame(*chosen)
    person.until(lambda _: person.stored_frame(picture_id) == chosen)
    person.click("Undo")
    person.see_frame(*other)


def test_a_save_that_fails_twice_is_told_of_and_then_succeeds_by_itself(
    person: Person, picture_id: int
) -> None:
    person.open_bench(picture_id)
    person.see_saved()
    _offline(person, offline=True)
    try:
        person.type_number("height_px", 333)
        person.see_text("Not saved yet")
        person.see_text("It is kept here and tried again")
        failed: list[str] = []
        person.until(lambda _: len(_failed_saves(person, failed)) >= TRIES, what="the second try")
        person.see_text("Not saved yet")
        person.see_frame(0, 0, 600, 333)
    finally:
        _offline(person, offline=False)
    person.until(lambda _: person.stored_frame(picture_id)[3] == 333)


def test_a_page_that_is_left_in_the_middle_of_a_change_is_written(person: Person, picture_id: int) -> None:
    person.open_bench(picture_id)
    person.see_saved()
    person.type_number("height_px", 444)
    person.driver.get("about:blank")
    person.open("/")
    person.until(
        lambda _: person.ask(f"/captures/{picture_id}")["cuts"][0]["document"]["frame"]["height_px"] == 444
    )
