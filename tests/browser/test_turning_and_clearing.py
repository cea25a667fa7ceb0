"""A dropped scan straightened, by itself and by a line; a background cleared, as the files have it."""

import io
from typing import Any

import numpy as np
import pytest
from PIL import Image, ImageDraw
from selenium.webdriver.common.action_chains import ActionChains

from tests.browser.person import Person
from tests.pictures import Pixels, text_page

pytestmark = pytest.mark.browser

PAGE = "[data-pointer-layer]"
PAPER = "#f2f1ec"


@pytest.fixture
def scan_id(person: Person) -> int:
    """A page of text that was scanned 3 degrees out of level, with a long rule."""
    page = Image.fromarray(text_page(600, 800))
    ImageDraw.Draw(page).rectangle((100, 60, 500, 63), fill="#202020")
    turned = page.rotate(-3, Image.Resampling.BICUBIC, fillcolor=PAPER)
    return person.picture(np.asarray(turned))


@pytest.mark.long
def test_a_scan_is_straightened_by_itself_and_by_a_line(person: Person, scan_id: int) -> None:
    person.open_bench(scan_id)
    person.open_panel("Turn the page")
    person.click("Straighten")
    person.until(lambda _: person.frame() != (0, 0, 600, 800), what="a larger page")
    orientation = person.document(scan_id)["orientation"]
    assert orientation["angle_deg"] == pytest.approx(-3, abs=0.2)
    assert person.stored_frame(scan_id) == person.frame(), "the frame goes along with the page"
    person.click("Straighten")
    person.see_text("The page is level as far as its lines say.")
    person.close_panels()
    person.click("Undo")
    person.see_frame(0, 0, 600, 800)
    person.open_panel("Turn the page")
    person.click("By a line")
    person.close_panels()
    # Along the rule, which goes 21 px down from its left to its right end.
    person.drag(PAGE, (88, 53), (399, 21))
    person.until(lambda _: person.frame() != (0, 0, 600, 800), what="a larger page")
    assert person.document(scan_id)["orientation"]["angle_deg"] == pytest.approx(-3, abs=0.3)
    person.open_panel("Turn the page")
    person.click("90° to the right")
    person.until(lambda _: person.frame()[2] > person.frame()[3], what="a page that lies")
    person.click("As it was taken")
    person.see_frame(0, 0, 600, 800)


def _sign(ground: tuple[int, int, int]) -> Pixels:
    big = Image.new("RGB", (2_400, 1_600), ground)
    draw = ImageDraw.Draw(big)
    draw.ellipse((200, 200, 1_300, 1_300), fill=(20, 40, 90))
    draw.ellipse((500, 500, 1_000, 1_000), fill=ground)
    return np.asarray(big.resize((600, 400), Image.Resampling.BOX))


def _press_at(person: Person, x: int, y: int) -> None:
    page = person.see(PAGE)
    left, top = x - page.rect["width"] / 2, y - page.rect["height"] / 2
    ActionChains(person.driver).move_to_element_with_offset(page, round(left), round(top)).click().perform()


def _file(person: Person, cut: int, extension: str) -> Any:
    rules = {"width_px": 600, "limit_bytes": 2_000_000, "formats": [extension]}
    row = person.change("POST", f"/cuts/{cut}/outputs", {"rules": rules})["id"]
    person.until(lambda _: person.ask(f"/cuts/{cut}/outputs")[-1]["job"]["state"] == "done", what="the file")
    return np.asarray(Image.open(io.BytesIO(person.fetch(f"/outputs/{row}/file"))).convert("RGBA"))


def test_a_background_is_cleared_and_lies_on_any_ground(person: Person) -> None:
    sign_id = person.picture(_sign((255, 255, 255)))
    person.open_bench(sign_id)
    person.open_panel("Clear a colour")
    person.click("Press a colour on the page")
    person.close_panels()
    _press_at(person, 560, 380)
    person.until(lambda _: "cleared" in person.document(sign_id), what="a colour cleared")
    person.open_panel("Clear a colour")
    person.click_on("[role=dialog] li input[type=checkbox]")
    person.see_text("Everywhere on the page.")
    person.click("Put a spot back")
    person.close_panels()
    _press_at(person, 187, 187)
    person.until(lambda _: "put_back" in person.document(sign_id)["cleared"], what="a spot put back")
    cut = person.ask(f"/captures/{sign_id}")["cuts"][0]["id"]
    for extension, most in (("png", 16), ("webp", 40)):
        pixels = _file(person, cut, extension).astype(float)
        assert pixels[5, 5, 3] == 0
        assert pixels[187, 187].tolist() == [255, 255, 255, 255]
        share = pixels[:, :, 3:] / 255
        for ground in ((0, 0, 0), (200, 30, 160)):
            laid = pixels[:, :, :3] * share + np.array(ground) * (1 - share)
            expected = _sign(ground).astype(float)
            expected[120:255, 120:255] = _sign((255, 255, 255))[120:255, 120:255]
            assert np.quantile(np.abs(laid - expected), 0.995) <= most
    jpeg = _file(person, cut, "jpeg")
    assert jpeg[5, 5].tolist() == [255, 255, 255, 255], "a place that takes no transparency gets a ground"
