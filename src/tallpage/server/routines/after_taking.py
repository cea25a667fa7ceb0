"""What happens with a page once it is taken, as the person has set it: a routine, or a file in a folder."""

from __future__ import annotations

from typing import Annotated, Any

from django.db import transaction
from pathvalidate import sanitize_filename
from pydantic import Field, TypeAdapter

from tallpage.core.errors import RoutineError, TallPageError
from tallpage.server.handover.rights import options_with_rights
from tallpage.server.handover.selection import Selection
from tallpage.server.handover.working import order
from tallpage.server.jobs.apart import each_apart
from tallpage.server.jobs.models import Job
from tallpage.server.preferences.catalogue import Setting, register_setting
from tallpage.server.preferences.kinds import choice, line
from tallpage.server.preferences.values import value_of
from tallpage.server.routines.models import AfterTaking, Routine
from tallpage.server.routines.runs import start_run
from tallpage.server.shelf.models import Capture

_MOST_CHARS = 80
_PENDING = (Job.State.QUEUED, Job.State.RUNNING)
_AT_ONCE = 20
_WHAT = (
    ("stay", "Nothing: it lies on the shelf"),
    ("bench", "Its Bench opens"),
    ("routine", "A routine is run over it"),
    ("folder", "It is saved in a folder, as PNG"),
)


def register() -> None:
    """Have the settings known."""
    register_setting(
        choice(
            "after.what",
            "After a page is taken",
            "What happens then",
            "This happens with each page taken by its address; sweeps and routines say it themselves.",
            _WHAT,
            variable="TALLPAGE_AFTER",
        )
    )
    register_setting(
        Setting(
            name="after.routine",
            group="After a page is taken",
            words="The routine",
            effect="It is run over each page, where a routine is to be run.",
            kind="routine",
            check=TypeAdapter(Annotated[str, Field(max_length=120)]),
            usual=lambda: "",
        )
    )
    register_setting(
        line(
            "after.folder",
            "After a page is taken",
            "The folder",
            "Pages are saved in this folder, where they are to be saved; it is made where files go.",
            usual=lambda: "taken",
            most_chars=_MOST_CHARS,
            variable="TALLPAGE_AFTER_FOLDER",
        )
    )


def note_ordered(capture: Capture, person: str, **_: object) -> None:
    """Keep what is to be done with a page, when something is; within the transaction that orders it."""
    what = value_of("after.what", person)
    names = {"routine": value_of("after.routine", person), "folder": value_of("after.folder", person)}
    if names.get(what):
        AfterTaking.objects.create(
            capture=capture,
            what=what,
            name=names[what],
            pattern=value_of("files.pattern", person) if what == "folder" else "",
            person=person,
        )


def follow_up() -> bool:
    """Do what is due; it never has to be soon again. A page that was not taken needs nothing."""
    due = AfterTaking.objects.exclude(capture__job__state__in=_PENDING).select_related("capture")
    each_apart(due[:_AT_ONCE], _follow_once, fail=_give_up)
    return False


@transaction.atomic  # it is begun as a writer, so two supervisors take turns
def _follow_once(row: AfterTaking) -> None:
    still = AfterTaking.objects.filter(pk=row.pk).select_related("capture").first()
    if still is not None:
        _follow(still)
        still.delete()


def _give_up(row: AfterTaking, reason: str) -> None:
    _warn(row, reason)
    AfterTaking.objects.filter(pk=row.pk).delete()


def _follow(row: AfterTaking) -> None:
    capture = row.capture
    if not capture.storage_key or capture.deleted_at is not None:
        return
    try:
        with transaction.atomic():
            if row.what == AfterTaking.What.RUN:
                _run(row)
            else:
                _save(row)
    except TallPageError as error:
        _warn(row, error.in_one_line())


def _warn(row: AfterTaking, reason: str) -> None:
    words = "No routine was run" if row.what == AfterTaking.What.RUN else "It was not saved in the folder"
    row.capture.warnings = [*row.capture.warnings, f"{words}: {reason}"]
    row.capture.save(update_fields=["warnings"])


def _run(row: AfterTaking) -> None:
    routine = Routine.objects.filter(name=row.name).first()
    if routine is None:
        raise RoutineError(
            f"there is no routine “{row.name}” any more.", hint="Choose another under Settings."
        )
    start_run(routine, captures=[row.capture_id], person=row.person)


def _save(row: AfterTaking) -> None:
    options: dict[str, Any] = {
        "folder": sanitize_filename(row.name, platform="universal", max_len=_MOST_CHARS),
        "pattern": row.pattern,
        "joined": True,
    }
    options = options_with_rights([row.capture], options, uncleared=True)
    order("folder", Selection(captures=(row.capture_id,), pictures=True), options, person=row.person)
