"""Clips of pages: scrolled through, used, watched."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tallpage.core.capture import PRESETS, Browser, PageRequest, Step
from tallpage.core.capture.clip import ClipReport, ClipRequest, Scroll, take_clip
from tallpage.core.capture.clip._scrolling import scroll_positions
from tallpage.core.clip import Frames
from tallpage.core.errors import ClipError, Stopped
from tests.core.capture.plain_site import plain_site
from tests.pictures import decoded

_STYLE = "<!doctype html><meta charset=utf-8><style>body{margin:0;font:20px sans-serif}"
PAGES = {
    "/tall": f"""{_STYLE} header{{position:sticky;top:0;height:60px;background:#123}}
        section{{height:900px}} section:nth-child(odd){{background:linear-gradient(#fff,#8bd)}}</style>
        <title>Tall</title><header></header>"""
    + "".join(f"<section><h2>Part {number}</h2></section>" for number in range(4)),
    "/moving": f"""{_STYLE} .mark{{position:absolute;top:100px;left:0;width:50px;height:50px;background:#c30;
        animation:over 2s linear infinite}} @keyframes over{{to{{transform:translateX(400px)}}}}
        .count{{position:absolute;top:300px;left:20px;width:50px;height:40px;background:#000}}</style>
        <title>Moving</title><div class=mark></div><div class=count></div><script>
        let beats = 0; setInterval(() => {{ beats += 1;
        document.querySelector(".count").style.height = 40 + beats * 10 + "px"; }}, 200);</script>""",
    "/used": f"""{_STYLE} button,input{{position:absolute;left:600px;width:200px;height:60px}}
        p{{position:absolute;top:500px;left:20px;width:600px;height:200px;background:#283}}</style>
        <title>Used</title><button style=top:100px onclick="document.body.append(
        document.createElement('p'))">More</button><input style=top:300px name=island>""",
}


@pytest.fixture(scope="module")
def pages() -> Iterator[str]:
    with plain_site(PAGES) as address:
        yield address


@pytest.fixture(scope="module")
def browser() -> Iterator[Browser]:
    with Browser() as started:
        yield started


def _take(
    browser: Browser, address: str, folder: Path, *, steps: tuple[str, ...] = (), **clip: Any
) -> tuple[Frames, ClipReport]:
    folder.mkdir()
    page = PageRequest(
        address=address, screen=PRESETS["desk"], steps=tuple(Step.parse(line) for line in steps)
    )
    return take_clip(browser, ClipRequest(page=page, **clip), folder)


def _pixels(frames: Frames, number: int) -> np.ndarray:
    return decoded((frames.folder / frames.frames[number].file).read_bytes())


@pytest.mark.long
def test_two_takes_of_a_scroll_are_the_same_and_what_sticks_stays(
    browser: Browser, pages: str, tmp_path: Path
) -> None:
    scroll = Scroll(speed_px_s=2_000)
    frames, report = _take(browser, f"{pages}/tall", tmp_path / "one", scroll=scroll)
    again, _ = _take(browser, f"{pages}/tall", tmp_path / "two", scroll=scroll)
    assert frames.frames == again.frames
    assert report.title == "Tall"
    first, last = _pixels(frames, 0), _pixels(frames, -1)
    assert first.shape == last.shape == (800, 1280, 3)
    assert not np.array_equal(first, last)
    assert np.array_equal(first[:60], last[:60])
    assert len({frame.file for frame in frames.frames}) > 15


def test_what_moves_is_seen_in_its_own_time(browser: Browser, pages: str, tmp_path: Path) -> None:
    frames, _ = _take(browser, f"{pages}/moving", tmp_path / "clip", seconds=1.0, rate_fps=10)

    def left_px(number: int) -> int:
        return int(np.argwhere((_pixels(frames, number)[120] == (204, 51, 0)).all(axis=1))[0, 0])

    def beats(number: int) -> int:
        column = _pixels(frames, number)[300:700, 40]
        return (int((column == 0).all(axis=1).sum()) - 40) // 10

    assert len(frames.frames) == 10
    steps = [left_px(number + 1) - left_px(number) for number in range(9)]
    assert steps == pytest.approx([20] * 9, abs=2)
    assert beats(9) - beats(1) == 4


@pytest.mark.long
def test_an_element_is_all_that_is_seen(browser: Browser, pages: str, tmp_path: Path) -> None:
    frames, _ = _take(browser, f"{pages}/moving", tmp_path / "clip", seconds=0.4, element=".count")
    assert frames.width_px == 50
    assert (_pixels(frames, 0)[:40] == 0).all()


@pytest.mark.long
def test_steps_are_seen_as_they_are_done_and_one_that_fails_is_told(
    browser: Browser, pages: str, tmp_path: Path
) -> None:
    lines = ('click "More"', "click #nowhere", "type [name=island] = Auk", "pause 0.5")
    folder = tmp_path / "clip"
    folder.mkdir()
    steps = tuple(Step.parse(line) for line in lines)
    page = PageRequest(address=f"{pages}/used", screen=PRESETS["desk"], steps=steps)
    frames, report = take_clip(browser, ClipRequest(page=page, plays_steps=True, rate_fps=8), folder)
    assert report.done == (lines[0], *lines[2:])
    assert report.warnings == (f"This step could not be done: {lines[1]}.",)
    pressed = [number for number, frame in enumerate(frames.frames) if frame.pressed]
    assert pressed
    assert frames.frames[pressed[0]].pointer_px == pytest.approx((700, 130), abs=3)
    assert (_pixels(frames, pressed[0])[600, 100] == 255).all(), "nothing is there before the click"
    assert (_pixels(frames, -1)[600, 100] == (34, 136, 51)).all()
    typed = {frame.file for frame in frames.frames[-14:]}
    assert len(typed) >= 3, "letter by letter"


def test_a_clip_is_stopped_and_one_that_would_last_too_long_is_refused(
    browser: Browser, pages: str, tmp_path: Path
) -> None:
    with pytest.raises(ClipError, match="at most 60 s"):
        _take(browser, f"{pages}/tall", tmp_path / "slow", scroll=Scroll(speed_px_s=20))
    page = PageRequest(address=f"{pages}/tall", screen=PRESETS["desk"])
    (tmp_path / "stopped").mkdir()
    with pytest.raises(Stopped):
        take_clip(browser, ClipRequest(page=page, seconds=1.0), tmp_path / "stopped", is_stopped=lambda: True)


@pytest.mark.parametrize(
    "clip", [{}, {"seconds": 61}, {"seconds": 1, "rate_fps": 0}, {"scroll": Scroll(), "seconds": 1}]
)
def test_what_makes_no_clip_is_refused(clip: dict[str, Any]) -> None:
    with pytest.raises(ClipError):
        ClipRequest(page=PageRequest(address="http://a.test/", screen=PRESETS["desk"]), **clip)


@given(
    reach_px=st.integers(0, 40_000),
    from_px=st.integers(0, 40_000),
    to_px=st.none() | st.integers(0, 40_000),
    speed_px_s=st.none() | st.integers(20, 20_000),
    pause_s=st.sampled_from([0.0, 0.5, 2.0]),
    tops_px=st.lists(st.integers(0, 40_000), max_size=30),
    rate_fps=st.integers(1, 30),
)
def test_a_scroll_begins_and_ends_where_it_should_and_never_turns(
    reach_px: int,
    from_px: int,
    to_px: int | None,
    speed_px_s: int | None,
    pause_s: float,
    tops_px: list[int],
    rate_fps: int,
) -> None:
    scroll = Scroll(from_px=from_px, to_px=to_px, speed_px_s=speed_px_s, pause_s=pause_s)
    positions = scroll_positions(scroll, reach_px=reach_px, tops_px=tops_px, window_px=800, rate_fps=rate_fps)
    first, last = min(from_px, reach_px), reach_px if to_px is None else min(to_px, reach_px)
    assert positions[0] == first
    assert positions[-1] == last
    way = positions if last >= first else positions[::-1]
    assert way == sorted(way)


def test_a_scroll_stays_where_headings_come_to_the_top() -> None:
    positions = scroll_positions(
        Scroll(pause_s=1.0, speed_px_s=1_000),
        reach_px=3_000,
        tops_px=[0, 900, 1_000, 1_900, 2_950],
        window_px=800,
        rate_fps=10,
    )
    assert positions.count(900) == 11
    assert positions.count(1_000) == 0
    assert positions.count(1_900) == 11
