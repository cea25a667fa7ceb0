"""``tallpage cut``: a part of a picture into one file, as it is."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from tallpage.cli._output import print_json, require_file, told_in_one_line
from tallpage.cli._part import PartOptions, rendering_of, require_picture, takes_part_options
from tallpage.cli._piping import STANDARD, input_file, messages_beside, output_file
from tallpage.core.errors import FitError
from tallpage.core.files import write_whole
from tallpage.core.fit import FORMATS
from tallpage.core.geometry import Size
from tallpage.core.picture import Raster, encode_avif, encode_jpeg, encode_webp
from tallpage.core.render import Rendering, RenderRules, save_png
from tallpage.core.sizing import Sizing
from tallpage.core.units import format_bytes

if TYPE_CHECKING:
    from tallpage.cli import _json as told

_QUALITY = 90
"""Of the formats that lose something: not seen at 1:1. Who has a limit fits a file under it."""
_ENCODERS = {
    "jpg": lambda raster: encode_jpeg(raster, quality=_QUALITY, subsample=False),
    "jpeg": lambda raster: encode_jpeg(raster, quality=_QUALITY, subsample=False),
    "webp": lambda raster: encode_webp(raster, quality=_QUALITY),
    "avif": lambda raster: encode_avif(raster, quality=_QUALITY),
}
_KNOWN = ("png", *_ENCODERS)


@takes_part_options
def cut(
    picture: Annotated[
        Path, typer.Argument(help="Picture to cut: PNG, JPEG, WebP, AVIF, GIF or TIFF; - for standard input.")
    ],
    out: Annotated[
        Path,
        typer.Option(help="File to write; its extension decides the format. - is a PNG on standard output."),
    ],
    percent: Annotated[int, typer.Option(help="A share of the part's own size.", min=1, max=1_000)] = 100,
    *,
    part: PartOptions,
    as_json: Annotated[bool, typer.Option("--json", help="Print one JSON object.")] = False,
) -> None:
    """Write a part of a picture into one file."""
    with told_in_one_line():
        extension = "png" if out == STANDARD else out.suffix.lower().removeprefix(".")
        if extension not in _KNOWN:
            raise FitError(
                f"The extension of {out.name} says no format.",
                hint=f"Give one of {', '.join(_KNOWN)}.",
                code="format_unknown",
            )
        require_file(out)
        rules = RenderRules(
            sizing=Sizing(way="share", percent=percent), flattened=extension in ("jpg", "jpeg")
        )
        with input_file(picture) as source, output_file(out, "part.png") as file:
            require_picture(source)
            rendering = rendering_of(source, part, rules)
            size = rendering.size_of(rendering.whole())
            _require_side(extension, size)
            written = _write(rendering, file, extension)
    facts: told.Cut = {"file": str(out), "width": size.width_px, "height": size.height_px, "bytes": written}
    with messages_beside(out):
        if as_json:
            print_json(facts)
        else:
            print(f"{out}: {size.width_px} × {size.height_px} px, {format_bytes(written)}")


def _require_side(extension: str, size: Size) -> None:
    rules = next(row for row in FORMATS.values() if row.extension == extension.replace("jpeg", "jpg"))
    side_px = max(size.width_px, size.height_px)
    if side_px > rules.greatest_side_px:
        raise FitError(
            f"{rules.name} holds at most {rules.greatest_side_px:,} px a side; this part has {side_px:,}.",
            hint="Write a PNG, or a smaller part.",
            code="output_too_high",
        )


def _write(rendering: Rendering, out: Path, extension: str) -> int:
    if extension == "png":
        return save_png(rendering, out)
    raster: Raster = rendering.draw(rendering.whole())
    data: bytes = _ENCODERS[extension](raster)
    write_whole(out, data)
    return len(data)
