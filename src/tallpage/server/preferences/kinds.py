"""The plain kinds of settings, ready to be registered: one of a few, a whole number, a line of text."""

from __future__ import annotations

from collections.abc import Callable
from typing import Annotated, Any

from pydantic import AfterValidator, Field, StringConstraints, TypeAdapter

from tallpage.server.preferences.catalogue import Group, Setting


def choice(
    name: str, group: Group, words: str, effect: str, options: tuple[tuple[str, str], ...], *, variable: str
) -> Setting:
    """One of a few; the first is the usual one."""
    known = {value for value, _ in options}

    def among(value: str) -> str:
        if value not in known:
            raise ValueError(f"it is one of {', '.join(sorted(known))}")
        return value

    return Setting(
        name=name,
        group=group,
        words=words,
        effect=effect,
        kind="choice",
        options=options,
        variable=variable,
        check=TypeAdapter(Annotated[str, AfterValidator(among)]),
        usual=lambda: options[0][0],
    )


def number(
    name: str,
    group: Group,
    words: str,
    effect: str,
    *,
    usual: Callable[[], int],
    least: int,
    most: int,
    unit: str,
    variable: str,
    shared: bool = True,
) -> Setting:
    """A whole number from ``least`` to ``most``, in a unit."""
    return Setting(
        name=name,
        group=group,
        words=words,
        effect=effect,
        kind="number",
        check=TypeAdapter(Annotated[int, Field(ge=least, le=most)]),
        usual=usual,
        shared=shared,
        variable=variable,
        unit=unit,
        least=least,
        most=most,
    )


def line(
    name: str,
    group: Group,
    words: str,
    effect: str,
    *,
    usual: Callable[[], str],
    most_chars: int,
    **more: Any,
) -> Setting:
    """A line of text; ``more`` is what else :class:`Setting` knows."""
    plain = StringConstraints(strip_whitespace=True, max_length=most_chars, pattern=r"^[^\x00-\x1f\x7f]*$")
    own: dict[str, Any] = {"kind": "text", "check": TypeAdapter(Annotated[str, plain]), **more}
    return Setting(name=name, group=group, words=words, effect=effect, usual=usual, **own)
