"""The contact sheet of a sweep: every picture small, with its name, as a page and for printing."""

from __future__ import annotations

import base64
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor

from django.template.loader import render_to_string

from tallpage.core.capture import print_as_pdf
from tallpage.server.shelf.models import Capture
from tallpage.server.shelf.showing.views import thumbnail_of
from tallpage.server.sweeps.models import Sweep

_PRINTED_AT_ONCE = 240
"""More pictures are printed into several files: the browser holds those of a file in memory."""
_HERE = "<!-- pictures -->"


class ContactSheet:
    """Pictures of a sweep, added one by one, then told of together."""

    def __init__(self, sweep: Sweep) -> None:
        self._sweep = sweep
        self._pictures: list[tuple[int, str]] = []

    def add(self, capture: Capture, file: str) -> None:
        """Note a picture, and the name under which it was saved; empty when only its slots were."""
        self._pictures.append((capture.pk, file))

    def as_page(self) -> Iterator[bytes]:
        """A page that needs nothing else, piece by piece."""
        return self._page(self._pictures, "")

    def printed(self) -> Iterator[tuple[str, bytes]]:
        """``(name, PDF)``: one file, or of many pictures several."""
        stacks = [
            self._pictures[start : start + _PRINTED_AT_ONCE]
            for start in range(0, len(self._pictures), _PRINTED_AT_ONCE)
        ]
        for number, stack in enumerate(stacks, start=1):
            part = f"{number} of {len(stacks)}" if len(stacks) > 1 else ""
            page = b"".join(self._page(stack, part)).decode()
            # Django keeps its database out of a thread in which the browser is waited for.
            with ThreadPoolExecutor(max_workers=1) as thread:
                data = thread.submit(print_as_pdf, page).result()
            yield f"contact-sheet{f'-{number}' if part else ''}.pdf", data

    def _page(self, pictures: list[tuple[int, str]], part: str) -> Iterator[bytes]:
        page = render_to_string(
            "sweeps/contact_sheet.html",
            {"sweep": self._sweep, "count": len(self._pictures), "part": part, "here": _HERE},
        )
        head, _, foot = page.partition(_HERE)
        yield head.encode()
        for capture_id, file in pictures:
            capture = Capture.objects.get(pk=capture_id)
            yield render_to_string(
                "sweeps/contact_picture.html", {"capture": capture, "picture": _small(capture), "file": file}
            ).encode()
        yield foot.encode()


def _small(capture: Capture) -> str:
    """The upper part of a page, as text that a page can hold."""
    return base64.b64encode(thumbnail_of(capture, "small")).decode()
