"""A place that takes files by WebDAV: a folder on another machine. Source: RFC 4918."""

from __future__ import annotations

import base64
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any
from urllib.parse import quote

from tallpage.core.uploads._answer import Answer, outcome_of
from tallpage.core.uploads._file import UploadFile
from tallpage.core.uploads._http import ANSWER_S, ask, require_web

_NO_SUCH_FOLDER, _THERE_ALREADY = 409, 412


@dataclass(frozen=True, slots=True, kw_only=True)
class WebDavTarget:
    """Files go into a folder by their names; none that is there is written over.

    Raises:
        HandOverError: the address is none of the web.
    """

    address: str
    user: str = ""
    password: str = ""
    timeout_s: float = ANSWER_S

    def __post_init__(self) -> None:
        require_web(self.address)

    def put(self, file: UploadFile) -> Answer:
        """Send a file; what the place says. The folder is made where it is missing."""
        answer = self._put(file)
        if isinstance(answer, tuple) and answer[0] == _NO_SUCH_FOLDER:
            made = self._ask("MKCOL", self._folder)
            answer = self._put(file) if isinstance(made, tuple) and made[0] < 300 else answer
        if isinstance(answer, Answer):
            return answer
        status = answer[0]
        if 200 <= status < 300:
            return Answer(outcome="accepted", address=self._place(file))
        if status == _THERE_ALREADY:
            return self._compared(file)
        return Answer(outcome="refused" if status == _NO_SUCH_FOLDER else outcome_of(status))

    def _compared(self, file: UploadFile) -> Answer:
        """Whether what is there is this file: it may have come with a try that nobody heard the end of."""
        there = self._ask("GET", self._place(file), most_bytes=len(file.data) + 1)
        if isinstance(there, tuple) and there[0] == 200 and there[2] == file.data:
            return Answer(outcome="accepted", address=self._place(file), was_there=True)
        return Answer(outcome="name_taken")

    def _put(self, file: UploadFile) -> tuple[int, object, bytes] | Answer:
        more = {"If-None-Match": "*", "Content-Type": file.media_type}
        return self._ask("PUT", self._place(file), body=file.data, more=more)

    def _ask(
        self, method: str, address: str, *, more: Mapping[str, str] | None = None, **sent: Any
    ) -> tuple[int, object, bytes] | Answer:
        headers = dict(more or {})
        if self.user:
            pair = base64.b64encode(f"{self.user}:{self.password}".encode()).decode()
            headers["Authorization"] = f"Basic {pair}"
        return ask(method, address, headers=headers, timeout_s=self.timeout_s, **sent)

    @property
    def _folder(self) -> str:
        return f"{self.address.rstrip('/')}/"

    def _place(self, file: UploadFile) -> str:
        return self._folder + quote(file.name)
