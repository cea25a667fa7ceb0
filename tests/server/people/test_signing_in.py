"""Signing in, tokens of scripts, and what is noted of who did what."""

import json
from collections.abc import Callable
from typing import Any

from django.contrib.auth.models import User
from django.test import Client
from typer.testing import CliRunner

from tallpage.cli import app
from tallpage.server.people import accounts
from tallpage.server.people.models import Token
from tallpage.server.people.tokens import make_token
from tallpage.server.shelf.models import Capture
from tests.server.people.conftest import PASSWORD, signed_in

SIGN_IN = "/account/sign-in"


def _try(client: Client, password: str, name: str = "isa", **more: str) -> Any:
    return client.post(SIGN_IN, {"username": name, "password": password, "next": "/shelf"}, **more)


def test_who_signs_in_comes_to_where_they_wanted_and_goes_again(producer: User) -> None:
    client = Client()
    assert "Name and password do not fit" in _try(client, "wrong").content.decode()
    answer = _try(client, PASSWORD)
    assert (answer.status_code, answer["Location"]) == (302, "/shelf")
    assert client.get("/api/outlets").status_code == 200
    assert client.get("/account/sign-out").status_code == 405, "no link of another page signs anybody out"
    client.post("/account/sign-out")
    assert client.get("/api/outlets").status_code == 401
    elsewhere = client.post(
        SIGN_IN, {"username": "isa", "password": PASSWORD, "next": "https://evil.example/"}
    )
    assert elsewhere["Location"] == "/"


def test_passwords_cannot_be_tried_for_ever(producer: User) -> None:
    client = Client()
    answers = [_try(client, f"herring {number}").status_code for number in range(6)]
    assert answers[:4] == [200] * 4
    assert answers[-1] == 429
    assert _try(client, PASSWORD).status_code == 429
    assert "Too many wrong passwords" in _try(client, PASSWORD).content.decode()


def test_many_names_cannot_be_tried_from_one_address(producer: User) -> None:
    client = Client()
    said = [_try(client, "herring", name=f"nobody {number}").status_code for number in range(31)]
    assert said == [200] * 30 + [429]
    assert _try(client, PASSWORD).status_code == 429
    assert _try(client, PASSWORD, REMOTE_ADDR="203.0.113.7").status_code == 302


def test_a_closed_account_is_out_at_once(producer: User) -> None:
    client, secret = signed_in(producer), make_token(producer, "all")
    accounts.close("isa")
    assert client.get("/api/outlets").status_code == 401
    assert Client().get("/api/outlets", headers={"authorization": f"Bearer {secret}"}).status_code == 401


def test_a_token_opens_what_its_scope_says_until_it_is_revoked(producer: User, viewer: User) -> None:
    client = Client(enforce_csrf_checks=True)

    def ask(secret: str, method: str = "GET") -> int:
        headers = {"authorization": f"Bearer {secret}"}
        body = '{"name": "Gazette"}'
        return client.generic(
            method, "/api/outlets", body, content_type="application/json", headers=headers
        ).status_code

    reads, does, looks = make_token(producer, "read"), make_token(producer, "all"), make_token(viewer, "all")
    assert [ask(secret) for secret in (reads, does, looks)] == [200, 200, 200]
    assert [ask(secret, "POST") for secret in (reads, does, looks)] == [403, 201, 403]
    assert ask("tallpage-guessed") == 401
    assert reads not in str(list(Token.objects.values()))
    accounts.revoke(str(Token.objects.get(scope="read").pk))
    assert ask(reads) == 401


def test_a_token_for_reading_makes_revokes_and_sets_nothing(producer: User) -> None:
    client = Client(enforce_csrf_checks=True)
    reads = make_token(producer, "read")
    kept = Token.objects.get()
    for method, path, body in (
        ("POST", f"/accounts/{producer.pk}/tokens", {}),
        ("POST", f"/tokens/{kept.pk}/revoke", {}),
        ("POST", "/settings", {"values": {"take.usual": {}}}),
        ("POST", "/me/keys", {"keys": {}}),
    ):
        answer = client.generic(
            method,
            f"/api{path}",
            json.dumps(body),
            content_type="application/json",
            headers={"authorization": f"Bearer {reads}"},
        )
        assert (answer.status_code, "for reading" in answer.json()["title"]) == (403, True), path
    assert list(Token.objects.all()) == [kept]


def test_where_nobody_signs_in_scripts_work_with_tokens_all_the_same(settings: Any, producer: User) -> None:
    settings.ACCOUNTS = False
    client = Client(enforce_csrf_checks=True)

    def add(secret: str, name: str) -> Any:
        headers = {"authorization": f"Bearer {secret}"}
        return client.post("/api/outlets", {"name": name}, content_type="application/json", headers=headers)

    assert add(make_token(producer, "all"), "Gazette").status_code == 201
    refused = add(make_token(producer, "read"), "Almanac")
    assert (refused.status_code, refused.json()["title"]) == (403, "This token is for reading.")
    assert add("tallpage-guessed", "Almanac").json()["code"] == "csrf"


def test_an_archive_which_holds_what_cuts_hide_is_not_for_viewers(
    viewer: User, producer: User, make_capture: Callable[..., Capture]
) -> None:
    order = {"order": {"way": "archive", "what": {"captures": [make_capture().pk]}}}
    refused = signed_in(viewer).post("/api/hand-overs", order, content_type="application/json")
    assert (refused.status_code, refused.json()["code"]) == (403, "viewer")
    made = signed_in(producer).post("/api/hand-overs", order, content_type="application/json").json()
    assert signed_in(viewer).get(made["file_url"]).status_code == 403
    assert signed_in(producer).get(made["file_url"]).status_code == 200


def test_the_log_says_who_and_a_viewer_saves_files_only(
    viewer: User, producer: User, make_capture: Callable[..., Capture]
) -> None:
    capture = make_capture()
    what = {"captures": [capture.pk], "pictures": True}
    for user in (viewer, producer):
        order = {"order": {"way": "disk", "what": what}}
        made = signed_in(user).post("/api/hand-overs", order, content_type="application/json")
        assert made.status_code == 202
    order = {"order": {"way": "link", "what": what}}
    refused = signed_in(viewer).post("/api/hand-overs", order, content_type="application/json")
    assert (refused.status_code, refused.json()["code"]) == (403, "viewer")
    lines = signed_in(viewer).get(f"/api/captures/{capture.pk}/log").json()
    assert [line["person"] for line in lines] == ["isa", "odd"]


def test_the_proxy_that_is_trusted_says_who_comes_and_nobody_else(producer: User, settings: Any) -> None:
    client = Client()
    settings.TRUSTED_PROXIES = ["10.0.0.1"]

    def wrong(proxy: str, said: str) -> int:
        headers = {"x-forwarded-for": said}
        body = {"username": "isa", "password": "wrong wrong"}
        return client.post(SIGN_IN, body, headers=headers, REMOTE_ADDR=proxy).status_code

    # A stranger who invents addresses counts as one all the same.
    assert [wrong("10.9.9.9", f"192.0.2.{number}") for number in range(6)][-1] == 429
    assert [wrong("10.0.0.1", f"1.1.1.1, 192.0.2.{number}") for number in range(6)] == [200] * 6
    assert [wrong("10.0.0.1", f"192.0.3.{number}, 192.0.2.99") for number in range(6)][-1] == 429


def _user(*arguments: str, said: str = "") -> Any:
    return CliRunner().invoke(app, ["user", *arguments], input=said)


def test_accounts_are_made_by_the_command_line() -> None:
    assert _user("add", "petra", said=f"{PASSWORD}\n").output == "petra can sign in.\n"
    made = _user("add", "mail desk!", "--generate")
    assert made.exit_code == 1
    assert "valid username" in made.output
    made = _user("add", "desk", "--viewer", "--generate")
    name, password = made.output.strip().split(": ")
    assert User.objects.get(username=name).check_password(password)
    assert _user("list").output == "desk: viewer\npetra: producer, looks after accounts\n"
    for arguments, said, told in (
        (("add", "petra"), PASSWORD, "There is an account petra already."),
        (("add", "odd"), "12345", "too short"),
        (("add", "odd"), "password12", "too common"),
        (("add", "skerrinisa"), "skerrinisa", "too similar"),
        (("add",), PASSWORD, "Whose account is not said."),
        (("close", "nobody"), "", "There is no account nobody."),
    ):
        run = _user(*arguments, said=f"{said}\n")
        assert run.exit_code == 1
        assert told in run.output
        assert run.output.count("\n") == 1
    assert _user("close", "petra").exit_code == 0
    assert "petra: producer, closed" in _user("list").output
    assert _user("password", "petra", said="nine other herrings\n").exit_code == 0
    assert User.objects.get(username="petra").check_password("nine other herrings")


def test_tokens_are_made_by_the_command_line(producer: User) -> None:
    made = CliRunner().invoke(app, ["token", "add", "isa", "--label", "nightly"])
    secret = made.output.strip()
    listed = CliRunner().invoke(app, ["token", "list"]).output
    assert "isa, read, nightly, never used" in listed
    assert secret not in listed
    assert Client().get("/api/outlets", headers={"authorization": f"Bearer {secret}"}).status_code == 200
    number = listed.partition(":")[0]
    assert CliRunner().invoke(app, ["token", "revoke", number]).exit_code == 0
    assert CliRunner().invoke(app, ["token", "revoke", number]).exit_code == 1


def test_who_changed_a_cut_is_told_to_who_would_overwrite_it(
    producer: User, make_capture: Callable[..., Capture]
) -> None:
    cut = make_capture().cuts.get()
    change = {"version": cut.version, "document": cut.document}
    other = accounts.add("petra", PASSWORD, "producer")
    answers = [
        signed_in(user).patch(f"/api/cuts/{cut.pk}", change, content_type="application/json")
        for user in (producer, other)
    ]
    assert [answer.status_code for answer in answers] == [200, 409]
    assert answers[0].json()["changed_by"] == "isa"
    assert answers[1].json()["title"] == f"“{cut.name}” was changed by isa meanwhile."
