"""The HTTP API: routers, errors and the CSRF check, put together."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import NinjaAPI
from ninja.utils import check_csrf

from tallpage.server import problems
from tallpage.server.archives.api import router as archives_router
from tallpage.server.clips.api import router as clips_router
from tallpage.server.handover.api import router as handover_router
from tallpage.server.joins.api import router as joins_router
from tallpage.server.outlets.outlets_api import router as outlets_router
from tallpage.server.outlets.outputs_api import router as outputs_router
from tallpage.server.outlets.snippets_api import router as snippets_router
from tallpage.server.people.accounts_api import router as accounts_router
from tallpage.server.people.api import router as people_router
from tallpage.server.people.guarding import is_token
from tallpage.server.preferences.api import router as preferences_router
from tallpage.server.routines.api import router as routines_router
from tallpage.server.routines.runs_api import router as runs_router
from tallpage.server.shelf.routes.captures import router as shelf_router
from tallpage.server.shelf.routes.carrying import router as carrying_router
from tallpage.server.shelf.routes.hiding import router as hiding_router
from tallpage.server.shelf.routes.marks import router as marks_router
from tallpage.server.shelf.routes.prepared import router as prepared_router
from tallpage.server.shelf.routes.screens import router as screens_router
from tallpage.server.shelf.routes.sorting import router as sorting_router
from tallpage.server.shelf.routes.wanted import router as wanted_router
from tallpage.server.signins.api import router as signins_router
from tallpage.server.sweeps.api import router as sweeps_router
from tallpage.server.upkeep.api import router as upkeep_router
from tallpage.server.webhooks.api import router as webhooks_router


def from_our_own_page(request: HttpRequest) -> bool:
    """Whether a changing request carries our own page's CSRF token, or comes from a script with a token."""
    return is_token(request) or check_csrf(request) is None


api = NinjaAPI(
    title="Tall Page",
    version="1",
    description="Captures, cuts, outlets, outputs and sweeps. Errors are problem+json (RFC 9457).",
    auth=from_our_own_page,
)
problems.install(api)
api.add_router("", wanted_router)  # these two before the shelf: they have names where it has numbers
api.add_router("", sorting_router)
api.add_router("", shelf_router)
api.add_router("", screens_router)
api.add_router("", marks_router)
api.add_router("", carrying_router)
api.add_router("", hiding_router)
api.add_router("", prepared_router)
api.add_router("", outlets_router)
api.add_router("", outputs_router)
api.add_router("", snippets_router)
api.add_router("", signins_router)
api.add_router("", sweeps_router)
api.add_router("", handover_router)
api.add_router("", routines_router)
api.add_router("", runs_router)
api.add_router("", people_router)
api.add_router("", accounts_router)
api.add_router("", preferences_router)
api.add_router("", webhooks_router)
api.add_router("", archives_router)
api.add_router("", joins_router)
api.add_router("", clips_router)
api.add_router("", upkeep_router)
