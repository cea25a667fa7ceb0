"""Finding what has finished, and putting a message about it on its way."""

from __future__ import annotations

from datetime import timedelta

from django.db import transaction
from django.db.models import Q
from django.utils import timezone

from tallpage.server.jobs.apart import each_apart
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.queue import enqueue
from tallpage.server.webhooks.events import EVENTS, news_since
from tallpage.server.webhooks.models import Delivery, Webhook
from tallpage.server.webhooks.sending import KIND

_AT_ONCE = 50
_OVERLAP = timedelta(seconds=30)
"""What is stored a little later than the time that it bears is still found."""
_KEPT_FOR = timedelta(days=30)


def look_for_news() -> bool:
    """Note what has finished for each address, and queue the messages that are due; short: a few rows.

    It never has to be soon again.
    """
    each_apart(Webhook.objects.filter(active=True), _note_news, fail=_look_again)
    _queue_due()
    return False


def _look_again(_hook: Webhook, _reason: str) -> None:
    """News that could not be noted is looked for again; the log says what kept it."""


def _note_news(hook: Webhook) -> None:
    since = max(hook.looked_up_to - _OVERLAP, hook.created_at)
    wanted = [event for event in EVENTS if event in hook.events]
    found = {
        event: news_since(event, since, hook.deliveries.filter(event=event), most=_AT_ONCE)
        for event in wanted
    }
    if not any(found.values()):
        return
    # Of a kind of which there is more than was looked at, the rest comes the next time.
    cut_off = [rows[-1].happened_at for rows in found.values() if len(rows) >= _AT_ONCE]
    up_to = min(cut_off) if cut_off else max(row.happened_at for rows in found.values() for row in rows)
    with transaction.atomic():
        Delivery.objects.bulk_create(
            (
                Delivery(
                    webhook=hook,
                    event=event,
                    subject_id=row.subject_id,
                    happened_at=row.happened_at,
                    body=row.says(),
                )
                for event, rows in found.items()
                for row in rows
            ),
            ignore_conflicts=True,  # another supervisor was faster
        )
        Webhook.objects.filter(pk=hook.pk, looked_up_to__lt=up_to).update(looked_up_to=up_to)


def _queue_due() -> None:
    now = timezone.now()
    due = Delivery.objects.filter(state=Delivery.State.WAITING, next_at__lte=now, webhook__active=True)
    free = due.filter(Q(job=None) | ~Q(job__state__in=(Job.State.QUEUED, Job.State.RUNNING)))
    for row in free.order_by("pk")[:_AT_ONCE]:
        with transaction.atomic():
            if Delivery.objects.filter(pk=row.pk, job=row.job_id, state=Delivery.State.WAITING).exists():
                Delivery.objects.filter(pk=row.pk).update(job=enqueue(KIND))
    old = Delivery.objects.filter(created_at__lt=now - _KEPT_FOR).exclude(state=Delivery.State.WAITING)
    if old.exists():  # where there are none nothing is written: whoever else writes need not wait
        old.delete()
