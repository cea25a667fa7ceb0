"""Frames in a folder."""

from pathlib import Path

import numpy as np
import pytest

from tallpage.core.clip import FramesWriter, open_frames
from tallpage.core.errors import ClipError
from tests.core.clip.made_up import frames_of, scrolled
from tests.pictures import as_png


def test_frames_are_found_again_and_what_shows_the_same_is_kept_once(tmp_path: Path) -> None:
    first, second = scrolled(2)
    frames = frames_of(tmp_path / "clip", [first, first, second, first], rate_fps=15)
    assert open_frames(tmp_path / "clip") == frames
    assert len(frames.frames) == 4
    assert len(list((tmp_path / "clip").glob("*.png"))) == 2
    assert frames.seconds == pytest.approx(4 / 15)


def test_a_folder_without_an_index_holds_no_clip(tmp_path: Path) -> None:
    FramesWriter(tmp_path, rate_fps=10).add(as_png(scrolled(1)[0]))
    with pytest.raises(ClipError, match="cannot be read"):
        open_frames(tmp_path)


@pytest.mark.parametrize("told", ["", "{}", '{"version": 1, "frames": [{}]}', "[1]"])
def test_an_index_that_is_none_is_told(tmp_path: Path, told: str) -> None:
    (tmp_path / "frames.json").write_text(told)
    with pytest.raises(ClipError, match="cannot be read"):
        open_frames(tmp_path)


def test_a_frame_of_another_size_no_frame_and_too_many_are_refused(tmp_path: Path) -> None:
    writer = FramesWriter(tmp_path, rate_fps=1)
    with pytest.raises(ClipError, match="No frame"):
        writer.finish()
    small = as_png(np.zeros((4, 4, 3), dtype=np.uint8))
    for _ in range(60):
        writer.add(small)
    with pytest.raises(ClipError, match="at most 60 s"):
        writer.add(small)
    other = FramesWriter(tmp_path, rate_fps=10)
    other.add(small)
    with pytest.raises(ClipError, match="Frame 2 has 5 × 4 px"):
        other.add(as_png(np.zeros((4, 5, 3), dtype=np.uint8)))


@pytest.mark.parametrize("rate", [0, -1, 31, 10**40])
def test_absurd_rates_are_refused(tmp_path: Path, rate: int) -> None:
    with pytest.raises(ClipError, match="frames a second are not possible"):
        FramesWriter(tmp_path, rate_fps=rate)
