"""A routine carried out on a page: each step adds to the cut that the steps before it made."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from typing import Any

from tallpage.core.cut import Cut, Fold, FoldDown, Frame, anchored_box
from tallpage.core.cut.models import HiddenArea, SoughtWords
from tallpage.core.dressing import Dressing
from tallpage.core.errors import FrameError, RoutineError, TallPageError
from tallpage.core.geometry import Box, Size
from tallpage.core.marks import Mark, placed
from tallpage.core.once import once
from tallpage.core.page_map import Block
from tallpage.core.page_words import PageWords
from tallpage.core.render import Source, prepared, straightened, turned
from tallpage.core.routine._finding_blocks import find_block, fitting_blocks
from tallpage.core.routine._page import Applied, Page, PictureSkipped, RunEnded, StepWarning
from tallpage.core.routine._rules import Anchor, BlockRule
from tallpage.core.routine.models import (
    ClearStep,
    DressStep,
    FoldBandsStep,
    FoldBlocksStep,
    FrameBlockStep,
    FrameCornerStep,
    FrameScreensStep,
    FrameStretchStep,
    HideAreasStep,
    HideBlocksStep,
    HideWordsStep,
    MarksStep,
    OutlineStep,
    Routine,
    SeamStep,
    Step,
    ToneStep,
    TrimStep,
    TurnStep,
)
from tallpage.core.tone import Tone
from tallpage.core.trimming import trimmed

_LONGEST_ID = 40


class _NotFound(Exception):
    """A rule finds nothing; its text says what."""


def apply_routine(routine: Routine, page: Page) -> Applied:
    """The cut that a routine makes of a page.

    Raises:
        PictureSkipped: a step finds nothing, and the picture is left out then.
        RunEnded: a step finds nothing, and the run ends then.
        FrameError: nothing would be left to be seen.
    """
    applied = apply_as_far_as_possible(routine, page)
    if applied.failure is not None:
        raise applied.failure
    return applied


def apply_as_far_as_possible(
    routine: Routine, page: Page, *, before: Applied | None = None, alike: int = 0
) -> Applied:
    """The same, up to the step that fails: for looking at a chain while it is put together.

    What the first steps made ``before``, of a chain that is ``alike`` in so many, is not made again.
    """
    after_step = list(before.after_step[:alike]) if before else []
    warnings = [row for row in before.warnings if row.step <= len(after_step)] if before else []
    cut = after_step[-1] if after_step else Cut.whole(page.source.size)
    failure: TallPageError | None = None
    for number, step in enumerate(routine.steps[len(after_step) :], start=len(after_step) + 1):
        do = None if step.off else _DONE_BY.get(type(step))
        if do is not None:
            try:
                cut = do(step, _OnPage(page, cut, number))
            except _NotFound as missing:
                try:
                    warnings.append(_warning(step, number, str(missing)))
                except RoutineError as error:
                    failure = error
            except TallPageError as error:
                failure = error
        if failure is not None:
            break
        after_step.append(cut)
    pictures = {name: routine.pictures[name] for name in cut.picture_names()}
    styles = {mark.style: routine.styles[mark.style] for mark in cut.marks if mark.style is not None}
    shown = tuple(replace(row, pictures=pictures, styles=styles) for row in after_step)
    return Applied(
        cut=replace(cut, pictures=pictures, styles=styles),
        warnings=tuple(warnings),
        after_step=shown,
        failure=failure,
    )


def _warning(step: Any, number: int, missing: str) -> StepWarning:
    """The warning that a step was passed over, unless more is to happen.

    Raises:
        PictureSkipped, RunEnded: it is.
    """
    if step.if_missing == "skip":
        raise PictureSkipped(f"Step {number}: {missing}")
    if step.if_missing == "stop":
        raise RunEnded(f"Step {number}: {missing}")
    return StepWarning(number, f"{missing} The step was passed over.")


@dataclass(frozen=True)
class _OnPage:
    """A page as a step finds it: what the steps before it made of it."""

    page: Page
    cut: Cut
    number: int

    @property
    def box(self) -> Box:
        """What is shown so far, folds included."""
        return self.cut.frame.box

    @property
    def size(self) -> Size:
        """The page as it lies."""
        return self._turned.size

    @property
    def blocks(self) -> tuple[Block, ...]:
        """Those of the page as it lies."""
        return self._turned.blocks()

    @property
    def words(self) -> PageWords | None:
        """Those of the page as it lies; None where they are not known."""
        return self._turned.words()

    @once
    def pixels(self) -> Source:
        """The page as it is shown before its frame."""
        return prepared(self.page.source, self.cut)

    @once
    def _turned(self) -> Source:
        return turned(self.page.source, self.cut.orientation)

    def block(self, rule: BlockRule) -> Block:
        """The block of what is shown that a rule means."""
        found = find_block(rule, self.blocks, within=self.box)
        if found is None:
            raise _NotFound(f"there is no {rule} on the page.")
        return found

    def fitting(self, rule: BlockRule) -> list[Block]:
        """All blocks of what is shown that a rule fits, at least one."""
        found = fitting_blocks(rule, self.blocks, within=self.box)
        if not found:
            raise _NotFound(f"there is no {rule} on the page.")
        return found

    def framed(self, box: Box) -> Cut:
        """The cut with another box, as far as that lies in what is shown."""
        shown = box.overlap(self.box)
        if shown is None:
            raise _NotFound("nothing of what is shown would be left.")
        frame = self.cut.frame
        return replace(self.cut, frame=Frame.of(shown, frame.folds, frame.folds_down))

    def folded(self, folds: list[Fold], folds_down: list[FoldDown]) -> Cut:
        """The cut with more folds."""
        frame = self.cut.frame
        return replace(
            self.cut,
            frame=Frame.of(frame.box, [*frame.folds, *folds], [*frame.folds_down, *folds_down]),
        )

    def id(self, count: int, given: str = "") -> str:
        """An id that no other step gives."""
        return f"step{self.number}-{given or count}"[:_LONGEST_ID]


def _turn(step: TurnStep, on: _OnPage) -> Cut:
    orientation = step.orientation
    if step.straighten:
        orientation = straightened(on.page.source, orientation)
    if orientation.is_upright:
        return on.cut
    cut = replace(on.cut, orientation=orientation)
    return replace(cut, frame=Frame.of(Box.whole(cut.page_size(on.page.source.size))))


def _hide_words(step: HideWordsStep, on: _OnPage) -> Cut:
    if on.words is None:
        raise _NotFound("the words of this picture are not known, so nothing can be hidden by them.")
    look = {"how": step.how, "colour": step.colour, "strength_px": step.strength_px}
    sought = SoughtWords.model_validate(
        {"id": on.id(0), "kind": step.sought, "words": step.words, **_given(step, look)}
    )
    cut = replace(on.cut, sought=(*on.cut.sought, sought))
    return cut.hidden_anew(on.words)


def _hide_blocks(step: HideBlocksStep, on: _OnPage) -> Cut:
    look = {"how": step.how, "colour": step.colour, "strength_px": step.strength_px}
    areas = tuple(
        HiddenArea.model_validate({"id": on.id(at), **_sides(block.box), **_given(step, look)})
        for at, block in enumerate(on.fitting(step.block), start=1)
    )
    return replace(on.cut, hidden=(*on.cut.hidden, *areas))


def _hide_areas(step: HideAreasStep, on: _OnPage) -> Cut:
    around = on.block(step.at.block).box if step.at.block else Box.whole(on.size)
    areas = []
    for at, area in enumerate(step.areas, start=1):
        box = _counted_from(around, step.at, area.box).overlap(Box.whole(on.size))
        if box is None:
            raise _NotFound("an area that is to be hidden does not lie on the page.")
        areas.append(area.model_copy(update={"id": on.id(at), "found_by": "", **_sides(box)}))
    return replace(on.cut, hidden=(*on.cut.hidden, *areas))


def _clear(step: ClearStep, on: _OnPage) -> Cut:
    return replace(on.cut, cleared=step.cleared)


def _frame_block(step: FrameBlockStep, on: _OnPage) -> Cut:
    box = on.block(step.block).box.grown(step.room_px)
    if step.as_wide == "page":
        box = replace(box, x_px=on.box.x_px, width_px=on.box.width_px)
    return on.framed(box)


def _frame_stretch(step: FrameStretchStep, on: _OnPage) -> Cut:
    top_px, bottom_px = on.box.y_px, on.box.bottom_px
    if step.from_block is not None:
        top_px = on.block(step.from_block).box.y_px - step.room_px
    if step.to_block is not None:
        # Looked for below the first: a page may hold its like above.
        begins_px = on.block(step.from_block).box.y_px if step.from_block else top_px - 1
        last = find_block(step.to_block, [row for row in on.blocks if row.box.y_px > begins_px], on.box)
        if last is None:
            raise _NotFound(f"there is no {step.to_block} below where the stretch begins.")
        bottom_px = last.box.bottom_px + step.room_px if step.with_last else last.box.y_px - step.room_px
    if bottom_px <= top_px:
        raise _NotFound("the stretch ends above where it begins.")
    return on.framed(replace(on.box, y_px=top_px, height_px=bottom_px - top_px))


def _frame_corner(step: FrameCornerStep, on: _OnPage) -> Cut:
    size = Size(width_px=step.width_px, height_px=step.height_px)
    if step.smaller:
        size = Size(
            width_px=min(size.width_px, max(1, on.box.width_px - step.x_px)),
            height_px=min(size.height_px, max(1, on.box.height_px - step.y_px)),
        )
    try:
        box = anchored_box(on.box.size, step.corner, step.x_px, step.y_px, size)
    except FrameError as error:
        raise _NotFound(f"what is shown, {on.box.width_px} × {on.box.height_px} px, is too small.") from error
    return on.framed(replace(box, x_px=box.x_px + on.box.x_px, y_px=box.y_px + on.box.y_px))


def _frame_screens(step: FrameScreensStep, on: _OnPage) -> Cut:
    screen = on.page.screen
    if screen is None:
        raise _NotFound("it is not known on which screen this picture was taken.")
    height_px = min(step.screens * screen.height_px * screen.scale, on.box.height_px)
    return on.framed(replace(on.box, height_px=height_px))


def _trim(step: TrimStep, on: _OnPage) -> Cut:
    return on.framed(trimmed(on.box, on.pixels.region, step.sides))


def _fold_blocks(step: FoldBlocksStep, on: _OnPage) -> Cut:
    boxes = [block.box.grown(step.room_px) for block in on.fitting(step.block)]
    return on.folded([Fold(top_px=box.y_px, height_px=box.height_px) for box in boxes], [])


def _fold_bands(step: FoldBandsStep, on: _OnPage) -> Cut:
    folds = [Fold(top_px=row.top_px + on.box.y_px, height_px=row.height_px) for row in step.folds]
    down = [FoldDown(left_px=row.left_px + on.box.x_px, width_px=row.width_px) for row in step.folds_down]
    return on.folded(folds, down)


def _seam(step: SeamStep, on: _OnPage) -> Cut:
    return replace(on.cut, seam=step.seam)


def _outline(step: OutlineStep, on: _OnPage) -> Cut:
    points = tuple((x + on.box.x_px, y + on.box.y_px) for x, y in step.outline.points)
    return replace(on.cut, outline=step.outline.model_copy(update={"points": points}))


def _tone(step: ToneStep, on: _OnPage) -> Cut:
    before = on.cut.tone or Tone()
    return replace(on.cut, tone=before.model_copy(update=_parts(step.tone)))


def _marks(step: MarksStep, on: _OnPage) -> Cut:
    around = on.block(step.at.block).box if step.at.block else on.box
    corner = anchored_box(around.size, step.at.corner, 0, 0, Size(width_px=1, height_px=1))
    # A corner at the right or below lies behind the last px.
    right_px = around.x_px + corner.x_px + (1 if "right" in step.at.corner else 0)
    down_px = around.y_px + corner.y_px + (1 if "bottom" in step.at.corner else 0)

    def there(mark: Mark, at: int) -> Mark:
        moved = placed(mark, lambda point: (point[0] + right_px, point[1] + down_px))
        return moved.model_copy(update={"id": on.id(at)})

    return replace(
        on.cut, marks=(*on.cut.marks, *(there(mark, at) for at, mark in enumerate(step.marks, start=1)))
    )


def _dress(step: DressStep, on: _OnPage) -> Cut:
    before = on.cut.dressing or Dressing()
    return replace(on.cut, dressing=before.model_copy(update=_parts(step.dressing)))


def _counted_from(around: Box, at: Anchor, box: Box) -> Box:
    """A box whose place is counted inwards from a corner of another, on the page."""
    whole = Size(
        width_px=max(around.width_px, box.x_px + box.width_px),
        height_px=max(around.height_px, box.y_px + box.height_px),
    )
    counted = anchored_box(whole, at.corner, box.x_px, box.y_px, box.size)
    left_px = around.x_px - (whole.width_px - around.width_px if "right" in at.corner else 0)
    top_px = around.y_px - (whole.height_px - around.height_px if "bottom" in at.corner else 0)
    return replace(counted, x_px=counted.x_px + left_px, y_px=counted.y_px + top_px)


def _parts(value: Any) -> dict[str, Any]:
    """What was given of a value, by its names."""
    return {name: getattr(value, name) for name in value.model_fields_set}


def _given(step: Any, look: Mapping[str, object]) -> dict[str, object]:
    return {name: value for name, value in look.items() if name in step.model_fields_set}


def _sides(box: Box) -> dict[str, int]:
    return {"x_px": box.x_px, "y_px": box.y_px, "width_px": box.width_px, "height_px": box.height_px}


_DONE_BY: dict[type[Step], Callable[[Any, _OnPage], Cut]] = {
    TurnStep: _turn,
    HideWordsStep: _hide_words,
    HideBlocksStep: _hide_blocks,
    HideAreasStep: _hide_areas,
    ClearStep: _clear,
    FrameBlockStep: _frame_block,
    FrameStretchStep: _frame_stretch,
    FrameCornerStep: _frame_corner,
    FrameScreensStep: _frame_screens,
    TrimStep: _trim,
    FoldBlocksStep: _fold_blocks,
    FoldBandsStep: _fold_bands,
    SeamStep: _seam,
    OutlineStep: _outline,
    ToneStep: _tone,
    MarksStep: _marks,
    DressStep: _dress,
}
"""What changes the picture; how it is taken, made into files and given away is no part of a cut."""
