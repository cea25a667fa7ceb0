"""``tallpage snippet``: files of one picture as they go into a page."""

from __future__ import annotations

from pathlib import Path
from typing import Annotated

import typer

from tallpage.cli._output import told_in_one_line
from tallpage.cli._part import require_picture
from tallpage.core.errors import FitError
from tallpage.core.fit import FORMATS
from tallpage.core.render import PictureSource
from tallpage.core.snippet import SnippetImage, SnippetWords, html, markdown, same_shape


def snippet(
    files: Annotated[list[Path], typer.Argument(help="Files of one picture: other widths, other formats.")],
    alt: Annotated[str, typer.Option(help="What it shows, for who does not see it.")] = "",
    caption: Annotated[str, typer.Option(help="Said below it.")] = "",
    credit: Annotated[str, typer.Option(help="Whose it is, said after the caption.")] = "",
    prefix: Annotated[str, typer.Option(help="What stands before each file's name, such as /media/.")] = "",
    shown_px: Annotated[
        int | None,
        typer.Option("--width", help="How wide it is shown, in CSS px; else as the files say.", min=1),
    ] = None,
    *,
    as_markdown: Annotated[bool, typer.Option("--markdown", help="Markdown instead of HTML.")] = False,
) -> None:
    """Write the HTML or Markdown that shows a picture, with the file that fits each screen."""
    with told_in_one_line():
        images = [_image(path, prefix) for path in files]
        alike = same_shape(images)
        left = [*alike]
        for path, image in zip(files, images, strict=True):
            if image in left:
                left.remove(image)
            else:
                raise FitError(
                    f"{path} has another shape than {files[0]}, or is the same width and format again: "
                    "a browser cannot choose among them.",
                    hint="Give files of one picture, each width and format once.",
                    code="snippet_shapes",
                )
        words = SnippetWords(alt=alt, caption=caption, credit=credit, shown_px=shown_px)
    print((markdown if as_markdown else html)([alike], words), end="")


def _image(path: Path, prefix: str) -> SnippetImage:
    require_picture(path)
    extension = path.suffix.lower().removeprefix(".").replace("jpeg", "jpg")
    rules = next((row for row in FORMATS.values() if row.extension == extension), None)
    if rules is None:
        known = ", ".join(row.extension for row in FORMATS.values())
        raise FitError(
            f"The extension of {path.name} says no format that pages show.",
            hint=f"Give one of {known}.",
            code="format_unknown",
        )
    size = PictureSource(path).size
    return SnippetImage(
        src=f"{prefix}{path.name}",
        width_px=size.width_px,
        height_px=size.height_px,
        media_type=rules.media_type,
    )
