"""What is wrong with a document that somebody wrote, in words: the place in it, and why it is refused."""

from __future__ import annotations

from typing import Any

_TOLD_APART = frozenset({"marks", "steps"})
"""Lists whose entries are told apart by their kind, which pydantic names as a step of its own."""


def problem_in_words(problem: Any, whole: str) -> str:
    """An error of pydantic as a sentence; ``whole`` names the document, like “The cut”."""
    where = _place(problem["loc"])
    given = problem.get("ctx", {})
    match problem["type"]:
        case "extra_forbidden":
            what = "is not known."
        case "missing":
            what = "is missing."
        case "too_long":
            what = f"has more than {given['max_length']:,} entries."
        case "union_tag_invalid":
            what = f"“{given['tag']}” is not one of {given['expected_tags'].replace(chr(39), '')}."
            where = f"{where}.{given['discriminator'].strip(chr(39))}"
        case "union_tag_not_found":
            what, where = "is missing.", f"{where}.{given['discriminator'].strip(chr(39))}"
        case "value_error":
            what = f"{given['error']}."
        case "string_pattern_mismatch" if "#" in given["pattern"]:
            what = "is not a colour like #1D2B2A."
        case _:
            what = f"{problem['msg'][0].lower()}{problem['msg'][1:]}."
    return f"{where}: {what}" if where else f"{whole} {what}"


def _place(steps: tuple[str | int, ...]) -> str:
    """Like ``marks[3].width_px``."""
    text = ""
    for at, step in enumerate(steps):
        if isinstance(step, int):
            text += f"[{step}]"
        elif not (at >= 2 and isinstance(steps[at - 1], int) and steps[at - 2] in _TOLD_APART):
            text += f".{step}" if text else step
    return text
