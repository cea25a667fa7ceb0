"""What the environment tells, read so that a slip is answered in a sentence."""

from __future__ import annotations

import os

from django.core.exceptions import ImproperlyConfigured


def whole_number(name: str, otherwise: int, *, most: int) -> int:
    """The number that a variable of the environment holds.

    Raises:
        ImproperlyConfigured: it holds something else than 1 to ``most``.
    """
    told = os.environ.get(name, "").strip()
    if not told:
        return otherwise
    if not (told.isascii() and told.isdigit() and 1 <= int(told[:9]) <= most):
        raise ImproperlyConfigured(f"{name} is {told!r}. Give a number from 1 to {most:,}.")
    return int(told)
