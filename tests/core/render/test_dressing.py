"""What is put around a picture: the file is as the place asks, and each part is where it is said to be."""

from pathlib import Path
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tallpage.core.cut import Cut
from tallpage.core.dressing import Dressing
from tallpage.core.errors import FitError
from tallpage.core.picture import Raster
from tallpage.core.render import CaptureSource, Rendering, RenderRules
from tallpage.core.sizing import Sizing
from tests.long import COSTLY
from tests.pictures import Pixels, assert_same_pixels, strips_of

PINE = (31, 92, 77)
PAGE = np.full((900, 600, 3), PINE, dtype=np.uint8)
ROOM = {"top_px": 10, "right_px": 20, "bottom_px": 30, "left_px": 40}


def _rendering(folder: Path, dressing: dict[str, Any], rules: RenderRules, page: Pixels = PAGE) -> Rendering:
    source = CaptureSource(folder, strips_of(page, folder))
    cut = Cut(frame=Cut.whole(source.size).frame, dressing=Dressing.model_validate(dressing))
    return Rendering(source, cut.resolved({"name": "Islands"}), rules)


def _pixels(raster: Raster) -> Pixels:
    return raster.rows(0, raster.size.height_px)


def _drawn(folder: Path, dressing: dict[str, Any], *, width_px: int = 300, page: Pixels = PAGE) -> Pixels:
    rendering = _rendering(folder, dressing, RenderRules(sizing=Sizing(width_px=width_px)), page)
    return _pixels(rendering.draw(rendering.whole()))


_PARTS = st.fixed_dictionaries(
    {},
    optional={
        "caption": st.fixed_dictionaries(
            {"text": st.text("ab {}", min_size=1, max_size=120).map(lambda text: text.strip("{} ") or "a")},
            optional={"side": st.sampled_from(["above", "below"]), "size_px": st.floats(8, 30)},
        ),
        "border": st.fixed_dictionaries({"width_px": st.integers(1, 12)}),
        "corner_px": st.integers(0, 60),
        "shadow": st.fixed_dictionaries({"blur_px": st.integers(1, 20), "down_px": st.integers(0, 20)}),
        "torn": st.fixed_dictionaries({"sides": st.just(["top", "left"]), "seed": st.integers(0, 9)}),
        "room": st.fixed_dictionaries({name: st.integers(0, 40) for name in ROOM}),
        "stamp": st.fixed_dictionaries({"text": st.just("DRAFT"), "place": st.just("tiled")}),
    },
)
_WAYS = st.sampled_from(
    [
        Sizing(width_px=320),
        Sizing(way="height", height_px=420),
        Sizing(way="fill", width_px=320, height_px=400),
        Sizing(way="pad", width_px=400, height_px=420),
    ]
)


@COSTLY
@given(_PARTS, _WAYS)
def test_the_file_has_the_size_of_its_place_whatever_is_around_the_picture(
    tmp_path_factory: pytest.TempPathFactory, dressing: dict[str, Any], sizing: Sizing
) -> None:
    rendering = _rendering(tmp_path_factory.mktemp("page"), dressing, RenderRules(sizing=sizing))
    drawn = rendering.draw(rendering.whole())
    assert drawn.size == rendering.size_of(rendering.whole())
    if sizing.way != "height":
        assert drawn.size.width_px == sizing.width_px
    if sizing.way != "width":
        assert drawn.size.height_px == sizing.height_px
    assert len(_pixels(drawn)) == drawn.size.height_px


def test_room_and_border_lie_around_the_picture(tmp_path: Path) -> None:
    drawn = _drawn(
        tmp_path, {"room": ROOM, "border": {"width_px": 5, "colour": "#FF0000"}, "background": "#FFFFFF"}
    )
    picture_px = 300 - 60 - 10
    assert drawn.shape == (10 + 5 + round(900 * picture_px / 600) + 5 + 30, 300, 3)
    assert tuple(drawn[5, 150]) == (255, 255, 255)
    assert tuple(drawn[12, 42]) == (255, 0, 0)  # the corner is square
    assert tuple(drawn[200, 42]) == (255, 0, 0)
    assert tuple(drawn[200, 46]) == PINE
    assert tuple(drawn[200, 274]) == PINE
    assert tuple(drawn[200, 279]) == (255, 0, 0)
    assert tuple(drawn[200, 281]) == (255, 255, 255)


def test_rounded_corners_are_cut_off_and_the_rest_is_whole(tmp_path: Path) -> None:
    drawn = _drawn(tmp_path, {"corner_px": 40})
    assert drawn.shape == (450, 300, 4)
    assert drawn[0, 0, 3] == drawn[449, 299, 3] == 0
    assert drawn[20, 150, 3] == drawn[225, 0, 3] == 255
    assert_same_pixels(drawn[40:410, :, :3], np.full((370, 300, 3), PINE, dtype=np.uint8))


def test_a_torn_side_is_the_same_for_the_same_seed(tmp_path: Path) -> None:
    torn = {"sides": ["bottom", "right"], "depth_px": 12}
    first, again, other = (
        _drawn(tmp_path / str(number), {"torn": {**torn, "seed": seed}})
        for number, seed in enumerate((3, 3, 4))
    )
    assert_same_pixels(first, again)
    assert not np.array_equal(first, other)
    assert (first[:, :280, 3][:430] == 255).all()
    edge = first[-12:, :280, 3]
    assert 0.1 < (edge == 0).mean() < 0.9


def test_torn_sides_of_a_tall_picture_have_no_seams(tmp_path: Path) -> None:
    page = np.full((6_000, 300, 3), PINE, dtype=np.uint8)
    alpha = _drawn(tmp_path, {"torn": {"sides": ["left", "right"], "depth_px": 12}}, page=page)[:, :, 3]
    depths = (alpha[:, :20] < 128).sum(axis=1)
    assert depths.max() <= 12
    assert np.abs(np.diff(depths.astype(int))).max() <= 8


def test_a_shadow_fades_out_below(tmp_path: Path) -> None:
    drawn = _drawn(tmp_path, {"shadow": {"blur_px": 20, "down_px": 6, "colour": "#000000FF"}})
    below = drawn[-26:, 150, 3].astype(int)
    assert below[0] > 100
    assert below[-1] < 12
    assert (np.diff(below) <= 0).all()


def test_a_caption_is_filled_and_stands_where_it_is_wanted(tmp_path: Path) -> None:
    caption = {"text": "{name}", "size_px": 20, "colour": "#000000"}
    below = _drawn(tmp_path / "1", {"caption": caption, "background": "#FFFFFF"})
    above = _drawn(tmp_path / "2", {"caption": {**caption, "side": "above"}, "background": "#FFFFFF"})
    assert below.shape == above.shape
    assert_same_pixels(below[:450], above[-450:])
    other = _drawn(tmp_path / "3", {"caption": {**caption, "text": "Islands"}, "background": "#FFFFFF"})
    assert_same_pixels(below, other)
    assert (below[450:] < 100).any()


def test_which_leaf_has_the_caption_is_chosen(tmp_path: Path) -> None:
    caption = {"text": "Islands", "size_px": 20}
    rules = RenderRules(sizing=Sizing(width_px=300), leaf_count=3, greatest_height_px=400)
    heights = {}
    for leaves in ("all", "first", "last"):
        rendering = _rendering(tmp_path / leaves, {"caption": {**caption, "leaves": leaves}}, rules)
        found = rendering.leaves()
        sizes = [rendering.size_of(leaf) for leaf in found]
        assert [rendering.draw(leaf).size for leaf in found] == sizes
        heights[leaves] = [
            size.height_px - rendering.plan(leaf).canvas.height_px
            for size, leaf in zip(sizes, found, strict=True)
        ]
        assert all(size.height_px <= 400 for size in sizes)
    assert heights["first"][1:] == [0, 0]
    assert heights["last"][:2] == [0, 0]
    assert heights["first"][0] == heights["last"][2] == heights["all"][1] > 20


def test_a_stamp_stands_once_or_everywhere(tmp_path: Path) -> None:
    stamp = {"text": "DRAFT", "colour": "#FFFFFF", "opacity": 1.0, "size_px": 20}
    once = _drawn(tmp_path / "once", {"stamp": {**stamp, "place": "bottom-right"}})
    tiled = _drawn(tmp_path / "tiled", {"stamp": {**stamp, "place": "tiled"}})
    marked = (once[:, :, :3] != PINE).any(axis=2)
    rows, columns = np.nonzero(marked)
    assert rows.min() > 400
    assert columns.min() > 200
    assert 430 < rows.max() <= 438
    parts = (tiled[:225], tiled[225:], tiled[:, :150], tiled[:, 150:])
    shares = [(part[:, :, :3] != PINE).any(axis=2).mean() for part in parts]
    assert max(shares) < 2 * min(shares)


def test_rows_of_a_dressed_file_are_found_on_the_page(tmp_path: Path) -> None:
    rendering = _rendering(tmp_path, {"room": ROOM}, RenderRules(sizing=Sizing(width_px=360)))
    ((box, share),) = rendering.on_page(rendering.whole(), 10, 100)
    assert (box.y_px, box.height_px, share) == (0, 200, 1.0)
    assert list(rendering.on_page(rendering.whole(), 0, 10)) == []


@pytest.mark.parametrize("sizing", [Sizing(width_px=50), Sizing(way="height", height_px=30)])
def test_a_dressing_that_leaves_nothing_is_refused(tmp_path: Path, sizing: Sizing) -> None:
    rendering = _rendering(tmp_path, {"room": ROOM}, RenderRules(sizing=sizing))
    with pytest.raises(FitError) as refused:
        rendering.draw(rendering.whole())
    assert refused.value.code == "dressing_too_large"
