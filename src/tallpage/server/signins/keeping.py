"""Saving sign-ins, and finding the one for a page."""

from __future__ import annotations

from typing import Any
from urllib.parse import urlsplit

from tallpage.core.capture import BasicSignIn, FormSignIn, SignIn, StateSignIn, normalise_address, read_state
from tallpage.server.signins.encryption import seal, unseal
from tallpage.server.signins.models import SavedSignIn


def host_key(address: str) -> str:
    """The host of an address with its port, as sign-ins are kept by."""
    return urlsplit(normalise_address(address)).netloc.rpartition("@")[2].lower()


def save_basic(host: str, name: str, password: str) -> SavedSignIn:
    """Keep a name and password for the server's own sign-in."""
    return _save(host, SavedSignIn.Kind.BASIC, name, {"name": name, "password": password})


def save_form(host: str, sign_in: FormSignIn) -> SavedSignIn:
    """Keep how a sign-in form is filled in."""
    secret = {
        "address": normalise_address(sign_in.address),
        "name": sign_in.name,
        "password": sign_in.password,
        "name_field": sign_in.name_field,
        "password_field": sign_in.password_field,
        "button": sign_in.button,
    }
    return _save(host, SavedSignIn.Kind.FORM, sign_in.name, secret)


def save_state(host: str, data: bytes) -> SavedSignIn:
    """Keep cookies and stored values from a file."""
    state = read_state(data)
    label = f"{len(state.cookies)} cookies" if len(state.cookies) != 1 else "1 cookie"
    secret = {"cookies": list(state.cookies), "origins": list(state.origins)}
    return _save(host, SavedSignIn.Kind.STATE, label, secret)


def sign_in_for(address: str) -> SignIn | None:
    """The saved sign-in for a page, opened.

    Raises:
        StorageError: it cannot be opened with the key that is there.
    """
    saved = SavedSignIn.objects.filter(host=host_key(address)).first()
    if saved is None:
        return None
    secret = unseal(bytes(saved.sealed))
    match saved.kind:
        case SavedSignIn.Kind.BASIC:
            return BasicSignIn(**secret)
        case SavedSignIn.Kind.FORM:
            return FormSignIn(**secret)
        case _:
            return StateSignIn(cookies=tuple(secret["cookies"]), origins=tuple(secret["origins"]))


def _save(host: str, kind: SavedSignIn.Kind, label: str, secret: dict[str, Any]) -> SavedSignIn:
    values = {"kind": kind, "label": label, "sealed": seal(secret)}
    saved, _ = SavedSignIn.objects.update_or_create(host=host_key(host), defaults=values)
    return saved
