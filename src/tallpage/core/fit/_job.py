"""A whole fit: frame -> resize -> best file, with advice when it does not fit."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

from tallpage.core.errors import FitError
from tallpage.core.fit._advising import advise
from tallpage.core.fit._fidelity import ACCEPTABLE_FIDELITY
from tallpage.core.fit._fit import FitResult, fit_raster
from tallpage.core.fit._formats import Format
from tallpage.core.fit._making import Candidate, fit_with
from tallpage.core.fit._recipes import Choice
from tallpage.core.geometry import Size
from tallpage.core.picture import Raster

GREATEST_WIDTH_PX = 16_000


@dataclass(frozen=True, slots=True, kw_only=True)
class FitOrder:
    """What a place asks for. A missing ``limit_bytes`` means the place has none."""

    width_px: int
    limit_bytes: int
    formats: tuple[Format, ...]
    greatest_height_px: int | None = None
    choice: Choice | None = None
    """Overrules the search."""

    def __post_init__(self) -> None:
        if not 1 <= self.width_px <= GREATEST_WIDTH_PX:
            raise FitError(
                f"A width of {self.width_px:,} px cannot be made.",
                hint=f"Give a width from 1 to {GREATEST_WIDTH_PX:,} px.",
                code="width_impossible",
            )
        if self.limit_bytes < 1:
            raise FitError(
                f"No file fits a limit of {self.limit_bytes} bytes.",
                hint="Give a limit like 90 kB.",
                code="limit_impossible",
            )


def fit_cut(
    open_at: Callable[[int], Raster],
    frame_size: Size,
    order: FitOrder,
    *,
    on_first: Callable[[Candidate], None] | None = None,
    should_stop: Callable[[], None] = lambda: None,
) -> FitResult:
    """Fit what ``open_at(width_px)`` shows to ``order``.

    ``open_at`` gives the cut at a width, held, since it is read many times. With a ``choice`` the
    result holds the one file made by it.

    Raises:
        FitError: the output would be higher than allowed, or no format can hold it.
    """
    target = frame_size.at_width(order.width_px)
    _require_height(target, frame_size, order)
    raster = open_at(order.width_px)
    if order.choice is not None:
        made = fit_with(raster, order.choice)
        met = made.byte_count <= order.limit_bytes and made.fidelity >= ACCEPTABLE_FIDELITY
        return FitResult(chosen=made, candidates=(made,), met=met, tries=1)
    result = fit_raster(
        raster,
        limit_bytes=order.limit_bytes,
        formats=order.formats,
        on_first=on_first,
        should_stop=should_stop,
    )
    if result.met:
        return result
    return replace(result, advice=advise(raster, order.limit_bytes, order.formats, should_stop=should_stop))


def _require_height(target: Size, frame_size: Size, order: FitOrder) -> None:
    if order.greatest_height_px is None or target.height_px <= order.greatest_height_px:
        return
    page_px = order.greatest_height_px * frame_size.width_px // order.width_px
    raise FitError(
        f"At {order.width_px:,} px wide this cut is {target.height_px:,} px high; "
        f"the place takes at most {order.greatest_height_px:,} px.",
        hint=f"Cut a stretch of at most {page_px:,} px of the page.",
        code="output_too_high",
    )
