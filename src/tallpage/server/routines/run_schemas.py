"""What the API takes and gives of runs and watched folders."""

from __future__ import annotations

from datetime import datetime
from typing import Any, Literal, cast

from ninja import Field, Schema

from tallpage.server.outlets import ledger
from tallpage.server.outlets.models import Output
from tallpage.server.routines.models import Run, RunItem, WatchedFolder
from tallpage.server.routines.schemas import Value

ItemState = Literal["waiting", "taking", "applying", "making", "done", "skipped", "failed", "stopped"]
RunMode = Literal["go_on", "pause", "stop"]
_MOST_VALUES = 100


class RunIn(Schema):
    """What a routine is run over, and the values that it asks for."""

    captures: list[int] = Field(default=[], max_length=20_000)
    addresses: list[str] = Field(default=[], max_length=20_000)
    sweep_id: int | None = None
    values: dict[str, Value] = Field(default={}, max_length=_MOST_VALUES)
    trial: bool = False


class RunModeIn(Schema):
    """Whether a run goes on, pauses, or stops."""

    mode: RunMode


class MadeFileOut(Schema):
    """A file of an item: made, on its way, or what would be made."""

    output_id: int | None
    slot: str
    state: str
    """Of its job; ``done`` for what was tried."""
    width: int
    height: int
    bytes: int | None
    limit: int | None
    fidelity: float | None
    format: str
    met: bool
    error: str = ""

    @staticmethod
    def of_output(row: Output) -> MadeFileOut:
        """A row of the ledger."""
        weakest = ledger.weakest(row)
        width_px, height_px = (weakest.width_px, weakest.height_px) if weakest else (0, 0)
        files = list(row.files.all())
        return MadeFileOut(
            output_id=row.pk,
            slot=row.label,
            state=row.job.state,
            width=width_px,
            height=height_px if len(files) < 2 else sum(file.height_px for file in files),
            bytes=sum(file.bytes for file in files) if files else None,
            limit=row.limit_bytes,
            fidelity=weakest.fidelity if weakest else None,
            format=weakest.format if weakest else "",
            met=row.met,
            error=str((row.job.error or {}).get("sentence", "")),
        )

    @staticmethod
    def of_trial(told: dict[str, Any]) -> MadeFileOut:
        """A file that was only tried."""
        part = told.get("part", "")
        return MadeFileOut(
            output_id=None,
            slot=f"{told['slot']} {part}".strip(),
            state="done",
            width=told.get("width") or 0,
            height=told.get("height") or 0,
            bytes=told.get("bytes"),
            limit=told.get("limit"),
            fidelity=told.get("fidelity"),
            format=told.get("format") or "",
            met=bool(told.get("met")),
            error=told.get("error", ""),
        )


class BeforeOut(Schema):
    """What an earlier version made of the same picture. ``look`` is empty once its cut has gone for good."""

    version: int
    item_id: int
    look: str
    files: list[MadeFileOut]


class RunItemOut(Schema):
    """One picture of a run. ``look`` names its picture, empty before there is one."""

    id: int
    number: int
    name: str
    state: ItemState
    capture_id: int | None
    cut_id: int | None
    warnings: list[str]
    error: str
    look: str
    needs_a_look: bool
    files: list[MadeFileOut]
    before: BeforeOut | None
    document_id: int | None
    """Line of the log of the document that was made of it."""

    @staticmethod
    def of(item: RunItem) -> RunItemOut:
        """An item with its files."""
        files = files_of(item)
        replaced = item.replaces
        before = None
        if replaced:
            before = BeforeOut(
                version=replaced.run.version.number,
                item_id=replaced.pk,
                look=_look_of(replaced),
                files=files_of(replaced),
            )
        return RunItemOut(
            id=item.pk,
            number=item.number,
            name=item.name,
            state=cast(ItemState, item.state),
            capture_id=item.capture_id,
            cut_id=item.cut_id,
            warnings=item.warnings,
            error=item.error,
            look=_look_of(item),
            needs_a_look=needs_a_look(item, files),
            files=files,
            before=before,
            document_id=item.hand_over_id,
        )


class RunOut(Schema):
    """A run, and how far it is."""

    id: int
    routine_id: int
    routine: str
    version: int
    newest_version: int
    subject: str
    trial: bool
    mode: RunMode
    finished: bool
    ended_by: str
    note: str
    values: dict[str, Value]
    counts: dict[str, int]
    """Items by their state, and ``all``."""
    sweep_id: int | None
    watched_folder: str
    hand_over_id: int | None
    created_at: datetime
    finished_at: datetime | None

    @staticmethod
    def of(run: Run, counts: dict[str, int]) -> RunOut:
        """A run with its counts."""
        return RunOut(
            id=run.pk,
            routine_id=run.version.routine_id,
            routine=run.version.document.get("name", ""),
            version=run.version.number,
            newest_version=max(row.number for row in run.version.routine.versions.all()),
            subject=run.subject,
            trial=run.trial,
            mode=cast(RunMode, run.stop_mode),
            finished=run.finished_at is not None,
            ended_by=run.ended_by,
            note=run.note,
            values=run.values,
            counts=counts,
            sweep_id=run.sweep_id,
            watched_folder=run.watched_folder,
            hand_over_id=run.hand_over_id,
            created_at=run.created_at,
            finished_at=run.finished_at,
        )


class RunItemsOut(Schema):
    """Some items of a run, those that need a look first."""

    items: list[RunItemOut]
    total: int


class RetriedOut(Schema):
    """How many are tried once more."""

    again: int


class WatchedFolderIn(Schema):
    """A folder to be watched: its name below the data folder, and the values that the routine asks for."""

    name: str = Field(min_length=1, max_length=80)
    routine_id: int
    values: dict[str, Value] = Field(default={}, max_length=_MOST_VALUES)


class WatchedFolderOut(Schema):
    """A watched folder, and what kept the last picture from being taken in."""

    id: int
    name: str
    path: str
    routine_id: int
    routine: str
    problem: str

    @staticmethod
    def of(row: WatchedFolder, path: str) -> WatchedFolderOut:
        """A folder with its path."""
        return WatchedFolderOut(
            id=row.pk,
            name=row.name,
            path=path,
            routine_id=row.routine_id,
            routine=row.routine.name,
            problem=row.problem,
        )


def _look_of(item: RunItem) -> str:
    """What names the picture of an item; another one once its cut was changed."""
    return item.look or (f"{item.cut_id}-{item.cut.version}" if item.cut else "")


def files_of(item: RunItem) -> list[MadeFileOut]:
    """The files of an item, or what its trial told."""
    if item.files:
        return [MadeFileOut.of_trial(told) for told in item.files]
    return [MadeFileOut.of_output(row) for row in item.outputs.all()]


def needs_a_look(item: RunItem, files: list[MadeFileOut]) -> bool:
    """Whether something of an item is not as it was asked."""
    if item.state in (RunItem.State.FAILED, RunItem.State.SKIPPED) or item.warnings:
        return True
    return item.state == RunItem.State.DONE and any(not file.met for file in files)
