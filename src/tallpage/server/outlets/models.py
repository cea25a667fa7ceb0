"""Outlets, their slots, and the outputs made from cuts."""

from __future__ import annotations

from pathlib import Path
from typing import Any, cast

from django.db import models

from tallpage.core.fit import FORMATS, Choice, FitOrder, require_formats
from tallpage.core.frames import Frame
from tallpage.core.leaves import require_overlap
from tallpage.core.sizing import Anchor, SizePlan, Sizing, Way, plan_size
from tallpage.core.units import parse_colour
from tallpage.server.jobs.models import Job
from tallpage.server.shelf.models import Cut
from tallpage.server.storage import output_file

RULES = (
    "way",
    "width_px",
    "height_px",
    "percent",
    "anchor",
    "enlarge",
    "background",
    "limit_bytes",
    "least_fidelity",
    "formats",
    "greatest_height_px",
    "overlap_px",
    "numbered",
)


class Outlet(models.Model):
    """A place where pictures get published."""

    name = models.CharField(max_length=80, unique=True)
    position = models.PositiveIntegerField(default=0)

    class Meta:
        ordering = ["position", "pk"]

    def __str__(self) -> str:
        return self.name


class Rules(models.Model):
    """What a file has to keep to."""

    way = models.CharField(max_length=8, default="width", help_text="how width and height are found")
    width_px = models.PositiveIntegerField(default=0)
    height_px = models.PositiveIntegerField(default=0)
    percent = models.PositiveIntegerField(default=0)
    anchor = models.CharField(max_length=8, default="start", help_text="what stays when something is cut off")
    enlarge = models.BooleanField(default=False)
    background = models.CharField(max_length=7, default="#ffffff")
    limit_bytes = models.PositiveIntegerField(null=True, blank=True)
    least_fidelity = models.PositiveSmallIntegerField(
        null=True, blank=True, help_text="as light as possible while it looks at least so good"
    )
    formats = models.JSONField(default=list)
    greatest_height_px = models.PositiveIntegerField(null=True, blank=True)
    overlap_px = models.PositiveIntegerField(default=0, help_text="rows that a leaf repeats of the one above")
    numbered = models.BooleanField(default=False, help_text="whether leaves say which of how many they are")

    class Meta:
        abstract = True

    def copy_rules(self, other: Rules) -> None:
        """Take over the rules of another row."""
        for name in RULES:
            setattr(self, name, getattr(other, name))

    @property
    def sizing(self) -> Sizing:
        """How large a file is to be.

        Raises:
            FitError: a size that cannot be made.
        """
        return Sizing(
            way=cast(Way, self.way),
            width_px=self.width_px,
            height_px=self.height_px,
            percent=self.percent,
            anchor=cast(Anchor, self.anchor),
            enlarge=self.enlarge,
        )

    def order(self, choice: Choice | None = None) -> FitOrder:
        """The rules as the core knows them.

        Raises:
            FitError: a size, colour, limit or format that cannot be worked with.
        """
        require_overlap(self.overlap_px, self.greatest_height_px)
        return FitOrder(
            sizing=self.sizing,
            background=parse_colour(self.background),
            limit_bytes=self.limit_bytes,
            fidelity=self.least_fidelity,
            formats=require_formats(self.formats),
            greatest_height_px=self.greatest_height_px,
            choice=choice,
        )


class Slot(Rules):
    """One spot of an outlet with its rules."""

    outlet = models.ForeignKey(Outlet, on_delete=models.CASCADE, related_name="slots")
    name = models.CharField(max_length=80)
    position = models.PositiveIntegerField(default=0)

    class Meta:
        ordering = ["position", "pk"]

    def __str__(self) -> str:
        return f"{self.outlet.name}: {self.name}"


class Output(Rules):
    """A file made from a cut: the rules it was made for, what was chosen, what came out.

    The rules are a copy, so that a slot that changes later does not rewrite what was delivered.
    ``file_key`` is empty until the file is in its final place.
    """

    cut = models.ForeignKey(Cut, on_delete=models.CASCADE, related_name="outputs")
    slot = models.ForeignKey(Slot, on_delete=models.SET_NULL, null=True, blank=True, related_name="outputs")
    label = models.CharField(max_length=170)
    choice = models.JSONField(null=True, blank=True, help_text="made by hand; null means searched")
    frame = models.JSONField(default=dict, help_text="the cut's frame when the file was made")
    asked_frame = models.JSONField(default=dict, help_text="the cut's frame when it was last asked for")
    format = models.CharField(max_length=8, blank=True)
    made_choice = models.JSONField(null=True, blank=True)
    made_width_px = models.PositiveIntegerField(default=0)
    made_height_px = models.PositiveIntegerField(default=0)
    bytes = models.PositiveBigIntegerField(default=0)
    fidelity = models.FloatField(null=True, blank=True)
    met = models.BooleanField(default=False)
    tries = models.PositiveIntegerField(default=0)
    candidates = models.JSONField(default=list, blank=True)
    advice = models.JSONField(default=list, blank=True)
    tradeoffs = models.JSONField(default=list, blank=True, help_text="bytes against fidelity, by recipe")
    why = models.TextField(blank=True, help_text="one sentence: what decided for the file")
    weights = models.JSONField(default=list, blank=True, help_text="bands of the page: top, height, bytes")
    worst = models.JSONField(default=list, blank=True, help_text="boxes in the file's px, the worst first")
    swatch_key = models.CharField(max_length=32, blank=True, help_text="whose worst place is shown")
    leaf_count = models.PositiveSmallIntegerField(null=True, blank=True, help_text="asked for by hand")
    breaks = models.JSONField(default=list, blank=True, help_text="set by hand, px of the frame")
    leaves = models.JSONField(default=list, blank=True, help_text="the files, where there are several")
    file_key = models.CharField(max_length=32, blank=True)
    job = models.ForeignKey(Job, on_delete=models.PROTECT)
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["pk"]

    def __str__(self) -> str:
        return self.label

    @property
    def path(self) -> Path:
        """Where the file is; of several, the first."""
        return file_path(self.file_key, self.format)

    @property
    def paths(self) -> list[Path]:
        """Where the files are, from the top leaf to the last; none before they are made."""
        if self.leaves:
            return [file_path(leaf["file_key"], leaf["format"]) for leaf in self.leaves]
        return [self.path] if self.file_key else []

    def shown(self) -> Frame:
        """What of the page the file shows; before there is one, what it will show."""
        return Frame.from_json(self.frame or self.cut.frame)

    @property
    def plan(self) -> SizePlan:
        """How the frame came to the file's size."""
        return plan_size(self.shown().size, self.sizing)

    @property
    def slot_changed(self) -> bool:
        """Whether the slot's rules have changed since they were taken over."""
        slot = self.slot
        return slot is not None and any(getattr(self, name) != getattr(slot, name) for name in RULES)

    @property
    def stale(self) -> bool:
        """Whether the cut has changed since the file was made."""
        return bool(self.file_key) and self.frame != self.cut.frame


def file_path(key: str, name: str) -> Path:
    """Where the file of a key is, in the format of that name."""
    return output_file(key, FORMATS[name].extension)  # type: ignore[index]


def choice_from_json(data: dict[str, Any] | None) -> Choice | None:
    """A stored choice."""
    return Choice(**data) if data else None
