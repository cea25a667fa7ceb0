"""Keys that somebody has chosen: by action, as the interface writes them."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

_Named = Annotated[str, Field(min_length=1, max_length=40)]
OwnKeys = Annotated[dict[_Named, Annotated[list[_Named], Field(max_length=8)]], Field(max_length=300)]
"""None for an action that has no key; what is not named has the usual ones."""
