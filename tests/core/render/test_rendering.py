"""Cuts drawn from strips and from picture files, against the same pixels put together by hand."""

from pathlib import Path

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tallpage.core.cut import Cut, Fold, Frame
from tallpage.core.errors import FitError, FrameError
from tallpage.core.geometry import Box, Size
from tallpage.core.picture import Raster
from tallpage.core.render import CaptureSource, PictureSource, Rendering, RenderRules
from tallpage.core.sizing import Sizing
from tests.pictures import Pixels, as_png, assert_same_pixels, gradient, photograph, strips_of, text_page

OWN_SIZE = RenderRules(sizing=Sizing(way="share", percent=100))


def _pixels(raster: Raster) -> Pixels:
    return raster.rows(0, raster.size.height_px)


@given(st.data())
def test_a_frame_with_folds_is_exactly_its_rows_one_under_the_other(
    tmp_path_factory: pytest.TempPathFactory, data: st.DataObject
) -> None:
    page, folder = photograph(50, 400), tmp_path_factory.mktemp("capture")
    manifest = strips_of(page, folder, strip_px=data.draw(st.integers(20, 170)))
    top_px, height_px = data.draw(st.integers(0, 100)), data.draw(st.integers(200, 300))
    first, second = data.draw(st.integers(1, 80)), data.draw(st.integers(1, 80))
    folds = [Fold(top_px=top_px + 20, height_px=first), Fold(top_px=top_px + 110, height_px=second)]
    frame = Frame.of(Box(x_px=5, y_px=top_px, width_px=40, height_px=height_px), folds)
    rendering = Rendering(CaptureSource(folder, manifest), Cut(frame=frame), OWN_SIZE)
    hidden = {row for fold in folds for row in range(fold.top_px, fold.bottom_px)}
    shown = [row for row in range(top_px, top_px + height_px) if row not in hidden]
    assert_same_pixels(_pixels(rendering.draw(rendering.whole())), page[shown, 5:45])


def test_leaves_show_everything_once_and_each_its_number(tmp_path: Path) -> None:
    page = np.vstack([text_page(200, 500, seed=seed) for seed in range(3)])
    source = CaptureSource(tmp_path, strips_of(page, tmp_path, strip_px=400))
    rules = RenderRules(sizing=Sizing(width_px=200), greatest_height_px=600)
    rendering = Rendering(source, Cut.whole(source.size), rules)
    leaves = rendering.leaves()
    assert len(leaves) > 2
    assert_same_pixels(np.vstack([_pixels(rendering.draw(leaf)) for leaf in leaves]), page)
    numbered = Rendering(
        source, rendering.cut, RenderRules(sizing=Sizing(width_px=200), leaf_count=3, numbered=True)
    )
    for leaf in numbered.leaves():
        drawn = numbered.draw(leaf)
        assert drawn.size == numbered.size_of(leaf)
        assert_same_pixels(_pixels(drawn)[: leaf.height_px], page[leaf.top_px :][: leaf.height_px])


def test_rows_of_a_file_are_found_on_the_page_across_a_fold(tmp_path: Path) -> None:
    source = CaptureSource(tmp_path, strips_of(gradient(100, 600), tmp_path))
    frame = Frame.of(Box(x_px=0, y_px=100, width_px=100, height_px=400), [Fold(top_px=200, height_px=100)])
    rendering = Rendering(source, Cut(frame=frame), RenderRules(sizing=Sizing(width_px=50)))
    found = list(rendering.on_page(rendering.whole(), 0, 75))  # 150 rows of the frame: 100 above, 50 below
    assert [(box.y_px, box.height_px) for box, _ in found] == [(100, 100), (300, 50)]
    assert sum(share for _, share in found) == pytest.approx(1)
    assert list(rendering.on_page(rendering.whole(), 150, 10)) == []


def test_a_picture_file_is_drawn_as_the_strips_of_the_same_pixels(tmp_path: Path) -> None:
    page = photograph(120, 300)
    (tmp_path / "page.png").write_bytes(as_png(page))
    folder = tmp_path / "capture"
    folder.mkdir()
    cut = Cut(
        frame=Frame.of(Box(x_px=9, y_px=30, width_px=90, height_px=200), [Fold(top_px=80, height_px=40)])
    )
    rules = RenderRules(sizing=Sizing(way="pad", width_px=60, height_px=80), background=(20, 40, 60))
    strips, file = CaptureSource(folder, strips_of(page, folder)), PictureSource(tmp_path / "page.png")
    first, second = (Rendering(source, cut, rules) for source in (strips, file))
    assert first.source.size == second.source.size == Size(width_px=120, height_px=300)
    assert_same_pixels(_pixels(first.draw(first.whole())), _pixels(second.draw(second.whole())))


def test_places_that_take_no_transparency_get_it_over_their_ground(tmp_path: Path) -> None:
    clear = np.dstack([photograph(40, 40), np.zeros((40, 40), np.uint8)])
    (tmp_path / "clear.png").write_bytes(as_png(clear))
    source = PictureSource(tmp_path / "clear.png")
    rules = RenderRules(sizing=Sizing(width_px=40), flattened=True, background=(200, 10, 30))
    rendering = Rendering(source, Cut.whole(source.size), rules)
    assert (_pixels(rendering.draw(rendering.whole())) == (200, 10, 30)).all()


def test_what_cannot_be_drawn_is_refused_in_words(tmp_path: Path) -> None:
    source = CaptureSource(tmp_path, strips_of(gradient(50, 200), tmp_path))
    outside = Cut(frame=Frame.of(Box(x_px=0, y_px=150, width_px=50, height_px=100)))
    rendering = Rendering(source, outside, OWN_SIZE)
    with pytest.raises(FrameError):
        rendering.draw(rendering.whole())
    low = Rendering(
        source, Cut.whole(source.size), RenderRules(sizing=Sizing(width_px=50), greatest_height_px=90)
    )
    with pytest.raises(FitError) as refused:
        low.draw(low.whole())
    assert refused.value.code == "output_too_high"
    assert "90 px" in refused.value.hint
    with pytest.raises(FitError) as refused:
        RenderRules(sizing=Sizing(width_px=50), leaf_count=1_000)
    assert refused.value.code == "leaves_too_many"
