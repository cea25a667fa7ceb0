import io
from pathlib import Path

import numpy as np
import pytest
from PIL import Image, ImageCms

from tallpage.core.errors import PictureTooLarge, PictureUnreadable
from tallpage.core.picture import check_picture, import_picture
from tallpage.core.render import whole_page
from tests.pictures import as_png, assert_close, assert_same_pixels, gradient, lying_png, photograph


def _imported(data: bytes, tmp_path: Path) -> np.ndarray:
    path, folder = tmp_path / "upload", tmp_path / "capture"
    path.write_bytes(data)
    folder.mkdir()
    manifest = import_picture(path, folder)
    return whole_page(folder, manifest).rows(0, manifest.height_px)


def test_a_png_comes_in_to_the_last_bit_across_strips(tmp_path: Path) -> None:
    pixels = gradient(37, 5_000)
    assert_same_pixels(_imported(as_png(pixels), tmp_path), pixels)


def test_a_colour_profile_is_worked_in(tmp_path: Path) -> None:
    swapped = bytearray(ImageCms.ImageCmsProfile(ImageCms.createProfile("sRGB")).tobytes())
    # In the tag table the primaries change places: what is stored as red is meant as green.
    red, green = swapped.index(b"rXYZ"), swapped.index(b"gXYZ")
    swapped[red : red + 4], swapped[green : green + 4] = b"gXYZ", b"rXYZ"
    pixels = np.zeros((4, 4, 3), dtype=np.uint8)
    pixels[..., 0] = 255
    buffer = io.BytesIO()
    Image.fromarray(pixels).save(buffer, "PNG", icc_profile=bytes(swapped))
    assert_same_pixels(_imported(buffer.getvalue(), tmp_path), pixels[..., [1, 0, 2]])


@pytest.mark.parametrize("format_name", ["JPEG", "WEBP", "AVIF", "TIFF", "GIF"])
def test_other_formats_come_in(tmp_path: Path, format_name: str) -> None:
    pixels = photograph(120, 90)
    buffer = io.BytesIO()
    Image.fromarray(pixels).save(buffer, format_name, quality=95)
    assert_close(_imported(buffer.getvalue(), tmp_path), pixels, mean=8)


def test_grey_sixteen_bit_and_transparent_pictures_become_plain_ones(tmp_path: Path) -> None:
    grey = Image.new("L", (9, 7), 128)
    clear = Image.new("RGBA", (9, 7), (10, 20, 30, 77))
    deep = Image.fromarray(np.full((7, 9), 32_896, dtype=np.uint16))
    for number, (picture, expected) in enumerate(
        [(grey, (128, 128, 128)), (clear, (10, 20, 30, 77)), (deep, (128, 128, 128))]
    ):
        buffer = io.BytesIO()
        picture.save(buffer, "PNG")
        folder = tmp_path / str(number)
        folder.mkdir()
        assert tuple(_imported(buffer.getvalue(), folder)[3, 4]) == pytest.approx(expected, abs=1)


def test_a_picture_is_turned_upright(tmp_path: Path) -> None:
    picture = Image.new("RGB", (40, 10), (200, 0, 0))
    exif = Image.Exif()
    exif[0x0112] = 6  # to be turned a quarter clockwise
    buffer = io.BytesIO()
    picture.save(buffer, "JPEG", exif=exif)
    assert _imported(buffer.getvalue(), tmp_path).shape == (40, 10, 3)


@pytest.mark.parametrize(
    "data",
    [
        b"",
        b"hello, I am not a picture",
        b"<svg xmlns='http://www.w3.org/2000/svg'/>",
        b"%PDF-1.4\n",
        b"\x89PNG\r\n",
    ],
)
def test_what_is_not_a_picture_is_refused(tmp_path: Path, data: bytes) -> None:
    path = tmp_path / "upload"
    path.write_bytes(data)
    with pytest.raises(PictureUnreadable):
        check_picture(path)


@pytest.mark.parametrize("share", [0.3, 0.9])
def test_a_truncated_picture_is_refused_and_nothing_of_it_is_kept(tmp_path: Path, share: float) -> None:
    for number, format_name in enumerate(["PNG", "JPEG"]):
        buffer = io.BytesIO()
        Image.fromarray(photograph(300, 200)).save(buffer, format_name)
        folder = tmp_path / f"{number}-{share}"
        folder.mkdir()
        with pytest.raises(PictureUnreadable):
            _imported(buffer.getvalue()[: int(buffer.tell() * share)], folder)
        assert not list((folder / "capture").iterdir())


def test_a_picture_claiming_too_much_is_refused_by_its_header(tmp_path: Path) -> None:
    path = tmp_path / "upload"
    path.write_bytes(lying_png(60_000, 60_000))
    with pytest.raises(PictureTooLarge, match="60,000 × 60,000"):
        check_picture(path)


def test_a_picture_claiming_more_than_it_holds_is_refused_when_decoded(tmp_path: Path) -> None:
    with pytest.raises(PictureUnreadable):
        _imported(lying_png(400, 400), tmp_path)
