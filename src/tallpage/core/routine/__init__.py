"""Chains of steps that are run over any number of captures: as a file, on a page, out of what was done."""

from tallpage.core.routine._applying import apply_as_far_as_possible, apply_routine
from tallpage.core.routine._asking import Question, Value, questions_of
from tallpage.core.routine._file import (
    document_of,
    read_routine,
    routine_file_schema,
    routine_of,
    with_answers,
    write_routine,
)
from tallpage.core.routine._finding_blocks import find_block, fitting_blocks
from tallpage.core.routine._keeping import routine_of_cut, slot_of_rules
from tallpage.core.routine._making import MadeFile, make_files
from tallpage.core.routine._orders import SlotOrder, request_of, slots_of
from tallpage.core.routine._page import Applied, Page, PictureSkipped, RunEnded, StepWarning
from tallpage.core.routine._rules import Anchor, BlockRule
from tallpage.core.routine._starters import starter_names, starter_routine
from tallpage.core.routine.models import (
    MOST_FILE_BYTES,
    STAGES,
    VERSION,
    OutStep,
    Routine,
    SlotStep,
    TakeStep,
    stage_of,
)

__all__ = [
    "MOST_FILE_BYTES",
    "STAGES",
    "VERSION",
    "Anchor",
    "Applied",
    "BlockRule",
    "MadeFile",
    "OutStep",
    "Page",
    "PictureSkipped",
    "Question",
    "Routine",
    "RunEnded",
    "SlotOrder",
    "SlotStep",
    "StepWarning",
    "TakeStep",
    "Value",
    "apply_as_far_as_possible",
    "apply_routine",
    "document_of",
    "find_block",
    "fitting_blocks",
    "make_files",
    "questions_of",
    "read_routine",
    "request_of",
    "routine_file_schema",
    "routine_of",
    "routine_of_cut",
    "slot_of_rules",
    "slots_of",
    "stage_of",
    "starter_names",
    "starter_routine",
    "with_answers",
    "write_routine",
]
