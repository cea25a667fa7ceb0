"""Names from patterns, and the pace at which hosts are pressed."""

from datetime import UTC, datetime

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pathvalidate import is_valid_filename

from tallpage.core.capture import Screen
from tallpage.core.errors import ListError
from tallpage.core.fit import FitOrder
from tallpage.core.handover import ManifestRow, manifest_csv
from tallpage.core.render import RenderRules
from tallpage.core.routine import SlotOrder
from tallpage.core.sizing import Sizing
from tallpage.core.sweep import (
    FIELDS,
    Named,
    Namer,
    Pace,
    Pattern,
    Waiting,
    next_up,
)
from tallpage.core.sweep._folder import _slot_words

SCREEN = Screen(width_px=390, height_px=844, scale=3)


def _named(**changed: object) -> dict[str, str]:
    given = {
        "address": "https://www.skerrin.example:8443/news/2026/storm%20warning.html",
        "title": "Storm: all boats in harbour",
        "screen": SCREEN,
        "taken_at": datetime(2026, 11, 24, 6, 5, tzinfo=UTC),
        "number": 7,
        "of": 120,
        "width_px": 1170,
    }
    return Named(**{**given, **changed}).values()  # type: ignore[arg-type]


def test_every_field_is_filled() -> None:
    pattern = Pattern("{host}/{section}/{number} {title} {path} {screen} {width} {date} {time} {slot}")
    assert pattern.fields == set(FIELDS)
    assert pattern.filled(_named(slot="Hero")) == (
        "skerrin.example-8443/news/007 Storm all boats in harbour news-2026-storm warning 390x844@3 1170 "
        "2026-11-24 0605 Hero"
    )


@given(
    st.lists(st.dictionaries(st.sampled_from(FIELDS), st.text(max_size=500)), min_size=1, max_size=6),
    st.sampled_from(
        ["{title}", "{section}/{title}", "../{host}/{path}", "{date}{time}/{number}.", "CON/{slot}"]
    ),
)
def test_names_are_safe_distinct_and_short_whatever_pages_are_called(
    values: list[dict[str, str]], text: str
) -> None:
    namer = Namer(Pattern(text))
    names = [namer.name(row, "png") for row in values]
    assert len({name.casefold() for name in names}) == len(names)
    for name in names:
        assert len(name) <= 200
        assert name.endswith(".png")
        assert all(is_valid_filename(part, platform="universal") for part in name.split("/"))


@pytest.mark.parametrize(
    ("title", "name"),
    [
        ("CON", "CON_.png"),
        ("..", "page.png"),
        ("nul.txt", "nul_.txt.png"),
        ("🚢 boats", "🚢 boats.png"),
        ("../../etc/passwd", "etc-passwd.png"),
    ],
)
def test_odd_titles(title: str, name: str) -> None:
    assert Namer(Pattern("{title}")).name(_named(title=title), "png").lstrip("-") == name


def test_a_name_of_four_hundred_characters_is_cut_between_characters() -> None:
    name = Namer(Pattern("{title}")).name(_named(title="🚢" * 400), "png")
    assert len(name.encode()) <= 110


def test_two_pages_with_one_title_are_told_apart() -> None:
    namer = Namer(Pattern("{title}"), given=["Fleet.png"])
    assert [namer.name({"title": "fleet"}, "png") for _ in range(2)] == ["fleet-2.png", "fleet-3.png"]


@pytest.mark.long
def test_thirty_thousand_pages_with_one_title_are_each_told_apart_once() -> None:
    class Counting(set[str]):
        asked = 0

        def __contains__(self, path: object) -> bool:
            self.asked += 1
            return super().__contains__(path)

    namer = Namer(Pattern("{title}"))
    namer._given = given = Counting()
    names = {namer.name({"title": "Fleet"}, "png") for _ in range(30_000)}
    assert len(names) == 30_000
    assert given.asked <= 3 * 30_000, "names are looked up in proportion to their number"


@pytest.mark.parametrize("text", ["", "{nothing}", "{title", "a/b/c/d/e/f/g/h", "x" * 301])
def test_patterns_that_cannot_be_filled_are_refused(text: str) -> None:
    with pytest.raises(ListError) as refused:
        Pattern(text)
    assert refused.value.code == "pattern_malformed"


def test_a_spreadsheet_takes_no_title_for_a_formula() -> None:
    row = ManifestRow(address="https://skerrin.example/", title="=1+1", warnings=("a", "b"))
    text = manifest_csv([row]).decode("utf-8-sig")
    assert "'=1+1" in text
    assert "a | b" in text


def _next(waiting: list[Waiting], pace: Pace, **known: object) -> tuple[list[int], float | None]:
    asked = {"free": 4, "under_way": [], "started_at": {}, "now": 100.0, **known}
    chosen, soonest = next_up(waiting, pace=pace, **asked)  # type: ignore[arg-type]
    return [row.number for row in chosen], soonest


def test_no_host_is_pressed_and_others_go_on_meanwhile() -> None:
    waiting = [Waiting(1, "a"), Waiting(2, "a"), Waiting(3, "a"), Waiting(4, "b")]
    assert _next(waiting, Pace(at_once=2, pause_s=0)) == ([1, 2, 4], None)
    assert _next(waiting, Pace(at_once=2, pause_s=0), under_way=["a", "a"]) == ([4], None)
    assert _next(waiting, Pace(at_once=3, pause_s=2), started_at={"a": 99.5}) == ([4], 1.5)
    assert _next(waiting, Pace(at_once=3, pause_s=0), free=1) == ([1], None)


@pytest.mark.parametrize(("at_once", "pause_s"), [(0, 0), (17, 0), (1, -1), (1, 601)])
def test_a_pace_that_is_not_possible_is_refused(at_once: int, pause_s: float) -> None:
    with pytest.raises(ListError, match="not possible"):
        Pace(at_once=at_once, pause_s=pause_s)


def test_a_slot_is_told_apart_in_the_words_of_earlier_versions() -> None:
    # A sweep that was begun by one of them is gone on with: its plan was written down in these words.
    rules = RenderRules(sizing=Sizing(width_px=720))
    slot = SlotOrder(name="720px", rules=rules, order=FitOrder(limit_bytes=90_000, formats=("jpeg", "avif")))
    assert _slot_words(slot) == (
        "SlotOrder(name='720px', order=FitOrder(sizing=Sizing(way='width', width_px=720, height_px=0, "
        "percent=0, anchor='start', enlarge=False), limit_bytes=90000, formats=('jpeg', 'avif'), "
        "fidelity=None, greatest_height_px=None, background=(255, 255, 255), choice=None))"
    )
