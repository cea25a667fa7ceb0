"""How something on a page is pointed at: by CSS, or by the words it shows. Pure."""

from __future__ import annotations

import re

_WORDS = re.compile(r"[\"“„](?P<words>.+)[\"”“]", re.DOTALL)


def words_of(target: str) -> str | None:
    """The words of a target in quotation marks; None for a CSS selector."""
    match = _WORDS.fullmatch(target.strip())
    return match["words"].strip() if match else None
