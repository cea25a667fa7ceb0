"""Which of many like cases every change is tried on; `make test-long` tries the others."""

from __future__ import annotations

from collections.abc import Collection, Iterable
from typing import Any

import pytest
from hypothesis import settings

COSTLY = settings(max_examples=(settings.default or settings()).max_examples // 3)
"""For a test whose examples take long: a third of the usual number."""


def long_but(kept: Collection[Any], rows: Iterable[Any]) -> list[Any]:
    """Rows as parameters of a test, of which only those in ``kept`` are tried at each change."""
    found = list(rows)
    unknown = [row for row in kept if row not in found]
    assert not unknown, f"there is no case {unknown}"
    return [row if row in kept else _long(row) for row in found]


def short_but(long: Collection[Any], rows: Iterable[Any]) -> list[Any]:
    """The other way round: rows of which those in ``long`` are left to ``make test-long``."""
    found = list(rows)
    assert all(row in found for row in long), "a case that is not there"
    return long_but([row for row in found if row not in long], found)


def _long(row: Any) -> Any:
    values = row if isinstance(row, tuple) else (row,)
    return pytest.param(*values, marks=pytest.mark.long)
