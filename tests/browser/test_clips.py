"""A clip, walked from a page to a file that a page plays."""

from __future__ import annotations

import io
from typing import Any

import numpy as np
import pytest
from PIL import Image
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select

from tests.browser.person import Person

pytestmark = pytest.mark.browser


def _clip(person: Person) -> Any:
    number = person.see("main[data-clip]").get_attribute("data-clip")
    return person.ask(f"/clips/{number}")


def _made(person: Person, count: int) -> Any:
    done = "[data-clip-file][data-state=done]"
    person.until(lambda _: len(person.all(done)) == count, what=f"{count} files")
    return _clip(person)["outputs"][-1]


def _hidden_by_dragging(person: Person) -> Any:
    """Hide a part of the frames in hand, have it on all of them, and choose a part that is seen and all."""
    person.click("Hide")
    person.drag("[data-pen=hide]", (40, 30), (120, 50))
    (row,) = person.until(lambda _: _clip(person)["document"]["hidden"], what="a hidden area")
    assert (row["first"], row["last"]) == (2, 11)
    person.click("On all frames")
    person.until(lambda _: _clip(person)["document"]["hidden"][0]["first"] == 0, what="all frames")
    area = _taken_up_and_moved(person)
    person.click("Part")
    person.drag("[data-pen=part]", (10, 10), (200, 100))
    box = person.until(lambda _: _clip(person)["document"]["box"], what="a part")
    assert box["width_px"] > box["height_px"] > 50
    person.click("All of it")
    person.until(lambda _: _clip(person)["document"]["box"] is None, what="all of the frames")
    return area


def _taken_up_and_moved(person: Person) -> Any:
    """A hidden area is made larger by a corner and moved by keys; a box comes and goes by keys alone."""

    def area() -> Any:
        return _clip(person)["document"]["hidden"][0]["area"]

    before = area()
    person.drag("[data-handle=se]", (5, 5), (30, 12))
    person.until(lambda _: area()["width_px"] > before["width_px"], what="wider")
    person.press(Keys.ARROW_RIGHT + Keys.ARROW_RIGHT + Keys.ARROW_DOWN)
    wanted = (before["x_px"] + 2, before["y_px"] + 1)
    person.until(lambda _: (area()["x_px"], area()["y_px"]) == wanted, what="moved by keys")
    person.click("Box")
    person.press(Keys.ESCAPE)
    person.until(lambda _: not person.all("[data-pen]"), what="no pen in hand")
    person.click("Box")
    person.click("Put it in the middle")
    person.until(lambda _: _clip(person)["document"]["marks"], what="a box")
    person.press(Keys.DELETE)
    person.until(lambda _: not _clip(person)["document"]["marks"], what="no box any more")
    return area()


@pytest.mark.long
def test_the_board_at_the_quay_becomes_a_clip_under_a_limit_that_a_page_plays(person: Person) -> None:
    person.open("/")
    person.click("a clip")
    person.type_into("[aria-label='Address of the page']", f"{person.application.site}/quay")
    person.click_on("label:nth-of-type(3) input[name=kind]")
    person.type_into("[aria-label='Seconds']", Keys.CONTROL, "a", Keys.NULL, "3")
    person.type_into("[aria-label='Element that is seen']", ".quay")
    person.click("Take clip")
    person.see("canvas[data-drawn='0']")
    person.see_text("45 frames of 45")

    person.see("[data-frame='2']").click()
    mouse = ActionChains(person.driver).key_down(Keys.SHIFT)
    mouse.click(person.see("[data-frame='5']")).key_up(Keys.SHIFT).perform()
    further = ActionChains(person.driver).key_down(Keys.SHIFT).send_keys(*[Keys.ARROW_RIGHT] * 6)
    further.key_up(Keys.SHIFT).perform()
    person.click("Drop 10 frames")
    person.see_text("35 frames of 45")
    person.see("[data-frame='5'][data-dropped='true']")
    person.click_on("[aria-labelledby=how-it-plays] label:nth-of-type(1) input")
    person.until(lambda _: _clip(person)["document"]["there_and_back"], what="there and back")
    document = _clip(person)["document"]
    assert document["dropped"] == list(range(2, 12))
    person.click("Play")
    person.until(
        lambda _: int(person.see("canvas").get_attribute("data-drawn") or 0) > 20, what="frames further on"
    )
    person.click("Pause")
    hidden = _hidden_by_dragging(person)

    Select(person.see("[aria-label='Format']")).select_by_visible_text("GIF")
    person.type_into("[aria-label='Limit of the clip, kB']", Keys.CONTROL, "a", Keys.NULL, "300")
    person.click("Make file")
    made = _made(person, 1)
    assert made["met"]
    with Image.open(io.BytesIO(person.fetch(f"/clips/files/{made['id']}/file"))) as picture:
        assert picture.n_frames == made["pictures"]  # type: ignore[attr-defined]
        scale = made["width_px"] / _clip(person)["width_px"]
        left, top = round((hidden["x_px"] + 10) * scale), round((hidden["y_px"] + 10) * scale)
        covered = np.asarray(picture.convert("RGB"))[top : top + 10, left : left + 30].astype(int)
        assert np.abs(covered - (0x1D, 0x2B, 0x2A)).max() < 24
    person.click("Show it")
    person.until(
        lambda driver: driver.execute_script(
            "const shown = document.querySelector('[data-clip-file] img'); return shown?.naturalWidth > 0"
        ),
        what="the file, played",
    )
    person.click("Compare")
    person.until(lambda _: person.all("[data-beside][data-draws]"), what="the file beside the frames")
    alike = """
        const [frames, file] = [...document.querySelectorAll("main canvas")].map((canvas) =>
          canvas.getContext("2d").getImageData(0, 0, canvas.width, canvas.height).data);
        let sum = 0;
        for (let index = 0; index < frames.length; index += 4) sum += Math.abs(frames[index] - file[index]);
        return sum / (frames.length / 4);
    """
    person.click("Play")
    person.until(
        lambda _: int(person.see("[data-beside]").get_attribute("data-draws") or 0) > 12, what="both going on"
    )
    person.click("Pause")
    person.until(lambda driver: driver.execute_script(alike) < 6, what="both at one moment")
    person.click("Stop comparing")
    person.click("Restore all")
    person.see("[data-expected]")

    Select(person.see("[aria-label='Format']")).select_by_visible_text("MP4")
    person.click("Make file")
    _made(person, 2)
    person.click("Hide it")
    person.click_on("[data-clip-file]:last-child button[aria-expanded]")
    person.until(
        lambda driver: driver.execute_script("return document.querySelector('video')?.currentTime > 0.3"),
        what="the video, played",
    )


def test_a_limit_that_cannot_be_met_says_what_would_do_and_a_clip_that_cannot_be_taken_why(
    person: Person,
) -> None:
    person.open("/clips")
    person.type_into("[aria-label='Address of the page']", "two words")
    person.click("Take clip")
    person.see_text("spaces")
    person.see("[aria-label='Address of the page']").clear()
    person.type_into("[aria-label='Address of the page']", f"{person.application.site}/quay")
    person.type_into("[aria-label='Speed, px a second']", "3000")
    person.click("Take clip")
    person.see("canvas[data-drawn]")
    Select(person.see("[aria-label='Format']")).select_by_visible_text("GIF")
    person.type_into("[aria-label='Limit of the clip, kB']", Keys.CONTROL, "a", Keys.NULL, "1")
    person.click("Make file")
    assert not _made(person, 1)["met"]
    person.see_text("would do for all")
    person.click("All clips")
    number = max(row["id"] for row in person.ask("/clips"))
    person.click_on(f"[data-clip='{number}'] button")
    person.until(lambda _: not person.all(f"[data-clip='{number}']"), what="one clip fewer")
