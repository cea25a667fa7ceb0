"""Putting the next shots of each sweep on the queue, a few at a time.

The queue only ever holds what the workers will begin soon: so a pause takes hold at once, a page
taken by hand waits for few others, and no host is pressed.
"""

from __future__ import annotations

import time
from datetime import timedelta
from typing import Any

from django.db import transaction
from django.db.models import Max
from django.utils import timezone

from tallpage.core.sweep import Waiting, next_up
from tallpage.server.jobs.apart import each_apart
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.ticking import wake
from tallpage.server.outlets.fitting import add_slot_output
from tallpage.server.shelf.arriving.taking import order_page
from tallpage.server.shelf.models import Capture
from tallpage.server.shelf.routes.schemas import TakeSettings
from tallpage.server.signins.keeping import host_key
from tallpage.server.sweeps.comparing import order_look
from tallpage.server.sweeps.models import Shot, Sweep

_AHEAD = 4
"""Shots of a sweep that wait on the queue. However many workers draw from it, on however many
machines: it is filled up again twice a second."""
_LOOKED_AT = 400
_FOLLOWED_UP_AT_ONCE = 20


def feed_all() -> bool:
    """Order what may be taken now, of every sweep that goes on; whether there is one. Short: a few rows."""
    # For others there is nothing to write: whoever else writes need not wait.
    going_on = [
        sweep
        for sweep in Sweep.objects.filter(finished_at=None)
        if sweep.stop_mode != Sweep.StopMode.PAUSE or sweep.shots.under_way().exists() or _arrived(sweep)
    ]
    each_apart(going_on, _carry_on, fail=_end_with)
    return bool(going_on)


@transaction.atomic  # it is begun as a writer, so two supervisors take turns
def _carry_on(sweep: Sweep) -> None:
    sweep.refresh_from_db()
    if sweep.stop_mode == Sweep.StopMode.GO_ON:
        _order_next(sweep)
    _follow_up(sweep)
    _finish(sweep)


def _end_with(sweep: Sweep, reason: str) -> None:
    """A sweep that cannot go on keeps what it has."""
    Sweep.objects.filter(pk=sweep.pk).update(
        stop_mode=Sweep.StopMode.STOP, finished_at=timezone.now(), problem=f"It cannot go on: {reason}"
    )


def wake_feeding(**_: object) -> None:
    """Something of a sweep has changed: once it is stored, what may be taken now is ordered at once."""
    transaction.on_commit(lambda: wake("pages"), robust=True)


def _order_next(sweep: Sweep) -> None:
    under_way = list(sweep.shots.under_way().values_list("page__host", "capture__job__state"))
    free = _AHEAD - sum(state == Job.State.QUEUED for _, state in under_way)
    if free <= 0:
        return
    waiting = sweep.shots.waiting().order_by("page__number", "screen_at").values_list("pk", "page__host")
    chosen, _ = next_up(
        (Waiting(*row) for row in waiting[:_LOOKED_AT]),
        pace=sweep.pace,
        free=free,
        under_way=[host for host, _ in under_way],
        started_at=_started_at(sweep),
        now=time.time(),
    )
    for shot in Shot.objects.filter(pk__in=[row.number for row in chosen]).select_related(
        "page", "sweep__previous"
    ):
        screen = sweep.core_screens()[shot.screen_at]
        shot.capture = order_page(
            shot.page.address,
            screen,
            TakeSettings(**_settings_of(shot, sweep)),
            one_of_many=True,
            renews=_before(shot),
        )
        shot.ordered_at = timezone.now()
        shot.save(update_fields=["capture", "ordered_at"])


def _settings_of(shot: Shot, sweep: Sweep) -> dict[str, Any]:
    """How a shot is taken: as it was said of itself, else of its host, else of all."""
    host = host_key(shot.page.address) if sweep.host_settings else ""
    found: dict[str, Any] = shot.settings or sweep.host_settings.get(host) or sweep.settings
    return found


def _before(shot: Shot) -> Capture | None:
    """The same page on the same screen as it was taken last, in this sweep or in the one before."""
    if shot.replaced is not None:
        return shot.replaced
    previous = shot.sweep.previous
    if previous is None:
        return None
    screen = shot.sweep.screens[shot.screen_at]
    same = [at for at, row in enumerate(previous.screens) if row == screen]
    earlier = previous.shots.taken().filter(page__address=shot.page.address, screen_at__in=same)
    found = earlier.select_related("capture").first()
    return found.capture if found else None


def _started_at(sweep: Sweep) -> dict[str, float]:
    """When the last page of each host was ordered, as far back as it matters."""
    since = timezone.now() - timedelta(milliseconds=sweep.pause_ms)
    recent = sweep.shots.filter(ordered_at__gte=since).values("page__host").annotate(last=Max("ordered_at"))
    return {row["page__host"]: row["last"].timestamp() for row in recent}


def _arrived(sweep: Sweep) -> list[Shot]:
    """Some of the shots that have arrived, and that nothing has been done with yet."""
    arrived = sweep.shots.taken().filter(followed_up=False).select_related("capture")
    return list(arrived[:_FOLLOWED_UP_AT_ONCE])


def _follow_up(sweep: Sweep) -> None:
    """Have pages that have arrived looked at, and their files made.

    A slot that cannot be made of a page says so in its ledger. Of a cut that needs a look nothing is made:
    what it hides may be shown there.
    """
    slots = list(sweep.slots.select_related("outlet"))
    for shot in _arrived(sweep):
        order_look(shot)
        cut = shot.capture.cuts.first() if shot.capture else None
        if cut is not None and not cut.needs_a_look:
            there = set(cut.outputs.values_list("slot_id", flat=True))
            for slot in slots:
                if slot.pk not in there:
                    add_slot_output(cut, slot)
        Shot.objects.filter(pk=shot.pk).update(followed_up=True)


def _finish(sweep: Sweep) -> None:
    going = sweep.stop_mode != Sweep.StopMode.STOP and sweep.shots.waiting().exists()
    if not going and not sweep.shots.under_way().exists() and not _arrived(sweep):
        Sweep.objects.filter(pk=sweep.pk).update(finished_at=timezone.now())
