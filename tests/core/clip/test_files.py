"""Files of clips: what is read back, and what a limit leaves."""

import os
import sys
from collections.abc import Callable, Iterable, Iterator, Sequence
from pathlib import Path

import numpy as np
import pytest
from PIL import Image

from tallpage.core.clip import (
    CLIP_FORMATS,
    STEPS,
    ClipDocument,
    ClipFormat,
    ClipSettings,
    Frame,
    Frames,
    Shown,
    clip_format,
    draw,
    draw_all,
    played,
)
from tallpage.core.clip.making import (
    ClipRules,
    fidelity_over_time,
    fit_clip,
    read_clip,
    write_clip,
)
from tallpage.core.errors import ClipError, Stopped
from tallpage.core.geometry import Box, Size
from tests.core.clip.made_up import blinking, frames_of, noise, scrolled

SIZE = Size(width_px=320, height_px=200)


def _drawer(frames: Frames) -> Callable[[Sequence[Shown]], Iterable[tuple[np.ndarray, Shown]]]:
    return lambda shown: draw_all(frames, ClipDocument(), shown, SIZE)


def _written(frames: Frames, file: Path, settings: ClipSettings, document: ClipDocument) -> list[float]:
    """When each picture of the file begins; the file is written, and is close to what it was made of."""
    shown = played(frames, document)
    write_clip(file, shown, _drawer(frames), SIZE, settings, repeats=2)
    close = fidelity_over_time(draw_all(frames, document, shown, SIZE), read_clip(file, settings.format))
    assert close > 60
    return [start_ms for _, start_ms in read_clip(file, settings.format)]


@pytest.mark.parametrize("format_", CLIP_FORMATS)
def test_every_format_shows_each_picture_when_it_is_to_be_seen(tmp_path: Path, format_: ClipFormat) -> None:
    frames = frames_of(tmp_path / "clip", scrolled(8))
    document = ClipDocument(hold_start_ms=150, hold_end_ms=400)
    settings = ClipSettings(format=format_, step=STEPS[format_] - 1)
    starts = _written(frames, tmp_path / f"clip.{format_}", settings, document)
    assert starts[:8] == pytest.approx([row.start_ms for row in played(frames, document)], abs=5)


def test_a_gif_and_a_webp_last_as_long_as_they_should_and_say_how_often(tmp_path: Path) -> None:
    frames = frames_of(tmp_path / "clip", scrolled(4))
    for format_, times in (("gif", 1), ("webp", 2)):
        file = tmp_path / f"clip.{format_}"
        _written(frames, file, ClipSettings(format=format_, step=10), ClipDocument(hold_end_ms=700))  # type: ignore[arg-type]
        with Image.open(file) as picture:
            assert picture.info["loop"] == times  # a GIF counts how often it plays again
            lasts = []
            for number in range(picture.n_frames):  # type: ignore[attr-defined]
                picture.seek(number)
                picture.load()
                lasts.append(picture.info["duration"])
        assert lasts[:3] == [100, 100, 100]
        assert sum(lasts) == pytest.approx(1_100, abs=10)


def test_a_palette_for_each_frame_keeps_colours_that_one_for_all_has_no_room_for(tmp_path: Path) -> None:
    ramps = [np.zeros((200, 320, 3), dtype=np.uint8) for _ in range(6)]
    for number, pixels in enumerate(ramps):
        pixels[..., number % 3] = np.linspace(0, 255, 320, dtype=np.uint8)
        pixels[..., (number + 1) % 3] = 40 * number
    frames = frames_of(tmp_path / "clip", ramps)
    document, shown = ClipDocument(), played(frames, ClipDocument())
    scores = []
    for palette in ("all", "each"):
        settings = ClipSettings(format="gif", step=6, palette=palette)  # type: ignore[arg-type]
        file = tmp_path / f"{palette}.gif"
        write_clip(
            file, shown, lambda rows: draw_all(frames, document, rows, SIZE), SIZE, settings, repeats=0
        )
        originals = draw_all(frames, document, shown, SIZE)
        scores.append(fidelity_over_time(originals, read_clip(file, "gif")))
    assert scores[1] > scores[0]


def test_the_same_pictures_are_as_close_as_can_be_and_a_missing_one_counts_as_what_is_seen(
    tmp_path: Path,
) -> None:
    frames = frames_of(tmp_path / "clip", scrolled(4))
    document = ClipDocument()
    originals = list(draw_all(frames, document, played(frames, document), SIZE))
    same = [(pixels, float(row.start_ms)) for pixels, row in originals]
    assert fidelity_over_time(originals, same) == 100
    half = fidelity_over_time(originals, [same[0], same[2]])
    assert 40 < half < 80
    assert fidelity_over_time(originals, same[:1]) < half


def test_the_pointer_is_drawn_with_a_ring_where_it_presses(tmp_path: Path) -> None:
    plain = frames_of(tmp_path / "clip", [np.full((100, 100, 3), 250, dtype=np.uint8)])
    file = plain.frames[0].file
    size = Size(width_px=100, height_px=100)

    def drawn(document: ClipDocument = ClipDocument(), **frame: object) -> np.ndarray:  # noqa: B008
        one = Frames(
            folder=plain.folder,
            width_px=100,
            height_px=100,
            rate_fps=10,
            frames=(Frame(file=file, **frame),),  # type: ignore[arg-type]
        )
        return draw(one, document, 0, size)

    bare, pointed = drawn(), drawn(pointer_px=(50, 50))
    changed = np.argwhere((bare != pointed).any(axis=2))
    assert changed.min(axis=0) == pytest.approx([50, 50], abs=2)
    pressed = drawn(pointer_px=(50, 50), pressed=True)
    assert (pressed != pointed).any(axis=2).sum() > 100
    assert np.array_equal(drawn(ClipDocument(pointer=False), pointer_px=(50, 50)), bare)
    assert np.array_equal(drawn(pointer_px=(900, -300)), bare)  # far outside of what is seen


def test_a_part_is_cropped_and_one_that_lies_outside_is_refused(tmp_path: Path) -> None:
    (pixels,) = scrolled(1)
    frames = frames_of(tmp_path / "clip", [pixels])
    box = Box(x_px=10, y_px=20, width_px=100, height_px=50)
    assert np.array_equal(draw(frames, ClipDocument(box=box), 0, box.size), pixels[20:70, 10:110])
    with pytest.raises(ClipError, match="does not lie on"):
        draw(frames, ClipDocument(box=Box(x_px=300, y_px=0, width_px=100, height_px=50)), 0, box.size)


@pytest.mark.long
@pytest.mark.parametrize(("format_", "limit"), [("gif", 40_000), ("webp", 40_000), ("mp4", 20_000)])
def test_a_file_is_never_over_its_limit_and_says_what_was_given_up(
    tmp_path: Path, format_: ClipFormat, limit: int
) -> None:
    frames = frames_of(tmp_path / "clip", blinking(20))
    out, tries = tmp_path / "out", []
    made = fit_clip(
        frames, ClipDocument(), ClipRules(format=format_, limit_bytes=limit), out, on_try=tries.append
    )
    assert out.stat().st_size == made.byte_count <= limit
    assert made.is_met
    assert made.given_up
    assert tries == list(range(1, len(tries) + 1))
    originals = draw_all(frames, ClipDocument(), played(frames, ClipDocument()), made.wanted)
    assert fidelity_over_time(originals, read_clip(out, format_)) == pytest.approx(made.fidelity, abs=3)


def test_what_has_room_gives_nothing_up(tmp_path: Path) -> None:
    frames = frames_of(tmp_path / "clip", blinking(6))
    rules = ClipRules(format="webp", limit_bytes=5_000_000, width_px=160)
    made = fit_clip(frames, ClipDocument(), rules, tmp_path / "out")
    assert (made.size, made.frames) == (Size(width_px=160, height_px=100), 6)
    assert made.given_up == ("Made with quality 100.",)


@pytest.mark.long
def test_a_limit_that_cannot_be_met_comes_with_numbers_that_hold(tmp_path: Path) -> None:
    frames = frames_of(tmp_path / "clip", noise(8, width_px=160, height_px=100))
    made = fit_clip(frames, ClipDocument(), ClipRules(format="mp4", limit_bytes=20_000), tmp_path / "out")
    assert not made.is_met
    limit, length = made.advice
    assert (limit.kind, length.kind) == ("limit", "length")
    assert length.value < 800
    rules = ClipRules(format="mp4", limit_bytes=round(limit.value * 1.1))
    assert fit_clip(frames, ClipDocument(), rules, tmp_path / "out").is_met


@pytest.mark.long
def test_where_another_format_would_do_it_is_named_and_does(tmp_path: Path) -> None:
    frames = frames_of(tmp_path / "clip", scrolled(12))
    rules = ClipRules(format="gif", limit_bytes=20_000, keeps_width=True)
    made = fit_clip(frames, ClipDocument(), rules, tmp_path / "out")
    assert not made.is_met
    other, *_ = made.advice
    assert (other.kind, "As AVIF all of it would do" in other.sentence) == ("format", True)
    rules = ClipRules(format="avif", limit_bytes=round(other.value * 1.1), keeps_width=True)
    assert fit_clip(frames, ClipDocument(), rules, tmp_path / "out").is_met


@pytest.mark.long
def test_a_width_that_is_to_be_kept_is(tmp_path: Path) -> None:
    frames = frames_of(tmp_path / "clip", scrolled(10))
    rules = ClipRules(format="webp", limit_bytes=60_000, width_px=320, keeps_width=True)
    assert fit_clip(frames, ClipDocument(), rules, tmp_path / "out").size == SIZE


def test_making_is_stopped_and_absurd_widths_are_refused(tmp_path: Path) -> None:
    frames = frames_of(tmp_path / "clip", scrolled(3))
    rules = ClipRules(format="gif", limit_bytes=1_000)
    with pytest.raises(Stopped):
        fit_clip(frames, ClipDocument(), rules, tmp_path / "out", is_stopped=lambda: True)
    for width_px in (0, 63, 10**30):
        with pytest.raises(ClipError, match="px wide"):
            fit_clip(
                frames,
                ClipDocument(),
                ClipRules(format="gif", limit_bytes=1_000, width_px=width_px),
                tmp_path / "out",
            )
    with pytest.raises(ClipError, match="not a format of clips"):
        clip_format("bmp")


@pytest.mark.parametrize("format_", CLIP_FORMATS)
@pytest.mark.skipif(sys.platform != "linux", reason="asks Linux about threads")
def test_no_format_puts_the_process_on_real_time_priority(tmp_path: Path, format_: ClipFormat) -> None:
    frames = frames_of(tmp_path / "clip", blinking(4))
    shown = played(frames, ClipDocument())
    seen = []

    def draw_watched(rows: Sequence[Shown]) -> Iterator[tuple[np.ndarray, Shown]]:
        for drawn in draw_all(frames, ClipDocument(), rows, SIZE):
            seen.extend(os.sched_getscheduler(int(row.name)) for row in Path("/proc/self/task").iterdir())
            yield drawn

    write_clip(tmp_path / "out", shown, draw_watched, SIZE, ClipSettings(format=format_, step=0), repeats=0)
    assert set(seen) == {os.SCHED_OTHER}
    assert os.sched_getscheduler(0) == os.SCHED_OTHER
