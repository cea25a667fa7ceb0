"""Which captures of the shelf are looked for, in which order, and by what they can be looked for."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, datetime, time, timedelta
from typing import Literal

from django.db.models import Count, Q
from django.utils import timezone

from tallpage.core.capture import Screen
from tallpage.core.errors import ScreenError
from tallpage.server.jobs.models import Job
from tallpage.server.shelf.models import Capture, CaptureQuerySet, Folder
from tallpage.server.shelf.sorting.searching import saying

State = Literal["", "ready", "not_whole", "warned", "failed", "under_way", "not_cleared"]
Order = Literal["newest", "oldest", "name", "site", "tallest", "heaviest"]
NO_FOLDER = 0
MOST_TOLD = 100_000
"""So many numbers are told at most: far more than anybody scrolls through."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Wanted:
    """Which captures of the shelf are looked for; what is not said does not matter."""

    words: str = ""
    alone: bool = False
    """Without those that were taken with a whole list of pages."""
    folder: int | None = None
    """With the folders in it; :data:`NO_FOLDER` for those that are in none."""
    label: str = ""
    host: str = ""
    screen: str = ""
    """As :func:`screen_key` writes it."""
    since: date | None = None
    until: date | None = None
    """The last day on which they were ordered, itself included."""
    state: State = ""

    def found(self) -> CaptureQuerySet:
        """The captures, the newest first."""
        shelf = Capture.objects.on_shelf()
        shelf = shelf.filter(_not_cleared() if self.state == "not_cleared" else _STATES[self.state])
        if self.words.strip():
            shelf = shelf.filter(pk__in=saying(self.words))
        if self.alone:
            shelf = shelf.filter(one_of_many=False)
        if self.folder == NO_FOLDER:
            shelf = shelf.filter(shelf_folder=None)
        elif self.folder is not None:
            shelf = shelf.filter(shelf_folder__in=_with_those_in(self.folder))
        if self.label:
            shelf = shelf.filter(labels__name__iexact=self.label)
        if self.host:
            shelf = shelf.filter(host__iexact=self.host)
        if self.screen:
            shelf = shelf.filter(_on_screen(self.screen))
        if self.since:
            shelf = shelf.filter(created_at__gte=_begin_of(self.since))
        if self.until:
            shelf = shelf.filter(created_at__lt=_begin_of(self.until) + timedelta(days=1))
        return shelf

    def ids(self, order: Order, most: int) -> list[int]:
        """Their numbers in an order; of equals the newest first."""
        rows = self.found().order_by(*_ORDERS[order], "-pk")
        return list(rows.values_list("pk", flat=True)[:most])


_STATES: dict[str, Q] = {
    "": Q(),
    "ready": ~Q(storage_key=""),
    "not_whole": Q(whole=False),
    "warned": ~Q(warnings=[]),
    "failed": Q(job__state__in=(Job.State.FAILED, Job.State.STOPPED), storage_key=""),
    "under_way": Q(job__state__in=(Job.State.QUEUED, Job.State.RUNNING)),
}
_ORDERS: dict[Order, tuple[str, ...]] = {
    "newest": (),
    "oldest": ("pk",),
    "name": ("name",),
    "site": ("host", "name"),
    "tallest": ("-height_px",),
    "heaviest": ("-bytes",),
}


def screen_key(screen: Screen) -> str:
    """A screen as it is asked for: ``1280x800@2``."""
    return f"{screen.width_px}x{screen.height_px}@{screen.scale}"


def sites() -> list[tuple[str, int]]:
    """The hosts of the captures on the shelf, by name, with how many captures each has."""
    return list(
        Capture.objects.filter(deleted_at=None)
        .exclude(host="")
        .values_list("host")
        .annotate(count=Count("pk"))
        .order_by("host")
    )


def screens() -> list[tuple[Screen, int]]:
    """The screens that captures of the shelf were taken with, the most used first."""
    rows = (
        Capture.objects.filter(deleted_at=None)
        .exclude(screen_width_px=None)
        .values_list("screen_width_px", "screen_height_px", "scale")
        .annotate(count=Count("pk"))
        .order_by("-count", "screen_width_px")
    )
    return [(Screen(width_px=w, height_px=h, scale=scale), count) for w, h, scale, count in rows]


def _on_screen(key: str) -> Q:
    """The captures of a screen; none for what names no screen."""
    try:
        screen = Screen.parse(key)
    except ScreenError:
        return Q(pk__in=())
    return Q(screen_width_px=screen.width_px, screen_height_px=screen.height_px, scale=screen.scale)


def _not_cleared() -> Q:
    """The captures of which somebody is asked before they are handed over, as :class:`Rights` tells."""
    ran_out = Q(rights_state="licensed", licensed_until__lt=timezone.localdate())
    return ran_out | Q(rights_state__in=("asked", "not_cleared"))


def _begin_of(day: date) -> datetime:
    return timezone.make_aware(datetime.combine(day, time.min))


def _with_those_in(folder_id: int) -> list[int]:
    """A folder and all that lie in it, however deep."""
    children: dict[int | None, list[int]] = {}
    for pk, parent in Folder.objects.values_list("pk", "parent"):
        children.setdefault(parent, []).append(pk)
    found, waiting = [], [folder_id]
    while waiting:
        found.append(waiting.pop())
        waiting += children.get(found[-1], [])
    return found
