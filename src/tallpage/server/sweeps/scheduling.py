"""Taking sweeps again at set times."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime
from itertools import islice
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

from cronsim import CronSim, CronSimError
from django.db import transaction
from django.utils import timezone

from tallpage.core.errors import ListError
from tallpage.core.sweep import Found
from tallpage.server.jobs.apart import each_apart
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.queue import Signals, Work, enqueue
from tallpage.server.sweeps.listing import list_site
from tallpage.server.sweeps.models import Schedule, Sweep
from tallpage.server.sweeps.planning import start_again

KIND = "sweep_again"


def next_times(cron: str, time_zone: str, *, after: datetime, count: int) -> list[datetime]:
    """The next times of a cron expression (five fields), by the clocks of a time zone.

    Raises:
        ListError: it is no cron expression, never comes, or there is no such time zone.
    """
    try:
        zone = ZoneInfo(time_zone)
    except (ZoneInfoNotFoundError, ValueError, OSError) as error:
        raise ListError(
            f"There is no time zone “{time_zone}”.",
            hint="Write it like Europe/London.",
            code="schedule_malformed",
        ) from error
    try:
        times = list(islice(CronSim(cron, after.astimezone(zone)), count))
    except CronSimError as error:
        raise ListError(
            f"“{cron}” is not a time.",
            hint="Five fields: minute, hour, day of the month, month, day of the week: 0 6 * * 1.",
            code="schedule_malformed",
        ) from error
    if not times:
        raise ListError(f"“{cron}” never comes.", code="schedule_malformed")
    return times


def set_schedule(sweep: Sweep, cron: str, time_zone: str) -> Schedule:
    """Take a sweep again at set times, instead of at those set before."""
    next_at = next_times(cron, time_zone, after=timezone.now(), count=1)[0]
    schedule, _ = Schedule.objects.update_or_create(
        sweep=sweep, defaults={"cron": cron, "time_zone": time_zone, "next_at": next_at, "job": None}
    )
    return schedule


def start_due() -> bool:
    """Have sweeps begun whose time has come; the next may come at any time, but never soon again.

    A sweep that still goes on is waited for.
    """
    now = timezone.now()
    due = Schedule.objects.filter(next_at__lte=now, sweep__finished_at__isnull=False)
    ready = (row for row in due.select_related("job") if not (row.job and row.job.pending))
    each_apart(ready, _begin_again, fail=_give_up)
    return False


@transaction.atomic  # it is begun as a writer, so two supervisors take turns
def _begin_again(schedule: Schedule) -> None:
    next_at = next_times(schedule.cron, schedule.time_zone, after=timezone.now(), count=1)[0]
    # Two supervisors may see the same: only one can move its time on.
    ours = Schedule.objects.filter(pk=schedule.pk, next_at=schedule.next_at).update(next_at=next_at)
    if ours:
        Schedule.objects.filter(pk=schedule.pk).update(job=enqueue(KIND))


def _give_up(schedule: Schedule, reason: str) -> None:
    problem = f"It is not taken again at set times any more: {reason}"
    Sweep.objects.filter(pk=schedule.sweep_id).update(problem=problem)
    Schedule.objects.filter(pk=schedule.pk).delete()


def prepare(job: Job) -> Work:
    """How a sweep is begun again: its site is asked for its list anew, if it came from one."""
    schedule = Schedule.objects.select_related("sweep").filter(job=job).first()
    if schedule is None:
        return Work(run=lambda _: None, commit=lambda _: None)
    sweep = schedule.sweep
    known = known_addresses(sweep)

    def run(_: Signals) -> Sequence[Found] | None:
        return pages_now(sweep, known)

    def commit(listed: Sequence[Found] | None) -> None:
        start_again(sweep, listed)

    return Work(run=run, commit=commit)


def known_addresses(sweep: Sweep) -> set[str]:
    """The pages that a sweep takes."""
    return set(sweep.pages.filter(gone=False).values_list("address", flat=True))


def pages_now(sweep: Sweep, known: set[str]) -> list[Found] | None:
    """What the sweep's site lists now; None when its list did not come from a site.

    What robots.txt asks to leave out is left out, unless it is ``known``: taken before, by choice.

    Raises:
        PageUnreachable, ListError: the site does not tell.
    """
    if not sweep.site:
        return None
    listing = list_site(sweep.site)
    return [
        Found(text=page.address, line=page.line, title=page.title)
        for page in listing.pages.pages
        if page.address not in listing.forbidden or page.address in known
    ]
