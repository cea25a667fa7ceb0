"""Addresses out of a file: plain text, or one column of a CSV or XLSX table."""

from __future__ import annotations

import csv
import io
import os
import re
import zipfile
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass

from tallpage.core.errors import ListError
from tallpage.core.sweep._pages import Found
from tallpage.core.sweep._pasted import looks_like_address, read_pasted

MOST_FILE_BYTES = 20_000_000
os.environ.setdefault("OPENPYXL_LXML", "False")
_MOST_UNPACKED_BYTES = 25_000_000
"""A list of 20,000 pages unpacks to some 5 MB; reading takes about two seconds for each 1 MB."""
MOST_ROWS = 200_000
_MOST_COLUMNS = 200
_LOOKED_AT = 200
_ZIP_START = b"PK\x03\x04"
_LINK_MARKS = (b"<hyperlink ", b"HYPERLINK(")
_LINK_FORMULA = re.compile(r'=\s*HYPERLINK\(\s*"([^"]+)"', re.IGNORECASE)
_WEB = re.compile(r"https?://", re.IGNORECASE)
_TEXT_CODES = ("utf-8-sig", "cp1252")


@dataclass(frozen=True, slots=True, kw_only=True)
class Column:
    """A column of a table: its heading, and how many of its first 200 cells look like addresses."""

    number: int
    heading: str
    addresses: int


@dataclass(frozen=True, slots=True, kw_only=True)
class Table:
    """Rows of text. ``columns`` is empty for a plain text, whose lines are single cells."""

    rows: tuple[tuple[str, ...], ...]
    columns: tuple[Column, ...]

    @property
    def likeliest(self) -> int:
        """Number of the column that holds most addresses."""
        return max(self.columns, key=lambda column: column.addresses).number if self.columns else 0

    def found_in(self, column: int) -> list[Found]:
        """What stands in one column; a heading is no address and is not reported as a bad line.

        Raises:
            ListError: there is no such column.
        """
        if not self.columns:
            return read_pasted("\n".join(row[0] for row in self.rows))
        if not 0 <= column < len(self.columns):
            raise ListError(
                f"There is no column {str(column + 1)[:20]}.", hint=f"Choose 1 to {len(self.columns)}."
            )
        cells = [(line, row[column].strip()) for line, row in enumerate(self.rows, 1) if column < len(row)]
        if cells and not looks_like_address(cells[0][1]):
            cells = cells[1:]
        return [Found(text=text, line=line) for line, text in cells if text]


def read_file(data: bytes, name: str) -> Table:
    """The table in a dropped text, CSV or XLSX file.

    Raises:
        ListError: too large, not one of these, or damaged.
    """
    if len(data) > MOST_FILE_BYTES:
        raise ListError(f"{name} is over {MOST_FILE_BYTES // 1_000_000} MB.", code="list_too_large")
    rows = _rows_of_workbook(data, name) if data.startswith(_ZIP_START) else _rows_of_text(data, name)
    kept: list[tuple[str, ...]] = []
    for row in rows:
        if len(kept) >= MOST_ROWS:
            raise ListError(f"{name} has over {MOST_ROWS:,} rows.", code="list_too_large")
        kept.append(tuple(row[:_MOST_COLUMNS]))
    return Table(rows=tuple(kept), columns=tuple(_columns(kept)))


def _columns(rows: Sequence[Sequence[str]]) -> Iterator[Column]:
    width = max((len(row) for row in rows[:_LOOKED_AT]), default=0)
    if width < 2:
        return
    for number in range(width):
        cells = [row[number].strip() if number < len(row) else "" for row in rows[:_LOOKED_AT]]
        heading = cells[0] if cells and not looks_like_address(cells[0]) else ""
        yield Column(
            number=number,
            heading=heading or f"Column {number + 1}",
            addresses=sum(looks_like_address(cell) for cell in cells),
        )


def _rows_of_text(data: bytes, name: str) -> Iterable[Sequence[str]]:
    text = _decoded(data, name)
    first_lines = "\n".join(text.splitlines()[:50])
    divider = next((mark for mark in ("\t", ";", ",") if _divides(first_lines, mark)), None)
    if divider is None:
        return [(line,) for line in text.splitlines()]
    csv.field_size_limit(MOST_FILE_BYTES)
    return csv.reader(io.StringIO(text, newline=""), delimiter=divider)


def _divides(text: str, mark: str) -> bool:
    """Whether a mark makes columns: rows of two cells or more, nearly all of one width."""
    widths = [len(row) for row in csv.reader(io.StringIO(text), delimiter=mark) if row]
    usual = max(set(widths), key=widths.count, default=0)
    return usual > 1 and widths.count(usual) >= 0.8 * len(widths)


def _decoded(data: bytes, name: str) -> str:
    if data[:2] in (b"\xff\xfe", b"\xfe\xff"):
        return data.decode("utf-16", errors="replace")
    if b"\0" in data[:4_096]:
        raise ListError(f"{name} is neither text nor a table that is read.")
    for code in _TEXT_CODES:
        try:
            return data.decode(code)
        except UnicodeDecodeError:
            continue
    return data.decode("latin-1")


def _rows_of_workbook(data: bytes, name: str) -> Iterator[Sequence[str]]:
    """Rows of the first sheet."""
    import openpyxl  # loaded with the first table: most processes never read one
    from openpyxl.utils.exceptions import InvalidFileException

    damaged = ListError(f"{name} is not an XLSX table, or it is damaged.")
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as archive:
            _require_small(sum(entry.file_size for entry in archive.infolist()), name)
        # openpyxl reads through defusedxml where that is installed, which it is: no entities. But it
        # would take lxml first, which is there for PDFs.
        book = openpyxl.load_workbook(io.BytesIO(data), read_only=True, data_only=True, keep_links=False)
    except (zipfile.BadZipFile, InvalidFileException, KeyError, ValueError, OSError) as error:
        raise damaged from error
    try:
        if not book.worksheets:
            raise damaged
        sheet = book.worksheets[0]
        links = _links_behind_words(data)
        for number, row in enumerate(sheet.iter_rows(values_only=True), start=1):
            yield [
                _said("" if cell is None else str(cell), links.get((number, column)))
                for column, cell in enumerate(row, start=1)
            ]
    except (zipfile.BadZipFile, KeyError, ValueError, OSError, SyntaxError) as error:
        raise damaged from error
    finally:
        book.close()


def _said(words: str, link: str | None) -> str:
    """What a cell says: the link behind its words, unless they are an address themselves."""
    return link if link and not looks_like_address(words.strip()) else words


def _links_behind_words(data: bytes) -> dict[tuple[int, int], str]:
    """Links of cells of the first sheet by row and column, from 1, set on the cell or by a formula.

    They are only told when a whole sheet is read, which is done only where there are some.
    """
    with zipfile.ZipFile(io.BytesIO(data)) as archive:
        sheets = (name for name in archive.namelist() if name.startswith("xl/worksheets/sheet"))
        if not any(mark in archive.read(name) for name in sheets for mark in _LINK_MARKS):
            return {}
    import openpyxl

    links: dict[tuple[int, int], str] = {}
    book = openpyxl.load_workbook(io.BytesIO(data), keep_links=False)
    for row in book.worksheets[0].iter_rows():
        for cell in row:
            formula = _LINK_FORMULA.match(cell.value) if isinstance(cell.value, str) else None
            link = cell.hyperlink.target if cell.hyperlink else formula and formula[1]
            if link and _WEB.match(link):
                links[cell.row, cell.column] = link
    return links


def _require_small(unpacked_bytes: int, name: str) -> None:
    if unpacked_bytes > _MOST_UNPACKED_BYTES:
        raise ListError(
            f"{name} unpacks to over {_MOST_UNPACKED_BYTES // 1_000_000} MB.", code="list_too_large"
        )
