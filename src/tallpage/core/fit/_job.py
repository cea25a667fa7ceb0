"""A whole fit: pixels of the wanted size -> best file, with advice when it does not fit."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass, replace

from tallpage.core.errors import FitError
from tallpage.core.fit._metadata import MetadataWriter
from tallpage.core.fit._watching import FitWatch
from tallpage.core.fit.advice._computing import advise
from tallpage.core.fit.advice._pieces import Advice
from tallpage.core.fit.encoding._candidates import Candidate, fit_with
from tallpage.core.fit.encoding._formats import FORMATS, Format
from tallpage.core.fit.encoding._memory import FitMemory
from tallpage.core.fit.encoding._recipes import Choice
from tallpage.core.fit.judging._fidelity import ACCEPTABLE_FIDELITY
from tallpage.core.fit.prediction._verdict import foretell
from tallpage.core.fit.search._best import FitResult, fit_raster
from tallpage.core.fit.search._lightest import lightest
from tallpage.core.picture import Metadata, Raster
from tallpage.core.units import format_bytes


@dataclass(frozen=True, slots=True, kw_only=True)
class FitOrder:
    """What a place asks of a file. What it asks of the pixels are the rules of ``core/render``."""

    limit_bytes: int | None
    """None where only ``fidelity`` counts."""
    formats: tuple[Format, ...]
    fidelity: float | None = None
    """The file is to be as light as possible while it looks at least so good; None: as good as possible."""
    choice: Choice | None = None
    """Overrules the search."""
    metadata: Metadata | None = None
    """What the file says beside its pixels; it counts against the limit."""

    def __post_init__(self) -> None:
        if self.limit_bytes is None and self.fidelity is None:
            raise FitError(
                "Neither a limit nor a fidelity was given.",
                hint="Give a limit like 90 kB, a fidelity like 85, or both.",
                code="limit_impossible",
            )
        if self.limit_bytes is not None and self.limit_bytes < 1:
            raise FitError(
                f"No file fits a limit of {self.limit_bytes} bytes.",
                hint="Give a limit like 90 kB.",
                code="limit_impossible",
            )
        if self.fidelity is not None and not ACCEPTABLE_FIDELITY <= self.fidelity <= 100:
            raise FitError(
                f"A fidelity of {self.fidelity:g} cannot be asked for.",
                hint=f"Give one from {ACCEPTABLE_FIDELITY:.0f}, where traces show, to 100, the same pixels.",
                code="fidelity_impossible",
            )


def fit_order(
    raster: Raster,
    order: FitOrder,
    *,
    memory: FitMemory | None = None,
    watch: FitWatch | None = None,
    should_stop: Callable[[], None] = lambda: None,
    advised: bool = True,
    divisible: bool = True,
) -> FitResult:
    """Fit pixels to ``order``.

    They are held here, since they are read many times. What ``memory`` knows of them is not found out
    again. With a ``choice`` the result holds the one file made by it. Finding advice takes longer than
    the fit: who has no use for it leaves it out. Less of a cut that is not ``divisible`` would be shown
    larger, so that saves nothing. ``watch`` hears how it goes on.

    Raises:
        FitError: no format can hold a picture of this size.
    """
    memory = memory or FitMemory()
    raster = raster.held()
    watch = watch or FitWatch()
    if order.metadata is not None:
        writer = MetadataWriter(order.metadata, order.formats, lambda: raster)
        result = fit_order(
            raster,
            _without_metadata(order, writer),
            memory=memory,
            watch=writer.passed_on(watch),
            should_stop=should_stop,
            advised=advised,
            divisible=divisible,
        )
        return writer.with_metadata(result)
    if order.choice is not None:
        made = fit_with(raster, order.choice, memory)
        met = made.fidelity >= (order.fidelity or ACCEPTABLE_FIDELITY) and _is_within(made, order)
        return FitResult(chosen=made, candidates=(made,), met=met, tries=1)
    light: FitResult | None = None
    if order.fidelity is not None:
        light = lightest(
            raster,
            fidelity=order.fidelity,
            formats=order.formats,
            memory=memory,
            watch=watch,
            should_stop=should_stop,
        )
        # A file over the limit is never told of: who stops then would keep it.
        if order.limit_bytes is None or (light.met and light.chosen and _is_within(light.chosen, order)):
            if light.chosen is not None:
                watch.best_so_far(light.chosen)
            return light
    assert order.limit_bytes is not None  # noqa: S101  (an order has a limit or a fidelity)
    result = fit_raster(
        raster,
        limit_bytes=order.limit_bytes,
        formats=order.formats,
        memory=memory,
        watch=watch,
        should_stop=should_stop,
    )
    if light is not None:
        # What else would help is found for files that look acceptable, which is less than was asked for.
        needed = _limit_for_looks(order, light)
        for piece in needed:
            watch.advising(piece)
        return replace(result, met=False, advice=needed)
    if result.met or not advised:
        return result
    advice = advise(
        raster,
        order.limit_bytes,
        order.formats,
        memory,
        divisible=divisible,
        watch=watch,
        should_stop=should_stop,
    )
    return replace(result, advice=advice)


def _without_metadata(order: FitOrder, writer: MetadataWriter) -> FitOrder:
    """The order for the pixels alone, with room for what the file says beside them.

    Raises:
        FitError: there is no room under the limit.
    """
    limit_bytes = order.limit_bytes
    if limit_bytes is not None:
        limit_bytes -= writer.room_bytes
        if limit_bytes < 1:
            raise FitError(
                f"What the file is to say beside its pixels takes {format_bytes(writer.room_bytes)}: "
                f"more than its limit of {format_bytes(order.limit_bytes or 0)}.",
                hint="Raise the limit, or let no facts go into the file.",
                code="limit_impossible",
            )
    return replace(order, metadata=None, limit_bytes=limit_bytes)


def _is_within(made: Candidate, order: FitOrder) -> bool:
    return order.limit_bytes is None or made.byte_count <= order.limit_bytes


def _limit_for_looks(order: FitOrder, light: FitResult) -> tuple[Advice, ...]:
    """The limit under which a file looks as good as was asked for; nothing where none does."""
    if not light.met or light.chosen is None:
        return ()
    needed_bytes = light.chosen.byte_count
    name = FORMATS[light.chosen.choice.format].name
    return (
        Advice(
            kind="limit",
            value=needed_bytes,
            sentence=f"To look as good as fidelity {order.fidelity:g}, it needs {format_bytes(needed_bytes)} "
            f"as {name}.",
        ),
    )


def foretell_order(
    draw: Callable[[], Raster], order: FitOrder, *, memory: FitMemory, watch: FitWatch
) -> None:
    """Tell ``watch`` what :func:`fit_order` is expected to find, from a sample.

    ``draw`` gives the picture, opened at random places, as often as it is called. No more is pulled than
    the sample, here and there.

    Raises:
        FitError: no format can hold a picture of this size.
    """
    if order.metadata is not None:
        writer = MetadataWriter(order.metadata, order.formats, draw)
        order, watch = _without_metadata(order, writer), writer.passed_on(watch)
    # How light a file can be is found so soon that nothing has to be foretold.
    if order.choice is None and order.limit_bytes is not None and order.fidelity is None:
        foretell(draw, limit_bytes=order.limit_bytes, formats=order.formats, memory=memory, watch=watch)


def takes_transparency(formats: Iterable[Format]) -> bool:
    """Whether any of some formats keeps it."""
    return any(FORMATS[name].keeps_transparency for name in formats)
