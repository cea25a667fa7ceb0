"""A capture's page map: none, whole, or damaged."""

from pathlib import Path

import pytest

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
