"""One picture of a sweep or of a routine's run: taken, made into files, told of, in a process of its own."""

from __future__ import annotations

import ctypes
import shutil
import signal
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import asdict, dataclass, replace
from datetime import UTC, datetime
from functools import cache
from pathlib import Path
from typing import Any, Self

from tallpage.core.capture import BrowserPool, PageRequest
from tallpage.core.cut import Cut, page_facts
from tallpage.core.errors import TallPageError
from tallpage.core.files import write_whole
from tallpage.core.naming import host_of
from tallpage.core.picture import check_picture
from tallpage.core.render import (
    CaptureSource,
    PictureSource,
    Rendering,
    RenderRules,
    Source,
    save_png,
    turned,
    without_hidden_words,
)
from tallpage.core.routine import (
    MadeFile,
    OutStep,
    Page,
    PictureSkipped,
    Routine,
    RunEnded,
    SlotOrder,
    apply_routine,
    make_files,
    slots_of,
)
from tallpage.core.sizing import Sizing

_OWN_SIZE = RenderRules(sizing=Sizing(way="share", percent=100))
_PR_SET_PDEATHSIG = 1


@dataclass(frozen=True, slots=True, kw_only=True)
class Shot:
    """One page on one screen, or one picture. ``key`` is its own within the sweep, and safe as a name."""

    key: str
    request: PageRequest | None = None
    """How the page is taken; None where ``picture`` is a file."""
    picture: Path | None = None
    slots: tuple[SlotOrder, ...] = ()
    cut: Cut | None = None
    """What of each page is shown; None: all of it."""
    routine: Routine | None = None
    """Says instead what is shown, and which files are made of it."""

    @property
    def host(self) -> str:
        """Whom it presses; nobody where it is a picture."""
        return host_of(self.request.address) if self.request else ""


@dataclass(frozen=True, slots=True, kw_only=True)
class ShotFile:
    """A file that was made of a picture; ``part`` is its name until it gets its final one."""

    part: str
    extension: str
    slot: str
    width_px: int
    height_px: int
    bytes: int
    warnings: tuple[str, ...] = ()
    fidelity: float | None = None
    met: bool | None = None
    """Whether it keeps to the rules and looks acceptable; None where nothing was asked."""
    leaf: str = ""
    """Which of several it is, like ``2-of-5``."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Outcome:
    """What became of a shot: files, or an error in words."""

    key: str
    taken_at: str
    """ISO date and time, UTC."""
    final_address: str = ""
    title: str = ""
    status: int | None = None
    whole: bool | None = None
    warnings: tuple[str, ...] = ()
    files: tuple[ShotFile, ...] = ()
    error: str = ""
    skipped: bool = False
    """Whether it was left out, as its routine says; ``warnings`` tell why."""
    ends_run: bool = False
    """Whether nothing more is to be made, as its routine says; ``error`` tells why."""

    def as_json(self) -> dict[str, Any]:
        """Plain types."""
        return asdict(self)

    @classmethod
    def from_json(cls, data: dict[str, Any]) -> Self:
        """As :meth:`as_json` wrote it."""
        files = tuple(ShotFile(**{**row, "warnings": tuple(row["warnings"])}) for row in data["files"])
        return cls(**{**data, "warnings": tuple(data["warnings"]), "files": files})


def start_process() -> None:
    """Ctrl+C is the main process's to hear; and when that is killed, nobody waits for this one."""
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    ctypes.CDLL(None).prctl(_PR_SET_PDEATHSIG, signal.SIGKILL)


def take_shot(shot: Shot, folder: Path) -> Outcome:
    """Take a shot and leave its files in ``folder``; whatever goes wrong with it is in the outcome."""
    now = datetime.now(UTC)
    scratch = folder / f"{shot.key}.strips"
    shutil.rmtree(scratch, ignore_errors=True)
    outcome = Outcome(key=shot.key, taken_at=now.isoformat(timespec="seconds"))
    try:
        scratch.mkdir()
        page, facts, outcome = _taken(shot, scratch, outcome)
        files, warnings = _files(shot, page, facts, folder)
        return replace(outcome, files=tuple(files), warnings=(*outcome.warnings, *warnings))
    except PictureSkipped as skipped:
        return replace(outcome, warnings=(*outcome.warnings, skipped.sentence), skipped=True)
    except TallPageError as error:
        return replace(outcome, error=error.in_one_line(), ends_run=isinstance(error, RunEnded))
    finally:
        shutil.rmtree(scratch, ignore_errors=True)


def _taken(shot: Shot, scratch: Path, outcome: Outcome) -> tuple[Page, dict[str, str], Outcome]:
    """The page or picture of a shot, what captions can say of it, and what is told of it."""
    day = datetime.fromisoformat(outcome.taken_at).date()
    if shot.request is None:
        assert shot.picture is not None  # noqa: S101 - a shot has one or the other
        check_picture(shot.picture)
        name = shot.picture.stem
        page = Page(source=PictureSource(shot.picture, held=True))
        return page, page_facts(name=name, taken_on=day), replace(outcome, title=name)
    manifest, report = _browser_pool().take(shot.request, scratch)
    facts = page_facts(title=report.title, address=report.final_address, name=report.title, taken_on=day)
    told = replace(
        outcome,
        final_address=report.final_address,
        title=report.title,
        status=report.status,
        whole=report.wholeness.is_whole,
        warnings=report.warnings,
    )
    return Page(source=CaptureSource(scratch, manifest), screen=shot.request.screen), facts, told


@cache
def _browser_pool() -> BrowserPool:
    return BrowserPool()


def _files(
    shot: Shot, page: Page, facts: Mapping[str, str], folder: Path
) -> tuple[list[ShotFile], tuple[str, ...]]:
    """The files of a shot, and what a person should know."""
    if shot.routine is None:
        return list(_made(shot, page.source, _shown(shot, page.source), shot.slots, facts, folder)), ()
    applied = apply_routine(shot.routine, page)
    warnings = tuple(map(str, applied.warnings))
    slots = slots_of(shot.routine)
    out = next((step for step in shot.routine.steps if isinstance(step, OutStep) and not step.off), None)
    if out is not None and out.way == "pdf":
        return [_document(shot, page.source, applied.cut, slots, out, facts, folder)], warnings
    return list(_made(shot, page.source, applied.cut, slots, facts, folder)), warnings


def _shown(shot: Shot, source: Source) -> Cut:
    cut = shot.cut or Cut.whole(source.size)
    words = turned(source, cut.orientation).words() if cut.sought else None
    return cut.hidden_anew(words) if words else cut


def _made(
    shot: Shot,
    source: Source,
    cut: Cut,
    slots: Sequence[SlotOrder],
    facts: Mapping[str, str],
    folder: Path,
) -> Iterator[ShotFile]:
    if not slots:
        yield _lossless(shot, Rendering(source, cut.resolved(facts), _OWN_SIZE), folder)
    for number, slot in enumerate(slots, start=1):
        try:
            for made in make_files(source, cut, facts, slot):
                yield _written(shot, made, number, folder)
        except TallPageError as error:
            yield _none_made(slot.name, f"{slot.name}: {error.sentence} {error.hint}".strip())


def _lossless(shot: Shot, rendering: Rendering, folder: Path) -> ShotFile:
    part, size = f"{shot.key}.png", rendering.size_of(rendering.whole())
    return ShotFile(
        part=part,
        extension="png",
        slot="",
        width_px=size.width_px,
        height_px=size.height_px,
        bytes=save_png(rendering, folder / part),
    )


def _written(shot: Shot, made: MadeFile, number: int, folder: Path) -> ShotFile:
    chosen, result = made.result.chosen, made.result
    if chosen is None:
        return _none_made(made.slot, f"{made.slot}: no file fits the limit.")
    part = f"{shot.key}-{number}{f'-{made.part}' if made.part else ''}.{made.extension}"
    write_whole(folder / part, chosen.data)
    unmet = () if result.met else (f"{made.slot}: under the limit it looks visibly damaged.",)
    return ShotFile(
        part=part,
        extension=made.extension,
        slot=made.slot,
        width_px=made.size.width_px,
        height_px=made.size.height_px,
        bytes=chosen.byte_count,
        warnings=unmet,
        fidelity=chosen.fidelity,
        met=result.met,
        leaf=made.part,
    )


def _none_made(slot: str, warning: str) -> ShotFile:
    return ShotFile(
        part="", extension="", slot=slot, width_px=0, height_px=0, bytes=0, warnings=(warning,), met=False
    )


def _document(
    shot: Shot,
    source: Source,
    cut: Cut,
    slots: Sequence[SlotOrder],
    out: OutStep,
    facts: Mapping[str, str],
    folder: Path,
) -> ShotFile:
    """A PDF of what is shown, as wide as the first slot says, else in its own px."""
    from tallpage.core.pdf import PdfOrder, PdfPart, make_pdf, parse_paper

    sizing = slots[0].rules.sizing if slots else _OWN_SIZE.sizing
    rendering = Rendering(source, cut.resolved(facts), RenderRules(sizing=sizing, flattened=True))
    rendering.require_seen()
    title = without_hidden_words(facts["title"] or facts["name"], source, cut)
    part, size = f"{shot.key}.pdf", rendering.size_of(rendering.whole())
    order = PdfOrder(paper=parse_paper(out.paper))
    shown = PdfPart(rendering=rendering, title=title, facts={**facts, "title": title})
    made = make_pdf([shown], order, folder / part)
    return ShotFile(
        part=part,
        extension="pdf",
        slot="",
        width_px=size.width_px,
        height_px=size.height_px,
        bytes=made.bytes,
    )
