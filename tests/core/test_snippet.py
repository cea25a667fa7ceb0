"""Snippets: what a browser is given to choose from, and that no text of anybody breaks out of it."""

from html.parser import HTMLParser

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tallpage.core.snippet import SnippetImage, SnippetWords, html, markdown, same_shape, shown_width_px


def image(width_px: int, height_px: int = 0, kind: str = "jpeg", name: str = "") -> SnippetImage:
    height_px = height_px or round(width_px * 9 / 16)
    src = name or f"ferry-{width_px}.{kind}"
    return SnippetImage(src=src, width_px=width_px, height_px=height_px, media_type=f"image/{kind}")


class _Read(HTMLParser):
    """Each tag with its attributes, and the text."""

    def __init__(self, text: str) -> None:
        super().__init__()
        self.tags: list[tuple[str, dict[str, str | None]]] = []
        self.text = ""
        self.feed(text)

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        self.tags.append((tag, dict(attrs)))

    def handle_data(self, data: str) -> None:
        self.text += data


def test_one_file_is_one_img_with_its_size() -> None:
    ((tag, said),) = _Read(html([[image(720)]], SnippetWords(alt="A ferry"))).tags
    assert tag == "img"
    assert (said["src"], said["width"], said["height"]) == ("ferry-720.jpeg", "720", "405")
    assert (said["alt"], said["loading"]) == ("A ferry", "lazy")
    assert "srcset" not in said


def test_two_widths_serve_two_densities() -> None:
    ((_, said),) = _Read(html([[image(1_440), image(720)]], SnippetWords())).tags
    assert said["srcset"] == "ferry-720.jpeg 720w, ferry-1440.jpeg 1440w"
    assert said["sizes"] == "(max-width: 720px) 100vw, 720px"
    assert (said["src"], said["width"]) == ("ferry-720.jpeg", "720")


def test_newer_formats_come_first_and_the_commonest_is_the_img() -> None:
    files = [image(720), image(720, kind="avif"), image(720, kind="webp"), image(360, kind="webp")]
    tags = _Read(html([files], SnippetWords())).tags
    assert [tag for tag, _ in tags] == ["picture", "source", "source", "img"]
    assert [said.get("type") for _, said in tags[1:3]] == ["image/avif", "image/webp"]
    assert tags[2][1]["srcset"] == "ferry-360.webp 360w, ferry-720.webp 720w"
    assert tags[3][1]["src"] == "ferry-720.jpeg"


def test_captions_make_a_figure() -> None:
    read = _Read(html([[image(720)]], SnippetWords(caption="The Auklet", credit="Skerrin Sound Ferries")))
    assert [tag for tag, _ in read.tags] == ["figure", "img", "figcaption", "small"]
    assert "The Auklet Skerrin Sound Ferries" in read.text


def test_leaves_stand_below_each_other_and_say_which_they_are() -> None:
    parts = [[image(720, 900, name="a-1.png", kind="png")], [image(720, 400, name="a-2.png", kind="png")]]
    tags = _Read(html(parts, SnippetWords(alt="Timetable"))).tags
    assert [said["alt"] for _, said in tags] == ["Timetable (1 of 2)", "Timetable (2 of 2)"]
    assert markdown(parts, SnippetWords(alt="Timetable")).count("](a-") == 2


@pytest.mark.parametrize(
    ("widths", "shown"),
    [((720,), 720), ((720, 1_440), 720), ((360, 720, 1_440), 720), ((720, 1_000), 1_000), ((360, 719), 360)],
)
def test_how_wide_files_are_shown(widths: tuple[int, ...], shown: int) -> None:
    assert shown_width_px([image(width) for width in widths]) == shown


def test_files_of_another_shape_are_no_choice() -> None:
    files = [
        image(720),
        image(1_440),
        image(240, 240),
        image(720, kind="webp"),
        image(720, name="again.jpeg"),
    ]
    assert [row.src for row in same_shape(files)] == ["ferry-720.jpeg", "ferry-1440.jpeg", "ferry-720.webp"]


ANY = st.text(st.characters(exclude_categories=("Cs", "Cc")), max_size=40)


@given(ANY, ANY, ANY, st.text(st.sampled_from("ab ,\"'<>&()é/"), min_size=1, max_size=12))
def test_no_text_breaks_out_of_its_place(alt: str, caption: str, credit: str, name: str) -> None:
    words = SnippetWords(alt=alt, caption=caption, credit=credit)
    read = _Read(html([[image(720, name=name), image(1_440)]], words))
    tags = [tag for tag, _ in read.tags]
    assert set(tags) <= {"figure", "img", "figcaption", "small"}
    assert tags.count("img") == 1
    (said,) = (said for tag, said in read.tags if tag == "img")
    assert said["alt"] == alt
    assert len((said["srcset"] or "").split(", ")) == 2
    for text in (caption, credit):
        assert text.strip() in read.text or not text.strip()


@given(ANY, ANY)
def test_markdown_has_one_picture_and_nothing_else_of_the_kind(alt: str, caption: str) -> None:
    text = markdown([[image(720)]], SnippetWords(alt=alt, caption=caption))
    assert text.endswith("\n")
    assert text.count("](ferry-720.jpeg)") == 1
    plain = text.replace("\\\\", "").replace("\\[", "").replace("\\]", "").replace("\\!", "")
    assert plain.count("[") == plain.count("![") == 1
