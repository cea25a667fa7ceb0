"""A turned page has the pixels of the page, each at its new place."""

import numpy as np
import pytest
from PIL import Image

from tallpage.core.cut import Cut, Fold, Frame
from tallpage.core.cut.models import HiddenArea
from tallpage.core.errors import FrameError
from tallpage.core.geometry import Box
from tallpage.core.picture import Raster
from tallpage.core.render import Rendering, RenderRules
from tallpage.core.sizing import Sizing
from tallpage.core.turning import Orientation, TurnedPage
from tests.core.render.rows import RowsSource
from tests.pictures import Pixels, photograph, raster_of, text_page


def _drawn(rows: Pixels, cut: Cut) -> Pixels:
    rendering = Rendering(RowsSource(rows), cut, RenderRules(sizing=Sizing(way="share", percent=100)))
    raster = rendering.draw(rendering.whole())
    return raster.rows(0, raster.size.height_px)


def _cut(rows: Pixels, orientation: Orientation) -> Cut:
    page = TurnedPage(Raster.from_rows(rows).size, orientation)
    return Cut(orientation=orientation, frame=Frame.of(Box.whole(page.size)))


@pytest.mark.parametrize("mirror", [False, True])
@pytest.mark.parametrize("quarters", [0, 1, 2, 3])
def test_quarters_and_mirror_lose_nothing(mirror: bool, quarters: int) -> None:
    rows = text_page(300, 700)
    expected = np.rot90(rows[:, ::-1] if mirror else rows, -quarters)
    orientation = Orientation(mirror=mirror, turn_deg=quarters * 90)
    np.testing.assert_array_equal(_drawn(rows, _cut(rows, orientation)), expected)


@pytest.mark.parametrize("angle", [1.3, -7.0, 30.0, 90.0, 135.0])
@pytest.mark.parametrize("corners", ["filled", "cropped"])
def test_an_angle_turns_like_a_plain_turn_of_the_whole(angle: float, corners: str) -> None:
    rows = photograph(320, 240)
    orientation = Orientation(angle_deg=angle, corners=corners, colour="#204060")
    drawn = _drawn(rows, _cut(rows, orientation)).astype(int)
    height, width = drawn.shape[:2]
    page = TurnedPage(Raster.from_rows(rows).size, orientation)
    first, across, down = (page.back(point) for point in ((0, 0), (1, 0), (0, 1)))
    affine = (
        across[0] - first[0], down[0] - first[0], first[0],
        across[1] - first[1], down[1] - first[1], first[1],
    )  # fmt: skip
    plain = np.asarray(
        Image.fromarray(rows).transform(
            (width, height), Image.Transform.AFFINE, affine, Image.Resampling.BICUBIC, fillcolor=(32, 64, 96)
        )
    ).astype(int)
    inside = np.zeros((height, width), dtype=bool)
    inside[3:-3, 3:-3] = True
    apart = np.abs(drawn - plain).max(axis=2)
    # Along the page's own edge one of the two is smoothed.
    assert np.quantile(apart[inside], 0.97) <= 12
    assert apart[inside].mean() < 3


def test_a_part_of_a_turned_page_is_that_part_of_all_of_it() -> None:
    rows = text_page(200, 500)
    orientation = Orientation(turn_deg=90, angle_deg=3.0)
    whole = _drawn(rows, _cut(rows, orientation))
    box = Box(x_px=60, y_px=40, width_px=150, height_px=90)
    part = _drawn(rows, Cut(orientation=orientation, frame=Frame.of(box)))
    np.testing.assert_array_equal(part, whole[40:130, 60:210])
    folded = Cut(orientation=orientation, frame=Frame.of(box, [Fold(top_px=70, height_px=30)]))
    np.testing.assert_array_equal(
        _drawn(rows, folded), np.vstack([whole[40:70, 60:210], whole[100:130, 60:210]])
    )


def test_corners_can_show_through_and_a_box_of_nothing_else_does() -> None:
    rows = text_page(200, 200)
    orientation = Orientation(angle_deg=45, colour="#ffffff00")
    corner = Cut(orientation=orientation, frame=Frame.of(Box(x_px=0, y_px=0, width_px=9, height_px=9)))
    drawn = _drawn(rows, corner)
    assert drawn.shape == (9, 9, 4)
    assert not drawn[:, :, 3].any()


def test_what_is_hidden_is_hidden_where_the_turned_page_shows_it() -> None:
    rows = text_page(300, 300)
    orientation = Orientation(turn_deg=90)
    area = HiddenArea(x_px=10, y_px=20, width_px=50, height_px=30, how="solid", colour="#ff0000")
    drawn = _drawn(
        rows, Cut(orientation=orientation, hidden=(area,), frame=Frame.of(Box.whole(raster_of(rows).size)))
    )
    assert (drawn[20:50, 10:60] == (255, 0, 0)).all()


def test_a_box_that_a_turn_moved_outside_is_refused() -> None:
    rows = text_page(300, 700)
    frame = Frame.of(Box(x_px=0, y_px=0, width_px=300, height_px=700))
    with pytest.raises(FrameError, match="does not lie on the picture of 700 × 300"):
        Cut(orientation=Orientation(turn_deg=90), frame=frame).require_on(raster_of(rows).size)
