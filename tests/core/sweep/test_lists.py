"""Lists of pages out of whatever people have."""

import csv
import io
import zipfile

import openpyxl
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tallpage.core.errors import ListError
from tallpage.core.sweep import MOST_PAGES, Found, PageList, list_of, read_file, read_pasted


def _addresses(pages: PageList) -> list[str]:
    return [page.address for page in pages.pages]


def test_lines_commas_and_columns_are_read_and_titles_kept() -> None:
    pages = list_of(
        read_pasted(
            "https://skerrin.example/a, https://skerrin.example/b,c; skerrin.example/d\n"
            "Winter timetable\thttps://skerrin.example/timetable\n"
            "\n# a remark\n"
            "* www.skerrin.example\n"
        )
    )
    assert _addresses(pages) == [
        "https://skerrin.example/a",
        "https://skerrin.example/b,c",
        "https://skerrin.example/d",
        "https://skerrin.example/timetable",
        "https://www.skerrin.example/",
    ]
    assert pages.pages[3].title == "Winter timetable"
    assert pages.bad_count == 0


def test_what_is_no_address_is_told_with_its_line() -> None:
    pages = list_of(
        read_pasted("skerrin.example/a\nthe new page\nftp://skerrin.example/x\nmailto:a@b.example\nFleet\n")
    )
    assert _addresses(pages) == ["https://skerrin.example/a"]
    assert [(bad.line, bad.code) for bad in pages.bad] == [
        (2, "address_malformed"),
        (3, "address_scheme"),
        (4, "address_scheme"),
        (5, "address_malformed"),
    ]


def test_each_page_is_listed_once_and_places_on_it_do_not_count() -> None:
    pages = list_of(
        read_pasted("skerrin.example/a\nSKERRIN.example/a#prices\nskerrin.example/#/a\nskerrin.example/#/b")
    )
    assert len(pages.pages) == 3
    assert pages.duplicates == 1


def test_links_of_html_and_markdown_keep_their_words() -> None:
    html = '<li><a class=x href="https://skerrin.example/a">The <b>fleet</b></a><a href="mailto:x@y.example">'
    assert [(row.text, row.title) for row in read_pasted(html)] == [
        ("https://skerrin.example/a", "The fleet")
    ]
    markdown = (
        "- [The fleet](https://skerrin.example/a)\n- <https://skerrin.example/b>\n\nskerrin.example/c\n"
    )
    found = read_pasted(markdown)
    assert [row.text for row in found] == [
        "https://skerrin.example/a",
        "https://skerrin.example/b",
        "skerrin.example/c",
    ]
    assert found[0].title == "The fleet"


def test_sections_are_counted() -> None:
    pages = list_of(Found(text=f"skerrin.example/{path}", line=1) for path in ("news/a", "news/b", "fleet"))
    assert pages.sections() == {"skerrin.example/news": 2, "skerrin.example/": 1}


@pytest.mark.long
def test_a_list_that_is_too_long_is_read_to_its_bound_and_says_so() -> None:
    pages = list_of(read_pasted("\n".join(f"skerrin.example/{number}" for number in range(100_000))))
    assert len(pages.pages) == MOST_PAGES
    assert pages.left_over == 100_000 - MOST_PAGES
    many_bad = list_of(read_pasted("no address\n" * 2_000))
    assert (many_bad.bad_count, len(many_bad.bad)) == (2_000, 500)


@given(st.text(max_size=300))
def test_any_text_is_read(text: str) -> None:
    pages = list_of(read_pasted(text))
    assert all(page.address.startswith(("http://", "https://")) for page in pages.pages)
    assert len({page.address for page in pages.pages}) == len(pages.pages)


def _workbook(rows: list[list[object]]) -> bytes:
    book = openpyxl.Workbook()
    for row in rows:
        book.active.append(row)
    data = io.BytesIO()
    book.save(data)
    return data.getvalue()


ROWS: list[list[object]] = [
    ["Page", "Address", "Budget"],
    ["Fleet", "https://skerrin.example/fleet", 12.5],
    ["News", "skerrin.example/news", 3],
]


def test_the_likeliest_column_of_a_table_is_found_and_another_may_be_chosen() -> None:
    text = io.StringIO()
    csv.writer(text, delimiter=";").writerows(ROWS)
    for data, name in ((_workbook(ROWS), "list.xlsx"), (text.getvalue().encode("utf-16"), "list.csv")):
        table = read_file(data, name)
        assert [column.heading for column in table.columns] == ["Page", "Address", "Budget"]
        assert table.likeliest == 1
        assert _addresses(list_of(table.found_in(1))) == [
            "https://skerrin.example/fleet",
            "https://skerrin.example/news",
        ]
        assert list_of(table.found_in(2)).bad_count == 2


def test_links_behind_the_words_of_a_table_are_read() -> None:
    book = openpyxl.Workbook()
    for row in (
        ["Page", "Note"],
        ["Islands", "https://skerrin.example/note"],
        ['=HYPERLINK("https://skerrin.example/fleet","Fleet")', ""],
        ["skerrin.example/news", ""],
        ["Crew", ""],
    ):
        book.active.append(row)
    book.active["A2"].hyperlink = "https://skerrin.example/islands"
    book.active["A4"].hyperlink = "https://elsewhere.example/"
    book.active["A5"].hyperlink = "mailto:crew@skerrin.example"
    data = io.BytesIO()
    book.save(data)
    table = read_file(data.getvalue(), "list.xlsx")
    assert table.likeliest == 0
    found = list_of(table.found_in(0))
    assert _addresses(found) == [
        "https://skerrin.example/islands",
        "https://skerrin.example/fleet",
        "https://skerrin.example/news",
    ]
    assert [row.text for row in found.bad] == ["Crew"]


def test_a_plain_text_file_is_read_as_if_pasted() -> None:
    assert _addresses(list_of(read_file(b"\xef\xbb\xbfskerrin.example/a\r\n", "a.txt").found_in(0))) == [
        "https://skerrin.example/a"
    ]


def _archive(name: str, data: bytes) -> bytes:
    made = io.BytesIO()
    with zipfile.ZipFile(made, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr(name, data)
    return made.getvalue()


@pytest.mark.parametrize(
    ("data", "code"),
    [
        (b"\x89PNG\r\n\0\0\0", "list_unreadable"),
        (_archive("xl/workbook.xml", b"<a/>"), "list_unreadable"),
        (_archive("xl/workbook.xml", bytes(25_000_001)), "list_too_large"),
        (b"PK\x03\x04 and no more", "list_unreadable"),
        (bytes(20_000_001), "list_too_large"),
    ],
    ids=["picture", "not a workbook", "unpacks hugely", "cut off", "large"],
)
def test_files_that_are_no_lists_are_refused(data: bytes, code: str) -> None:
    with pytest.raises(ListError) as refused:
        read_file(data, "list.xlsx")
    assert refused.value.code == code
    assert refused.value.sentence.startswith("list.xlsx")
