"""PDFs: what is seen, what is read, where links lead, how sheets are divided, what a limit does."""

import json
from dataclasses import replace
from pathlib import Path
from typing import Any

import numpy as np
import pikepdf
import pypdfium2
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tallpage.core.cut import Cut, Fold, Frame, read_cut
from tallpage.core.cut.models import HiddenArea
from tallpage.core.errors import HandOverError
from tallpage.core.geometry import Box, Size
from tallpage.core.page_map import Block, PageMap
from tallpage.core.page_words import Link, PageWords, Word
from tallpage.core.pdf import TALL, PdfMade, PdfOrder, PdfPart, make_pdf, parse_paper
from tallpage.core.pdf._bands import BAND_PX, OVERLAP_PX
from tallpage.core.pdf._paper import GREATEST_SIDE_PT, ground_for
from tallpage.core.render import CaptureSource, Rendering, RenderRules
from tallpage.core.sizing import Sizing
from tests.pictures import Pixels, noise, photograph, strips_of, text_page

WIDTH_PX, HEIGHT_PX = 600, 3_000
RULES = RenderRules(sizing=Sizing(way="share", percent=100), flattened=True)
FACTS = {"title": "Fares – Skerrin", "address": "http://fares.example/", "date": "2026-11-28"}


def box(x_px: int, y_px: int, width_px: int = 80, height_px: int = 16) -> Box:
    return Box(x_px=x_px, y_px=y_px, width_px=width_px, height_px=height_px)


LINES = ("Fares", "Winter", "Crew", "Λιμάνι", "Summer")
"""Each is a word 500 px below the one before, the first of them a heading."""


def part(folder: Path, pixels: Pixels | None = None, cut: Cut | None = None) -> PdfPart:
    page = text_page(WIDTH_PX, HEIGHT_PX) if pixels is None else pixels
    manifest = strips_of(page, folder, strip_px=512)
    heading = Block(role="heading", level=1, box=box(30, 90, 400, 40), text="Fares", link="", alt="")
    PageMap(blocks=(heading,)).save(folder)
    runs = tuple((Word(text, (box(40, 100 + 500 * row),)),) for row, text in enumerate(LINES))
    links = (Link("http://crew.example/?a=1&b=(2)", (box(40, 1_100),)),)
    PageWords(runs=runs, links=links, language="el").save(folder)
    source = CaptureSource(folder, manifest)
    shown = cut or Cut.whole(source.size)
    return PdfPart(rendering=Rendering(source, shown, RULES), title=FACTS["title"], facts=FACTS)


def made(folder: Path, *parts: PdfPart, **order: Any) -> tuple[PdfMade, Path]:
    file = folder / "out.pdf"
    return make_pdf(parts, PdfOrder(**order), file), file


def texts(file: Path) -> list[str]:
    with pypdfium2.PdfDocument(file) as document:
        return [page.get_textpage().get_text_bounded() for page in document]


def seen(file: Path, *, scale: float = 1 / 0.75) -> list[Pixels]:
    with pypdfium2.PdfDocument(file) as document:
        return [page.render(scale=scale).to_numpy()[..., 2::-1] for page in document]


def test_a_tall_page_shows_the_picture_px_by_px_and_says_its_words(tmp_path: Path) -> None:
    pixels = text_page(WIDTH_PX, HEIGHT_PX)
    result, file = made(tmp_path, part(tmp_path / "page", pixels))
    assert (result.sheets, result.met, result.bytes) == (1, True, file.stat().st_size)
    (picture,) = seen(file)
    assert picture.shape[:2] == (HEIGHT_PX, WIDTH_PX)
    assert np.abs(picture.astype(int) - pixels).mean() < 1
    assert texts(file)[0].split() == list(LINES)


def test_words_lie_where_the_page_shows_them(tmp_path: Path) -> None:
    _, file = made(tmp_path, part(tmp_path / "page"), paper=parse_paper("A4"))
    with pypdfium2.PdfDocument(file) as document:
        page = document[0]
        found = page.get_textpage().search("Winter").get_next()
        assert found is not None
        first, last = (
            page.get_textpage().get_charbox(found[0]),
            page.get_textpage().get_charbox(sum(found) - 1),
        )
        height_pt = page.get_height()
    margin_pt, scale = 12 * 72 / 25.4, 0.75
    assert scale * WIDTH_PX < 595 - 2 * margin_pt, "the picture keeps the size it has on a screen"
    assert first[0] == pytest.approx(margin_pt + 40 * scale, abs=1)
    assert last[2] == pytest.approx(margin_pt + 120 * scale, abs=2)
    assert height_pt - first[1] == pytest.approx(margin_pt + 616 * scale, abs=8)


def test_links_lead_where_the_page_said_and_can_be_pressed_there(tmp_path: Path) -> None:
    _, file = made(tmp_path, part(tmp_path / "page"))
    with pikepdf.open(file) as document:
        (annotation,) = document.pages[0].Annots
        assert str(annotation.A.URI) == "http://crew.example/?a=1&b=(2)"
        left, bottom, right, top = map(float, annotation.Rect)
        assert (left, right) == (30, 90)
        assert (HEIGHT_PX * 0.75 - top, HEIGHT_PX * 0.75 - bottom) == (825, 837)
        assert annotation.StructParent == 1, "the numbers after those of the sheets"


def test_it_is_tagged_and_says_its_title_and_language(tmp_path: Path) -> None:
    _, file = made(tmp_path, part(tmp_path / "page"), caption="{title}, {date}", paper=parse_paper("letter"))
    with pikepdf.open(file) as document:
        root = document.Root
        assert (str(root.Lang), bool(root.MarkInfo.Marked)) == ("el", True)
        assert document.open_metadata()["dc:title"] == FACTS["title"]
        (whole,) = root.StructTreeRoot.K
        (section,) = whole.K
        tags = [str(element.S) for element in section.K]
        assert tags.count("/Figure") == len(document.pages)
        assert {"/H1", "/P", "/Link"} <= set(tags)
        assert all(str(element.Alt) for element in section.K if str(element.S) == "/Figure")
        for number, page in enumerate(document.pages):
            marked = root.StructTreeRoot.ParentTree.Nums[2 * number + 1]
            assert page.StructParents == number
            assert [int(element.K) for element in marked] == list(range(len(marked)))
        with document.open_outline() as outline:
            assert [item.title for item in outline.root] == ["Fares"]
    assert "Fares – Skerrin, 2026-11-28" in texts(file)[0]


def test_what_is_hidden_folded_or_beside_the_frame_is_in_no_text_and_no_link(tmp_path: Path) -> None:
    whole = Cut.whole(Size(width_px=WIDTH_PX, height_px=HEIGHT_PX))
    hidden = HiddenArea.model_validate(
        {"x_px": 90, "y_px": 1_095, "width_px": 60, "height_px": 30, "how": "solid"}
    )
    framed = Frame(
        box=Box(x_px=0, y_px=300, width_px=WIDTH_PX, height_px=1_400), folds=(Fold(top_px=550, height_px=90),)
    )
    for number, cut, said in (
        (0, replace(whole, hidden=(hidden,)), ["Fares", "Winter", "Λιμάνι", "Summer"]),
        (1, replace(whole, frame=framed), ["Crew", "Λιμάνι"]),
    ):
        _, file = made(tmp_path, part(tmp_path / str(number), cut=cut))
        assert texts(file)[0].split() == said
        with pikepdf.open(file) as document:
            assert ("/Annots" in document.pages[0]) == ("Crew" in said)
    assert b"crew" not in file.read_bytes() or "Crew" in said


@pytest.mark.parametrize(
    ("mark", "covers"),
    [
        ({"kind": "box", "filling": "#1D2B2A"}, True),
        ({"kind": "box", "filling": "#1D2B2A40"}, False),
        pytest.param({"kind": "box"}, False, marks=pytest.mark.long),
        pytest.param({"kind": "ellipse", "filling": "#FFFFFF"}, True, marks=pytest.mark.long),
        ({"kind": "dim", "how": "blur"}, False),
    ],
)
def test_a_word_under_something_that_covers_it_is_not_said(
    tmp_path: Path, mark: dict[str, Any], covers: bool
) -> None:
    whole = Cut.whole(Size(width_px=WIDTH_PX, height_px=HEIGHT_PX)).as_json()
    mark = {"x_px": 20, "y_px": 1_080, "width_px": 200, "height_px": 60, **mark}
    cut = read_cut(json.dumps({**whole, "marks": [mark]}).encode())
    _, file = made(tmp_path, part(tmp_path / "page", cut=cut))
    said = texts(file)[0].split()
    assert ("Crew" not in said) == covers
    assert ("Fares" in said) == (mark["kind"] != "dim"), "what is blurred around cannot be read"


def test_paper_is_divided_at_gaps_and_no_row_is_lost(tmp_path: Path) -> None:
    pixels = np.full((2_400, 400, 3), 255, dtype=np.uint8)
    for top in range(0, 2_400, 300):
        pixels[top + 20 : top + 280, 20:380] = noise(360, 260)
    result, file = made(
        tmp_path, part(tmp_path / "page", pixels), paper=parse_paper("120x200mm"), numbered=False
    )
    assert result.sheets > 2
    margin_px = 12 / 25.4 * 96
    shown = [rows[round(margin_px) :] for rows in seen(file)]
    inked = [np.flatnonzero((rows < 200).any(axis=(1, 2))) for rows in shown]
    scale = min(1.0, (120 - 24) / 25.4 * 96 / 400)
    for rows in inked:
        # Whole blocks of 260 px: none is cut in two.
        runs = np.split(rows, np.flatnonzero(np.diff(rows) > 1) + 1)
        assert all(len(run) == pytest.approx(260 * scale, abs=3) for run in runs)
    assert sum(len(np.split(rows, np.flatnonzero(np.diff(rows) > 1) + 1)) for rows in inked) == 8


def test_a_limit_is_kept_by_quality_then_by_width_or_it_is_said(tmp_path: Path) -> None:
    page = part(tmp_path / "page", photograph(450, 600))
    free, file = made(tmp_path, page)
    half, _ = made(tmp_path, page, limit_bytes=free.bytes // 2)
    assert half.met
    assert half.bytes <= free.bytes // 2
    assert half.quality < free.quality
    assert half.share_percent == 100
    small, _ = made(tmp_path, page, limit_bytes=free.bytes // 9)
    assert small.met
    assert small.share_percent < 100
    tiny, _ = made(tmp_path, page, limit_bytes=3_000)
    assert not tiny.met
    assert file.stat().st_size == tiny.bytes


@pytest.mark.long
def test_several_captures_become_one_document_with_an_outline(tmp_path: Path) -> None:
    first, second = (part(tmp_path / str(number)) for number in range(2))
    result, file = made(tmp_path, first, replace(second, title="Fleet"), paper=parse_paper("A4"))
    with pikepdf.open(file) as document, document.open_outline() as outline:
        assert len(document.pages) == result.sheets
        assert [item.title for item in outline.root] == ["Fares – Skerrin", "Fleet"]
        assert [child.title for child in outline.root[1].children] == ["Fares"]


def test_few_colours_are_stored_without_loss(tmp_path: Path) -> None:
    pixels = np.full((BAND_PX + 400, 300, 3), 255, dtype=np.uint8)
    pixels[::7, ::3] = (31, 90, 107)
    _, file = made(tmp_path, part(tmp_path / "page", pixels))
    (picture,) = seen(file)
    assert np.array_equal(picture, pixels)
    with pikepdf.open(file) as document:
        rows = [image.Height for image in document.pages[0].Resources.XObject.values()]
    assert sum(rows) == len(pixels) + OVERLAP_PX, "bands overlap, so that no line shows between them"


@given(st.integers(1, 20_000), st.integers(1, 400_000))
def test_a_tall_page_is_never_larger_than_viewers_show(width_px: int, height_px: int) -> None:
    size = Size(width_px=width_px, height_px=height_px)
    ground = ground_for(TALL, size, margin_mm=0, foot_pt=10.4)
    assert ground.page_width_pt <= GREATEST_SIDE_PT + 0.01
    assert ground.height_pt(height_px) <= GREATEST_SIDE_PT + 0.01
    assert ground.points_a_px <= 0.75


@pytest.mark.parametrize("text", ["", "A5x", "10x10mm", "210x", "9000x297mm", "210x297 furlongs"])
def test_paper_that_cannot_be_is_refused(text: str) -> None:
    with pytest.raises(HandOverError) as refused:
        parse_paper(text)
    assert refused.value.code == "paper_malformed"


def test_what_cannot_be_ordered_is_said(tmp_path: Path) -> None:
    assert str(parse_paper("8.5x11in")) == "215.9 × 279.4 mm"
    with pytest.raises(HandOverError, match="no field"):
        PdfOrder(caption="{pier}")
    with pytest.raises(HandOverError, match="leave no room"):
        made(tmp_path, part(tmp_path / "page"), paper=parse_paper("A4"), margin_mm=100)
    with pytest.raises(HandOverError, match="from 1 to 500"):
        made(tmp_path)
