"""Which block of a page is which block of the same page, taken later.

What both pages say once is the same block, wherever it stands. What stands beside such a block and
says the same is the same too, however often it is said. What is left between two known blocks may
have been reworded. A block that holds others is known by them. What could also be otherwise is in doubt.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence

from tallpage.core.following._lines import Match, matched_lines
from tallpage.core.following._outline import Outline

_SURELY_HOLDS, _PERHAPS_HOLDS = 0.6, 0.3
"""Shares of the blocks within that two blocks have in common."""


def matched(before: Outline, now: Outline) -> dict[int, Match]:
    """For each block of the page before, by number, the one that it is now; without those that are gone."""
    found: dict[int, Match] = {}
    for number, match in matched_lines(before, now).items():
        found.update(_cells(before, now, before.lines[number], now.lines[match.now], sure=match.sure))
    _match_holders(before, now, found)
    return found


def _cells(
    before: Outline, now: Outline, line: Sequence[int], other: Sequence[int], *, sure: bool
) -> dict[int, Match]:
    """The leaves of two lines that are the same line: by their places, or by their words where one came."""
    if len(line) == len(other):
        return {one: Match(at, sure) for one, at in zip(line, other, strict=True)}
    said, said_now = (
        Counter(outline.keys[at] for at in row) for outline, row in ((before, line), (now, other))
    )
    places = {now.keys[at]: at for at in other}
    return {
        one: Match(places[key], sure)
        for one in line
        if said[key := before.keys[one]] == 1 and said_now[key] == 1
    }


def _match_holders(before: Outline, now: Outline, found: dict[int, Match]) -> None:
    """Blocks around others: the one now that holds the most of the same, and little else."""
    taken = {match.now for match in found.values()}
    within, within_now = before.leaves_within(), now.leaves_within()
    for number, leaves in within.items():
        votes: Counter[int] = Counter()
        sure_votes: Counter[int] = Counter()
        for leaf in leaves:
            if (match := found.get(leaf)) is None:
                continue
            for holder in now.holders_of(match.now):
                if holder not in taken and _same_kind(before, number, now, holder):
                    votes[holder] += 1
                    sure_votes[holder] += match.sure
        if not votes:
            continue

        def share_of(holder: int, count: int, leaves: list[int] = leaves) -> float:
            return count / max(len(leaves), len(within_now[holder]))

        # Of equals the outermost: those around it were met first.
        best = max(votes, key=lambda at: (share_of(at, votes[at]), -at))
        if share_of(best, votes[best]) >= _PERHAPS_HOLDS:
            found[number] = Match(best, share_of(best, sure_votes[best]) >= _SURELY_HOLDS)
            taken.add(best)


def _same_kind(before: Outline, number: int, now: Outline, other: int) -> bool:
    return before.keys[number][:2] == now.keys[other][:2]
