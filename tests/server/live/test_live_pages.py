"""Live pages over their socket: used, taken, kept, found again, closed; and who may have one."""

from __future__ import annotations

import time
from typing import Any

import pytest
from django.contrib.auth.models import User

from tallpage.server.live import visits
from tallpage.server.live.visits import VISITS
from tallpage.server.people import accounts
from tallpage.server.people.roles import Role
from tallpage.server.shelf.models import Capture
from tallpage.server.signins.keeping import sign_in_for
from tallpage.server.signins.models import SavedSignIn
from tests.core.capture.live_hands import kill_browsers
from tests.server.conftest import Api
from tests.server.live.tabs import DESK, Tab, in_tabs
from tests.server.people.conftest import signed_in

pytestmark = pytest.mark.django_db(transaction=True)


def test_a_page_is_used_and_taken_and_its_steps_are_kept_with_it(api: Api, site: str) -> None:
    async def story() -> None:
        tab = await Tab().connect()
        assert (await tab.until("hello"))["open"] is None
        await tab.open(f"{site}/planning")
        await tab.send(kind="pointer", number=1, act="move", x_px=300, y_px=285)
        await tab.until("steps", lambda told: len(told["steps"]) == 1)
        await tab.send(kind="take", extent="full")
        taken = await tab.until("taken")
        assert taken["width_px"] == 1280
        await tab.leave()

    in_tabs(story)
    capture = Capture.objects.get()
    told = api.get(f"/captures/{capture.pk}")
    assert told["job"]["state"] == "done"
    assert [step["kind"] for step in told["settings"]["steps"]] == ["hover"]
    assert told["settings"]["fixed_overlays"] == "keep"
    assert "Fish market morning" in str(api.get(f"/captures/{capture.pk}/map"))
    assert capture.cuts.count() == 1


@pytest.mark.long
def test_an_area_is_the_first_cut_of_what_was_seen(api: Api, site: str) -> None:
    async def story() -> None:
        tab = await Tab().connect()
        await tab.open(f"{site}/", {**DESK, "scale": 2})
        area = {"x_px": 100, "y_px": 50, "width_px": 300, "height_px": 200}
        await tab.send(kind="take", extent="view", area=area)
        await tab.until("taken")
        await tab.leave()

    in_tabs(story)
    capture = Capture.objects.get()
    assert (capture.width_px, capture.height_px) == (2560, 1600)
    frame = capture.cuts.get().document["frame"]
    assert [frame[name] for name in ("x_px", "y_px", "width_px", "height_px")] == [200, 100, 600, 400]


@pytest.mark.long
def test_a_sign_in_is_kept_sealed_and_pages_are_taken_with_it(site: str) -> None:
    async def story() -> None:
        tab = await Tab().connect()
        await tab.open(f"{site}/sign-in")
        await tab.send(kind="keep_sign_in")
        assert "nothing to be signed in by" in (await tab.until("failed"))["sentence"]
        await tab.click(1, 400, 280)
        await tab.send(kind="text", number=3, text="Ola")
        await tab.press(4, "Tab", 9)
        await tab.send(kind="text", number=5, text="kettle")
        await tab.press(6, "Enter", 13, "\r")
        await tab.until("place", lambda told: told["address"].endswith("/crew") and not told["loading"])
        await tab.send(kind="keep_sign_in")
        await tab.until("sign_in_kept")
        await tab.leave()

    in_tabs(story)
    saved = SavedSignIn.objects.get()
    assert b"kettle" not in bytes(saved.sealed)
    assert sign_in_for(f"{site}/crew") is not None


def test_a_socket_that_was_cut_finds_its_page_as_it_was(site: str) -> None:
    async def story() -> None:
        tab = await Tab().connect()
        await tab.open(f"{site}/planning")
        await tab.send(kind="pointer", number=1, act="move", x_px=300, y_px=285)
        await tab.until("steps", lambda told: len(told["steps"]) == 1)
        await tab.leave()
        again = await Tab().connect()
        assert (await again.until("hello"))["open"] == {"address": f"{site}/planning", "screen": DESK}
        assert len((await again.until("steps"))["steps"]) == 1
        await again.until_frame()
        await again.leave()

    in_tabs(story)


def test_a_page_goes_on_in_the_tab_that_came_last(site: str) -> None:
    async def story() -> None:
        first = await Tab().connect()
        await first.open(f"{site}/")
        second = await Tab().connect()
        assert await first.until_closed() == 4_409
        await second.until_frame()
        await second.leave()

    in_tabs(story)


@pytest.mark.long
def test_another_screen_is_another_page_and_the_same_one_opens_again(site: str) -> None:
    async def story() -> None:
        tab = await Tab().connect()
        await tab.open(f"{site}/planning")
        phone = {"width_px": 390, "height_px": 844, "scale": 3, "touch": True}
        await tab.open(f"{site}/planning", phone)
        await tab.until_frame()
        visit = VISITS.of("")
        assert visit is not None
        assert visit.asked.screen.width_px == 390
        await tab.send(kind="open_again")
        await tab.until("place", lambda told: not told["loading"])
        await tab.until_frame()
        assert VISITS.of("") is not visit
        assert "ended" not in tab.heard
        await tab.leave()

    in_tabs(story)


def test_a_browser_that_is_killed_says_so_and_opens_again_at_the_address(site: str) -> None:
    async def story() -> None:
        tab = await Tab().connect()
        await tab.open(f"{site}/planning")
        kill_browsers()
        assert "ended" in (await tab.until("ended"))["sentence"]
        await tab.open(f"{site}/planning")
        await tab.until_frame()
        await tab.leave()

    in_tabs(story)


class _Clock:
    """The time of a process, which can be put on."""

    def __init__(self) -> None:
        self.ahead_s = 0.0

    def monotonic(self) -> float:
        return time.monotonic() + self.ahead_s


@pytest.mark.long
def test_a_page_that_nobody_uses_is_closed_after_a_warning(
    site: str, monkeypatch: pytest.MonkeyPatch
) -> None:
    clock = _Clock()
    monkeypatch.setattr(visits, "time", clock)
    monkeypatch.setattr(visits, "_LOOK_S", 0.1)
    until_warning_s = visits.IDLE_S - visits.WARNING_S + 1

    async def story() -> None:
        tab = await Tab().connect()
        await tab.open(f"{site}/")
        for _ in range(2):
            await tab.send(kind="stay")
            await tab.send(kind="point", x_px=5, y_px=5)
            await tab.until("pointed")  # by then the page has been used
            clock.ahead_s += until_warning_s
            assert (await tab.until("idle"))["closes_in_s"] == visits.WARNING_S
        visit = VISITS.of("")
        assert visit is not None
        clock.ahead_s += visits.WARNING_S
        assert "nobody used it" in (await tab.until("ended"))["sentence"]
        await visit.ended.wait()
        assert VISITS.of("") is None
        await tab.leave()

    in_tabs(story)


@pytest.mark.long
def test_a_page_whose_person_is_gone_is_closed(site: str, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(visits, "ALONE_S", 0.5)
    monkeypatch.setattr(visits, "_LOOK_S", 0.1)

    async def story() -> None:
        tab = await Tab().connect()
        await tab.open(f"{site}/")
        visit = VISITS.of("")
        assert visit is not None
        await tab.leave()
        await visit.ended.wait()
        assert VISITS.of("") is None

    in_tabs(story)


def test_what_cannot_be_opened_is_told_and_nothing_is_left_open(settings: Any, site: str) -> None:
    settings.LIVE_PAGES = 1

    async def story() -> None:
        tab = await Tab().connect()
        for address, word in (("file:///etc/passwd", "never opened"), ("", "no address"), ("a b", "spaces")):
            await tab.send(kind="open", address=address)
            told = await tab.until("failed")
            assert word in told["sentence"]
            assert not told["open"]
        await tab.send_raw("{")
        assert "JSON" in (await tab.until("failed"))["sentence"]
        await tab.send(kind="pointer", number=1, act="move", x_px=1e9, y_px=0)
        assert "x_px" in (await tab.until("failed"))["sentence"]
        await tab.send(kind="take", extent="full")
        assert (await tab.until("failed"))["code"] == "page_closed"
        await tab.open(f"{site}/")  # one more can be opened: those did not count
        await tab.leave()

    in_tabs(story)


def test_a_private_page_is_not_opened_where_that_is_not_allowed(settings: Any, site: str) -> None:
    settings.ALLOW_PRIVATE = False

    async def story() -> None:
        tab = await Tab().connect()
        await tab.send(kind="open", address=site)
        assert (await tab.until("failed"))["code"] == "address_private"
        assert VISITS.of("") is None
        await tab.leave()

    in_tabs(story)


@pytest.mark.parametrize(
    ("origin", "host"),
    [
        ("http://elsewhere.example", "localhost:8600"),
        ("http://localhost:8610", "localhost:8600"),
        ("http://rebound.example:8600", "rebound.example:8600"),
        ("", "localhost:8600"),
    ],
)
def test_other_pages_get_no_socket(origin: str, host: str) -> None:
    async def story() -> None:
        tab = await Tab(origin=origin, host=host).connect()
        assert await tab.until_closed() == 4_403

    in_tabs(story)


def _cookie_of(user: User) -> str:
    client = signed_in(user)
    return "; ".join(f"{name}={morsel.value}" for name, morsel in client.cookies.items())


def test_where_people_sign_in_each_has_a_page_of_their_own_and_viewers_none(settings: Any, site: str) -> None:
    settings.ACCOUNTS = True
    settings.LIVE_PAGES = 1
    roles: dict[str, Role] = {"isa": "producer", "ben": "producer", "odd": "viewer"}
    cookies = {
        name: _cookie_of(accounts.add(name, "seven herrings swim", role)) for name, role in roles.items()
    }

    async def story() -> None:
        for cookie in ("", cookies["odd"]):
            tab = await Tab(cookie=cookie).connect()
            assert await tab.until_closed() == 4_403
        isa = await Tab(cookie=cookies["isa"]).connect()
        await isa.open(f"{site}/")
        ben = await Tab(cookie=cookies["ben"]).connect()
        assert (await ben.until("hello"))["open"] is None
        await ben.send(kind="open", address=f"{site}/")
        assert (await ben.until("failed"))["code"] == "live_full"
        await isa.send(kind="close")
        await isa.until("ended")
        await ben.open(f"{site}/")
        await isa.leave()
        await ben.leave()

    in_tabs(story)
