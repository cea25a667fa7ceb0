"""Password hashes, of which few are computed at once: each takes a processor for a good while."""

from __future__ import annotations

import threading

from django.contrib.auth.hashers import PBKDF2PasswordHasher

_AT_ONCE = threading.BoundedSemaphore(2)


class FewAtOnce(PBKDF2PasswordHasher):
    """Django's usual hasher; whoever comes while two hashes are being computed waits for one of them."""

    def encode(self, password: str, salt: str, iterations: int | None = None) -> str:
        """The hash of a password, with what it was made by."""
        with _AT_ONCE:
            return super().encode(password, salt, iterations)
