"""Pages that are written, edited and laid out, so that it is known which block became which."""

from __future__ import annotations

import random
from dataclasses import dataclass, field, replace

from tallpage.core.geometry import Box, Size
from tallpage.core.page_map import Block

_WORDS = [
    "harbour",
    "ferry",
    "island",
    "sailing",
    "morning",
    "evening",
    "tide",
    "weather",
    "lighthouse",
    "crossing",
    "ticket",
    "bicycle",
    "dog",
    "pier",
    "quay",
    "winter",
    "summer",
    "timetable",
    "foot",
    "passenger",
    "vehicle",
    "deck",
    "lounge",
    "soup",
    "kettle",
    "gull",
    "heather",
    "ridge",
    "path",
    "village",
    "shop",
    "post",
    "boat",
    "crew",
    "master",
    "mate",
    "engine",
    "rope",
    "anchor",
    "wind",
    "fog",
    "swell",
    "notice",
    "change",
    "repair",
    "slipway",
]
WIDTH_PX = 1_000
_LINE_PX, _LINE_CHARS = 24, 90


@dataclass(frozen=True)
class Piece:
    """A block and those in it; ``name`` is what it is, whatever it says."""

    name: str
    role: str
    text: str = ""
    level: int | None = None
    within: tuple[Piece, ...] = ()
    across: bool = False
    """Whether those in it stand beside each other."""
    height_px: int = 0
    """Of what has no text."""


@dataclass
class Writer:
    """Writes pages and edits them, the same for the same seed."""

    seed: int
    _count: int = 0
    _chance: random.Random = field(init=False)

    def __post_init__(self) -> None:
        self._chance = random.Random(self.seed)

    def page(self, sections: int = 6) -> Piece:
        """A page of sections with headings, paragraphs, lists, pictures, tables, and cards that end alike."""
        return self._piece("section", within=tuple(self._section() for _ in range(sections)))

    def edited(self, page: Piece, *, share: float = 0.2) -> Piece:
        """The same page later: pieces put in, taken out, reworded and moved, about ``share`` of all."""
        return replace(page, within=self._edited(page.within, share, depth=0))

    def _edited(
        self, pieces: tuple[Piece, ...], share: float, depth: int, *, in_row: bool = False
    ) -> tuple[Piece, ...]:
        found: list[Piece] = []
        ways = ("reword",) if in_row else ("put in", "take out", "reword", "reword")
        for piece in pieces:
            if self._chance.random() < share:
                match self._chance.choice(ways):
                    case "put in":
                        found += [self._like(piece), piece]
                    case "reword" if piece.text and not piece.within:
                        found.append(replace(piece, text=self._reworded(piece.text)))
                    case "take out" if len(pieces) > 2:
                        continue
                    case _:
                        found.append(piece)
            else:
                found.append(piece)
        if depth == 0 and len(found) > 2:
            at = self._chance.randrange(len(found) - 1)
            found[at], found[at + 1] = found[at + 1], found[at]
        return tuple(
            replace(piece, within=self._edited(piece.within, share, depth + 1, in_row=piece.across))
            for piece in found
        )

    def _section(self) -> Piece:
        kinds = self._chance.sample(("paragraphs", "list", "table", "cards", "pictures"), 3)
        within = [self._piece("heading", self._words(2, 5).title(), level=2)]
        for kind in kinds:
            within += getattr(self, f"_{kind}")()
        return self._piece("section", within=tuple(within))

    def _paragraphs(self) -> list[Piece]:
        return [self._piece("paragraph", self._words(12, 60)) for _ in range(self._chance.randint(1, 4))]

    def _list(self) -> list[Piece]:
        items = tuple(self._piece("text", self._words(2, 8)) for _ in range(self._chance.randint(3, 7)))
        return [self._piece("list", within=items)]

    def _table(self) -> list[Piece]:
        return [self._piece("table", within=tuple(self._row() for _ in range(self._chance.randint(3, 8))))]

    def _row(self) -> Piece:
        time = f"{self._chance.randint(6, 22):02}:{self._chance.choice((0, 15, 30, 45)):02}"
        cells = (time, self._words(1, 2).title(), self._chance.choice(("On time", "On time", "Late")))
        return self._piece("row", within=tuple(self._piece("text", cell) for cell in cells), across=True)

    def _cards(self) -> list[Piece]:
        return [self._card() for _ in range(self._chance.randint(2, 4))]

    def _card(self) -> Piece:
        within = (
            self._piece("heading", self._words(2, 3).title(), level=3),
            self._piece("paragraph", self._words(8, 25)),
            self._piece("button", "Book now"),
        )
        return self._piece("section", within=within)

    def _pictures(self) -> list[Piece]:
        found = []
        for _ in range(self._chance.randint(1, 2)):
            found.append(self._piece("image", height_px=self._chance.choice((180, 240, 320))))
            found.append(self._piece("paragraph", self._words(5, 12)))
        return found

    def _piece(self, role: str, text: str = "", **more: object) -> Piece:
        self._count += 1
        return Piece(name=f"{role} {self._count}", role=role, text=text, **more)  # type: ignore[arg-type]

    def _like(self, piece: Piece) -> Piece:
        """Another piece of the same kind."""
        if piece.role == "row":
            return self._row()
        if piece.within:
            return self._card() if len(piece.within) == 3 else self._section()
        text = (
            self._words(max(2, len(piece.text.split()) - 3), len(piece.text.split()) + 3)
            if piece.text
            else ""
        )
        return self._piece(piece.role, text, level=piece.level, height_px=piece.height_px)

    def _reworded(self, text: str) -> str:
        words = text.split()
        for _ in range(max(1, len(words) // 6)):
            words[self._chance.randrange(len(words))] = self._chance.choice(_WORDS)
        return " ".join(words)

    def _words(self, least: int, most: int) -> str:
        return " ".join(self._chance.choice(_WORDS) for _ in range(self._chance.randint(least, most)))


def laid_out(page: Piece, width_px: int = WIDTH_PX) -> tuple[Size, list[Block], list[str]]:
    """The page's size, its blocks from outer to inner, and the name of each."""
    blocks: list[Block] = []
    names: list[str] = []

    def lay(piece: Piece, x_px: int, y_px: int, width_px: int) -> int:
        """Put a piece down; gives its height."""
        at = len(blocks)
        if piece.role != "row":  # rows of a table are no blocks of a page map
            blocks.append(None)  # type: ignore[arg-type]
            names.append(piece.name)
        if piece.within and piece.across:
            share = width_px // len(piece.within)
            height_px = max(
                lay(inner, x_px + number * share, y_px, share) for number, inner in enumerate(piece.within)
            )
        elif piece.within:
            height_px = 10
            for inner in piece.within:
                height_px += lay(inner, x_px + 10, y_px + height_px, width_px - 20) + 10
        elif piece.text:
            height_px = _LINE_PX * -(-len(piece.text) * WIDTH_PX // (_LINE_CHARS * width_px))
        else:
            height_px = piece.height_px
        if piece.role != "row":
            box = Box(x_px=x_px, y_px=y_px, width_px=width_px, height_px=height_px)
            blocks[at] = Block(
                role=piece.role, level=piece.level, box=box, text=said_by(piece), link="", alt=""
            )
        return height_px

    height_px = lay(page, 0, 0, width_px)
    return Size(width_px=width_px, height_px=height_px), blocks, names


def said_by(piece: Piece) -> str:
    """All that is said in a piece."""
    return " ".join(filter(None, [piece.text, *(said_by(inner) for inner in piece.within)]))
