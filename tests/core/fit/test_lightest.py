"""As light as possible while it looks so good."""

from dataclasses import replace
from typing import ClassVar

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tallpage.core.errors import FitError
from tallpage.core.fit import Candidate, Choice, FitOrder, FitResult, FitWatch, Verdict, fit_order, fit_with
from tallpage.core.fit.encoding._formats import Format
from tallpage.core.fit.search._lightest import search_lowest
from tests.long import long_but
from tests.pictures import Pixels, photograph, raster_of, text_page

ALL: tuple[Format, ...] = ("jpeg", "png", "webp", "avif")


def _fitted(pixels: Pixels, **order: object) -> FitResult:
    raster = raster_of(pixels)
    asked = {"formats": ALL, "limit_bytes": None, **order}
    return fit_order(raster, FitOrder(**asked))  # type: ignore[arg-type]


@pytest.mark.parametrize("fidelity", long_but([75], [60, 75, 88]))
@pytest.mark.parametrize("kind", [photograph, text_page])
def test_the_file_looks_as_good_as_asked_for_and_a_step_lighter_does_not(kind: object, fidelity: int) -> None:
    pixels = kind(360, 420)  # type: ignore[operator]
    result = _fitted(pixels, fidelity=fidelity, formats=("jpeg",))
    assert result.met
    chosen = result.chosen
    assert chosen is not None
    assert chosen.fidelity >= fidelity
    assert chosen.choice.quality is not None
    for subsampled in (False, True):
        quality = max(2, chosen.choice.quality - 8)
        lighter = fit_with(raster_of(pixels), Choice(format="jpeg", quality=quality, subsampled=subsampled))
        assert lighter.fidelity < fidelity or lighter.byte_count >= 0.9 * chosen.byte_count


def test_of_all_formats_the_lightest_is_taken() -> None:
    pixels = photograph(400, 300)
    alone = [_fitted(pixels, fidelity=80, formats=(name,)) for name in ("jpeg", "webp", "avif")]
    every = _fitted(pixels, fidelity=80)
    assert every.chosen is not None
    weights = [row.chosen.byte_count for row in alone if row.met and row.chosen]
    assert every.chosen.byte_count <= 1.02 * min(weights)


def test_a_drawing_is_kept_exactly_where_that_is_lightest() -> None:
    plain = np.full((300, 400, 3), 240, np.uint8)
    plain[100:200, 100:300] = (30, 90, 60)
    result = _fitted(plain, fidelity=90)
    assert result.chosen is not None
    assert result.chosen.fidelity == 100


@pytest.mark.long
def test_with_a_limit_above_it_both_are_kept_or_it_is_said_what_would_be_needed() -> None:
    pixels = photograph(400, 300)
    free = _fitted(pixels, fidelity=80)
    assert free.chosen is not None
    needed_bytes = free.chosen.byte_count
    same = _fitted(pixels, fidelity=80, limit_bytes=needed_bytes + 10)
    assert same.met
    assert same.chosen is not None
    assert same.chosen.byte_count == needed_bytes
    tight = _fitted(pixels, fidelity=80, limit_bytes=needed_bytes // 2)
    assert not tight.met
    assert tight.chosen is not None
    assert tight.chosen.byte_count <= needed_bytes // 2
    assert next(row for row in tight.advice if row.kind == "limit").value == needed_bytes


def test_what_no_format_reaches_comes_as_near_as_it_can() -> None:
    result = _fitted(photograph(200, 200), fidelity=99.9, formats=("jpeg",))
    assert not result.met
    assert result.chosen is None or result.chosen.fidelity < 99.9


@pytest.mark.parametrize(
    "order", [{}, {"fidelity": 20}, {"fidelity": 101}, {"fidelity": 80, "limit_bytes": 0}]
)
def test_what_cannot_be_asked_for_is_refused(order: dict[str, object]) -> None:
    with pytest.raises(FitError):
        _fitted(photograph(40, 40), **order)


def test_a_watch_hears_what_is_expected_and_then_the_file() -> None:
    class Heard(FitWatch):
        expected: ClassVar[list[Verdict]] = []
        made: ClassVar[list[Candidate]] = []

        def expecting(self, verdict: Verdict) -> None:
            self.expected.append(verdict)

        def best_so_far(self, candidate: Candidate) -> None:
            self.made.append(candidate)

    heard = Heard()
    raster = raster_of(photograph(300, 300))
    free = FitOrder(limit_bytes=None, formats=ALL, fidelity=75)
    result = fit_order(raster, free, watch=heard)
    assert heard.made == [result.chosen]
    assert heard.expected[0].met
    assert heard.expected[0].byte_count == pytest.approx(heard.made[0].byte_count, rel=0.4)
    limit_bytes = heard.made[0].byte_count // 2
    heard.made.clear()
    fit_order(raster, replace(free, limit_bytes=limit_bytes), watch=heard)
    assert heard.made
    assert all(row.byte_count <= limit_bytes for row in heard.made), "who stops keeps what was told last"


@given(
    st.lists(st.floats(0, 100), min_size=2, max_size=60),
    st.floats(0, 100),
    st.data(),
)
def test_only_what_was_seen_to_look_good_enough_is_taken(
    looks: list[float], wanted: float, data: st.DataObject
) -> None:
    start = data.draw(st.integers(0, len(looks) - 1))
    seen: dict[int, float] = {}

    def look(position: int) -> float:
        seen[position] = looks[position]
        return looks[position]

    found = search_lowest(look, len(looks), start, wanted, estimate=lambda at: 100 * at / len(looks))
    assert len(seen) <= 5
    if found is not None:
        assert seen[found] >= wanted
        assert all(at >= found for at, value in seen.items() if value >= wanted)


@given(st.integers(3, 90), st.floats(5, 95))
def test_where_looks_rise_evenly_the_lowest_is_found(count: int, wanted: float) -> None:
    def look(position: int) -> float:
        return 100 * (position + 1) / count

    found = search_lowest(look, count, count // 2, wanted, estimate=look, most_tries=count)
    assert found is not None
    assert look(found) >= wanted
    assert found == 0 or look(found - 1) < wanted or look(found) < wanted + 0.6
