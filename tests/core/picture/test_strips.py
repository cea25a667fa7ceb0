from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tallpage.core.errors import FrameError, PictureUnreadable
from tallpage.core.geometry import Box
from tallpage.core.picture import StripManifest, StripWriter, encode_png, strips_so_far
from tallpage.core.render import save_joined_png, squeezed, strip_view, thumbnail, whole_page
from tests.pictures import (
    as_png,
    assert_close,
    assert_same_pixels,
    decoded,
    gradient,
    rendered,
    strips_of,
)


@given(st.data())
def test_a_frame_at_its_own_width_is_exactly_its_pixels(
    tmp_path_factory: pytest.TempPathFactory, data: st.DataObject
) -> None:
    width, height = data.draw(st.integers(1, 40)), data.draw(st.integers(1, 130))
    pixels = gradient(width, height)
    folder = tmp_path_factory.mktemp("capture")
    manifest = strips_of(pixels, folder, strip_px=data.draw(st.integers(1, 50)))
    x, y = data.draw(st.integers(0, width - 1)), data.draw(st.integers(0, height - 1))
    w, h = data.draw(st.integers(1, width - x)), data.draw(st.integers(1, height - y))
    cut = rendered(folder, manifest, Box(x_px=x, y_px=y, width_px=w, height_px=h), width_px=w)
    assert_same_pixels(cut.rows(0, h), pixels[y : y + h, x : x + w])


def test_only_the_strips_under_a_frame_are_read(tmp_path: Path) -> None:
    manifest = strips_of(gradient(20, 100), tmp_path, strip_px=10)
    for number in (0, 1, 2, 6, 7, 8, 9):
        (tmp_path / f"{number:04d}.png").unlink()
    frame = Box(x_px=0, y_px=30, width_px=20, height_px=30)
    assert_same_pixels(rendered(tmp_path, manifest, frame, width_px=20).rows(0, 30), gradient(20, 100)[30:60])


@pytest.mark.parametrize("width_px", [1, 7, 33, 64, 65, 200])
def test_a_cut_comes_out_at_exactly_the_width_asked_for(tmp_path: Path, width_px: int) -> None:
    manifest = strips_of(gradient(65, 333), tmp_path, strip_px=100)
    frame = Box.whole(manifest.size)
    cut = rendered(tmp_path, manifest, frame, width_px=width_px)
    assert cut.size == manifest.size.at_width(width_px)
    assert decoded(encode_png(cut)).shape[:2] == (cut.size.height_px, width_px)


def test_a_frame_outside_the_capture_is_refused(tmp_path: Path) -> None:
    manifest = strips_of(gradient(20, 20), tmp_path)
    with pytest.raises(FrameError):
        rendered(tmp_path, manifest, Box(x_px=1, y_px=0, width_px=20, height_px=5), width_px=10)


def test_a_capture_can_be_written_as_one_file_whatever_its_name(tmp_path: Path) -> None:
    pixels = gradient(30, 95)
    manifest = strips_of(pixels, tmp_path / "capture", strip_px=40)
    path = tmp_path / "a[strip=1].png"
    assert save_joined_png(tmp_path / "capture", manifest, path) == path.stat().st_size
    assert_same_pixels(decoded(path.read_bytes()), pixels)
    assert [row.name for row in tmp_path.iterdir() if row.is_file()] == [path.name]


def test_a_manifest_reads_back_as_it_was_written(tmp_path: Path) -> None:
    manifest = strips_of(gradient(8, 25), tmp_path, strip_px=10)
    assert StripManifest.load(tmp_path) == manifest
    assert [strip.height_px for strip in manifest.strips] == [10, 10, 5]
    assert whole_page(tmp_path, manifest).size == manifest.size


@pytest.mark.parametrize("text", ["", "{}", "[]", '{"strips": 3}'])
def test_a_damaged_manifest_says_so(tmp_path: Path, text: str) -> None:
    (tmp_path / "manifest.json").write_text(text)
    with pytest.raises(PictureUnreadable) as refused:
        StripManifest.load(tmp_path)
    assert refused.value.code == "strips_missing"


def test_a_strip_of_another_size_than_said_is_refused(tmp_path: Path) -> None:
    writer = StripWriter(tmp_path, width_px=20)
    with pytest.raises(PictureUnreadable, match="19 × 10 px instead of 20 × 10 px"):
        writer.add(as_png(gradient(19, 10)), height_px=10)
    with pytest.raises(PictureUnreadable):
        writer.add(b"not a picture", height_px=10)
    assert not list(tmp_path.iterdir())


def test_a_damaged_strip_is_an_error_and_not_grey_rows(tmp_path: Path) -> None:
    manifest = strips_of(gradient(200, 200), tmp_path)
    path = tmp_path / "0000.png"
    path.write_bytes(path.read_bytes()[: path.stat().st_size // 2])
    with pytest.raises(PictureUnreadable) as refused:
        encode_png(whole_page(tmp_path, manifest))
    assert refused.value.code == "picture_damaged"


def test_thumbnail_spine_and_view_keep_proportions(tmp_path: Path) -> None:
    pixels = gradient(100, 900)
    manifest = strips_of(pixels, tmp_path, strip_px=300)
    assert decoded(thumbnail(tmp_path, manifest, width_px=50, greatest_height_px=200)).shape == (200, 50, 3)
    assert decoded(squeezed(tmp_path, manifest, width_px=20, greatest_height_px=60)).shape == (60, 20, 3)
    assert decoded(squeezed(tmp_path, manifest, width_px=20, greatest_height_px=999)).shape == (180, 20, 3)
    view = decoded(strip_view(tmp_path, manifest, 1, shrink=4))
    assert view.shape == (75, 25, 3)


def test_a_flat_page_stays_its_colour_at_any_size(tmp_path: Path) -> None:
    pixels = gradient(64, 64)
    pixels[:] = (31, 92, 77)
    manifest = strips_of(pixels, tmp_path)
    cut = rendered(tmp_path, manifest, Box.whole(manifest.size), width_px=23)
    assert_close(decoded(encode_png(cut)), pixels[:23, :23], mean=0)


@given(st.lists(st.integers(1, 40), min_size=1, max_size=8))
def test_strips_of_any_heights_join_without_gaps(
    tmp_path_factory: pytest.TempPathFactory, heights: list[int]
) -> None:
    pixels = gradient(7, sum(heights))
    folder = tmp_path_factory.mktemp("capture")
    writer, top = StripWriter(folder, width_px=7), 0
    for height in heights:
        writer.add(as_png(pixels[top : top + height]), height_px=height)
        top += height
    assert_same_pixels(whole_page(folder, writer.finish()).rows(0, top), pixels)


def test_what_is_there_can_be_looked_at_before_all_is(tmp_path: Path) -> None:
    assert strips_so_far(tmp_path) is None
    writer = StripWriter(tmp_path, width_px=7)
    for height in (9, 4):
        writer.add(as_png(gradient(7, height)), height_px=height)
    so_far = strips_so_far(tmp_path)
    assert so_far is not None
    assert (so_far.width_px, so_far.height_px, len(so_far.strips)) == (7, 13, 2)
    assert so_far == writer.finish()
