"""Making files in the background: one for a cut, or one for each of its leaves."""

from __future__ import annotations

import shutil
from collections.abc import Callable, Iterable, Iterator
from dataclasses import asdict, dataclass, field
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
    fit_order,
    foretell_order,
    read_content,
    weight_line,
    why,
    worst_places,
)
from tallpage.core.geometry import Box, Size
from tallpage.core.picture import Raster, decode, encode_png
from tallpage.core.render import Leaf, Rendering
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.queue import MadeWay, Signals, Work
from tallpage.server.outlets.models import Output, OutputFile, choice_from_json, file_path
from tallpage.server.storage import new_key, view_file

KIND = "fit_output"
PublishPreview = Callable[[Candidate | None, tuple[Advice, ...]], None]
"""Hands over the best file so far, and what would help as far as it is known."""
WORST_PLACES = 8
_SO_FAR = "The best so far: the search has not come to its end."
SWATCH_PX = (144, 72)
"""Width and height of the piece that is shown of every format, as it comes out at 1:1."""


@dataclass(frozen=True, slots=True)
class _Made:
    """One file and what there is to tell about it, ready to be stored."""

    leaf: Leaf
    result: FitResult
    key: str
    why: str = ""
    weights: tuple[WeightBand, ...] = ()
    worst: tuple[Box, ...] = ()
    tradeoffs: list[dict[str, object]] = field(default_factory=list)


def prepare(job: Job) -> Work:
    """How an output's files are made and stored."""
    output = Output.objects.select_related("cut__capture").prefetch_related("files").filter(job=job).first()
    if output is None:
        raise Stopped("Newer work replaced this.")
    rendering, key = output.asked(), output.current_key()
    order = output.order(choice_from_json(output.choice))
    wanted_looks = order.fidelity or ACCEPTABLE_FIDELITY
    written: list[Path] = []

    def run(signals: Signals) -> list[_Made]:
        def stop_if_asked() -> None:
            if signals.stop_mode == "stop":
                raise Stopped("The file was not needed any more.")
            if signals.is_to_make_way:
                raise MadeWay

        signals.report("fitting")
        rendering.require_seen()
        leaves = rendering.leaves()
        made = []
        for done, leaf in enumerate(leaves):
            if len(leaves) > 1:
                signals.report("fitting", done=done, expected=len(leaves))
            stop_if_asked()
            # A good file of these very pixels is not replaced by a hasty one, unless that is what it is.
            is_good = bool(output.files.all()) and output.drawn_key == key and not job.made_way
            give = publish_preview(signals, leaf) if len(leaves) == 1 and not is_good else None
            watch = _Telling(signals, give, wanted_looks)
            here_and_there = partial(rendering.draw, leaf, access="random")
            foretell_order(here_and_there, order, memory=_memory(), watch=watch)
            made.append(_make(rendering, leaf, order, stop_if_asked, written, watch))
        return made

    def publish_preview(signals: Signals, leaf: Leaf) -> PublishPreview:
        key_of_best: dict[int, str] = {}

        def give(best: Candidate | None, advice: tuple[Advice, ...]) -> None:
            met = best is not None and best.fidelity >= wanted_looks
            result = FitResult(chosen=best, candidates=(), met=met, tries=1, advice=advice)
            if best and id(best) not in key_of_best:
                key_of_best[id(best)] = _written(best, written)
            early_key = key_of_best[id(best)] if best else ""
            tradeoffs = output.tradeoffs
            made = _Made(leaf, result, early_key, why=_SO_FAR, tradeoffs=tradeoffs)
            signals.publish_preview([made], **({"best": _best_told(best, met=met)} if best else {}))

        return give

    def commit(made: list[_Made], *, early: bool = False) -> None:
        current = Output.objects.select_for_update().filter(pk=output.pk, job=job).first()
        if current is None:
            rollback()
            return  # newer work replaced this one
        _describe(current, made, rendering, key)
        current.save()
        if not early:  # while more is to come, what is written may be it
            unwanted = set(written) - set(current.paths)
            transaction.on_commit(lambda: remove_files(unwanted))

    def commit_early(made: list[_Made]) -> None:
        with transaction.atomic():
            commit(made, early=True)

    def rollback() -> None:
        row = Output.objects.filter(pk=output.pk).first()
        remove_files(set(written) - set(row.paths if row else []))

    return Work(run=run, commit=commit, commit_early=commit_early, rollback=rollback)


def _make(
    rendering: Rendering,
    leaf: Leaf,
    order: FitOrder,
    stop_if_asked: Callable[[], None],
    written: list[Path],
    watch: FitWatch,
) -> _Made:
    raster = rendering.draw(leaf).held()
    result = fit_order(
        raster,
        order,
        memory=_memory(),
        watch=watch,
        should_stop=stop_if_asked,
        divisible=rendering.rules.sizing.divisible,
    )
    tradeoffs = [_tradeoff(curve) for curve in result.curves]
    chosen = result.chosen
    if chosen is None:
        return _Made(leaf, result, "", tradeoffs=tradeoffs)
    key = _written(chosen, written)
    worst = worst_places(raster, decode(chosen.data).held(), count=WORST_PLACES, box_px=SWATCH_PX)
    if worst:
        _save_swatches(key, raster, result.candidates, worst[0])
    return _Made(
        leaf,
        result,
        key,
        why=why(result, read_content(raster), order),
        weights=weight_line(raster, chosen.choice, chosen.byte_count),
        worst=worst,
        tradeoffs=tradeoffs,
    )


class _Telling(FitWatch):
    """Passes on what is heard of a fit: to the job's row, and files and advice to the output's."""

    def __init__(self, signals: Signals, give: PublishPreview | None, wanted_looks: float) -> None:
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
        if self._give:  # before it is told of: who stops then finds it there
            self._give(candidate, ())
        self._signals.tell(best=_best_told(candidate, met=candidate.fidelity >= self._wanted_looks))

    def advising(self, advice: Advice) -> None:
        self._advice += (advice,)
        if self._give:
            self._give(self._best, self._advice)
        self._signals.tell(advising=True)


def _best_told(best: Candidate, *, met: bool) -> dict[str, object]:
    return {"recipe": best.recipe, "bytes": best.byte_count, "fidelity": best.fidelity, "met": met}


@cache
def _memory() -> FitMemory:
    """What this process knows of the pixels it has fitted."""
    return FitMemory()


def forget_fits() -> None:
    """Let go of what this process knows of the pixels it has fitted."""
    _memory.cache_clear()


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
    write_whole(swatch_file(key, "original"), encode_png(raster.cropped(box), compression=3))
    for number, candidate in enumerate(candidates):
        piece = encode_png(decode(candidate.data).held().cropped(box), compression=3)
        write_whole(swatch_file(key, str(number)), piece)


def swatch_file(key: str, name: str) -> Path:
    """A piece of a file at 1:1: ``original``, or the number of a candidate."""
    return view_file(key, f"swatch-{name}.png")


def _describe(output: Output, made: list[_Made], rendering: Rendering, key: str) -> None:
    """Write what came out into the row; of several leaves, what the weakest of them tells."""
    weakest = min(made, key=lambda row: row.result.chosen.fidelity if row.result.chosen else -1.0)
    result = weakest.result
    cut = rendering.cut.as_json()
    if output.choice is None or output.drawn.get("cut") != cut:  # by hand keeps what the search of it found
        output.tradeoffs = weakest.tradeoffs
    output.drawn = {"cut": cut, "rules": rendering.rules.as_json()}
    output.drawn_key = key
    output.met = all(row.result.met for row in made)
    output.tries = sum(row.result.tries for row in made)
    output.candidates = [_as_json(row) for row in result.candidates]
    output.advice = [
        _advice(row, rendering, weakest.leaf)
        for row in result.advice
        if len(made) == 1 or row.kind not in ("leaves", "width")
    ]
    output.why = weakest.why
    output.letters_px = rendering.smallest_letters_px()
    output.weights = [band for row in made for band in _on_page(rendering, row)]
    above_px = sum(rendering.size_of(row.leaf).height_px for row in made[: made.index(weakest)])
    output.worst = [{**asdict(box), "y_px": box.y_px + above_px} for box in weakest.worst]
    output.swatch_key = weakest.key if weakest.worst else ""
    _keep_files(output, made, rendering)


def _keep_files(output: Output, made: list[_Made], rendering: Rendering) -> None:
    """Rows for the files that were made, all or none; those of before go, and so do their files."""
    wanted = made if all(row.key for row in made) else []
    keys = {row.key for row in wanted}
    for file in output.files.exclude(key__in=keys):
        file.delete()
    known = set(output.files.values_list("key", flat=True))
    OutputFile.objects.bulk_create(
        _file(output, row, rendering.size_of(row.leaf)) for row in wanted if row.key not in known
    )


def _file(output: Output, made: _Made, size: Size) -> OutputFile:
    chosen, leaf = made.result.chosen, made.leaf
    assert chosen is not None  # noqa: S101  (what has a key was chosen)
    return OutputFile(
        output=output,
        number=leaf.number,
        key=made.key,
        format=chosen.choice.format,
        choice=asdict(chosen.choice),
        width_px=size.width_px,
        height_px=size.height_px,
        bytes=chosen.byte_count,
        fidelity=chosen.fidelity,
        met=made.result.met,
        row_px=leaf.top_px,
        rows_px=leaf.height_px,
    )


def _on_page(rendering: Rendering, made: _Made) -> Iterator[dict[str, int]]:
    """The bands of a file as the stretches of the page that they show."""
    for band in made.weights:
        for box, share in rendering.on_page(made.leaf, band.top_px, band.height_px):
            yield {"top_px": box.y_px, "height_px": box.height_px, "bytes": round(band.byte_count * share)}


def _advice(advice: Advice, rendering: Rendering, leaf: Leaf) -> dict[str, Any]:
    """Advice with the stretch to fold away as bands of the page."""
    stretches = rendering.on_page(leaf, *advice.rows_px) if advice.rows_px is not None else ()
    folds = [{"top_px": box.y_px, "height_px": box.height_px} for box, _ in stretches]
    return {**asdict(advice), "folds": folds}


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
            "choice": asdict(curve.recipe.choice_at(point.quality_step)),
            "bytes": round(curve.bytes_at(point.quality_step)),
            "fidelity": point.fidelity,
        }
        for point in curve.points
    ]
    return {"recipe": curve.recipe.name, "points": points}


def remove_file_of(instance: OutputFile, **_: object) -> None:
    """Once the row of a file has gone, by itself or with its output or cut, the file goes too."""
    path = instance.path
    transaction.on_commit(lambda: remove_files([path]))


def remove_files(paths: Iterable[Path]) -> None:
    """Delete files and the pieces of them that are shown."""
    for path in paths:
        path.unlink(missing_ok=True)
        shutil.rmtree(swatch_file(path.stem, "original").parent, ignore_errors=True)
