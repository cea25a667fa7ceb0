"""What is known of the rights of a picture, and whether somebody is asked before it leaves."""

from datetime import date

import pytest

from tallpage.core.errors import HandOverError
from tallpage.core.rights import Rights, RightsState

DAY = date(2026, 11, 28)


@pytest.mark.parametrize(
    ("rights", "cleared", "words"),
    [
        (Rights(), True, ""),
        (Rights(state="own"), True, "own"),
        (Rights(state="licensed", until=DAY), True, "licensed until 2026-11-28"),
        (Rights(state="licensed", until=date(2026, 11, 27)), False, "licence ran out on 2026-11-27"),
        (Rights(state="asked"), False, "asked, no answer yet"),
        (Rights(state="not_cleared", note="Isa says no."), False, "not cleared"),
    ],
)
def test_what_leaves_without_a_question(rights: Rights, cleared: bool, words: str) -> None:
    assert rights.cleared_on(DAY) is cleared
    assert rights.in_words(DAY) == words


@pytest.mark.parametrize(("state", "until"), [("licensed", None), ("own", DAY), ("", DAY)])
def test_a_last_day_belongs_to_a_licence_and_a_licence_has_one(
    state: RightsState, until: date | None
) -> None:
    with pytest.raises(HandOverError, match="last day"):
        Rights(state=state, until=until)


def test_a_note_is_short() -> None:
    with pytest.raises(HandOverError, match="501 letters"):
        Rights(state="own", note="x" * 501)
