"""Everything of a kind that a page says is hidden at once, and is in nothing that leaves the application."""

from __future__ import annotations

from collections.abc import Iterable

import numpy as np
import pytest

from tests.browser.person import Person
from tests.pictures import Pixels, decoded

pytestmark = pytest.mark.browser
INK = (0x1D, 0x2B, 0x2A)


def _all_ink(pixels: Pixels, boxes: Iterable[dict[str, int]], *, inset_px: int, off: int) -> bool:
    """Whether nothing but the hiding colour is to be seen in any of the boxes.

    Where the encoding is lossy, their edges mix with what lies beside them.
    """
    for box in boxes:
        rows = slice(box["y_px"] + inset_px, box["y_px"] + box["height_px"] - inset_px)
        columns = slice(box["x_px"] + inset_px, box["x_px"] + box["width_px"] - inset_px)
        inside = pixels[rows, columns, :3].astype(int)
        if inside.size == 0 or np.abs(inside - INK).max() > off:
            return False
    return True


def test_every_e_mail_address_of_a_page_is_hidden(person: Person) -> None:
    capture_id = person.stored("/offices")
    person.open_bench(capture_id)
    person.click("Hide")
    panel = person.open_panel("Hide by words")
    person.click("E-mail addresses")
    person.see("[data-found='7']")
    assert "lost@skerrin-ferries.example" in panel.text
    person.click("Hide all 7")
    person.see_saved()
    (cut,) = person.ask(f"/captures/{capture_id}")["cuts"]
    hidden = cut["document"]["hidden"]
    assert len(hidden) >= 7, "an address that is broken over two lines has two"
    assert {row["found_by"] for row in hidden} == {cut["document"]["sought"][0]["id"]}

    capture = person.ask(f"/captures/{capture_id}")
    height_px = min(2_000, capture["height_px"])
    query = f"x_px=0&y_px=0&width_px={capture['width_px']}&height_px={height_px}"
    view = decoded(person.fetch(f"/cuts/{cut['id']}/piece?{query}"))
    assert _all_ink(view, hidden, inset_px=5, off=30)
    rules = {"way": "share", "width_px": 0, "percent": 100, "limit_bytes": 2_000_000, "formats": ["png"]}
    made = person.change("POST", f"/cuts/{cut['id']}/outputs", {"rules": rules})
    assert "id" in made, made
    person.open_bench(capture_id)
    person.see("[data-output][data-state=done]")
    (output,) = person.ask(f"/cuts/{cut['id']}/outputs")
    assert _all_ink(decoded(person.fetch(f"/outputs/{output['id']}/file")), hidden, inset_px=0, off=6)
    person.click("Hide")
    person.open_panel("Hide by words")
    person.click_on("[aria-label='Show again: E-mail addresses']")
    person.see_saved()
    person.until(lambda _: not person.ask(f"/cuts/{cut['id']}")["document"]["hidden"], what="shown again")
