"""What of a search is told to whoever watches it: only what is better than what was told before."""

from __future__ import annotations

import threading

from tallpage.core.fit._watching import FitWatch, Verdict
from tallpage.core.fit.encoding._candidates import Candidate


class Teller:
    """Passes on what a search finds, from any of its threads, to a watch."""

    def __init__(self, watch: FitWatch) -> None:
        self._watch = watch
        self._lock = threading.Lock()
        self._best_looks = -1.0
        self._tries_left = 0

    def expecting(self, verdict: Verdict) -> None:
        """What the best file is expected to be."""
        with self._lock:
            self._watch.expecting(verdict)

    def planned(self, tries: int) -> None:
        """How many files may be made from now on."""
        with self._lock:
            self._tries_left = tries

    def trying(self, what: str) -> None:
        """One file is being made now."""
        with self._lock:
            self._tries_left = max(0, self._tries_left - 1)
            self._watch.trying(what, self._tries_left)

    def made(self, candidate: Candidate) -> None:
        """A file that keeps to the limit: passed on when it looks better than those before."""
        with self._lock:
            if candidate.fidelity > self._best_looks:
                self._best_looks = candidate.fidelity
                self._watch.best_so_far(candidate)
