"""What a person did on a live page, as steps that bring it there again. Pure.

Steps count from the last time the page was loaded: its address says the rest.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Self

from tallpage.core.capture.opening._steps import MOST_STEPS, Step

_KEYS = frozenset({"Enter", "Escape", "ArrowUp", "ArrowDown", "ArrowLeft", "ArrowRight"})
"""Keys that do something by themselves; others type, or move about."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Recording:
    """Steps so far. Every method gives another recording."""

    address: str = ""
    """Where the page was loaded from."""
    steps: tuple[Step, ...] = ()
    left_out: frozenset[str] = frozenset()
    """What was done and is no step: ``password`` for one that was typed, ``frame`` for what was done in
    another page within the page, ``more`` for what came after as many steps as there can be."""

    def loaded(self, address: str) -> Self:
        """The page was loaded anew, or another one."""
        return replace(self, address=address, steps=(), left_out=frozenset())

    def clicked(self, target: str) -> Self:
        """Something was clicked. The pointer came to it first, which says nothing more."""
        step = Step(kind="click", target=target)
        return self._then(step, instead=Step(kind="hover", target=target))

    def pointed(self, target: str) -> Self:
        """The pointer was put on something, and the page showed more for it."""
        if self._last("hover"):
            return replace(self, steps=self.steps[:-1])._then(Step(kind="hover", target=target))
        return self._then(Step(kind="hover", target=target))

    def typed(self, target: str, text: str) -> Self:
        """A field holds a text now."""
        step = Step(kind="type", target=target, text=text)
        before = self._last("type")
        instead = before if before is not None and before.target == target else None
        return self._then(step, instead=instead or Step(kind="click", target=target))

    def typed_password(self, target: str) -> Self:
        """A password was typed. Neither it nor the way to its field is kept."""
        kept = self
        if self.steps and self.steps[-1] == Step(kind="click", target=target):
            kept = replace(self, steps=self.steps[:-1])
        return replace(kept, left_out=kept.left_out | {"password"})

    def pressed(self, key: str) -> Self:
        """A key was pressed."""
        return self._then(Step(kind="press", text=key)) if key in _KEYS else self

    def scrolled(self, target: str) -> Self:
        """The page was scrolled until something was seen."""
        return self._then(Step(kind="scroll", target=target), instead=self._last("scroll"))

    def in_frame(self) -> Self:
        """Something was done in another page within the page."""
        return replace(self, left_out=self.left_out | {"frame"})

    def without(self, number: int) -> Self:
        """The same without one step, counted from 0; nothing changes where there is none."""
        return replace(self, steps=tuple(step for at, step in enumerate(self.steps) if at != number))

    def _last(self, kind: str) -> Step | None:
        return self.steps[-1] if self.steps and self.steps[-1].kind == kind else None

    def _then(self, step: Step, *, instead: Step | None = None) -> Self:
        """One step more; it takes the place of the last where that is what it replaces."""
        if instead is not None and self.steps and self.steps[-1] == instead:
            return replace(self, steps=(*self.steps[:-1], step))
        if len(self.steps) >= MOST_STEPS:
            return replace(self, left_out=self.left_out | {"more"})
        return replace(self, steps=(*self.steps, step))
