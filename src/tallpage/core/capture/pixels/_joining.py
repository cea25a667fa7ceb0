"""How far a page moved between two views of it, by the words that both of them show. Pure."""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Any

_AT_REST_PX = 1.0
_AGREED = 0.8
"""A displacement counts as possible when it explains this share of what the best one explains."""
_FAR_SHARE = 0.3
"""Share of the window. Rows are rarely farther from where scrolling alone would have brought them."""
_QUARTERS = 4
"""Places are told in quarters of a pixel."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Piece:
    """A passage of words, or a picture, with its place in CSS px from the corner of what scrolls."""

    words: str
    x_px: float
    y_px: float
    height_px: float


@dataclass(frozen=True, slots=True, kw_only=True)
class WindowView:
    """What is seen of what scrolls, at rest."""

    top_px: int
    """How far it is scrolled."""
    content_px: int
    """Height of all that it holds, as far as it knows."""
    view_px: int
    """Height of what is seen of it."""
    pieces: tuple[Piece, ...]

    @classmethod
    def of(cls, found: dict[str, Any]) -> WindowView:
        """The view that the page script ``rest`` tells of."""
        pieces = tuple(
            Piece(words=words, x_px=x_px, y_px=y_px, height_px=height_px)
            for words, x_px, y_px, height_px in found["pieces"]
        )
        return cls(
            top_px=found["topPx"], content_px=found["contentPx"], view_px=found["viewPx"], pieces=pieces
        )

    @property
    def at_end(self) -> bool:
        """Whether it cannot be scrolled any further."""
        return self.top_px + self.view_px >= self.content_px - 1

    def shares_with(self, after: WindowView, moved_px: int) -> bool:
        """Whether anything should still be seen in a view after the content moved up so far."""
        return any(
            piece.y_px >= moved_px and piece.y_px - moved_px + piece.height_px <= after.view_px
            for piece in self.pieces
        )


@dataclass(frozen=True, slots=True, kw_only=True)
class Displacement:
    """How far the content went up between two views, and how sure that is."""

    px: int
    agreed: float
    """Share of the pieces that both views should show which are where they should be; 0–1."""


def displacement(before: WindowView, after: WindowView, *, expected_px: int | None) -> Displacement | None:
    """How far what both views show has moved up; None when that cannot be told.

    What did not move, although the rest did, does not count: it hangs in the window. Of several
    displacements that explain as much (rows that say the same), the nearest to ``expected_px``
    is taken, or the one with the most words for it when all that is expected is a move upwards. One
    that is far from what is expected is none: rows that look alike are then taken for one another.
    """
    places = defaultdict(list)
    for piece in after.pieces:
        places[_name(piece)].append(piece.y_px)
    votes: Counter[int] = Counter()
    for piece in before.pieces:
        for y_px in places[_name(piece)]:
            votes[round((piece.y_px - y_px) * _QUARTERS)] += 1
    votes = Counter(
        {
            quarters: count
            for quarters, count in votes.items()
            if _is_possible(quarters / _QUARTERS, expected_px, after.view_px)
        }
    )
    if not votes:
        return None
    stuck = _stuck(before.pieces, places) if expected_px != 0 else set()
    agreed = {quarters: _agreed(before, after, places, stuck, quarters) for quarters in votes}
    best = max(agreed.values())
    possible = [quarters for quarters in votes if agreed[quarters] >= _AGREED * best]
    if expected_px is None:
        chosen = max(possible, key=lambda quarters: votes[quarters] * agreed[quarters])
    else:
        chosen = min(possible, key=lambda quarters: abs(quarters - expected_px * _QUARTERS))
    return Displacement(px=round(chosen / _QUARTERS), agreed=agreed[chosen])


def _is_possible(px: float, expected_px: int | None, view_px: int) -> bool:
    if expected_px is None:
        return px > _AT_REST_PX
    moves = abs(expected_px) > _AT_REST_PX
    return not (moves and abs(px) <= _AT_REST_PX) and abs(px - expected_px) <= _FAR_SHARE * view_px


def _name(piece: Piece) -> tuple[str, float, float]:
    return piece.words, piece.x_px, piece.height_px


def _stuck(pieces: Iterable[Piece], places: dict[tuple[str, float, float], list[float]]) -> set[Piece]:
    """The pieces that stand where they stood."""
    return {
        piece
        for piece in pieces
        if any(abs(piece.y_px - y_px) <= _AT_REST_PX for y_px in places.get(_name(piece), ()))
    }


def _agreed(
    before: WindowView,
    after: WindowView,
    places: dict[tuple[str, float, float], list[float]],
    stuck: set[Piece],
    quarters: int,
) -> float:
    """Share of the pieces that should still be wholly seen after such a displacement, and are."""
    should: Sequence[tuple[Piece, float]] = [
        (piece, piece.y_px - quarters / _QUARTERS) for piece in before.pieces if piece not in stuck
    ]
    should = [
        (piece, y_px)
        for piece, y_px in should
        if y_px >= 0 and y_px + piece.height_px <= min(before.view_px, after.view_px)
    ]
    if not should:
        return 0.0
    there = sum(
        any(abs(seen_px - y_px) <= _AT_REST_PX for seen_px in places.get(_name(piece), ()))
        for piece, y_px in should
    )
    return there / len(should)
