"""Made-up clips: a page that is scrolled, a mark that moves, noise."""

from __future__ import annotations

from collections.abc import Iterable
from pathlib import Path

import numpy as np

from tallpage.core.clip import Frames, FramesWriter
from tests.pictures import as_png, text_page


def frames_of(folder: Path, pictures: Iterable[np.ndarray], *, rate_fps: int = 10) -> Frames:
    """Frames with these pixels, in a folder that is made."""
    folder.mkdir()
    return write_frames(folder, pictures, rate_fps=rate_fps)


def write_frames(folder: Path, pictures: Iterable[np.ndarray], *, rate_fps: int = 10) -> Frames:
    """The same in a folder that is there."""
    writer = FramesWriter(folder, rate_fps=rate_fps)
    for pixels in pictures:
        writer.add(as_png(pixels))
    return writer.finish()


def scrolled(count: int, *, width_px: int = 320, height_px: int = 200, by_px: int = 12) -> list[np.ndarray]:
    """A page of letters, further down with each frame."""
    page = text_page(width_px, height_px + count * by_px)
    return [page[number * by_px : number * by_px + height_px] for number in range(count)]


def blinking(count: int, *, width_px: int = 320, height_px: int = 200) -> list[np.ndarray]:
    """Letters that stand still, and a mark that moves over them."""
    page = text_page(width_px, height_px)
    pictures = []
    for number in range(count):
        pixels = page.copy()
        left = 10 + number * 8 % (width_px - 40)
        pixels[60:90, left : left + 30] = (200, 60, 20)
        pictures.append(pixels)
    return pictures


def noise(count: int, *, width_px: int = 320, height_px: int = 200) -> list[np.ndarray]:
    """Frames that have nothing in common."""
    values = np.random.default_rng(7)
    return [values.integers(0, 256, (height_px, width_px, 3), dtype=np.uint8) for _ in range(count)]
