"""How the colours of a page are changed."""

from tallpage.core.tone._tone import Tone

__all__ = ["Tone"]
