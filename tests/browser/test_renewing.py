"""A page is taken again after its next edition, and its marks are where they belong, or asked about."""

from __future__ import annotations

from typing import Any

import pytest
from selenium.webdriver.support.ui import Select

from tallpage.demo.site_server import DemoSite
from tests.browser.person import Person

pytestmark = pytest.mark.browser


def _block(blocks: list[dict[str, Any]], words: str) -> dict[str, Any]:
    """The innermost block that says these words."""
    return min((row for row in blocks if words in row["text"]), key=lambda row: len(row["text"]))


def _badge(id_: str, block: dict[str, Any]) -> dict[str, Any]:
    return {"kind": "badge", "id": id_, "x_px": block["x_px"] + 20, "y_px": block["y_px"] + 10}


def _pointed(person: Person, capture_id: int) -> dict[str, Any]:
    """The capture's cut with numbers on three things, and a file asked for."""
    cut = person.ask(f"/captures/{capture_id}")["cuts"][0]
    blocks = person.ask(f"/captures/{capture_id}/map")
    fares, moved, gone = (_block(blocks, words) for words in ("under sixteen", "New ramp at Ailsay", "5.60"))
    marks = [_badge("fares", fares), _badge("moved", moved), _badge("gone", gone)]
    rules = {"width_px": 320, "limit_bytes": 60_000, "formats": ["jpeg"]}
    document = {**cut["document"], "marks": marks}
    person.change("PATCH", f"/cuts/{cut['id']}", {"version": cut["version"], "document": document})
    person.change("POST", f"/cuts/{cut['id']}/outputs", {"rules": rules})
    return {row["id"]: row for row in marks}


def test_a_page_is_taken_again_and_what_is_in_doubt_is_looked_at(person: Person, own_site: DemoSite) -> None:
    first = person.take(f"http://127.0.0.1:{own_site.server_port}/")
    before = _pointed(person, first)
    own_site.edition = 2
    person.open_bench(first)
    person.click("Report")
    person.click("Take again, the same way")
    second = person.see_taken(first, what="the page taken again")
    (cut,) = person.ask(f"/captures/{second}")["cuts"]
    now = {row["id"]: row for row in cut["document"]["marks"]}
    blocks = person.ask(f"/captures/{second}/map")
    for name, words in (("fares", "under sixteen"), ("moved", "New ramp at Ailsay")):
        block = _block(blocks, words)
        assert (now[name]["x_px"], now[name]["y_px"]) == (block["x_px"] + 20, block["y_px"] + 10)
        assert now[name]["y_px"] != before[name]["y_px"]
    assert "gone" not in now

    person.open_bench(second)
    person.see("[data-review] [data-review-state=lost]")
    person.see_text("1 needs a look")
    assert not person.all("[data-output]"), "no file is made while something is in doubt"
    person.until(lambda _: person.see("[data-review] img").get_property("naturalWidth"), what="how it was")
    person.click("Put it here")
    person.see_text("Nothing is in doubt.")
    person.see("[data-output]")
    person.see_saved()
    marks = person.ask(f"/cuts/{cut['id']}")["document"]["marks"]
    assert [row["id"] for row in marks] == ["fares", "moved", "gone"]
    person.see("[data-review] [data-review-state=resized]")  # the frame: the page is longer now
    person.press("j")
    person.see("[data-review] [data-review-state=moved]")
    person.click("Close the review")
    person.until(lambda _: not person.all("[data-review]"), what="the review gone")
    person.see("[data-output][data-state=done]")


def test_a_cut_is_carried_over_to_another_capture(person: Person, own_site: DemoSite) -> None:
    site = f"http://127.0.0.1:{own_site.server_port}/"
    first, second = person.take(site), person.take(site)
    _pointed(person, first)
    person.open_bench(first)
    person.open_panel("Carry Cut 1 over to another capture")
    person.until(lambda _: person.all(f"option[value='{second}']"), what="the other capture")
    # The list may be drawn anew just then: it is found again.
    person.until(
        lambda _: Select(person.see("[role=dialog] select")).select_by_value(str(second)) or True,
        what="the other capture, chosen",
    )
    person.click("Carry Cut 1 over")
    person.until(lambda driver: f"/captures/{second}/cuts/" in driver.current_url, what="the other page")
    person.see_text("Nothing is in doubt.")
    assert {row["state"] for row in person.ask(f"/captures/{second}")["cuts"][-1]["review"]} == {"same"}
