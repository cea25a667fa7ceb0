"""Deleted captures: kept for a while, so that they can be put back, then cleared from the disk."""

from __future__ import annotations

from datetime import timedelta

from django.db import transaction
from django.utils import timezone

from tallpage.server.jobs.models import Job
from tallpage.server.jobs.ticking import wake
from tallpage.server.preferences.values import value_of
from tallpage.server.reserve import make_room_to_delete
from tallpage.server.shelf.models import Capture, CaptureQuerySet, Cut
from tallpage.server.shelf.sorting.searching import forget_captures
from tallpage.server.storage import capture_folder, discard_folder, views_folder

CUTS_KEPT_FOR = timedelta(days=1)
_AT_ONCE = 10


def kept_for() -> timedelta:
    """For how long what was deleted can be put back."""
    return timedelta(days=int(value_of("keep.deleted_days")))


def deleted() -> CaptureQuerySet:
    """What was deleted and can still be put back, the latest first."""
    return Capture.objects.filter(deleted_at__gt=timezone.now() - kept_for()).order_by("-deleted_at", "-pk")


def clear_all() -> None:
    """Have everything cleared that was deleted, without waiting any longer.

    The disk is freed by :func:`clear_due`, a few captures at a time.
    """
    deleted().update(deleted_at=timezone.now() - kept_for())
    transaction.on_commit(lambda: wake("files"), robust=True)


def _forget_cuts() -> None:
    """Forget the cuts that were deleted some time ago, with their files: those are tidied away then."""
    Cut.with_deleted.filter(deleted_at__lte=timezone.now() - CUTS_KEPT_FOR).delete()


def clear_due() -> bool:
    """Clear a few captures whose time is over, with all that was made of them; whether there were any.

    Rows go first: a row never points at a missing file. What somebody is still at work on waits.
    """
    _forget_cuts()
    due = Capture.objects.filter(deleted_at__lte=timezone.now() - kept_for()).exclude(
        job__state__in=(Job.State.QUEUED, Job.State.RUNNING)
    )
    captures = list(due[:_AT_ONCE])
    if not captures:
        return False
    make_room_to_delete()
    with transaction.atomic():
        ids = [capture.pk for capture in captures]
        Capture.objects.filter(pk__in=ids).delete()
        Job.objects.filter(pk__in=[capture.job_id for capture in captures]).delete()
        forget_captures(ids)
    for key in (capture.storage_key for capture in captures):
        if key:
            discard_folder(capture_folder(key))
            discard_folder(views_folder(key))
    return True
