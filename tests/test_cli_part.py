"""Parts of pictures by the command line: what is asked for, to the px, or a line that says what is wrong."""

import json
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image
from typer.testing import CliRunner

from tallpage.cli import app
from tallpage.core.cut import CORNERS, Corner, anchored_box
from tallpage.core.geometry import Box, Size
from tallpage.core.picture import Raster
from tallpage.core.turning import find_angle
from tests.command import read_answer
from tests.pictures import Pixels, as_png, decoded, photograph, text_page

PAGE = photograph(300, 500)


@pytest.fixture(scope="module")
def picture(tmp_path_factory: pytest.TempPathFactory) -> Path:
    path = tmp_path_factory.mktemp("page") / "page.png"
    path.write_bytes(as_png(PAGE))
    return path


def _cut(picture: Path, out: Path, *options: str) -> Any:
    return CliRunner().invoke(app, ["cut", str(picture), "--out", str(out), *options])


def _pixels(picture: Path, folder: Path, *options: str) -> Pixels:
    run = _cut(picture, folder / "out.png", *options)
    assert run.exit_code == 0, run.output
    return decoded((folder / "out.png").read_bytes())


def test_a_box_is_counted_from_where_it_is_said(picture: Path, tmp_path: Path) -> None:
    box = ["--box", "10,20,100,80"]
    assert (_pixels(picture, tmp_path, *box) == PAGE[20:100, 10:110]).all()
    assert (_pixels(picture, tmp_path, *box, "--from", "top-right") == PAGE[20:100, 190:290]).all()
    assert (_pixels(picture, tmp_path, *box, "--from", "bottom-right") == PAGE[400:480, 190:290]).all()
    assert (_pixels(picture, tmp_path, *box, "--from", "centre") == PAGE[230:310, 110:210]).all()
    assert (_pixels(picture, tmp_path, *box, "--from", "bottom") == PAGE[400:480, 110:210]).all()


@given(st.sampled_from(CORNERS), st.integers(1, 40), st.integers(1, 30), st.integers(0, 8), st.integers(0, 8))
def test_the_same_corner_is_always_as_far_inwards(
    corner: Corner, width: int, height: int, x: int, y: int
) -> None:
    page = Size(width_px=100, height_px=90)
    box = anchored_box(page, corner, x, y, Size(width_px=width, height_px=height))
    assert box.lies_on(page)
    assert box.size == Size(width_px=width, height_px=height)
    if "left" in corner:
        assert box.x_px == x
    elif "right" in corner:
        assert page.width_px - box.right_px == x
    else:
        assert abs(2 * box.x_px + width - page.width_px - 2 * x) <= 1
    if "top" in corner:
        assert box.y_px == y
    elif "bottom" in corner:
        assert page.height_px - box.bottom_px == y


def test_a_picture_is_turned_before_its_box_is_counted(picture: Path, tmp_path: Path) -> None:
    sideways = np.rot90(PAGE, -1)
    assert (_pixels(picture, tmp_path, "--turn", "90") == sideways).all()
    assert (_pixels(picture, tmp_path, "--turn", "90", "--box", "7,9,400,90") == sideways[9:99, 7:407]).all()
    assert (_pixels(picture, tmp_path, "--mirror", "--turn", "180") == PAGE[::-1]).all()
    assert _pixels(picture, tmp_path, "--angle", "10").shape[:2] == (545, 383)


def test_a_colour_becomes_transparent(tmp_path: Path) -> None:
    rows = np.full((80, 120, 3), (240, 238, 230), dtype=np.uint8)
    rows[20:60, 30:90] = 40, 90, 140
    (tmp_path / "sign.png").write_bytes(as_png(rows))
    assert _cut(tmp_path / "sign.png", tmp_path / "out.png", "--clear", "#f0eee6,4").exit_code == 0
    found = np.asarray(Image.open(tmp_path / "out.png"))
    assert found.shape == (80, 120, 4)
    assert not found[:20, :, 3].any()
    assert (found[20:60, 30:90] == (40, 90, 140, 255)).all()
    trimmed = _pixels(tmp_path / "sign.png", tmp_path, "--clear", "#f0eee6,4", "--trim")
    assert trimmed.shape == (40, 60, 3)


def test_a_scan_is_straightened_by_itself_and_a_level_page_stays(tmp_path: Path) -> None:
    page = tmp_path / "level.png"
    page.write_bytes(as_png(text_page(600, 800)))
    slanted = Image.fromarray(text_page(600, 800)).rotate(4, Image.Resampling.BICUBIC, fillcolor="#f4f4f0")
    slanted.save(tmp_path / "scan.png")
    assert (_pixels(page, tmp_path, "--straighten") == text_page(600, 800)).all()
    straight = _pixels(tmp_path / "scan.png", tmp_path, "--straighten")
    by_hand = _pixels(tmp_path / "scan.png", tmp_path, "--angle", "4")
    assert np.abs(np.subtract(straight.shape, by_hand.shape)).max() <= 6
    assert find_angle(Raster.from_rows(straight)) == 0


def test_folds_trim_tone_and_share_come_together(picture: Path, tmp_path: Path) -> None:
    folded = _pixels(picture, tmp_path, "--fold", "100,50", "--fold", "300,100")
    assert (folded == np.concatenate([PAGE[:100], PAGE[150:300], PAGE[400:]])).all()
    both = _pixels(picture, tmp_path, "--fold", "0,50", "--fold-down", "30,70", "--fold-down", "250,50")
    assert (both == PAGE[50:, np.r_[0:30, 100:250]]).all()
    inverted = _pixels(picture, tmp_path, "--invert", "--box", "0,0,300,100")
    assert (inverted == 255 - PAGE[:100]).all()
    grey = _pixels(picture, tmp_path, "--grey", "--percent", "50").astype(int)
    assert grey.shape[:2] == (250, 150)
    assert np.ptp(grey, axis=2).max() == 0
    framed = np.full((700, 500, 3), 255, dtype=np.uint8)
    framed[80:580, 60:360] = PAGE
    (tmp_path / "framed.png").write_bytes(as_png(framed))
    assert (_pixels(tmp_path / "framed.png", tmp_path, "--trim") == PAGE).all()


def test_options_go_before_the_file_of_a_cut(picture: Path, tmp_path: Path) -> None:
    document = {
        "version": 1,
        "frame": {"x_px": 0, "y_px": 0, "width_px": 50, "height_px": 60},
        "tone": {"invert": True},
    }
    (tmp_path / "cut.json").write_text(json.dumps(document))
    given = ["--cut", str(tmp_path / "cut.json")]
    assert (_pixels(picture, tmp_path, *given) == 255 - PAGE[:60, :50]).all()
    assert (_pixels(picture, tmp_path, *given, "--box", "5,6,20,30") == 255 - PAGE[6:36, 5:25]).all()


@pytest.mark.parametrize("extension", ["png", "jpg", "JPEG", "webp", "avif"])
def test_the_extension_decides_the_format(picture: Path, tmp_path: Path, extension: str) -> None:
    out = tmp_path / f"part.{extension}"
    run = _cut(picture, out, "--box", "0,0,80,60", "--json")
    assert run.exit_code == 0, run.output
    assert read_answer("cut", run.stdout) == {
        "file": str(out),
        "width": 80,
        "height": 60,
        "bytes": out.stat().st_size,
    }
    apart = np.abs(decoded(out.read_bytes()).astype(int) - PAGE[:60, :80].astype(int))
    assert apart.mean() < 6


@pytest.mark.parametrize(
    ("out", "options", "said"),
    [
        ("a.gif", [], "png, jpg, jpeg, webp, avif"),
        ("a", [], "says no format"),
        ("a.png", ["--box", "1,2,3"], "X,Y,WIDTH,HEIGHT"),
        ("a.png", ["--box", "0,0,1e9,3"], "X,Y,WIDTH,HEIGHT"),
        ("a.png", ["--box", "0,0,0,5"], "shows nothing"),
        ("a.png", ["--box", "0,0,301,5"], "does not lie on the picture"),
        ("a.png", ["--box=-1,0,30,5"], "does not lie on the picture"),
        ("a.png", ["--from", "centre"], "Give --box"),
        ("a.png", ["--turn", "45"], "--angle"),
        ("a.png", ["--angle", "1e9"], "no angle between -180 and 180"),
        ("a.png", ["--angle", "nan"], "no angle between -180 and 180"),
        ("a.png", ["--angle", "3", "--straighten"], "Leave out --angle"),
        ("a.png", ["--turn", "90", "--box", "0,0,300,500"], "does not lie on the picture of 500 × 300"),
        ("a.png", ["--clear", "white"], "Write it like #ffffff"),
        ("a.png", ["--clear", "#ffffff,255"], "from 0 to 254"),
        ("a.png", ["--clear", "#808080,254"], "nothing would be left"),
        ("a.png", ["--fold", "12"], "TOP,HEIGHT"),
        ("a.png", ["--fold", "12,0"], "folds nothing"),
        ("a.png", ["--fold-down", "12"], "LEFT,WIDTH"),
        ("a.png", ["--fold-down", "-1,9"], "folds nothing"),
        ("a.png", ["--fold-down", "0,300"], "Nothing of the frame"),
        ("a.png", ["--fold", "0,500"], "folds"),
    ],
)
def test_what_is_wrong_is_one_line(
    picture: Path, tmp_path: Path, out: str, options: list[str], said: str
) -> None:
    run = _cut(picture, tmp_path / out, *options)
    assert run.exit_code in (1, 2), run.output
    assert said in run.stderr
    assert run.stderr.count("\n") == 1
    assert not list(tmp_path.iterdir())


def test_a_tall_part_of_a_format_that_is_not_so_high_is_refused_in_words(tmp_path: Path) -> None:
    tall = np.full((17_000, 8, 3), 200, dtype=np.uint8)
    (tmp_path / "tall.png").write_bytes(as_png(tall))
    run = _cut(tmp_path / "tall.png", tmp_path / "out.webp")
    assert run.exit_code == 1
    assert "16,383" in run.stderr
    assert not (tmp_path / "out.webp").exists()


def test_fit_takes_the_same_part(picture: Path, tmp_path: Path) -> None:
    options = ["--box", "0,0,100,80", "--from", "right", "--grey", "--limit", "1MB", "--formats", "png"]
    run = CliRunner().invoke(app, ["fit", str(picture), "--out", str(tmp_path / "out"), *options])
    assert run.exit_code == 0, run.output
    drawn = decoded((tmp_path / "out.png").read_bytes()).astype(int)
    assert drawn.shape[:2] == (80, 100)
    assert np.ptp(drawn, axis=2).max() == 0
    box = anchored_box(Size(width_px=300, height_px=500), "right", 0, 0, Size(width_px=100, height_px=80))
    assert box == Box(x_px=200, y_px=210, width_px=100, height_px=80)
