"""What is kept of a live page: pictures on the shelf, and the sign-in."""

from __future__ import annotations

import json
from typing import Any
from urllib.parse import urlsplit

from tallpage.core.capture.live import LiveExtent, Recording, Taken
from tallpage.core.errors import PageError
from tallpage.core.geometry import Box
from tallpage.server.database import once_it_can_be_written
from tallpage.server.shelf.arriving.taking import shelve_taken
from tallpage.server.shelf.models import Capture
from tallpage.server.shelf.routes.schemas import StepSchema, TakeSettings
from tallpage.server.signins import keeping
from tallpage.server.signins.models import SavedSignIn
from tallpage.server.storage import discard_folder


def keep_taken(taken: Taken, settings: TakeSettings, area: Box | None) -> Capture:
    """Put on the shelf what was taken, with an area of it as its first cut.

    Raises:
        StorageError: the disk is full; nothing is left of it.
    """
    screen = taken.report.screen
    area_px = area and Box(
        x_px=area.x_px * screen.scale,
        y_px=area.y_px * screen.scale,
        width_px=area.width_px * screen.scale,
        height_px=area.height_px * screen.scale,
    )
    try:
        return once_it_can_be_written(
            lambda: shelve_taken(taken.folder, taken.manifest, taken.report, settings, area_px)
        )
    except BaseException:
        discard_folder(taken.folder)
        raise


def settings_of(extent: LiveExtent, target: str, recording: Recording, plain: TakeSettings) -> TakeSettings:
    """How the same would be taken again without anybody at the page."""
    steps = [StepSchema(kind=step.kind, target=step.target, text=step.text) for step in recording.steps]
    update = {"extent": extent, "element": target, "steps": steps, "fixed_overlays": "keep"}
    return plain.model_copy(update=update)


def save_sign_in(address: str, state: dict[str, Any]) -> SavedSignIn:
    """Keep what a visit was given by the host of an address, sealed as every sign-in is.

    Raises:
        PageError: that host has given nothing.
    """
    host = (urlsplit(address).hostname or "").lower()
    cookies = [row for row in state.get("cookies", []) if _is_of(row.get("domain", ""), host)]
    origins = [
        row
        for row in state.get("origins", [])
        if (urlsplit(row.get("origin", "")).hostname or "").lower() == host
    ]
    if not cookies and not origins:
        raise PageError(
            f"{host or 'This page'} has given nothing to be signed in by.",
            hint="Sign in on the page first.",
            code="sign_in_empty",
        )
    data = json.dumps({"cookies": cookies, "origins": origins}).encode()
    return keeping.save_state(keeping.host_key(address), data)


def _is_of(domain: str, host: str) -> bool:
    """Whether a cookie of a domain is sent to a host. Source: RFC 6265, 5.1.3."""
    plain = domain.lstrip(".").lower()
    return host == plain or host.endswith(f".{plain}")
