"""Which block became which, on pages of which that is known."""

from collections import Counter

from hypothesis import given
from hypothesis import strategies as st

from tallpage.core.following import Match, Outline, matched
from tallpage.core.geometry import Box
from tallpage.core.page_map import Block
from tests.core.following.edited_pages import Writer, laid_out

SEEDS = st.integers(0, 10_000)


def block(text: str, row: int, *, role: str = "paragraph") -> Block:
    """A line of its own, 20 px high."""
    box = Box(x_px=0, y_px=20 * row, width_px=400, height_px=20)
    return Block(role=role, level=None, box=box, text=text, link="", alt="")


def followed(before: list[str], now: list[str]) -> dict[int, Match]:
    outlines = [Outline.of([block(text, row) for row, text in enumerate(page)]) for page in (before, now)]
    return matched(*outlines)


@given(SEEDS)
def test_each_block_of_a_page_is_itself(seed: int) -> None:
    _, blocks, _ = laid_out(Writer(seed).page(sections=3))
    outline = Outline.of(blocks)
    assert matched(outline, outline) == {number: Match(number) for number in range(len(blocks))}


@given(SEEDS, st.sampled_from((600, 1_400)))
def test_a_page_of_another_width_is_the_same_page(seed: int, width_px: int) -> None:
    page = Writer(seed).page(sections=2)
    outlines = [Outline.of(laid_out(page, width)[1]) for width in (1_000, width_px)]
    found = matched(*outlines)
    assert all(match.now == number for number, match in found.items() if match.sure)
    assert len(found) > 0.95 * len(outlines[0].blocks)


def test_on_edited_pages_19_of_20_are_found_and_none_is_wrong_without_being_in_doubt() -> None:
    told: Counter[str] = Counter()
    for seed in range(30):
        writer = Writer(seed)
        page = writer.page()
        _, before, names = laid_out(page)
        _, now, names_now = laid_out(writer.edited(page, share=0.1))
        found = matched(Outline.of(before), Outline.of(now))
        places = {name: number for number, name in enumerate(names_now)}
        for number, name in enumerate(names):
            match = found.get(number)
            told["all"] += 1
            if match is None:
                told["right" if name not in places else "not found"] += 1
            elif not match.sure:
                told["in doubt"] += 1
            else:
                told["right" if match.now == places.get(name) else "wrong"] += 1
    assert told["right"] >= 0.95 * told["all"], told
    assert told["wrong"] == 0, told


def test_what_moved_is_found_where_it_is() -> None:
    before = ["Fares of the summer", "Boats", "Crossings in fog", "Lost property"]
    now = ["Lost property", "Fares of the summer", "A new line", "Boats", "Crossings in fog"]
    assert {number: match.now for number, match in followed(before, now).items()} == {0: 1, 1: 3, 2: 4, 3: 0}


def test_what_says_the_same_as_others_is_told_by_its_neighbour() -> None:
    before = ["Ailsay and its lighthouse", "Book", "Fethray and its ridge", "Book", "Auklet", "Book"]
    now = ["Dunmorra and its harbour", "Book", *before[2:]]
    assert followed(before, now)[3] == Match(3)
    assert followed(before, now)[5] == Match(5)


def test_what_could_be_one_of_several_is_in_doubt() -> None:
    before = ["Crossings in fog", "Book", "Book", "Lost property"]
    now = ["Crossings in fog", "Book", "Book", "Book", "Lost property"]
    found = followed(before, now)
    assert not found[1].sure
    assert not found[2].sure
    assert found[3] == Match(4)


def test_a_rewording_in_its_place_is_found_and_one_elsewhere_is_in_doubt() -> None:
    before = ["Fares", "The boat to Ailsay leaves at ten past seven from the old quay", "Boats"]
    reworded = "The boat to Ailsay leaves at half past seven from the old quay"
    assert followed(before, ["Fares", reworded, "Boats"])[1] == Match(1)
    assert followed(before, [reworded, "Fares", "Boats"])[1] == Match(0, sure=False)


def test_what_is_gone_is_nowhere() -> None:
    before = ["Fares", "The boat to Ailsay leaves at ten past seven", "Boats"]
    assert 1 not in followed(before, ["Fares", "Boats"])


def test_a_row_of_a_table_is_told_by_its_cells() -> None:
    def table(rows: list[tuple[str, str]]) -> Outline:
        blocks = []
        for row, cells in enumerate(rows):
            for column, text in enumerate(cells):
                box = Box(x_px=200 * column, y_px=20 * row, width_px=200, height_px=20)
                blocks.append(Block(role="text", level=None, box=box, text=text, link="", alt=""))
        return Outline.of(blocks)

    before = table([("07:20", "On time"), ("08:05", "On time"), ("09:40", "On time")])
    now = table([("06:10", "On time"), ("07:20", "On time"), ("08:05", "Late"), ("09:40", "On time")])
    found = matched(before, now)
    assert [found[number] for number in range(6)] == [Match(number + 2) for number in range(6)]
