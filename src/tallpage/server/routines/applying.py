"""A routine on one picture of a run: its cut and the files that are asked for; or only tried."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Any

from django.db import transaction

from tallpage.core.cut import Cut as CoreCut
from tallpage.core.errors import FitError, Stopped, TallPageError
from tallpage.core.files import storage_errors, write_whole
from tallpage.core.render import step_view
from tallpage.core.routine import (
    OutStep,
    Page,
    PictureSkipped,
    Routine,
    RunEnded,
    SlotOrder,
    SlotStep,
    apply_routine,
    make_files,
    slots_of,
)
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.queue import Signals, Work
from tallpage.server.outlets.fitting import add_labelled_output
from tallpage.server.outlets.models import Output
from tallpage.server.routines.models import Run, RunItem
from tallpage.server.shelf.cuts.changing import delete_cut, keep_cut
from tallpage.server.shelf.models import Capture
from tallpage.server.storage import new_key, view_file

KIND = "apply_routine"
LOOK_WIDTH_PX = 480
LOOK = "look.webp"


@dataclass(frozen=True, kw_only=True)
class _Result:
    """What came of a picture."""

    cut: CoreCut | None = None
    warnings: tuple[str, ...] = ()
    skipped: str = ""
    ended: str = ""
    files: list[dict[str, Any]] = field(default_factory=list)
    look: str = ""


def prepare(job: Job) -> Work:
    """How a picture of a run gets its cut. A trial makes its files too, and keeps only what they would be."""
    item = RunItem.objects.select_related("run__version", "capture").filter(job=job).first()
    if item is None or item.capture is None or not item.capture.storage_key:
        raise Stopped("The picture is not there any more.")
    run, capture = item.run, item.capture
    chain = run.chain()
    page = Page(source=capture.pixel_source(), screen=capture.screen)
    facts = capture.caption_facts()

    def work(signals: Signals) -> _Result:
        signals.report("drawing")
        try:
            applied = apply_routine(chain, page)
        except PictureSkipped as skipped:
            return _Result(skipped=skipped.sentence)
        except RunEnded as ended:
            return _Result(ended=ended.sentence)
        warnings = tuple(map(str, applied.warnings))
        if not run.trial:
            return _Result(cut=applied.cut, warnings=warnings)
        files = list(_tried(page, applied.cut, facts, slots_of(chain), signals))
        look = new_key()
        path = view_file(look, LOOK)
        with storage_errors(path.parent.parent):
            path.parent.mkdir(parents=True, exist_ok=True)
        shown = applied.cut.resolved(facts)
        write_whole(
            path, step_view(page.source, shown, file_width_px=width_of(chain), width_px=LOOK_WIDTH_PX)
        )
        return _Result(warnings=warnings, files=files, look=look)

    def commit(result: _Result) -> None:
        current = RunItem.objects.select_for_update().filter(pk=item.pk, job=job).first()
        if current is not None:
            _store(current, run, chain, capture, result)

    return Work(run=work, commit=commit)


def width_of(chain: Routine) -> int:
    """How wide the first file of a routine is, in px; a usual width where that follows from the picture."""
    steps = (step for step in chain.steps if isinstance(step, SlotStep) and not step.off)
    return next((step.width_px for step in steps if step.width_px), 0) or 720


def out_of(chain: Routine) -> OutStep:
    """How the files of a routine leave."""
    steps = (step for step in chain.steps if isinstance(step, OutStep) and not step.off)
    return next(steps, OutStep(kind="out"))


def _tried(
    page: Page, cut: CoreCut, facts: dict[str, str], slots: tuple[SlotOrder, ...], signals: Signals
) -> Iterator[dict[str, Any]]:
    """What each file would be."""
    for done, slot in enumerate(slots):
        signals.report("fitting", done=done, expected=len(slots))
        if signals.stop_mode == "stop":
            raise Stopped("The trial was stopped.")
        told: dict[str, Any] = {"slot": slot.name, "limit": slot.order.limit_bytes}
        try:
            for made in make_files(page.source, cut, facts, slot):
                chosen = made.result.chosen
                yield {
                    **told,
                    "part": made.part,
                    "width": made.size.width_px,
                    "height": made.size.height_px,
                    "bytes": chosen.byte_count if chosen else None,
                    "fidelity": chosen.fidelity if chosen else None,
                    "format": chosen.choice.format if chosen else None,
                    "met": made.result.met,
                }
        except TallPageError as error:
            yield {**told, "met": False, "error": error.in_one_line()}


def _store(item: RunItem, run: Run, chain: Routine, capture: Capture, result: _Result) -> None:
    item.warnings, item.files, item.look = list(result.warnings), result.files, result.look
    if result.skipped:
        item.state, item.warnings = RunItem.State.SKIPPED, [*item.warnings, result.skipped]
    elif result.ended:
        item.state, item.error = RunItem.State.FAILED, result.ended
        Run.objects.filter(pk=run.pk).update(
            stop_mode=Run.StopMode.STOP, ended_by=f"{item.name}: {result.ended}"
        )
    elif result.cut is None:
        item.state = RunItem.State.DONE
    else:
        item.cut = keep_cut(capture, result.cut, chain.name)
        item.cut_version = item.cut.version
        item.state = RunItem.State.MAKING
    item.save()
    if item.cut is not None:
        _order_files(item, chain)
        _retire_replaced(item)


def _order_files(item: RunItem, chain: Routine) -> None:
    """Have the files of a cut made; what a slot cannot make of it is told."""
    assert item.cut is not None  # noqa: S101 - it was made before
    rows: list[Output] = []
    for step in chain.steps:
        if isinstance(step, SlotStep) and not step.off:
            try:
                rows.append(add_labelled_output(item.cut, *rules_of(step)))
            except FitError as error:
                item.warnings = [*item.warnings, f"{step.name or 'A slot'}: {error.in_one_line()}"]
    item.save(update_fields=["warnings"])
    item.outputs.set(rows)


def rules_of(step: SlotStep) -> tuple[dict[str, Any], str]:
    """The rules of a slot as the ledger has them, and what its row is called."""
    rules = {
        "way": step.way,
        "width_px": step.width_px,
        "height_px": step.height_px,
        "percent": step.percent if step.way == "share" else 0,
        "anchor": step.keep,
        "enlarge": step.enlarge,
        "background": step.background,
        "limit_bytes": step.limit_bytes,
        "least_fidelity": step.fidelity,
        "formats": list(step.formats),
        "greatest_height_px": step.greatest_height_px,
        "overlap_px": step.overlap_px,
        "numbered": step.numbered,
        "leaf_count": step.leaves,
        "legible_marks": step.legible_marks,
    }
    return rules, step.name


def _retire_replaced(item: RunItem) -> None:
    """The cut that an earlier version made goes, and can be put back; one that somebody has changed stays."""
    before = item.replaces
    if before is None or before.cut is None or before.cut.version != before.cut_version:
        return
    if before.cut.deleted_at is None and before.cut.capture_id == item.capture_id:
        with transaction.atomic():
            delete_cut(before.cut)
