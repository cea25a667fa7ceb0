"""Shared links: for whoever has the address, as long as it is open, and nothing more."""

from collections.abc import Callable
from datetime import timedelta
from typing import Any

import pytest
from django.db import OperationalError
from django.db.models import QuerySet
from django.test import Client
from django.utils import timezone

from tallpage.server.handover import shared
from tallpage.server.handover.models import SharedLink
from tallpage.server.people.models import Try
from tallpage.server.shelf.models import Capture
from tallpage.server.storage import shared_folder
from tests.pictures import decoded
from tests.server.conftest import Api

HandOverFn = Callable[..., Any]


@pytest.fixture
def stranger() -> Client:
    """A browser that was never here."""
    return Client()


def pieces(response: Any) -> bytes:
    return b"".join(response.streaming_content)


def test_a_link_shows_the_picture_fitted_and_in_full_and_nothing_of_the_application(
    api: Api, output: dict[str, Any], hand_over: HandOverFn, stranger: Client
) -> None:
    line = hand_over("link", outputs=[output["id"]], title="For <you>", caption="Is this right?", days=7)
    path = line["address"]
    assert line["link"]["open"] is True
    page = stranger.get(path)
    html = page.content.decode()
    assert "For &lt;you&gt;" in html
    assert "Is this right?" in html
    assert "Tall Page" not in html
    assert "script" not in html
    fitted = stranger.get(f"{path}0-0.jpg")
    assert len(pieces(fitted)) == output["bytes"]
    full = stranger.get(f"{path}0-full.png?save")
    assert "-320x400.png" in full["Content-Disposition"]
    assert decoded(pieces(full)).shape[:2] == (400, 320)
    for response in (page, fitted, full):
        assert response["X-Robots-Tag"] == "noindex, nofollow, noarchive"
        assert response["Referrer-Policy"] == "no-referrer"
        assert response["Cache-Control"] == "private, no-store"
        policy = response["Content-Security-Policy"]
        assert "default-src 'none'" in policy
        assert "script-src" not in policy
        assert not response.cookies
    assert api.get(f"/hand-overs/{line['id']}")["link"]["opened"] == 1


def test_a_link_that_is_taken_back_run_out_or_guessed_leads_nowhere_and_all_look_the_same(
    api: Api, output: dict[str, Any], hand_over: HandOverFn, stranger: Client
) -> None:
    back, out = (hand_over("link", outputs=[output["id"]], days=1) for _ in range(2))
    token = back["address"].split("/")[2]
    assert len(token) >= 32
    api.send("POST", f"/hand-overs/{back['id']}/take-back")
    assert not shared_folder(token).exists()
    SharedLink.objects.filter(hand_over=out["id"]).update(expires_at=timezone.now() - timedelta(seconds=1))
    answers = [
        stranger.get(path)
        for path in (back["address"], out["address"], f"/shared/{'A' * 32}/", f"{out['address']}0-0.jpg")
    ]
    assert {answer.status_code for answer in answers} == {404}
    assert len({answer.content for answer in answers}) == 1
    assert all(answer["X-Robots-Tag"] for answer in answers)
    again = api.send("POST", f"/hand-overs/{back['id']}/take-back")
    assert again["link"]["open"] is False


def test_a_word_opens_a_link_in_this_browser_only(
    api: Api, output: dict[str, Any], hand_over: HandOverFn, stranger: Client
) -> None:
    line = hand_over("link", outputs=[output["id"]], word="herring")
    path = line["address"]
    assert "herring" not in str(SharedLink.objects.get().hand_over.options)
    asked = stranger.get(path)
    assert asked.status_code == 401
    assert output["file_name"] not in asked.content.decode()
    assert stranger.get(f"{path}0-0.jpg").status_code == 404
    assert stranger.post(path, {"word": "cod"}).status_code == 401
    opened = stranger.post(path, {"word": " herring "})
    assert (opened.status_code, opened["Location"]) == (302, path)
    assert opened.cookies["word"]["httponly"]
    assert opened.cookies["word"]["path"] == path
    assert stranger.get(path).status_code == 200
    assert pieces(stranger.get(f"{path}0-0.jpg"))
    assert Client().get(path).status_code == 401
    assert api.get(f"/hand-overs/{line['id']}")["link"]["opened"] == 1
    other = hand_over("link", outputs=[output["id"]], word="herring")
    assert stranger.get(other["address"]).status_code == 401, "a word opens one link, not all with the same"


def test_words_cannot_be_guessed_for_ever(
    output: dict[str, Any], hand_over: HandOverFn, stranger: Client
) -> None:
    path = hand_over("link", outputs=[output["id"]], word="herring")["address"]
    said = [stranger.post(path, {"word": f"fish {number}"}).status_code for number in range(11)]
    assert said == [401] * 10 + [429]
    assert stranger.post(path, {"word": "herring"}).status_code == 429
    elsewhere = {"REMOTE_ADDR": "203.0.113.7"}
    assert stranger.post(path, {"word": "herring"}, **elsewhere).status_code == 302, "nobody is shut out"
    Try.objects.update(last_at=timezone.now() - timedelta(minutes=16))
    assert stranger.post(path, {"word": "herring"}).status_code == 302


def test_of_many_words_said_at_once_no_more_are_compared(
    output: dict[str, Any], hand_over: HandOverFn, stranger: Client, monkeypatch: pytest.MonkeyPatch
) -> None:
    path = hand_over("link", outputs=[output["id"]], word="herring")["address"]
    compared, said = [], []

    def say() -> None:
        said.append(stranger.post(path, {"word": "cod"}).status_code)

    def compare(word: str, _hash: str) -> bool:
        compared.append(word)
        say()  # while one is being compared, the next is said
        return False

    monkeypatch.setattr(shared, "check_password", compare)
    say()
    assert len(compared) == 10
    assert said == [429] + [401] * 10


def test_a_link_opens_while_the_database_cannot_be_written(
    output: dict[str, Any], hand_over: HandOverFn, stranger: Client, monkeypatch: pytest.MonkeyPatch
) -> None:
    path = hand_over("link", outputs=[output["id"]])["address"]

    def refuse(*_: object, **__: object) -> None:
        raise OperationalError("database or disk is full")

    with monkeypatch.context() as full:
        full.setattr(QuerySet, "update", refuse)
        assert stranger.get(path).status_code == 200


def test_only_the_files_of_the_link_can_be_fetched(
    output: dict[str, Any], hand_over: HandOverFn, stranger: Client
) -> None:
    path = hand_over("link", outputs=[output["id"]])["address"]
    for name in ("1-0.jpg", "..%2f..%2fsecret.key", "%2e%2e", "tallpage.sqlite3"):
        assert stranger.get(f"{path}{name}").status_code == 404
    assert stranger.post(f"{path}0-0.jpg").status_code == 405


def test_what_was_shared_stays_when_the_cut_changes(
    api: Api, capture: Capture, hand_over: HandOverFn, stranger: Client
) -> None:
    line = hand_over("link", captures=[capture.pk], pictures=True, days=None)
    before = pieces(stranger.get(f"{line['address']}0-full.png"))
    cut = capture.cuts.get()
    hidden = {"x_px": 0, "y_px": 0, "width_px": 320, "height_px": 400, "how": "solid", "colour": "#112233"}
    api.send(
        "PATCH", f"/cuts/{cut.pk}", {"version": cut.version, "document": {**cut.document, "hidden": [hidden]}}
    )
    assert pieces(stranger.get(f"{line['address']}0-full.png")) == before
    again = api.send("POST", f"/hand-overs/{line['id']}/again", status=202)
    assert again["address"] != line["address"]


def test_a_link_of_another_time_is_refused(api: Api, output: dict[str, Any]) -> None:
    order = {"way": "link", "what": {"outputs": [output["id"]]}, "days": 30}
    assert api.refused("POST", "/hand-overs", {"order": order})["code"] == "link_days"
