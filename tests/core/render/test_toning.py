"""The tone of a file's pixels: as a browser's filters have it, and nothing else is touched."""

from pathlib import Path
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tallpage.core.cut import Cut, Frame
from tallpage.core.geometry import Box
from tallpage.core.picture import Raster
from tallpage.core.render import CaptureSource, Rendering, RenderRules
from tallpage.core.render.frame._toning import toned
from tallpage.core.sizing import Sizing
from tallpage.core.tone import Tone
from tests.pictures import Pixels, photograph, strips_of

COLOURS = np.random.default_rng(3).integers(0, 256, (20, 30, 4), dtype=np.uint8)


def _toned(rows: Pixels, **tone: Any) -> Pixels:
    raster = toned(Raster.from_rows(rows), Tone(**tone))
    return raster.rows(0, rows.shape[0])


@given(st.floats(0.1, 4), st.floats(0.1, 4), st.booleans(), st.none() | st.integers(1, 255), st.booleans())
def test_each_px_is_what_the_arithmetic_says(
    brightness: float, contrast: float, grey: bool, threshold: int | None, invert: bool
) -> None:
    tone = {
        "brightness": brightness,
        "contrast": contrast,
        "grey": grey,
        "threshold": threshold,
        "invert": invert,
    }
    expected = np.clip(COLOURS[:, :, :3] * brightness, 0, 255).round()
    expected = np.clip((expected - 127.5) * contrast + 127.5, 0, 255).round()
    luminance = (expected @ [0.2126, 0.7152, 0.0722])[:, :, None]
    near_the_threshold = np.zeros(luminance.shape, dtype=bool)
    if threshold is not None:
        near_the_threshold = np.abs(luminance.round() - threshold) < 1
        expected = np.where(luminance.round() >= threshold, 255.0, 0.0).repeat(3, axis=2)
    elif grey:
        expected = luminance.repeat(3, axis=2)
    if invert:
        expected = 255 - expected
    drawn = _toned(COLOURS, **tone)
    apart = np.abs(drawn[:, :, :3] - expected)
    assert apart[~near_the_threshold.repeat(3, axis=2)].max(initial=0) <= 1
    assert (drawn[:, :, 3] == COLOURS[:, :, 3]).all()


def test_black_and_white_are_the_only_colours_of_a_file_that_is_made_smaller(tmp_path: Path) -> None:
    drawn = _file(tmp_path, Tone(threshold=120), Sizing(width_px=170))
    assert set(np.unique(drawn)) == {0, 255}


@pytest.mark.parametrize("height_px", [300, 5_000])
def test_what_is_around_the_page_keeps_its_colour(tmp_path: Path, height_px: int) -> None:
    sizing = Sizing(way="pad", width_px=400, height_px=height_px)
    source = _source(tmp_path, height_px)
    cut = Cut(frame=Frame.of(Box.whole(source.size)), tone=Tone(invert=True))
    rendering = Rendering(source, cut, RenderRules(sizing=sizing, background=(9, 120, 200)))
    drawn = rendering.draw(rendering.whole()).rows(0, height_px)
    plan = rendering.plan(rendering.whole()).picture
    assert plan.width_px < 400
    assert (drawn[:, : plan.x_px] == (9, 120, 200)).all()
    plain = Rendering(source, Cut(frame=cut.frame), rendering.rules)
    before = plain.draw(plain.whole()).rows(0, height_px)
    inside = slice(plan.x_px, plan.right_px)
    assert (drawn[:, inside].astype(int) == 255 - before[:, inside].astype(int)).all()


def test_marks_keep_their_colours(tmp_path: Path) -> None:
    document = {
        "version": 1,
        "frame": {"x_px": 0, "y_px": 0, "width_px": 340, "height_px": 300},
        "tone": {"grey": True},
        "marks": [
            {
                "kind": "box",
                "x_px": 50,
                "y_px": 50,
                "width_px": 80,
                "height_px": 60,
                "filling": "#FF0000",
                "outline_px": 0,
            }
        ],
    }
    source = _source(tmp_path, 300)
    rendering = Rendering(source, Cut.from_json(document), RenderRules(sizing=Sizing(width_px=340)))
    drawn = rendering.draw(rendering.whole()).rows(0, 300).astype(int)
    assert (drawn[52:108, 52:128] == (255, 0, 0)).all()
    assert np.ptp(drawn[:, 200:], axis=2).max() <= 1


def _source(folder: Path, height_px: int) -> CaptureSource:
    return CaptureSource(folder, strips_of(photograph(340, height_px), folder, strip_px=2_048))


def _file(folder: Path, tone: Tone, sizing: Sizing) -> Pixels:
    source = _source(folder, 300)
    rendering = Rendering(
        source, Cut(frame=Frame.of(Box.whole(source.size)), tone=tone), RenderRules(sizing=sizing)
    )
    raster = rendering.draw(rendering.whole())
    return raster.rows(0, raster.size.height_px)
