"""Making files in the background: one for a cut, or one for each of its leaves."""

from __future__ import annotations

import shutil
from collections.abc import Callable, Iterable
from dataclasses import asdict, dataclass, replace
from pathlib import Path
from typing import Any

from django.db import transaction

from tallpage.core.capture import PageMap
from tallpage.core.errors import Stopped
from tallpage.core.files import write_whole
from tallpage.core.fit import (
    Candidate,
    Curve,
    FitOrder,
    FitResult,
    WeightBand,
    fit_cut,
    read_content,
    weight_line,
    why,
    worst_places,
)
from tallpage.core.geometry import Box
from tallpage.core.leaves import busyness, divide, gaps_of, leaf_frames, require_breaks
from tallpage.core.picture import Raster, StripManifest, render_cut
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.queue import Signals, Work
from tallpage.server.outlets.models import Output, choice_from_json, file_path
from tallpage.server.storage import new_key, view_file

KIND = "fit_output"
WORST_PLACES = 8
_FIRST = "A first file that fits; a better one is being looked for."
SWATCH_PX = (144, 72)
"""Width and height of the piece that is shown of every format, as it comes out at 1:1."""


@dataclass(frozen=True, slots=True)
class _Made:
    """One file and what there is to tell about it, ready to be stored. ``leaf`` is in page px."""

    leaf: Box
    result: FitResult
    key: str
    height_px: int
    why: str
    weights: tuple[WeightBand, ...]
    worst: tuple[Box, ...]
    tradeoffs: list[dict[str, object]]


def prepare(job: Job) -> Work:
    """How an output's files are made and stored."""
    output = Output.objects.select_related("cut__capture").filter(job=job).first()
    if output is None:
        raise Stopped("Newer work replaced this.")
    cut, capture = output.cut, output.cut.capture
    frame, frame_json = cut.frame_box, dict(cut.frame)
    folder, manifest = capture.folder, capture.manifest()
    order = output.order(choice_from_json(output.choice))
    written: list[Path] = []

    def run(signals: Signals) -> list[_Made]:
        def stop_if_asked() -> None:
            if signals.wish == "stop":
                raise Stopped("The file was not needed any more.")

        signals.report("fitting")
        leaves = leaf_frames(frame, _breaks(output, order, frame, folder, manifest))
        made = []
        for number, leaf in enumerate(leaves):
            if len(leaves) > 1:
                signals.report("fitting", done=number, expected=len(leaves))
            stop_if_asked()
            raster = render_cut(folder, manifest, leaf, width_px=order.width_px).held()
            # A good file of this very frame is not replaced by a hasty one.
            wanted = len(leaves) == 1 and not (output.file_key and output.frame == frame_json)
            on_first = give_first(signals, leaf, raster.size.height_px) if wanted else None
            made.append(_make(raster, leaf, order, stop_if_asked, written, on_first))
        return made

    def give_first(signals: Signals, leaf: Box, height_px: int) -> Callable[[Candidate], None]:
        def give(first: Candidate) -> None:
            result = FitResult(chosen=first, candidates=(), met=True, tries=1)
            key = _written(first, written)
            signals.give_early([_Made(leaf, result, key, height_px, _FIRST, (), (), output.tradeoffs)])

        return give

    def keep(made: list[_Made], *, early: bool = False) -> None:
        current = Output.objects.select_for_update().filter(pk=output.pk, job=job).first()
        if current is None:
            discard()
            return  # newer work replaced this one
        before = current.paths
        _describe(current, made, frame_json)
        current.save()
        # A first file that nobody took goes as well; but while more is to come, what is written may be it.
        unwanted = {*before, *([] if early else written)} - set(current.paths)
        transaction.on_commit(lambda: remove_files(unwanted))

    def keep_early(made: list[_Made]) -> None:
        with transaction.atomic():
            keep(made, early=True)

    def discard() -> None:
        row = Output.objects.filter(pk=output.pk).first()
        remove_files(set(written) - set(row.paths if row else []))

    return Work(run=run, keep=keep, keep_early=keep_early, discard=discard)


def _breaks(
    output: Output, order: FitOrder, frame: Box, folder: Path, manifest: StripManifest
) -> tuple[int, ...]:
    """Where the frame is divided, in px from its top: as set by hand, as asked for, or as it has to be."""
    if output.breaks:
        return require_breaks(output.breaks, frame.height_px)
    greatest_px = None
    if order.greatest_height_px is not None:
        greatest_px = max(1, order.greatest_height_px * frame.width_px // order.width_px)
    if output.leaf_count is None and (greatest_px is None or frame.height_px <= greatest_px):
        return ()

    def part(top_px: int, height_px: int) -> Raster:
        box = replace(frame, y_px=frame.y_px + top_px, height_px=height_px)
        return render_cut(folder, manifest, box, width_px=frame.width_px)

    gaps = gaps_of(busyness(part, frame.height_px), PageMap.load(folder).blocks, top_px=frame.y_px)
    return divide(frame.height_px, gaps, greatest_px=greatest_px, count=output.leaf_count)


def _make(
    raster: Raster,
    leaf: Box,
    order: FitOrder,
    stop_if_asked: Callable[[], None],
    written: list[Path],
    on_first: Callable[[Candidate], None] | None,
) -> _Made:
    result = fit_cut(lambda _: raster, leaf.size, order, on_first=on_first, should_stop=stop_if_asked)
    tradeoffs = [_tradeoff(curve) for curve in result.curves]
    height_px = raster.size.height_px
    chosen = result.chosen
    if chosen is None:
        return _Made(leaf, result, "", height_px, "", (), (), tradeoffs)
    key = _written(chosen, written)
    worst = worst_places(raster, Raster.decode(chosen.data).held(), count=WORST_PLACES, box_px=SWATCH_PX)
    if worst:
        _save_swatches(key, raster, result.candidates, worst[0])
    return _Made(
        leaf,
        result,
        key,
        height_px,
        why(result, read_content(raster), order.limit_bytes),
        weight_line(raster, chosen.choice, chosen.byte_count),
        worst,
        tradeoffs,
    )


def _written(candidate: Candidate, written: list[Path]) -> str:
    """Write a file to its final place, and note that it is there; returns its key."""
    key = new_key()
    path = file_path(key, candidate.choice.format)
    path.parent.mkdir(parents=True, exist_ok=True)
    write_whole(path, candidate.data)
    written.append(path)
    return key


def _save_swatches(key: str, raster: Raster, candidates: tuple[Candidate, ...], box: Box) -> None:
    """The worst place of the chosen file, as it was and in every format that was made."""
    swatch_file(key, "original").parent.mkdir(parents=True, exist_ok=True)
    write_whole(swatch_file(key, "original"), raster.cropped(box).as_png(compression=3))
    for number, candidate in enumerate(candidates):
        piece = Raster.decode(candidate.data).held().cropped(box).as_png(compression=3)
        write_whole(swatch_file(key, str(number)), piece)


def swatch_file(key: str, name: str) -> Path:
    """A piece of a file at 1:1: ``original``, or the number of a candidate."""
    return view_file(key, f"swatch-{name}.png")


def _describe(output: Output, made: list[_Made], frame: dict[str, int]) -> None:
    """Write what came out into the row; of several leaves, what the weakest of them tells."""
    weakest = min(made, key=lambda row: row.result.chosen.fidelity if row.result.chosen else -1.0)
    result, chosen = weakest.result, weakest.result.chosen
    whole = all(row.key for row in made)
    if output.choice is None or output.frame != frame:  # by hand keeps what the search of the cut found
        output.tradeoffs = weakest.tradeoffs
    output.frame = frame
    output.leaves = [_leaf(row) for row in made] if len(made) > 1 and whole else []
    first = made[0].result.chosen if whole else None
    output.file_key = made[0].key if whole else ""
    output.format = first.choice.format if first else ""
    output.met = all(row.result.met for row in made)
    output.tries = sum(row.result.tries for row in made)
    output.candidates = [_as_json(row) for row in result.candidates]
    output.advice = [
        asdict(row) for row in result.advice if len(made) == 1 or row.kind not in ("leaves", "width")
    ]
    output.made_choice = asdict(chosen.choice) if chosen else None
    output.made_width_px, output.made_height_px = output.width_px, sum(row.height_px for row in made)
    output.bytes = max((row.result.chosen.byte_count for row in made if row.result.chosen), default=0)
    output.fidelity = chosen.fidelity if chosen else None
    output.why = weakest.why
    output.weights = [_on_page(band, row) for row in made for band in row.weights]
    above_px = sum(row.height_px for row in made[: made.index(weakest)])
    output.worst = [{**asdict(box), "y_px": box.y_px + above_px} for box in weakest.worst]
    output.swatch_key = weakest.key if weakest.worst else ""


def _on_page(band: WeightBand, made: _Made) -> dict[str, float]:
    """A band of a file as the stretch of the page that it shows."""
    scale = made.leaf.height_px / made.height_px
    return {
        "top_px": round(made.leaf.y_px + band.top_px * scale, 2),
        "height_px": round(band.height_px * scale, 2),
        "bytes": band.byte_count,
    }


def _leaf(made: _Made) -> dict[str, Any]:
    chosen = made.result.chosen
    assert chosen is not None  # noqa: S101  (only called where every leaf has its file)
    return {
        "top_px": made.leaf.y_px,
        "page_height_px": made.leaf.height_px,
        "height_px": made.height_px,
        "format": chosen.choice.format,
        "bytes": chosen.byte_count,
        "fidelity": chosen.fidelity,
        "met": made.result.met,
        "file_key": made.key,
    }


def _as_json(candidate: Candidate) -> dict[str, object]:
    return {
        "recipe": candidate.recipe,
        "choice": asdict(candidate.choice),
        "bytes": candidate.byte_count,
        "fidelity": candidate.fidelity,
    }


def _tradeoff(curve: Curve) -> dict[str, object]:
    points = [
        {
            "choice": asdict(curve.recipe.choice_at(point.knob)),
            "bytes": round(curve.bytes_at(point.knob)),
            "fidelity": point.fidelity,
        }
        for point in curve.points
    ]
    return {"recipe": curve.recipe.name, "points": points}


def remove_files(paths: Iterable[Path]) -> None:
    """Delete files and the pieces of them that are shown."""
    for path in paths:
        path.unlink(missing_ok=True)
        shutil.rmtree(swatch_file(path.stem, "original").parent, ignore_errors=True)
