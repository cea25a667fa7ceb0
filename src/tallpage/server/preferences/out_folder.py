"""Where files go that are saved on this machine."""

from __future__ import annotations

from pathlib import Path
from typing import Annotated

from django.conf import settings
from pydantic import AfterValidator, StringConstraints, TypeAdapter

from tallpage.server.preferences.catalogue import Setting
from tallpage.server.preferences.values import value_of

_NAME = "files.folder"
_OWN = ("captures", "outputs", "views", "incoming", "made", "shared", "stickers", "watched")
"""Folders of the data folder that the server fills and clears itself."""


def out_folder() -> Path:
    """The folder that everything saved on this machine is below of; it may not be there yet."""
    return Path(value_of(_NAME))


def _full_path(text: str) -> str:
    path = Path(text).expanduser()
    if not path.is_absolute():
        raise ValueError("write the whole path, from the first /")
    if not (path.is_dir() or path.parent.is_dir()):
        raise ValueError(f"there is no folder {path.parent}")
    home, real = Path(settings.HOME).resolve(), path.resolve()
    if real == home or any(real.is_relative_to(home / name) for name in _OWN):
        raise ValueError("Tall Page keeps its own files there")
    return str(path)


SETTING = Setting(
    name=_NAME,
    group="Files",
    words="Where files go",
    effect="What is saved on this machine, by hand, by a routine or by a sweep, goes into a folder in here.",
    kind="text",
    check=TypeAdapter(
        Annotated[
            str,
            StringConstraints(min_length=1, max_length=1_000, strip_whitespace=True),
            AfterValidator(_full_path),
        ]
    ),
    usual=lambda: str(settings.OUT),
    shared=True,
    at_this_machine=True,
    variable="TALLPAGE_OUT",
    read_at_start=True,
)
