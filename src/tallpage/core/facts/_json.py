"""Facts as a JSON file beside a picture."""

from __future__ import annotations

import json
from pathlib import PurePosixPath
from typing import Any

from tallpage.core.facts._facts import FileFacts


def as_json_beside(facts: FileFacts, file: str, **more: Any) -> tuple[str, bytes]:
    """Name and content of the JSON that lies beside ``file``, a path with ``/`` between folders."""
    path = PurePosixPath(file)
    said = {
        "file": path.name,
        "credit": facts.credit,
        "source": facts.source,
        "taken_at": facts.taken_at.isoformat(timespec="seconds") if facts.taken_at else None,
        **more,
    }
    return f"{file}.json", json.dumps(said, ensure_ascii=False, indent=1).encode()
