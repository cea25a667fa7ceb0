"""A page with blocks for routines, without a browser: its pixels tell where each block is."""

from __future__ import annotations

from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

import numpy as np

from tallpage.core.capture import Screen
from tallpage.core.geometry import Box, Size
from tallpage.core.page_map import Block
from tallpage.core.page_words import PageWords, Word
from tallpage.core.picture import Access, Raster
from tallpage.core.render import PictureSource
from tallpage.core.routine import Page, Routine, routine_of
from tests.pictures import as_png

WIDTH_PX, HEIGHT_PX = 600, 2_000
_MAIN = "body > main#content"


def block(role: str, sides: tuple[int, int, int, int], text: str = "", **more: Any) -> Block:
    box = Box(x_px=sides[0], y_px=sides[1], width_px=sides[2], height_px=sides[3])
    return Block(role=role, level=more.pop("level", None), box=box, text=text, link="", alt="", **more)


BLOCKS = (
    block("section", (0, 100, 600, 1_700), "Fares Cars Bikes Winter", path=_MAIN),
    block("heading", (20, 100, 300, 40), "Fares", level=1, path=f"{_MAIN} > h1"),
    block("heading", (20, 200, 300, 30), "Cars", level=2, path=f"{_MAIN} > h2"),
    block("table", (20, 240, 400, 200), "Car up to 5 m 31.50", path=f"{_MAIN} > table.fares.wide"),
    block("heading", (20, 500, 300, 30), "Bikes", level=2, path=f"{_MAIN} > h2"),
    block("table", (20, 540, 400, 150), "Bicycle 4.00", path=f"{_MAIN} > div.box > table.fares"),
    block("heading", (20, 900, 300, 40), "Winter", level=1, path=f"{_MAIN} > h1"),
    block("table", (20, 960, 400, 150), "Winter timetable", path=f"{_MAIN} > table.times"),
    block("navigation", (0, 1_820, 600, 100), "Home Fleet", path="body > footer > nav"),
)


@dataclass
class MappedSource:
    """A picture of which the blocks and words are known."""

    picture: PictureSource
    mapped: tuple[Block, ...]
    said: PageWords | None = None
    size: Size = field(init=False)

    def __post_init__(self) -> None:
        self.size = self.picture.size

    def region(self, box: Box, *, access: Access = "sequential") -> Raster:
        return self.picture.region(box, access=access)

    def blocks(self) -> tuple[Block, ...]:
        return self.mapped

    def words(self) -> PageWords | None:
        return self.said


def page(folder: Path, *, screen: bool = True, words: bool = True) -> Page:
    pixels = np.full((HEIGHT_PX, WIDTH_PX, 3), 255, np.uint8)
    for at, row in enumerate(BLOCKS[1:], start=1):
        box = row.box
        pixels[box.y_px : box.bottom_px, box.x_px : box.right_px] = (at * 25, 255 - at * 25, 90)
    file = folder / "page.png"
    file.write_bytes(as_png(pixels))
    run = (Word("desk@skerrin-ferries.example", (Box(x_px=20, y_px=700, width_px=200, height_px=20),)),)
    source = MappedSource(PictureSource(file, held=True), BLOCKS, PageWords(runs=(run,)) if words else None)
    return Page(source=source, screen=Screen.parse("600x400") if screen else None)


def routine(*steps: dict[str, Any], **more: Any) -> Routine:
    return routine_of({"version": 1, "name": "Tried", "steps": list(steps), **more})
