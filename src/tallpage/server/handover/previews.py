"""Sheets of a document as pictures, so that it is seen before it is printed."""

from __future__ import annotations

import io
from pathlib import Path

from tallpage.core.files import write_whole

MOST_SHEETS = 24
_MOST_PX = 480, 1_400
"""Of width and height of the picture of a sheet."""


def draw_previews(document: Path, folder: Path) -> int:
    """Draw the first sheets of a document into a folder, as ``1.png`` and so on; how many there are."""
    import pypdfium2  # loaded by the worker that needs it alone

    with pypdfium2.PdfDocument(document) as opened:
        count = min(len(opened), MOST_SHEETS)
        for number in range(count):
            page = opened[number]
            width_pt, height_pt = page.get_size()
            scale = min(_MOST_PX[0] / width_pt, _MOST_PX[1] / height_pt, 2.0)
            data = io.BytesIO()
            page.render(scale=scale).to_pil().save(data, "PNG")
            write_whole(folder / f"{number + 1}.png", data.getvalue())
            page.close()
    return count
