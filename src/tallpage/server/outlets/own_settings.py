"""Settings of files: what those are to be whose rules a person writes."""

from __future__ import annotations

from typing import Annotated, get_args

from pydantic import AfterValidator, Field, TypeAdapter

from tallpage.server.outlets.schemas import FormatName
from tallpage.server.preferences.catalogue import Setting, register_setting

_LEAST_FIDELITY = 50
"""Below it nobody would publish a picture; see ``core/fit``."""
_USUAL_FORMATS = ("jpeg", "png", "webp")


def register() -> None:
    """Have them known."""
    register_setting(
        Setting(
            name="files.formats",
            group="Files",
            words="Formats",
            effect="A file whose rules you write yourself is the best of these; slots have their own.",
            kind="formats",
            check=TypeAdapter(Annotated[list[FormatName], Field(min_length=1), AfterValidator(_once)]),
            usual=lambda: list(_USUAL_FORMATS),
            options=tuple((name, name) for name in get_args(FormatName)),
        )
    )
    register_setting(
        Setting(
            name="files.fidelity",
            group="Files",
            words="What a new file is to be",
            effect="Rules that you write yourself begin with this.",
            kind="fidelity",
            check=TypeAdapter(Annotated[int | None, Field(ge=_LEAST_FIDELITY, le=100)]),
            usual=lambda: None,
        )
    )


def _once(names: list[FormatName]) -> list[FormatName]:
    return list(dict.fromkeys(names))
