"""How a message is signed, and how whoever gets it can tell that it is ours.

HMAC with SHA-256 (RFC 2104) over the time, the message's key and its body, joined by full stops.
"""

from __future__ import annotations

import hashlib
import hmac
from collections.abc import Mapping

SIGNATURE_HEADER = "Tall-Page-Signature"
TIME_HEADER = "Tall-Page-Time"
KEY_HEADER = "Tall-Page-Message"
EVENT_HEADER = "Tall-Page-Event"


MOST_AGE_S = 300
"""A message that was signed longer ago is not believed: somebody may have kept it and sent it again."""


def signature_of(secret: str, *, sent_at_s: int, key: str, body: bytes) -> str:
    """The signature of a message that is sent at a time, in seconds since 1970."""
    signed = b".".join((str(sent_at_s).encode(), key.encode(), body))
    return hmac.new(secret.encode(), signed, hashlib.sha256).hexdigest()


def is_ours(secret: str, headers: Mapping[str, str], body: bytes, *, now_s: float) -> bool:
    """Whether a message that has come was signed with the secret, lately."""
    said = headers.get(SIGNATURE_HEADER, "").removeprefix("sha256=")
    sent_at = headers.get(TIME_HEADER, "")
    if not sent_at.isdecimal() or abs(now_s - int(sent_at)) > MOST_AGE_S:
        return False
    ours = signature_of(secret, sent_at_s=int(sent_at), key=headers.get(KEY_HEADER, ""), body=body)
    return hmac.compare_digest(ours.encode(), said.encode())
