"""Captures that are put together, and where each lies."""

from __future__ import annotations

from typing import cast

from django.db import models
from pydantic import TypeAdapter

from tallpage.core import stitch
from tallpage.server.jobs.models import Job
from tallpage.server.shelf.models import Capture

_PLAN: TypeAdapter[stitch.Join] = TypeAdapter(stitch.Join)


class Join(models.Model):
    """Captures, where each of them lies in the whole, and the capture that was kept of it."""

    pieces = models.JSONField(help_text="numbers of the captures, in the order they were given")
    in_order = models.BooleanField(default=False, help_text="each was taken after the one before it")
    plan = models.JSONField(null=True, blank=True, help_text="core/stitch's Join; empty until it is found")
    job = models.OneToOneField(Job, on_delete=models.PROTECT, related_name="join")
    capture = models.OneToOneField(
        Capture, on_delete=models.SET_NULL, null=True, blank=True, related_name="joined_from"
    )
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-pk"]

    def __str__(self) -> str:
        return f"{len(self.pieces)} captures"

    @property
    def found(self) -> stitch.Join | None:
        """Where each lies, once that is known."""
        return None if self.plan is None else _PLAN.validate_python(self.plan)

    def captures(self) -> list[Capture]:
        """The pieces that still have a picture, in their order. One that was deleted still has."""
        there = Capture.objects.exclude(storage_key="").in_bulk(self.pieces)
        return [there[number] for number in self.pieces if number in there]


def as_plan(found: stitch.Join) -> dict[str, object]:
    """As it is stored."""
    return cast("dict[str, object]", _PLAN.dump_python(found, mode="json"))
