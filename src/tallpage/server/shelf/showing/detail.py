"""All that is told of one capture."""

from __future__ import annotations

from tallpage.server.shelf.models import Capture
from tallpage.server.shelf.routes.cut_schemas import CutOut
from tallpage.server.shelf.routes.schemas import (
    CaptureDetailOut,
    CaptureOut,
    LackingOut,
    StripOut,
    TakeSettings,
)


def detail_of(capture: Capture) -> CaptureDetailOut:
    """A capture with its strips, its cuts and how it was taken."""
    strips = capture.manifest().strips if capture.storage_key else ()
    top_px = capture.report.get("top_px", 0)
    return CaptureDetailOut(
        **CaptureOut.from_orm(capture).model_dump(by_alias=True),
        strips=[
            StripOut(number=number, top_px=strip.top_px, height_px=strip.height_px)
            for number, strip in enumerate(strips)
        ],
        cuts=[CutOut.from_orm(cut) for cut in capture.cuts.all()],
        settings=TakeSettings(**capture.settings),
        lacking=[LackingOut(**row) for row in capture.lacking],
        words=capture.report.get("wholeness", {}).get("words", 0),
        done_before=capture.report.get("done_before", []),
        signed_in=capture.report.get("signed_in", False),
        top_px=top_px,
        bottom_px=top_px + capture.report.get("page_height_px", 0),
        seconds=capture.report.get("seconds"),
    )
