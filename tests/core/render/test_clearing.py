"""A cleared colour shows through; edges stay as soft as they were, on whatever ground they come to lie."""

import numpy as np
import pytest
from PIL import Image, ImageDraw, ImageFilter

from tallpage.core.clearing import ClearedColour, Clearing, PutBack
from tallpage.core.cut import Cut, Fold, Frame
from tallpage.core.errors import FrameError
from tallpage.core.geometry import Box
from tallpage.core.picture import Raster
from tallpage.core.render import Rendering, RenderRules, prepared
from tallpage.core.sizing import Sizing
from tests.core.render.rows import RowsSource
from tests.pictures import Pixels, text_page

WHITE, NAVY = (255, 255, 255), (20, 40, 90)


def _logo(ground: tuple[int, int, int], *, blurred_px: float = 0) -> Pixels:
    """A ring and a slanted bar with soft edges, drawn at eight times the size."""
    big = Image.new("RGB", (240 * 8, 160 * 8), ground)
    draw = ImageDraw.Draw(big)
    draw.ellipse((160, 160, 1_100, 1_100), fill=NAVY)
    draw.ellipse((400, 400, 860, 860), fill=ground)
    draw.polygon([(1_200, 1_100), (1_400, 200), (1_600, 200), (1_400, 1_100)], fill=(190, 60, 40))
    big = big.filter(ImageFilter.GaussianBlur(blurred_px * 8))
    return np.asarray(big.resize((240, 160), Image.Resampling.BOX))


def _cleared(rows: Pixels, clearing: Clearing) -> Pixels:
    source = RowsSource(rows)
    page = prepared(source, Cut(cleared=clearing, frame=Frame.of(Box.whole(source.size))))
    return page.region(Box.whole(source.size)).rows(0, len(rows))


def _over(rgba: Pixels, ground: tuple[int, int, int]) -> Pixels:
    share = rgba[:, :, 3:].astype(float) / 255
    return (rgba[:, :, :3] * share + np.array(ground) * (1 - share)).round().astype(np.uint8)


def _everywhere(colour: str, **said: int) -> Clearing:
    return Clearing(colours=(ClearedColour(colour=colour, **said),))


@pytest.mark.parametrize("ground", [WHITE, (250, 240, 220), (12, 90, 70)])
@pytest.mark.parametrize("onto", [(0, 0, 0), (255, 255, 255), (200, 30, 160)])
def test_a_logo_lies_on_any_ground_as_if_it_had_been_drawn_there(
    ground: tuple[int, int, int], onto: tuple[int, int, int]
) -> None:
    clearing = _everywhere("#{:02x}{:02x}{:02x}".format(*ground), tolerance=6)
    found = _over(_cleared(_logo(ground), clearing), onto).astype(int)
    apart = np.abs(found - _logo(onto).astype(int)).max(axis=2)
    assert np.quantile(apart, 0.995) <= 16
    assert apart.mean() < 0.6


@pytest.mark.parametrize("blurred_px", [0.7, 1.5])
def test_edges_out_of_focus_stay_so_without_a_fringe(blurred_px: float) -> None:
    rows = _logo(WHITE, blurred_px=blurred_px)
    found = _over(_cleared(rows, _everywhere("#ffffff", tolerance=6)), (0, 0, 0)).astype(int)
    apart = np.abs(found - _logo((0, 0, 0), blurred_px=blurred_px).astype(int)).max(axis=2)
    assert np.quantile(apart, 0.99) <= 24
    assert apart.mean() < 1.5


def test_a_flat_colour_beside_the_ground_stays_whole() -> None:
    rows = np.full((60, 60, 3), 255, dtype=np.uint8)
    rows[20:40, 10:50] = 225
    rows[24:36, 14:46] = 20
    found = _cleared(rows, _everywhere("#ffffff"))
    assert (found[20:40, 10:50, 3] == 255).all()
    np.testing.assert_array_equal(found[20:40, 10:50, :3], rows[20:40, 10:50])


def test_laid_over_its_own_ground_it_is_as_it_was() -> None:
    rows = text_page(300, 200)
    ground = tuple(int(channel) for channel in rows[0, 0])
    clearing = _everywhere("#{:02x}{:02x}{:02x}".format(*ground), tolerance=8)
    found = _over(_cleared(rows, clearing), (ground[0], ground[1], ground[2])).astype(int)
    assert np.abs(found - rows.astype(int)).max() <= 8


def test_only_what_is_connected_goes_and_a_spot_comes_back() -> None:
    rows = _logo(WHITE)
    inside, outside = (78, 78), (5, 5)
    connected = Clearing(colours=(ClearedColour(colour="#ffffff", x_px=outside[0], y_px=outside[1]),))
    alpha = _cleared(rows, connected)[:, :, 3]
    assert alpha[outside[1], outside[0]] == 0
    assert alpha[inside[1], inside[0]] == 255
    put_back = Clearing(
        colours=(ClearedColour(colour="#ffffff"),),
        put_back=(PutBack(x_px=inside[0], y_px=inside[1]), PutBack(x_px=0, y_px=0, width_px=9, height_px=7)),
    )
    alpha = _cleared(rows, put_back)[:, :, 3]
    assert alpha[inside[1], inside[0]] == 255
    assert (alpha[:7, :9] == 255).all()
    assert alpha[outside[1] + 20, outside[0]] == 0


def test_a_part_is_that_part_of_the_whole_over_the_edges_of_bands() -> None:
    rows = np.vstack([_logo(WHITE)] * 8)
    clearing = Clearing(colours=(ClearedColour(colour="#ffffff", x_px=2, y_px=2),))
    whole = _cleared(rows, clearing)
    source = RowsSource(rows)
    cut = Cut(
        cleared=clearing,
        frame=Frame.of(Box(x_px=30, y_px=480, width_px=100, height_px=300), [Fold(top_px=600, height_px=50)]),
    )
    rendering = Rendering(source, cut, RenderRules(sizing=Sizing(way="share", percent=100)))
    drawn = rendering.draw(rendering.whole()).rows(0, 250)
    np.testing.assert_array_equal(drawn, np.vstack([whole[480:600, 30:130], whole[650:780, 30:130]]))


def test_a_place_that_takes_no_transparency_gets_its_ground() -> None:
    source = RowsSource(_logo(WHITE))
    cut = Cut(cleared=_everywhere("#ffffff"), frame=Frame.of(Box.whole(source.size)))
    rules = RenderRules(sizing=Sizing(way="share", percent=100), background=(200, 30, 160), flattened=True)
    rendering = Rendering(source, cut, rules)
    drawn = rendering.draw(rendering.whole()).rows(0, 160)
    assert drawn[2, 2].tolist() == [200, 30, 160]


def test_a_colour_that_is_everywhere_is_refused_in_words() -> None:
    source = RowsSource(np.full((40, 60, 3), 250, dtype=np.uint8))
    cut = Cut(cleared=_everywhere("#ffffff"), frame=Frame.of(Box.whole(source.size)))
    rendering = Rendering(source, cut, RenderRules(sizing=Sizing(way="share", percent=100)))
    with pytest.raises(FrameError, match="nothing would be left"):
        rendering.require_seen()
    hard = Clearing(colours=(ClearedColour(colour="#ffffff", tolerance=0),), soft_px=0)
    assert Raster.from_rows(_cleared(_logo(WHITE), hard)).shows
