"""``tallpage fit``: a picture into the best file under a limit."""

from __future__ import annotations

import time
from collections.abc import Callable, Sequence
from dataclasses import asdict, dataclass
from pathlib import Path
from typing import TYPE_CHECKING, Annotated, cast

import typer

from tallpage.cli._output import (
    NOT_MET,
    Step,
    print_json,
    progress_bar,
    require_file,
    told_in_one_line,
)
from tallpage.cli._part import PartOptions, rendering_of, require_picture, takes_part_options
from tallpage.cli._piping import STANDARD, input_file, messages_beside, output_file
from tallpage.core.errors import FitError
from tallpage.core.files import write_whole
from tallpage.core.fit import (
    FORMATS,
    FitOrder,
    FitResult,
    FitWatch,
    fidelity_in_words,
    fit_order,
    require_formats,
    takes_transparency,
)
from tallpage.core.render import LEAST_LETTERS_PX, Leaf, Rendering, RenderRules
from tallpage.core.sizing import Anchor, Sizing, Way
from tallpage.core.units import format_bytes, parse_byte_count, parse_colour

if TYPE_CHECKING:
    from tallpage.cli import _json as told


@takes_part_options
def fit(
    picture: Annotated[
        Path, typer.Argument(help="Picture to fit: PNG, JPEG, WebP, AVIF, GIF or TIFF; - for standard input.")
    ],
    out: Annotated[Path, typer.Option(help="File to write, without extension; - for standard output.")],
    limit: Annotated[str | None, typer.Option(help="Greatest file size: 90kB, 64KiB, or bytes.")] = None,
    fidelity: Annotated[
        float | None,
        typer.Option(
            help="As light as possible while it looks so good: from 50, traces show, to 100, same pixels."
        ),
    ] = None,
    width: Annotated[int | None, typer.Option(help="Width in px; the height follows.")] = None,
    height: Annotated[int | None, typer.Option(help="Height in px; the width follows.")] = None,
    pad: Annotated[
        bool,
        typer.Option(
            help="With width and height: leave room around, instead of cutting off what stands over."
        ),
    ] = False,
    anchor: Annotated[Anchor, typer.Option(help="Which part stays when something is cut off.")] = "start",
    percent: Annotated[int | None, typer.Option(help="Or a share of the picture's own size.")] = None,
    enlarge: Annotated[
        bool, typer.Option(help="Enlarge a picture that is smaller than asked for; else it stays as it is.")
    ] = False,
    background: Annotated[
        str, typer.Option(help="Colour around a padded picture, and behind a transparent one in a JPEG.")
    ] = "#ffffff",
    formats: Annotated[
        str, typer.Option(help="Accepted formats, separated by commas; gif is another.")
    ] = "jpeg,png,webp,avif",
    leaves: Annotated[int | None, typer.Option(help="Divide it into so many files at natural gaps.")] = None,
    greatest_height: Annotated[
        int | None, typer.Option(help="Divide it so that no file is higher than this, in px.", min=1)
    ] = None,
    overlap: Annotated[int, typer.Option(help="Rows that each leaf repeats of the one above.", min=0)] = 0,
    numbered: Annotated[bool, typer.Option(help="Write on each leaf which of how many it is.")] = False,
    legible_marks: Annotated[
        bool, typer.Option(help=f"Draw marks larger whose letters would be lower than {LEAST_LETTERS_PX} px.")
    ] = False,
    *,
    part: PartOptions,
    as_json: Annotated[bool, typer.Option("--json", help="Print one JSON object.")] = False,
) -> None:
    """Find the best-looking file under a limit, or the lightest that still looks so good."""
    started = time.monotonic()
    with told_in_one_line():
        accepted = require_formats(formats.split(","))
        order = FitOrder(
            limit_bytes=None if limit is None else parse_byte_count(limit),
            fidelity=fidelity,
            formats=accepted,
        )
        rules = RenderRules(
            sizing=_sizing(width, height, percent, pad=pad, anchor=anchor, enlarge=enlarge),
            background=parse_colour(background),
            flattened=not takes_transparency(accepted),
            greatest_height_px=greatest_height,
            overlap_px=overlap,
            numbered=numbered,
            leaf_count=leaves,
            legible_marks=legible_marks,
        )
        if leaves is not None:
            rules.sizing.require_divisible()
        require_file(out)
        with input_file(picture) as source, output_file(out, "picture") as file:
            require_picture(source)
            rendering = rendering_of(source, part, rules)
            with progress_bar() as on_progress:
                watch = _Heard(on_progress)
                made = [_made(rendering, leaf, order, file, watch) for leaf in rendering.leaves()]
            facts = _facts(made, order, rendering, seconds=round(time.monotonic() - started, 2))
    if out == STANDARD:
        facts["file"] = str(out)
    with messages_beside(out):
        if as_json:
            print_json(facts)
        else:
            _print_fit(facts)
    if not facts["met"]:
        raise typer.Exit(NOT_MET)


@dataclass(frozen=True, slots=True)
class _Made:
    leaf: Leaf
    result: FitResult
    file: Path | None


class _Heard(FitWatch):
    """Tells a bar what is tried, and how many more tries there may be."""

    def __init__(self, on_progress: Callable[[Step], None]) -> None:
        self._on_progress = on_progress
        self._tried = 0

    def trying(self, what: str, tries_left: int) -> None:
        """The next file is made."""
        self._on_progress(Step(what, self._tried, self._tried + tries_left if tries_left else 0))
        self._tried += 1


def _made(rendering: Rendering, leaf: Leaf, order: FitOrder, out: Path, watch: FitWatch) -> _Made:
    divisible = rendering.rules.sizing.divisible
    result = fit_order(rendering.draw(leaf), order, divisible=divisible, advised=leaf.count == 1, watch=watch)
    if leaf.count > 1:
        out = out.with_name(f"{out.name}-{leaf.number}-of-{leaf.count}")
    return _Made(leaf, result, _write_chosen(result, out))


def _facts(made: Sequence[_Made], order: FitOrder, rendering: Rendering, *, seconds: float) -> told.Fit:
    """What is told of the file; of several leaves, of the one that looks worst, and of each."""
    files = [_told(row, rendering) for row in made]
    weakest = min(files, key=lambda row: -1.0 if row["score"] is None else row["score"])
    result = made[files.index(weakest)].result
    return {
        **weakest,
        "kept_small": rendering.plan(made[0].leaf).kept_small,
        "captions": rendering.captions(),
        "letters_missing": "".join(rendering.missing_letters()),
        "smallest_letters": rendering.smallest_letters_px(),
        "limit": order.limit_bytes,
        "wanted_score": order.fidelity,
        "met": all(row["met"] for row in files),
        "tries": sum(row.result.tries for row in made),
        "advice": [cast("told.Advice", asdict(row)) for row in result.advice],
        "leaves": files if len(files) > 1 else [],
        "seconds": seconds,
    }


def _told(made: _Made, rendering: Rendering) -> told.Leaf:
    size, chosen = rendering.size_of(made.leaf), made.result.chosen
    return {
        "file": str(made.file) if made.file else None,
        "format": chosen.choice.format if chosen else None,
        "width": size.width_px,
        "height": size.height_px,
        "bytes": chosen.byte_count if chosen else None,
        "quality": (chosen.choice.quality or chosen.choice.colours or 100) if chosen else None,
        "score": chosen.fidelity if chosen else None,
        "met": made.result.met,
    }


def _sizing(
    width: int | None, height: int | None, percent: int | None, *, pad: bool, anchor: Anchor, enlarge: bool
) -> Sizing:
    """What the options say; with none of them, the picture's own size."""
    both = width is not None and height is not None
    if percent is not None and (width is not None or height is not None):
        raise FitError(
            "A share and a width or height were given.", hint="Give one of them.", code="share_impossible"
        )
    if pad and not both:
        raise FitError(
            "Padding needs a width and a height.", hint="Give --width and --height.", code="height_impossible"
        )
    way: Way = "share"
    if both:
        way = "pad" if pad else "fill"
    elif width is not None or height is not None:
        way = "height" if width is None else "width"
    return Sizing(
        way=way,
        width_px=width or 0,
        height_px=height or 0,
        percent=100 if percent is None else percent,
        anchor=anchor,
        enlarge=enlarge,
    )


def _write_chosen(result: FitResult, out: Path) -> Path | None:
    if result.chosen is None:
        return None
    # The name's own dots stay: only the extension is ours to add.
    file = out.with_name(f"{out.name}.{FORMATS[result.chosen.choice.format].extension}")
    write_whole(file, result.chosen.data)
    return file


def _print_fit(facts: told.Fit) -> None:
    for row in facts["leaves"] or [facts]:
        _print_file(row, facts["limit"])
    if facts["kept_small"]:
        print("  Not enlarged: the picture has no more pixels. --enlarge does it all the same.")
    if facts["letters_missing"]:
        print(f"  “{facts['letters_missing']}” cannot be drawn and is left out: no font that ships has it.")
    letters_px = facts["smallest_letters"]
    if letters_px is not None and letters_px < LEAST_LETTERS_PX:
        print(f"  Letters of marks are only {letters_px:.1f} px here. --legible-marks draws them larger.")
    if not facts["met"]:
        print(_not_met_words(facts))
        for advice in facts["advice"]:
            print(f"  {advice['sentence']}")


def _print_file(row: told.Leaf, limit_bytes: int | None) -> None:
    if row["bytes"] is None or row["score"] is None:
        return
    size = f"{row['width']} × {row['height']} px"
    weight = format_bytes(row["bytes"])
    if limit_bytes is not None:
        weight += f" of {format_bytes(limit_bytes)}"
    looks = f"fidelity {row['score']:.0f} ({fidelity_in_words(row['score'])})"
    print(f"{row['file']}: {size}, {weight}, {looks}")


def _not_met_words(facts: told.Fit) -> str:
    limit = "" if facts["limit"] is None else format_bytes(facts["limit"])
    if facts["wanted_score"] is None:
        return f"The limit of {limit} cannot be met acceptably."
    under = f" under {limit}" if limit else ""
    return f"Nothing looks as good as {facts['wanted_score']:g}{under}."
