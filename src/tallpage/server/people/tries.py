"""How often somebody may say a password or a word: tries are counted before they are compared."""

from __future__ import annotations

from datetime import timedelta

from django.db.models import F, Sum
from django.utils import timezone

from tallpage.server.people.models import Try

WAIT = timedelta(minutes=15)
_ADDRESSES = 20
"""So many times as often as from one address may be tried from all of them."""


def may_try(what: str, address: str, *, most: int) -> bool:
    """Count a try at ``what`` from an address; whether it may be compared.

    From one address there are ``most`` tries until a quarter of an hour has passed without one. Who comes
    from another address is not shut out by them. However many come at once, no more are let through.
    """
    now = timezone.now()
    row, _ = Try.objects.get_or_create(what=what, address=address[:45], defaults={"last_at": now})
    Try.objects.filter(pk=row.pk, last_at__lte=now - WAIT).update(tries=0)
    lately = Try.objects.filter(what=what, last_at__gt=now - WAIT).aggregate(tries=Sum("tries"))["tries"] or 0
    if lately >= most * _ADDRESSES:
        return False
    return bool(Try.objects.filter(pk=row.pk, tries__lt=most).update(tries=F("tries") + 1, last_at=now))


def forget_tries(what: str, address: str) -> None:
    """What was said was right: the next time counts anew. Tries of long ago go as well."""
    Try.objects.filter(what=what, address=address[:45]).delete()
    Try.objects.filter(last_at__lte=timezone.now() - WAIT).delete()
