"""One key for what is drawn: equal keys, equal pixels."""

from __future__ import annotations

import hashlib
import json

from tallpage.core.cut import Cut
from tallpage.core.render._rules import RenderRules

RENDERER_VERSION = 1
"""Raised whenever the renderer draws the same cut differently."""
_MARKS_VERSION = 2
"""Raised whenever it draws marks differently; cuts without any keep their keys."""
_COARSENESS_VERSION = 2
"""Raised whenever squares and blur are otherwise coarse where a cut does not say how much."""
_PATCH_VERSION = 2
"""Raised whenever areas are patched over otherwise."""


def render_key(source: str, cut: Cut, rules: RenderRules) -> str:
    """Key of the pixels of a cut of a source, which is named by something that is its own, for a place."""
    drawn: list[object] = [RENDERER_VERSION, source, cut.as_json(), rules.as_json()]
    if cut.marks:
        drawn.append(["marks", _MARKS_VERSION])
    if any(area.how in ("pixelate", "blur") and area.strength_px is None for area in cut.hidden):
        drawn.append(["coarseness", _COARSENESS_VERSION])
    if any(area.how == "patch" for area in cut.hidden):
        drawn.append(["patch", _PATCH_VERSION])
    return hashlib.sha256(json.dumps(drawn, separators=(",", ":")).encode()).hexdigest()[:32]
