"""Animated pictures that a page shows: which of their pictures is seen at a moment."""

from __future__ import annotations

import bisect
import io
import itertools
import struct

from PIL import Image

_MOST_BYTES, _MOST_PICTURES, _MOST_PIXELS = 20_000_000, 1_000, 400_000_000
"""What is larger is kept still; the pixels are those of all of its pictures together."""
_UNREADABLE = (OSError, SyntaxError, ValueError, EOFError, IndexError, TypeError, struct.error)
_LEAST_MS, _USUAL_MS = 11, 100
"""Browsers show a picture that asks for less than the first for the second."""


class Animation:
    """One animated picture: GIF, WebP, PNG or AVIF."""

    def __init__(self, picture: Image.Image, data: bytes) -> None:
        self._picture = picture
        shown_ms = []
        for number in range(picture.n_frames):  # type: ignore[attr-defined]
            picture.seek(number)
            picture.load()  # only then its duration is known
            asked_ms = float(picture.info.get("duration") or 0)
            shown_ms.append(_USUAL_MS if asked_ms < _LEAST_MS else asked_ms)
        self._ends_ms = list(itertools.accumulate(shown_ms))
        self._times = _times_played(picture, data)

    @classmethod
    def of(cls, data: bytes) -> Animation | None:
        """The animation in a file; None where nothing in it moves, or it cannot be read."""
        if len(data) > _MOST_BYTES:
            return None
        try:
            picture = Image.open(io.BytesIO(data), formats=("GIF", "WEBP", "PNG", "AVIF"))
            count = getattr(picture, "n_frames", 1)
            is_held = count <= _MOST_PICTURES and count * picture.width * picture.height <= _MOST_PIXELS
            return cls(picture, data) if count > 1 and is_held else None
        except (*_UNREADABLE, Image.DecompressionBombError):
            return None  # it is shown as the browser shows it

    def number_at(self, moment_ms: float) -> int:
        """Which of its pictures is seen so long after it began; the last, once it has ended."""
        whole_ms = self._ends_ms[-1]
        if self._times and moment_ms >= self._times * whole_ms:
            return len(self._ends_ms) - 1
        return bisect.bisect_right(self._ends_ms, moment_ms % whole_ms)

    def png(self, number: int) -> bytes:
        """One of its pictures, as it is seen with what those before it left."""
        self._picture.seek(number)
        file = io.BytesIO()
        self._picture.convert("RGBA").save(file, "PNG", compress_level=1)
        return file.getvalue()


def _times_played(picture: Image.Image, data: bytes) -> int:
    """How often it is played, 0 for without end."""
    if picture.format != "GIF":
        return int(picture.info.get("loop", 0))
    # A GIF that does not speak of repeating is played once; its number counts what comes after that.
    if b"NETSCAPE2.0" not in data:
        return 1
    repeats = int(picture.info.get("loop", 0))
    return repeats + 1 if repeats else 0
