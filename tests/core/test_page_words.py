"""A capture's words: none, whole, or damaged."""

from pathlib import Path

import pytest

from tallpage.core.errors import PictureUnreadable
from tallpage.core.geometry import Box
from tallpage.core.page_words import WORDS_NAME, PageWords, Word

BOX = Box(x_px=1, y_px=2, width_px=30, height_px=14)
WORDS = PageWords(
    runs=((Word("pier", (BOX,)), Word("office", (BOX, BOX), joined=True)), (Word("é", (BOX,)),))
)


def test_words_are_read_as_they_were_saved_and_a_picture_has_none(tmp_path: Path) -> None:
    assert PageWords.load(tmp_path) is None
    WORDS.save(tmp_path)
    assert PageWords.load(tmp_path) == WORDS


@pytest.mark.parametrize("data", [b"", b"{", b"\x1f\x8b", b"\x1f\x8b\x08\x00\x00\x00\x00\x00\x00\xff\xff"])
def test_damaged_words_are_told_from_none(tmp_path: Path, data: bytes) -> None:
    (tmp_path / WORDS_NAME).write_bytes(data)
    with pytest.raises(PictureUnreadable) as refused:
        PageWords.load(tmp_path)
    assert refused.value.code == "words_damaged"
    assert PageWords.load_if_readable(tmp_path) is None
