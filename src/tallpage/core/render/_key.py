"""One key for what is drawn: equal keys, equal pixels."""

from __future__ import annotations

import hashlib
import json

from tallpage.core.cut import Cut
from tallpage.core.render._rules import RenderRules

RENDERER_VERSION = 1
"""Raised whenever the renderer draws the same cut differently."""


def render_key(source: str, cut: Cut, rules: RenderRules) -> str:
    """Key of the pixels of a cut of a source, which is named by something that is its own, for a place."""
    drawn = [RENDERER_VERSION, source, cut.as_json(), rules.as_json()]
    return hashlib.sha256(json.dumps(drawn, separators=(",", ":")).encode()).hexdigest()[:32]
