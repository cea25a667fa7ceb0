"""The routines that ship, as files of the open format in the package's folder ``routines``."""

from __future__ import annotations

from importlib import resources

from tallpage.core.routine._file import read_routine
from tallpage.core.routine.models import Routine

_FOLDER = "routines"


def starter_names() -> tuple[str, ...]:
    """The names of their files, without ending, in order."""
    folder = resources.files("tallpage").joinpath(_FOLDER)
    names = (file.name for file in folder.iterdir())
    return tuple(sorted(name.removesuffix(".json") for name in names if name.endswith(".json")))


def starter_routine(name: str) -> Routine:
    """One of them."""
    return read_routine(resources.files("tallpage").joinpath(_FOLDER, f"{name}.json").read_bytes())
