"""Animated pictures on a page that is watched: the browser keeps them still, so each is shown by us."""

from __future__ import annotations

import base64
from collections.abc import Iterator

from tallpage.core.capture.browser._page_session import PageSession
from tallpage.core.capture.clip._animation import Animation

_NEVER_MOVE = ("image/jpeg", "image/svg+xml")
"""What is of these kinds does not consist of pictures."""


class MovingPictures:
    """Those of one page, each with how long it has been there."""

    def __init__(self, page: PageSession, *, timeout_ms: int) -> None:
        self._page, self._timeout_ms = page, timeout_ms
        self._known: set[str] = set()
        self._before_ms = 0.0
        self._moving: dict[str, tuple[Animation, float]] = {}
        """By address: what moves, and when it began, in ms of the page's time."""

    def show_at(self, moment_ms: float) -> None:
        """Show each as it is then; those that are new began when the one before was shown."""
        for address, data in self._new_ones():
            animation = Animation.of(data)
            if animation is not None:
                self._moving[address] = (animation, self._before_ms)
        self._before_ms = moment_ms
        if not self._moving:
            return
        numbers = {
            address: animation.number_at(moment_ms - since_ms)
            for address, (animation, since_ms) in self._moving.items()
        }
        missing: set[str] = set()
        for lacking in self._show(numbers, {}):
            missing.update(lacking)
        if missing:
            pictures = {
                address: base64.b64encode(self._moving[address][0].png(numbers[address])).decode()
                for address in missing
            }
            self._show(numbers, pictures)

    def _show(self, numbers: dict[str, int], pictures: dict[str, str]) -> list[list[str]]:
        """Show these; what each frame of the page would show and has not been given yet is returned."""
        order = {"numbers": numbers, "pictures": pictures}
        return self._page.run_in_all_frames("clip/pictures", order, timeout_ms=self._timeout_ms)

    def _new_ones(self) -> Iterator[tuple[str, bytes]]:
        """What the page has loaded since, by its address, as far as it may move."""
        for address, mime_type, read in self._page.loaded_pictures(timeout_ms=self._timeout_ms):
            if address in self._known or mime_type in _NEVER_MOVE or _is_ours(address, mime_type):
                continue
            self._known.add(address)
            data = read()
            if data is not None:
                yield address, data


def _is_ours(address: str, mime_type: str) -> bool:
    """Whether a picture may be one that was put in the place of another."""
    return address.startswith("blob:") and mime_type == "image/png"
