"""Paper, and where a picture and its foot line lie on a sheet. Lengths are points: 72 to the inch."""

from __future__ import annotations

import re
from dataclasses import dataclass

from tallpage.core.errors import HandOverError
from tallpage.core.geometry import Size

POINTS_A_MM = 72 / 25.4
POINTS_A_PX = 0.75
"""A CSS px is a ninety-sixth of an inch. Source: CSS Values and Units, 5.2 absolute lengths."""
GREATEST_SIDE_PT = 14_400.0
"""Greatest side of a page that viewers have to show. Source: ISO 32000-1, annex C.2, 200 inches."""
_LEAST_MM, _GREATEST_MM = 50.0, 2_000.0
_LEAST_SHOWN_PT = 72.0
"""Least width and height of what is left of a sheet for the picture."""
_FOOT_ROOM_PT = 8.0
"""Between the picture and the line below it."""
_OWN_SIZE = re.compile(r"(\d+(?:\.\d+)?)\s*[x×]\s*(\d+(?:\.\d+)?)\s*(mm|cm|in)", re.IGNORECASE)
_MM_A_UNIT = {"mm": 1.0, "cm": 10.0, "in": 25.4}


@dataclass(frozen=True, slots=True)
class Paper:
    """Width and height of a sheet in mm; None for one page as tall as the picture."""

    size_mm: tuple[float, float] | None = None

    def __str__(self) -> str:
        if self.size_mm is None:
            return "one tall page"
        return f"{self.size_mm[0]:g} × {self.size_mm[1]:g} mm"


TALL = Paper()
_NAMED = {"tall": TALL, "a4": Paper((210, 297)), "letter": Paper((215.9, 279.4))}


def parse_paper(text: str) -> Paper:
    """The paper of ``A4``, ``letter``, ``tall``, or a size such as ``210x297mm``.

    Raises:
        HandOverError: it is none of them, or beyond what can be made.
    """
    named = _NAMED.get(text.strip().lower())
    if named is not None:
        return named
    match = _OWN_SIZE.fullmatch(text.strip())
    sides_mm = tuple(float(match[at]) * _MM_A_UNIT[match[3].lower()] for at in (1, 2)) if match else ()
    if len(sides_mm) != 2:
        raise HandOverError(
            f"“{text}” is no paper.",
            hint="Give A4, letter, tall, or a size like 210x297mm.",
            code="paper_malformed",
        )
    if not all(_LEAST_MM <= side <= _GREATEST_MM for side in sides_mm):
        raise HandOverError(
            f"Paper of {sides_mm[0]:g} × {sides_mm[1]:g} mm cannot be made.",
            hint=f"Each side may have from {_LEAST_MM:g} to {_GREATEST_MM:,.0f} mm.",
            code="paper_malformed",
        )
    return Paper((sides_mm[0], sides_mm[1]))


@dataclass(frozen=True, slots=True, kw_only=True)
class Ground:
    """What a sheet leaves for a picture of some width. Only a tall page's height follows the picture."""

    page_width_pt: float
    page_height_pt: float | None
    """None for a tall page."""
    margin_pt: float
    foot_pt: float
    """Height of the lines below the picture; 0 where nothing is said there."""
    points_a_px: float
    """How large a px of the picture is."""

    @property
    def most_rows_px(self) -> int | None:
        """How many rows of the picture a sheet has room for; None on a tall page."""
        if self.page_height_pt is None:
            return None
        room_pt = self.page_height_pt - 2 * self.margin_pt - self._below_pt
        return max(1, int(room_pt / self.points_a_px + 1e-6))

    def height_pt(self, rows_px: int) -> float:
        """Height of a sheet that shows so many rows."""
        if self.page_height_pt is not None:
            return self.page_height_pt
        return rows_px * self.points_a_px + 2 * self.margin_pt + self._below_pt

    @property
    def _below_pt(self) -> float:
        return self.foot_pt + _FOOT_ROOM_PT if self.foot_pt else 0.0


def ground_for(paper: Paper, picture: Size, *, margin_mm: float, foot_pt: float) -> Ground:
    """What a paper leaves for a picture, which is never drawn larger than it is on a screen.

    A tall page beyond what viewers show is made smaller as a whole; the picture keeps its px.

    Raises:
        HandOverError: margins and foot line leave no room.
    """
    if paper.size_mm is None:
        below_pt = foot_pt + _FOOT_ROOM_PT if foot_pt else 0.0
        margin_pt = _FOOT_ROOM_PT if foot_pt else 0.0
        least_pt = min(
            POINTS_A_PX,
            (GREATEST_SIDE_PT - 2 * margin_pt) / picture.width_px,
            (GREATEST_SIDE_PT - 2 * margin_pt - below_pt) / picture.height_px,
        )
        return Ground(
            page_width_pt=picture.width_px * least_pt + 2 * margin_pt,
            page_height_pt=None,
            margin_pt=margin_pt,
            foot_pt=foot_pt,
            points_a_px=least_pt,
        )
    width_pt, height_pt = (side * POINTS_A_MM for side in paper.size_mm)
    margin_pt = margin_mm * POINTS_A_MM
    room_pt = (
        width_pt - 2 * margin_pt,
        height_pt - 2 * margin_pt - (foot_pt + _FOOT_ROOM_PT if foot_pt else 0),
    )
    if min(room_pt) < _LEAST_SHOWN_PT:
        raise HandOverError(
            f"Margins of {margin_mm:g} mm leave no room on {paper}.",
            hint="Give smaller margins, or larger paper.",
            code="paper_malformed",
        )
    return Ground(
        page_width_pt=width_pt,
        page_height_pt=height_pt,
        margin_pt=margin_pt,
        foot_pt=foot_pt,
        points_a_px=min(POINTS_A_PX, room_pt[0] / picture.width_px),
    )
