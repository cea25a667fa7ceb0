"""Pictures of captures: strips, thumbnails, the spine. Derived ones are kept and can be remade."""

from __future__ import annotations

import threading
from collections.abc import Callable
from contextlib import suppress
from typing import Literal

from django.http import HttpResponse

from tallpage.core import cut as core_cut
from tallpage.core.cut.models import HiddenArea
from tallpage.core.errors import PictureUnreadable, StorageError
from tallpage.core.files import storage_errors, write_whole
from tallpage.core.geometry import Box
from tallpage.core.picture import strips_so_far
from tallpage.core.render import (
    Source,
    dressed_view,
    hidden_view,
    piece_view,
    prepared_spine,
    prepared_tile,
    squeezed,
    strip_view,
    thumbnail,
)
from tallpage.server.shelf.models import Capture, Cut
from tallpage.server.storage import incoming_named, view_file

ThumbnailSize = Literal["usual", "small", "top"]
THUMBNAILS_PX: dict[ThumbnailSize, tuple[int, int]] = {
    "usual": (480, 1_200),
    "small": (220, 480),
    "top": (80, 80),
}
"""Width, and greatest height: what lies below is cut off."""
SPINE_WIDTH_PX = 200
SPINE_GREATEST_HEIGHT_PX = 2_400
_MAKING = threading.BoundedSemaphore(4)
"""However many pictures are asked for at once, few are made at once: the rest is answered meanwhile."""


def thumbnail_view(capture: Capture, size: ThumbnailSize) -> HttpResponse:
    """The upper part of the page, small, in true proportion."""
    return _immutable(thumbnail_of(capture, size), "image/webp")


def thumbnail_of(capture: Capture, size: ThumbnailSize) -> bytes:
    """WebP of the upper part of the page, in true proportion."""
    width_px, greatest_height_px = THUMBNAILS_PX[size]
    return derived(
        capture,
        f"thumbnail-{size}.webp",
        lambda: thumbnail(
            capture.folder, capture.manifest(), width_px=width_px, greatest_height_px=greatest_height_px
        ),
    )


def spine_view(capture: Capture) -> HttpResponse:
    """The whole page in one small picture, squeezed where it is very tall."""
    return _derived(
        capture,
        "spine.webp",
        lambda: squeezed(
            capture.folder,
            capture.manifest(),
            width_px=SPINE_WIDTH_PX,
            greatest_height_px=SPINE_GREATEST_HEIGHT_PX,
        ),
    )


def strip_picture(capture: Capture, number: int, shrink: int) -> HttpResponse:
    """One strip as stored, or shrunk for looking from further away."""
    manifest = capture.manifest()
    if shrink == 1:
        return _immutable((capture.folder / manifest.strips[number].file).read_bytes(), "image/png")
    return _derived(
        capture,
        f"strip-{number:04d}-{shrink}.webp",
        lambda: strip_view(capture.folder, manifest, number, shrink=shrink),
    )


def prepared_spine_view(page: Source) -> HttpResponse:
    """The whole page, turned and cleared, small."""
    with _MAKING:
        data = prepared_spine(page, width_px=SPINE_WIDTH_PX, greatest_height_px=SPINE_GREATEST_HEIGHT_PX)
    return _immutable(data, "image/webp")


def tile_picture(page: Source, column: int, row: int, shrink: int) -> HttpResponse:
    """A square of a page, turned and cleared; nothing beside it."""
    data = prepared_tile(page, column, row, shrink=shrink)
    if data is None:
        return HttpResponse(status=404)
    return _immutable(data, "image/png" if shrink == 1 else "image/webp")


def hidden_picture(page: Source, area: HiddenArea) -> HttpResponse:
    """An area of a page as the files show it when it is hidden."""
    data = hidden_view(page, area)
    return _immutable(data, "image/webp") if data else HttpResponse(status=404)


def dressed_picture(cut: Cut, width_px: int) -> HttpResponse:
    """A cut as a file of a width shows it; it changes with every change of the cut.

    Raises:
        CutError: a mark names a style that is not known.
        FitError: what is around the picture leaves no room for it.
    """
    return looked_at_picture(cut.capture.pixel_source(), cut.as_drawn(), width_px)


def looked_at_picture(source: Source, cut: core_cut.Cut, width_px: int) -> HttpResponse:
    """A cut of a page as a file of a width shows it, to be asked for anew each time.

    Raises:
        FitError: what is around the picture leaves no room for it.
    """
    response = HttpResponse(dressed_view(source, cut, width_px=width_px), content_type="image/webp")
    response["Cache-Control"] = "private, no-cache"
    return response


def piece_picture(cut: Cut, box: Box) -> HttpResponse:
    """A piece of the page, at 1:1, with what a cut hides and marks; none beside the page.

    Raises:
        CutError: a mark names a style that is not known.
    """
    drawn = cut.as_drawn()
    shown = box.overlap(Box.whole(drawn.page_size(cut.capture.size)))
    if shown is None:
        return HttpResponse(status=404)
    response = HttpResponse(piece_view(cut.capture.pixel_source(), drawn, shown), content_type="image/webp")
    response["Cache-Control"] = "private, no-cache"
    return response


def so_far_view(capture: Capture) -> HttpResponse:
    """What there is of a page that is being taken, small; nothing when it has just been moved away."""
    folder = incoming_named(capture.incoming_key)
    try:
        manifest = strips_so_far(folder)
        if manifest is None:
            return HttpResponse(status=204)
        width_px, greatest_height_px = THUMBNAILS_PX["usual"]
        data = thumbnail(folder, manifest, width_px=width_px, greatest_height_px=greatest_height_px)
    except PictureUnreadable:  # its strips went to their final place meanwhile
        return HttpResponse(status=204)
    return _passing(data, "image/webp")


def strip_so_far(capture: Capture, number: int) -> HttpResponse:
    """One strip of a page that is being taken; nothing when it has just been moved away."""
    folder = incoming_named(capture.incoming_key)
    manifest = strips_so_far(folder)
    if manifest is None or not 0 <= number < len(manifest.strips):
        return HttpResponse(status=204)
    try:
        return _passing((folder / manifest.strips[number].file).read_bytes(), "image/png")
    except FileNotFoundError:
        return HttpResponse(status=204)


def _derived(capture: Capture, name: str, make: Callable[[], bytes]) -> HttpResponse:
    return _immutable(derived(capture, name, make), "image/webp")


def derived(capture: Capture, name: str, make: Callable[[], bytes]) -> bytes:
    """What is made from a capture, which never changes: from its file, or made now and kept there.

    On a full disk it is made each time.
    """
    path = view_file(capture.storage_key, name)
    if path.exists():
        return path.read_bytes()
    with _MAKING:
        data = make()
    with suppress(StorageError), storage_errors(path.parent):
        path.parent.mkdir(parents=True, exist_ok=True)
        write_whole(path, data)
    return data


def _immutable(data: bytes, media_type: str) -> HttpResponse:
    """A picture that never changes under its address, since a capture never does."""
    return HttpResponse(
        data, content_type=media_type, headers={"Cache-Control": "private, max-age=31536000, immutable"}
    )


def _passing(data: bytes, media_type: str) -> HttpResponse:
    """A picture of something that is still growing."""
    return HttpResponse(data, content_type=media_type, headers={"Cache-Control": "no-store"})
