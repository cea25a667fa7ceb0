"""Drawn marks as SVG, for the one module that opens it, and for whoever wants to see them alone."""

from __future__ import annotations

import base64
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from xml.sax.saxutils import quoteattr

from tallpage.core.geometry import Box
from tallpage.core.marks._drawn import DrawnMark, PlacedPicture, Shape


@dataclass(frozen=True, slots=True, kw_only=True)
class Plane:
    """How the plane of the marks lies on the picture: scaled, then moved by px of the picture."""

    across: float = 1.0
    down: float = 1.0
    x_px: float = 0.0
    y_px: float = 0.0


def svg_of(
    drawn: Sequence[DrawnMark],
    *,
    shown: Box,
    plane: Plane,
    pictures: Mapping[str, bytes],
    as_mask: bool = False,
) -> bytes:
    """The part ``shown`` of a picture, with these marks and nothing else.

    ``pictures`` are PNG files by name. ``as_mask`` draws everything white.
    """
    move = (
        f"{plane.across:.6f} 0 0 {plane.down:.6f} {plane.x_px - shown.x_px:.4f} {plane.y_px - shown.y_px:.4f}"
    )
    body = "".join(_group(row, pictures, as_mask=as_mask) for row in drawn)
    return (
        '<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" '
        f'width="{shown.width_px}" height="{shown.height_px}">'
        f'<g transform="matrix({move})" stroke-linecap="round" stroke-linejoin="round">{body}</g></svg>'
    ).encode()


def _group(drawn: DrawnMark, pictures: Mapping[str, bytes], *, as_mask: bool) -> str:
    parts = "".join(
        _shape(part, as_mask=as_mask) if isinstance(part, Shape) else _picture(part, pictures)
        for part in drawn.parts
    )
    return f'<g opacity="{drawn.opacity:.4g}">{parts}</g>' if drawn.opacity < 1 else parts


def _shape(shape: Shape, *, as_mask: bool) -> str:
    said = [*_outline(shape), *_paint("fill", "#ffffff" if as_mask and shape.fill else shape.fill)]
    if shape.even_odd:
        said.append('fill-rule="evenodd"')
    if shape.stroke:
        said += [*_paint("stroke", shape.stroke), f'stroke-width="{shape.stroke_px:.4g}"']
    if shape.dashes:
        said.append(f'stroke-dasharray="{" ".join(f"{length:.4g}" for length in shape.dashes)}"')
    return f"<path {' '.join(said)}/>"


def _outline(shape: Shape) -> list[str]:
    """The outline and where it is put. That of a stroke is drawn where it stands: it would be scaled too."""
    if shape.stroke:
        return [f'd="{shape.path.data()}"']
    matrix = " ".join(f"{number:.6g}" for number in shape.path.matrix)
    return [f'd="{shape.path.outline.data}"', f'transform="matrix({matrix})"']


def _paint(name: str, colour: str | None) -> list[str]:
    if colour is None:
        return [f'{name}="none"']
    opacity = [f'{name}-opacity="{int(colour[7:9], 16) / 255:.4g}"'] if len(colour) == 9 else []
    return [f'{name}="{colour[:7]}"', *opacity]


def _picture(part: PlacedPicture, pictures: Mapping[str, bytes]) -> str:
    box = part.box
    x, y = box.middle
    data = base64.b64encode(pictures[part.name]).decode()
    return (
        f'<image x="{box.left_px:.4f}" y="{box.top_px:.4f}" width="{box.right_px - box.left_px:.4f}" '
        f'height="{box.bottom_px - box.top_px:.4f}" preserveAspectRatio="none" '
        f'transform="rotate({part.angle_deg:.4f} {x:.4f} {y:.4f})" '
        f"xlink:href={quoteattr('data:image/png;base64,' + data)}/>"
    )
