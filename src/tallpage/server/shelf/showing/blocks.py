"""The blocks of a capture: those that the page said when it was taken, else those found in its pixels."""

from __future__ import annotations

import hashlib
import json
from dataclasses import asdict

from tallpage.core.geometry import Box
from tallpage.core.page_map import Block, PageMap, has_map
from tallpage.core.render import Source
from tallpage.core.segmenting import find_blocks
from tallpage.server.shelf.models import Capture
from tallpage.server.shelf.showing.prepared import prepared_page
from tallpage.server.shelf.showing.views import derived

_VERSION = 1
"""Raised whenever other blocks are found in the same pixels."""


def blocks_of(capture: Capture, preparation: str = "") -> tuple[Block, ...]:
    """The visible blocks of a page as a preparation turns it, from outer to inner.

    Raises:
        CutError: the preparation is none.
        PictureUnreadable: what the page said is damaged.
    """
    if has_map(capture.folder):
        # A source passes a damaged map over; here somebody is told of it.
        PageMap.load(capture.folder)
        return prepared_page(capture, preparation).blocks()
    name = hashlib.sha256(preparation.encode()).hexdigest()[:16]
    page = prepared_page(capture, preparation)
    kept = derived(capture, f"blocks-{_VERSION}-{name}.json", lambda: _found(page))
    return tuple(
        Block(role=role, box=Box(**box), level=None, text="", link="", alt="")
        for role, box in json.loads(kept)
    )


def _found(page: Source) -> bytes:
    blocks = find_blocks(page.region(Box.whole(page.size)))
    return json.dumps([(block.role, asdict(block.box)) for block in blocks]).encode()
