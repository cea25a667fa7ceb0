"""What a person can say before a page is taken, and what they get then."""

import json
from collections.abc import Iterator
from dataclasses import replace
from pathlib import Path
from typing import Any

import pytest

from tallpage.core.capture import (
    PRESETS,
    BasicSignIn,
    FormSignIn,
    PageReport,
    PageRequest,
    Screen,
    SignIn,
    Step,
    Timeouts,
    read_state,
)
from tallpage.core.capture.opening._sign_in import looks_like_sign_in
from tallpage.core.errors import PageError
from tallpage.core.page_map import PageMap
from tallpage.core.render import whole_page
from tests.conftest import Take
from tests.core.capture.asked_server import NAME, PASSWORD, AskedServer, asked_server
from tests.core.capture.landmarks import find_landmarks
from tests.long import long_but
from tests.pictures import Pixels

HASTY = Timeouts(load_ms=1_500, quiet_ms=1_500, step_ms=4_000, again_after_ms=(50, 50))


@pytest.fixture
def server() -> Iterator[AskedServer]:
    with asked_server() as running:
        yield running


class Shot:
    """A page as it was taken, and the landmarks on it."""

    def __init__(self, pixels: Pixels, report: PageReport, scale: int, page_map: PageMap) -> None:
        self.pixels, self.report, self.page_map = pixels, report, page_map
        self.found = {row.number: (row.x_px, row.y_px) for row in find_landmarks(pixels, scale)}

    @property
    def numbers(self) -> list[int]:
        return list(self.found)


@pytest.fixture
def shoot(server: AskedServer, take: Take, tmp_path: Path) -> Any:
    def shot(path: str, screen: Screen = PRESETS["desk"], **asked: Any) -> Shot:
        folder = tmp_path / str(len(list(tmp_path.iterdir())))
        asked = {"timeouts": HASTY, **asked}
        manifest, report = take(
            PageRequest(address=f"{server.address}{path}", screen=screen, **asked), folder
        )
        pixels = whole_page(folder, manifest).rows(0, manifest.height_px)
        return Shot(pixels, report, screen.scale, PageMap.load(folder))

    return shot


# -- steps ----------------------------------------------------------------


@pytest.mark.parametrize(
    ("path", "number"), long_but([("/scripted-menu", 91)], [("/menu", 90), ("/scripted-menu", 91)])
)
def test_what_shows_under_the_pointer_is_on_the_picture(path: str, number: int, shoot: Any) -> None:
    assert number not in shoot(path).numbers
    hovered = shoot(path, steps=(Step.parse("hover #menu"),))
    assert number in hovered.numbers
    assert {*range(1, 9)} <= {*hovered.numbers}
    assert hovered.report.done_before == ("hover #menu",)


def test_steps_are_done_in_order_and_what_they_bring_up_is_kept(shoot: Any) -> None:
    steps = (
        Step.parse('click "Show the prices"'),
        Step.parse("wait for #prices"),
        Step.parse("type #port = Eldhaven"),
        Step.parse("press Enter"),
        Step.parse("pause 0.1"),
    )
    shot = shoot("/form", steps=steps)
    assert {92, 93, 94} <= {*shot.numbers}
    assert shot.report.done_before == tuple(str(step) for step in steps)
    assert shot.report.left_out == ("We use cookies",)
    assert shot.report.warnings == ()


def test_a_step_that_cannot_be_done_is_told_and_the_picture_is_there(shoot: Any) -> None:
    shot = shoot(
        "/form",
        steps=(Step.parse("click #nowhere"), Step.parse('wait for "Never said"')),
        timeouts=replace(HASTY, step_ms=300),
    )
    assert shot.numbers == [1, 2, 3, 4]
    assert shot.report.warnings == (
        "This step could not be done: click #nowhere.",
        'This step could not be done: wait for "Never said".',
    )


@pytest.mark.parametrize(
    "line", ["dance #a", "click", "type #a", "press Not a key", "pause -1", "pause long", "pause 61"]
)
def test_lines_that_are_no_steps_are_refused(line: str) -> None:
    with pytest.raises(PageError) as refused:
        Step.parse(line)
    assert refused.value.code == "step_malformed"


@pytest.mark.parametrize(
    "line",
    ["hover #menu", 'click "Go, now"', "type #q = a = b", "press Control+A", "wait for .x", "pause 1.5"],
)
def test_a_step_reads_as_it_was_written(line: str) -> None:
    assert str(Step.parse(line)) == line


# -- extents --------------------------------------------------------------


def test_a_panel_is_taken_in_its_whole_length(shoot: Any) -> None:
    shot = shoot("/panel", extent="panel", element="#panel")
    assert shot.numbers == list(range(30, 42))
    assert shot.pixels.shape[:2] == (12 * 200, 600)


def test_a_stretch_from_one_element_to_another(shoot: Any) -> None:
    shot = shoot(
        "/menu", extent="between", element="section:nth-of-type(3)", to_element="section:nth-of-type(5)"
    )
    assert shot.numbers == [3, 4, 5]
    assert shot.pixels.shape[:2] == (1_200, 1_280)


def test_an_element_is_found_by_its_words(shoot: Any) -> None:
    shot = shoot("/form", extent="element", element='"Show the prices"')
    assert shot.pixels.shape[0] == 40


@pytest.mark.parametrize("path", long_but(["/wide-from-right"], ["/wide", "/wide-from-right"]))
def test_a_page_wider_than_the_screen_is_taken_whole_when_asked(path: str, shoot: Any) -> None:
    assert shoot(path).numbers == []
    shot = shoot(path, page_width="all")
    assert shot.pixels.shape[1] == 3_000
    assert shot.found[97][0] == (2_900 if path == "/wide" else 20)
    assert shot.report.warnings == ()


def test_a_cut_off_page_goes_on_where_it_ended(shoot: Any) -> None:
    upper = shoot("/menu", max_screens=2)
    assert upper.report.truncated
    assert (upper.report.top_px, upper.report.page_height_px) == (0, 1_600)
    lower = shoot("/menu", max_screens=3, from_px=1_600)
    assert not lower.report.truncated
    assert upper.numbers + lower.numbers == list(range(1, 9))
    whole = shoot("/menu")
    assert (whole.pixels[1_600:] == lower.pixels).all()
    with pytest.raises(PageError, match="nothing further down"):
        shoot("/menu", from_px=9_000)


# -- visitors -------------------------------------------------------------


def test_a_page_is_asked_for_as_by_a_phone(shoot: Any) -> None:
    phone = PRESETS["phone"]
    assert shoot("/phone", replace(phone, touch=False)).numbers == [96]
    touched = shoot("/phone", phone)
    assert touched.numbers == [95]
    assert touched.pixels.shape[1] == phone.width_px * phone.scale


@pytest.mark.long
def test_a_page_is_asked_for_in_a_language(shoot: Any) -> None:
    assert shoot("/language").numbers == [99]
    assert shoot("/language", language="de").numbers == [98]


def _form(server: AskedServer, path: str = "/sign-in", **more: str) -> FormSignIn:
    return FormSignIn(address=f"{server.address}{path}", name=NAME, password=PASSWORD, **more)


def _state(server: AskedServer) -> SignIn:
    cookies = [{"name": "session", "value": "aboard", "domain": "127.0.0.1"}]
    return read_state(json.dumps({"cookies": cookies}).encode())


@pytest.mark.parametrize(
    "sign_in",
    [
        pytest.param(_form, marks=pytest.mark.long),
        pytest.param(
            lambda server: _form(
                server, name_field="[name=user]", password_field="[name=word]", button='"Go aboard"'
            ),
            marks=pytest.mark.long,
        ),
        lambda server: _form(server, "/two-steps"),
        _state,
    ],
    ids=["form", "form with its fields told", "form in two steps", "cookies"],
)
def test_pages_for_members_are_taken_signed_in(sign_in: Any, server: AskedServer, shoot: Any) -> None:
    shot = shoot("/members", sign_in=sign_in(server))
    assert (shot.numbers, shot.report.signed_in, shot.report.warnings) == ([1, 2, 3], True, ())


@pytest.mark.long
def test_a_form_is_filled_in_once_for_many_pages(server: AskedServer, shoot: Any) -> None:
    for _ in range(3):
        assert shoot("/members", sign_in=_form(server)).numbers == [1, 2, 3]
    assert server.asked["POST /sign-in"] == 1


def test_the_servers_own_sign_in_is_answered(shoot: Any) -> None:
    signed_in = shoot("/basic", sign_in=BasicSignIn(name=NAME, password=PASSWORD))
    assert (signed_in.numbers, signed_in.report.status) == ([1, 2, 3], 200)


def test_a_sign_in_page_that_was_met_instead_is_told(server: AskedServer, shoot: Any) -> None:
    stranger = shoot("/members")
    assert not stranger.report.signed_in
    assert f"A sign-in page was met instead: {server.address}/sign-in" in stranger.report.warnings[0]
    assert "Save a sign-in" in stranger.report.warnings[0]
    wrong = FormSignIn(address=f"{server.address}/sign-in", name=NAME, password="wrong")
    assert "was not accepted" in " ".join(shoot("/members", sign_in=wrong).report.warnings)
    with pytest.raises(PageError, match="asks for a name and a password"):
        shoot("/basic")
    assert shoot("/sign-in").report.warnings == (), "it was asked for itself"


@pytest.mark.parametrize(
    ("met", "facts"),
    [
        (True, {"status": 401, "password_fields": 0}),
        (True, {"final": "https://a.example/enter?next=%2Fplan", "text_chars": 300}),
        (True, {"status": 403}),
        (True, {"text_chars": 200}),
        (False, {"password_fields": 0, "text_chars": 200}),
        (False, {"password_fields": 2, "text_chars": 200}),
        (False, {"asked": "https://a.example/login", "final": "https://a.example/login", "text_chars": 200}),
        (False, {"final": "https://a.example/en/plan", "text_chars": 9_000}),
        (False, {"text_chars": 9_000}),
    ],
)
def test_sign_in_pages_are_told_from_pages_with_a_form(met: bool, facts: dict[str, Any]) -> None:
    usual = {"asked": "https://a.example/plan", "final": "https://a.example/plan", "status": 200}
    assert looks_like_sign_in(**{**usual, "password_fields": 1, "text_chars": 5_000, **facts}) == met


def test_a_sign_in_form_that_cannot_be_filled_in_says_so(server: AskedServer, shoot: Any) -> None:
    with pytest.raises(PageError) as refused:
        shoot("/members", sign_in=_form(server, name_field="#nobody"), timeouts=replace(HASTY, step_ms=300))
    assert refused.value.code == "sign_in_failed"
    assert PASSWORD not in refused.value.sentence


def test_a_secret_never_shows_in_what_is_printed(server: AskedServer) -> None:
    request = PageRequest(address="http://a.example/", screen=PRESETS["desk"], sign_in=_form(server))
    assert PASSWORD not in repr(request)
    assert PASSWORD not in repr(_form(server))
    assert "aboard" not in repr(_state(server))


@pytest.mark.parametrize(
    "data",
    [
        b'[{"name": "session", "value": "aboard", "domain": "127.0.0.1", "sameSite": "no_restriction"}]',
        b"# Netscape HTTP Cookie File\n127.0.0.1\tFALSE\t/\tFALSE\t0\tsession\taboard\n",
        b"127.0.0.1\tFALSE\t/\tFALSE\t1999999999\tsession\taboard\n",
    ],
)
def test_cookies_are_read_from_open_formats(data: bytes) -> None:
    (cookie,) = read_state(data).cookies
    assert (cookie["name"], cookie["value"], cookie["domain"], cookie["path"]) == (
        "session",
        "aboard",
        "127.0.0.1",
        "/",
    )


@pytest.mark.parametrize(
    "data", [b"", b"\xff\xfe", b"{}", b"[]", b"7", b"[1]", b'{"cookies": 3}', b"<html>", b'[{"name": "a"}]']
)
def test_files_that_hold_no_cookies_are_refused(data: bytes) -> None:
    with pytest.raises(PageError) as refused:
        read_state(data)
    assert refused.value.code == "sign_in_unreadable"


# -- faults ---------------------------------------------------------------


@pytest.mark.parametrize("path", ["/busy", "/hiccup"])
def test_a_hiccup_is_tried_again(path: str, server: AskedServer, shoot: Any) -> None:
    shot = shoot(path)
    assert (shot.report.status, shot.numbers) == (200, [1, 2])
    assert server.asked[path] > 1


@pytest.mark.long
def test_a_next_try_at_once_is_not_lost_to_the_browsers_page_about_the_last(
    server: AskedServer, shoot: Any
) -> None:
    for _ in range(8):
        server.asked.clear()
        assert shoot("/hiccup", timeouts=replace(HASTY, again_after_ms=(0,))).numbers == [1, 2]


@pytest.mark.long
def test_a_host_that_stays_busy_is_taken_as_it_answers(shoot: Any) -> None:
    shot = shoot("/busy", timeouts=Timeouts(again_after_ms=(10,)))
    assert "status 503" in shot.report.warnings[0]


def test_what_did_not_load_is_named(shoot: Any) -> None:
    warnings = " ".join(shoot("/parts-missing").report.warnings)
    for kind, name in [("Styles", "gone.css"), ("Scripts", "gone.js"), ("Fonts", "gone.woff2")]:
        assert f"{kind} that did not load" in warnings
        assert name in warnings


@pytest.mark.parametrize(
    ("asked", "code"),
    [
        ({"extent": "panel"}, "element_missing"),
        ({"extent": "between", "element": "#a"}, "element_missing"),
        ({"language": "klingon please"}, "language_malformed"),
        ({"max_screens": 0}, "height_impossible"),
        ({"from_px": -1}, "height_impossible"),
        ({"steps": (Step.parse("press Tab"),) * 21}, "step_malformed"),
    ],
)
def test_what_cannot_be_asked_for_is_refused(asked: dict[str, Any], code: str) -> None:
    with pytest.raises(PageError) as refused:
        PageRequest(address="http://a.example/", screen=PRESETS["desk"], **asked)
    assert refused.value.code == code
