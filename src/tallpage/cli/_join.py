"""``tallpage join``: pictures of one tall thing, bit by bit, into one picture."""

from __future__ import annotations

import tempfile
from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from tallpage.cli._output import NOT_MET, print_json, require_file, told_in_one_line
from tallpage.cli._part import require_picture
from tallpage.cli._piping import STANDARD, messages_beside, output_file
from tallpage.core.errors import FitError
from tallpage.core.picture import Raster, open_foreign
from tallpage.core.render import save_joined_png
from tallpage.core.stitch import Doubt, Join, join_pictures, write_join
from tallpage.core.units import format_bytes

if TYPE_CHECKING:
    from tallpage.cli import _json as told

_WHY: dict[Doubt, str] = {
    "nothing_shared": "they share too little. Take the page once more between them",
    "repeats": "they share rows that stand there more than once, so their place cannot be told. "
    "Let them share more",
    "blank": "where they should meet there is nothing to be seen. Let them share more",
    "contradicts": "they do not show the same where they meet. The page has changed between them, or one of "
    "them belongs elsewhere",
}


def join(
    pictures: Annotated[
        list[Path],
        typer.Argument(metavar="PICTURE…", help="Pictures of one width: PNG, JPEG, WebP, AVIF, GIF or TIFF."),
    ],
    out: Annotated[Path, typer.Option(help="PNG file to write; - for standard output.")],
    *,
    in_order: Annotated[
        bool,
        typer.Option("--in-order", help="Each was taken after the one before; else the order is found."),
    ] = False,
    as_json: Annotated[bool, typer.Option("--json", help="Print one JSON object.")] = False,
) -> None:
    """Join pictures that were taken one after the other into one tall picture."""
    with told_in_one_line():
        if out != STANDARD and out.suffix.lower() != ".png":
            raise FitError(
                f"The extension of {out.name} is not that of a PNG.",
                hint="Name a .png file; tallpage fit makes others of it.",
                code="format_unknown",
            )
        require_file(out)
        for picture in pictures:
            require_picture(picture)
        rasters = [open_foreign(picture).normalised().held() for picture in pictures]
        found = join_pictures(rasters, in_order=in_order)
        written = _write(found, rasters, out) if found.is_whole else None
    with messages_beside(out):
        if as_json:
            print_json(_facts(found, pictures, out, written))
        elif written is not None:
            print(f"{out}: {found.width_px} × {found.height_px} px, {format_bytes(written)}")
        else:
            for gap in found.gaps:
                print(
                    f"A piece is missing between {pictures[gap.below]} and {pictures[gap.above]}: "
                    f"{_WHY[gap.doubt]}."
                )
    if written is None:
        raise typer.Exit(NOT_MET)


def _write(found: Join, rasters: list[Raster], out: Path) -> int:
    with output_file(out, "joined.png") as file, tempfile.TemporaryDirectory(prefix="tallpage-") as scratch:
        folder = Path(scratch)
        save_joined_png(folder, write_join(found, rasters, folder), file)
        return file.stat().st_size


def _facts(found: Join, pictures: list[Path], out: Path, written: int | None) -> told.Joined:
    return {
        "file": None if written is None else str(out),
        "width": found.width_px,
        "height": found.height_px,
        "bytes": written,
        "order": [str(pictures[view]) for view in found.order],
        "tops": [found.tops_px[view] for view in found.order],
        "seams": [stretch.top_px for stretch in found.stretches[1:]],
        "missing": [
            {"below": str(pictures[gap.below]), "above": str(pictures[gap.above]), "why": gap.doubt}
            for gap in found.gaps
        ],
    }
