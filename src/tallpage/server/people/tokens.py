"""Making tokens for scripts, and telling whose one is."""

from __future__ import annotations

import hashlib
import secrets
from datetime import timedelta

from django.contrib.auth.models import User
from django.utils import timezone

from tallpage.server.database import if_it_can_be_written
from tallpage.server.people.models import Token

_PREFIX = "tallpage-"
_SECRET_BYTES = 32
_NOTED_EVERY = timedelta(minutes=1)


def make_token(user: User, scope: str, label: str = "") -> str:
    """A new token; the only time that it can be seen."""
    secret = _PREFIX + secrets.token_urlsafe(_SECRET_BYTES)
    Token.objects.create(user=user, scope=scope, label=label, digest=_digest(secret))
    return secret


def token_of(said: str) -> Token | None:
    """The token that somebody says; None for one that is not known, or whose account is closed."""
    token = Token.objects.select_related("user").filter(digest=_digest(said), user__is_active=True).first()
    now = timezone.now()
    if token is not None and (token.used_at is None or token.used_at < now - _NOTED_EVERY):
        used = Token.objects.filter(pk=token.pk)
        if_it_can_be_written(lambda: used.update(used_at=now))
    return token


def _digest(secret: str) -> str:
    # 256 random bits need no slow hash: there is nothing to be guessed.
    return hashlib.sha256(secret.encode()).hexdigest()
