"""A chain shown on a sample: a small picture of what each step leaves."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import takewhile
from threading import Lock

from tallpage.core.cut import Cut
from tallpage.core.render import RenderRules, render_key, step_view
from tallpage.core.routine import Applied, Page, Routine, apply_as_far_as_possible
from tallpage.core.sizing import Sizing
from tallpage.server.routines.applying import LOOK_WIDTH_PX, width_of
from tallpage.server.shelf.models import Capture
from tallpage.server.shelf.showing.views import derived

_SAMPLES_KEPT, _CHAINS_KEPT = 8, 3
_kept: dict[str, list[tuple[Routine, Applied]]] = {}
"""What chains came to on samples that were looked at last: each picture of a chain asks for it, and a chain
that is changed is mostly alike."""

_keeping = Lock()


@dataclass(frozen=True, slots=True, kw_only=True)
class StepLook:
    """What a step does to a sample."""

    key: str
    """Names the picture; equal keys are equal pictures. Empty where the step is not reached."""
    changes: bool
    """Whether the picture is another one than before it."""
    width_px: int = 0
    height_px: int = 0
    """Size of what is shown, in px of the page."""
    said: str = ""
    """A warning, or why the sample would be left out there."""


def looks_of(chain: Routine, capture: Capture) -> list[StepLook]:
    """A look at the sample as it is, then one for each step.

    What comes behind a step at which the sample would be left out is not reached.
    """
    applied = _applied(chain, capture)
    said = {row.step: row.sentence for row in applied.warnings}
    whole = Cut.whole(capture.size)
    looks = []
    before = whole
    for number, cut in enumerate((whole, *applied.after_step)):
        size = cut.frame.size
        looks.append(
            StepLook(
                key=_key(chain, capture, cut),
                changes=cut != before,
                width_px=size.width_px,
                height_px=size.height_px,
                said=said.get(number, ""),
            )
        )
        before = cut
    if applied.failure is not None:
        sentence = applied.failure.sentence
        looks.append(StepLook(key="", changes=False, said=sentence.partition(": ")[2] or sentence))
    missing = len(chain.steps) + 1 - len(looks)
    return [*looks, *[StepLook(key="", changes=False)] * missing]


def look_picture(chain: Routine, capture: Capture, number: int) -> tuple[bytes, str] | None:
    """WebP of what is left after a step, from 1 (0: before the first), and its key; None where it is not
    reached."""
    cuts = (Cut.whole(capture.size), *_applied(chain, capture).after_step)
    if number >= len(cuts):
        return None
    cut = cuts[number]
    key = _key(chain, capture, cut)

    def drawn() -> bytes:
        shown = cut.resolved(capture.caption_facts())
        width_px = width_of(chain)
        return step_view(capture.pixel_source(), shown, file_width_px=width_px, width_px=LOOK_WIDTH_PX)

    return derived(capture, f"step-{key}.webp", drawn), key


def _applied(chain: Routine, capture: Capture) -> Applied:
    kept = _kept.get(capture.storage_key, [])
    alike, before = max(
        ((_alike(chain, other), applied) for other, applied in kept),
        key=lambda row: row[0],
        default=(0, None),
    )
    if before is not None and alike == len(chain.steps) == len(before.after_step):
        return before
    page = Page(source=capture.pixel_source(), screen=capture.screen)
    found = apply_as_far_as_possible(chain, page, before=before, alike=alike)
    with _keeping:
        _kept[capture.storage_key] = [(chain, found), *kept][:_CHAINS_KEPT]
        while len(_kept) > _SAMPLES_KEPT:
            del _kept[next(iter(_kept))]
    return found


def _alike(chain: Routine, other: Routine) -> int:
    """How many of the first steps of two chains do the same."""
    if (chain.styles, chain.pictures) != (other.styles, other.pictures):
        return 0
    pairs = zip(chain.steps, other.steps, strict=False)
    return sum(1 for _ in takewhile(lambda pair: pair[0] == pair[1], pairs))


def _key(chain: Routine, capture: Capture, cut: Cut) -> str:
    rules = RenderRules(sizing=Sizing(width_px=width_of(chain)))
    return render_key(capture.storage_key, cut.resolved(capture.caption_facts()), rules)
