"""Sealing what is secret, with a key that lies beside the database and not in it."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

from cryptography.fernet import Fernet, InvalidToken
from django.conf import settings

from tallpage.core.errors import StorageError
from tallpage.server.home import own_key

KEY_NAME = "sign-ins.key"


def seal(secret: dict[str, Any]) -> bytes:
    """The secret, sealed (Fernet: AES-128-CBC with HMAC-SHA256)."""
    return _fernet().encrypt(json.dumps(secret).encode())


def unseal(sealed: bytes) -> dict[str, Any]:
    """The secret again.

    Raises:
        StorageError: it was sealed with another key, or was altered.
    """
    try:
        found: dict[str, Any] = json.loads(_fernet().decrypt(sealed))
    except InvalidToken as error:
        raise StorageError(
            "The saved sign-in cannot be opened: it was sealed with another key.",
            hint=f"Bring back {KEY_NAME} into the data folder, or save the sign-in again.",
            code="sign_in_sealed",
        ) from error
    return found


def _fernet() -> Fernet:
    return Fernet(own_key(Path(settings.HOME), KEY_NAME, Fernet.generate_key))
