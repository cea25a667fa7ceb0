"""Pages as a cut turns and clears them, before anything is framed: what the Bench shows and asks about."""

from __future__ import annotations

from dataclasses import replace
from functools import lru_cache

from pydantic import ValidationError

from tallpage.core.clearing import Clearing
from tallpage.core.cut import Cut
from tallpage.core.errors import CutError
from tallpage.core.fields import StrictModel
from tallpage.core.geometry import Size
from tallpage.core.render import Source, prepared
from tallpage.core.turning import Orientation
from tallpage.server.shelf.models import Capture

_MOST_CHARS = 20_000
_KEPT = 4
"""Pages of which is remembered what is connected with what: it takes a second of a tall one."""


class Preparation(StrictModel):
    """The parts of a cut that change the page before its frame."""

    orientation: Orientation | None = None
    cleared: Clearing | None = None


def prepared_page(capture: Capture, preparation: str) -> Source:
    """A capture's page as a preparation, written as JSON, says; empty says nothing.

    Raises:
        CutError: it is none.
    """
    if not preparation:
        return capture.pixel_source()
    return _page(capture.pk, capture.storage_key, preparation)


@lru_cache(maxsize=_KEPT)
def _page(capture_id: int, storage_key: str, preparation: str) -> Source:  # noqa: ARG001
    if len(preparation) > _MOST_CHARS:
        raise CutError(f"A preparation of {len(preparation):,} letters is too long.")
    try:
        asked = Preparation.model_validate_json(preparation, strict=True)
    except ValidationError as error:
        raise CutError("The preparation of the page is none that is known.") from error
    # Nothing is framed yet: which frame the cut has makes no difference.
    anywhere = Cut.whole(Size(width_px=1, height_px=1))
    cut = replace(anywhere, orientation=asked.orientation, cleared=asked.cleared)
    return prepared(Capture.objects.get(pk=capture_id).pixel_source(), cut)
