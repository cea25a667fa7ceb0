"""Routines in files, which somebody else may have written: read strictly, refused with a sentence."""

from __future__ import annotations

import json
from collections.abc import Mapping
from typing import Any

from pydantic import ValidationError

from tallpage.core.document_problems import problem_in_words
from tallpage.core.errors import PictureError, RoutineError, TallPageError
from tallpage.core.file_names import Pattern
from tallpage.core.marks import Mark
from tallpage.core.picture import small_png
from tallpage.core.routine._asking import Value, answered, require_askable
from tallpage.core.routine._orders import page_request, slot_order
from tallpage.core.routine.models import (
    MOST_FILE_BYTES,
    VERSION,
    DressStep,
    MarksStep,
    OutStep,
    Routine,
    SlotStep,
    TakeStep,
)


def read_routine(data: bytes) -> Routine:
    """The routine in a file. Nothing that it says is dropped.

    Raises:
        RoutineError: it is no JSON, of a newer version, or says what is not known or impossible.
    """
    if len(data) > MOST_FILE_BYTES:
        raise RoutineError(f"The routine has {len(data):,} bytes; at most {MOST_FILE_BYTES:,} are read.")
    try:
        found = json.loads(data)
    except (ValueError, RecursionError) as error:
        raise RoutineError("The routine is not JSON.") from error
    if not isinstance(found, dict):
        raise RoutineError("The routine is not a JSON object.")
    return routine_of(found)


def routine_of(document: Mapping[str, Any]) -> Routine:
    """The routine of a document in plain types, as :func:`document_of` gives it.

    Raises:
        RoutineError: as :func:`read_routine`.
    """
    version = document.get("version")
    if isinstance(version, int) and version > VERSION:
        raise RoutineError(
            f"The routine is of version {version}; this program reads up to version {VERSION}.",
            hint="Read it with the program that wrote it, or a newer one than this.",
            code="routine_too_new",
        )
    try:
        routine = Routine.model_validate_json(json.dumps(document), strict=True)
    except ValidationError as error:
        raise RoutineError(problem_in_words(error.errors()[0], "The routine")) from error
    return require_whole(routine)


def require_whole(routine: Routine) -> Routine:
    """A routine whose parts agree with each other; its pictures are PNG files afterwards.

    Raises:
        RoutineError: a step names what is not there, or asks for what cannot be done.
    """
    for at, step in enumerate(routine.steps):
        where = f"steps[{at}]"
        try:
            if isinstance(step, TakeStep):
                page_request(step, "http://skerrin.example/")
            elif isinstance(step, SlotStep):
                slot_order(step)
            elif isinstance(step, MarksStep):
                _require_marks(step.marks, routine, where)
            elif isinstance(step, DressStep):
                _require_dressing(step, routine)
            elif isinstance(step, OutStep):
                _require_way(step)
        except TallPageError as error:
            if isinstance(error, RoutineError) and error.sentence.startswith("steps["):
                raise
            raise RoutineError(f"{where} ({step.kind}): {error.sentence}", hint=error.hint) from error
    require_askable(routine)
    pictures = {name: _picture(name, data) for name, data in routine.pictures.items()}
    return routine.model_copy(update={"pictures": pictures}) if pictures else routine


def with_answers(routine: Routine, answers: Mapping[str, Value]) -> Routine:
    """The routine with values in place of those that it asks for.

    Raises:
        RoutineError: a name that is not asked for, or a value that cannot be worked with.
    """
    return require_whole(answered(routine, answers)) if answers else routine


def document_of(routine: Routine) -> dict[str, Any]:
    """The routine in plain types, its pictures in base64."""
    document: dict[str, Any] = routine.model_dump(mode="json")
    return document


def write_routine(routine: Routine) -> bytes:
    """The file of a routine, with the pictures that it uses."""
    return json.dumps(document_of(routine), indent=1, ensure_ascii=False).encode() + b"\n"


def routine_file_schema() -> dict[str, Any]:
    """JSON Schema (2020-12) of what :func:`read_routine` takes."""
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **Routine.model_json_schema()}


def _require_marks(marks: tuple[Mark, ...], routine: Routine, where: str) -> None:
    for at, mark in enumerate(marks):
        if mark.style is not None and mark.style not in routine.styles:
            raise RoutineError(f"{where}.marks[{at}].style: the routine has no style “{mark.style}”.")
        picture = getattr(mark, "picture", None)
        if picture is not None and picture not in routine.pictures:
            raise RoutineError(f"{where}.marks[{at}].picture: the routine has no picture “{picture}”.")


def _require_dressing(step: DressStep, routine: Routine) -> None:
    caption, stamp = step.dressing.caption, step.dressing.stamp
    if caption is not None and (problem := caption.problem()):
        raise RoutineError(f"The caption: {problem}")
    if stamp is not None and stamp.picture is not None and stamp.picture not in routine.pictures:
        raise RoutineError(f"The routine has no picture “{stamp.picture}”.")


def _require_way(step: OutStep) -> None:
    if step.names.strip():
        Pattern(step.names)
    if step.way == "pdf":
        from tallpage.core.pdf import parse_paper

        parse_paper(step.paper)
    if step.way == "folder" and not step.folder.strip():
        raise RoutineError("It is not said into which folder the files go.")
    if step.way == "upload" and not step.outlet.strip():
        raise RoutineError("It is not said which outlet takes the files.")


def _picture(name: str, data: bytes) -> bytes:
    try:
        return small_png(data)
    except PictureError as error:
        raise RoutineError(f"pictures.{name}: {error.sentence}") from error
