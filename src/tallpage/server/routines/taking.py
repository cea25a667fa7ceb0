"""How a routine takes a page, in the words of the shelf."""

from __future__ import annotations

from dataclasses import asdict, fields

from tallpage.core.capture import PageRequest
from tallpage.server.shelf.routes.schemas import TakeSettings

_ELSEWHERE = ("address", "screen", "sign_in", "timeouts", "steps", "leave_out")


def take_settings(request: PageRequest) -> TakeSettings:
    """The settings by which a page is taken as ``request`` says."""
    plain = {row.name: getattr(request, row.name) for row in fields(request) if row.name not in _ELSEWHERE}
    steps = [asdict(step) for step in request.steps]
    return TakeSettings.model_validate({**plain, "steps": steps, "leave_out": list(request.leave_out)})
