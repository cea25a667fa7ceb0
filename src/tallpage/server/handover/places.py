"""Where the files of an outlet are uploaded to."""

from __future__ import annotations

from pathvalidate import sanitize_filename

from tallpage.core.errors import HandOverError
from tallpage.server.handover.models import UploadPlace
from tallpage.server.handover.schemas import UploadPlaceIn
from tallpage.server.handover.ways.upload import target_of
from tallpage.server.outlets.models import Outlet
from tallpage.server.signins.encryption import seal


def store_place(outlet: Outlet, asked: UploadPlaceIn) -> UploadPlace:
    """Say where an outlet's files go. What signs in there is sealed; when nothing is said, it stays.

    It does not stay when the files go to another address: what is secret is only for whom it was meant.

    Raises:
        HandOverError: an address that is none of the web, or no folder.
    """
    place = UploadPlace.objects.filter(outlet=outlet).first() or UploadPlace(outlet=outlet)
    folder = sanitize_filename(asked.folder, platform="universal").strip(" .")
    if asked.kind == "folder" and not folder:
        raise HandOverError("The folder has no name.", hint="Give it one.", code="upload_address")
    if asked.secret:
        place.sealed = seal({"secret": asked.secret})
    elif (place.kind, place.address, place.user) != (asked.kind, asked.address, asked.user):
        place.sealed = b""
    place.kind, place.address, place.user, place.folder = asked.kind, asked.address, asked.user, folder
    target_of(place)
    place.save()
    return place


def forget_place(outlet_id: int) -> None:
    """Forget where an outlet's files go, and what signs in there."""
    UploadPlace.objects.filter(outlet=outlet_id).delete()
