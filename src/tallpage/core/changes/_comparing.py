"""Two takes of a page compared: where they differ, by how much, and what was written or dropped."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass
from pathlib import Path

from tallpage.core.changes._aligning import aligned, gaps_between
from tallpage.core.changes._differing import measure_gap
from tallpage.core.changes._fingerprint import Fingerprint, RowReader
from tallpage.core.geometry import Box
from tallpage.core.page_map import PageMap
from tallpage.core.picture import StripManifest

_NEAR_PX = 24
"""Stretches that lie closer together are shown as one."""
_MOST_WORDS = 50


@dataclass(frozen=True, slots=True, kw_only=True)
class Side:
    """A capture in its folder, and what it looks like."""

    folder: Path
    manifest: StripManifest
    fingerprint: Fingerprint

    @property
    def whole(self) -> Box:
        """All of it."""
        return Box.whole(self.manifest.size)


@dataclass(frozen=True, slots=True, kw_only=True)
class Stretch:
    """A piece of the page that is not what it was; None where there is nothing of it."""

    before: Box | None
    now: Box | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Change:
    """``share`` of the pixels (0–1) of the taller picture, and the stretches from top to bottom."""

    share: float
    stretches: tuple[Stretch, ...]


def compare(before: Side, now: Side) -> Change:
    """Compare two captures; pixels are read only where rows differ. Of other widths, all differs."""
    width_px = now.manifest.width_px
    if before.manifest.width_px != width_px:
        return Change(share=1, stretches=(Stretch(before=before.whole, now=now.whole),))
    rows_before, rows_now = before.fingerprint.rows, now.fingerprint.rows
    read_before, read_now = (RowReader(side.folder, side.manifest) for side in (before, now))
    found = [
        measured
        for gap in gaps_between(aligned(rows_before, rows_now), len(rows_before), len(rows_now))
        if (measured := measure_gap(gap, read_before, read_now))
    ]
    pixels = sum(max(row.pixels_before, row.pixels_now) for row in found)
    return Change(
        share=pixels / (width_px * max(len(rows_before), len(rows_now))),
        stretches=tuple(_joined([Stretch(before=row.before, now=row.now) for row in found])),
    )


def _joined(stretches: list[Stretch]) -> list[Stretch]:
    """Stretches that lie close together, as one."""
    joined: list[Stretch] = []
    for stretch in stretches:
        last = joined[-1] if joined else None
        if last and (_near(last.now, stretch.now) or _near(last.before, stretch.before)):
            joined[-1] = Stretch(
                before=_around(last.before, stretch.before), now=_around(last.now, stretch.now)
            )
        else:
            joined.append(stretch)
    return joined


def _near(upper: Box | None, lower: Box | None) -> bool:
    return upper is not None and lower is not None and lower.y_px - upper.bottom_px < _NEAR_PX


def _around(first: Box | None, second: Box | None) -> Box | None:
    """The least box that holds both."""
    if first is None or second is None:
        return first or second
    left_px, top_px = min(first.x_px, second.x_px), min(first.y_px, second.y_px)
    return Box(
        x_px=left_px,
        y_px=top_px,
        width_px=max(first.right_px, second.right_px) - left_px,
        height_px=max(first.bottom_px, second.bottom_px) - top_px,
    )


def words_changed(before: PageMap, now: PageMap) -> tuple[list[str], list[str]]:
    """``(added, removed)``: passages of the page that only one of the two says, 50 each at most."""
    was, says = (Counter(page.text().split("\n")) for page in (before, now))
    return (
        [text for text in (says - was) if text][:_MOST_WORDS],
        [text for text in (was - says) if text][:_MOST_WORDS],
    )
