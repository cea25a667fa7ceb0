"""Taking many shots at once, each in a process with a browser of its own."""

from __future__ import annotations

import multiprocessing
import os
import time
from collections.abc import Callable, Sequence
from concurrent.futures import FIRST_COMPLETED, Future, ProcessPoolExecutor, wait
from concurrent.futures.process import BrokenProcessPool
from contextlib import suppress
from datetime import UTC, datetime
from pathlib import Path

import psutil

from tallpage.core.sweep._pace import Pace, Waiting, next_up
from tallpage.core.sweep._shots import Outcome, Shot, start_process, take_shot

_MOST_ATTEMPTS = 3
_BYTES_A_WORKER = 900_000_000
"""A browser and its process on a long page at scale 3."""
_WORKERS_A_CORE = 2
_FORKED = "--multiprocessing-fork"
"""Argument by which the standard library starts a worker."""


def workers_for_this_machine() -> int:
    """As many at once as memory allows, and no more than two a core: pages wait for the network."""
    by_memory = psutil.virtual_memory().available // _BYTES_A_WORKER
    return max(1, min(int(by_memory), _WORKERS_A_CORE * (os.cpu_count() or 1)))


def take_all(
    shots: Sequence[Shot],
    folder: Path,
    *,
    pace: Pace,
    workers: int,
    on_outcome: Callable[[Outcome], None],
) -> None:
    """Take every shot, in about the order given; ``on_outcome`` hears of each once.

    A shot with which its process dies is tried again, three times in all. An interrupt lets the
    shots under way go: whoever goes on later takes them anew.
    """
    run = _Run(shots, folder, pace, workers, on_outcome)
    try:
        run.to_its_end()
    finally:
        run.close()


class _Run:
    def __init__(
        self,
        shots: Sequence[Shot],
        folder: Path,
        pace: Pace,
        workers: int,
        on_outcome: Callable[[Outcome], None],
    ) -> None:
        self._shots = shots
        self._folder = folder
        self._pace = pace
        self._workers = workers
        self._on_outcome = on_outcome
        self._waiting = {at: Waiting(at, shot.host) for at, shot in enumerate(shots)}
        self._attempts = dict.fromkeys(self._waiting, 0)
        self._started_at: dict[str, float] = {}
        self._under_way: dict[Future[Outcome], Waiting] = {}
        if workers >= (os.cpu_count() or 1):
            # Each process has a core's share: threads of its own would only get in each other's way. libvips
            # reads this when a process starts.
            os.environ.setdefault("VIPS_CONCURRENCY", "1")
        self._pool = self._new_pool()

    def to_its_end(self) -> None:
        while self._waiting or self._under_way:
            chosen, soonest = next_up(
                self._waiting.values(),
                pace=self._pace,
                free=self._workers - len(self._under_way),
                under_way=[row.host for row in self._under_way.values()],
                started_at=self._started_at,
                now=time.monotonic(),
            )
            for row in chosen:
                self._start(row)
            if self._under_way:
                done, _ = wait(self._under_way, timeout=soonest, return_when=FIRST_COMPLETED)
                for future in done:
                    self._end(future)
            elif soonest is not None:
                time.sleep(soonest)

    def close(self) -> None:
        if self._under_way:  # interrupted: nobody waits for them any more
            self._end_processes()
        self._pool.shutdown(cancel_futures=True)

    def _new_pool(self) -> ProcessPoolExecutor:
        return ProcessPoolExecutor(
            self._workers, mp_context=multiprocessing.get_context("spawn"), initializer=start_process
        )

    def _start(self, row: Waiting) -> None:
        del self._waiting[row.number]
        self._attempts[row.number] += 1
        self._started_at[row.host] = time.monotonic()
        try:
            future = self._pool.submit(take_shot, self._shots[row.number], self._folder)
        except BrokenProcessPool:
            future = Future()
            future.set_exception(BrokenProcessPool())
        self._under_way[future] = row

    def _end(self, future: Future[Outcome]) -> None:
        row = self._under_way.pop(future, None)
        if row is None:
            return  # its pool broke, and it waits again
        try:
            self._on_outcome(future.result())
        except BrokenProcessPool:
            self._begin_anew([row, *self._under_way.values()])

    def _begin_anew(self, rows: Sequence[Waiting]) -> None:
        """One process died, and its pool with it: whatever was under way waits again, or is given up."""
        self._under_way.clear()
        self._end_processes()
        self._pool = self._new_pool()
        for row in rows:
            if self._attempts[row.number] < _MOST_ATTEMPTS:
                self._waiting = {row.number: row, **self._waiting}
            else:
                self._on_outcome(
                    Outcome(
                        key=self._shots[row.number].key,
                        taken_at=datetime.now(UTC).isoformat(timespec="seconds"),
                        error=f"Its process ended {_MOST_ATTEMPTS} times over this page. "
                        "It may need more memory than there is.",
                    )
                )

    def _end_processes(self) -> None:
        """End the workers of this pool, and their browsers."""
        workers = [child for child in psutil.Process().children() if _FORKED in child.cmdline()]
        for worker in workers:
            for process in (*worker.children(recursive=True), worker):
                with suppress(psutil.NoSuchProcess):
                    process.kill()
