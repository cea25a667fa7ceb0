"""Sign-ins on the wire. What is secret only ever goes in."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from ninja import Field, Schema


class SignInOut(Schema):
    """A saved sign-in: for which host, of which kind, and whose."""

    id: int
    host: str
    kind: Literal["form", "basic", "state"]
    label: str
    saved_at: datetime


class BasicIn(Schema):
    """A name and password for the server's own sign-in."""

    host: str = Field(min_length=1)
    name: str = Field(min_length=1, max_length=200)
    password: str = Field(max_length=1_000)


class FormIn(BasicIn):
    """A sign-in page and what is filled in there; fields without a CSS selector are found."""

    address: str = Field(min_length=1)
    name_field: str = ""
    password_field: str = ""
    button: str = ""
