"""What is put around a picture: its rules, its room, its outline. Nothing here knows pixels."""

from tallpage.core.dressing._edges import is_plain, outline, torn_depths
from tallpage.core.dressing._layout import (
    DressedLayout,
    Insets,
    caption_height_px,
    insets_of,
    lay_out_dressing,
)
from tallpage.core.dressing._models import (
    AroundRoom,
    Border,
    Caption,
    Dressing,
    Shadow,
    Stamp,
    TornEdge,
)
from tallpage.core.dressing._stamping import stamp_parts

__all__ = [
    "AroundRoom",
    "Border",
    "Caption",
    "DressedLayout",
    "Dressing",
    "Insets",
    "Shadow",
    "Stamp",
    "TornEdge",
    "caption_height_px",
    "insets_of",
    "is_plain",
    "lay_out_dressing",
    "outline",
    "stamp_parts",
    "torn_depths",
]
