"""Values that are left open: asked for when a routine runs, with what stands in the step as the usual one."""

from __future__ import annotations

import json
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Any

from pydantic import ValidationError

from tallpage.core.document_problems import problem_in_words
from tallpage.core.errors import FitError, RoutineError
from tallpage.core.routine.models import OpenValue, Routine
from tallpage.core.units import parse_byte_count

Value = str | int | float | bool | None
_UNASKED = ("kind", "off", "ask", "if_missing")


@dataclass(frozen=True, slots=True, kw_only=True)
class Question:
    """What a person is asked before a routine runs."""

    name: str
    words: str
    usual: Value
    step: int
    """Which step it is about, from 0."""
    field: str


def questions_of(routine: Routine) -> list[Question]:
    """What is asked, in the order of the steps; a name that stands in several is asked for once."""
    found: dict[str, Question] = {}
    for at, asked, usual in _asked(routine):
        found.setdefault(
            asked.name, Question(name=asked.name, words=asked.words, usual=usual, step=at, field=asked.field)
        )
    return list(found.values())


def require_askable(routine: Routine) -> None:
    """Refuse open values that stand for no field, or for one that cannot be typed.

    Raises:
        RoutineError: there is one.
    """
    for at, asked, usual in _asked(routine, with_off=True):
        where = f"steps[{at}].ask: “{asked.name}”"
        if asked.field.split(".")[0] in _UNASKED:
            raise RoutineError(f"{where} cannot stand for {asked.field}.")
        if usual is not None and not isinstance(usual, str | int | float | bool):
            raise RoutineError(f"{where}: {asked.field} is no single value.")


def answered(routine: Routine, answers: Mapping[str, Value]) -> Routine:
    """The routine with values in place of those that are open; those not named keep their usual one.

    A text is read as the field wants it: ``600``, ``90kB`` or ``yes``.

    Raises:
        RoutineError: a name that is not asked for, or a value that the field does not take.
    """
    known = {question.name for question in questions_of(routine)}
    unknown = next((name for name in answers if name not in known), None)
    if unknown is not None:
        names = ", ".join(sorted(known)) or "nothing"
        raise RoutineError(
            f"The routine does not ask for “{unknown}”.",
            hint=f"It asks for {names}.",
            code="routine_value",
        )
    if not answers:
        return routine
    steps = list(routine.steps)
    for at, asked, _ in _asked(routine):
        if asked.name in answers:
            steps[at] = _with(steps[at], asked, answers[asked.name])
    return routine.model_copy(update={"steps": tuple(steps)})


def _asked(routine: Routine, *, with_off: bool = False) -> Iterator[tuple[int, OpenValue, Value]]:
    for at, step in enumerate(routine.steps):
        if step.off and not with_off:
            continue
        for asked in step.ask:
            yield at, asked, _field_of(step, asked, at)


def _field_of(step: Any, asked: OpenValue, at: int) -> Any:
    value = step
    for name in asked.field.split("."):
        if value is None or name not in getattr(type(value), "model_fields", {}):
            raise RoutineError(f"steps[{at}].ask: the step has no field “{asked.field}”.")
        value = getattr(value, name)
    return value


def _with(step: Any, asked: OpenValue, answer: Value) -> Any:
    """A step with an answer in it, as the first of its readings that the field takes."""
    problem = ""
    for value in _readings(asked.field, answer):
        document = step.model_dump(mode="json")
        *outer, last = asked.field.split(".")
        place = document
        for name in outer:
            place = place.setdefault(name, {})
        place[last] = value
        try:
            return type(step).model_validate_json(json.dumps(document), strict=True)
        except ValidationError as error:
            problem = problem or problem_in_words(error.errors()[0], "The step")
    raise RoutineError(
        f"“{answer}” cannot be given for {asked.name}.",
        hint=f"{asked.words}: {problem}",
        code="routine_value",
    )


def _readings(field: str, answer: Value) -> Iterator[Value]:
    if not isinstance(answer, str):
        yield answer
        return
    text = answer.strip()
    if field.endswith("_bytes"):
        try:
            yield parse_byte_count(text)
        except FitError as error:
            raise RoutineError(error.sentence, hint=error.hint, code="routine_value") from error
        return
    if text.casefold() in ("yes", "no"):
        yield text.casefold() == "yes"
    try:
        read = json.loads(text)
    except ValueError:
        read = None
    if isinstance(read, bool | int | float):
        yield read
    yield answer
