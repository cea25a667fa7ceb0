"""Views of one tall thing, joined into one picture; or the place where a piece is missing."""

from tallpage.core.stitch._cells import Grey
from tallpage.core.stitch._continuing import joined_map, joined_words, place_below
from tallpage.core.stitch._drawing import JoinDrawer, ReadRows
from tallpage.core.stitch._joining import find_join
from tallpage.core.stitch._pictures import MOST_VIEWS, join_pictures, join_rows, write_join
from tallpage.core.stitch._seams import moved_seam
from tallpage.core.stitch.models import Bars, Doubt, Gap, Join, Stretch

__all__ = [
    "MOST_VIEWS",
    "Bars",
    "Doubt",
    "Gap",
    "Grey",
    "Join",
    "JoinDrawer",
    "ReadRows",
    "Stretch",
    "find_join",
    "join_pictures",
    "join_rows",
    "joined_map",
    "joined_words",
    "moved_seam",
    "place_below",
    "write_join",
]
