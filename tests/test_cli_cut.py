"""Cuts by the command line: all documents of the description are drawn; what is wrong is said by place."""

import base64
import json
import re
import struct
import zlib
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from typer.testing import CliRunner

from tallpage.cli import app
from tests.long import long_but
from tests.pictures import Pixels, as_png, decoded, text_page

DESCRIPTION = Path(__file__).resolve().parent.parent / "docs" / "cut-file.md"
DOCUMENTS = re.findall(r"```json\n(.*?)```", DESCRIPTION.read_text("utf-8"), re.S)
WHOLE = {"x_px": 0, "y_px": 0, "width_px": 1_280, "height_px": 2_400}


@pytest.fixture(scope="module")
def picture(tmp_path_factory: pytest.TempPathFactory) -> Path:
    path = tmp_path_factory.mktemp("page") / "page.png"
    path.write_bytes(as_png(text_page(1_280, 2_400)))
    return path


def _fit(picture: Path, folder: Path, document: str | dict[str, Any]) -> Any:
    cut = folder / "cut.json"
    cut.write_text(document if isinstance(document, str) else json.dumps(document))
    wanted = ["--width", "640", "--limit", "2MB", "--formats", "png", "--out", str(folder / "out")]
    return CliRunner().invoke(app, ["fit", str(picture), *wanted, "--cut", str(cut), "--json"])


def _pixels(picture: Path, folder: Path, document: str | dict[str, Any]) -> Pixels:
    run = _fit(picture, folder, document)
    assert run.exit_code == 0, run.output
    return decoded((folder / "out.png").read_bytes())


@pytest.mark.parametrize("document", long_but(DOCUMENTS[::8], DOCUMENTS), ids=range(len(DOCUMENTS)))
def test_every_document_of_the_description_is_drawn(picture: Path, tmp_path: Path, document: str) -> None:
    drawn = _pixels(picture, tmp_path, document)
    assert drawn.shape[1] == 640
    plain = decoded(picture.read_bytes())
    half = plain.reshape(1_200, 2, 640, 2, 3).mean(axis=(1, 3))
    seen = drawn[: len(half)].astype(float)
    assert seen.shape != half.shape or np.abs(seen - half[: len(seen)]).max() > 60


def test_the_description_shows_every_kind() -> None:
    found = [json.loads(document) for document in DOCUMENTS]
    kinds = {mark["kind"] for document in found for mark in document.get("marks", [])}
    ways = {area["how"] for document in found for area in document.get("hidden", [])}
    dressings = {name for document in found for name in document.get("dressing", {})}
    assert kinds == {
        "arrow", "line", "box", "ellipse", "pen", "highlighter", "text", "dim", "badge", "sticker",
    }  # fmt: skip
    assert ways == {"solid", "pixelate", "blur", "patch"}
    assert dressings == {
        "caption", "border", "corner_px", "shadow", "torn", "room", "background", "stamp",
    }  # fmt: skip


BADGE = {"kind": "badge", "x_px": 20, "y_px": 20}
BOX = {"kind": "box", "x_px": 1, "y_px": 1, "width_px": 5, "height_px": 5}


@pytest.mark.parametrize(
    ("part", "place"),
    [
        ({"marks": [BADGE, BADGE, BADGE, {**BOX, "width_px": -4}]}, "marks[3].width_px: "),
        ({"marks": [BADGE, {**BOX, "colour": "#123456"}]}, "marks[1].colour: "),
        ({"marks": [{"kind": "box", "x_px": 1}]}, "marks[0].y_px: "),
        ({"marks": [{"kind": "cloud"}]}, "marks[0].kind: "),
        ({"marks": [{"x_px": 3}]}, "marks[0].kind: "),
        ({"marks": ["badge"]}, "marks[0]: "),
        ({"marks": [BADGE] * 10_000}, "marks: "),
        ({"marks": [{**BADGE, "filling": "red"}]}, "marks[0].filling: "),
        ({"marks": [{**BADGE, "style": "loud"}]}, "marks[0].style: "),
        ({"marks": [{**BADGE, "id": "a"}, {**BADGE, "id": "a"}]}, "marks[1].id: "),
        ({"marks": [{"kind": "pen", "points": [[1, 2], [3]]}]}, "marks[0].points[1]"),
        ({"marks": [{**BOX, "kind": "sticker", "picture": "logo"}]}, "marks[0].picture: "),
        ({"marks": [{**BOX, "kind": "sticker", "sign": "logo"}]}, "marks[0].sign: "),
        ({"marks": [{"kind": "text", "x_px": 1, "y_px": 1, "text": "x" * 100_000}]}, "marks[0].text: "),
        ({"pictures": {"logo": "PHN2Zz48L3N2Zz4="}}, "pictures.logo: "),
        ({"pictures": {"logo": "no base64!"}}, "pictures.logo: "),
        ({"hidden": [{"how": "solid", "x_px": 0, "y_px": 0, "width_px": 4}]}, "hidden[0].height_px: "),
        ({"hidden": [{"how": "erase", **WHOLE}]}, "hidden[0].how: "),
        ({"dressing": {"caption": {"text": "{author}"}}}, "dressing.caption.text: "),
        ({"dressing": {"border": {"width_px": 0}}}, "dressing.border.width_px: "),
        ({"dressing": {"stamp": {}}}, "dressing.stamp: "),
        ({"dressing": {"stamp": {"picture": "logo"}}}, "dressing.stamp.picture: "),
        ({"marks": [{**BADGE, "letters": "yes"}]}, "marks[0].letters: "),
        ({"mood": {}}, "mood: "),
    ],
)
def test_what_is_wrong_is_one_line_with_its_place(
    picture: Path, tmp_path: Path, part: dict[str, Any], place: str
) -> None:
    run = _fit(picture, tmp_path, {"version": 1, "frame": WHOLE, **part})
    assert run.exit_code == 2
    assert len(run.stderr.splitlines()) == 1
    assert place in run.stderr
    assert not (tmp_path / "out.png").exists()


def test_a_bomb_of_a_picture_is_refused(picture: Path, tmp_path: Path) -> None:
    header = struct.pack(">IIBBBBB", 60_000, 60_000, 8, 6, 0, 0, 0)
    chunks = [(b"IHDR", header), (b"IDAT", zlib.compress(b"\0" * 100)), (b"IEND", b"")]
    bomb = b"\x89PNG\r\n\x1a\n" + b"".join(
        struct.pack(">I", len(data)) + name + data + struct.pack(">I", zlib.crc32(name + data))
        for name, data in chunks
    )
    pictures = {"logo": base64.b64encode(bomb).decode()}
    run = _fit(picture, tmp_path, {"version": 1, "frame": WHOLE, "pictures": pictures})
    assert run.exit_code == 2
    assert "pictures.logo: The picture has 3,600,000,000 pixels" in run.stderr


def test_marks_beside_the_page_and_absurd_ones_do_no_harm(picture: Path, tmp_path: Path) -> None:
    marks = [
        {**BOX, "x_px": -900_000, "y_px": -900_000, "width_px": 5},
        {**BOX, "x_px": 10, "y_px": 10, "width_px": 900_000, "height_px": 900_000, "outline_px": 500},
        {"kind": "arrow", "from_x_px": 5, "from_y_px": 5, "to_x_px": 5, "to_y_px": 5, "thickness_px": 500},
        {"kind": "text", "x_px": 5, "y_px": 5, "text": "", "size_px": 1_000},
        {"kind": "text", "x_px": 5, "y_px": 5, "text": "שלום 😀 𓀀\n" * 50, "size_px": 4},
        {"kind": "pen", "points": [[7, 7]]},
        {**BADGE, "caption": "Choose the day."},
    ]
    run = _fit(picture, tmp_path, {"version": 1, "frame": WHOLE, "marks": marks})
    assert run.exit_code == 0, run.output
    assert json.loads(run.stdout)["letters_missing"] == "𓀀"
    assert json.loads(run.stdout)["captions"] == "1. Choose the day.\n"
