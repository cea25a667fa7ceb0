"""Folds both ways, their seams, and free outlines, in pixels."""

from pathlib import Path

import numpy as np
import pytest

from tallpage.core.cut import Cut, Fold, FoldDown, Frame
from tallpage.core.cut.models import PartsFile
from tallpage.core.errors import FrameError
from tallpage.core.geometry import Box
from tallpage.core.render import CaptureSource, Rendering, RenderRules
from tallpage.core.sizing import Sizing
from tests.pictures import Pixels, assert_same_pixels, strips_of, text_page

PAGE = text_page(300, 400)
WHOLE = Box(x_px=0, y_px=0, width_px=300, height_px=400)
BLOB = [(60, 40), (240, 60), (200, 300), (90, 340)]


def _drawn(folder: Path, frame: Frame, *, width_px: int | None = None, **parts: object) -> Pixels:
    source = CaptureSource(folder, strips_of(PAGE, folder, strip_px=128))
    cut = Cut(frame=frame, **PartsFile.model_validate(parts).parts())
    rules = RenderRules(sizing=Sizing(width_px=width_px or frame.size.width_px))
    rendering = Rendering(source, cut, rules)
    rendering.require_seen()
    raster = rendering.draw(rendering.whole())
    return raster.rows(0, raster.size.height_px)


def test_folds_across_and_down_leave_the_rest_where_it_meets(tmp_path: Path) -> None:
    folds = [Fold(top_px=30, height_px=50), Fold(top_px=150, height_px=100)]
    down = [FoldDown(left_px=0, width_px=20), FoldDown(left_px=90, width_px=111)]
    shown = _drawn(tmp_path, Frame.of(WHOLE, folds, down))
    kept = np.delete(np.delete(PAGE, np.r_[30:80, 150:250], axis=0), np.r_[0:20, 90:201], axis=1)
    assert_same_pixels(shown, kept)


def test_a_hairline_says_where_something_was_left_out(tmp_path: Path) -> None:
    frame = Frame.of(WHOLE, [Fold(top_px=100, height_px=50)], [FoldDown(left_px=200, width_px=50)])
    plain = _drawn(tmp_path / "plain", frame)
    lined = _drawn(tmp_path / "lined", frame, seam={"look": "hairline", "colour": "#C02030"})
    changed = (plain != lined).any(axis=2)
    assert (lined[99] == (0xC0, 0x20, 0x30)).all()
    assert (lined[:, 199] == (0xC0, 0x20, 0x30)).all()
    changed[99] = changed[:, 199] = False
    assert not changed.any()


@pytest.mark.parametrize("width_px", [250, 125, 100])
def test_torn_edges_are_as_deep_in_every_size_of_file(tmp_path: Path, width_px: int) -> None:
    frame = Frame.of(WHOLE, [Fold(top_px=100, height_px=50)], [FoldDown(left_px=0, width_px=50)])
    plain = _drawn(tmp_path / "plain", frame, width_px=width_px)
    torn = _drawn(tmp_path / "torn", frame, width_px=width_px, seam={"look": "torn", "colour": "#FFD000"})
    rows = np.flatnonzero((plain != torn).any(axis=(1, 2)))
    seam = round(100 * width_px / 250)
    assert 10 <= rows[-1] - rows[0] <= 17
    assert rows[0] < seam <= rows[-1]
    assert (torn[seam] == (0xFF, 0xD0, 0)).all()


def test_a_fold_at_the_edge_of_the_frame_has_no_seam(tmp_path: Path) -> None:
    frame = Frame.of(WHOLE, [Fold(top_px=0, height_px=50), Fold(top_px=390, height_px=50)])
    seam = {"look": "torn"}
    assert_same_pixels(_drawn(tmp_path / "with", frame, seam=seam), _drawn(tmp_path / "without", frame))


@pytest.mark.parametrize("smooth", [False, True])
def test_what_lies_inside_an_outline_is_kept(tmp_path: Path, smooth: bool) -> None:
    frame = Frame.of(WHOLE, [Fold(top_px=100, height_px=50)])
    shown = _drawn(tmp_path, frame, outline={"points": BLOB, "smooth": smooth})
    assert shown.shape == (350, 300, 4)
    inside = shown[..., 3] == 255
    assert_same_pixels(shown[inside][None, :, :3], np.delete(PAGE, np.r_[100:150], axis=0)[inside][None])
    assert inside[60, 150]
    assert not shown[5, :, 3].any()
    # Straight lines enclose 39,100 px, of which 50 rows are folded away; a curve through the corners bulges.
    assert (40_000 if smooth else 30_000) < inside.sum() < (46_000 if smooth else 33_000)


def test_outside_an_outline_there_may_be_a_colour(tmp_path: Path) -> None:
    shown = _drawn(tmp_path, Frame.of(WHOLE), outline={"points": BLOB, "outside": "#123456"})
    assert shown.shape == (400, 300, 3)
    assert (shown[0] == (0x12, 0x34, 0x56)).all()
    assert_same_pixels(shown[180:190, 120:160], PAGE[180:190, 120:160])


def test_a_frame_with_nothing_of_the_outline_is_refused(tmp_path: Path) -> None:
    beside = Frame.of(Box(x_px=0, y_px=360, width_px=300, height_px=40))
    with pytest.raises(FrameError, match="inside the outline"):
        _drawn(tmp_path, beside, outline={"points": BLOB})
