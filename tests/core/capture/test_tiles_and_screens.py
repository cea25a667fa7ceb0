import itertools
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tallpage.core.capture import PRESETS, Screen
from tallpage.core.capture.pixels._tiles import plan_tiles
from tallpage.core.errors import TallPageError
from tallpage.core.geometry import Box
from tallpage.core.picture import MAX_STRIP_HEIGHT_PX


@given(
    st.integers(0, 500),
    st.integers(0, 5_000),
    st.integers(1, 4_000),
    st.integers(1, 200_000),
    st.sampled_from([1, 2, 3]),
)
def test_tiles_cover_the_area_once_and_fit_into_strips(
    x: int, y: int, width: int, height: int, scale: int
) -> None:
    area = Box(x_px=x, y_px=y, width_px=width, height_px=height)
    tiles = plan_tiles(area, scale)
    tops = [tile.clip_px.y_px for tile in tiles]
    assert tops[0] == area.y_px
    assert all(first.clip_px.bottom_px == second.clip_px.y_px for first, second in itertools.pairwise(tiles))
    assert tiles[-1].clip_px.bottom_px == area.bottom_px
    for tile in tiles:
        assert sum(tile.strip_heights_device_px) == tile.clip_px.height_px * scale
        assert max(tile.strip_heights_device_px) <= MAX_STRIP_HEIGHT_PX
    assert all((tile.clip_px.x_px, tile.clip_px.width_px) == (x, width) for tile in tiles)


def test_a_screen_reads_as_it_is_written() -> None:
    assert Screen.parse("390x844@3") == replace(PRESETS["phone"], touch=False)
    assert Screen.parse(" 1280 × 800 ") == PRESETS["desk"]
    assert str(PRESETS["tablet"]) == "834×1112 at 2"


@pytest.mark.parametrize("text", ["", "1280", "1280x800@4", "10x800", "1280x99999", "-1x800", "axb"])
def test_an_impossible_screen_is_refused_with_what_is_possible(text: str) -> None:
    with pytest.raises(TallPageError) as refused:
        Screen.parse(text)
    assert refused.value.code == "screen_impossible"
    assert "390x844@3" in refused.value.hint
