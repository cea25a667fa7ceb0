"""Files that say something beside their pixels: how much room that takes, and the files with it.

The search knows nothing of it: it finds the best file under what is left of the limit, and that file is
written once more with the metadata. Its pixels are the same.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace

import numpy as np

from tallpage.core.fit._watching import FitWatch, Verdict
from tallpage.core.fit.advice._pieces import Advice
from tallpage.core.fit.encoding._cached_encoder import CachedEncoder
from tallpage.core.fit.encoding._candidates import Candidate, ready_for
from tallpage.core.fit.encoding._formats import Format
from tallpage.core.fit.encoding._memory import FitMemory
from tallpage.core.fit.encoding._recipes import Choice, ContentClass, encode
from tallpage.core.fit.search._best import FitResult
from tallpage.core.picture import Metadata, Raster
from tallpage.core.units import format_bytes

_SPARE_BYTES = 24
"""Where sizes of a file's parts take more digits than those of the little picture that is measured."""
_MEASURED_WITH: dict[Format, Choice] = {
    "jpeg": Choice(format="jpeg", quality=50),
    "png": Choice(format="png"),
    "webp": Choice(format="webp", quality=50),
    "avif": Choice(format="avif", quality=50),
    "gif": Choice(format="gif", colours=16),
}


class MetadataWriter:
    """Metadata that go into files of some formats, whose picture ``draw`` gives as often as it is called."""

    def __init__(self, metadata: Metadata, formats: Sequence[Format], draw: Callable[[], Raster]) -> None:
        self._metadata = metadata
        self._draw = draw
        self._written: dict[Choice, bytes] = {}
        self.room_bytes = max(_room_bytes(metadata, name) for name in formats)

    def with_metadata(self, result: FitResult) -> FitResult:
        """A result whose file says it, with advice that counts it."""
        if result.chosen is None:
            return replace(result, advice=tuple(map(self.advised, result.advice)))
        written = self.file(result.chosen)
        return replace(
            result,
            chosen=written,
            candidates=tuple(written if row is result.chosen else row for row in result.candidates),
            advice=tuple(map(self.advised, result.advice)),
        )

    def file(self, candidate: Candidate) -> Candidate:
        """The same file, saying it."""
        data = self._written.get(candidate.choice)
        if data is None:
            source, _ = ready_for(self._draw().held(), [candidate.choice.format])
            content_class = CachedEncoder(source, FitMemory()).content_class
            data = encode(source, candidate.choice, content_class, metadata=self._metadata)
            self._written = {candidate.choice: data}  # the best so far is mostly what is chosen
        return replace(candidate, data=data, byte_count=len(data))

    def advised(self, advice: Advice) -> Advice:
        """Advice on the limit, counting it."""
        if advice.kind != "limit":
            return advice
        needed_bytes = advice.value + self.room_bytes
        sentence = advice.sentence.replace(format_bytes(advice.value), format_bytes(needed_bytes))
        return replace(advice, value=needed_bytes, sentence=sentence)

    def passed_on(self, watch: FitWatch) -> FitWatch:
        """A watch that hears of the files and advice as they are with it."""
        return _PassedOn(self, watch)


class _PassedOn(FitWatch):
    def __init__(self, writer: MetadataWriter, watch: FitWatch) -> None:
        self._writer = writer
        self._watch = watch

    def expecting(self, verdict: Verdict) -> None:
        self._watch.expecting(verdict)

    def trying(self, what: str, tries_left: int) -> None:
        self._watch.trying(what, tries_left)

    def best_so_far(self, candidate: Candidate) -> None:
        self._watch.best_so_far(self._writer.file(candidate))

    def advising(self, advice: Advice) -> None:
        self._watch.advising(self._writer.advised(advice))


def _room_bytes(metadata: Metadata, name: Format) -> int:
    little = Raster.from_rows(np.zeros((8, 8, 3), dtype=np.uint8))
    content_class, choice = ContentClass(photographic=False, large=False), _MEASURED_WITH[name]
    plain = encode(little, choice, content_class)
    return len(encode(little, choice, content_class, metadata=metadata)) - len(plain) + _SPARE_BYTES
