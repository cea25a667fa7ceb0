"""Views of a page as somebody would take them who scrolls, with what comes in between in practice."""

from __future__ import annotations

import io
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray
from PIL import Image, ImageDraw

Pixels = NDArray[np.uint8]
"""Shape (height, width, 3)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Views:
    """Views of a page, where each lies on it, and what the whole should look like."""

    views: tuple[Pixels, ...]
    tops_px: tuple[float, ...]
    whole: Pixels
    """The page from the top of the highest view on, as far as the views go."""

    @property
    def height_px(self) -> int:
        return int(self.views[0].shape[0])


def scrolled(page: Pixels, tops_px: Sequence[float], height_px: int) -> Views:
    """Windows over a page; one that lies between two rows shows the mean of both."""
    least, most = int(np.floor(min(tops_px))), int(np.ceil(max(tops_px))) + height_px
    return Views(
        views=tuple(_window(page, top_px, height_px) for top_px in tops_px),
        tops_px=tuple(tops_px),
        whole=page[least:most].copy(),
    )


def _window(page: Pixels, top_px: float, height_px: int) -> Pixels:
    first = int(np.floor(top_px))
    share = top_px - first
    upper = page[first : first + height_px].astype(np.float32)
    if not share:
        return page[first : first + height_px].copy()
    lower = page[first + 1 : first + 1 + height_px].astype(np.float32)
    mixed: Pixels = (upper * (1 - share) + lower * share + 0.5).astype(np.uint8)
    return mixed


def under_header(views: Views, height_px: int, *, scale: int = 1) -> Views:
    """A header that stays while the page goes by below it."""
    header = _header(views.whole.shape[1], height_px, scale)

    def covered(pixels: Pixels) -> Pixels:
        pixels = pixels.copy()
        pixels[:height_px] = header
        return pixels

    return replace(views, views=tuple(map(covered, views.views)), whole=covered(views.whole))


def over_foot_line(views: Views, height_px: int, *, scale: int = 1) -> Views:
    """A line at the foot of the window that stays."""
    foot = _header(views.whole.shape[1], height_px, scale)[::-1]

    def covered(pixels: Pixels) -> Pixels:
        pixels = pixels.copy()
        pixels[-height_px:] = foot
        return pixels

    return replace(views, views=tuple(map(covered, views.views)), whole=covered(views.whole))


def beside_side_bar(views: Views, width_px: int) -> Views:
    """A list of links at the left that stays; below it the picture shows its ground."""
    bar = np.full((views.height_px, width_px, 3), (238, 240, 244), dtype=np.uint8)
    picture = Image.fromarray(bar)
    drawn = ImageDraw.Draw(picture)
    for row in range(min(12, (views.height_px - 170) // 34)):
        drawn.text((16, 90 + 34 * row), f"Chapter {row + 1} of the guide", fill=(40, 60, 90))
    bar = np.asarray(picture)

    def covered(pixels: Pixels) -> Pixels:
        pixels = pixels.copy()
        pixels[:, :width_px] = (238, 240, 244)
        pixels[: views.height_px, :width_px] = bar
        return pixels

    return replace(views, views=tuple(map(covered, views.views)), whole=covered(views.whole))


def with_animation(views: Views, rng: np.random.Generator, *, side_px: int = 180) -> Views:
    """Something in the lower right corner of the window that never looks the same."""
    changed = []
    for pixels in views.views:
        changed.append(pixels.copy())
        changed[-1][-side_px - 20 : -20, -side_px - 20 : -20] = rng.integers(
            0, 256, (side_px, side_px, 3), dtype=np.uint8
        )
    return replace(views, views=tuple(changed))


def with_button(views: Views) -> Views:
    """A round button that floats over the page, at the right, above the foot of the window."""
    changed = []
    for pixels in views.views:
        picture = Image.fromarray(pixels)
        bottom, right = pixels.shape[0] - 60, pixels.shape[1] - 40
        drawn = ImageDraw.Draw(picture)
        drawn.ellipse((right - 64, bottom - 64, right, bottom), fill=(20, 90, 160))
        drawn.text((right - 44, bottom - 40), "Help", fill=(255, 255, 255))
        changed.append(np.asarray(picture))
    return replace(views, views=tuple(changed))


def compressed(views: Views, quality: int) -> Views:
    """Each view as a JPEG of this quality, apart from the others."""
    return replace(views, views=tuple(_jpeg(pixels, quality) for pixels in views.views))


def shuffled(views: Views, rng: np.random.Generator) -> Views:
    """The same views in another order."""
    order = rng.permutation(len(views.views))
    return replace(
        views,
        views=tuple(views.views[at] for at in order),
        tops_px=tuple(views.tops_px[at] for at in order),
    )


def like_rows(count: int, width_px: int, *, numbered: bool, row_px: int = 40) -> Pixels:
    """A table whose rows are all the same, but for their numbers if they have any."""
    picture = Image.new("RGB", (width_px, count * row_px), "white")
    drawn = ImageDraw.Draw(picture)
    for row in range(count):
        top = row * row_px
        words = f"No {row + 1:04d}" if numbered else "No"
        drawn.text((24, top + 12), words, fill=(30, 30, 30))
        for column in range(160, width_px - 120, 180):
            drawn.text((column, top + 12), "Skerrin - Holm 09:40", fill=(30, 30, 30))
        drawn.line((0, top + row_px - 1, width_px, top + row_px - 1), fill=(200, 200, 200))
    return np.asarray(picture)


def _jpeg(pixels: Pixels, quality: int) -> Pixels:
    file = io.BytesIO()
    Image.fromarray(pixels).save(file, "JPEG", quality=quality)
    return np.asarray(Image.open(file).convert("RGB"))


def _header(width_px: int, height_px: int, scale: int) -> Pixels:
    picture = Image.new("RGB", (width_px, height_px), (24, 60, 90))
    drawn = ImageDraw.Draw(picture)
    words = ("Skerrin Sound Ferries", "Timetable", "Fares", "Your journey", "Sign in")
    for number, word in enumerate(words):
        place = (24 + number * width_px // 6, height_px // 2 - 6)
        drawn.text(place, word, fill="white", font_size=11 * scale)
    drawn.line((0, height_px - 1, width_px, height_px - 1), fill=(10, 30, 50))
    return np.asarray(picture)
