"""What is sought is found wherever the page says it, and nothing else is."""

import pytest

from tallpage.core.finding import Kind, Sought, find_places
from tallpage.core.geometry import Box
from tallpage.core.page_words import PageWords, Word

WORD_PX, LINE_PX = 100, 20


def words_of(*lines: str) -> PageWords:
    """One run; each word is 90 px wide, each line 20 px below the one before."""
    run = [
        Word(text, (Box(x_px=WORD_PX * at, y_px=LINE_PX * row, width_px=90, height_px=16),))
        for row, line in enumerate(lines)
        for at, text in enumerate(line.split())
    ]
    return PageWords(runs=(tuple(run),))


def found(kind: Kind, *lines: str, words: str = "") -> list[str]:
    return [place.text for place in find_places(words_of(*lines), Sought(kind=kind, words=words))]


@pytest.mark.parametrize(
    "text",
    [
        "desk@skerrin.example",
        "first.last+ferry@mail.skerrin.example",
        "crew@skerrin",
        "desk [at] skerrin [dot] example",
        "desk(at)skerrin.example",
        "ünsal@hafen.example",
    ],
)
def test_e_mail_addresses_are_found_however_they_are_written(text: str) -> None:
    assert found("email", f"Write to {text} before noon") == [text]


def test_what_is_no_e_mail_address_is_left() -> None:
    assert found("email", "We meet @ noon, at the pier. 5 @ 2.50 each") == []


@pytest.mark.parametrize(
    "text",
    ["+44 1632 960123", "(01632) 960 123", "01632-960123", "555-0123", "1-800-555-0199", "+49 (0) 30 1234567",
     "030/1234567", "06 12 34 56 78", "01632960123", "555.010.0199"],
)  # fmt: skip
def test_telephone_numbers_are_found_however_they_are_written(text: str) -> None:
    assert found("telephone", f"The pier office answers {text} until five") == [text]


def test_a_short_number_counts_where_it_is_called_one() -> None:
    assert found("telephone", "Tel. 44 55 or by hand") == ["44 55"]


@pytest.mark.parametrize(
    "text",
    ["on 2026-11-27 at 06:40", "on 27.11.2026", "from 2026 to 2027", "2026 – 2027", "214 m above 96 m",
     "06:40 07:20 08:05", "order 12345678", "6.40 8.20 24.00"],
)  # fmt: skip
def test_dates_times_and_plain_figures_are_no_telephone_numbers(text: str) -> None:
    assert found("telephone", text) == []


@pytest.mark.parametrize(
    "text",
    ["£12.50", "12,50 €", "EUR 1.200,-", "CHF 12'000.–", "1 200 kr", "$1,234,567.89", "USD 5", "₹ 45,000",
     "-£3"],
)  # fmt: skip
def test_amounts_are_found_however_they_are_written(text: str) -> None:
    assert found("amount", f"It is {text} each way") == [text]


def test_figures_without_money_are_no_amounts() -> None:
    assert found("amount", "Built 1998, 62 m, 34 cars, 12.50 tonnes, euro area") == []


def test_words_are_found_whole_and_however_they_are_spaced() -> None:
    lines = ("Ada Lint and ADA", "LINT’s boat, not Adamant")
    assert found("words", *lines, words="ada lint") == ["Ada Lint", "ADA LINT"]
    assert found("words", *lines, words="boat\nnot") == ["boat", "not"]
    assert found("words", *lines, words=" \n") == []


def test_what_is_broken_over_two_lines_has_a_box_for_each() -> None:
    (place,) = find_places(words_of("Please ring +44 1632", "960123 today"), Sought(kind="telephone"))
    assert place.boxes == (
        Box(x_px=198, y_px=0, width_px=194, height_px=18),
        Box(x_px=0, y_px=18, width_px=92, height_px=20),
    )


def test_words_that_are_joined_are_one_text() -> None:
    parts = [("desk", False), ("@", True), ("sker\u00adrin.example", True), ("today", False)]
    run = tuple(
        Word(text, (Box(x_px=50 * at, y_px=0, width_px=50, height_px=16),), joined)
        for at, (text, joined) in enumerate(parts)
    )
    (place,) = find_places(PageWords(runs=(run,)), Sought(kind="email"))
    assert place.text == "desk@skerrin.example"
    assert place.boxes[0].right_px == 152


def test_the_same_place_is_found_once() -> None:
    assert found("words", "The net loft", words="net\nnet loft\nNET LOFT") == ["net loft"]


@pytest.mark.parametrize("kind", ["email", "telephone", "amount"])
@pytest.mark.parametrize("text", ["1 ", "a", "1", "1.", "(", "£1 ", "tel 1 ", "a@"])
def test_a_page_that_says_one_thing_a_hundred_thousand_times_is_searched(kind: Kind, text: str) -> None:
    # It comes to its end: what grows with the square of the length would take hours.
    box = Box(x_px=0, y_px=0, width_px=9, height_px=9)
    words = PageWords(runs=((Word(text * 100_000, (box,)),),))
    assert all(place.boxes for place in find_places(words, Sought(kind=kind)))
