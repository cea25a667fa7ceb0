"""A sweep into a folder: pictures under names of a pattern, and a manifest of them."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import asdict, dataclass, replace
from datetime import datetime
from pathlib import Path

from tallpage.core.capture import PageRequest, Screen
from tallpage.core.cut import Cut
from tallpage.core.files import storage_errors
from tallpage.core.handover import FolderChannel, ManifestRow, with_manifest
from tallpage.core.sweep._journal import Journal
from tallpage.core.sweep._naming import Named
from tallpage.core.sweep._pace import Pace
from tallpage.core.sweep._pages import BadLine, ListedPage, PageList
from tallpage.core.sweep._pattern import Namer, Pattern
from tallpage.core.sweep._running import take_all
from tallpage.core.sweep._shots import Outcome, Shot, ShotFile, SlotOrder


@dataclass(frozen=True, slots=True, kw_only=True)
class SweepOrder:
    """Pages × screens. ``how`` says how each is taken; its own address and screen do not count."""

    pages: PageList
    screens: tuple[Screen, ...]
    how: PageRequest
    pattern: Pattern
    slots: tuple[SlotOrder, ...] = ()
    cut: Cut | None = None
    """What of every page is shown; None: all of it."""


@dataclass(frozen=True, slots=True)
class _Planned:
    page: ListedPage
    number: int
    shot: Shot


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
        ListError: the folder holds another sweep, or this one and ``resume`` was not asked for.
        StorageError: it cannot be written, or the disk is full; what was taken stays.
    """
    planned = list(_planned(order))
    journal = Journal(folder, _fingerprint(order), resume=resume)
    done = {key: row for key, row in journal.outcomes.items() if not row.error}
    naming = _Naming(folder, order, planned, journal, done)
    naming.go_on()

    def on_outcome(outcome: Outcome) -> None:
        journal.note(outcome)
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
    digits = len(str(len(order.pages.pages)))
    for number, page in enumerate(order.pages.pages, start=1):
        for at, screen in enumerate(order.screens, start=1):
            request = replace(order.how, address=page.address, screen=screen)
            key = f"{str(number).zfill(digits)}-{at}"
            yield _Planned(page, number, Shot(key=key, request=request, slots=order.slots, cut=order.cut))


def _fingerprint(order: SweepOrder) -> object:
    """What makes two sweeps the same, in plain types; a sign-in may have been renewed meanwhile."""
    how = asdict(replace(order.how, sign_in=None, address="", screen=order.screens[0]))
    slots = [_slot_words(slot) for slot in order.slots]
    pages = [page.address for page in order.pages.pages]
    plan = [pages, [repr(screen) for screen in order.screens], repr(how), order.pattern.text, slots]
    return plan if order.cut is None else [*plan, order.cut.as_json()]


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
                address=planned.page.address,
                final_address=outcome.final_address,
                title=outcome.title,
                status=outcome.status,
                screen=str(planned.shot.request.screen),
                whole=outcome.whole,
                warnings=outcome.warnings,
                error=outcome.error,
            )
            if outcome.error:
                yield planned.page.line, row
            for file in outcome.files:
                yield planned.page.line, _file_row(row, file, self._journal.names.get(file.part, ""))

    def _move(self, planned: _Planned, outcome: Outcome, file: ShotFile) -> None:
        path = self._journal.names.get(file.part)
        if path is None:
            named = Named(
                address=outcome.final_address,
                title=outcome.title,
                screen=planned.shot.request.screen,
                taken_at=datetime.fromisoformat(outcome.taken_at),
                number=planned.number,
                of=len(self._order.pages.pages),
                width_px=file.width_px,
                slot=file.slot,
            )
            path = self._namer.name(named.values(), file.extension)
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
        return replace(row, error=" ".join(file.warnings))
    return replace(
        row,
        width_px=file.width_px,
        height_px=file.height_px,
        bytes=file.bytes,
        file=path,
        warnings=(*row.warnings, *file.warnings),
    )
