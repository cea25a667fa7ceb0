"""Sending a file, again where that may help."""

from __future__ import annotations

import time
from collections.abc import Callable
from typing import Protocol

from tallpage.core.uploads._answer import Answer
from tallpage.core.uploads._file import UploadFile

_WAITS_S = (1.0, 4.0)
"""Before the second try, and the third."""


class Target(Protocol):
    """A place that takes files. A further way of uploading is a module with one of these."""

    def put(self, file: UploadFile) -> Answer:
        """Send a file once. To send the same again publishes nothing twice."""


def upload(target: Target, file: UploadFile, *, wait: Callable[[float], object] = time.sleep) -> Answer:
    """Send a file, up to three times while the place is slow, busy or not to be reached.

    ``wait`` is told for how many seconds, and may raise.
    """
    answer = target.put(file)
    for seconds in _WAITS_S:
        if not answer.may_help_again:
            break
        wait(seconds)
        answer = target.put(file)
    return answer
