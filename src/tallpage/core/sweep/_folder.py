"""A sweep into a folder: pictures under names of a pattern, and a manifest of them."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import asdict, dataclass, replace
from datetime import datetime
from pathlib import Path

from tallpage.core.capture import PageRequest, Screen
from tallpage.core.cut import Cut
from tallpage.core.file_names import Namer, Pattern
from tallpage.core.files import storage_errors
from tallpage.core.handover import FolderChannel, ManifestRow, with_manifest
from tallpage.core.routine import Routine, RunEnded, SlotOrder, document_of
from tallpage.core.sweep._journal import Journal
from tallpage.core.sweep._naming import Named
from tallpage.core.sweep._pace import Pace
from tallpage.core.sweep._pages import BadLine, PageList
from tallpage.core.sweep._running import take_all
from tallpage.core.sweep._shots import Outcome, Shot, ShotFile


@dataclass(frozen=True, slots=True, kw_only=True)
class SweepOrder:
    """Pages × screens, and pictures. ``how`` says how each page is taken; its own address and screen do not
    count."""

    pages: PageList
    screens: tuple[Screen, ...]
    how: PageRequest
    pattern: Pattern
    slots: tuple[SlotOrder, ...] = ()
    cut: Cut | None = None
    """What of every page is shown; None: all of it."""
    pictures: tuple[Path, ...] = ()
    routine: Routine | None = None
    """Says instead what is shown, and which files are made of it."""


@dataclass(frozen=True, slots=True)
class _Planned:
    address: str
    """Empty for a picture."""
    line: int
    number: int
    shot: Shot

    @property
    def named(self) -> str:
        """What its row of the manifest calls it."""
        return self.address or str(self.shot.picture)


def sweep_into(
    folder: Path,
    order: SweepOrder,
    *,
    pace: Pace,
    workers: int,
    resume: bool = False,
    on_row: Callable[[int, int], None] = lambda _done, _all: None,
) -> list[ManifestRow]:
    """Take everything into ``folder``, which is made; returns the rows of its manifest.

    With ``resume``, what was taken before stays, and what failed is tried again. ``on_row`` hears
    how many shots are done, of how many.

    Raises:
        RunEnded: a routine is to end at what it met; what was made before stays.
        ListError: the folder holds another sweep, or this one and ``resume`` was not asked for.
        StorageError: it cannot be written, or the disk is full; what was taken stays.
    """
    planned = list(_planned(order))
    journal = Journal(folder, _fingerprint(order), resume=resume)
    done = {key: row for key, row in journal.outcomes.items() if not row.error}
    naming = _Naming(folder, order, planned, journal, done)
    naming.go_on()
    named = {row.shot.key: row.named for row in planned}

    def on_outcome(outcome: Outcome) -> None:
        journal.note(outcome)
        if outcome.ends_run:
            raise RunEnded(f"{named[outcome.key]}: {outcome.error}")
        done[outcome.key] = outcome
        naming.go_on()
        on_row(len(done), len(planned))

    missing = [row.shot for row in planned if row.shot.key not in done]
    on_row(len(done), len(planned))
    take_all(missing, journal.parts, pace=pace, workers=workers, on_outcome=on_outcome)
    rows = [row for _, row in sorted(naming.rows(), key=lambda numbered: numbered[0])]
    FolderChannel(folder).send(with_manifest(rows))
    return rows


def _planned(order: SweepOrder) -> Iterator[_Planned]:
    pages = order.pages.pages
    digits = len(str(len(pages) + len(order.pictures)))
    plain = Shot(key="", slots=order.slots, cut=order.cut, routine=order.routine)
    for number, page in enumerate(pages, start=1):
        for at, screen in enumerate(order.screens, start=1):
            request = replace(order.how, address=page.address, screen=screen)
            shot = replace(plain, key=f"{str(number).zfill(digits)}-{at}", request=request)
            yield _Planned(page.address, page.line, number, shot)
    for number, picture in enumerate(order.pictures, start=len(pages) + 1):
        shot = replace(plain, key=f"{str(number).zfill(digits)}-1", picture=picture)
        yield _Planned("", number, number, shot)


def _fingerprint(order: SweepOrder) -> object:
    """What makes two sweeps the same, in plain types; a sign-in may have been renewed meanwhile."""
    how = asdict(replace(order.how, sign_in=None, address="", screen=order.screens[0]))
    slots = [_slot_words(slot) for slot in order.slots]
    pages = [page.address for page in order.pages.pages]
    plan: list[object] = [
        pages,
        [repr(screen) for screen in order.screens],
        repr(how),
        order.pattern.text,
        slots,
    ]
    # What came later is part of it only where it is asked for: a sweep begun before is gone on with.
    if order.cut is not None:
        plan.append(order.cut.as_json())
    if order.routine is not None:
        plan.append([document_of(order.routine), [str(picture) for picture in order.pictures]])
    return plan


def _slot_words(slot: SlotOrder) -> str:
    """A slot in the words of earlier versions: a sweep that one of them began is gone on with."""
    rules, order = slot.rules, slot.order
    facts = (
        f"sizing={rules.sizing!r}, limit_bytes={order.limit_bytes!r}, formats={order.formats!r}, "
        f"fidelity={order.fidelity!r}, greatest_height_px={rules.greatest_height_px!r}, "
        f"background={rules.background!r}, choice={order.choice!r}"
    )
    return f"SlotOrder(name={slot.name!r}, order=FitOrder({facts}))"


class _Naming:
    """Gives files their final names in the order of the list, as soon as all before them are done:
    so two pages of one title get the same names however the sweep went."""

    def __init__(
        self,
        folder: Path,
        order: SweepOrder,
        planned: Sequence[_Planned],
        journal: Journal,
        done: dict[str, Outcome],
    ) -> None:
        self._folder = folder
        self._order = order
        self._planned = planned
        self._journal = journal
        self._done = done
        self._namer = Namer(order.pattern, given=journal.names.values())
        self._at = 0

    def go_on(self) -> None:
        """Name whatever is next in order."""
        while self._at < len(self._planned) and self._planned[self._at].shot.key in self._done:
            planned = self._planned[self._at]
            outcome = self._done[planned.shot.key]
            for file in outcome.files:
                if file.part:
                    self._move(planned, outcome, file)
            self._at += 1

    def rows(self) -> Iterator[tuple[int, ManifestRow]]:
        """``(line of the list, row)`` of every picture, page that failed, and bad line."""
        for bad in self._order.pages.bad:
            yield bad.line, _bad_row(bad)
        for planned in self._planned:
            outcome = self._done[planned.shot.key]
            row = ManifestRow(
                address=planned.named,
                final_address=outcome.final_address,
                title=outcome.title,
                status=outcome.status,
                screen=str(planned.shot.request.screen) if planned.shot.request else "",
                whole=outcome.whole,
                warnings=outcome.warnings,
                error=outcome.error,
            )
            if outcome.error or outcome.skipped:
                yield planned.line, row
            for file in outcome.files:
                yield planned.line, _file_row(row, file, self._journal.names.get(file.part, ""))

    def _move(self, planned: _Planned, outcome: Outcome, file: ShotFile) -> None:
        path = self._journal.names.get(file.part)
        if path is None:
            named = Named(
                address=outcome.final_address,
                title=outcome.title,
                screen=planned.shot.request.screen if planned.shot.request else None,
                taken_at=datetime.fromisoformat(outcome.taken_at),
                number=planned.number,
                of=len(self._order.pages.pages) + len(self._order.pictures),
                width_px=file.width_px,
                slot=file.slot,
            )
            path = self._namer.name(named.values(), file.extension, part=file.leaf)
            self._journal.note_name(file.part, path)
        part, target = self._journal.parts / file.part, self._folder / path
        if part.exists():
            with storage_errors(self._folder):
                target.parent.mkdir(parents=True, exist_ok=True)
                part.replace(target)


def _bad_row(bad: BadLine) -> ManifestRow:
    return ManifestRow(address=bad.text, error=f"Line {bad.line}: {bad.sentence}")


def _file_row(row: ManifestRow, file: ShotFile, path: str) -> ManifestRow:
    if not file.part:
        return replace(row, error=" ".join(file.warnings), slot=file.slot, met=file.met)
    return replace(
        row,
        width_px=file.width_px,
        height_px=file.height_px,
        bytes=file.bytes,
        file=path,
        warnings=(*row.warnings, *file.warnings),
        slot=file.slot,
        fidelity=None if file.fidelity is None else round(file.fidelity, 1),
        met=file.met,
    )
