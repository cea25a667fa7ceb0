from collections.abc import Callable, Sequence

from hypothesis import given
from hypothesis import strategies as st

from tallpage.core.fit import search_knob

KNOBS = range(10, 96)


def one_by_one(sizes: dict[int, int]) -> Callable[[Sequence[int]], list[int]]:
    return lambda knobs: [sizes[knob] for knob in knobs]


def _rising(steps: list[int]) -> dict[int, int]:
    sizes, total = {}, 0
    for knob, step in zip(KNOBS, steps, strict=True):
        total += step
        sizes[knob] = total
    return sizes


rising_sizes = st.lists(st.integers(0, 5_000), min_size=len(KNOBS), max_size=len(KNOBS)).map(_rising)
any_sizes = st.lists(st.integers(1, 400_000), min_size=len(KNOBS), max_size=len(KNOBS)).map(
    lambda rows: dict(zip(KNOBS, rows, strict=True))
)


@given(rising_sizes, st.integers(1, 500_000))
def test_where_bytes_rise_the_highest_fitting_knob_is_found(sizes: dict[int, int], limit: int) -> None:
    outcome = search_knob(one_by_one(sizes), KNOBS, limit, most_tries=86)
    fitting = [knob for knob in KNOBS if sizes[knob] <= limit]
    assert outcome.knob == (max(fitting) if fitting else None)


@given(any_sizes, st.integers(1, 400_000), st.integers(1, 8), st.integers(1, 2))
def test_whatever_the_sizes_do_the_outcome_was_seen_to_fit(
    sizes: dict[int, int], limit: int, tries: int, at_once: int
) -> None:
    seen: list[int] = []

    def sizes_at(knobs: Sequence[int]) -> list[int]:
        assert len(knobs) <= at_once
        seen.extend(knobs)
        return [sizes[knob] for knob in knobs]

    outcome = search_knob(sizes_at, KNOBS, limit, most_tries=tries, at_once=at_once)
    assert len(seen) == len(set(seen)) == outcome.tries <= tries
    assert outcome.knob is None or (outcome.knob in seen and sizes[outcome.knob] <= limit)


@given(rising_sizes, st.integers(1, 500_000), st.floats(0.3, 3), st.integers(1, 2))
def test_a_prediction_that_is_off_by_a_factor_does_no_harm(
    sizes: dict[int, int], limit: int, off: float, at_once: int
) -> None:
    outcome = search_knob(
        one_by_one(sizes),
        KNOBS,
        limit,
        estimate=lambda knob: sizes[knob] * off,
        most_tries=86,
        at_once=at_once,
    )
    fitting = [knob for knob in KNOBS if sizes[knob] <= limit]
    assert outcome.knob == (max(fitting) if fitting else None)


def test_a_good_prediction_saves_encodes() -> None:
    sizes = {knob: int(1.06**knob * 400) for knob in KNOBS}
    outcome = search_knob(one_by_one(sizes), KNOBS, 20_000, estimate=lambda knob: sizes[knob] * 1.1)
    assert outcome.knob == max(knob for knob in KNOBS if sizes[knob] <= 20_000)
    assert outcome.tries <= 3


def test_the_second_of_two_at_once_makes_up_for_a_first_that_is_a_little_over() -> None:
    sizes = {knob: int(1.02**knob * 4_000) for knob in KNOBS}
    asked: list[Sequence[int]] = []

    def sizes_at(knobs: Sequence[int]) -> list[int]:
        asked.append(knobs)
        return [sizes[knob] for knob in knobs]

    outcome = search_knob(
        sizes_at, KNOBS, 12_000, estimate=lambda knob: sizes[knob] * 0.97, at_once=2, near_enough=0.95
    )
    assert len(asked) == 1
    assert outcome.knob is not None
    assert 0.95 * 12_000 <= sizes[outcome.knob] <= 12_000
