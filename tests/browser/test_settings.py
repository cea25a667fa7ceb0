"""Settings: changed, kept over a restart, in force where they say, and gone back from."""

from __future__ import annotations

import urllib.request
from pathlib import Path

import pytest

from tests.browser.person import Person
from tests.browser.stack import open_window, running_application

pytestmark = pytest.mark.browser

_ROW = "[data-setting='{}']"


def _set(person: Person, name: str, control: str) -> None:
    """Press something of a setting's row, and see that it is saved."""
    person.click_on(f"{_ROW.format(name)} {control}")
    person.until(lambda _: "Saved" in person.see(_ROW.format(name)).text, what=f"{name}, saved")


def _is_told(board: str, words: str) -> bool:
    with urllib.request.urlopen(board, timeout=20) as answer:
        return words in answer.read().decode()


@pytest.mark.long
def test_settings_are_changed_and_kept_over_a_restart(photographs: Path, tmp_path: Path) -> None:
    home = tmp_path / "home"
    home.mkdir()
    with running_application(home, photographs) as first, open_window() as window:
        person = Person(window, first, tmp_path)
        person.open("/")
        person.click_on("[aria-label='Settings']")
        person.type_into("[aria-label='Find a setting']", "kib")
        person.until(lambda _: len(person.all("[data-setting]")) == 1, what="the one setting of sizes")
        _set(person, "show.units", "label:nth-of-type(2) input")
        person.see("[aria-label='Find a setting']").clear()
        person.type_into("[aria-label='Find a setting']", "happens")
        _set(person, "after.what", "label:nth-of-type(2) input")
        person.open("/")
        person.open_how_to_take()
        person.click_on("[name=scheme]:not(:checked)")
        person.click("Keep for all pages")
        person.until(lambda _: not person.all("[data-keep-taking]"), what="nothing special any more")
        capture_id = person.take("/planning")
        person.until(lambda _: _is_told(first.board, f"/captures/{capture_id}"), what="the notice of it")
    with running_application(home, photographs) as second, open_window() as window:
        person = Person(window, second, tmp_path)
        person.open("/settings")
        person.see_text("dark colours")
        person.open("/")
        person.see("[data-address-field]")
        person.type_into("[data-address-field]", f"{second.site}/departures\n")
        person.see("[data-frame]")  # its Bench has opened by itself
        capture = person.ask(f"/captures/{person.newest_capture()}")
        assert capture["settings"]["scheme"] == "dark"
        person.add_slot("Thumb")
        person.until(lambda _: "KiB" in person.see("[data-output][data-state=done]").text, what="KiB")
        person.open("/settings")
        person.click("As usual: kB")
        person.until(lambda _: "show.units" not in person.ask("/settings/file")["own"], what="kB again")


@pytest.mark.long
def test_a_host_is_taken_otherwise_and_tokens_and_webhooks_are_made(person: Person) -> None:
    host = person.application.site.removeprefix("http://")
    person.open("/settings")
    person.type_into("[aria-label='Another host']", host, "\n")
    person.click(f"Change: {host}")
    person.type_into(f"[data-host='{host}'] [aria-label='Seconds to wait']", "0.3")
    person.click("Keep")
    person.until(lambda _: "wait 0.3 s" in person.see(f"[data-host='{host}']").text, what="how it is taken")
    capture = person.ask(f"/captures/{person.take('/planning')}")
    assert capture["settings"]["wait_ms"] == 300
    person.open("/settings")
    person.click(f"Take pages of {host} as usual")
    person.until(lambda _: not person.all("[data-host]"), what="no host")

    person.type_into("[aria-label='Name of the new account']", "night-desk")
    person.click("Add account")
    person.see_text("The password of night-desk")
    panel = person.open_panel("Make a token for night-desk")
    panel.find_element("css selector", "input").send_keys("pictures\n")
    person.until(lambda _: person.see("[data-secret]").text.startswith("The token"), what="the token")
    secret = person.see("[data-secret] code").text
    request = urllib.request.Request(
        f"{person.application.address}/api/me", headers={"Authorization": f"Bearer {secret}"}
    )
    with urllib.request.urlopen(request, timeout=20) as answer:
        assert b"night-desk" in answer.read()
    person.close_panels()

    person.type_into("[aria-label='Address of the programme']", "http://127.0.0.1:9/nobody\n")
    hook = "[data-webhook='http://127.0.0.1:9/nobody']"
    person.see(hook)
    person.click_on(f"{hook} button")
    person.until(lambda _: person.all(f"{hook} details"), what="a message on its way")
    person.click_on(f"{hook} summary")
    person.until(lambda _: "is tried again" in person.see(f"{hook} details").text, what="what became of it")
    person.click("Remove http://127.0.0.1:9/nobody")
    person.until(lambda _: not person.all(hook), what="no such address")
