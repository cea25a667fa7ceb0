"""Finding captures by what their pages said: an FTS5 table beside the captures."""

from __future__ import annotations

import json
import re
from collections.abc import Iterable

from django.db import connection
from django.db.models.expressions import RawSQL

from tallpage.server.shelf.models import Capture

_WORD = re.compile(r"\w+")
_PASSAGE_WORDS = 14


def index_capture(capture: Capture, text: str) -> None:
    """Make a capture findable by name, title, address and text; replaces what was there."""
    with connection.cursor() as cursor:
        cursor.execute("delete from shelf_text where rowid = %s", [capture.pk])
        cursor.execute(
            "insert into shelf_text (rowid, name, title, address, text) values (%s, %s, %s, %s, %s)",
            [capture.pk, capture.name, capture.title, capture.final_address or capture.address, text],
        )


def index_name(capture: Capture) -> None:
    """Make a capture findable by its new name."""
    with connection.cursor() as cursor:
        cursor.execute("update shelf_text set name = %s where rowid = %s", [capture.name, capture.pk])


def forget_captures(ids: list[int]) -> None:
    """Make captures unfindable, for they are gone."""
    with connection.cursor() as cursor:
        cursor.executemany("delete from shelf_text where rowid = %s", [(pk,) for pk in ids])


def saying(words: str) -> RawSQL | tuple[()]:
    """The numbers of the captures that hold every word (the last may be a beginning), as a subquery."""
    query = _query(words)
    if not query:
        return ()
    return RawSQL("select rowid from shelf_text where shelf_text match %s", [query])


def passages(words: str, ids: Iterable[int]) -> dict[int, str]:
    """What of each capture's text says the words; nothing where they are elsewhere."""
    query = _query(words)
    if not query:
        return {}
    with connection.cursor() as cursor:
        cursor.execute(
            "select rowid, snippet(shelf_text, 3, '', '', '…', %s) from shelf_text"
            " where shelf_text match %s and rowid in (select value from json_each(%s))",
            [_PASSAGE_WORDS, query, json.dumps(list(ids))],
        )
        return {int(row[0]): str(row[1]) for row in cursor.fetchall()}


def _query(words: str) -> str:
    found = _WORD.findall(words)
    return " ".join(f'"{word}"' for word in found) + "*" if found else ""
