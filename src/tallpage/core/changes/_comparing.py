"""Two takes of a page compared: where they differ, by how much, and what was written or dropped."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass
from pathlib import Path

import numpy as np

from tallpage.core.capture import PageMap
from tallpage.core.changes._aligning import Run, aligned
from tallpage.core.changes._looking import Look, rows_of
from tallpage.core.geometry import Box
from tallpage.core.picture import StripManifest

_NEAR_PX = 24
"""Stretches with fewer equal rows between them are shown as one."""
_MOST_WORDS = 50


@dataclass(frozen=True, slots=True, kw_only=True)
class Side:
    """A capture in its folder, and what it looks like."""

    folder: Path
    manifest: StripManifest
    look: Look

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


@dataclass(frozen=True, slots=True)
class _Gap:
    """Rows between two runs of equal ones; either side may have none."""

    before_px: int
    before_rows: int
    now_px: int
    now_rows: int


def compare(before: Side, now: Side) -> Change:
    """Compare two captures; pixels are read only where rows differ. Of other widths, all differs."""
    width_px = now.manifest.width_px
    if before.manifest.width_px != width_px:
        return Change(share=1, stretches=(Stretch(before=before.whole, now=now.whole),))
    rows_before, rows_now = before.look.rows, now.look.rows
    changed_pixels = 0
    stretches = []
    for gap in _joined(_gaps(aligned(rows_before, rows_now), len(rows_before), len(rows_now))):
        pixels, stretch = _measured(gap, before, now, width_px)
        changed_pixels += pixels
        stretches.append(stretch)
    return Change(
        share=changed_pixels / (width_px * max(len(rows_before), len(rows_now))), stretches=tuple(stretches)
    )


def _gaps(runs: list[Run], before_rows: int, now_rows: int) -> list[_Gap]:
    gaps = []
    before_px = now_px = 0
    for run in [*runs, Run(before_rows, now_rows, 0)]:
        if run.before_px > before_px or run.now_px > now_px:
            gaps.append(_Gap(before_px, run.before_px - before_px, now_px, run.now_px - now_px))
        before_px, now_px = run.before_px + run.rows, run.now_px + run.rows
    return gaps


def _joined(gaps: list[_Gap]) -> list[_Gap]:
    """Gaps that lie close together, as one."""
    joined: list[_Gap] = []
    for gap in gaps:
        last = joined[-1] if joined else None
        if last and gap.now_px - (last.now_px + last.now_rows) < _NEAR_PX:
            joined[-1] = _Gap(
                last.before_px,
                gap.before_px + gap.before_rows - last.before_px,
                last.now_px,
                gap.now_px + gap.now_rows - last.now_px,
            )
        else:
            joined.append(gap)
    return joined


def _measured(gap: _Gap, before: Side, now: Side, width_px: int) -> tuple[int, Stretch]:
    """``(pixels that differ, stretch)``; only where both have rows is it narrower than the page."""
    left_px, right_px, pixels = 0, width_px, width_px * max(gap.before_rows, gap.now_rows)
    if gap.before_rows == gap.now_rows:
        was = rows_of(before.folder, before.manifest, gap.before_px, gap.before_rows)
        shows = rows_of(now.folder, now.manifest, gap.now_px, gap.now_rows)
        differ = (was != shows).any(axis=2)
        columns = np.flatnonzero(differ.any(axis=0))  # never none: the first row of a gap differs
        left_px, right_px, pixels = int(columns[0]), int(columns[-1]) + 1, int(differ.sum())

    def box(top_px: int, rows: int) -> Box | None:
        if rows == 0:
            return None
        return Box(x_px=left_px, y_px=top_px, width_px=right_px - left_px, height_px=rows)

    return pixels, Stretch(before=box(gap.before_px, gap.before_rows), now=box(gap.now_px, gap.now_rows))


def words_changed(before: PageMap, now: PageMap) -> tuple[list[str], list[str]]:
    """``(added, removed)``: passages of the page that only one of the two says, 50 each at most."""
    was, says = (Counter(page.text().split("\n")) for page in (before, now))
    return (
        [text for text in (says - was) if text][:_MOST_WORDS],
        [text for text in (was - says) if text][:_MOST_WORDS],
    )
