"""What is saved at once: its names, and its line in the log."""

from __future__ import annotations

from collections.abc import Mapping
from itertools import islice
from typing import Any, Literal

from django.db import transaction
from slugify import slugify

from tallpage.core.errors import HandOverError
from tallpage.core.handover import Item
from tallpage.server.handover.models import HandOver
from tallpage.server.handover.names import FileNames
from tallpage.server.handover.selection import Selection
from tallpage.server.outlets.models import Output

_MOST_NAME_CHARS = 80
CopiedThing = Literal["picture", "file_address", "path", "page_address", "html", "markdown"]
_COPIED: dict[CopiedThing, str] = {
    "picture": "The picture, as PNG",
    "file_address": "The address of the file",
    "path": "The path in the data folder",
    "page_address": "The address of the page",
    "html": "The snippet, as HTML",
    "markdown": "The snippet, as Markdown",
}


def examples(selection: Selection, pattern: str, *, most: int) -> dict[str, Any]:
    """The first names that a pattern gives, and how many files there are.

    Raises:
        ListError: a pattern that says what is not known.
        HandOverError: there is nothing to be named.
    """
    names = FileNames(pattern, expected=len(selection.captured()))
    found = (entry.path for entry in selection.items(names) if isinstance(entry, Item))
    return {"names": list(islice(found, most)), "count": selection.count()}


def note_saved(selection: Selection, options: Mapping[str, Any], *, person: str = "") -> HandOver:
    """A line for files that are saved onto a person's own disk: one as it is, several as one.

    Raises:
        HandOverError: there is nothing to be saved.
        ListError: a pattern that says what is not known.
    """
    names = FileNames(str(options.get("pattern", "")), expected=len(selection.captured()))
    entries = [entry for entry in selection.items(names, beside=True) if isinstance(entry, Item)]
    if not entries:
        raise HandOverError(
            "There is no file to be saved.",
            hint="Make files first, or save the pictures.",
            code="nothing_chosen",
        )
    files = [{"name": item.path, "bytes": (item.facts and item.facts.bytes) or 0} for item in entries]
    way = HandOver.Way.FILE if len(files) == 1 else HandOver.Way.ZIP
    answer = "Saved." if len(files) == 1 else f"{len(files)} files."
    return _noted(way, selection, options, files=files, answer=answer, person=person)


def note_archive(selection: Selection, options: Mapping[str, Any], *, person: str = "") -> HandOver:
    """A line for captures that are saved as an archive, with all that their cuts hide.

    Raises:
        HandOverError: there is nothing to be saved.
    """
    captures = selection.require_captured()
    total = sum(capture.bytes for capture in captures)
    files = [{"name": archive_name(selection.subject()), "bytes": total}]
    answer = "1 capture." if len(captures) == 1 else f"{len(captures)} captures."
    return _noted(HandOver.Way.ARCHIVE, selection, options, files=files, answer=answer, person=person)


def note_copied(
    selection: Selection, thing: CopiedThing, options: Mapping[str, Any], *, person: str = ""
) -> HandOver:
    """A line for what was put into a person's clipboard.

    Raises:
        HandOverError: there is nothing that it could be of.
    """
    selection.require_captured()
    return _noted(
        HandOver.Way.COPIED, selection, options, files=[], answer=f"{_COPIED[thing]}.", person=person
    )


def archive_name(subject: str) -> str:
    """What an archive is called."""
    return f"{slugify(subject, max_length=_MOST_NAME_CHARS) or 'captures'}-archive.zip"


def note_file(output: Output, name: str, person: str, **_: object) -> None:
    """A line for a file that was saved by its button, or dragged out."""
    total = sum(file.bytes for file in output.files.all())
    files = [{"name": name, "bytes": total}]
    _noted(
        HandOver.Way.FILE, Selection(outputs=(output.pk,)), {}, files=files, answer="Saved.", person=person
    )


def _noted(
    way: str,
    selection: Selection,
    options: Mapping[str, Any],
    *,
    files: list[dict[str, Any]],
    answer: str,
    person: str,
) -> HandOver:
    with transaction.atomic():
        line = HandOver.objects.create(
            way=way,
            what=selection.as_json(),
            options=dict(options),
            subject=selection.subject()[:200],
            where="the clipboard" if way == HandOver.Way.COPIED else "this computer",
            answer=answer,
            files=files,
            person=person,
        )
        line.captures.set(selection.captured())
    return line
