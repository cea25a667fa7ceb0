"""What has been found out about pictures, by their content: work that several slots share.

Two slots of one width differ only in their limits; a frame that is undone, a slot that is added
again and advice that is looked for bring pixels back that were encoded before.
"""

from __future__ import annotations

import threading
from collections import OrderedDict
from collections.abc import Callable
from dataclasses import dataclass

from tallpage.core.fit.encoding._recipes import Choice, ContentClass

_HELD_BYTES = 48_000_000
_LARGE_BYTES = 12_000_000
"""A single file beyond this would push out most of the others."""


@dataclass(frozen=True, slots=True)
class FileKey:
    """Which file of which pixels."""

    digest: bytes
    content_class: ContentClass
    choice: Choice
    draft: bool


class FitMemory:
    """Files and their fidelity, the most recently used of them. Several threads may use it."""

    def __init__(self, *, held_bytes: int = _HELD_BYTES) -> None:
        self._files: OrderedDict[FileKey, bytes] = OrderedDict()
        self._looks: dict[FileKey, float] = {}
        self._left_bytes = held_bytes
        self._lock = threading.Lock()

    def find(self, key: FileKey) -> bytes | None:
        """The file of a key, if it is remembered."""
        with self._lock:
            if key in self._files:
                self._files.move_to_end(key)
            return self._files.get(key)

    def keep(self, key: FileKey, data: bytes) -> None:
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

    def looks(self, key: FileKey, judge: Callable[[], float]) -> float:
        """The fidelity of the file of a key; judged once, while the file is remembered."""
        with self._lock:
            if key in self._looks:
                return self._looks[key]
        found = judge()
        with self._lock:
            if key in self._files:
                self._looks[key] = found
        return found
