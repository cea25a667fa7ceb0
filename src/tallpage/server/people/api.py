"""HTTP API: who is there, and what they have set for themselves."""

from __future__ import annotations

from typing import Literal

from django.http import HttpRequest
from ninja import Router, Schema

from tallpage.server.people.guarding import person_of, role_here
from tallpage.server.people.models import OwnSettings
from tallpage.server.people.own_keys import OwnKeys

router = Router(tags=["people"])


class MeOut(Schema):
    """Who asks; without a name where nobody signs in."""

    name: str
    role: Literal["producer", "viewer"]


@router.get("/me", response=MeOut, operation_id="who_am_i")
def who_am_i(request: HttpRequest) -> dict[str, str]:
    """The account that is signed in, and what it may do."""
    return {"name": person_of(request), "role": role_here(request)}


class OwnKeysSchema(Schema):
    """The keys of actions that are not the usual ones, as the interface writes them; none for an action that
    has no key."""

    keys: OwnKeys


@router.get("/me/keys", response=OwnKeysSchema, operation_id="read_own_keys")
def get_keys(request: HttpRequest) -> OwnKeysSchema:
    """The keys that somebody has chosen for themselves."""
    row = OwnSettings.objects.filter(person=person_of(request)).first()
    return OwnKeysSchema(keys=row.keys if row else {})


@router.post("/me/keys", response=OwnKeysSchema, operation_id="set_own_keys")
def post_keys(request: HttpRequest, payload: OwnKeysSchema) -> OwnKeysSchema:
    """Choose keys; those that are not named are the usual ones."""
    OwnSettings.objects.update_or_create(person=person_of(request), defaults={"keys": payload.keys})
    return payload
