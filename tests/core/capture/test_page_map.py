"""A capture's page map: none, whole, or damaged."""

from pathlib import Path

import pytest

from tallpage.core.capture.words._mapping import seen_on_the_way
from tallpage.core.errors import PictureUnreadable
from tallpage.core.geometry import Box
from tallpage.core.page_map import Block, PageMap

BLOCK = Block(
    role="heading",
    level=1,
    box=Box(x_px=1, y_px=2, width_px=3, height_px=4),
    text="Islands",
    link="",
    alt="",
)


def test_a_map_is_read_as_it_was_saved_and_a_picture_without_one_has_no_blocks(tmp_path: Path) -> None:
    assert PageMap.load(tmp_path).blocks == ()
    PageMap(blocks=(BLOCK,)).save(tmp_path)
    assert PageMap.load(tmp_path).blocks == (BLOCK,)


@pytest.mark.parametrize(
    "data", [b"", b"{", b'{"version": 1}', b'{"blocks": [{"role": "x"}]}', b"\xff", b"["]
)
def test_a_damaged_map_is_told_from_none(tmp_path: Path, data: bytes) -> None:
    (tmp_path / "map.json").write_bytes(data)
    with pytest.raises(PictureUnreadable) as refused:
        PageMap.load(tmp_path)
    assert refused.value.code == "map_damaged"
    assert PageMap.load_if_readable(tmp_path).blocks == ()


def test_blocks_of_a_page_that_is_scrolled_meanwhile_are_where_the_picture_shows_them() -> None:
    found = [{"role": "paragraph", "y_px": y_px} for y_px in (90, 100, 699, 700)]
    clip_px = Box(x_px=0, y_px=100, width_px=1_280, height_px=600)
    assert [row["y_px"] for row in seen_on_the_way(found, clip_px, 2_400)] == [2_500, 3_099]
