"""What a shared link shows: files of its own, so that it stays what was shared."""

from __future__ import annotations

import shutil
from collections.abc import Callable
from pathlib import Path
from typing import Any

from tallpage.core.files import storage_errors, write_whole
from tallpage.core.fit import FORMATS
from tallpage.core.naming import output_file_name
from tallpage.core.picture import encode_webp
from tallpage.core.render import Rendering, RenderRules, save_png
from tallpage.core.sizing import Sizing
from tallpage.server.handover.models import SharedLink
from tallpage.server.handover.selection import Selection, rendering_of
from tallpage.server.outlets.models import Output
from tallpage.server.outlets.saving import package_of
from tallpage.server.shelf.models import Cut
from tallpage.server.storage import shared_folder

_SHOWN_PX = 1_080
_SHOWN_QUALITY = 85


def link_path(link: SharedLink) -> str:
    """Its address on this server."""
    return f"/shared/{link.token}/"


def snapshot(
    link: SharedLink, selection: Selection, on_picture: Callable[[int], None]
) -> list[dict[str, Any]]:
    """Copy what the link shows into its folder; what it shows, picture by picture.

    Each is there twice: fitted, as a page shows it, and in full, as PNG. What is there already from a try
    before is written over.
    """
    folder = shared_folder(link.token)
    with storage_errors(folder.parent):
        folder.mkdir(parents=True, exist_ok=True)
    shown: list[dict[str, Any]] = []
    rows: list[tuple[Cut, Output | None]] = (
        [(row.cut, row) for row in selection.rows()]
        if selection.outputs
        else [(cut, None) for cut in selection.cuts()]
    )
    for number, (cut, row) in enumerate(rows):
        on_picture(number)
        fitted = _files_of(row, folder, number) if row else _fitted(cut, folder, number)
        full = f"{number}-full.png"
        rendering = rendering_of(cut)
        full_bytes = save_png(rendering, folder / full)
        size = rendering.size_of(rendering.whole())
        facts = cut.capture.caption_facts()
        shown.append(
            {
                "title": cut.shown_title(),
                "address": facts["address"],
                "date": facts["date"],
                "parts": fitted,
                "name": fitted[0]["name"],
                "bytes": sum(part["bytes"] for part in fitted),
                "full": full,
                "full_name": output_file_name(
                    capture_name=cut.capture.name,
                    width_px=size.width_px,
                    height_px=size.height_px,
                    extension="png",
                ),
                "full_bytes": full_bytes,
                "full_width_px": size.width_px,
                "full_height_px": size.height_px,
            }
        )
    return shown


def remove_files_of(instance: SharedLink, **_: object) -> None:
    """Once a link has gone, so do its files."""
    shutil.rmtree(shared_folder(instance.token), ignore_errors=True)


def _files_of(row: Output, folder: Path, number: int) -> list[dict[str, Any]]:
    """The files of a row, as they were fitted."""
    parts = []
    for at, item in enumerate(package_of(row)):
        data, facts = b"".join(item.pieces()), item.facts
        file = f"{number}-{at}{Path(item.path).suffix}"
        write_whole(folder / file, data)
        parts.append(
            {
                "file": file,
                "name": item.path,
                "bytes": len(data),
                "width_px": facts.width_px if facts else 0,
                "height_px": facts.height_px if facts else 0,
            }
        )
    return parts


def _fitted(cut: Cut, folder: Path, number: int) -> list[dict[str, Any]]:
    """A cut as a page shows it: no wider than a screen, in leaves where one file could not be so high."""
    width_px = min(_SHOWN_PX, rendering_of(cut).size_of(rendering_of(cut).whole()).width_px)
    rules = RenderRules(
        sizing=Sizing(way="width", width_px=width_px), greatest_height_px=FORMATS["webp"].greatest_side_px
    )
    rendering = Rendering(cut.capture.pixel_source(), cut.as_drawn(), rules)
    leaves, parts = rendering.leaves(), []
    for at, leaf in enumerate(leaves):
        data = encode_webp(rendering.draw(leaf), quality=_SHOWN_QUALITY)
        size = rendering.size_of(leaf)
        file = f"{number}-{at}.{FORMATS['webp'].extension}"
        write_whole(folder / file, data)
        parts.append(
            {
                "file": file,
                "name": output_file_name(
                    capture_name=cut.capture.name,
                    width_px=size.width_px,
                    height_px=size.height_px,
                    extension="webp",
                    part=f"{at + 1}-of-{len(leaves)}" if len(leaves) > 1 else "",
                ),
                "bytes": len(data),
                "width_px": size.width_px,
                "height_px": size.height_px,
            }
        )
    return parts
