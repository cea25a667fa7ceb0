"""The boxes of a page's visible blocks with their texts: for picking a block, searching, dividing."""

from __future__ import annotations

import json
from dataclasses import asdict, dataclass
from pathlib import Path

from tallpage.core.errors import PictureUnreadable
from tallpage.core.files import write_whole
from tallpage.core.geometry import Box

MAP_NAME = "map.json"
_CARRIES_TEXT = {"heading", "paragraph", "quote", "code", "table", "list", "text", "button", "image"}


@dataclass(frozen=True, slots=True, kw_only=True)
class Block:
    """One visible block; its box in page pixels, wholly on the capture."""

    role: str
    level: int | None
    """1–6 for a heading."""
    box: Box
    text: str
    link: str
    alt: str
    path: str = ""
    """Its element in those that it lies in, like ``body > main#content > table.fares``; empty where it is not
    known, as in older captures and dropped pictures."""


@dataclass(frozen=True, slots=True, kw_only=True)
class PageMap:
    """Blocks from outer to inner, as they stand in the page."""

    blocks: tuple[Block, ...]

    def text(self) -> str:
        """What the page says, each passage once."""
        passages: dict[str, None] = {}
        for block in self.blocks:
            if block.role in _CARRIES_TEXT:
                passages.setdefault(block.text or block.alt)
        return "\n".join(passage for passage in passages if passage)

    def save(self, folder: Path) -> None:
        """Write the map into a capture's folder."""
        rows = [{**asdict(block), "box": asdict(block.box)} for block in self.blocks]
        write_whole(
            folder / MAP_NAME, json.dumps({"version": 1, "blocks": rows}, ensure_ascii=False).encode()
        )

    @classmethod
    def load(cls, folder: Path) -> PageMap:
        """Read a capture's map; a capture without one (a dropped picture) has no blocks.

        Raises:
            PictureUnreadable: it is there and damaged.
        """
        path = folder / MAP_NAME
        if not has_map(folder):
            return cls(blocks=())
        try:
            rows = json.loads(path.read_text("utf-8"))["blocks"]
            return cls(blocks=tuple(Block(**{**row, "box": Box(**row["box"])}) for row in rows))
        except (OSError, ValueError, KeyError, TypeError, RecursionError) as error:
            raise PictureUnreadable(
                "The page map of this capture is damaged: its blocks and words are not known.",
                hint="The picture itself is whole. Take the page again for its blocks.",
                code="map_damaged",
            ) from error

    @classmethod
    def load_if_readable(cls, folder: Path) -> PageMap:
        """The map as :meth:`load` gives it. A damaged one counts as empty, for callers that need none."""
        try:
            return cls.load(folder)
        except PictureUnreadable:
            return cls(blocks=())


def has_map(folder: Path) -> bool:
    """Whether a capture's page said where its blocks stand: a dropped picture never did."""
    return (folder / MAP_NAME).exists()
