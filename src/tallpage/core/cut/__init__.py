"""What a person wants of a page, as data: one versioned document, in the order in which it is carried out."""

from tallpage.core.cut._anchored import CORNERS, Corner, anchored_box
from tallpage.core.cut._document import VERSION, Cut
from tallpage.core.cut._facts import page_facts
from tallpage.core.cut._file import MOST_BYTES, cut_file_schema, read_cut, require_parts_agree, write_cut
from tallpage.core.cut._frame import MOST_FOLDS, Fold, FoldDown, Frame

__all__ = [
    "CORNERS",
    "MOST_BYTES",
    "MOST_FOLDS",
    "VERSION",
    "Corner",
    "Cut",
    "Fold",
    "FoldDown",
    "Frame",
    "anchored_box",
    "cut_file_schema",
    "page_facts",
    "read_cut",
    "require_parts_agree",
    "write_cut",
]
