"""Options that say which part of a picture is shown, and how; several commands have them."""

from __future__ import annotations

import functools
import inspect
import re
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from datetime import date
from pathlib import Path
from typing import TYPE_CHECKING, Annotated, Any

import typer

from tallpage.cli._output import opened_cut
from tallpage.core.cut import CORNERS, Corner, Cut, Fold, FoldDown, Frame, anchored_box, page_facts
from tallpage.core.errors import FitError, FrameError
from tallpage.core.geometry import Box, Size
from tallpage.core.picture import check_picture
from tallpage.core.render import PictureSource, Rendering, RenderRules, Source, prepared, straightened, turned
from tallpage.core.units import parse_colour

if TYPE_CHECKING:
    from tallpage.core.clearing import Clearing
    from tallpage.core.turning import Orientation

_FURTHEST_DEG = 180
_NUMBERS = re.compile(r"-?\d{1,9}")


@dataclass(frozen=True, slots=True, kw_only=True)
class PartOptions:
    """What was said about the part; each field is an option."""

    cut: Annotated[
        Path | None,
        typer.Option("--cut", help="The file of a cut, as the Bench saves it; options count before it."),
    ] = None
    turn_deg: Annotated[
        int, typer.Option("--turn", help="Turn the picture clockwise first, by 90, 180 or 270 degrees.")
    ] = 0
    mirror: Annotated[bool, typer.Option("--mirror", help="Exchange left and right, before any turn.")] = (
        False
    )
    angle_deg: Annotated[
        float | None,
        typer.Option("--angle", help="Turn it clockwise by any angle in degrees, from -180 to 180."),
    ] = None
    straighten: Annotated[
        bool,
        typer.Option("--straighten", help="Find the angle by which lines of text and tables become level."),
    ] = False
    box: Annotated[
        str | None,
        typer.Option("--box", help="The part that is shown: X,Y,WIDTH,HEIGHT in px of the picture."),
    ] = None
    corner: Annotated[
        Corner,
        typer.Option(
            "--from", help="From where X and Y are counted inwards: any corner, edge, or the centre."
        ),
    ] = CORNERS[0]
    folds: Annotated[
        list[str] | None,
        typer.Option("--fold", help="Fold a band away: TOP,HEIGHT in px of the picture; may be given again."),
    ] = None
    folds_down: Annotated[
        list[str] | None,
        typer.Option(
            "--fold-down",
            help="Fold a band down the page away: LEFT,WIDTH in px of the picture; may be given again.",
        ),
    ] = None
    clear: Annotated[
        list[str] | None,
        typer.Option(
            "--clear",
            help="Make a colour transparent: COLOUR or COLOUR,TOLERANCE, from 0 to 254; may be given again.",
        ),
    ] = None
    trim: Annotated[bool, typer.Option("--trim", help="Leave out the plain edges of what is shown.")] = False
    grey: Annotated[bool, typer.Option("--grey", help="Without colours.")] = False
    invert: Annotated[bool, typer.Option("--invert", help="Each colour becomes its opposite.")] = False


_PART = "part"


def takes_part_options(command: Callable[..., None]) -> Callable[..., None]:
    """A command whose parameter ``part`` is made of the options that say which part is shown."""
    own = inspect.signature(command, eval_str=True)
    said = inspect.signature(PartOptions, eval_str=True)

    @functools.wraps(command)
    def taking(**given: Any) -> None:
        part = PartOptions(**{name: given.pop(name) for name in said.parameters})
        command(**given, **{_PART: part})

    parameters = [
        *(row for row in own.parameters.values() if row.name != _PART),
        *said.parameters.values(),
    ]
    keyword_only = [row.replace(kind=inspect.Parameter.KEYWORD_ONLY) for row in parameters]
    taking.__signature__ = own.replace(parameters=keyword_only)  # type: ignore[attr-defined]
    taking.__annotations__ = {row.name: row.annotation for row in parameters}
    return taking


def rendering_of(picture: Path, options: PartOptions, rules: RenderRules) -> Rendering:
    """What the options ask for of a picture, to be drawn by the rules of a place.

    Raises:
        CutError: the file of the cut is none.
        FrameError: the part does not lie on the picture, or nothing of it is left to be seen.
        PictureTooLarge, PictureUnreadable: the picture cannot be worked with.
    """
    source = PictureSource(picture)
    facts = page_facts(name=picture.stem, taken_on=date.today())
    rendering = Rendering(source, _shown_cut(source, options).resolved(facts), rules)
    rendering.require_seen()
    return rendering


def require_picture(picture: Path) -> None:
    """Refuse a picture that is not there, or cannot be worked with."""
    if not picture.is_file():
        raise FitError(f"There is no picture {picture}.", hint="Check the path.", code="picture_missing")
    check_picture(picture)


def _shown_cut(source: Source, options: PartOptions) -> Cut:
    """The cut of the file that was named, changed by what else is said."""
    cut = opened_cut(options.cut)
    if _turns(options):
        orientation = _orientation(source, options)
        cut = replace(cut or Cut.whole(source.size), orientation=orientation)
        if options.cut is None:
            cut = replace(cut, frame=Frame.of(Box.whole(cut.page_size(source.size))))
    cut = (cut or Cut.whole(source.size)).require_on(source.size)
    if options.clear:
        cut = replace(cut, cleared=_clearing(cut, options.clear))
    page = prepared(source, cut)
    box, folds, folds_down = cut.frame.box, [*cut.frame.folds], [*cut.frame.folds_down]
    if options.box is not None:
        x_px, y_px, width_px, height_px = _numbers(options.box, "--box", "X,Y,WIDTH,HEIGHT")
        if width_px < 1 or height_px < 1:
            raise FrameError(f"A box of {width_px} × {height_px} px shows nothing.", code="box_malformed")
        size = Size(width_px=width_px, height_px=height_px)
        box = anchored_box(page.size, options.corner, x_px, y_px, size)
    elif options.corner != CORNERS[0]:
        raise FrameError("--from says from where a box is counted.", hint="Give --box.", code="box_malformed")
    for band in options.folds or ():
        top_px, height_px = _numbers(band, "--fold", "TOP,HEIGHT")
        if top_px < 0 or height_px < 1:
            raise FrameError(
                f"A fold of {height_px} px at {top_px} folds nothing away.", code="box_malformed"
            )
        folds.append(Fold(top_px=top_px, height_px=height_px))
    for band in options.folds_down or ():
        left_px, width_px = _numbers(band, "--fold-down", "LEFT,WIDTH")
        if left_px < 0 or width_px < 1:
            raise FrameError(
                f"A fold of {width_px} px at {left_px} folds nothing away.", code="box_malformed"
            )
        folds_down.append(FoldDown(left_px=left_px, width_px=width_px))
    if options.trim:
        from tallpage.core.trimming import trimmed

        # Pulled once: a picture file is read from its top.
        pixels = page.region(box).held()
        box = trimmed(box, lambda part: pixels.cropped(part.seen_from(box)))
    tone = cut.tone
    if options.grey or options.invert:
        from tallpage.core.tone import Tone

        said = {"grey": True} if options.grey else {}
        said |= {"invert": True} if options.invert else {}
        tone = (tone or Tone()).model_copy(update=said)
    return replace(cut, frame=Frame.of(box, folds, folds_down), tone=tone)


def _turns(options: PartOptions) -> bool:
    return options.turn_deg != 0 or options.mirror or options.angle_deg is not None or options.straighten


def _orientation(source: Source, options: PartOptions) -> Orientation:
    """How the options turn a picture."""
    from tallpage.core.turning import Orientation, edge_colour

    angle_deg = options.angle_deg or 0.0
    if options.turn_deg not in (0, 90, 180, 270):
        raise FrameError(
            f"--turn {options.turn_deg} is no quarter turn.",
            hint="Give 90, 180 or 270, or another angle by --angle.",
            code="turn_malformed",
        )
    if not -_FURTHEST_DEG <= angle_deg <= _FURTHEST_DEG:
        raise FrameError(
            f"--angle {angle_deg:g} is no angle between -{_FURTHEST_DEG} and {_FURTHEST_DEG} degrees.",
            hint="Whole turns change nothing: leave them out.",
            code="turn_malformed",
        )
    if options.straighten and options.angle_deg is not None:
        raise FrameError(
            "--straighten finds the angle itself.", hint="Leave out --angle.", code="turn_malformed"
        )
    orientation = Orientation(mirror=options.mirror, turn_deg=options.turn_deg)  # type: ignore[arg-type]
    if options.straighten:
        return straightened(source, orientation)
    if angle_deg == 0:
        return orientation
    upright = turned(source, orientation)
    colour = "#{:02x}{:02x}{:02x}".format(*edge_colour(upright.region(Box.whole(upright.size)).held()))
    return orientation.model_copy(update={"angle_deg": angle_deg, "colour": colour})


def _clearing(cut: Cut, said: Sequence[str]) -> Clearing:
    """What a cut clears, and the colours that are said."""
    from tallpage.core.clearing import MOST_COLOURS, MOST_TOLERANCE, ClearedColour, Clearing

    before = cut.cleared or Clearing()
    colours = [*before.colours]
    for text in said:
        name, _, tolerance = text.partition(",")
        given: dict[str, Any] = {"colour": "#{:02x}{:02x}{:02x}".format(*parse_colour(name.strip()))}
        if tolerance:
            if not tolerance.strip().isdecimal() or not int(tolerance) <= MOST_TOLERANCE:
                raise FrameError(
                    f"--clear {text}: the tolerance is no number from 0 to {MOST_TOLERANCE}.",
                    hint="Give a colour and how far each of red, green and blue may be from it.",
                    code="clear_malformed",
                )
            given["tolerance"] = int(tolerance)
        colours.append(ClearedColour(**given))
    if len(colours) > MOST_COLOURS:
        raise FrameError(
            f"{len(colours)} colours are more than the {MOST_COLOURS} that can be cleared.",
            code="clear_malformed",
        )
    return before.model_copy(update={"colours": tuple(colours)})


def _numbers(text: str, option: str, form: str) -> list[int]:
    parts = [part.strip() for part in text.split(",")]
    if len(parts) != form.count(",") + 1 or not all(_NUMBERS.fullmatch(part) for part in parts):
        raise FrameError(f"{option} {text} is not {form}.", hint="Give whole px.", code="box_malformed")
    return [int(part) for part in parts]
