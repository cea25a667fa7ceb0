"""What there is to hear of a fit while it goes on: a verdict first, then files, then advice."""

from __future__ import annotations

from dataclasses import dataclass

from tallpage.core.fit.advice._pieces import Advice
from tallpage.core.fit.encoding._candidates import Candidate


@dataclass(frozen=True, slots=True, kw_only=True)
class Verdict:
    """What a sample tells of the best file under the limit before it is made. It can err."""

    recipe: str
    byte_count: int
    fidelity: float
    met: bool
    """Whether it is expected to look acceptable."""


NOTHING_FITS = Verdict(recipe="", byte_count=0, fidelity=0.0, met=False)


class FitWatch:
    """Hears how a fit goes on, in any of its threads, one thing at a time. This one does nothing with it."""

    def expecting(self, verdict: Verdict) -> None:
        """A better file than was expected so far, or that none is expected."""

    def trying(self, what: str, tries_left: int) -> None:
        """What is made now, and how many more files may be at most (0 when that is not known)."""

    def best_so_far(self, candidate: Candidate) -> None:
        """A file that keeps to the limit and looks better than those before."""

    def advising(self, advice: Advice) -> None:
        """One thing that would help."""
