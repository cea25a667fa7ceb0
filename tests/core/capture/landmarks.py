"""Marks that a test finds again in a picture: a number, drawn as cells of 8 CSS px.

Magenta, the number's bits from the highest down (black is 1), cyan. Most marks have eight bits.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from tests.pictures import Pixels, as_png

CELL_PX = 8
BITS = 8
_MAGENTA, _CYAN = (255, 0, 255), (0, 255, 255)


@dataclass(frozen=True, slots=True, kw_only=True)
class Landmark:
    """A number and where its upper left corner was found, in CSS px."""

    number: int
    x_px: float
    y_px: float


def _cells(number: int, bits: int = BITS) -> list[tuple[int, int, int]]:
    shown = [(0, 0, 0) if number >> bit & 1 else (255, 255, 255) for bit in range(bits - 1, -1, -1)]
    return [_MAGENTA, *shown, _CYAN]


def mark_html(number: int) -> str:
    """A landmark as it stands in a page's text."""
    cells = "".join(
        f'<b style="flex:none;width:8px;height:8px;background:rgb{cell}"></b>' for cell in _cells(number)
    )
    return f'<div style="direction:ltr;display:flex;width:80px;height:8px;overflow:hidden">{cells}</div>'


def mark_png(number: int) -> bytes:
    """A landmark as a picture of 80 × 8 px."""
    row = np.array(_cells(number), dtype=np.uint8).repeat(CELL_PX, axis=0)
    return as_png(np.broadcast_to(row, (CELL_PX, *row.shape)).copy())


def find_landmarks(pixels: Pixels, scale: int = 1, *, bits: int = BITS) -> list[Landmark]:
    """Every landmark that is whole, from top to bottom; one that is broken counts as number -1."""
    magenta = (pixels == _MAGENTA).all(axis=2)
    above = np.vstack([np.zeros_like(magenta[:1]), magenta[:-1]])
    left = np.hstack([np.zeros_like(magenta[:, :1]), magenta[:, :-1]])
    return [
        Landmark(number=_read(pixels, int(y), int(x), scale, bits), x_px=x / scale, y_px=y / scale)
        for y, x in np.argwhere(magenta & ~above & ~left)
    ]


def _read(pixels: Pixels, y: int, x: int, scale: int, bits: int) -> int:
    cell, count = CELL_PX * scale, bits + 2
    piece = pixels[y : y + cell, x : x + count * cell]
    if piece.shape[:2] != (cell, count * cell):
        return -1
    cells = piece.reshape(cell, count, cell, 3).transpose(1, 0, 2, 3).reshape(count, -1, 3)
    if (cells != cells[:, :1]).any():  # every cell is of one colour
        return -1
    colours = [tuple(int(value) for value in row[0]) for row in cells]
    number = sum(1 << (bits - place) for place in range(1, bits + 1) if colours[place] == (0, 0, 0))
    return number if colours == _cells(number, bits) else -1
