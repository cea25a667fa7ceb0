"""Each account has keys of its own; a viewer may choose some too."""

import json
from typing import Any

from django.contrib.auth.models import User
from django.test import Client

from tests.server.people.conftest import signed_in


def _chosen(client: Client, keys: dict[str, list[str]]) -> Any:
    body = json.dumps({"keys": keys})
    return client.post("/api/me/keys", body, content_type="application/json")


def test_keys_are_each_persons_own(producer: User, viewer: User) -> None:
    one, other = signed_in(producer), signed_in(viewer)
    assert _chosen(one, {"fold": ["z"]}).status_code == 200
    assert _chosen(other, {"fold": ["y"]}).status_code == 200
    assert one.get("/api/me/keys").json() == {"keys": {"fold": ["z"]}}
    assert other.get("/api/me/keys").json() == {"keys": {"fold": ["y"]}}
    assert signed_in(None).get("/api/me/keys").status_code == 401
