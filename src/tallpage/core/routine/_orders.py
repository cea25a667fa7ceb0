"""What a step asks of the browser, and of a file."""

from __future__ import annotations

from dataclasses import dataclass, replace

from tallpage.core.capture import PageRequest, Screen, Step
from tallpage.core.errors import FitError
from tallpage.core.fit import FitOrder, require_formats, takes_transparency
from tallpage.core.render import RenderRules
from tallpage.core.routine.models import Routine, SlotStep, TakeStep
from tallpage.core.sizing import Sizing
from tallpage.core.units import parse_colour


@dataclass(frozen=True, slots=True, kw_only=True)
class SlotOrder:
    """A file to make of every picture, and what it is called in names."""

    name: str
    rules: RenderRules
    order: FitOrder


def page_request(step: TakeStep | None, address: str) -> PageRequest:
    """How a page is taken; without a step, as most pages are.

    Raises:
        PageError, ScreenError: a step on the page that is none, or what cannot be.
    """
    if step is None:
        return PageRequest(address=address, screen=Screen.parse("1280x800"))
    return PageRequest(
        address=address,
        screen=replace(Screen.parse(step.screen), touch=step.touch),
        extent=step.extent,
        element=step.element,
        to_element=step.to_element,
        max_height_px=step.max_height_px,
        max_screens=step.max_screens,
        page_width=step.page_width,
        scheme=step.scheme,
        language=step.language,
        steps=tuple(Step.parse(line) for line in step.steps),
        wait_ms=step.wait_ms,
        leave_out=step.leave_out,
        fixed_overlays=step.fixed_overlays,
    )


def request_of(routine: Routine, address: str) -> PageRequest:
    """How a routine takes a page."""
    takes = (step for step in routine.steps if isinstance(step, TakeStep) and not step.off)
    return page_request(next(takes, None), address)


def slot_order(step: SlotStep) -> SlotOrder:
    """The rules of a slot.

    Raises:
        FitError: rules that cannot be worked with.
    """
    formats = require_formats(step.formats)
    sizing = Sizing(
        way=step.way,
        width_px=step.width_px,
        height_px=step.height_px,
        percent=step.percent,
        anchor=step.keep,
        enlarge=step.enlarge,
    )
    if step.leaves is not None:
        sizing.require_divisible()
    if step.limit_bytes is None and step.fidelity is None:
        raise FitError("Neither a limit nor a fidelity was given.", hint="Give one, or both.")
    rules = RenderRules(
        sizing=sizing,
        background=parse_colour(step.background),
        flattened=not takes_transparency(formats),
        greatest_height_px=step.greatest_height_px,
        overlap_px=step.overlap_px,
        numbered=step.numbered,
        leaf_count=step.leaves,
        legible_marks=step.legible_marks,
    )
    order = FitOrder(limit_bytes=step.limit_bytes, fidelity=step.fidelity, formats=formats)
    return SlotOrder(name=step.name or str(sizing), rules=rules, order=order)


def slots_of(routine: Routine) -> tuple[SlotOrder, ...]:
    """The files that a routine makes of each picture."""
    return tuple(slot_order(step) for step in routine.steps if isinstance(step, SlotStep) and not step.off)
