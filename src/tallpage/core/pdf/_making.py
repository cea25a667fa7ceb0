"""One PDF from one or several captures, under a limit where there is one."""

from __future__ import annotations

import tempfile
from collections.abc import Callable, Iterator, Mapping, Sequence
from contextlib import ExitStack, contextmanager
from dataclasses import dataclass, replace
from pathlib import Path

import pikepdf

from tallpage.core.captions import filled_pattern, pattern_problem
from tallpage.core.errors import HandOverError
from tallpage.core.files import storage_errors
from tallpage.core.geometry import Size, bands
from tallpage.core.once import once
from tallpage.core.pdf._bands import BAND_PX, BEST_QUALITY, OVERLAP_PX, stored_bands
from tallpage.core.pdf._document import (
    FOOT_LINE_PT,
    FOOT_SIZE_PT,
    Document,
    OutlineEntry,
    SheetContent,
    picture_in,
)
from tallpage.core.pdf._paper import TALL, Ground, Paper, ground_for
from tallpage.core.pdf._words import TaggedWords, links, passages
from tallpage.core.picture import Raster
from tallpage.core.render import Leaf, Rendering
from tallpage.core.sizing import Sizing
from tallpage.core.text import lay_out

QUALITIES = (BEST_QUALITY, 86, 80, 74, 67, 60, 52, 44, 36)
"""JPEG qualities that are tried, the best first."""
SHARES = (100, 80, 64, 50)
"""How much of the picture's width is kept, in percent, where no quality is light enough."""
MOST_PARTS = 500
_DEEPEST_IN_OUTLINE = 3
_KEPT_UP_TO_PX = 120_000_000
_DRAFTS_ARE_HEAVIER = 1.2
"""A search by drafts would give up too early: what is made with care is that much lighter at least."""


@dataclass(frozen=True, slots=True, kw_only=True)
class PdfPart:
    """One capture of a document."""

    rendering: Rendering
    """Its rules say the width in px; sheets divide it as they need."""
    title: str
    facts: Mapping[str, str]
    """What the fields of a caption stand for."""


@dataclass(frozen=True, slots=True, kw_only=True)
class PdfOrder:
    """How a document is to be made.

    Raises:
        HandOverError: a caption with a field that is not known, or margins that cannot be.
    """

    paper: Paper = TALL
    margin_mm: float = 12.0
    caption: str = ""
    """Said below each picture, with ``{title} {address} {host} {date} {name}``."""
    numbered: bool = True
    """Whether sheets of paper say which of how many they are."""
    limit_bytes: int | None = None

    def __post_init__(self) -> None:
        problem = pattern_problem(self.caption)
        if problem is not None:
            raise HandOverError(f"The caption: {problem}", code="pattern_malformed")
        if not 0 <= self.margin_mm <= 200:
            raise HandOverError(
                f"A margin of {self.margin_mm:g} mm cannot be.",
                hint="Give 0 to 200 mm.",
                code="paper_malformed",
            )


@dataclass(frozen=True, slots=True, kw_only=True)
class PdfMade:
    """What was made."""

    sheets: int
    bytes: int
    met: bool
    """Whether it is under the limit."""
    quality: int
    """JPEG quality of what is stored with loss."""
    share_percent: int
    """How much of the picture's width was kept."""


def make_pdf(
    parts: Sequence[PdfPart],
    order: PdfOrder,
    file: Path,
    *,
    on_sheet: Callable[[int, int], None] = lambda *_: None,
) -> PdfMade:
    """Write the document; ``on_sheet`` hears how many sheets of how many are drawn, and may raise.

    Under a limit the best quality is looked for that fits; where none does, the picture is made narrower.
    What cannot be brought under it at all is written as light as it can be, and not ``met``.

    Raises:
        HandOverError: there is nothing to be shown, or too much.
        FitError, FrameError: a cut that cannot be drawn.
        StorageError: the disk is full.
    """
    if not 1 <= len(parts) <= MOST_PARTS:
        raise HandOverError(
            f"A document shows from 1 to {MOST_PARTS} captures, not {len(parts)}.",
            hint="Choose fewer of them.",
            code="pdf_parts",
        )
    made = None
    for share_percent in SHARES:
        attempt = _Attempt(parts, order, share_percent, on_sheet)
        for quality in attempt.qualities():
            made = attempt.write(file, quality)
            if made.met:
                return made
    assert made is not None  # noqa: S101 - there is a quality to be tried
    return made


@dataclass(frozen=True, slots=True)
class _Sheet:
    part: int
    leaf: Leaf
    rendering: Rendering
    ground: Ground

    @property
    def size(self) -> Size:
        """Width and height of its picture in px."""
        return self.rendering.size_of(self.leaf)

    def draw(self) -> Raster:
        """Its pixels, to be read as often as needed."""
        return self.rendering.draw(self.leaf).held()


@dataclass(frozen=True)
class _Attempt:
    """The sheets of a document at some width; their pictures can be stored in several qualities."""

    parts: Sequence[PdfPart]
    order: PdfOrder
    share_percent: int
    on_sheet: Callable[[int, int], None]

    @once
    def sheets(self) -> list[_Sheet]:
        """What each shows."""
        return [
            _Sheet(number, leaf, rendering, ground)
            for number, part in enumerate(self.parts)
            for leaf, rendering, ground in _divided(part, self.order, self.share_percent)
        ]

    def qualities(self) -> Iterator[int]:
        """Those to be tried, the best first. Drafts say from which on it is worth while."""
        limit_bytes = self.order.limit_bytes
        if limit_bytes is None:
            yield BEST_QUALITY
            return
        low, high = 0, len(QUALITIES) - 1
        while low < high:
            middle = (low + high) // 2
            if self._draft_bytes(QUALITIES[middle]) <= limit_bytes * _DRAFTS_ARE_HEAVIER:
                high = middle
            else:
                low = middle + 1
        yield from QUALITIES[low:]

    def write(self, file: Path, quality: int) -> PdfMade:
        """Write the document in a quality."""
        with ExitStack() as open_files, storage_errors(file.parent):
            folder = Path(open_files.enter_context(tempfile.TemporaryDirectory()))
            first = self.parts[0]
            language = self._words[0].language
            title = first.title if len(self.parts) == 1 else f"{first.title} and {len(self.parts) - 1} more"
            document = Document(title=title, language=language)
            open_files.callback(document.close)
            part = -1
            for number, sheet in enumerate(self.sheets):
                self.on_sheet(number, len(self.sheets))
                if sheet.part != part:
                    part = sheet.part
                    document.begin_part(self.parts[part].title, self._words[part].language)
                # A document holds what it was given until it is written; what it takes from a file
                # stays there, so that a hundred captures need no more memory than one.
                pixels = self._raster(sheet)
                quickly = self.order.limit_bytes is None
                file_of_sheet = folder / f"{number}.pdf"
                stored = open_files.enter_context(_stored(pixels, quality, file_of_sheet, quickly=quickly))
                pictures = [document.pdf.copy_foreign(band) for band in stored.Root.Bands]
                content = self._content(sheet, number, pictures)
                document.add_outline(self._outline(sheet, content, document.add_sheet(content)))
            document.save(file)
        byte_count, limit_bytes = file.stat().st_size, self.order.limit_bytes
        return PdfMade(
            sheets=len(self.sheets),
            bytes=byte_count,
            met=limit_bytes is None or byte_count <= limit_bytes,
            quality=quality,
            share_percent=self.share_percent,
        )

    @once
    def _words(self) -> list[TaggedWords]:
        drawn = [part.rendering for part in self.parts]
        return [TaggedWords.of(rendering.readable(), rendering.headings()) for rendering in drawn]

    @once
    def _kept(self) -> dict[int, Raster]:
        """Sheets that are drawn already: of small documents all, of others none."""
        small = sum(sheet.size.pixels for sheet in self.sheets) <= _KEPT_UP_TO_PX
        wanted = self.order.limit_bytes is not None and small
        return {id(sheet): sheet.draw() for sheet in self.sheets} if wanted else {}

    def _raster(self, sheet: _Sheet) -> Raster:
        return self._kept.get(id(sheet)) or sheet.draw()

    def _draft_bytes(self, quality: int) -> int:
        return sum(
            len(band.data)
            for sheet in self.sheets
            for band in stored_bands(self._raster(sheet), quality, draft=True)
        )

    def _content(self, sheet: _Sheet, number: int, pictures: list[pikepdf.Object]) -> SheetContent:
        part, size = self.parts[sheet.part], sheet.size
        shown = [box for box, _ in sheet.rendering.on_page(sheet.leaf, 0, size.height_px)]
        words = self._words[sheet.part].between(
            min((box.y_px for box in shown), default=0), max((box.bottom_px for box in shown), default=0)
        )
        to_file = sheet.rendering.to_file(sheet.leaf)
        count = sheet.leaf.count
        which = f", {sheet.leaf.number} of {count}" if count > 1 else ""
        return SheetContent(
            ground=sheet.ground,
            rows_px=size.height_px,
            width_px=size.width_px,
            bands=pictures,
            band_places=[
                (top_px, min(height_px + OVERLAP_PX, size.height_px - top_px))
                for top_px, height_px in bands(size.height_px, BAND_PX)
            ],
            alt=f"{part.title}{which}",
            passages=list(passages(words, to_file)),
            links=list(links(words, to_file)),
            foot=filled_pattern(self.order.caption, part.facts).strip(),
            page_words=f"{number + 1} of {len(self.sheets)}" if _is_numbered(self.order) else "",
        )

    def _outline(self, sheet: _Sheet, content: SheetContent, number: int) -> Iterator[OutlineEntry]:
        """The capture, where there are several, and the headings that stand on a sheet."""
        ground = sheet.ground
        height_pt = ground.height_pt(content.rows_px)
        if len(self.parts) > 1 and sheet.leaf.number == 1:
            yield OutlineEntry(text=self.parts[sheet.part].title, sheet=number, top_pt=height_pt, level=0)
        for passage in content.passages:
            level = int(passage.tag[1]) if passage.tag.startswith("H") else _DEEPEST_IN_OUTLINE + 1
            if level <= _DEEPEST_IN_OUTLINE:
                top_pt = height_pt - ground.margin_pt - passage.words[0][1].y_px * ground.points_a_px
                yield OutlineEntry(text=passage.text, sheet=number, top_pt=top_pt, level=level)


def _divided(part: PdfPart, order: PdfOrder, share_percent: int) -> Iterator[tuple[Leaf, Rendering, Ground]]:
    """What each sheet shows of a capture, and its ground."""
    rendering = part.rendering
    whole_px = rendering.size_of(rendering.whole())
    if share_percent != 100:
        # Narrower in px; on paper it is as large as before.
        width_px = max(1, whole_px.width_px * share_percent // 100)
        sizing = Sizing(way="width", width_px=width_px)
        rendering = replace(rendering, rules=replace(rendering.rules, sizing=sizing))
    size = rendering.size_of(rendering.whole())
    ground = ground_for(
        order.paper, whole_px, margin_mm=order.margin_mm, foot_pt=_foot_pt(part, order, whole_px)
    )
    ground = replace(ground, points_a_px=ground.points_a_px * whole_px.width_px / size.width_px)
    if ground.most_rows_px is not None:
        rules = replace(rendering.rules, greatest_height_px=ground.most_rows_px)
        rendering = replace(rendering, rules=rules)
        for leaf in rendering.leaves():
            yield leaf, rendering, ground
        return
    yield rendering.whole(), rendering, ground


def _foot_pt(part: PdfPart, order: PdfOrder, picture: Size) -> float:
    """Height of the lines below the pictures of a capture."""
    text = filled_pattern(order.caption, part.facts).strip()
    if not text:
        return FOOT_LINE_PT if _is_numbered(order) else 0.0
    ground = ground_for(order.paper, picture, margin_mm=order.margin_mm, foot_pt=FOOT_LINE_PT)
    number_pt = (
        lay_out("999 of 999", size_px=FOOT_SIZE_PT).width_px + FOOT_SIZE_PT if _is_numbered(order) else 0
    )
    room_pt = max(ground.page_width_pt - 2 * ground.margin_pt - number_pt, FOOT_SIZE_PT)
    return lay_out(text, size_px=FOOT_SIZE_PT, width_px=room_pt).height_px


def _is_numbered(order: PdfOrder) -> bool:
    return order.numbered and order.paper.size_mm is not None


@contextmanager
def _stored(raster: Raster, quality: int, file: Path, *, quickly: bool) -> Iterator[pikepdf.Pdf]:
    """The bands of a sheet in a file of their own, from which they are taken when the document is written.

    ``quickly`` is for where nobody asked for few bytes.
    """
    with pikepdf.new() as pictures:
        pictures.Root.Bands = pikepdf.Array(
            [picture_in(pictures, band) for band in stored_bands(raster, quality, draft=quickly)]
        )
        pictures.save(file)
    with pikepdf.open(file) as opened:
        yield opened
