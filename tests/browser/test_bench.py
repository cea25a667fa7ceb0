"""Cutting on the Bench: by mouse, by keys, by numbers, always to the same pixels."""

import pytest
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.browser.person import FIELDS, Person

pytestmark = pytest.mark.browser


@pytest.mark.long
def test_a_box_is_drawn_moved_and_resized_by_mouse(person: Person, picture_id: int) -> None:
    person.open_bench(picture_id)
    person.drag("[data-pointer-layer]", (100, 120), (300, 200))
    person.see_frame(100, 120, 300, 200)
    person.drag("[data-frame]", (50, 50), (-30, 25))
    person.see_frame(70, 145, 300, 200)
    person.drag("[data-handle='1,1']", (10, 10), (-40, 60))
    person.see_frame(70, 145, 260, 260)
    person.drag("[data-handle='-1,0']", (8, 100), (15, 0))
    person.see_frame(85, 145, 245, 260)
    person.until(lambda _: person.stored_frame(picture_id) == (85, 145, 245, 260))


@pytest.mark.long
def test_a_band_is_folded_away_changed_and_unfolded(person: Person, picture_id: int) -> None:
    def folds() -> list[tuple[int, int]]:
        person.see_saved()
        frame = person.ask(f"/captures/{picture_id}")["cuts"][0]["document"]["frame"]
        return [(fold["top_px"], fold["height_px"]) for fold in frame["folds"]]

    person.open_bench(picture_id)
    person.click("Fold")
    person.drag("[data-pointer-layer]", (100, 120), (40, 200))
    person.see("[data-fold='0']")
    person.until(lambda _: folds() == [(120, 200)])
    height = person.see("[aria-label='Height of fold 1 in px']")
    height.send_keys(Keys.CONTROL, "a")
    height.send_keys("300", Keys.ENTER)
    person.until(lambda _: folds() == [(120, 300)])
    person.type_into("[aria-label='Lower edge of fold 1']", Keys.SHIFT, Keys.ARROW_UP)
    person.until(lambda _: folds() == [(120, 290)])
    person.type_into("[placeholder='720']", "600")
    person.type_into("[placeholder='90']", "40", Keys.ENTER)
    person.until(lambda _: "600 × 1,210" in person.see("[data-output]").text, what="the folded file")
    person.click("Unfold 290 px")
    person.until(lambda _: folds() == [])
    person.until(lambda _: "600 × 1,500" in person.see("[data-output]").text, what="the file follows")
    person.click("Undo")
    person.until(lambda _: folds() == [(120, 290)])


def test_drag_keys_and_typing_come_to_the_same_pixels(person: Person, picture_id: int) -> None:
    wanted = (101, 130, 300, 201)
    person.open_bench(picture_id)
    person.drag("[data-pointer-layer]", (101, 130), (300, 201))
    person.see_frame(*wanted)

    person.click("Whole page")
    for name, value in zip(("width_px", "height_px", "x_px", "y_px"), (300, 201, 101, 130), strict=True):
        person.type_number(name, value)
    person.see_frame(*wanted)

    for name, value in zip(FIELDS, (100, 120, 298, 200), strict=True):
        person.type_number(name, value)
    person.driver.execute_script("arguments[0].focus()", person.see("[aria-label='The page']"))
    person.press(Keys.ARROW_RIGHT)
    ActionChains(person.driver).key_down(Keys.SHIFT).send_keys(Keys.ARROW_DOWN).key_up(Keys.SHIFT).perform()
    alt = ActionChains(person.driver).key_down(Keys.ALT)
    alt.send_keys(Keys.ARROW_RIGHT, Keys.ARROW_RIGHT, Keys.ARROW_DOWN).key_up(Keys.ALT).perform()
    person.see_frame(*wanted)
    person.until(lambda _: person.stored_frame(picture_id) == wanted)


@pytest.mark.long
def test_an_impossible_number_is_refused_with_what_is_possible(person: Person, picture_id: int) -> None:
    person.open_bench(picture_id)
    person.type_number("width_px", 601)
    assert "1 to 600 px" in person.see("[role=alert]").text
    person.type_number("width_px", 10_000_000)
    person.type_into("[data-field=width_px]", Keys.ESCAPE)
    assert person.frame() == (0, 0, 600, 1_500)


@pytest.mark.long
def test_undo_and_redo_walk_through_what_was_done(person: Person, picture_id: int) -> None:
    person.open_bench(picture_id)
    person.type_number("height_px", 700)
    person.type_number("y_px", 50)
    person.click("Undo")
    assert person.frame() == (0, 0, 600, 700)
    person.click("Undo")
    assert person.frame() == (0, 0, 600, 1_500)
    person.click("Redo")
    person.click("Redo")
    assert person.frame() == (0, 50, 600, 700)
    person.until(lambda _: person.stored_frame(picture_id) == (0, 50, 600, 700))


@pytest.mark.long
def test_a_second_cut_leaves_the_first_as_it_is(person: Person, picture_id: int) -> None:
    person.open_bench(picture_id)
    person.type_number("height_px", 300)
    person.until(lambda _: person.stored_frame(picture_id)[3] == 300)
    person.click("New cut")
    person.see_frame(0, 0, 600, 1_500)
    person.click("Cut 1")
    person.see_frame(0, 0, 600, 300)


@pytest.mark.long
def test_a_page_over_40_000_px_keeps_only_what_is_seen(person: Person) -> None:
    capture_id = person.stored("/archive")
    capture = person.ask(f"/captures/{capture_id}")
    assert capture["height_px"] > 40_000
    person.open_bench(capture_id)
    view = person.see("[aria-label='The page']")
    for share in (0.0, 0.5, 1.0):
        script = "arguments[0].scrollTop = arguments[1] * arguments[0].scrollHeight"
        person.driver.execute_script(script, view, share)
        person.until(lambda _: _seen_strips_loaded(person))
        strips = person.all("[data-strip]")
        assert 1 <= len(strips) <= 6 < len(capture["strips"])


def _seen_strips_loaded(person: Person) -> bool:
    pictures = person.all("[data-strip]")
    return bool(pictures) and all(row.get_property("naturalWidth") for row in pictures)


@pytest.mark.long
def test_the_spine_takes_one_to_any_place(person: Person, picture_id: int) -> None:
    person.open_bench(picture_id)
    view = person.see("[aria-label='The page']")
    spine = person.see("[data-spine]")
    near_the_end = int(spine.rect["height"] / 2) - 3
    ActionChains(person.driver).move_to_element_with_offset(spine, 0, near_the_end).click().perform()
    person.until(lambda _: view.get_property("scrollTop") > 500)


@pytest.mark.long
def test_what_is_deleted_elsewhere_is_said_to_be_gone(person: Person) -> None:
    person.open("/captures/999999")
    assert "not here any more" in person.see("[role=alert]").text
    assert str(person.button("Go to the shelf").get_attribute("href")).endswith("/shelf")


def test_blocks_light_up_and_are_framed_by_a_click_and_clicked_again_go_outwards(person: Person) -> None:
    capture_id = person.stored("/timetable")
    person.open_bench(capture_id)
    blocks = person.ask(f"/captures/{capture_id}/map")
    heading = next(row for row in blocks if row["role"] == "heading")
    assert heading["text"] == "Winter timetable"
    layer = person.see("[data-pointer-layer]")

    def lights_up(_: object) -> bool:
        # The page may still find its place on the screen: the pointer goes where the heading is now.
        page = layer.rect
        zoom = page["width"] / 1_280
        mouse = ActionChains(person.driver)
        mouse.w3c_actions.pointer_action.move_to_location(
            round(page["x"] + (heading["x_px"] + 30) * zoom),
            round(page["y"] + (heading["y_px"] + heading["height_px"] / 2) * zoom),
        )
        mouse.perform()
        lit = person.driver.find_elements(By.CSS_SELECTOR, "[data-block=heading]")
        return bool(lit) and "Winter timetable" in lit[0].text

    person.until(lights_up, what="the heading lights up")
    around = [row for row in blocks if row["role"] == "section" and row["width_px"] < 1_280]
    for wanted in (heading, around[0]):
        click = ActionChains(person.driver)
        click.w3c_actions.pointer_action.click()
        click.perform()
        person.see_frame(*(wanted[name] for name in FIELDS))


@pytest.mark.long
def test_a_key_that_is_held_makes_one_cut(person: Person) -> None:
    capture_id = person.stored("/departures")
    person.open_bench(capture_id)
    key = {"key": "n", "code": "KeyN", "windowsVirtualKeyCode": 78, "text": "n"}
    person.driver.execute_cdp_cmd("Input.dispatchKeyEvent", {"type": "keyDown", **key})
    for _ in range(10):
        repeated = {"type": "keyDown", "autoRepeat": True, **key}
        person.driver.execute_cdp_cmd("Input.dispatchKeyEvent", repeated)
    person.until(lambda driver: "/cuts/" in driver.current_url)
    for _ in range(10):
        person.driver.execute_cdp_cmd("Input.dispatchKeyEvent", repeated)
    person.driver.execute_cdp_cmd("Input.dispatchKeyEvent", {"type": "keyUp", **key})
    person.see_saved()
    assert len(person.ask(f"/captures/{capture_id}")["cuts"]) == 2


@pytest.mark.long
def test_a_knob_stays_in_hand_while_its_file_is_made_and_the_file_is_announced(person: Person) -> None:
    capture_id = person.stored("/")
    person.open_bench(capture_id)
    person.add_slot("Thumb")
    person.see("[data-output][data-state=done]")
    announced = person.driver.find_element(By.CSS_SELECTOR, "[data-finished]")
    person.until(lambda _: "is made" in (announced.get_attribute("textContent") or ""))
    cut_id = person.ask(f"/captures/{capture_id}")["cuts"][0]["id"]
    (before,) = person.ask(f"/cuts/{cut_id}/outputs")
    person.type_into("[aria-label=Quality]", Keys.ARROW_LEFT)
    person.until(lambda _: person.ask(f"/cuts/{cut_id}/outputs")[0]["file_key"] != before["file_key"])
    person.see("[data-output][data-state=done]")
    in_hand = "return document.activeElement.getAttribute('aria-label')"
    assert person.driver.execute_script(in_hand) == "Quality"
    person.press(Keys.ARROW_LEFT)
    person.until(
        lambda _: (
            person.ask(f"/cuts/{cut_id}/outputs")[0]["made_choice"]["quality"]
            == before["made_choice"]["quality"] - 2
        )
    )


@pytest.mark.long
def test_a_fold_is_saved_when_it_is_let_go_and_joins_its_neighbour_only_then(person: Person) -> None:
    capture_id = person.stored("/departures")
    person.open_bench(capture_id)
    cut_id = person.ask(f"/captures/{capture_id}")["cuts"][0]["id"]
    folds = [{"top_px": 100, "height_px": 60}, {"top_px": 300, "height_px": 60}]
    cut = person.ask(f"/cuts/{cut_id}")
    frame = {**cut["document"]["frame"], "folds": folds}
    person.change("PATCH", f"/cuts/{cut_id}", {"version": cut["version"], "document": {"frame": frame}})
    person.open_bench(capture_id)
    version = person.ask(f"/cuts/{cut_id}")["version"]
    edge = person.see("[aria-label='Lower edge of fold 1']")
    hand = ActionChains(person.driver).click_and_hold(edge)
    for _ in range(6):
        hand = hand.move_by_offset(0, 20).pause(0.4)  # longer than a change waits to be saved
    hand.move_by_offset(0, -100).release().perform()
    person.until(lambda _: person.ask(f"/cuts/{cut_id}")["document"]["frame"]["folds"] != folds)
    person.see_saved()
    assert person.ask(f"/cuts/{cut_id}")["version"] == version + 1, "nothing is saved on the way"
    first, second = person.ask(f"/cuts/{cut_id}")["document"]["frame"]["folds"]
    assert second == folds[1]
    assert 160 < first["top_px"] + first["height_px"] < 250
