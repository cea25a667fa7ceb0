"""Options that say which part of a picture is shown, and how; several commands have them."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date
from pathlib import Path
from typing import Annotated

import typer

from tallpage.cli._output import opened_cut
from tallpage.core.cut import CORNERS, Corner, Cut, Fold, Frame, anchored_box, page_facts
from tallpage.core.errors import FitError, FrameError
from tallpage.core.geometry import Size
from tallpage.core.picture import check_picture
from tallpage.core.render import PictureSource, Rendering, RenderRules, Source

CutOption = Annotated[
    Path | None,
    typer.Option("--cut", help="The file of a cut, as the Bench saves it; options count before it."),
]
BoxOption = Annotated[
    str | None, typer.Option("--box", help="The part that is shown: X,Y,WIDTH,HEIGHT in px of the picture.")
]
FromOption = Annotated[
    Corner,
    typer.Option("--from", help="From where X and Y are counted inwards: any corner, edge, or the centre."),
]
FoldOption = Annotated[
    list[str] | None,
    typer.Option("--fold", help="Fold a band away: TOP,HEIGHT in px of the picture; may be given again."),
]
TrimOption = Annotated[bool, typer.Option("--trim", help="Leave out the plain edges of what is shown.")]
GreyOption = Annotated[bool, typer.Option("--grey", help="Without colours.")]
InvertOption = Annotated[bool, typer.Option("--invert", help="Each colour becomes its opposite.")]

_NUMBERS = re.compile(r"-?\d{1,9}")


@dataclass(frozen=True, slots=True, kw_only=True)
class PartOptions:
    """What was said about the part."""

    cut: Path | None
    box: str | None
    corner: Corner
    folds: Sequence[str]
    trim: bool
    grey: bool
    invert: bool


def rendering_of(picture: Path, options: PartOptions, rules: RenderRules) -> Rendering:
    """What the options ask for of a picture, to be drawn by the rules of a place.

    Raises:
        CutError: the file of the cut is none.
        FrameError: the part does not lie on the picture, or nothing of it is left.
        PictureTooLarge, PictureUnreadable: the picture cannot be worked with.
    """
    source = PictureSource(picture)
    facts = page_facts(name=picture.stem, taken_on=date.today())
    return Rendering(source, _shown_cut(source, options).resolved(facts), rules)


def require_picture(picture: Path) -> None:
    """Refuse a picture that is not there, or cannot be worked with."""
    if not picture.is_file():
        raise FitError(f"There is no picture {picture}.", hint="Check the path.", code="picture_missing")
    check_picture(picture)


def _shown_cut(source: Source, options: PartOptions) -> Cut:
    """The cut of the file that was named, changed by what else is said."""
    cut = (opened_cut(options.cut) or Cut.whole(source.size)).require_on(source.size)
    box, folds = cut.frame.box, [*cut.frame.folds]
    if options.box is not None:
        x_px, y_px, width_px, height_px = _numbers(options.box, "--box", "X,Y,WIDTH,HEIGHT")
        if width_px < 1 or height_px < 1:
            raise FrameError(f"A box of {width_px} × {height_px} px shows nothing.", code="box_malformed")
        size = Size(width_px=width_px, height_px=height_px)
        box = anchored_box(source.size, options.corner, x_px, y_px, size)
    elif options.corner != CORNERS[0]:
        raise FrameError("--from says from where a box is counted.", hint="Give --box.", code="box_malformed")
    for band in options.folds:
        top_px, height_px = _numbers(band, "--fold", "TOP,HEIGHT")
        if top_px < 0 or height_px < 1:
            raise FrameError(
                f"A fold of {height_px} px at {top_px} folds nothing away.", code="box_malformed"
            )
        folds.append(Fold(top_px=top_px, height_px=height_px))
    if options.trim:
        from tallpage.core.trimming import trimmed

        # Pulled once: a picture file is read from its top.
        page = source.region(box).held()
        box = trimmed(box, lambda part: page.cropped(part.seen_from(box)))
    tone = cut.tone
    if options.grey or options.invert:
        from tallpage.core.tone import Tone

        said = {"grey": True} if options.grey else {}
        said |= {"invert": True} if options.invert else {}
        tone = (tone or Tone()).model_copy(update=said)
    return replace(cut, frame=Frame.of(box, folds), tone=tone)


def _numbers(text: str, option: str, form: str) -> list[int]:
    parts = [part.strip() for part in text.split(",")]
    if len(parts) != form.count(",") + 1 or not all(_NUMBERS.fullmatch(part) for part in parts):
        raise FrameError(f"{option} {text} is not {form}.", hint="Give whole px.", code="box_malformed")
    return [int(part) for part in parts]
