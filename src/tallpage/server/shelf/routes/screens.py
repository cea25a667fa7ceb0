"""HTTP API of the displays."""

from __future__ import annotations

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router, Status

from tallpage.server.shelf.arriving.screens import add_screen, all_screens, remove_screen
from tallpage.server.shelf.models import OwnScreen
from tallpage.server.shelf.routes.schemas import NamedScreenIn, NamedScreenOut

router = Router(tags=["screens"])


@router.get("/screens", response=list[NamedScreenOut], operation_id="list_screens")
def list_screens(request: HttpRequest) -> list[NamedScreenOut]:
    """Displays that can be simulated by name."""
    return all_screens()


@router.post("/screens", response={201: NamedScreenOut}, operation_id="add_screen")
def post_screen(request: HttpRequest, payload: NamedScreenIn) -> Status[NamedScreenOut]:
    """Add a display of one's own."""
    return Status(201, add_screen(payload))


@router.delete("/screens", response={204: None}, operation_id="delete_screen")
def delete_screen(request: HttpRequest, name: str) -> Status[None]:
    """Remove the own display of a name, which may hold any character; captures that were taken on it stay."""
    remove_screen(get_object_or_404(OwnScreen, name=name))
    return Status(204, None)
