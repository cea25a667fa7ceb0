"""``tallpage fit``: a picture into the best file under a limit."""

from __future__ import annotations

import time
from dataclasses import asdict
from pathlib import Path
from typing import Annotated, Any

import typer

from tallpage.cli._telling import NOT_MET, print_json, progress_bar, require_file, told_in_one_line
from tallpage.core.errors import FitError
from tallpage.core.files import write_whole
from tallpage.core.fit import FORMATS, FitOrder, FitResult, fidelity_in_words, fit_cut, require_formats
from tallpage.core.picture import Raster, check_picture
from tallpage.core.sizing import Anchor, SizePlan, Sizing, Way, plan_size, sized
from tallpage.core.units import format_bytes, parse_byte_count, parse_colour


def fit(
    picture: Annotated[Path, typer.Argument(help="Picture to fit: PNG, JPEG, WebP, AVIF, GIF or TIFF.")],
    out: Annotated[Path, typer.Option(help="File to write, without extension.")],
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
    as_json: Annotated[bool, typer.Option("--json", help="Print one JSON object.")] = False,
) -> None:
    """Find the best-looking file under a limit, or the lightest that still looks so good."""
    started = time.monotonic()
    with told_in_one_line():
        if not picture.is_file():
            raise FitError(f"There is no picture {picture}.", hint="Check the path.", code="picture_missing")
        check_picture(picture)
        order = FitOrder(
            sizing=_sizing(width, height, percent, pad=pad, anchor=anchor, enlarge=enlarge),
            background=parse_colour(background),
            limit_bytes=None if limit is None else parse_byte_count(limit),
            fidelity=fidelity,
            formats=require_formats(formats.split(",")),
        )
        require_file(out)
        upright = Raster.open_foreign(picture).normalised().size

        def open_as(plan: SizePlan) -> Raster:
            opened = Raster.open_foreign(picture).normalised()
            return sized(opened, plan, background=order.background).held()

        with progress_bar():
            result = fit_cut(open_as, upright, order)
        plan = plan_size(upright, order.sizing)
        file = _write_chosen(result, out)
    chosen = result.chosen
    facts: dict[str, Any] = {
        "file": str(file) if file else None,
        "format": chosen.choice.format if chosen else None,
        "width": plan.canvas.width_px,
        "height": plan.canvas.height_px,
        "kept_small": plan.kept_small,
        "bytes": chosen.byte_count if chosen else None,
        "limit": order.limit_bytes,
        "wanted_score": order.fidelity,
        "quality": (chosen.choice.quality or chosen.choice.colours or 100) if chosen else None,
        "score": chosen.fidelity if chosen else None,
        "met": result.met,
        "seconds": round(time.monotonic() - started, 2),
        "tries": result.tries,
        "advice": [asdict(row) for row in result.advice],
    }
    if as_json:
        print_json(facts)
    else:
        _print_fit(facts)
    if not result.met:
        raise typer.Exit(NOT_MET)


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


def _print_fit(facts: dict[str, Any]) -> None:
    if facts["file"]:
        size = f"{facts['width']} × {facts['height']} px"
        weight = format_bytes(facts["bytes"])
        if facts["limit"] is not None:
            weight += f" of {format_bytes(facts['limit'])}"
        looks = f"fidelity {facts['score']:.0f} ({fidelity_in_words(facts['score'])})"
        print(f"{facts['file']}: {size}, {weight}, {looks}")
    if facts["kept_small"]:
        print("  Not enlarged: the picture has no more pixels. --enlarge does it all the same.")
    if not facts["met"]:
        print(_not_met_words(facts))
        for advice in facts["advice"]:
            print(f"  {advice['sentence']}")


def _not_met_words(facts: dict[str, Any]) -> str:
    if facts["wanted_score"] is None:
        return f"The limit of {format_bytes(facts['limit'])} cannot be met acceptably."
    under = "" if facts["limit"] is None else f" under {format_bytes(facts['limit'])}"
    return f"Nothing looks as good as {facts['wanted_score']:g}{under}."
