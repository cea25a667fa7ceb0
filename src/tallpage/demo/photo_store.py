"""Photographs of the demo site, painted once and kept."""

from __future__ import annotations

import io
import re
from concurrent.futures import ProcessPoolExecutor
from functools import partial
from importlib import resources
from pathlib import Path
from typing import get_args

from tallpage.core.files import write_whole
from tallpage.demo.photographs import Subject, Weather, paint

WIDTH_PX, HEIGHT_PX = 1_000, 667
_QUALITY = 88
_NAME = re.compile(rf"({'|'.join(get_args(Subject))})-({'|'.join(get_args(Weather))})-(\d{{1,2}})\.jpg")


class PhotoStore:
    """Photographs by name, ``subject-weather-number.jpg``, of one width and the usual shape."""

    def __init__(self, folder: Path, *, width_px: int = WIDTH_PX) -> None:
        self._folder = folder
        self._width_px = width_px
        folder.mkdir(parents=True, exist_ok=True)

    def get(self, name: str) -> bytes | None:
        """JPEG of a photograph, painted when it is not there yet; None for an impossible name."""
        match = _NAME.fullmatch(name)
        if match is None:
            return None
        path = self._folder / match[0]
        if path.exists():
            return path.read_bytes()
        data = _painted(match[0], self._width_px)
        write_whole(path, data)
        return data

    def paint_all(self) -> int:
        """Paint what the site shows and is not there yet, on all cores; returns how many."""
        missing = [name for name in names_on_site() if not (self._folder / name).exists()]
        if missing:
            with ProcessPoolExecutor() as pool:
                painted = pool.map(partial(_painted, width_px=self._width_px), missing)
                for name, data in zip(missing, painted, strict=True):
                    write_whole(self._folder / name, data)
        return len(missing)


def names_on_site() -> list[str]:
    """Names of all photographs that pages of the site show."""
    pages = (
        row
        for row in resources.files("tallpage.demo").joinpath("site").iterdir()
        if row.name.endswith(".html")
    )
    found = {match[0] for page in pages for match in _NAME.finditer(page.read_text("utf-8"))}
    return sorted(found)


def _painted(name: str, width_px: int) -> bytes:
    subject, weather, _ = name.removesuffix(".jpg").split("-")
    height_px = round(width_px * HEIGHT_PX / WIDTH_PX)
    picture = paint(name, subject=subject, weather=weather, width_px=width_px, height_px=height_px)  # type: ignore[arg-type]  # both come from the pattern above
    buffer = io.BytesIO()
    picture.save(buffer, "JPEG", quality=_QUALITY)
    return buffer.getvalue()
