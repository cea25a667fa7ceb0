"""Routines over pages with and without a table, carried on as supervisor and workers would."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest

from tallpage.core.geometry import Box
from tallpage.core.page_map import Block, PageMap
from tallpage.server.routines.dispatch import feed_runs
from tallpage.server.shelf.models import Capture
from tests.pictures import text_page
from tests.server.conftest import Api

TABLE_BOX = {"x_px": 20, "y_px": 40, "width_px": 200, "height_px": 120}
TABLE = {"kind": "frame_block", "block": {"role": "table"}}
SLOT = {"kind": "slot", "name": "Narrow", "width_px": 100, "limit_bytes": 30_000, "formats": ["png"],
        "ask": [{"name": "width", "field": "width_px", "words": "How wide?"}]}  # fmt: skip


@pytest.fixture(autouse=True)
def out(settings: Any, tmp_path: Path) -> Path:
    """Where folders are made."""
    settings.OUT = tmp_path / "out"
    return tmp_path / "out"


@pytest.fixture
def make_page(make_capture: Callable[..., Capture]) -> Callable[..., Capture]:
    """A capture of 320 × 400 px, with a table on it where that is asked for."""

    def make(*, table: bool = True, seed: int = 1, **told: Any) -> Capture:
        capture = make_capture(text_page(320, 400, seed=seed), **told)
        block = Block(role="table", level=None, box=Box(**TABLE_BOX), text="Fares", link="", alt="")
        PageMap(blocks=(block,) if table else ()).save(capture.folder)
        return capture

    return make


@pytest.fixture
def keep(api: Api) -> Callable[..., dict[str, Any]]:
    """Keeps a routine of some steps."""

    def kept(*steps: dict[str, Any], name: str = "Fares") -> dict[str, Any]:
        document = {"version": 1, "name": name, "steps": list(steps)}
        made: dict[str, Any] = api.send("POST", "/routines", {"document": document}, status=201)
        return made

    return kept


@pytest.fixture
def carry_on(run_queue: Callable[[], None]) -> Callable[..., None]:
    """Lets supervisor and workers go round so many times."""

    def rounds(count: int = 6) -> None:
        for _ in range(count):
            feed_runs()
            run_queue()

    return rounds
