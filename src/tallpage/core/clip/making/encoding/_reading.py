"""A clip's file as it is shown: each picture, and from when it is seen."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

import av
import numpy as np
from PIL import Image

from tallpage.core.clip._drawing import Pixels
from tallpage.core.clip._settings import ClipFormat


def read_clip(path: Path, format_: ClipFormat) -> Iterator[tuple[Pixels, float]]:
    """The pictures of a clip that was written here, one after the other, with ms from its beginning."""
    return _read_pictures(path) if format_ in ("webp", "avif") else _read_video(path)


def _read_pictures(path: Path) -> Iterator[tuple[Pixels, float]]:
    start_ms = 0.0
    with Image.open(path) as picture:
        for number in range(getattr(picture, "n_frames", 1)):
            picture.seek(number)
            pixels = np.asarray(picture.convert("RGB"))  # decodes it, and only then its duration is known
            yield pixels, start_ms
            start_ms += float(picture.info.get("duration", 0))


def _read_video(path: Path) -> Iterator[tuple[Pixels, float]]:
    with av.open(str(path)) as container:
        for frame in container.decode(video=0):
            pixels = frame.to_ndarray(format="rgb24").astype(np.uint8, copy=False)
            yield pixels, (frame.time or 0.0) * 1_000
