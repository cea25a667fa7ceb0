"""``python -m tallpage.demo.run``: the whole application with demo data, and the demo site beside it."""

from __future__ import annotations

import json
import os
import sys
from importlib import resources
from pathlib import Path
from typing import Any

from tallpage.demo.photo_store import PhotoStore

SITE_PORT = int(os.environ.get("TALLPAGE_DEMO_SITE_PORT", "8610"))
PUBLISHING_PORT, MAIL_PAGE_PORT, MAIL_PORT = SITE_PORT + 1, SITE_PORT + 2, SITE_PORT + 3
BOARD_PORT = SITE_PORT + 4
_FIRST_PAGES = (("/islands", "desk"), ("/", "desk"), ("/timetable", "phone"), ("/fleet", "tablet"))


def load_publishing() -> None:
    """The outlet of the simulated publishing site, with its upload; only once."""
    from tallpage.demo.stand_ins.publishing import MOST_BYTES, MOST_WIDTH_PX, TITLE, TOKEN
    from tallpage.server.handover.models import UploadPlace
    from tallpage.server.outlets.models import Outlet, Slot
    from tallpage.server.signins.encryption import seal

    outlet, made = Outlet.objects.get_or_create(name=TITLE, defaults={"position": Outlet.objects.count()})
    if made:
        Slot.objects.create(
            outlet=outlet,
            name="Picture in a notice",
            width_px=MOST_WIDTH_PX,
            limit_bytes=MOST_BYTES,
            formats=["jpeg", "png", "webp"],
        )
        UploadPlace.objects.create(
            outlet=outlet,
            kind=UploadPlace.Kind.FORM,
            address=f"http://127.0.0.1:{PUBLISHING_PORT}/media",
            sealed=seal({"secret": TOKEN}),
        )


def load_notice_board() -> None:
    """Have the simulated notice board told of everything; only once."""
    from tallpage.demo.stand_ins.notice_board import SECRET
    from tallpage.server.signins.encryption import seal
    from tallpage.server.webhooks.events import EVENTS
    from tallpage.server.webhooks.models import Webhook

    Webhook.objects.get_or_create(
        address=f"http://127.0.0.1:{BOARD_PORT}/told",
        defaults={"events": list(EVENTS), "sealed": seal({"secret": SECRET})},
    )


def load_outlets() -> None:
    """The demo's outlets with their slots, where there are none of these names yet."""
    from tallpage.server.outlets.models import Outlet, Slot

    rows: list[dict[str, Any]] = json.loads(
        resources.files("tallpage.demo").joinpath("outlets.json").read_text("utf-8")
    )
    for position, row in enumerate(rows):
        outlet, made = Outlet.objects.get_or_create(name=row["name"], defaults={"position": position})
        if made:
            for number, slot in enumerate(row["slots"]):
                Slot.objects.create(outlet=outlet, position=number, **slot)


def order_first_pages(site: str) -> None:
    """Put some pages of the demo site on the queue, so that the shelf fills before one's eyes."""
    from tallpage.core.capture import PRESETS
    from tallpage.server.shelf.arriving.taking import order_page

    for path, screen in _FIRST_PAGES:
        order_page(site + path, PRESETS[screen])


def load_demo() -> dict[str, list[str]]:
    """Load what is missing of the demo's data; gives the process of the demo site."""
    from django.conf import settings

    photos = Path(settings.HOME) / "demo-photographs"
    print("Painting the demo site's photographs, where they are missing…", flush=True)
    PhotoStore(photos).paint_all()
    site = f"http://skerrin-ferries.localhost:{SITE_PORT}"
    loaded = Path(settings.HOME) / "demo-loaded"
    published = Path(settings.HOME) / "demo-published"
    if not published.exists():
        load_publishing()
        published.mkdir()
    told = Path(settings.HOME) / "demo-told"
    if not told.exists():
        load_notice_board()
        told.touch()
    if not loaded.exists():
        load_outlets()
        order_first_pages(site)
        loaded.touch()
    print(f"The demo site, Skerrin Sound Ferries, is at {site}/", flush=True)
    print(f"A publishing site to try uploads with is at http://127.0.0.1:{PUBLISHING_PORT}/", flush=True)
    print(f"What is mailed arrives at http://127.0.0.1:{MAIL_PAGE_PORT}/", flush=True)
    print(f"What has finished is told at http://127.0.0.1:{BOARD_PORT}/", flush=True)
    module = [sys.executable, "-m"]
    mail_ports = ["--port", str(MAIL_PAGE_PORT), "--smtp-port", str(MAIL_PORT)]
    return {
        "site": [*module, "tallpage.demo.site_server", "--port", str(SITE_PORT), "--photos", str(photos)],
        "publishing": [
            *[*module, "tallpage.demo.stand_ins.publishing"],
            *["--port", str(PUBLISHING_PORT), "--folder", str(published)],
        ],
        "board": [*module, "tallpage.demo.stand_ins.notice_board", "--port", str(BOARD_PORT)],
        "mail": [*module, "tallpage.demo.stand_ins.mail", *mail_ports],
    }


def main() -> None:
    """Load what is missing, then run everything until it is ended."""
    from tallpage.server.serve import serve_all

    # Mail of the demo goes to its own simulated server, unless another one is named.
    os.environ.setdefault("TALLPAGE_MAIL", f"smtp://127.0.0.1:{MAIL_PORT}")
    os.environ.setdefault("TALLPAGE_MAIL_FROM", "desk@skerrin-ferries.example")
    serve_all(load=load_demo)


if __name__ == "__main__":
    main()
