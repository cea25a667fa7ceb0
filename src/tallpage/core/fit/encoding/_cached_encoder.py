"""A picture, with what is remembered of it, and a sample of it that stands in for it.

Encoding the sample predicts, in a tenth of the time or less, how heavy and how good the whole will be.
"""

from __future__ import annotations

import threading
from dataclasses import dataclass

from tallpage.core.errors import FitError
from tallpage.core.fit.encoding._memory import FileKey, FitMemory
from tallpage.core.fit.encoding._recipes import Choice, ContentClass, encode
from tallpage.core.fit.judging._content import content_class_of
from tallpage.core.fit.judging._fidelity import Original
from tallpage.core.fit.prediction._sampling import quickly_sampled_rows, sampled_rows
from tallpage.core.geometry import Size
from tallpage.core.once import once
from tallpage.core.picture import Raster, decode


class CachedEncoder:
    """A picture together with what is remembered of it. Its pixels are read once to recognise it.

    A sample of a picture is encoded as the whole is: it has the ``content_class`` of the whole.
    """

    def __init__(
        self, raster: Raster, memory: FitMemory, *, content_class: ContentClass | None = None
    ) -> None:
        self.raster = raster
        self._memory = memory
        self._digest = raster.digest()
        self._content_class = content_class
        self._original = Original(raster)
        self._made = 0
        self._lock = threading.Lock()

    @property
    def encodes(self) -> int:
        """How many files had to be made, drafts not counted."""
        return self._made

    @once
    def content_class(self) -> ContentClass:
        """How it is to be encoded."""
        return self._content_class or content_class_of(self.raster.size, self._sampled)

    def sample(self) -> Sample:
        """A sample of it, or all of it when it is small anyway."""
        if self._sampled is self.raster:
            return Sample(picture=self, share=1.0)
        return _sample(self._sampled, self.raster.size, self._memory, self.content_class)

    @once
    def _sampled(self) -> Raster:
        return self.raster if self._content_class else sampled_rows(self.raster)

    def encoded(self, choice: Choice, *, draft: bool = False) -> bytes:
        """The file for a choice."""
        key = FileKey(self._digest, self.content_class, choice, draft)
        data = self._memory.find(key)
        if data is None:
            data = encode(self.raster, choice, self.content_class, draft=draft)
            self._memory.keep(key, data)
            with self._lock:
                self._made += not draft
        return data

    def fidelity(self, choice: Choice, *, draft: bool = False) -> float:
        """How close the file for a choice comes, as a viewer shows it.

        Raises:
            FitError: the file does not show a picture of this size.
        """
        key = FileKey(self._digest, self.content_class, choice, draft)
        return self._memory.looks(key, lambda: self._judged(self.encoded(choice, draft=draft), choice))

    def _judged(self, data: bytes, choice: Choice) -> float:
        # Decoded again: what counts is what a viewer shows, and that it opens at all.
        result = decode(data).held()
        if result.size != self.raster.size:
            raise FitError(
                f"The {choice.format} file came out at {result.size}, not {self.raster.size}.",
                code="file_wrong",
            )
        return self._original.fidelity(result)


@dataclass(frozen=True, slots=True, kw_only=True)
class Sample:
    """Part of a picture, and which share of its pixels that is (1 when it is all of it)."""

    picture: CachedEncoder
    share: float


def quick_sample_of(raster: Raster, twin: Raster, memory: FitMemory) -> Sample:
    """A small sample of a picture that was opened twice; of a large one, no more is pulled than that."""
    sampled = quickly_sampled_rows(raster, twin)
    if sampled is raster:
        return CachedEncoder(raster.held(), memory).sample()
    return _sample(sampled, raster.size, memory, content_class_of(raster.size, sampled))


def _sample(sampled: Raster, whole: Size, memory: FitMemory, content_class: ContentClass) -> Sample:
    picture = CachedEncoder(sampled, memory, content_class=content_class)
    return Sample(picture=picture, share=sampled.size.pixels / whole.pixels)
