"""A capture's words: none, whole, or damaged."""

import gzip
from pathlib import Path

import pytest

from tallpage.core.errors import PictureUnreadable
from tallpage.core.geometry import Box
from tallpage.core.page_words import WORDS_NAME, Link, PageWords, Word

BOX = Box(x_px=1, y_px=2, width_px=30, height_px=14)
WORDS = PageWords(
    runs=((Word("pier", (BOX,)), Word("office", (BOX, BOX), joined=True)), (Word("é", (BOX,)),)),
    links=(Link("https://pier.example/?a=1", (BOX, BOX)),),
    language="en-GB",
)


def test_words_are_read_as_they_were_saved_and_a_picture_has_none(tmp_path: Path) -> None:
    assert PageWords.load(tmp_path) is None
    WORDS.save(tmp_path)
    assert PageWords.load(tmp_path) == WORDS


def test_words_of_before_links_were_noted_are_read(tmp_path: Path) -> None:
    old = b'{"version":1,"runs":[[["pier",0,1,2,30,14]]]}'
    (tmp_path / WORDS_NAME).write_bytes(gzip.compress(old))
    assert PageWords.load(tmp_path) == PageWords(runs=((Word("pier", (BOX,)),),))


@pytest.mark.parametrize("data", [b"", b"{", b"\x1f\x8b", b"\x1f\x8b\x08\x00\x00\x00\x00\x00\x00\xff\xff"])
def test_damaged_words_are_told_from_none(tmp_path: Path, data: bytes) -> None:
    (tmp_path / WORDS_NAME).write_bytes(data)
    with pytest.raises(PictureUnreadable) as refused:
        PageWords.load(tmp_path)
    assert refused.value.code == "words_damaged"
    assert PageWords.load_if_readable(tmp_path) is None
