"""A few seconds of a page, frame by frame."""

from tallpage.core.capture.clip._request import USUAL_RATE_FPS, ClipReport, ClipRequest, Scroll
from tallpage.core.capture.clip._take import take_clip

__all__ = ["USUAL_RATE_FPS", "ClipReport", "ClipRequest", "Scroll", "take_clip"]
