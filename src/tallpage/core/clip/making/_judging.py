"""How close a clip looks to what it was made of, over all of its time."""

from __future__ import annotations

import itertools
from collections.abc import Callable, Iterable, Iterator, Sequence

from tallpage.core.clip._drawing import Pixels
from tallpage.core.clip._playing import Shown
from tallpage.core.fit import fidelity
from tallpage.core.geometry import Size
from tallpage.core.picture import Raster

Judge = Callable[[Raster, Raster], float]


def moments(shown: Sequence[Shown], most: int) -> tuple[Shown, ...]:
    """Some of what is seen, evenly over the clip, each standing for as long as it has to."""
    if len(shown) <= most:
        return tuple(shown)
    edges = [round(place * len(shown) / most) for place in range(most + 1)]
    found = []
    for first, end in itertools.pairwise(edges):
        group = shown[first:end]
        middle = group[len(group) // 2]
        found.append(
            Shown(
                frame=middle.frame,
                start_ms=middle.start_ms,
                duration_ms=sum(row.duration_ms for row in group),
            )
        )
    return tuple(found)


def fidelity_over_time(
    originals: Iterable[tuple[Pixels, Shown]],
    result: Iterable[tuple[Pixels, float]],
    *,
    judge: Judge = fidelity,
) -> float:
    """Mean of the fidelities of the pictures that are seen at the same moments, weighted by how long.

    ``result`` comes with ms from its beginning. Where it has fewer pictures, what is seen instead is
    compared; where it is smaller, it is compared as large as the originals are.
    """
    weighed, total_ms = 0.0, 0
    pictures = _Seen(result)
    for pixels, row in originals:
        original = Raster.from_rows(pixels)
        # Looked at as soon as it is there for sure: files count in hundredths of a second.
        seen = pictures.at(row.start_ms + min(row.duration_ms / 2, _LOOKED_AT_MS))
        weighed += judge(original, Raster.from_rows(seen).resized(original.size)) * row.duration_ms
        total_ms += row.duration_ms
    return weighed / total_ms if total_ms else 0.0


_LOOKED_AT_MS = 16.0


class _Seen:
    """What is seen at each moment; moments are asked for in order."""

    def __init__(self, pictures: Iterable[tuple[Pixels, float]]) -> None:
        self._pictures: Iterator[tuple[Pixels, float]] = iter(pictures)
        self._now, _ = next(self._pictures)
        self._next = next(self._pictures, None)

    def at(self, moment_ms: float) -> Pixels:
        while self._next is not None and self._next[1] <= moment_ms:
            self._now = self._next[0]
            self._next = next(self._pictures, None)
        return self._now


def at_even_size(size: Size) -> Size:
    """The nearest size whose sides are even."""
    return Size(width_px=max(2, size.width_px // 2 * 2), height_px=max(2, size.height_px // 2 * 2))
