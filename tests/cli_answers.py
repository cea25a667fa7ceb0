"""What a command printed with ``--json``, held to what is written down of it."""

from __future__ import annotations

import json
from typing import Any

from tallpage.cli._json import ANSWERS


def read_answer(command: str, text: str) -> Any:
    """The one object that was printed; fails where it is not as the schema in ``docs`` says."""
    told = json.loads(text)
    ANSWERS[command].validate_json(text, strict=True)
    return told
