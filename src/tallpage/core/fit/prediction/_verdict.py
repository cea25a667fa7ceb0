"""A verdict before anything is made: what the best file under a limit will be, from a sample alone."""

from __future__ import annotations

import threading
from collections.abc import Callable, Sequence
from concurrent.futures import ThreadPoolExecutor

from tallpage.core.fit._watching import NOTHING_FITS, FitWatch, Verdict
from tallpage.core.fit.encoding._cached_encoder import Sample, quick_sample_of
from tallpage.core.fit.encoding._candidates import formats_that_hold
from tallpage.core.fit.encoding._formats import Format
from tallpage.core.fit.encoding._memory import FitMemory
from tallpage.core.fit.encoding._recipes import Recipe
from tallpage.core.fit.judging._fidelity import ACCEPTABLE_FIDELITY
from tallpage.core.fit.prediction._forecast import Forecast, forecast
from tallpage.core.fit.prediction._options import Options
from tallpage.core.picture import Raster

_AT_ONCE = 2


def foretell(
    draw: Callable[[], Raster],
    *,
    limit_bytes: int,
    formats: Sequence[Format],
    memory: FitMemory,
    watch: FitWatch,
) -> None:
    """Tell ``watch`` what is expected of the best file of a picture, of which only a sample is drawn.

    An acceptable file is told of as soon as one recipe promises it, and again when another promises a
    better one; that there is none is told when all have been asked.

    Raises:
        FitError: no accepted format can hold a picture of this size.
    """
    raster = draw()
    usable = formats_that_hold(raster.size, formats, transparent=False)
    if raster.has_alpha:
        return  # whether anything shows through is only known of the whole
    sample = quick_sample_of(raster, draw(), memory)
    options = Options(sample, raster.size, usable, limit_bytes, whole=None)
    if options.likely_lossless:
        return
    _Foretelling(sample, limit_bytes, watch).tell(options.lossy)


class _Foretelling:
    def __init__(self, sample: Sample, limit_bytes: int, watch: FitWatch) -> None:
        self._sample = sample
        self._limit_bytes = limit_bytes
        self._watch = watch
        self._lock = threading.Lock()
        self._best: Verdict = NOTHING_FITS

    def tell(self, recipes: Sequence[Recipe]) -> None:
        """Ask every recipe, the slowest at once beside the quick ones."""
        with ThreadPoolExecutor(max_workers=_AT_ONCE) as pool:
            for _ in pool.map(self._ask, [*recipes[-1:], *recipes[:-1]]):
                pass
        if not self._best.met:
            self._watch.expecting(self._best)

    def _ask(self, recipe: Recipe) -> None:
        found: Forecast | None = forecast(self._sample, recipe, self._limit_bytes, whole=None)
        if found is None:
            return
        verdict = found.verdict()
        with self._lock:
            if verdict.fidelity > self._best.fidelity or not self._best.recipe:
                self._best = verdict
                if verdict.fidelity >= ACCEPTABLE_FIDELITY:
                    self._watch.expecting(verdict)
