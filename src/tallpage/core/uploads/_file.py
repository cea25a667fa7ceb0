"""A file on its way to a place."""

from __future__ import annotations

import hashlib
from dataclasses import dataclass

from tallpage.core.once import once


@dataclass(frozen=True)
class UploadFile:
    """A file with its name; what it is called there may be another matter."""

    name: str
    data: bytes
    media_type: str

    @once
    def digest(self) -> str:
        """SHA-256 of the data, in hexadecimal digits."""
        return hashlib.sha256(self.data).hexdigest()

    @property
    def key(self) -> str:
        """The same for the same file of the same name: a place that has seen it need not publish it again."""
        return hashlib.sha256(f"{self.name}\n{self.digest}".encode()).hexdigest()
