"""Rules for blocks: by what they are, say, stand below, or lie in."""

from typing import Any

import pytest
from pydantic import ValidationError

from tallpage.core.page_map import Block
from tallpage.core.routine import BlockRule, find_block, fitting_blocks
from tests.core.routine.pages import BLOCKS, block


def _found(**rule: Any) -> Block | None:
    return find_block(BlockRule(**rule), BLOCKS)


@pytest.mark.parametrize(
    ("rule", "at"),
    [
        ({"role": "table"}, 3),
        ({"role": "table", "number": 2}, 5),
        ({"role": "table", "number": -1}, 7),
        ({"role": "table", "says": "BICYCLE  4"}, 5),
        ({"role": "table", "below": "bikes"}, 5),
        ({"role": "table", "below": "Winter"}, 7),
        ({"role": "table", "below": "Fares", "number": 2}, 5),
        ({"says": "31.50"}, 3),
        ({"selector": "table.times"}, 7),
        ({"selector": "main > table"}, 3),
        ({"selector": "#content .box table"}, 5),
        ({"selector": "nav, footer"}, 8),
        ({"selector": ".fares", "role": "table", "number": 2}, 5),
    ],
)
def test_a_rule_means_one_block(rule: dict[str, Any], at: int) -> None:
    assert _found(**rule) is BLOCKS[at]


@pytest.mark.parametrize(
    "rule",
    [
        {"role": "form"},
        {"role": "table", "number": 4},
        {"role": "table", "number": -4},
        {"role": "table", "below": "Trains"},
        {"role": "table", "below": "Fares", "number": 3},
        {"says": "lorry"},
        {"selector": "main > .box > h2"},
    ],
)
def test_a_rule_that_nothing_fits_means_none(rule: dict[str, Any]) -> None:
    assert _found(**rule) is None


def test_words_alone_mean_the_innermost_block_and_not_all_around_it() -> None:
    around = block("section", (0, 0, 100, 100), "Boats go daily")
    inner = block("paragraph", (10, 10, 50, 20), "Boats go daily")
    assert fitting_blocks(BlockRule(says="go daily"), (around, inner)) == [inner]


def test_names_that_need_escaping_are_found() -> None:
    odd = block("table", (0, 0, 10, 10), path=r"body > table#\32 026\.fares.md\:wide")
    for selector in (r"#\32 026\.fares", r"table.md\:wide", r"body > .md\3a wide"):
        assert find_block(BlockRule(selector=selector), (odd,)) is odd, selector
    assert find_block(BlockRule(selector=r"table.md"), (odd,)) is None


@pytest.mark.parametrize(
    ("rule", "words"),
    [
        ({}, "by its role"),
        ({"role": "table", "number": 0}, "counted from 1"),
        ({"selector": "tr:nth-child(2)"}, "only names, ids and classes"),
        ({"selector": "a[href]"}, "only names, ids and classes"),
        ({"selector": "main >"}, "no CSS selector"),
        ({"role": "sidebar"}, "role"),
    ],
)
def test_rules_that_say_nothing_or_too_much_are_refused(rule: dict[str, Any], words: str) -> None:
    with pytest.raises(ValidationError, match=words):
        BlockRule(**rule)
