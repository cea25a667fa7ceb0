"""What a capture has to say about itself."""

from __future__ import annotations

from dataclasses import asdict, dataclass
from typing import Any

from tallpage.core.capture._screen import Screen
from tallpage.core.capture.words._wholeness import Wholeness


@dataclass(frozen=True, slots=True, kw_only=True)
class PageReport:
    """Facts of one taken page; sizes in CSS px."""

    address: str
    final_address: str
    title: str
    status: int
    screen: Screen
    page_width_px: int
    page_height_px: int
    top_px: int
    """CSS px from the page's top at which the picture begins."""
    truncated: bool
    warnings: tuple[str, ...]
    left_out: tuple[str, ...]
    wholeness: Wholeness
    """Whether the words of the page are in the picture."""
    done_before: tuple[str, ...]
    """What was done or waited for before the picture, in order."""
    signed_in: bool
    seconds: float

    def as_json(self) -> dict[str, Any]:
        """Plain types for a JSON file or column."""
        return {**asdict(self), "whole": self.wholeness.is_whole}
