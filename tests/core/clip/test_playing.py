"""Which frame is seen when."""

from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tallpage.core.clip import ClipDocument, Frame, Frames, length_ms, played, thinned
from tallpage.core.errors import ClipError


def _frames(count: int, *, rate_fps: int = 10, files: str = "") -> Frames:
    names = files or [f"{number}.png" for number in range(count)]
    return Frames(
        folder=Path("/nowhere"),
        width_px=10,
        height_px=10,
        rate_fps=rate_fps,
        frames=tuple(Frame(file=name) for name in names),
    )


def _rows(frames: Frames, **document: object) -> list[tuple[int, int]]:
    shown = played(frames, ClipDocument(**document))  # type: ignore[arg-type]
    return [(row.frame, row.duration_ms) for row in shown]


def test_all_are_seen_for_as_long_as_each_other() -> None:
    assert _rows(_frames(3)) == [(0, 100), (1, 100), (2, 100)]


def test_what_is_dropped_goes_with_its_time_and_what_is_thinned_does_not() -> None:
    assert _rows(_frames(4), dropped=frozenset({1, 2})) == [(0, 100), (3, 100)]
    assert _rows(_frames(5), keep_every=2) == [(0, 200), (2, 200), (4, 100)]


def test_there_and_back_turns_at_the_ends_which_are_held_once() -> None:
    assert _rows(_frames(4), there_and_back=True, hold_start_ms=500, hold_end_ms=300) == [
        (0, 600),
        (1, 100),
        (2, 100),
        (3, 400),
        (2, 100),
        (1, 100),
    ]
    assert _rows(_frames(1), there_and_back=True) == [(0, 100)]


def test_what_shows_the_same_only_lasts_longer() -> None:
    assert _rows(_frames(5, files="aabba")) == [(0, 200), (2, 200), (4, 100)]


def test_without_the_pointer_its_moves_are_nothing_to_be_seen() -> None:
    frames = Frames(
        folder=Path("/nowhere"),
        width_px=10,
        height_px=10,
        rate_fps=10,
        frames=(Frame(file="a", pointer_px=(1, 1)), Frame(file="a", pointer_px=(2, 1))),
    )
    assert _rows(frames) == [(0, 100), (1, 100)]
    assert _rows(frames, pointer=False) == [(0, 200)]


def test_no_frame_left_is_told() -> None:
    with pytest.raises(ClipError, match="Every frame"):
        played(_frames(2), ClipDocument(dropped=frozenset({0, 1})))


@given(
    count=st.integers(1, 80),
    rate_fps=st.integers(1, 30),
    speed=st.floats(0.1, 10),
    keep_every=st.integers(1, 5),
    dropped=st.frozensets(st.integers(1, 79)),
    there_and_back=st.booleans(),
)
def test_the_length_is_right_and_nothing_is_seen_between_two(
    count: int, rate_fps: int, speed: float, keep_every: int, dropped: frozenset[int], there_and_back: bool
) -> None:
    document = ClipDocument(
        speed=speed, keep_every=keep_every, dropped=dropped, there_and_back=there_and_back
    )
    shown = played(_frames(count, rate_fps=rate_fps), document)
    ends = [row.start_ms + row.duration_ms for row in shown]
    assert [row.start_ms for row in shown] == [0, *ends[:-1]]
    kept = count - len([number for number in dropped if number < count])
    if not there_and_back:
        assert length_ms(shown) == pytest.approx(kept * 1_000 / rate_fps / speed, abs=1)
    assert {row.frame for row in shown}.isdisjoint(dropped)
    fewer = thinned(shown, 3)
    assert length_ms(fewer) == length_ms(shown)
    assert [row.frame for row in fewer] == [row.frame for row in shown[::3]]


@pytest.mark.parametrize(
    "absurd",
    [{"speed": 0}, {"speed": 11}, {"speed": float("nan")}, {"keep_every": 0}, {"repeats": -1},
     {"hold_end_ms": 10**9}],
)  # fmt: skip
def test_absurd_numbers_are_refused(absurd: dict[str, float]) -> None:
    with pytest.raises(ClipError, match="not possible"):
        ClipDocument(**absurd)  # type: ignore[arg-type]
