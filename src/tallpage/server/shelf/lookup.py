"""Captures by their number, for endpoints."""

from __future__ import annotations

from django.shortcuts import get_object_or_404

from tallpage.server.shelf.models import Capture


def shelf_capture(capture_id: int) -> Capture:
    """A capture of the shelf, taken or still being taken.

    Raises:
        Http404: there is none.
    """
    return get_object_or_404(Capture.objects.on_shelf(), pk=capture_id)


def taken_capture(capture_id: int) -> Capture:
    """A capture of the shelf that has its picture.

    Raises:
        Http404: there is none.
    """
    return get_object_or_404(Capture.objects.on_shelf().exclude(storage_key=""), pk=capture_id)
