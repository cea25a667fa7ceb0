"""Cuts in files, which somebody else may have written: read strictly, refused with a sentence."""

from __future__ import annotations

import base64
import json
from collections.abc import Container, Iterator
from typing import TYPE_CHECKING, Any

from tallpage.core.cut._document import VERSION, Cut
from tallpage.core.cut._frame import Fold, FoldDown, Frame
from tallpage.core.document_problems import problem_in_words
from tallpage.core.errors import CutError, PictureError
from tallpage.core.geometry import Box
from tallpage.core.picture import small_png

if TYPE_CHECKING:
    from pydantic import BaseModel

    from tallpage.core.cut.models import CutFile, PartsFile

MOST_BYTES = 16_000_000


def read_cut(data: bytes) -> Cut:
    """The cut in a file. Nothing that it says is dropped.

    Raises:
        CutError: it is no JSON, of a newer version, or says what is not known or impossible.
        FrameError: nothing would be left between its folds.
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
        read: CutFile = _model().model_validate_json(data, strict=True)  # type: ignore[assignment]
    except ValidationError as error:
        raise CutError(problem_in_words(error.errors()[0], "The cut")) from error
    require_parts_agree(read, read.pictures)
    return _cut_of(read)


def write_cut(cut: Cut) -> bytes:
    """The file of a cut, with the pictures that it uses."""
    document = cut.as_json()
    if cut.pictures:
        document["pictures"] = {name: base64.b64encode(data).decode() for name, data in cut.pictures.items()}
    return json.dumps(document, indent=1).encode() + b"\n"


def cut_file_schema() -> dict[str, Any]:
    """JSON Schema (2020-12) of what :func:`read_cut` takes."""
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **_model().model_json_schema()}


def _model() -> type[BaseModel]:
    from tallpage.core.cut.models import CutFile

    return CutFile


def _cut_of(read: CutFile) -> Cut:
    frame = read.frame.model_dump()
    folds = [Fold(**fold) for fold in frame.pop("folds", ())]
    folds_down = [FoldDown(**fold) for fold in frame.pop("folds_down", ())]
    return Cut(
        frame=Frame.of(Box(**frame), folds, folds_down),
        **read.parts(),
        pictures={name: _picture(name, data) for name, data in read.pictures.items()},
    )


def _picture(name: str, data: bytes) -> bytes:
    try:
        return small_png(data)
    except PictureError as error:
        raise CutError(f"pictures.{name}: {error.sentence}") from error


def require_parts_agree(parts: PartsFile, pictures: Container[str]) -> None:
    """Refuse parts that name what is not there.

    Raises:
        CutError: a name stands for no style, picture or field, or for two marks.
    """
    for problem in _unresolved(parts, pictures):
        raise CutError(problem)


def _unresolved(read: PartsFile, pictures: Container[str]) -> Iterator[str]:
    """What is wrong between the parts of a cut."""
    seen: set[str] = set()
    for at, mark in enumerate(read.marks):
        if mark.id and mark.id in seen:
            yield f"marks[{at}].id: there is another mark “{mark.id}”."
        seen.add(mark.id)
        if mark.style is not None and mark.style not in read.styles:
            yield f"marks[{at}].style: there is no style “{mark.style}” in the cut."
        if mark.kind == "sticker" and mark.picture is not None and mark.picture not in pictures:
            yield f"marks[{at}].picture: there is no picture “{mark.picture}” in the cut."
    caption = read.dressing and read.dressing.caption
    if caption and (problem := caption.problem()):
        yield f"dressing.caption.text: {problem}"
    stamp = read.dressing and read.dressing.stamp
    if stamp and stamp.picture is not None and stamp.picture not in pictures:
        yield f"dressing.stamp.picture: there is no picture “{stamp.picture}” in the cut."
