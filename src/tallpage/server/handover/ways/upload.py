"""Upload to the place that an outlet stands for."""

from __future__ import annotations

import time
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import PurePosixPath

from django.conf import settings

from tallpage.core.capture import require_public
from tallpage.core.errors import HandOverError
from tallpage.core.handover import Item
from tallpage.core.uploads import (
    FolderTarget,
    FormTarget,
    Target,
    UploadFile,
    WebDavTarget,
    require_web,
    upload,
)
from tallpage.server.handover.fitness import measured, require_fitting
from tallpage.server.handover.models import HandOver, Published, UploadPlace
from tallpage.server.handover.selection import Selection
from tallpage.server.handover.ways.base import Outcome, go_on, named_items, only_files
from tallpage.server.jobs.queue import Signals
from tallpage.server.outlets.models import Output
from tallpage.server.preferences.out_folder import out_folder
from tallpage.server.signins.encryption import unseal

_TICK_S = 0.2


@dataclass(frozen=True, slots=True)
class Sent:
    """What became of a file."""

    name: str
    byte_count: int
    address: str
    was_there: bool


class UploadWay:
    """Each file by itself. What the place has taken once is not sent there again."""

    def check(self, line: HandOver, selection: Selection) -> None:
        """Refuse files that break the outlet's own rules, before anything is sent."""
        place = place_of(line)
        line.where = place.outlet.name
        target_of(place)
        require_fitting(place.outlet, measured(selection.rows()))

    def send(self, line: HandOver, selection: Selection, signals: Signals) -> Outcome:
        """Send what is not there yet.

        Raises:
            HandOverError: the place did not take a file; those before it stay published.
        """
        place = place_of(line)
        target = target_of(place)
        items = list(only_files(named_items(line, selection, beside=False)))
        rows = [row for row in selection.rows() for _ in row.files.all()]
        sent = []
        for number, (item, row) in enumerate(zip(items, rows, strict=True)):
            go_on(signals)
            signals.report("sending", number, len(items))
            file = _file(item)
            sent.append(published(place, target, file, row, lambda seconds: _wait(seconds, signals)))
        return _outcome(sent, place.outlet.name)


def published(
    place: UploadPlace,
    target: Target,
    file: UploadFile,
    row: Output | None = None,
    wait: Callable[[float], object] = time.sleep,
) -> Sent:
    """Have a file published, unless it is.

    Raises:
        HandOverError: the place did not take it.
    """
    known = Published.objects.filter(outlet=place.outlet, key=file.key).first()
    if known is not None:
        return Sent(file.name, len(file.data), known.address, was_there=True)
    answer = upload(target, file, wait=wait)
    if answer.outcome != "accepted":
        raise HandOverError(
            f"{file.name}: {answer.sentence}", hint=answer.hint, code=f"upload_{answer.outcome}"
        )
    # At once: should the worker be killed, the file is known to be there.
    Published.objects.get_or_create(
        outlet=place.outlet,
        key=file.key,
        defaults={"output": row, "name": file.name, "address": answer.address},
    )
    return Sent(file.name, len(file.data), answer.address, was_there=answer.was_there)


def place_of(line: HandOver) -> UploadPlace:
    """Where the outlet of a line is uploaded to.

    Raises:
        HandOverError: it has no upload.
    """
    place = UploadPlace.objects.select_related("outlet").filter(outlet=line.options.get("outlet")).first()
    if place is None:
        raise HandOverError(
            "This outlet has no upload.", hint="Say where its files go, under Outlets.", code="upload_missing"
        )
    return place


def target_of(place: UploadPlace) -> Target:
    """What sends files to a place.

    Raises:
        HandOverError: its address is none of the web.
        AddressError: it is on a private network, which a server that others reach does not open.
        StorageError: what signs in there cannot be opened.
    """
    if place.kind != UploadPlace.Kind.FOLDER and not settings.ALLOW_PRIVATE:
        require_public(require_web(place.address), settings.PRIVATE_HOSTS)
    secret = str(unseal(bytes(place.sealed)).get("secret", "")) if place.sealed else ""
    match place.kind:
        case UploadPlace.Kind.FORM:
            return FormTarget(address=place.address, token=secret)
        case UploadPlace.Kind.WEBDAV:
            return WebDavTarget(address=place.address, user=place.user, password=secret)
        case _:
            return FolderTarget(folder=out_folder() / place.folder)


def _file(item: Item) -> UploadFile:
    return UploadFile(
        name=PurePosixPath(item.path).name, data=b"".join(item.pieces()), media_type=item.media_type
    )


def _wait(seconds: float, signals: Signals) -> None:
    """Wait before the next try, unless it is to stop."""
    until = time.monotonic() + seconds
    signals.report("waiting to try again")
    while time.monotonic() < until:
        go_on(signals)
        time.sleep(_TICK_S)


def _outcome(sent: list[Sent], place: str) -> Outcome:
    new = sum(not row.was_there for row in sent)
    before = len(sent) - new
    said = []
    if new:
        said.append(f"{place} has taken {'1 file' if new == 1 else f'{new} files'}.")
    if before:
        said.append(f"{'1 file was' if before == 1 else f'{before} files were'} published there already.")
    return Outcome(
        answer=" ".join(said),
        address=next((row.address for row in sent if row.address), ""),
        files=[{"name": row.name, "bytes": row.byte_count, "address": row.address} for row in sent],
    )
