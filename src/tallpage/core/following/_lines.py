"""Which line of a page is which line of the same page, taken later. A line is a leaf, or several beside
each other: the cells of a table's row say together what none of them says alone."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass

from tallpage.core.following._outline import Key, Outline

LineKey = tuple[Key, ...]

_NEAR = 3
"""So few lines from one that is known, what is said often can still be told by counting."""
_FEW = 8
"""What holds so few leaves is one thing: a card, an entry."""
_SHORT_CHARS = 20
"""Words so few may be said by two things that have nothing to do with each other."""
_SURELY_REWORDED, _PERHAPS_REWORDED = 0.55, 0.25
"""Shares of words that two wordings have in common."""
_MOST_PAIRS = 10_000
_REWORDED_ELSEWHERE = 0.7
_LEAST_WORDS_ELSEWHERE = 5
_RAREST_WORDS = 3
"""What has none of a text's rarest words is no rewording of it."""
_CLEARLY_BETTER = 0.15
_FIGURES = re.compile(r"\d+")


@dataclass(frozen=True, slots=True)
class Match:
    """A number in the later page, and whether it could be another."""

    now: int
    sure: bool = True


def matched_lines(before: Outline, now: Outline) -> dict[int, Match]:
    """For each line of the page before, by number, the one that it is now; without those that are gone."""
    matching = _Matching(before, now)
    matching.by_words()
    matching.by_neighbours()
    matching.by_rewording()
    # What was reworded leads to its neighbours better than what is said often.
    matching.forget_what_is_said_often()
    matching.by_neighbours()
    matching.by_rewording()
    matching.doubt_what_is_said_often()
    matching.by_rewording_elsewhere()
    return matching.found


class _Matching:
    """The steps of :func:`matched_lines`; each adds to what the ones before found."""

    def __init__(self, before: Outline, now: Outline) -> None:
        self.found: dict[int, Match] = {}
        self._before, self._now = before, now
        self._keys: list[LineKey] = [_line_key(before, number) for number in range(len(before.lines))]
        self._keys_now: list[LineKey] = [_line_key(now, number) for number in range(len(now.lines))]
        self._words = [_words(key) for key in self._keys]
        self._words_now = [_words(key) for key in self._keys_now]
        self._often, self._often_now = Counter(self._keys), Counter(self._keys_now)
        self._taken: set[int] = set()
        self._known: set[int] = set()
        """Lines before that are known by their own words, and not by where they stand."""
        self._within = before.leaves_within()

    def by_words(self) -> None:
        """What both pages say once."""
        places = {key: number for number, key in enumerate(self._keys_now)}
        for number, key in enumerate(self._keys):
            if self._is_only(number):
                self._match(number, places[key])
                self._known.add(number)
        for number in list(self._known):
            key = self._keys[number]
            if len(key) == 1 and len(key[0][2]) < _SHORT_CHARS and not self._has_company(number):
                self.found[number] = Match(self.found[number].now, sure=False)
                self._known.discard(number)

    def by_neighbours(self) -> None:
        """From each known line, on along both pages for as long as they say the same."""
        for step in (1, -1):
            for number in sorted(self._known):
                self._go_on(number, self.found[number].now, step)
        self._go_on(-1, -1, 1)
        self._go_on(len(self._keys), len(self._keys_now), -1)

    def forget_what_is_said_often(self) -> None:
        """Leave only what was found by its own words."""
        by_words = {at for at in self.found if self._is_only(at)} | self._known
        for number in self.found.keys() - by_words:
            self._taken.discard(self.found.pop(number).now)

    def doubt_what_is_said_often(self) -> None:
        """A line known by its neighbours alone is in doubt where counting cannot tell it from its like."""
        for number, match in list(self.found.items()):
            told = number in self._known or self._is_between(number, match.now)
            if not told and not self._is_led_to(number, match.now):
                self.found[number] = Match(match.now, sure=False)

    def by_rewording(self) -> None:
        """What stands between the same two lines."""
        for old, new in list(self._gaps()):
            if len(old) * len(new) > _MOST_PAIRS:
                continue  # so much is new that each is looked for by its own words
            likely = [
                (self._likeness(one, other), one, other)
                for one in old
                for other in new
                if self._same_kind(one, other)
            ]
            alone = len(old) == len(new) == 1
            for like, one, other in sorted(likely, key=lambda row: (-row[0], row[1], row[2])):
                if one in self.found or other in self._taken:
                    continue
                rivals = [row[0] for row in likely if (row[1] == one) != (row[2] == other)]
                clear = like - max(rivals, default=0.0) >= _CLEARLY_BETTER
                of_one_row = alone or len(self._keys[one]) == 1 or self._is_the_same_row(one, other)
                same_words = self._keys[one] == self._keys_now[other]  # said more than once, or it were known
                sure = like >= _SURELY_REWORDED and clear and of_one_row and not same_words
                if alone and (self._is_a_value(one, other) or self._is_the_same_row(one, other)):
                    sure = self._has_known_beside(one)
                if sure or alone or like >= _PERHAPS_REWORDED:
                    self._match(one, other, sure=sure)
                if sure:
                    self._known.add(one)

    def by_rewording_elsewhere(self) -> None:
        """What says nearly the same in another place: always in doubt."""
        saying: dict[str, set[int]] = {}
        for number, words in enumerate(self._words_now):
            if number not in self._taken:
                for word in words:
                    saying.setdefault(word, set()).add(number)
        for number, words in enumerate(self._words):
            if number in self.found or words.total() < _LEAST_WORDS_ELSEWHERE:
                continue
            rarest = sorted((word for word in words if word in saying), key=lambda at: len(saying[at]))
            others = {other for word in rarest[:_RAREST_WORDS] for other in saying[word]} - self._taken
            likely = sorted(
                (
                    (self._likeness(number, other), other)
                    for other in others
                    if self._same_kind(number, other)
                ),
                reverse=True,
            )
            if likely and likely[0][0] >= _REWORDED_ELSEWHERE:
                second = likely[1][0] if len(likely) > 1 else 0.0
                if likely[0][0] - second >= _CLEARLY_BETTER:
                    self._match(number, likely[0][1], sure=False)

    def _match(self, number: int, now: int, *, sure: bool = True) -> None:
        self.found[number] = Match(now, sure)
        self._taken.add(now)

    def _go_on(self, at: int, at_now: int, step: int) -> None:
        while True:
            at, at_now = at + step, at_now + step
            if not (0 <= at < len(self._keys) and 0 <= at_now < len(self._keys_now)):
                return
            if at in self.found or at_now in self._taken or self._keys[at] != self._keys_now[at_now]:
                return
            self._match(at, at_now)

    def _is_only(self, number: int) -> bool:
        """Whether both pages say once what a line says."""
        key = self._keys[number]
        return _says_something(key) and self._often[key] == self._often_now[key] == 1

    def _has_company(self, number: int) -> bool:
        """Whether the line before or after it is the same one in both pages."""
        now = self.found[number].now
        for step in (-1, 1):
            at, at_now = number + step, now + step
            ends = (not 0 <= at < len(self._keys), not 0 <= at_now < len(self._keys_now))
            if all(ends):
                return True
            if not any(ends) and self._keys[at] == self._keys_now[at_now]:
                return True
        return False

    def _steps_to_known(self, number: int, now: int, step: int) -> int | None:
        """How many lines away the next one known by its words is; None where the pages part before."""
        at, at_now, steps = number, now, 0
        while True:
            at, at_now, steps = at + step, at_now + step, steps + 1
            ends = (at in (-1, len(self._keys)), at_now in (-1, len(self._keys_now)))
            if any(ends):
                return steps if all(ends) else None
            match = self.found.get(at)
            if match is None or match.now != at_now:
                return None
            if at in self._known:
                return steps

    def _is_between(self, number: int, now: int) -> bool:
        """Whether the pages agree from a known line above to a known line below."""
        return all(self._steps_to_known(number, now, step) is not None for step in (1, -1))

    def _is_led_to(self, number: int, now: int) -> bool:
        """Whether one known line suffices: it is near, and no like of this one stands beside it.

        What stands above leads to what follows. What stands below does so within one thing alone.
        """
        above, below = (self._steps_to_known(number, now, step) for step in (-1, 1))
        led = above is not None and above <= _NEAR
        if not led and below is not None and below <= _NEAR:
            led = self._is_one_thing(number, number + below)
        return led and _in_a_row(self._keys, number) == _in_a_row(self._keys_now, now)

    def _is_one_thing(self, number: int, other: int) -> bool:
        if other >= len(self._keys):
            return False
        holder, holder_of_other = (self._before.holder[self._before.lines[at][0]] for at in (number, other))
        return holder is not None and holder == holder_of_other and len(self._within[holder]) <= _FEW

    def _same_kind(self, number: int, now: int) -> bool:
        return {key[:2] for key in self._keys[number]} == {key[:2] for key in self._keys_now[now]}

    def _is_a_value(self, number: int, now: int) -> bool:
        """Whether two short texts with figures say the old and the new value of the same thing."""
        shapes = {_FIGURES.sub("0", key[0][2]) for key in (self._keys[number], self._keys_now[now])}
        one_each = len(self._keys[number]) == len(self._keys_now[now]) == 1
        return one_each and len(shapes) == 1 and "0" in shapes.pop()

    def _is_the_same_row(self, number: int, now: int) -> bool:
        """Whether the first cells of two rows say the same: it is by them that rows are told apart."""
        cells, cells_now = self._keys[number], self._keys_now[now]
        return len(cells) == len(cells_now) > 1 and cells[0] == cells_now[0]

    def _has_known_beside(self, number: int) -> bool:
        return number - 1 in self._known or number + 1 in self._known

    def _likeness(self, number: int, now: int) -> float:
        """Share of words in common, 0–1; of two rows with as many cells, on average over the cells."""
        cells, cells_now = self._keys[number], self._keys_now[now]
        if len(cells) == len(cells_now) > 1:
            alike = [
                one[2] == other[2] or _dice(_words((one,)), _words((other,)))
                for one, other in zip(cells, cells_now, strict=True)
            ]
            return sum(alike) / len(cells)
        return _dice(self._words[number], self._words_now[now])

    def _gaps(self) -> Iterator[tuple[list[int], list[int]]]:
        """Unmatched lines between two that follow each other in both pages."""
        old: list[int] = []
        above = -1
        for number in range(len(self._keys) + 1):
            if number < len(self._keys) and number not in self.found:
                old.append(number)
                continue
            below = self.found[number].now if number < len(self._keys) else len(self._keys_now)
            if old and above < below:
                new = [at for at in range(above + 1, below) if at not in self._taken]
                if len(new) == below - above - 1:  # nothing came there from elsewhere
                    yield old, new
            old, above = [], below


def _line_key(outline: Outline, number: int) -> LineKey:
    return tuple(outline.keys[leaf] for leaf in outline.lines[number])


def _words(key: LineKey) -> Counter[str]:
    return Counter(word for part in key for word in part[2].split())


def _says_something(key: LineKey) -> bool:
    """Whether a line alone can be told from others: a picture without words cannot be known by itself."""
    return any(len(part[2]) > 1 or part[3] for part in key)


def _in_a_row(keys: list[LineKey], number: int) -> tuple[int, int]:
    """How many lines of the same words follow each other around one, and which of them it is."""

    def reach(step: int) -> int:
        steps, at = 0, number + step
        while 0 <= at < len(keys) and keys[at] == keys[number]:
            steps, at = steps + 1, at + step
        return steps

    above = reach(-1)
    return above + 1 + reach(1), above


def _dice(words: Counter[str], others: Counter[str]) -> float:
    """Words in common as a share of all, each as often as it is said.

    Source: L. R. Dice, "Measures of the amount of ecologic association between species", 1945.
    """
    both = words.total() + others.total()
    return 2 * (words & others).total() / both if both else 0.0
