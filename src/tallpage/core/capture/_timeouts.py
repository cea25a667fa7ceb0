"""How long each thing is waited for, in one place."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Self

from tallpage.core.errors import PageError

LEAST_BUSY_S, MOST_BUSY_S = 60, 300


@dataclass(frozen=True, slots=True, kw_only=True)
class Timeouts:
    """Time limits of one capture, in milliseconds unless the name says otherwise."""

    open_ms: int = 30_000
    """Until the browser has an empty page. One that has lost a part of itself never comes to it."""
    answer_ms: int = 30_000
    """Until the host has answered at all."""
    again_after_ms: tuple[int, ...] = (600, 2_500)
    """Pauses before an address is opened again whose host broke off or says it is busy."""
    step_ms: int = 10_000
    """Until something that a step points at is there."""
    load_ms: int = 12_000
    """Until the page calls itself loaded."""
    quiet_ms: int = 6_000
    """Until no request is under way any more."""
    linger_ms: int = 250
    """At the end of a page, for a feed to append something."""
    step_rest_ms: int = 6_000
    """Until what a page draws after it was scrolled has come to rest."""
    rest_ms: int = 80
    """How long the layout must not change before it counts as at rest."""
    operation_ms: int = 60_000
    """For anything that is done inside the page, after which the page counts as hung."""
    growth_screens: int = 40
    """How many screens a page may grow by while it is scrolled before it counts as endless."""

    def busy_for(self, seconds: int) -> Self:
        """The same for a page whose own scripts keep it busy for so long.

        Raises:
            PageError: so long is not possible.
        """
        if not LEAST_BUSY_S <= seconds <= MOST_BUSY_S:
            raise PageError(
                f"A page cannot be given {seconds} s for its own scripts.",
                hint=f"Give {LEAST_BUSY_S} to {MOST_BUSY_S} s.",
                code="busy_impossible",
            )
        return replace(self, operation_ms=seconds * 1_000)
