"""What a row of the ledger tells of its files together."""

from __future__ import annotations

from typing import Any

from tallpage.server.outlets.models import Output, OutputFile


def weakest(output: Output) -> OutputFile | None:
    """The file that looks worst; None before there is one."""
    return min(output.files.all(), key=lambda file: file.fidelity, default=None)


def made_size(output: Output) -> tuple[int, int]:
    """Width, and height of all files together; where none fits, of what was drawn; 0 before that."""
    files = output.files.all()
    if files:
        return files[0].width_px, sum(file.height_px for file in files)
    if not output.drawn:
        return 0, 0
    rendering = output.shown()
    size = rendering.size_of(rendering.whole())
    return size.width_px, size.height_px


def kept_small(output: Output) -> bool:
    """Whether the place wanted more pixels than the cut had."""
    if not output.drawn:
        return False
    rendering = output.shown()
    return rendering.plan(rendering.whole()).kept_small


def leaves(output: Output) -> list[dict[str, Any]]:
    """Each file with the stretch of the page that it shows; nothing where there is one only."""
    files = output.files.all()
    if len(files) < 2:
        return []
    frame = output.shown().cut.frame
    rows = []
    for file in files:
        parts = frame.parts(file.row_px, file.rows_px)
        rows.append(
            {
                "top_px": parts[0].y_px,
                "page_height_px": parts[-1].bottom_px - parts[0].y_px,
                "height_px": file.height_px,
                "format": file.format,
                "bytes": file.bytes,
                "fidelity": file.fidelity,
                "met": file.met,
            }
        )
    return rows
