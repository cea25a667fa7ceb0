"""The blocks of a picture of which nothing is known but its pixels."""

from tallpage.core.segmenting._segmenting import find_blocks

__all__ = ["find_blocks"]
