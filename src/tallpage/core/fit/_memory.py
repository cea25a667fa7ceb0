"""What has been found out about pictures, by their content: work that several slots share.

Two slots of one width differ only in their limits; a frame that is undone, a slot that is added
again and advice that is looked for bring pixels back that were encoded before.
"""

from __future__ import annotations

import threading
from collections import OrderedDict
from collections.abc import Callable
from dataclasses import dataclass

from tallpage.core.errors import FitError
from tallpage.core.fit._fidelity import fidelity
from tallpage.core.fit._recipes import Choice, encode
from tallpage.core.picture import Raster

_HELD_BYTES = 48_000_000
_LARGE_BYTES = 12_000_000
"""A single file beyond this would push out most of the others."""


@dataclass(frozen=True, slots=True)
class _Key:
    digest: bytes
    choice: Choice
    draft: bool


class FitMemory:
    """Files and their fidelity, the most recently used of them. Several threads may use it."""

    def __init__(self, *, held_bytes: int = _HELD_BYTES) -> None:
        self._files: OrderedDict[_Key, bytes] = OrderedDict()
        self._looks: dict[_Key, float] = {}
        self._left_bytes = held_bytes
        self._lock = threading.Lock()

    def find(self, key: _Key) -> bytes | None:
        """The file of a key, if it is remembered."""
        with self._lock:
            if key in self._files:
                self._files.move_to_end(key)
            return self._files.get(key)

    def keep(self, key: _Key, data: bytes) -> None:
        """Remember a file; the oldest make room."""
        with self._lock:
            if len(data) > _LARGE_BYTES or key in self._files:
                return
            self._files[key] = data
            self._left_bytes -= len(data)
            while self._left_bytes < 0:
                oldest, gone = self._files.popitem(last=False)
                self._looks.pop(oldest, None)
                self._left_bytes += len(gone)

    def looks(self, key: _Key, judge: Callable[[], float]) -> float:
        """The fidelity of the file of a key; judged once, while the file is remembered."""
        with self._lock:
            if key in self._looks:
                return self._looks[key]
        found = judge()
        with self._lock:
            if key in self._files:
                self._looks[key] = found
        return found


class KnownPicture:
    """A picture together with what is remembered of it. Its pixels are read once to recognise it."""

    def __init__(self, raster: Raster, memory: FitMemory) -> None:
        self.raster = raster
        self._memory = memory
        self._digest = raster.digest()
        self._made = 0
        self._lock = threading.Lock()

    @property
    def encodes(self) -> int:
        """How many files had to be made, drafts not counted."""
        return self._made

    def encoded(self, choice: Choice, *, draft: bool = False) -> bytes:
        """The file for a choice."""
        key = _Key(self._digest, choice, draft)
        data = self._memory.find(key)
        if data is None:
            data = encode(self.raster, choice, draft=draft)
            self._memory.keep(key, data)
            with self._lock:
                self._made += not draft
        return data

    def fidelity(self, choice: Choice, *, draft: bool = False) -> float:
        """How close the file for a choice comes, as a viewer shows it.

        Raises:
            FitError: the file does not show a picture of this size.
        """
        return self._memory.looks(
            _Key(self._digest, choice, draft), lambda: self._judged(self.encoded(choice, draft=draft), choice)
        )

    def _judged(self, data: bytes, choice: Choice) -> float:
        # Decoded again: what counts is what a viewer shows, and that it opens at all.
        result = Raster.decode(data).held()
        if result.size != self.raster.size:
            raise FitError(
                f"The {choice.format} file came out at {result.size}, not {self.raster.size}.",
                code="file_wrong",
            )
        return fidelity(self.raster, result)
