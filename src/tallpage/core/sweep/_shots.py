"""One picture of a sweep: taken, made into files, told of. Runs in a process of its own."""

from __future__ import annotations

import ctypes
import shutil
import signal
from collections.abc import Iterator, Mapping
from dataclasses import asdict, dataclass, replace
from datetime import UTC, datetime
from functools import cache
from pathlib import Path
from typing import Any, Self

from tallpage.core.capture import BrowserPool, PageRequest
from tallpage.core.cut import Cut, page_facts
from tallpage.core.errors import TallPageError
from tallpage.core.files import write_whole
from tallpage.core.fit import FORMATS, FitOrder, fit_order
from tallpage.core.picture import StripManifest
from tallpage.core.render import CaptureSource, Rendering, RenderRules, save_png, turned
from tallpage.core.sizing import Sizing

_PR_SET_PDEATHSIG = 1


@dataclass(frozen=True, slots=True, kw_only=True)
class SlotOrder:
    """A file to make of every picture, and what it is called in names."""

    name: str
    rules: RenderRules
    order: FitOrder


@dataclass(frozen=True, slots=True, kw_only=True)
class Shot:
    """One page on one screen. ``key`` is its own within the sweep, and safe as a name."""

    key: str
    request: PageRequest
    slots: tuple[SlotOrder, ...]
    cut: Cut | None = None
    """What of each page is shown; None: all of it."""


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
    try:
        scratch.mkdir()
        manifest, report = _browser_pool().take(shot.request, scratch)
        facts = page_facts(
            title=report.title, address=report.final_address, name=report.title, taken_on=now.date()
        )
        files = tuple(_files(shot, scratch, manifest, facts, folder))
    except TallPageError as error:
        return Outcome(key=shot.key, taken_at=_told(now), error=f"{error.sentence} {error.hint}".strip())
    finally:
        shutil.rmtree(scratch, ignore_errors=True)
    return Outcome(
        key=shot.key,
        taken_at=_told(now),
        final_address=report.final_address,
        title=report.title,
        status=report.status,
        whole=report.wholeness.is_whole,
        warnings=report.warnings,
        files=files,
    )


def _told(moment: datetime) -> str:
    return moment.isoformat(timespec="seconds")


@cache
def _browser_pool() -> BrowserPool:
    return BrowserPool()


def _files(
    shot: Shot, scratch: Path, manifest: StripManifest, facts: Mapping[str, str], folder: Path
) -> Iterator[ShotFile]:
    source = CaptureSource(scratch, manifest)
    cut = shot.cut or Cut.whole(manifest.size)
    words = turned(source, cut.orientation).words() if cut.sought else None
    cut = (cut.hidden_anew(words) if words else cut).resolved(facts)
    if not shot.slots:
        rules = RenderRules(sizing=Sizing(way="share", percent=100))
        yield _lossless(shot, Rendering(source, cut, rules), folder)
    for slot in shot.slots:
        yield _fitted(shot, slot, Rendering(source, cut, slot.rules), folder)


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


def _fitted(shot: Shot, slot: SlotOrder, rendering: Rendering, folder: Path) -> ShotFile:
    made = ShotFile(
        part="",
        extension="",
        slot=slot.name,
        width_px=0,
        height_px=0,
        bytes=0,
    )
    leaf = rendering.whole()
    try:
        result = fit_order(rendering.draw(leaf), slot.order, advised=False)
    except TallPageError as error:
        return replace(made, warnings=(f"{slot.name}: {error.sentence} {error.hint}".strip(),))
    if result.chosen is None:
        return replace(made, warnings=(f"{slot.name}: no file fits the limit.",))
    extension = FORMATS[result.chosen.choice.format].extension
    canvas = rendering.size_of(leaf)
    part = f"{shot.key}-{slot.name}.{extension}"
    write_whole(folder / part, result.chosen.data)
    unmet = () if result.met else (f"{slot.name}: under the limit it looks visibly damaged.",)
    return replace(
        made,
        part=part,
        extension=extension,
        width_px=canvas.width_px,
        height_px=canvas.height_px,
        bytes=result.chosen.byte_count,
        warnings=unmet,
    )
