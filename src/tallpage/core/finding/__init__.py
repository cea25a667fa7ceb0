"""Finding on a page what it says: words, names, and what looks like an address, a number or an amount."""

from tallpage.core.finding._finding import FoundPlace, Sought, find_places, sought_spans
from tallpage.core.finding._patterns import Kind

__all__ = ["FoundPlace", "Kind", "Sought", "find_places", "sought_spans"]
