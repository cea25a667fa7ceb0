"""What each address of the server asks of whoever comes. An address without a rule lets nobody in."""

from __future__ import annotations

from typing import Literal

Need = Literal["anybody", "viewer", "producer"]

_API = "api/"
_READING = ("GET", "HEAD", "OPTIONS")

LOOKED_AT = frozenset(
    {
        "accounts",
        "archives",
        "captures",
        "captures/deleted",
        "captures/by",
        "captures/ids",
        "captures/rows",
        "data-folder",
        "folders",
        "labels",
        "captures/<capture_id>",
        "captures/<capture_id>/coarseness",
        "captures/<capture_id>/hidden",
        "captures/<capture_id>/map",
        "captures/<capture_id>/so-far",
        "captures/<capture_id>/so-far/<number>",
        "captures/<capture_id>/spine",
        "captures/<capture_id>/strips/<number>",
        "captures/<capture_id>/thumbnail",
        "captures/<capture_id>/tiles/<column>/<row>",
        "captures/<int:capture_id>/log",
        "clips",
        "clips/files/<int:output_id>/file",
        "clips/<int:clip_id>",
        "clips/<int:clip_id>/frames/<int:number>/<int:width_px>",
        "cuts/<cut_id>",
        "cuts/<cut_id>/carry/<capture_id>",
        "cuts/<cut_id>/carry/<capture_id>/picture",
        "cuts/<cut_id>/dressed",
        "cuts/<cut_id>/file",
        "cuts/<cut_id>/outputs",
        "cuts/<cut_id>/piece",
        "hand-over/ways",
        "hand-overs/<int:line_id>",
        "hand-overs/<int:line_id>/file",
        "hand-overs/<int:line_id>/package",
        "hand-overs/<int:line_id>/sheets/<int:number>",
        "joins/<int:join_id>",
        "joins/<int:join_id>/parts/<int:number>",
        "marks/styles",
        "marks/usual",
        "me",
        "me/keys",
        "outlets",
        "outlets/file",
        "outlets/uploads",
        "outputs/<output_id>/file",
        "outputs/<output_id>/leaves/<number>/file",
        "outputs/<output_id>/snippet.zip",
        "outputs/<output_id>/swatches/<name>",
        "outputs/<output_id>/<side>/<number>",
        "routines",
        "routines/starters",
        "routines/<int:routine_id>",
        "routines/<int:routine_id>/file",
        "routines/<int:routine_id>/looks",
        "routines/<int:routine_id>/looks/<int:number>",
        "runs",
        "runs/items/<int:item_id>/look",
        "runs/<int:run_id>",
        "runs/<int:run_id>/items",
        "runs/<int:run_id>/outputs",
        "screens",
        "searches",
        "settings",
        "settings/file",
        "signs",
        "stickers/<name>",
        "sweeps",
        "sweeps/shots/<shot_id>/change",
        "sweeps/<sweep_id>",
        "sweeps/<sweep_id>/rows",
        "sweeps/<sweep_id>/zip",
        "watched-folders",
    }
)
"""Routes of the API that are read by GET: for viewers."""

ASKED = frozenset(
    {
        "accounts/<int:account_id>/tokens",
        "captures/<capture_id>/blank",
        "captures/<capture_id>/colour",
        "captures/<capture_id>/found",
        "captures/<capture_id>/level",
        "captures/<capture_id>/trim",
        "hand-over/names",
        "hand-over/rights",
        "hand-overs",
        "marks/drawn",
        "me/keys",
        "outputs/<output_id>/hand",
        "outputs/<output_id>/snippet",
        "settings",
        "settings/file",
        "tokens/<int:token_id>/revoke",
    }
)
"""Routes by which something is only worked out, a file saved, or something of one's own set, although they
are posted to: for viewers."""

OF_ONES_OWN = frozenset(
    {
        "accounts/<int:account_id>/tokens",
        "me/keys",
        "settings",
        "settings/file",
        "tokens/<int:token_id>/revoke",
    }
)
"""Those of them by which a viewer sets something of their own: not for a token for reading."""

CHANGED: dict[str, tuple[str, ...]] = {
    "accounts": ("POST",),
    "accounts/<int:account_id>": ("PATCH",),
    "accounts/<int:account_id>/password": ("POST",),
    "archives": ("POST",),
    "archives/<archive_id>/stop": ("POST",),
    "captures/batch": ("POST",),
    "captures/retake": ("POST",),
    "data-folder/<kind>": ("DELETE",),
    "folders": ("POST",),
    "clips": ("POST",),
    "clips/shared": ("POST",),
    "clips/shared/<key>": ("POST",),
    "clips/shared/<key>/frames": ("POST",),
    "clips/files/<int:output_id>": ("DELETE",),
    "clips/files/<int:output_id>/stop": ("POST",),
    "clips/<int:clip_id>": ("DELETE", "PUT"),
    "clips/<int:clip_id>/files": ("POST",),
    "clips/<int:clip_id>/stop": ("POST",),
    "joins": ("POST",),
    "joins/<int:join_id>/keep": ("POST",),
    "joins/<int:join_id>/seam": ("POST",),
    "folders/<folder_id>": ("DELETE", "PUT"),
    "captures": ("POST",),
    "captures/deleted": ("DELETE",),
    "captures/<capture_id>": (
        "DELETE",
        "PATCH",
    ),
    "captures/<capture_id>/again": ("POST",),
    "captures/<capture_id>/cuts": ("POST",),
    "captures/<capture_id>/cuts/file": ("POST",),
    "captures/<capture_id>/cuts/order": ("PUT",),
    "captures/<capture_id>/further": ("POST",),
    "captures/<capture_id>/restore": ("POST",),
    "captures/<capture_id>/retake": ("POST",),
    "captures/<capture_id>/stop": ("POST",),
    "cuts/<cut_id>": (
        "DELETE",
        "PATCH",
    ),
    "cuts/<cut_id>/carry": ("POST",),
    "cuts/<cut_id>/duplicate": ("POST",),
    "cuts/<cut_id>/name": ("PUT",),
    "cuts/<cut_id>/outputs": ("POST",),
    "cuts/<cut_id>/outputs/fit": ("POST",),
    "cuts/<cut_id>/restore": ("POST",),
    "cuts/<cut_id>/review": (
        "DELETE",
        "POST",
    ),
    "hand-overs/<int:line_id>/again": ("POST",),
    "hand-overs/<int:line_id>/stop": ("POST",),
    "hand-overs/<int:line_id>/take-back": ("POST",),
    "lists/file": ("POST",),
    "lists/names": ("POST",),
    "lists/site": ("POST",),
    "lists/text": ("POST",),
    "marks/styles": (
        "DELETE",
        "PUT",
    ),
    "outlets": ("POST",),
    "outlets/file": ("POST",),
    "outlets/order": ("PUT",),
    "outlets/<int:outlet_id>/files": ("POST",),
    "outlets/<int:outlet_id>": (
        "DELETE",
        "PATCH",
    ),
    "outlets/<int:outlet_id>/facts": ("PUT",),
    "outlets/<int:outlet_id>/upload": (
        "DELETE",
        "PUT",
    ),
    "outlets/<outlet_id>/copy": ("POST",),
    "outlets/<outlet_id>/slots": ("POST",),
    "outlets/<outlet_id>/slots/order": ("PUT",),
    "outputs/<output_id>": ("DELETE",),
    "outputs/<output_id>/fit": ("POST",),
    "outputs/<output_id>/leaves": ("POST",),
    "outputs/<output_id>/legible": ("PUT",),
    "outputs/<output_id>/stop": ("POST",),
    "pictures": ("POST",),
    "routines": ("POST",),
    "routines/file": ("POST",),
    "routines/order": ("PUT",),
    "routines/<int:routine_id>": ("DELETE", "PUT"),
    "routines/<int:routine_id>/duplicate": ("POST",),
    "routines/<int:routine_id>/key": ("PUT",),
    "routines/<int:routine_id>/restore": ("POST",),
    "routines/<int:routine_id>/runs": ("POST",),
    "runs/<int:run_id>/again": ("POST",),
    "runs/<int:run_id>/mode": ("PUT",),
    "runs/<int:run_id>/retry": ("POST",),
    "watched-folders": ("POST",),
    "watched-folders/<int:folder_id>": ("DELETE",),
    "schedules/times": ("POST",),
    "screens": (
        "DELETE",
        "POST",
    ),
    "webhooks": ("GET", "POST"),
    "webhooks/<int:webhook_id>": ("DELETE", "PATCH"),
    "webhooks/<int:webhook_id>/trial": ("POST",),
    "webhooks/messages/<int:delivery_id>/again": ("POST",),
    "sign-ins": ("GET",),
    "sign-ins/basic": ("PUT",),
    "sign-ins/form": ("PUT",),
    "sign-ins/state": ("POST",),
    "sign-ins/<sign_in_id>": ("DELETE",),
    "searches": ("PUT",),
    "searches/<search_id>": ("DELETE",),
    "slots/<slot_id>": (
        "DELETE",
        "PUT",
    ),
    "stickers": ("POST",),
    "sweeps": ("POST",),
    "sweeps/<sweep_id>": ("DELETE",),
    "sweeps/<sweep_id>/again": ("POST",),
    "sweeps/<sweep_id>/folder": ("POST",),
    "sweeps/<sweep_id>/mark": ("POST",),
    "sweeps/<sweep_id>/retake": ("POST",),
    "sweeps/<sweep_id>/schedule": (
        "DELETE",
        "PUT",
    ),
    "sweeps/<sweep_id>/stop-mode": ("POST",),
}
"""Routes by which something is changed, with their methods: for producers."""

API_PAGES: dict[str, Need] = {
    "": "viewer",
    "docs": "viewer",
    "openapi.json": "viewer",
}
"""What the API says of itself."""

PAGES: dict[str, Need] = {
    "shared/style.css": "anybody",
    "shared/<str:token>/": "anybody",
    "shared/<str:token>/<str:name>": "anybody",
    "account/sign-in": "anybody",
    "account/sign-out": "viewer",
    "^(?!account/|api/|admin/|static/|shared/).*$": "viewer",
}
"""Pages: shared links and the way in are for anybody, the interface for who has an account."""


def only_reads(route: str, method: str) -> bool:
    """Whether nothing at all is set by a route, not even something of one's own."""
    need = need_of(route, method)
    own = method not in _READING and route.removeprefix(_API) in OF_ONES_OWN
    return need != "producer" and not own


def need_of(route: str, method: str) -> Need | None:
    """What a route asks, by its pattern; None for one that has no rule."""
    if not route.startswith(_API):
        return PAGES.get(route)
    path = route.removeprefix(_API)
    if method in _READING and (path in LOOKED_AT or path in API_PAGES):
        return "viewer"
    if method == "POST" and path in ASKED:
        return "viewer"
    return "producer" if method in CHANGED.get(path, ()) else None
