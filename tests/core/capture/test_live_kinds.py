"""Kinds of pages on which a live page is scrolled, taken whole, and found as it was."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator
from pathlib import Path

import numpy as np
import pytest

from tallpage.core.capture.live import Taken, TakeOrder
from tallpage.core.picture import decode
from tallpage.core.render import whole_page
from tests.core.capture.kinds import kinds
from tests.core.capture.kinds_in_motion import redrawn
from tests.core.capture.kinds_server import KindsServer, serving
from tests.core.capture.landmarks import find_landmarks
from tests.core.capture.live_hands import hands_on
from tests.long import long_but

KINDS = kinds() | redrawn()
CHOSEN = (
    "pictures swapped in by an observer",
    "sections animated by scrolling",
    "sticky section headings",
    "an application whose inside scrolls",
    "shadow trees",
    "pictures swapped in by a timer",
    "a list that draws only the rows near the window",
)
_NOISE = 2


@pytest.fixture(scope="module")
def server() -> Iterator[KindsServer]:
    with serving(KINDS) as running:
        yield running


@pytest.mark.long
@pytest.mark.parametrize("name", long_but(["sticky section headings"], CHOSEN))
def test_a_kind_of_page_is_taken_whole_and_stays_as_it_was(
    name: str, server: KindsServer, tmp_path: Path
) -> None:
    with hands_on(f"{server.address}/kind/{name}") as hands:
        hands.wheel(300)
        before = _shown(hands.rested())
        hands.page.take(TakeOrder(extent="full"), tmp_path)
        taken = hands.until(Taken)
        hands.point(5, 5)
        after = _shown(hands.rested())
    assert np.abs(after - before).max() <= _NOISE
    pixels = whole_page(tmp_path, taken.manifest).rows(0, taken.manifest.height_px)
    counted = Counter(row.number for row in find_landmarks(pixels, 1))
    assert [number for number in KINDS[name].expected if counted[number] != 1] == []


def _shown(png: bytes) -> np.ndarray:
    raster = decode(png)
    return raster.rows(0, raster.size.height_px)[:, :, :3].astype(int)
