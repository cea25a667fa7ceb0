"""HTTP API: who is there."""

from __future__ import annotations

from typing import Literal

from django.http import HttpRequest
from ninja import Router, Schema

from tallpage.server.people.guarding import person_of, role_here

router = Router(tags=["people"])


class MeOut(Schema):
    """Who asks; without a name where nobody signs in."""

    name: str
    role: Literal["producer", "viewer"]


@router.get("/me", response=MeOut, operation_id="who_am_i")
def who_am_i(request: HttpRequest) -> dict[str, str]:
    """The account that is signed in, and what it may do."""
    return {"name": person_of(request), "role": role_here(request)}
