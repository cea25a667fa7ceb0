"""HTTP API of what the data folder holds."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router, Schema, Status

from tallpage.server.upkeep import usage

router = Router(tags=["data folder"])
_MOST_TOLD = 200


class HeldOut(Schema):
    """How much of the disk something takes, and how many captures or files it is."""

    name: str
    count: int
    bytes: int


class DataFolderOut(Schema):
    """What the data folder holds: by kind, and captures with their files by site and by folder."""

    folder: str
    free_bytes: int
    kinds: dict[usage.Kind, HeldOut]
    sites: list[HeldOut]
    folders: list[HeldOut]


@router.get("/data-folder", response=DataFolderOut, operation_id="data_folder")
def data_folder(request: HttpRequest) -> DataFolderOut:
    """What takes how much; of sites and folders the heaviest 200."""
    found = usage.usage()
    return DataFolderOut(
        folder=found.folder,
        free_bytes=found.free_bytes,
        kinds={kind: HeldOut.from_orm(held) for kind, held in found.kinds.items()},
        sites=[HeldOut.from_orm(held) for held in found.sites[:_MOST_TOLD]],
        folders=[HeldOut.from_orm(held) for held in found.folders[:_MOST_TOLD]],
    )


@router.delete("/data-folder/{kind}", response={204: None}, operation_id="make_room")
def make_room(request: HttpRequest, kind: usage.Clearable) -> Status[None]:
    """Clear what is made again when it is asked for."""
    usage.clear(kind)
    return Status(204, None)
