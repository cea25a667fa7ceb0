"""A property that is found out once, without keeping others waiting."""

import threading
from concurrent.futures import ThreadPoolExecutor

from tallpage.core.once import once

_WAIT_S = 20


class Slow:
    """Finds out its figure only while another instance does so too."""

    def __init__(self, both: threading.Barrier) -> None:
        self._both = both
        self.asked = 0

    @once
    def figure(self) -> int:
        """A figure."""
        self.asked += 1
        self._both.wait(_WAIT_S)
        return self.asked


def test_instances_find_out_at_the_same_time_and_each_once() -> None:
    both = threading.Barrier(2)
    rows = [Slow(both), Slow(both)]
    with ThreadPoolExecutor(max_workers=2) as pool:
        # With one lock for all, the second would wait for the first, which waits for the second.
        assert list(pool.map(lambda row: row.figure, rows)) == [1, 1]
    assert [row.figure for row in rows] == [1, 1]
    assert [row.asked for row in rows] == [1, 1]
    assert Slow.figure.__doc__ == "A figure."
