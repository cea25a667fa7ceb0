"""Edges of one colour around what a picture shows."""

from tallpage.core.trimming._trimming import SIDES, Side, trimmed

__all__ = ["SIDES", "Side", "trimmed"]
