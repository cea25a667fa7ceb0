from collections.abc import Callable, Sequence

from hypothesis import given
from hypothesis import strategies as st

from tallpage.core.fit import search_quality_step

STEPS = range(10, 96)


def one_by_one(sizes: dict[int, int]) -> Callable[[Sequence[int]], list[int]]:
    return lambda quality_steps: [sizes[step] for step in quality_steps]


def _rising(rises: list[int]) -> dict[int, int]:
    sizes, total = {}, 0
    for step, rise in zip(STEPS, rises, strict=True):
        total += rise
        sizes[step] = total
    return sizes


rising_sizes = st.lists(st.integers(0, 5_000), min_size=len(STEPS), max_size=len(STEPS)).map(_rising)
any_sizes = st.lists(st.integers(1, 400_000), min_size=len(STEPS), max_size=len(STEPS)).map(
    lambda rows: dict(zip(STEPS, rows, strict=True))
)


@given(rising_sizes, st.integers(1, 500_000))
def test_where_bytes_rise_the_highest_fitting_knob_is_found(sizes: dict[int, int], limit: int) -> None:
    outcome = search_quality_step(one_by_one(sizes), STEPS, limit, most_tries=86)
    fitting = [step for step in STEPS if sizes[step] <= limit]
    assert outcome.quality_step == (max(fitting) if fitting else None)


@given(any_sizes, st.integers(1, 400_000), st.integers(1, 8), st.integers(1, 2))
def test_whatever_the_sizes_do_the_outcome_was_seen_to_fit(
    sizes: dict[int, int], limit: int, tries: int, at_once: int
) -> None:
    seen: list[int] = []

    def sizes_at(quality_steps: Sequence[int]) -> list[int]:
        assert len(quality_steps) <= at_once
        seen.extend(quality_steps)
        return [sizes[step] for step in quality_steps]

    outcome = search_quality_step(sizes_at, STEPS, limit, most_tries=tries, at_once=at_once)
    assert len(seen) == len(set(seen)) == outcome.tries <= tries
    assert outcome.quality_step is None or (
        outcome.quality_step in seen and sizes[outcome.quality_step] <= limit
    )


@given(rising_sizes, st.integers(1, 500_000), st.floats(0.3, 3), st.integers(1, 2))
def test_a_prediction_that_is_off_by_a_factor_does_no_harm(
    sizes: dict[int, int], limit: int, off: float, at_once: int
) -> None:
    outcome = search_quality_step(
        one_by_one(sizes),
        STEPS,
        limit,
        estimate=lambda step: sizes[step] * off,
        most_tries=86,
        at_once=at_once,
    )
    fitting = [step for step in STEPS if sizes[step] <= limit]
    assert outcome.quality_step == (max(fitting) if fitting else None)


def test_a_good_prediction_saves_encodes() -> None:
    sizes = {step: int(1.06**step * 400) for step in STEPS}
    outcome = search_quality_step(one_by_one(sizes), STEPS, 20_000, estimate=lambda step: sizes[step] * 1.1)
    assert outcome.quality_step == max(step for step in STEPS if sizes[step] <= 20_000)
    assert outcome.tries <= 3


def test_the_second_of_two_at_once_makes_up_for_a_first_that_is_a_little_over() -> None:
    sizes = {step: int(1.02**step * 4_000) for step in STEPS}
    asked: list[Sequence[int]] = []

    def sizes_at(quality_steps: Sequence[int]) -> list[int]:
        asked.append(quality_steps)
        return [sizes[step] for step in quality_steps]

    outcome = search_quality_step(
        sizes_at,
        STEPS,
        12_000,
        estimate=lambda step: sizes[step] * 0.97,
        at_once=2,
        near_enough=0.95,
    )
    assert len(asked) == 1
    assert outcome.quality_step is not None
    assert 0.95 * 12_000 <= sizes[outcome.quality_step] <= 12_000
