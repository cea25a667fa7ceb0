"""Making files in the background: one for a cut, or one for each of its leaves."""

from __future__ import annotations

import shutil
from collections.abc import Callable, Iterable, Iterator
from dataclasses import asdict, dataclass, field, replace
from functools import cache, partial
from pathlib import Path
from typing import Any

from django.db import transaction

from tallpage.core.errors import Stopped
from tallpage.core.files import storage_errors, write_whole
from tallpage.core.fit import (
    ACCEPTABLE_FIDELITY,
    Advice,
    Candidate,
    Curve,
    FitMemory,
    FitOrder,
    FitResult,
    FitWatch,
    Verdict,
    WeightBand,
    fit_cut,
    foretell_cut,
    read_content,
    weight_line,
    why,
    worst_places,
)
from tallpage.core.geometry import Box, Size
from tallpage.core.picture import Raster
from tallpage.core.sizing import SizePlan, plan_size
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.queue import MadeWay, Signals, Work
from tallpage.server.outlets.models import Output, choice_from_json, file_path
from tallpage.server.outlets.pixels import Piece, open_piece, pieces_of
from tallpage.server.storage import new_key, view_file

KIND = "fit_output"
GiveEarly = Callable[[Candidate | None, tuple[Advice, ...]], None]
"""Hands over the best file so far, and what would help as far as it is known."""
WORST_PLACES = 8
_SO_FAR = "The best so far: the search has not come to its end."
SWATCH_PX = (144, 72)
"""Width and height of the piece that is shown of every format, as it comes out at 1:1."""


@dataclass(frozen=True, slots=True)
class _Made:
    """One file and what there is to tell about it, ready to be stored.

    ``plan`` says what of its piece it shows, and where.
    """

    piece: Piece
    plan: SizePlan
    result: FitResult
    key: str
    size: Size
    why: str = ""
    weights: tuple[WeightBand, ...] = ()
    worst: tuple[Box, ...] = ()
    tradeoffs: list[dict[str, object]] = field(default_factory=list)


def prepare(job: Job) -> Work:
    """How an output's files are made and stored."""
    output = Output.objects.select_related("cut__capture").filter(job=job).first()
    if output is None:
        raise Stopped("Newer work replaced this.")
    cut, capture = output.cut, output.cut.capture
    frame, frame_json = cut.shown(), dict(cut.frame)
    order = output.order(choice_from_json(output.choice))
    wanted_looks = order.fidelity or ACCEPTABLE_FIDELITY
    written: list[Path] = []

    def run(signals: Signals) -> list[_Made]:
        def stop_if_asked() -> None:
            if signals.wish == "stop":
                raise Stopped("The file was not needed any more.")
            if signals.is_to_make_way:
                raise MadeWay

        signals.report("fitting")
        pieces = pieces_of(output, capture, order, frame)
        made = []
        for done, piece in enumerate(pieces):
            if len(pieces) > 1:
                signals.report("fitting", done=done, expected=len(pieces))
            stop_if_asked()
            drawn = partial(open_piece, output, capture, order, piece)
            # A good file of this very frame is not replaced by a hasty one, unless that is what it is.
            is_good = bool(output.file_key) and output.frame == frame_json and not job.made_way
            wanted = len(pieces) == 1 and not is_good
            give = give_early(signals, piece, drawn().size) if wanted else None
            watch = _Telling(signals, give, wanted_looks)
            foretell_cut(partial(drawn, access="random"), piece.size, order, memory=_memory(), watch=watch)
            made.append(_make(drawn().held(), piece, order, stop_if_asked, written, watch))
        return made

    def give_early(signals: Signals, piece: Piece, size: Size) -> GiveEarly:
        key_of_best: dict[int, str] = {}

        def give(best: Candidate | None, advice: tuple[Advice, ...]) -> None:
            met = best is not None and best.fidelity >= wanted_looks
            result = FitResult(chosen=best, candidates=(), met=met, tries=1, advice=advice)
            if best and id(best) not in key_of_best:
                key_of_best[id(best)] = _written(best, written)
            bare = _bare(piece, order, result, key_of_best[id(best)] if best else "", size)
            signals.give_early([replace(bare, why=_SO_FAR, tradeoffs=output.tradeoffs)])

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


def _make(
    raster: Raster,
    piece: Piece,
    order: FitOrder,
    stop_if_asked: Callable[[], None],
    written: list[Path],
    watch: FitWatch,
) -> _Made:
    result = fit_cut(
        lambda _: raster,
        piece.size,
        order,
        memory=_memory(),
        watch=watch,
        should_stop=stop_if_asked,
    )
    tradeoffs = [_tradeoff(curve) for curve in result.curves]
    chosen = result.chosen
    if chosen is None:
        return replace(_bare(piece, order, result, "", raster.size), tradeoffs=tradeoffs)
    key = _written(chosen, written)
    worst = worst_places(raster, Raster.decode(chosen.data).held(), count=WORST_PLACES, box_px=SWATCH_PX)
    if worst:
        _save_swatches(key, raster, result.candidates, worst[0])
    return replace(
        _bare(piece, order, result, key, raster.size),
        why=why(result, read_content(raster), order),
        weights=weight_line(raster, chosen.choice, chosen.byte_count),
        worst=worst,
        tradeoffs=tradeoffs,
    )


class _Telling(FitWatch):
    """Passes on what is heard of a fit: to the job's row, and files and advice to the output's."""

    def __init__(self, signals: Signals, give: GiveEarly | None, wanted_looks: float) -> None:
        self._signals = signals
        self._wanted_looks = wanted_looks
        self._give = give
        self._best: Candidate | None = None
        self._advice: tuple[Advice, ...] = ()
        # Where the job has made way before, what it found then is there.
        self._known_looks = ((signals.told or {}).get("best") or {}).get("fidelity", -1.0)

    def expecting(self, verdict: Verdict) -> None:
        told = {"bytes": verdict.byte_count, "fidelity": verdict.fidelity, "met": verdict.met}
        self._signals.tell(expected={"recipe": verdict.recipe, **told})

    def trying(self, what: str, tries_left: int) -> None:
        self._signals.can_make_way = True  # a quick file comes before the first that is tried
        self._signals.tell(trying=what, tries_left=tries_left)

    def best_so_far(self, candidate: Candidate) -> None:
        if candidate.fidelity <= self._known_looks:
            return
        self._best = candidate
        met = candidate.fidelity >= self._wanted_looks
        told = {"bytes": candidate.byte_count, "fidelity": candidate.fidelity, "met": met}
        if self._give:  # before it is told of: who stops then finds it there
            self._give(candidate, ())
        self._signals.tell(best={"recipe": candidate.recipe, **told})

    def advising(self, advice: Advice) -> None:
        self._advice += (advice,)
        if self._give:
            self._give(self._best, self._advice)
        self._signals.tell(advising=True)


@cache
def _memory() -> FitMemory:
    """What this process knows of the pixels it has fitted."""
    return FitMemory()


def forget_fits() -> None:
    """Let go of what this process knows of the pixels it has fitted."""
    _memory.cache_clear()


def _bare(piece: Piece, order: FitOrder, result: FitResult, key: str, size: Size) -> _Made:
    plan = plan_size(piece.size, order.sizing)
    return _Made(piece=piece, plan=plan, result=result, key=key, size=size)


def _written(candidate: Candidate, written: list[Path]) -> str:
    """Write a file to its final place, and note that it is there; returns its key."""
    key = new_key()
    path = file_path(key, candidate.choice.format)
    with storage_errors(path.parent):
        path.parent.mkdir(parents=True, exist_ok=True)
    write_whole(path, candidate.data)
    written.append(path)
    return key


def _save_swatches(key: str, raster: Raster, candidates: tuple[Candidate, ...], box: Box) -> None:
    """The worst place of the chosen file, as it was and in every format that was made."""
    folder = swatch_file(key, "original").parent
    with storage_errors(folder):
        folder.mkdir(parents=True, exist_ok=True)
    write_whole(swatch_file(key, "original"), raster.cropped(box).as_png(compression=3))
    for number, candidate in enumerate(candidates):
        piece = Raster.decode(candidate.data).held().cropped(box).as_png(compression=3)
        write_whole(swatch_file(key, str(number)), piece)


def swatch_file(key: str, name: str) -> Path:
    """A piece of a file at 1:1: ``original``, or the number of a candidate."""
    return view_file(key, f"swatch-{name}.png")


def _describe(output: Output, made: list[_Made], frame: dict[str, Any]) -> None:
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
        _advice(row, weakest)
        for row in result.advice
        if len(made) == 1 or row.kind not in ("leaves", "width")
    ]
    output.made_choice = asdict(chosen.choice) if chosen else None
    output.made_width_px = made[0].size.width_px
    output.made_height_px = sum(row.size.height_px for row in made)
    output.bytes = max((row.result.chosen.byte_count for row in made if row.result.chosen), default=0)
    output.fidelity = chosen.fidelity if chosen else None
    output.why = weakest.why
    output.weights = [band for row in made for band in _on_page(row)]
    above_px = sum(row.size.height_px for row in made[: made.index(weakest)])
    output.worst = [{**asdict(box), "y_px": box.y_px + above_px} for box in weakest.worst]
    output.swatch_key = weakest.key if weakest.worst else ""


def _on_page(made: _Made) -> Iterator[dict[str, int]]:
    """The bands of a file as the stretches of the page that they show."""
    for band in made.weights:
        top_px, height_px = _frame_rows(made, band.top_px, band.height_px)
        for box in made.piece.frame.parts(top_px, height_px):
            share = box.height_px / height_px
            yield {"top_px": box.y_px, "height_px": box.height_px, "bytes": round(band.byte_count * share)}


def _advice(advice: Advice, made: _Made) -> dict[str, Any]:
    """Advice with the stretch to fold away as bands of the page."""
    folds: list[dict[str, int]] = []
    if advice.rows_px is not None:
        top_px, height_px = _frame_rows(made, *advice.rows_px)
        folds = [
            {"top_px": box.y_px, "height_px": box.height_px}
            for box in made.piece.frame.parts(top_px, height_px)
        ]
    return {**asdict(advice), "folds": folds}


def _frame_rows(made: _Made, top_px: int, height_px: int) -> tuple[int, int]:
    """First row and number of rows of the frame that rows of a file show; none of what is around it."""
    plan, scale = made.plan, made.plan.shown.height_px / made.plan.picture.height_px
    first_px = max(0, top_px - plan.picture.y_px)
    last_px = min(top_px + height_px, plan.picture.bottom_px) - plan.picture.y_px
    rows = [made.piece.top_px + round(plan.shown.y_px + row * scale) for row in (first_px, last_px)]
    return rows[0], max(0, rows[1] - rows[0])


def _leaf(made: _Made) -> dict[str, Any]:
    chosen = made.result.chosen
    assert chosen is not None  # noqa: S101  (only called where every leaf has its file)
    piece = made.piece
    parts = piece.frame.parts(piece.top_px, piece.height_px)
    return {
        "top_px": parts[0].y_px,
        "page_height_px": parts[-1].bottom_px - parts[0].y_px,
        "row_px": piece.top_px,
        "rows_px": piece.height_px,
        "height_px": made.size.height_px,
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


def remove_files_of(instance: Output, **_: object) -> None:
    """Once an output's row has gone, by itself or with its cut, its files go too."""
    paths = instance.paths
    transaction.on_commit(lambda: remove_files(paths))


def remove_files(paths: Iterable[Path]) -> None:
    """Delete files and the pieces of them that are shown."""
    for path in paths:
        path.unlink(missing_ok=True)
        shutil.rmtree(swatch_file(path.stem, "original").parent, ignore_errors=True)
