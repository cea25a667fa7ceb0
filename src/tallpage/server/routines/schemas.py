"""What the API takes and gives of routines and their runs."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from ninja import Field, Schema

from tallpage.core.routine import Question, questions_of, stage_of
from tallpage.server.routines.models import Routine, RoutineVersion, RunItem

Value = str | int | float | bool | None


class QuestionOut(Schema):
    """What a person is asked before a routine runs; ``usual`` is what stands in the step."""

    name: str
    words: str
    usual: Value
    step: int
    field: str

    @staticmethod
    def of(question: Question) -> QuestionOut:
        """A question of the core."""
        return QuestionOut(
            name=question.name,
            words=question.words,
            usual=question.usual,
            step=question.step,
            field=question.field,
        )


class RoutineOut(Schema):
    """A routine in a list."""

    id: int
    name: str
    note: str
    key: int | None
    version: int
    steps: list[str]
    """The kinds of its steps that are not off, in order."""
    questions: list[QuestionOut]
    made: int
    """How many pictures it was run over, trials left out."""

    @staticmethod
    def of(routine: Routine) -> RoutineOut:
        """A routine with its newest version."""
        return RoutineOut(**_told(routine, routine.newest))


class RoutineVersionOut(Schema):
    """A version, and how many pictures were made with it."""

    number: int
    changed_by: str
    created_at: datetime
    made: int


class RoutineDetailOut(RoutineOut):
    """A routine with all that it says. ``changes`` goes along when it is changed."""

    document: dict[str, Any]
    changes: int
    versions: list[RoutineVersionOut]

    @staticmethod
    def of_all(routine: Routine) -> RoutineDetailOut:
        """A routine with its versions."""
        newest = routine.newest
        return RoutineDetailOut(
            **_told(routine, newest),
            document=newest.document,
            changes=newest.changes,
            versions=[
                RoutineVersionOut(
                    number=row.number,
                    changed_by=row.changed_by,
                    created_at=row.created_at,
                    made=_made_with(row),
                )
                for row in routine.versions.all()
            ],
        )


class StarterOut(Schema):
    """A routine that ships, to begin with."""

    name: str
    title: str
    note: str


class NewRoutineIn(Schema):
    """A new routine: what it says, one that ships by its name, or a cut from which it is kept."""

    document: dict[str, Any] | None = None
    starter: str | None = None
    cut_id: int | None = None
    name: str = Field(default="", max_length=120)


class ChangeRoutineIn(Schema):
    """What a routine says from now on; ``changes`` as it was read."""

    document: dict[str, Any]
    changes: int


class RoutineKeyIn(Schema):
    """The digit that runs a routine; none where it is null."""

    key: int | None = Field(ge=1, le=9)


class RoutineOrderIn(Schema):
    """Routines in an order."""

    ids: list[int] = Field(max_length=1_000)


class StepLookOut(Schema):
    """What a step does to a sample; see ``looks``."""

    key: str
    changes: bool
    width_px: int
    height_px: int
    said: str


def _told(routine: Routine, newest: RoutineVersion) -> dict[str, Any]:
    chain = newest.chain()
    steps = sorted((step for step in chain.steps if not step.off), key=lambda step: stage_of(step.kind))
    return {
        "id": routine.pk,
        "name": routine.name,
        "note": chain.note,
        "key": routine.key,
        "version": newest.number,
        "steps": [step.kind for step in steps],
        "questions": [QuestionOut.of(question) for question in questions_of(chain)],
        "made": RunItem.objects.filter(
            run__version__routine=routine, run__trial=False, state=RunItem.State.DONE
        ).count(),
    }


def _made_with(version: RoutineVersion) -> int:
    return RunItem.objects.filter(run__version=version, run__trial=False, state=RunItem.State.DONE).count()
