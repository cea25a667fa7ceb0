"""How often somebody may say a password or a word: tries are counted before they are compared."""

from __future__ import annotations

from datetime import timedelta

from django.db.models import F, Sum
from django.http import HttpRequest
from django.utils import timezone

from tallpage.server.people.models import Try

WAIT = timedelta(minutes=15)
_ADDRESSES = 20
"""So many times as often as from one address may be tried from all of them."""


def may_try(what: str, request: HttpRequest, *, most: int) -> bool:
    """Count a try at ``what`` from the address of whoever asks; whether it may be compared.

    From one address there are ``most`` tries until a quarter of an hour has passed without one. Who comes
    from another address is not shut out by them. However many come at once, no more are let through.
    """
    now = timezone.now()
    lately = Try.objects.filter(what=what, last_at__gt=now - WAIT).aggregate(tries=Sum("tries"))["tries"] or 0
    if lately >= most * _ADDRESSES:
        return False
    row, _ = Try.objects.get_or_create(what=what, address=_address(request), defaults={"last_at": now})
    Try.objects.filter(pk=row.pk, last_at__lte=now - WAIT).update(tries=0)
    return bool(Try.objects.filter(pk=row.pk, tries__lt=most).update(tries=F("tries") + 1, last_at=now))


def forget_tries(what: str, request: HttpRequest) -> None:
    """What was said was right: the next time counts anew. Tries of long ago go as well."""
    Try.objects.filter(what=what, address=_address(request)).delete()
    Try.objects.filter(last_at__lte=timezone.now() - WAIT).delete()


def _address(request: HttpRequest) -> str:
    return str(request.META.get("REMOTE_ADDR", ""))[:45]
