"""The document of a cut."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, Self

from tallpage.core.cut._frame import Frame
from tallpage.core.geometry import Box, Size

VERSION = 1


@dataclass(frozen=True, slots=True, kw_only=True)
class Cut:
    """A cut of a page. Its parts stand in the order in which they are carried out.

    What comes later finds its place here: how the page is turned and what is hidden, before the frame;
    tone, marks and dressing, after it. A part that a document does not name is not there.
    """

    frame: Frame

    @classmethod
    def whole(cls, page: Size) -> Self:
        """The cut that shows all of a page."""
        return cls(frame=Frame.of(Box.whole(page)))

    @classmethod
    def from_json(cls, data: Mapping[str, Any]) -> Self:
        """A cut as :meth:`as_json` gave it. What comes from outside is read by :func:`read_cut`."""
        return cls(frame=Frame.from_json(data["frame"]))

    def as_json(self) -> dict[str, Any]:
        """Plain types, always in the same order."""
        return {"version": VERSION, "frame": self.frame.as_json()}

    def require_on(self, page: Size) -> Self:
        """The cut itself.

        Raises:
            FrameError: it does not lie on a page of this size.
        """
        self.frame.box.require_on(page)
        return self
