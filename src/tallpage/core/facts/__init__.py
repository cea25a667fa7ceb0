"""What goes along with a file: its credit, where it comes from, and when that was taken."""

from tallpage.core.facts._facts import MOST_CREDIT_CHARS, FileFacts, require_credit
from tallpage.core.facts._iptc import as_iptc
from tallpage.core.facts._json import as_json_beside
from tallpage.core.facts._xmp import as_xmp

__all__ = ["MOST_CREDIT_CHARS", "FileFacts", "as_iptc", "as_json_beside", "as_xmp", "require_credit"]
