"""Accounts looked after on the screen, tokens, and settings of each person beside those of the server."""

from __future__ import annotations

import json
from typing import Any

from django.contrib.auth.models import User
from django.test import Client

from tallpage.server.people import accounts
from tests.server.people.conftest import PASSWORD, signed_in


def _send(client: Client, method: str, path: str, body: object = None, **headers: str) -> Any:
    data = json.dumps(body)
    return client.generic(method, f"/api{path}", data, content_type="application/json", headers=headers)


def _set(client: Client, **values: object) -> int:
    body = {"values": {name.replace("__", "."): value for name, value in values.items()}}
    status: int = _send(client, "POST", "/settings", body).status_code
    return status


def _value(client: Client, name: str) -> Any:
    rows = client.get("/api/settings").json()["settings"]
    return next(row for row in rows if row["name"] == name)


def test_each_has_settings_of_their_own_and_the_servers_are_a_producers(producer: User, viewer: User) -> None:
    isa, odd = signed_in(producer), signed_in(viewer)
    assert _set(isa, show__units="KiB") == 200
    assert _set(odd, show__dates="nb-NO") == 200
    assert [_value(client, "show.units")["value"] for client in (isa, odd)] == ["KiB", "kB"]
    assert [_value(client, "show.dates")["value"] for client in (isa, odd)] == ["en-GB", "nb-NO"]
    assert _set(odd, keep__deleted_days=1) == 422
    assert _set(isa, keep__deleted_days=9) == 200
    assert _value(odd, "keep.deleted_days")["value"] == 9
    assert [_value(client, "keep.deleted_days")["locked"] for client in (isa, odd)] == [
        "",
        "A producer changes it.",
    ]
    assert [bool(client.get("/api/settings").json()["started_with"]) for client in (isa, odd)] == [
        True,
        False,
    ]
    assert "keep.deleted_days" not in odd.get("/api/settings/file").content.decode()


def test_where_files_go_is_said_by_whoever_starts_a_server_for_many(producer: User) -> None:
    isa = signed_in(producer)
    assert _value(isa, "files.folder")["locked"]
    assert _set(isa, files__folder="/") == 422


def test_the_first_account_looks_after_the_others(producer: User, viewer: User) -> None:
    isa, odd = signed_in(producer), signed_in(viewer)
    assert [row["name"] for row in isa.get("/api/accounts").json()["accounts"]] == ["isa", "odd"]
    assert [row["name"] for row in odd.get("/api/accounts").json()["accounts"]] == ["odd"]
    made = _send(isa, "POST", "/accounts", {"name": "una", "role": "viewer"})
    assert made.status_code == 201
    said = {"username": "una", "password": made.json()["secret"], "next": "/shelf"}
    assert Client().post("/account/sign-in", said).status_code == 302
    una = User.objects.get(username="una")
    assert _send(isa, "PATCH", f"/accounts/{una.pk}", {"role": "producer", "closed": True}).status_code == 200
    assert signed_in(una).get("/api/outlets").status_code == 401
    assert _send(isa, "POST", f"/accounts/{una.pk}/password").status_code == 200
    una.refresh_from_db()
    assert una.is_active
    other = signed_in(una)  # a producer, who does not look after accounts
    for refused in (
        _send(other, "POST", "/accounts", {"name": "eve"}),
        _send(other, "PATCH", f"/accounts/{viewer.pk}", {"role": "producer"}),
        _send(other, "POST", f"/accounts/{producer.pk}/password"),
        _send(odd, "POST", "/accounts", {"name": "eve"}),
    ):
        assert refused.status_code == 403
    assert _send(isa, "POST", "/accounts", {"name": "una"}).status_code == 403  # taken
    assert _send(isa, "POST", "/accounts", {"name": "eve", "password": "short"}).status_code == 403


def test_somebody_always_looks_after_the_accounts(producer: User) -> None:
    isa = signed_in(producer)
    for change in ({"closed": True}, {"keeper": False}, {"role": "viewer"}):
        answer = _send(isa, "PATCH", f"/accounts/{producer.pk}", change)
        assert answer.json()["code"] == "last_keeper"
    una = accounts.add("una", PASSWORD, "producer")
    assert _send(isa, "PATCH", f"/accounts/{una.pk}", {"keeper": True}).status_code == 200
    assert _send(isa, "PATCH", f"/accounts/{producer.pk}", {"keeper": False}).status_code == 200
    assert not isa.get("/api/accounts").json()["keeper"]


def test_a_keeper_who_became_a_viewer_looks_after_nobody(producer: User) -> None:
    isa = signed_in(producer)
    una = accounts.add("una", PASSWORD, "producer")
    for change in ({"keeper": True}, {"role": "viewer"}):
        assert _send(isa, "PATCH", f"/accounts/{una.pk}", change).status_code == 200
    answer = _send(isa, "PATCH", f"/accounts/{producer.pk}", {"keeper": False})
    assert answer.json()["code"] == "last_keeper"


def test_tokens_are_made_shown_once_and_revoked_by_whose_they_are(producer: User, viewer: User) -> None:
    isa, odd = signed_in(producer), signed_in(viewer)
    made = _send(odd, "POST", f"/accounts/{viewer.pk}/tokens", {"label": "nightly"})
    secret = made.json()["secret"]
    script = Client(enforce_csrf_checks=True)
    assert _send(script, "GET", "/outlets", authorization=f"Bearer {secret}").status_code == 200
    assert secret not in odd.get("/api/accounts").content.decode()
    assert _send(odd, "POST", f"/accounts/{viewer.pk}/tokens", {"scope": "all"}).status_code == 403
    assert _send(odd, "POST", f"/accounts/{producer.pk}/tokens", {}).status_code == 404
    una = accounts.add("una", PASSWORD, "producer")
    token_id = odd.get("/api/accounts").json()["accounts"][0]["tokens"][0]["id"]
    assert _send(signed_in(una), "POST", f"/tokens/{token_id}/revoke").status_code == 404
    assert _send(isa, "POST", f"/tokens/{token_id}/revoke").status_code == 200
    assert _send(script, "GET", "/outlets", authorization=f"Bearer {secret}").status_code == 401
