"""Letters of a PDF: those that are seen, as outlines; and those that are only searched and copied."""

from __future__ import annotations

import pikepdf
import uharfbuzz as harfbuzz

from tallpage.core.paths import Path
from tallpage.core.text import FONTS_FOLDER

_GLYPH_UNITS = 500
"""Width of each letter that is not seen, in thousandths of its size."""
_MOST_LETTERS = 65_000
_AT_ONCE = 100
"""Lines of one list in a character map. Source: Adobe Technical Note 5014, 4.2."""


class UnseenFont:
    """The font of words that lie over a picture without being seen: it has no shapes, only meanings."""

    def __init__(self) -> None:
        self._numbers: dict[str, int] = {}

    def placed(self, text: str, *, left_pt: float, base_pt: float, width_pt: float, size_pt: float) -> bytes:
        """What writes a text so that it takes a width; a space follows it, which takes none."""
        # A letter beyond what one font holds counts as a space: nothing else is lost.
        numbers = [self._number(letter) for letter in text]
        stretch = 100 * width_pt / max(0.001, len(numbers) * size_pt * _GLYPH_UNITS / 1_000)
        spelled = "".join(f"{number:04x}" for number in [*numbers, self._number(" ")])
        return (
            f"BT /Unseen {size_pt:.3f} Tf 3 Tr {stretch:.2f} Tz 1 0 0 1 {left_pt:.3f} {base_pt:.3f} Tm "
            f"<{spelled}> Tj ET\n"
        ).encode()

    def _number(self, letter: str) -> int:
        if letter not in self._numbers and len(self._numbers) >= _MOST_LETTERS:
            return self._numbers.setdefault(" ", 1)
        return self._numbers.setdefault(letter, len(self._numbers) + 1)

    def embedded(self, pdf: pikepdf.Pdf) -> pikepdf.Object:
        """The font as an object of a document, once all its letters are known."""
        name = pikepdf.Name("/UNSEEN+Words")
        blank = _font_without_letters()
        descriptor = pdf.make_indirect(
            pikepdf.Dictionary(
                Type=pikepdf.Name.FontDescriptor,
                FontName=name,
                Flags=4,
                FontBBox=[0, -200, _GLYPH_UNITS, 800],
                ItalicAngle=0,
                Ascent=800,
                Descent=-200,
                CapHeight=700,
                StemV=80,
                FontFile2=pdf.make_stream(blank, Length1=len(blank)),
            )
        )
        shapes = pdf.make_indirect(
            pikepdf.Dictionary(
                Type=pikepdf.Name.Font,
                Subtype=pikepdf.Name.CIDFontType2,
                BaseFont=name,
                CIDSystemInfo=pikepdf.Dictionary(
                    Registry=pikepdf.String("Adobe"), Ordering=pikepdf.String("Identity"), Supplement=0
                ),
                FontDescriptor=descriptor,
                DW=_GLYPH_UNITS,
                # Every letter is drawn as the one glyph there is.
                CIDToGIDMap=pdf.make_stream(bytes(2 * (len(self._numbers) + 2))),
            )
        )
        return pdf.make_indirect(
            pikepdf.Dictionary(
                Type=pikepdf.Name.Font,
                Subtype=pikepdf.Name.Type0,
                BaseFont=name,
                Encoding=pikepdf.Name("/Identity-H"),
                DescendantFonts=[shapes],
                ToUnicode=pdf.make_stream(self._meanings()),
            )
        )

    def _meanings(self) -> bytes:
        """Which letter each number stands for. Source: ISO 32000-1, 9.10.3 ToUnicode CMaps."""
        rows = [
            f"<{number:04x}> <{letter.encode('utf-16-be').hex()}>" for letter, number in self._numbers.items()
        ]
        lists = [rows[at : at + _AT_ONCE] for at in range(0, len(rows), _AT_ONCE)]
        body = "\n".join(f"{len(some)} beginbfchar\n" + "\n".join(some) + "\nendbfchar" for some in lists)
        return (
            "/CIDInit /ProcSet findresource begin\n12 dict begin\nbegincmap\n"
            "/CIDSystemInfo << /Registry (Adobe) /Ordering (UCS) /Supplement 0 >> def\n"
            "/CMapName /Adobe-Identity-UCS def\n/CMapType 2 def\n"
            "1 begincodespacerange\n<0000> <ffff>\nendcodespacerange\n"
            f"{body}\nendcmap\nCMapName currentdict /CMap defineresource pop\nend\nend\n"
        ).encode()


def outlines(path: Path, *, left_pt: float, top_pt: float) -> bytes:
    """What fills outlines that count downwards from their upper left corner."""
    parts, at = [], (0.0, 0.0)
    for command, numbers in path.steps:
        points = [(left_pt + x, top_pt - y) for x, y in zip(numbers[::2], numbers[1::2], strict=True)]
        match command:
            case "M":
                parts.append(_written(points, "m"))
            case "L":
                parts.append(_written(points, "l"))
            case "Q":
                handle, end = points
                # A quadratic curve as the cubic one of the same shape.
                first, second = (
                    (side[0] / 3 + handle[0] * 2 / 3, side[1] / 3 + handle[1] * 2 / 3) for side in (at, end)
                )
                parts.append(_written([first, second, end], "c"))
            case "C":
                parts.append(_written(points, "c"))
            case "Z":
                parts.append("h")
        at = points[-1] if points else at
    return ("\n".join([*parts, "f"]) + "\n").encode() if parts else b""


def _written(points: list[tuple[float, float]], command: str) -> str:
    return " ".join(f"{x:.3f} {y:.3f}" for x, y in points) + f" {command}"


def _font_without_letters() -> bytes:
    """The smallest part of a font that ships: a document has to carry each font that it names."""
    face = harfbuzz.Face(harfbuzz.Blob.from_file_path(FONTS_FOLDER / "IBMPlexSans-Regular.ttf"))
    wanted = harfbuzz.SubsetInput()
    part = harfbuzz.subset(face, wanted)
    data: bytes = part.blob.data
    return data
