"""Ways to encode: a format, its settings, and the one quality step that is searched."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

from tallpage.core.fit.encoding._formats import Format
from tallpage.core.fit.prediction._sampling import sampled_rows
from tallpage.core.picture import (
    Metadata,
    PngFilter,
    Raster,
    encode_avif,
    encode_gif,
    encode_jpeg,
    encode_lossless_webp,
    encode_palette_png,
    encode_png,
    encode_webp,
    png_with_metadata,
)

_QUALITIES = tuple(range(2, 99))
_PROBED = (12, 30, 50, 68, 82, 96)
# Found by encoding at each: the encoder knows fewer steps than there are qualities, and these are the
# lowest of each step.
_AVIF_QUALITIES = tuple(
    quality
    for quality in _QUALITIES
    if (quality < 35 and quality % 2 == 0)
    or (35 <= quality <= 55 and quality % 5 not in (1, 3))
    or (quality > 55 and quality % 4 != 1)
)
_SHARP_PHOTOGRAPHS_FROM = 72
"""Quality of WebP below which photographs look no better for sharp colours."""
_PALETTES = (2, 4, 16, 256)  # what one, two, four and eight bits a pixel can name
_FINE_PALETTES = (2, 4, 16, 32, 64, 128, 256)


@dataclass(frozen=True, slots=True, kw_only=True)
class ContentClass:
    """What of a picture decides how it is best encoded, beside the choice."""

    photographic: bool
    """No letters whose colours want care."""
    large: bool
    """Whether it is so large that the last bit of effort would take too long."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Choice:
    """A way to encode that a person or the search settled on."""

    format: Format
    quality: int | None = None
    """2–98; None where the recipe has no quality (lossless, palette)."""
    colours: int | None = None
    """2, 4, 16 or 256, for palette PNG and GIF only; 32, 64 or 128 for PNG as well."""
    subsampled: bool = False
    """Colour planes at half size, for JPEG only."""
    softened: bool = False
    """Encoded from slightly softened pixels."""
    sharpened: bool = False
    """Encoded from slightly sharpened pixels; only ever chosen by hand."""
    deblocked: bool = False
    """How blocks are smoothed is tried out, for lossy WebP only."""
    patient: bool = False
    """Encoded in several times the time, for AVIF only."""


@dataclass(frozen=True, slots=True, kw_only=True)
class DraftWeights:
    """Bytes of a careful file for each of a draft's, at each quality step that is probed: medians of the
    pages and photographs of ``bench/fit``."""

    pages: Sequence[float]
    photographs: Sequence[float]


@dataclass(frozen=True, slots=True, kw_only=True)
class Recipe:
    """A format with its settings; ``quality_steps`` ascend in bytes and looks, empty when there is none."""

    name: str
    format: Format
    quality_steps: Sequence[int]
    choice_at: Callable[[int], Choice]
    probed: Sequence[int] = ()
    """Quality steps at which a sample is encoded to predict the others."""
    draft_weights: DraftWeights | None = None
    """None where there are no drafts."""
    drafts_look_alike: bool = True
    """Whether a draft looks about as good as the careful file of its quality step."""
    slow: bool = False
    """Whether another file takes so long that it has to gain more."""
    palette: bool = False
    """Whether the quality step is a number of colours."""
    fixed_bytes: int = 0
    """Bytes of a file's head and tables, which do not grow with the picture."""

    @property
    def lossless(self) -> bool:
        """Whether the result shows exactly the pixels that went in."""
        return not self.quality_steps

    def makes(self, choice: Choice) -> bool:
        """Whether a choice is one of this recipe's, as it is or softened, sharpened, finished."""
        quality_step = choice.quality or choice.colours or 0
        return self.lossless == (not quality_step) and replace(
            choice, softened=False, sharpened=False, deblocked=False, patient=False
        ) == self.choice_at(quality_step)


RECIPES: tuple[Recipe, ...] = (
    Recipe(name="PNG, lossless", format="png", quality_steps=(), choice_at=lambda _: Choice(format="png")),
    Recipe(name="WebP, lossless", format="webp", quality_steps=(), choice_at=lambda _: Choice(format="webp")),
    Recipe(
        name="JPEG, full colour",
        format="jpeg",
        quality_steps=_QUALITIES,
        probed=_PROBED,
        draft_weights=DraftWeights(
            pages=(0.62, 0.73, 0.78, 0.80, 0.84, 0.90), photographs=(0.84, 0.87, 0.88, 0.89, 0.90, 0.88)
        ),
        fixed_bytes=600,
        choice_at=lambda quality_step: Choice(format="jpeg", quality=quality_step),
    ),
    Recipe(
        name="JPEG, halved colour",
        format="jpeg",
        quality_steps=_QUALITIES,
        probed=_PROBED,
        draft_weights=DraftWeights(
            pages=(0.63, 0.75, 0.80, 0.82, 0.86, 0.92), photographs=(0.86, 0.87, 0.88, 0.89, 0.90, 0.88)
        ),
        fixed_bytes=600,
        choice_at=lambda quality_step: Choice(format="jpeg", quality=quality_step, subsampled=True),
    ),
    Recipe(
        name="PNG, palette",
        format="png",
        quality_steps=_PALETTES,
        probed=_PALETTES,
        palette=True,
        choice_at=lambda quality_step: Choice(format="png", colours=quality_step),
    ),
    Recipe(
        name="WebP",
        format="webp",
        quality_steps=_QUALITIES,
        probed=_PROBED,
        draft_weights=DraftWeights(
            pages=(0.80, 0.78, 0.82, 0.84, 0.85, 0.96), photographs=(0.70, 0.68, 0.70, 0.73, 0.80, 0.93)
        ),
        choice_at=lambda quality_step: Choice(format="webp", quality=quality_step),
    ),
    Recipe(
        name="AVIF",
        format="avif",
        quality_steps=_AVIF_QUALITIES,
        probed=(16, 40, 62, 80, 95),
        draft_weights=DraftWeights(
            pages=(1.20, 0.92, 0.81, 0.68, 0.63), photographs=(1.04, 0.98, 0.92, 0.92, 0.94)
        ),
        slow=True,
        drafts_look_alike=False,  # of pages they look far worse
        fixed_bytes=300,
        choice_at=lambda quality_step: Choice(format="avif", quality=quality_step),
    ),
    Recipe(
        name="GIF",
        format="gif",
        quality_steps=_PALETTES,
        probed=_PALETTES,
        palette=True,
        choice_at=lambda quality_step: Choice(format="gif", colours=quality_step),
    ),
)
JPEG_FULL_COLOUR = next(row for row in RECIPES if row.name == "JPEG, full colour")
LOSSLESS = tuple(row for row in RECIPES if row.lossless)
LOSSY = tuple(row for row in RECIPES if not row.lossless)


def softened_recipe(recipe: Recipe) -> Recipe | None:
    """The same from softened pixels; None for palettes, which softening only burdens with colours."""
    if recipe.palette:
        return None
    return replace(
        recipe,
        name=f"{recipe.name}, softened",
        choice_at=lambda quality_step: replace(recipe.choice_at(quality_step), softened=True),
    )


def finer_palette(recipe: Recipe) -> Recipe:
    """The same recipe of palette PNG, with more numbers of colours; each takes several looks to be made."""
    return replace(recipe, quality_steps=_FINE_PALETTES)


def patient_recipe(recipe: Recipe) -> Recipe:
    """The same recipe of AVIF, with more time for each file."""
    return replace(
        recipe, choice_at=lambda quality_step: replace(recipe.choice_at(quality_step), patient=True)
    )


def encode(
    raster: Raster,
    choice: Choice,
    content_class: ContentClass,
    *,
    draft: bool = False,
    metadata: Metadata | None = None,
) -> bytes:
    """The file of ``raster`` for ``choice``; JPEG needs an opaque raster.

    A draft only tells about how heavy the file will be. Metadata change no pixel.
    """
    if choice.softened:
        raster = raster.softened()
    if choice.sharpened:
        raster = raster.sharpened()
    match choice.format:
        case "jpeg":
            return encode_jpeg(
                raster,
                quality=choice.quality or 0,
                subsample=choice.subsampled,
                draft=draft,
                metadata=metadata,
            )
        case "webp" if choice.quality is not None:
            return encode_webp(
                raster,
                quality=choice.quality,
                draft=draft,
                sharp_colour=not content_class.photographic or choice.quality >= _SHARP_PHOTOGRAPHS_FROM,
                thorough=content_class.photographic,
                deblocked=choice.deblocked,
                metadata=metadata,
            )
        case "webp":
            return encode_lossless_webp(raster, draft=draft, metadata=metadata)
        case "avif":
            return encode_avif(
                raster,
                quality=choice.quality or 0,
                draft=draft,
                thorough=not content_class.large,
                patient=choice.patient,
                metadata=metadata,
            )
        case "gif":
            return encode_gif(raster, colours=choice.colours or 256, dithered=content_class.photographic)
        case "png" if choice.colours is not None:
            png = encode_palette_png(raster, colours=choice.colours, dithered=content_class.photographic)
        case "png":
            png = encode_png(raster, compression=6 if draft else 9, row_filter=_lighter_filter(raster))
    return png_with_metadata(png, metadata) if metadata else png


def _lighter_filter(raster: Raster) -> PngFilter:
    """How a PNG is lighter: differences pay in photographs and shades, seldom where letters stand."""
    sample = sampled_rows(raster)
    filters: tuple[PngFilter, ...] = ("none", "sub")
    pixels, differences = (len(encode_png(sample, compression=3, row_filter=name)) for name in filters)
    return "all" if differences < pixels else "none"
