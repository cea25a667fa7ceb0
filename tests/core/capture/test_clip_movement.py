"""Clips of what the browser moves by itself: animated pictures, films, frames within a page."""

from __future__ import annotations

import base64
import io
from collections.abc import Iterator
from pathlib import Path

import av
import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image

from tallpage.core.capture import PRESETS, Browser, PageRequest, Step
from tallpage.core.capture.clip import ClipRequest, take_clip
from tallpage.core.capture.clip._animation import Animation
from tests.core.capture.plain_site import plain_site
from tests.long import long_but
from tests.pictures import decoded

_COLOURS = {"red": (200, 40, 30), "green": (30, 150, 60), "blue": (40, 60, 190)}
_SHOWN_MS = (100, 200, 100)


def _animated(kind: str, shown_ms: tuple[int, ...] = _SHOWN_MS, **more: int) -> bytes:
    """Red, green and blue, as an animated picture of 80 × 60 px."""
    pictures = [Image.new("RGB", (80, 60), colour) for colour in list(_COLOURS.values())[: len(shown_ms)]]
    file = io.BytesIO()
    pictures[0].save(file, kind, save_all=True, append_images=pictures[1:], duration=list(shown_ms), **more)
    return file.getvalue()


def _film(folder: Path) -> bytes:
    """A second of film at 10 pictures a second, each one step brighter than the one before."""
    path = folder / "film.webm"
    with av.open(str(path), "w") as container:
        stream = container.add_stream("libvpx-vp9", rate=10)
        stream.width, stream.height, stream.pix_fmt = 80, 60, "yuv420p"
        for number in range(10):
            level = np.full((60, 80, 3), 20 + 20 * number, dtype=np.uint8)
            container.mux(stream.encode(av.VideoFrame.from_ndarray(level, format="rgb24")))
        container.mux(stream.encode())
    return path.read_bytes()


_STYLE = "<!doctype html><meta charset=utf-8><style>body{margin:0} body>*{position:absolute;left:0}</style>"
_WRITTEN = base64.b64encode(_animated("WEBP", loop=0)).decode()
PAGES = {
    "/pictures": f"""{_STYLE}<img src=/endless.gif style=top:0><img src=/once.gif style=top:100px>
        <div style="top:200px;width:80px;height:60px;background:url(/ground.png)"></div>
        <img src="data:image/webp;base64,{_WRITTEN}" style=top:300px>
        <img srcset="/endless.gif 2x" style=top:400px>""",
    "/late": f"""{_STYLE}<button style=top:300px onclick="const image = new Image();
        image.src = '/endless.gif'; document.body.append(image)">Show</button>""",
    "/film": f"{_STYLE}<video src=/film.webm autoplay muted loop></video>",
    "/whole-film": f"{_STYLE}<video src=/film.webm?whole autoplay muted loop></video>",
    "/frame": f"{_STYLE}<iframe src=/within style='width:400px;height:60px;border:0'></iframe>",
    "/never": f"{_STYLE}<div style=height:9000px></div><iframe src=/within loading=lazy></iframe>",
    "/within": """<!doctype html><style>body{margin:0} div{width:40px;height:60px;
        background:rgb(200,40,30);animation:over 1s linear infinite}
        @keyframes over{to{transform:translateX(200px)}}</style><div></div>""",
}


@pytest.fixture(scope="module")
def pages(tmp_path_factory: pytest.TempPathFactory) -> Iterator[str]:
    files = {
        "/endless.gif": _animated("GIF", loop=0),
        "/once.gif": _animated("GIF"),
        "/ground.png": _animated("PNG", loop=0),
        "/film.webm": _film(tmp_path_factory.mktemp("film")),
    }
    with plain_site(PAGES, files) as address:
        yield address


@pytest.fixture(scope="module")
def browser() -> Iterator[Browser]:
    with Browser() as started:
        yield started


def _frames(
    browser: Browser, address: str, folder: Path, *steps: str, rate_fps: int = 10
) -> list[np.ndarray]:
    """One second of a page, watched."""
    done = tuple(Step.parse(line) for line in steps)
    page = PageRequest(address=address, screen=PRESETS["desk"], steps=done)
    request = ClipRequest(page=page, seconds=1.0, rate_fps=rate_fps, plays_steps=bool(steps))
    frames, _ = take_clip(browser, request, folder)
    return [decoded((folder / frame.file).read_bytes()) for frame in frames.frames]


def _colours(frames: list[np.ndarray], top_px: int) -> list[str]:
    """Which colour is seen 20 px below a height, in each frame."""

    def nearest(frame: np.ndarray) -> str:
        seen = frame[top_px + 20, 20].astype(int)
        return min(_COLOURS, key=lambda name: int(np.abs(seen - _COLOURS[name]).sum()))

    return [nearest(frame) for frame in frames]


def test_animated_pictures_move_in_the_clips_time(browser: Browser, pages: str, tmp_path: Path) -> None:
    frames = _frames(browser, f"{pages}/pictures", tmp_path)
    endless = ["red", "green", "green", "blue"] * 2 + ["red", "green"]
    assert _colours(frames, 0) == endless
    assert _colours(frames, 100) == [*endless[:4], *["blue"] * 6]
    assert _colours(frames, 200) == endless, "behind an element"
    assert _colours(frames, 300) == endless, "written into the page"
    assert (frames[4][425, 30] == _COLOURS["red"]).all(), "for a sharper screen"
    assert (frames[4][435, 30] == 255).all(), "half as large as its px"


@pytest.mark.long
def test_a_picture_that_comes_later_begins_then(browser: Browser, pages: str, tmp_path: Path) -> None:
    frames = _frames(browser, f"{pages}/late", tmp_path, 'click "Show"')
    seen = [frame for frame in frames if not (frame[20, 20] == 255).all()]
    assert len(seen) > 10
    assert _colours(seen, 0)[:8] == ["red", "green", "green", "blue"] * 2


@pytest.mark.long
@pytest.mark.parametrize("path", long_but(["/whole-film"], ["/film", "/whole-film"]))
def test_a_film_moves_in_the_clips_time(browser: Browser, pages: str, tmp_path: Path, path: str) -> None:
    frames = _frames(browser, f"{pages}{path}", tmp_path, rate_fps=20)
    levels = [int(frame[20, 20, 0]) for frame in frames]
    assert levels == pytest.approx([20 + 20 * (number // 2) for number in range(20)], abs=3)


@pytest.mark.long
def test_frames_within_a_page_move_evenly(browser: Browser, pages: str, tmp_path: Path) -> None:
    frames = _frames(browser, f"{pages}/frame", tmp_path)
    left_px = [int(np.argmax((frame[30] == _COLOURS["red"]).all(axis=1))) for frame in frames]
    assert left_px == pytest.approx([20 * number for number in range(10)], abs=1)


@pytest.mark.long
def test_a_frame_that_nothing_comes_of_holds_nothing_up(browser: Browser, pages: str, tmp_path: Path) -> None:
    assert len(_frames(browser, f"{pages}/never", tmp_path)) == 10


@given(
    shown_ms=st.lists(st.integers(0, 400).map(lambda tens: tens * 10), min_size=2, max_size=3),
    moment_ms=st.integers(0, 20_000),
)
def test_what_is_seen_of_an_animation_is_what_its_durations_say(shown_ms: list[int], moment_ms: int) -> None:
    animation = Animation.of(_animated("GIF", tuple(shown_ms), loop=0))
    assert animation is not None
    timeline = [number for number, ms in enumerate(shown_ms) for _ in range((ms if ms > 10 else 100) // 10)]
    assert animation.number_at(moment_ms) == timeline[moment_ms // 10 % len(timeline)]


@pytest.mark.parametrize("data", [b"", b"GIF89a", _animated("GIF", loop=0)[:300], _animated("PNG", (100,))])
def test_what_does_not_move_or_cannot_be_read_is_no_animation(data: bytes) -> None:
    assert Animation.of(data) is None
