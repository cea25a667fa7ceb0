"""Edges of one colour around what a picture shows, and stretches that show nothing."""

from tallpage.core.trimming._blank import BlankStretch, blank_columns, blank_stretches
from tallpage.core.trimming._trimming import SIDES, Side, trimmed

__all__ = ["SIDES", "BlankStretch", "Side", "blank_columns", "blank_stretches", "trimmed"]
