"""A place that takes files by an HTTP form, signed in by a token. What it has to do is in docs/upload.md."""

from __future__ import annotations

import json
from dataclasses import dataclass

from tallpage.core.uploads._answer import Answer, outcome_of
from tallpage.core.uploads._file import UploadFile
from tallpage.core.uploads._http import ANSWER_S, ask, require_web

_SAID_AT_MOST = 300


@dataclass(frozen=True, slots=True, kw_only=True)
class FormTarget:
    """Files go to one address, each in a form of its own.

    Raises:
        HandOverError: the address is none of the web.
    """

    address: str
    token: str = ""
    field: str = "file"
    timeout_s: float = ANSWER_S

    def __post_init__(self) -> None:
        require_web(self.address)

    def put(self, file: UploadFile) -> Answer:
        """Send a file; what the place says."""
        headers = {"Accept": "application/json", "Idempotency-Key": file.key}
        if self.token:
            headers["Authorization"] = f"Bearer {self.token}"
        fields = {self.field: (file.name, file.data, file.media_type)}
        answer = ask("POST", self.address, headers=headers, fields=fields, timeout_s=self.timeout_s)
        if isinstance(answer, Answer):
            return answer
        status, told, body = answer
        said = _read(body)
        if 200 <= status < 300:
            address = str(said.get("address") or told.get("Location") or "")
            return Answer(outcome="accepted", address=address, was_there=bool(said.get("was_there")))
        return Answer(
            outcome=outcome_of(status, str(said.get("reason", ""))),
            said=str(said.get("sentence", ""))[:_SAID_AT_MOST],
        )


def _read(body: bytes) -> dict[str, object]:
    try:
        said = json.loads(body)
    except ValueError:
        return {}
    return said if isinstance(said, dict) else {}
