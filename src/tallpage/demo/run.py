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
_FIRST_PAGES = (("/islands", "desk"), ("/", "desk"), ("/timetable", "phone"), ("/fleet", "tablet"))


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
    from tallpage.server.shelf.taking import order_page

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
    if not loaded.exists():
        load_outlets()
        order_first_pages(site)
        loaded.touch()
    print(f"The demo site, Skerrin Sound Ferries, is at {site}/", flush=True)
    command = [sys.executable, "-m", "tallpage.demo.site_server"]
    return {"site": [*command, "--port", str(SITE_PORT), "--photos", str(photos)]}


def main() -> None:
    """Load what is missing, then run everything until it is ended."""
    from tallpage.server.serve import serve_all

    serve_all(load=load_demo)


if __name__ == "__main__":
    main()
