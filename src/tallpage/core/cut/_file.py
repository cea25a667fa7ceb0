"""Cuts in files, which somebody else may have written: read strictly, refused with a sentence."""

from __future__ import annotations

import json
from typing import TYPE_CHECKING, Any

from tallpage.core.cut._document import VERSION, Cut
from tallpage.core.cut._frame import MOST_FOLDS, Fold, Frame
from tallpage.core.errors import CutError
from tallpage.core.geometry import Box

if TYPE_CHECKING:
    from pydantic import BaseModel

MOST_BYTES = 1_000_000


def read_cut(data: bytes) -> Cut:
    """The cut in a file. Nothing that it says is dropped.

    Raises:
        CutError: it is no JSON, of a newer version, or says what is not known or impossible.
    """
    from pydantic import ValidationError

    if len(data) > MOST_BYTES:
        raise CutError(f"The cut has {len(data):,} bytes; at most {MOST_BYTES:,} are read.")
    try:
        found = json.loads(data)
    except (ValueError, RecursionError) as error:
        raise CutError("The cut is not JSON.") from error
    if not isinstance(found, dict):
        raise CutError("The cut is not a JSON object.")
    version = found.get("version")
    if isinstance(version, int) and version > VERSION:
        raise CutError(
            f"The cut is of version {version}; this program reads up to version {VERSION}.",
            hint="Read it with the program that wrote it, or a newer one than this.",
            code="cut_too_new",
        )
    try:
        read = _model().model_validate_json(data, strict=True)
    except ValidationError as error:
        raise CutError(_in_words(error.errors()[0])) from error
    frame = read.model_dump()["frame"]
    folds = [Fold(**fold) for fold in frame.pop("folds")]
    return Cut(frame=Frame.of(Box(**frame), folds))


def write_cut(cut: Cut) -> bytes:
    """The file of a cut."""
    return json.dumps(cut.as_json(), indent=1).encode() + b"\n"


def cut_file_schema() -> dict[str, Any]:
    """JSON Schema (2020-12) of what :func:`read_cut` takes."""
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **_model().model_json_schema()}


def _model() -> type[BaseModel]:
    from tallpage.core.cut._file_model import CutFile

    return CutFile


def _in_words(problem: Any) -> str:
    """What is wrong with a field, and which one."""
    where = ".".join(str(part) for part in problem["loc"])
    match problem["type"]:
        case "extra_forbidden":
            return f"The cut says “{where}”, which is not known."
        case "missing":
            return f"The cut does not say “{where}”."
        case "too_long":
            return f"The cut has more than {MOST_FOLDS} folds."
        case _:
            return f"“{where}” in the cut: {problem['msg'][0].lower()}{problem['msg'][1:]}."
