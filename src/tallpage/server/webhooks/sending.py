"""Sending one message, and trying again later where that may help."""

from __future__ import annotations

import json
import time
from dataclasses import dataclass
from datetime import timedelta

from django.conf import settings
from django.utils import timezone

from tallpage.core.capture import require_public
from tallpage.core.errors import TallPageError
from tallpage.core.signing import (
    EVENT_HEADER,
    KEY_HEADER,
    SIGNATURE_HEADER,
    TIME_HEADER,
    signature_of,
)
from tallpage.core.uploads import Answer, ask, require_web
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.queue import Signals, Work
from tallpage.server.signins.encryption import unseal
from tallpage.server.webhooks.models import Delivery, Webhook

KIND = "tell"
WAITS = (
    timedelta(minutes=1),
    timedelta(minutes=10),
    timedelta(hours=1),
    timedelta(hours=6),
    timedelta(hours=24),
)
"""Before the second try, the third and so on; after the last of them nothing is tried any more."""
_ANSWER_S = 5.0
"""A place that is told only says that it has heard: files wait on the same queue."""
_MOST_ANSWER_BYTES = 2_000


@dataclass(frozen=True, slots=True)
class _Result:
    heard: bool
    words: str
    may_help_again: bool = True


def prepare(job: Job) -> Work:
    """How a message is sent; the secret and the body are read before."""
    row = Delivery.objects.select_related("webhook").get(job=job)

    def run(_signals: Signals) -> _Result:
        return _send(row)

    def commit(result: _Result) -> None:
        tries = row.tries + 1
        again = not result.heard and result.may_help_again and tries <= len(WAITS)
        state = (
            Delivery.State.SENT
            if result.heard
            else Delivery.State.WAITING
            if again
            else Delivery.State.FAILED
        )
        Delivery.objects.filter(pk=row.pk).update(
            state=state,
            tries=tries,
            answer=result.words[:300],
            next_at=timezone.now() + (WAITS[tries - 1] if again else timedelta()),
        )

    return Work(run=run, commit=commit)


def require_address(address: str) -> str:
    """An address that can be told.

    Raises:
        HandOverError: it is none of the web.
        AddressError: it is on a private network, which a server that others reach does not open.
    """
    require_web(address)
    if not settings.ALLOW_PRIVATE:
        require_public(address, settings.PRIVATE_HOSTS)
    return address


def body_of(row: Delivery) -> bytes:
    """The message as it is sent; the same with each try."""
    said = {
        "version": 1,
        "event": row.event,
        "message": str(row.key),
        "happened_at": row.happened_at.isoformat(),
        row.event: row.body,
    }
    return json.dumps(said, ensure_ascii=False).encode()


def _send(row: Delivery) -> _Result:
    hook: Webhook = row.webhook
    try:
        address = require_address(hook.address)
        secret = str(unseal(bytes(hook.sealed))["secret"])
    except TallPageError as error:
        return _Result(heard=False, words=error.in_one_line(), may_help_again=False)
    body, now_s = body_of(row), int(time.time())
    headers = {
        "Content-Type": "application/json",
        EVENT_HEADER: row.event,
        KEY_HEADER: str(row.key),
        TIME_HEADER: str(now_s),
        SIGNATURE_HEADER: "sha256=" + signature_of(secret, sent_at_s=now_s, key=str(row.key), body=body),
    }
    answer = ask(
        "POST", address, headers=headers, body=body, timeout_s=_ANSWER_S, most_bytes=_MOST_ANSWER_BYTES
    )
    if isinstance(answer, Answer):
        return _Result(heard=False, words=answer.sentence)
    status = answer[0]
    if 200 <= status < 300:
        return _Result(heard=True, words=f"Answered {status}.")
    return _Result(heard=False, words=f"Answered {status}.", may_help_again=status != 410)
