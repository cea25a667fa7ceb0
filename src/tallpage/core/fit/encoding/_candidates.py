"""Files that are really made: encoded, decoded again, judged."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

from tallpage.core.errors import FitError
from tallpage.core.fit.encoding._cached_encoder import CachedEncoder
from tallpage.core.fit.encoding._formats import FORMATS, Format
from tallpage.core.fit.encoding._memory import FitMemory
from tallpage.core.fit.encoding._recipes import RECIPES, Choice, Recipe
from tallpage.core.geometry import Size
from tallpage.core.picture import WHITE, Raster


@dataclass(frozen=True, slots=True, kw_only=True)
class Candidate:
    """One file that was really made."""

    recipe: str
    choice: Choice
    byte_count: int
    fidelity: float
    data: bytes = field(repr=False)


def ready_for(raster: Raster, formats: Sequence[Format]) -> tuple[Raster, tuple[Format, ...]]:
    """The picture as it is encoded, and the formats that can hold it.

    Transparency is kept when any of the formats keeps it, else flattened over white.

    Raises:
        FitError: no accepted format can hold a picture of this size.
    """
    transparent = not raster.is_opaque
    usable = formats_that_hold(raster.size, formats, transparent=transparent)
    if not transparent:
        return raster.without_alpha(), usable
    keeps = all(FORMATS[name].keeps_transparency for name in usable)
    return (raster if keeps else raster.flattened(WHITE)), usable


def formats_that_hold(size: Size, formats: Sequence[Format], *, transparent: bool) -> tuple[Format, ...]:
    """Those of ``formats`` that can hold a picture; of a transparent one those that keep that, if any does.

    Raises:
        FitError: none can hold a picture of this size.
    """
    side_px = max(size.width_px, size.height_px)
    holding = tuple(name for name in formats if side_px <= FORMATS[name].greatest_side_px)
    if not holding:
        raise _too_tall(size, formats)
    keeping = tuple(name for name in holding if FORMATS[name].keeps_transparency)
    return keeping if transparent and keeping else holding


def measured(source: CachedEncoder, recipe: Recipe, choice: Choice, *, draft: bool = False) -> Candidate:
    """Encode, and judge what a viewer makes of it."""
    data = source.encoded(choice, draft=draft)
    return Candidate(
        recipe=recipe.name,
        choice=choice,
        byte_count=len(data),
        fidelity=source.fidelity(choice, draft=draft),
        data=data,
    )


def fit_with(raster: Raster, choice: Choice, memory: FitMemory | None = None) -> Candidate:
    """The file for a choice made by hand, whatever its bytes."""
    source, _ = ready_for(raster, [choice.format])
    recipe = next(row for row in RECIPES if row.makes(choice))
    return measured(CachedEncoder(source, memory or FitMemory()), recipe, choice)


def _too_tall(size: Size, formats: Sequence[Format]) -> FitError:
    names = " or ".join(FORMATS[name].name for name in formats)
    greatest_px = max(FORMATS[name].greatest_side_px for name in formats)
    return FitError(
        f"A picture of {size.width_px:,} × {size.height_px:,} px does not go into {names}, "
        f"which ends at {greatest_px:,} px.",
        hint="Cut a shorter stretch, choose a smaller width, or accept PNG.",
        code="format_too_tall",
    )
