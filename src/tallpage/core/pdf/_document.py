"""A document under construction: sheets with pictures, words, links, tags and an outline."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

import pikepdf

from tallpage.core.geometry import Box
from tallpage.core.pdf._bands import Band
from tallpage.core.pdf._lettering import UnseenFont, outlines
from tallpage.core.pdf._paper import Ground
from tallpage.core.pdf._words import Passage
from tallpage.core.text import lay_out

FOOT_SIZE_PT = 8.0
FOOT_LINE_PT = FOOT_SIZE_PT * 1.3
_BASE_SHARE = 0.22
"""How far above the lower edge of a word's box its letters stand, as a share of its height."""
_LETTERS_SHARE = 0.8
"""Size of letters as a share of the height of their box."""
_PRODUCER = "Tall Page"
_FOOT_COLOUR = b"0.35 0.35 0.35 rg\n"


@dataclass(frozen=True, slots=True, kw_only=True)
class SheetContent:
    """What stands on one sheet."""

    ground: Ground
    rows_px: int
    width_px: int
    bands: Sequence[pikepdf.Object]
    """Pictures in the document."""
    band_places: Sequence[tuple[int, int]]
    """First row and number of rows of each."""
    alt: str
    passages: Sequence[Passage]
    links: Sequence[tuple[str, tuple[Box, ...]]]
    foot: str
    """Lines below the picture; empty where there are none."""
    page_words: str
    """Which sheet of how many it is; empty where that is not said."""


@dataclass(frozen=True, slots=True, kw_only=True)
class OutlineEntry:
    """A line of the outline, which leads to a place of a sheet."""

    text: str
    sheet: int
    top_pt: float
    level: int


@dataclass
class _Tags:
    """The structure of what stands where, for those who do not see the pages."""

    document: Any
    sections: list[Any] = field(default_factory=list)
    of_pages: list[list[Any]] = field(default_factory=list)
    of_links: list[Any] = field(default_factory=list)


class Document:
    """A PDF that grows sheet by sheet. Close it when it is saved."""

    def __init__(self, *, title: str, language: str) -> None:
        self.pdf = pikepdf.new()
        self._font = UnseenFont()
        root = pikepdf.Dictionary(Type=pikepdf.Name.StructTreeRoot)
        self._tree = self.pdf.make_indirect(root)
        self.pdf.Root.StructTreeRoot = self._tree
        document = self._element("Document", self._tree)
        self._tree.K = pikepdf.Array([document])
        self._tags = _Tags(document)
        self._links: list[tuple[Any, int]] = []
        self._outline: list[OutlineEntry] = []
        self.pdf.Root.Lang = pikepdf.String(language or "en")
        self.pdf.Root.MarkInfo = pikepdf.Dictionary(Marked=True)
        self.pdf.Root.ViewerPreferences = pikepdf.Dictionary(DisplayDocTitle=True)
        with self.pdf.open_metadata(set_pikepdf_as_editor=False) as facts:
            facts["dc:title"] = title
            facts["dc:language"] = {language or "en"}
            facts["pdf:Producer"] = _PRODUCER
        self.pdf.docinfo["/Title"] = pikepdf.String(title)
        self.pdf.docinfo["/Producer"] = _PRODUCER

    def add_picture(self, band: Band) -> pikepdf.Object:
        """A stored band as an object of this document."""
        return picture_in(self.pdf, band)

    def begin_part(self, title: str, language: str) -> None:
        """The sheets that follow show another capture."""
        section = self._element("Sect", self._tags.document)
        section.T = pikepdf.String(title)
        if language:
            section.Lang = pikepdf.String(language)
        self._append(self._tags.document, section)
        self._tags.sections.append(section)

    def add_sheet(self, content: SheetContent) -> int:
        """Add a sheet to the part that was begun last; gives its number from 0."""
        number, ground = len(self.pdf.pages), content.ground
        page_height_pt = ground.height_pt(content.rows_px)
        top_pt = page_height_pt - ground.margin_pt
        section = self._tags.sections[-1]
        marked: list[Any] = []
        page = self.pdf.make_indirect(
            pikepdf.Dictionary(
                Type=pikepdf.Name.Page,
                MediaBox=[0, 0, round(ground.page_width_pt, 3), round(page_height_pt, 3)],
                StructParents=number,
                Tabs=pikepdf.Name.S,
            )
        )
        scale = ground.points_a_px
        pictures = {}
        parts = [b"/Figure <</MCID 0>> BDC\n"]
        figure = self._marked_element("Figure", section, page, 0)
        figure.Alt = pikepdf.String(content.alt)
        marked.append(figure)
        for at, (band, (row, rows)) in enumerate(zip(content.bands, content.band_places, strict=True)):
            pictures[f"/Picture{at}"] = band
            width_pt, height_pt = content.width_px * scale, rows * scale
            bottom_pt = top_pt - (row + rows) * scale
            place = f"{width_pt:.4f} 0 0 {height_pt:.4f} {ground.margin_pt:.4f} {bottom_pt:.4f}"
            parts.append(f"q {place} cm /Picture{at} Do Q\n".encode())
        parts.append(b"EMC\n")
        for passage in content.passages:
            parts.append(f"/{passage.tag} <</MCID {len(marked)}>> BDC\n".encode())
            parts += [self._word(text, box, scale, ground.margin_pt, top_pt) for text, box in passage.words]
            parts.append(b"EMC\n")
            marked.append(self._marked_element(passage.tag, section, page, len(marked)))
        parts += self._foot(content, ground, page, section, marked)
        page.Contents = self.pdf.make_stream(b"".join(parts))
        page.Resources = pikepdf.Dictionary(XObject=pikepdf.Dictionary(pictures))
        boxes = [(address, box) for address, places in content.links for box in places]
        if boxes:
            page.Annots = pikepdf.Array(
                [self._link(address, box, scale, ground.margin_pt, top_pt, page) for address, box in boxes]
            )
        self.pdf.pages.append(pikepdf.Page(page))
        self._tags.of_pages.append(marked)
        return number

    def add_outline(self, entries: Iterable[OutlineEntry]) -> None:
        """Lines of the outline, in order; one of a deeper level stands under the one before."""
        self._outline += entries

    def save(self, path: Path) -> None:
        """Write the file, with what could only be known at the end."""
        font = self._font.embedded(self.pdf)
        for page in self.pdf.pages:
            page.obj.Resources.Font = pikepdf.Dictionary(Unseen=font)
        count = len(self.pdf.pages)
        numbers: list[Any] = []
        for number, marked in enumerate(self._tags.of_pages):
            numbers += [number, self.pdf.make_indirect(pikepdf.Array(marked))]
        for at, (annotation, _) in enumerate(self._links):
            annotation.StructParent = count + at
            numbers += [count + at, self._tags.of_links[at]]
        self._tree.ParentTree = self.pdf.make_indirect(pikepdf.Dictionary(Nums=pikepdf.Array(numbers)))
        self._tree.ParentTreeNextKey = count + len(self._links)
        self._write_outline()
        self.pdf.save(
            path,
            compress_streams=True,
            object_stream_mode=pikepdf.ObjectStreamMode.generate,
            min_version="1.7",
        )

    def close(self) -> None:
        """Let go of what the document holds."""
        self.pdf.close()

    def _word(self, text: str, box: Box, scale: float, left_pt: float, top_pt: float) -> bytes:
        height_pt = box.height_px * scale
        return self._font.placed(
            text,
            left_pt=left_pt + box.x_px * scale,
            base_pt=top_pt - box.bottom_px * scale + _BASE_SHARE * height_pt,
            width_pt=box.width_px * scale,
            size_pt=_LETTERS_SHARE * height_pt,
        )

    def _foot(
        self, content: SheetContent, ground: Ground, page: Any, section: Any, marked: list[Any]
    ) -> list[bytes]:
        if not ground.foot_pt:
            return []
        top_pt = ground.margin_pt + ground.foot_pt
        room_pt = ground.page_width_pt - 2 * ground.margin_pt
        parts = []
        if content.page_words:
            number = lay_out(content.page_words, size_px=FOOT_SIZE_PT)
            left_pt = ground.page_width_pt - ground.margin_pt - number.width_px
            parts += [
                b"/Artifact BMC\n",
                _FOOT_COLOUR,
                outlines(number.path, left_pt=left_pt, top_pt=top_pt),
                b"EMC\n",
            ]
            room_pt -= number.width_px + FOOT_SIZE_PT
        if content.foot:
            said = lay_out(content.foot, size_px=FOOT_SIZE_PT, width_px=max(room_pt, FOOT_SIZE_PT))
            at = len(marked)
            parts += [
                f"/P <</MCID {at}>> BDC\n".encode(),
                _FOOT_COLOUR,
                outlines(said.path, left_pt=ground.margin_pt, top_pt=top_pt),
                self._font.placed(
                    content.foot.replace("\n", " "),
                    left_pt=ground.margin_pt,
                    base_pt=top_pt - FOOT_SIZE_PT,
                    width_pt=said.width_px,
                    size_pt=FOOT_SIZE_PT,
                ),
                b"EMC\n",
            ]
            marked.append(self._marked_element("P", section, page, at))
        return parts

    def _link(self, address: str, box: Box, scale: float, left_pt: float, top_pt: float, page: Any) -> Any:
        sides = (
            left_pt + box.x_px * scale,
            top_pt - box.bottom_px * scale,
            left_pt + box.right_px * scale,
            top_pt - box.y_px * scale,
        )
        annotation = self.pdf.make_indirect(
            pikepdf.Dictionary(
                Type=pikepdf.Name.Annot,
                Subtype=pikepdf.Name.Link,
                Rect=[round(side, 3) for side in sides],
                Border=[0, 0, 0],
                F=4,
                P=page,
                Contents=pikepdf.String(address),
                A=pikepdf.Dictionary(S=pikepdf.Name.URI, URI=pikepdf.String(address)),
            )
        )
        section = self._tags.sections[-1]
        element = self._element("Link", section)
        element.K = pikepdf.Array([pikepdf.Dictionary(Type=pikepdf.Name.OBJR, Obj=annotation, Pg=page)])
        self._append(section, element)
        self._links.append((annotation, len(self._links)))
        self._tags.of_links.append(element)
        return annotation

    def _element(self, tag: str, parent: Any) -> Any:
        return self.pdf.make_indirect(
            pikepdf.Dictionary(Type=pikepdf.Name.StructElem, S=pikepdf.Name(f"/{tag}"), P=parent)
        )

    def _marked_element(self, tag: str, parent: Any, page: Any, number: int) -> Any:
        element = self._element(tag, parent)
        element.Pg = page
        element.K = number
        self._append(parent, element)
        return element

    @staticmethod
    def _append(parent: Any, child: Any) -> None:
        if "/K" not in parent:
            parent.K = pikepdf.Array()
        parent.K.append(child)

    def _write_outline(self) -> None:
        if not self._outline:
            return
        with self.pdf.open_outline() as outline:
            above: list[tuple[int, list[Any]]] = [(-1, outline.root)]
            for entry in self._outline:
                item = pikepdf.OutlineItem(
                    entry.text, entry.sheet, page_location=pikepdf.PageLocation.XYZ, left=0, top=entry.top_pt
                )
                while above[-1][0] >= entry.level:
                    above.pop()
                above[-1][1].append(item)
                above.append((entry.level, item.children))
        self.pdf.Root.PageMode = pikepdf.Name.UseOutlines


def picture_in(pdf: pikepdf.Pdf, band: Band) -> pikepdf.Object:
    """A stored band as a picture of a document."""
    stream = pikepdf.Stream(pdf, band.data)
    for name, value in {
        "Type": pikepdf.Name.XObject,
        "Subtype": pikepdf.Name.Image,
        "Width": band.size.width_px,
        "Height": band.size.height_px,
        "BitsPerComponent": 8,
        **band.keys,
    }.items():
        stream[f"/{name}"] = value
    return pdf.make_indirect(stream)
