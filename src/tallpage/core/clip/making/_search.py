"""The best-looking clip under a limit: how wide, how many frames a second, how many colours or how fine.

Widths and frames are tried out on a sample of the clip, the last steps on all of it: what is returned is
a file that was written, so it is never over the limit.
"""

from __future__ import annotations

import math
import shutil
import tempfile
from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from pathlib import Path

import numpy as np

from tallpage.core.clip._document import ClipDocument
from tallpage.core.clip._drawing import Pixels, draw, draw_all
from tallpage.core.clip._frames import Frames
from tallpage.core.clip._playing import Shown, length_ms, played, thinned
from tallpage.core.clip._settings import (
    LEAST_WIDTH_PX,
    MOST_WIDTH_PX,
    STEPS,
    ClipFormat,
    ClipSettings,
    Palette,
)
from tallpage.core.clip.making._advice import OTHER_FORMATS, ClipAdvice, advise, advise_format
from tallpage.core.clip.making._judging import Judge, at_even_size, fidelity_over_time, moments
from tallpage.core.clip.making.encoding._reading import read_clip
from tallpage.core.clip.making.encoding._writing import needs_even_sides, write_clip
from tallpage.core.errors import ClipError, Stopped
from tallpage.core.fit import ACCEPTABLE_FIDELITY, closeness, fidelity, search_quality_step
from tallpage.core.geometry import Size

_SHARES = (1.0, 0.84, 0.7, 0.59, 0.5, 0.42, 0.35, 0.27, 0.2)
_EVERY = (1, 2, 3, 4, 6)
_SAMPLE_PIXELS = 24_000_000
_LEAST_SAMPLE, _MOST_SAMPLE = 10, 40
_STRETCHES = 3
"""From so many places of the clip the sample is taken."""
_MOST_TRIES = 7
"""Files that are made of one way to find its step."""
_MOST_JUDGED = 24
_SAMPLED_JUDGED = 9
_SURELY = 2.0
"""Points above what is acceptable that a sample needs for all of the clip to be."""
_GIVES_WAY = 1.5
"""Points by which a setting must be worse for the next one in its direction not to be tried."""

OnTry = Callable[[int], None]
"""Hears how many files were tried out so far."""


@dataclass(frozen=True, slots=True, kw_only=True)
class ClipRules:
    """What a clip's file has to be."""

    format: ClipFormat
    limit_bytes: int
    width_px: int | None = None
    """None is as wide as the part that is shown."""
    palette: Palette = "all"
    keeps_width: bool = False
    """Whether it may be no narrower than was asked for."""


@dataclass(frozen=True, slots=True, kw_only=True)
class ClipFile:
    """A clip that was made, and what was given up for it."""

    byte_count: int
    size: Size
    wanted: Size
    frames: int
    wanted_frames: int
    seconds: float
    settings: ClipSettings
    fidelity: float
    limit_bytes: int
    advice: tuple[ClipAdvice, ...] = ()

    @property
    def is_met(self) -> bool:
        """Whether it is under the limit and looks acceptable."""
        return self.byte_count <= self.limit_bytes and self.fidelity >= ACCEPTABLE_FIDELITY

    @property
    def given_up(self) -> tuple[str, ...]:
        """What it is less than was asked for, as sentences."""
        said = []
        if self.size.width_px < self.wanted.width_px - 1:
            said.append(f"It is {self.size.width_px:,} px wide instead of {self.wanted.width_px:,}.")
        if self.frames < self.wanted_frames:
            said.append(
                f"It has {self.frames:,} of {self.wanted_frames:,} pictures, "
                f"{self.frames / self.seconds:.1f} a second."
            )
        said.append(f"Made with {self.settings.in_words()}.")
        return tuple(said)


@dataclass(frozen=True, slots=True, kw_only=True)
class _Way:
    """How wide, and how many of the frames."""

    share: int
    every: int


_WHOLE = _Way(share=0, every=1)


@dataclass(frozen=True, slots=True, kw_only=True)
class _Tried:
    """A way at the best quality that the limit leaves it; as ``step`` None where it leaves it none."""

    way: _Way
    step: int | None
    closeness: float
    sizes: dict[int, int]
    """Bytes of the sample, by step."""


@dataclass(frozen=True, slots=True, kw_only=True)
class _Needed:
    """About how many bytes a clip takes to look acceptable; of the best there is, where that is not good."""

    byte_count: int
    is_good: bool


class _Search:
    def __init__(
        self,
        frames: Frames,
        document: ClipDocument,
        rules: ClipRules,
        folder: Path,
        on_try: OnTry,
        is_stopped: Callable[[], bool],
        tries: int = 0,
    ) -> None:
        self._frames, self._document, self._rules = frames, document, rules
        self._folder, self._on_try, self._is_stopped = folder, on_try, is_stopped
        self._tries = tries
        box = document.box_on(frames.size)
        wanted = box.size.at_width(min(rules.width_px or box.width_px, MOST_WIDTH_PX))
        self.wanted = at_even_size(wanted) if needs_even_sides(self._settings(0)) else wanted
        self.shown = played(frames, document)
        self._drawn: dict[tuple[int, Size], Pixels] = {}
        self._known: dict[_Way, _Tried] = {}

    @cached_property
    def sample(self) -> tuple[Shown, ...]:
        """Some stretches of the clip, one after the other."""
        most = max(_LEAST_SAMPLE, min(_MOST_SAMPLE, _SAMPLE_PIXELS // self.wanted.pixels))
        if len(self.shown) <= most:
            return self.shown
        each = most // _STRETCHES
        last = len(self.shown) - each
        rows: list[Shown] = []
        start_ms = 0
        for stretch in range(_STRETCHES):
            first = round(last * stretch / (_STRETCHES - 1))
            for row in self.shown[first : first + each]:
                rows.append(replace(row, start_ms=start_ms))
                start_ms += row.duration_ms
        return tuple(rows)

    def best(self) -> ClipFile:
        """The best of all."""
        way = self._best_way()
        return self._least(way) if self._tried(way).step is None else self._final(way)

    def size_of(self, share: int) -> Size:
        """The size of pictures of a share of the width."""
        size = self.wanted.at_width(
            max(min(LEAST_WIDTH_PX, self.wanted.width_px), round(self.wanted.width_px * _SHARES[share]))
        )
        return at_even_size(size) if needs_even_sides(self._settings(0)) else size

    def _settings(self, step: int) -> ClipSettings:
        return ClipSettings(format=self._rules.format, step=step, palette=self._rules.palette)

    def _best_way(self) -> _Way:
        """Narrower while that helps; then fewer frames, and the widths beside it with them."""
        shares = range(1) if self._rules.keeps_width else range(len(_SHARES))
        if self._tried(_WHOLE).step == STEPS[self._rules.format] - 1:
            return _WHOLE  # nothing has to be given up
        best = self._climb([_Way(share=share, every=1) for share in shares])
        for every in _EVERY[1:]:
            if every * 2 > len(self.shown):
                break
            first = max(0, best.way.share - 2)
            found = self._climb([_Way(share=share, every=every) for share in list(shares)[first:]])
            if found.closeness <= best.closeness:
                break
            best = found
        return best.way

    def _climb(self, ways: Sequence[_Way]) -> _Tried:
        """The best in a row of ways, of which the quality rises and then falls."""
        best = self._tried(ways[0])
        for way in ways[1:]:
            tried = self._tried(way)
            if tried.step is None and best.step is None:
                best = tried if min(tried.sizes.values()) < min(best.sizes.values()) else best
            elif tried.closeness > best.closeness:
                best = tried
            elif tried.closeness < best.closeness - _GIVES_WAY:
                break
        return best

    def _tried(self, way: _Way) -> _Tried:
        if way not in self._known:
            self._known[way] = self._try(way)
        return self._known[way]

    def _try(self, way: _Way) -> _Tried:
        """Find the best step whose sample is in proportion to the limit, and look at it."""
        limit = round(self._rules.limit_bytes * len(self.sample) / len(self.shown))
        file = self._folder / "best"
        step, sizes = self._highest(thinned(self.sample, way.every), way, limit, file)
        if step is None:
            return _Tried(way=way, step=None, closeness=-math.inf, sizes=sizes)
        seen = self._judged(file, self.sample, _SAMPLED_JUDGED, closeness)
        return _Tried(way=way, step=step, closeness=seen, sizes=sizes)

    def _final(self, way: _Way) -> ClipFile:
        """All of the clip, as good as the limit really leaves it."""
        known = sorted(self._tried(way).sizes.items())

        def estimate(step: int) -> float:
            return float(np.interp(step, [row[0] for row in known], [row[1] for row in known]))

        kept = self._folder / "kept"
        step, _ = self._highest(thinned(self.shown, way.every), way, self._rules.limit_bytes, kept, estimate)
        if step is not None:
            return self._told(kept, way, step)
        narrower = replace(way, share=way.share + 1)
        if narrower.share < len(_SHARES) and not self._rules.keeps_width:
            return self._final(narrower)
        return self._least(way)

    def _highest(
        self,
        shown: Sequence[Shown],
        way: _Way,
        limit_bytes: int,
        file: Path,
        estimate: Callable[[int], float] | None = None,
    ) -> tuple[int | None, dict[int, int]]:
        """The highest step under a limit, whose file is kept, and the bytes of every step that was tried."""
        size, sizes = self.size_of(way.share), {}
        fits = -1

        def sizes_at(steps: Sequence[int]) -> list[int]:
            nonlocal fits
            for step in steps:
                trial = self._written(shown, size, step)
                sizes[step] = trial.stat().st_size
                if sizes[step] <= limit_bytes and step > fits:
                    trial.replace(file)
                    fits = step
            return [sizes[step] for step in steps]

        steps = range(STEPS[self._rules.format])
        found = search_quality_step(sizes_at, steps, limit_bytes, most_tries=_MOST_TRIES, estimate=estimate)
        return found.quality_step, sizes

    def _least(self, way: _Way) -> ClipFile:
        """The lightest that there is, which is over the limit."""
        size, shown = self.size_of(way.share), thinned(self.shown, way.every)
        self._written(shown, size, 0).replace(self._folder / "kept")
        return self._told(self._folder / "kept", way, 0)

    def _told(self, file: Path, way: _Way, step: int) -> ClipFile:
        shown = thinned(self.shown, way.every)
        made = ClipFile(
            byte_count=file.stat().st_size,
            size=self.size_of(way.share),
            wanted=self.wanted,
            frames=len(shown),
            wanted_frames=len(self.shown),
            seconds=length_ms(self.shown) / 1_000,
            settings=self._settings(step),
            fidelity=round(self._judged(file, self.shown, _MOST_JUDGED), 1),
            limit_bytes=self._rules.limit_bytes,
        )
        if made.is_met:
            return made
        needed = self._acceptable()
        advice = advise(needed.byte_count, made.limit_bytes, made.seconds)
        return replace(made, advice=(*self._other_format(), *advice))

    def _other_format(self) -> Iterator[ClipAdvice]:
        """The first of the other formats that would do under the limit, if one does."""
        for format_ in OTHER_FORMATS:
            if format_ == self._rules.format:
                continue
            rules = replace(self._rules, format=format_)
            other = _Search(
                self._frames, self._document, rules, self._folder, self._on_try, self._is_stopped, self._tries
            )
            needed = other._acceptable()
            self._tries = other._tries
            if needed.is_good and needed.byte_count <= self._rules.limit_bytes:
                yield advise_format(format_, needed.byte_count)
                return

    def _acceptable(self) -> _Needed:
        """About how many bytes the whole clip takes, as wide as was asked for, to look acceptable."""
        low, high = 0, STEPS[self._rules.format] - 1
        byte_count, is_good = 0, False
        while low <= high:
            step = (low + high) // 2
            trial = self._written(self.sample, self.size_of(0), step)
            good = self._judged(trial, self.sample, _SAMPLED_JUDGED) >= ACCEPTABLE_FIDELITY + _SURELY
            if good or step == high:  # the best there is, if none is good
                byte_count, is_good = trial.stat().st_size, good
            low, high = (low, step - 1) if good else (step + 1, high)
        return _Needed(byte_count=round(byte_count * len(self.shown) / len(self.sample)), is_good=is_good)

    def _written(self, shown: Sequence[Shown], size: Size, step: int) -> Path:
        if self._is_stopped():
            raise Stopped("Making the clip was stopped.")
        self._tries += 1
        self._on_try(self._tries)
        path = self._folder / f"trial.{self._rules.format}"
        # What is no more than a sample is kept in memory.
        draw_again = self._drawn_once if len(shown) <= len(self.sample) else self._drawn_all
        write_clip(
            path,
            shown,
            lambda rows: draw_again(rows, size),
            size,
            self._settings(step),
            repeats=self._document.repeats,
        )
        return path

    def _drawn_all(self, shown: Sequence[Shown], size: Size) -> Iterable[tuple[Pixels, Shown]]:
        return draw_all(self._frames, self._document, shown, size)

    def _drawn_once(self, shown: Sequence[Shown], size: Size) -> Iterable[tuple[Pixels, Shown]]:
        """Drawn once for each width, not for each try."""
        if any(known != size for _, known in self._drawn):
            self._drawn = {key: pixels for key, pixels in self._drawn.items() if key[1] == size}
        for row in shown:
            key = (row.frame, size)
            if key not in self._drawn:
                self._drawn[key] = draw(self._frames, self._document, row.frame, size)
            yield self._drawn[key], row

    def _judged(self, file: Path, shown: Sequence[Shown], most: int, judge: Judge = fidelity) -> float:
        looked_at = moments(shown, most)
        originals = draw_all(self._frames, self._document, looked_at, self.wanted)
        return fidelity_over_time(originals, read_clip(file, self._rules.format), judge=judge)


def fit_clip(
    frames: Frames,
    document: ClipDocument,
    rules: ClipRules,
    out: Path,
    *,
    on_try: OnTry = lambda _: None,
    is_stopped: Callable[[], bool] = lambda: False,
) -> ClipFile:
    """Write the best-looking clip under a limit to ``out``; where none can be, the lightest, with advice.

    Raises:
        ClipError: width or limit are not possible, or it could not be encoded.
        StorageError: it could not be written.
        Stopped: ``is_stopped`` said so.
    """
    width_px = rules.width_px
    if width_px is not None and not LEAST_WIDTH_PX <= width_px <= MOST_WIDTH_PX:
        raise ClipError(
            f"A clip cannot be {str(width_px)[:20]} px wide.",
            hint=f"Give {LEAST_WIDTH_PX} to {MOST_WIDTH_PX:,} px.",
            code="width_impossible",
        )
    with tempfile.TemporaryDirectory(prefix="tallpage-") as scratch:
        search = _Search(frames, document, rules, Path(scratch), on_try, is_stopped)
        made = search.best()
        shutil.copyfile(Path(scratch) / "kept", out)
    return made
