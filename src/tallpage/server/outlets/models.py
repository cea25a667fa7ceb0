"""Outlets, their slots, and the outputs made from cuts."""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path
from typing import Any, cast

from django.db import models
from django.utils import timezone

from tallpage.core import cut as core_cut
from tallpage.core.facts import MOST_CREDIT_CHARS, FileFacts, as_iptc, as_xmp
from tallpage.core.fit import FORMATS, Choice, FitOrder, require_formats, takes_transparency
from tallpage.core.picture import Metadata
from tallpage.core.render import Rendering, RenderRules, render_key
from tallpage.core.sizing import Anchor, Sizing, Way
from tallpage.core.units import parse_colour
from tallpage.server.jobs.models import Job
from tallpage.server.shelf.models import Cut, with_pictures
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
FACTS = ("credit", "facts_in_file")


class FactsChoice(models.Model):
    """Which facts go along with a file."""

    credit = models.CharField(max_length=MOST_CREDIT_CHARS, blank=True, help_text="who is named for it")
    facts_in_file = models.BooleanField(
        default=False, help_text="credit, address and date stand in the file, and count against its limit"
    )

    class Meta:
        abstract = True

    def credit_in_file(self) -> str | None:
        """The credit that stands in the file; None where nothing does."""
        return self.credit if self.facts_in_file else None


class Outlet(FactsChoice):
    """A place where pictures get published."""

    name = models.CharField(max_length=80, unique=True)
    position = models.PositiveIntegerField(default=0)
    facts_beside = models.BooleanField(
        default=False, help_text="a JSON with them lies beside each file that leaves with others"
    )

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
        """What they ask of a file.

        Raises:
            FitError: a limit, fidelity or format that cannot be worked with.
        """
        return FitOrder(
            limit_bytes=self.limit_bytes,
            fidelity=self.least_fidelity,
            formats=require_formats(self.formats),
            choice=choice,
        )

    def render_rules(self, choice: Choice | None = None) -> RenderRules:
        """What they ask of the pixels.

        Raises:
            FitError: a size, colour or overlap that cannot be worked with.
        """
        formats = (choice.format,) if choice else require_formats(self.formats)
        return RenderRules(
            sizing=self.sizing,
            background=parse_colour(self.background),
            flattened=not takes_transparency(formats),
            greatest_height_px=self.greatest_height_px,
            overlap_px=self.overlap_px,
            numbered=self.numbered,
        )

    def require_possible(self) -> None:
        """Refuse rules that cannot be worked with.

        Raises:
            FitError: they cannot.
        """
        self.order()
        self.render_rules()


class Slot(Rules):
    """One spot of an outlet with its rules."""

    outlet = models.ForeignKey(Outlet, on_delete=models.CASCADE, related_name="slots")
    name = models.CharField(max_length=80)
    position = models.PositiveIntegerField(default=0)

    class Meta:
        ordering = ["position", "pk"]

    def __str__(self) -> str:
        return f"{self.outlet.name}: {self.name}"


class Output(Rules, FactsChoice):
    """A row of the ledger: which file is asked for, and what the search for it told.

    The rules are a copy, so that a slot that changes later does not rewrite what was delivered. What was
    made are its ``files``; ``drawn`` says what they show, and stays when something else is asked for.
    """

    cut = models.ForeignKey(Cut, on_delete=models.CASCADE, related_name="outputs")
    slot = models.ForeignKey(Slot, on_delete=models.SET_NULL, null=True, blank=True, related_name="outputs")
    label = models.CharField(max_length=170)
    choice = models.JSONField(null=True, blank=True, help_text="made by hand; null means searched")
    leaf_count = models.PositiveSmallIntegerField(null=True, blank=True, help_text="asked for by hand")
    breaks = models.JSONField(default=list, blank=True, help_text="set by hand, px of the frame")
    legible_marks = models.BooleanField(
        default=False, help_text="whether marks are drawn larger where their letters could not be read"
    )
    asked_key = models.CharField(max_length=32, blank=True, help_text="render key of what was last asked for")
    drawn = models.JSONField(default=dict, blank=True, help_text="cut and rules that the files show")
    drawn_key = models.CharField(max_length=32, blank=True, help_text="render key of that")
    met = models.BooleanField(default=False, help_text="every file keeps to the rules and looks acceptable")
    tries = models.PositiveIntegerField(default=0)
    candidates = models.JSONField(default=list, blank=True)
    advice = models.JSONField(default=list, blank=True)
    tradeoffs = models.JSONField(default=list, blank=True, help_text="bytes against fidelity, by recipe")
    why = models.TextField(blank=True, help_text="one sentence: what decided for the file")
    weights = models.JSONField(default=list, blank=True, help_text="bands of the page: top, height, bytes")
    worst = models.JSONField(default=list, blank=True, help_text="boxes in the file's px, the worst first")
    letters_px = models.FloatField(
        null=True, blank=True, help_text="size of the smallest letters of marks, in px of the file"
    )
    swatch_key = models.CharField(max_length=32, blank=True, help_text="whose worst place is shown")
    job = models.ForeignKey(Job, on_delete=models.PROTECT)
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["pk"]

    def __str__(self) -> str:
        return self.label

    def order(self, choice: Choice | None = None) -> FitOrder:
        """What is asked of its files, with what they are to say.

        Raises:
            FitError: a limit, fidelity or format that cannot be worked with.
        """
        order = super().order(choice)
        if not self.facts_in_file:
            return order
        facts = self.file_facts()
        return replace(order, metadata=Metadata(xmp=as_xmp(facts), iptc=as_iptc(facts)))

    def copy_facts_choice(self, outlet: Outlet) -> None:
        """Take over which facts an outlet wants in its files."""
        for name in FACTS:
            setattr(self, name, getattr(outlet, name))

    def render_rules(self, choice: Choice | None = None) -> RenderRules:
        """The rules, and what was decided about leaves and marks.

        Raises:
            FitError: they cannot be worked with.
        """
        rules = super().render_rules(choice or choice_from_json(self.choice))
        return replace(
            rules,
            leaf_count=self.leaf_count,
            breaks=tuple(self.breaks),
            legible_marks=self.legible_marks,
        )

    def asked(self) -> Rendering:
        """What the files are to show.

        Raises:
            FitError: rules that cannot be worked with.
        """
        return Rendering(self.cut.capture.pixel_source(), self.cut.as_drawn(), self.render_rules())

    def shown(self) -> Rendering:
        """What the files show; before there are any, what they are to show."""
        if not self.drawn:
            return self.asked()
        cut, rules = core_cut.Cut.from_json(self.drawn["cut"]), RenderRules.from_json(self.drawn["rules"])
        return Rendering(self.cut.capture.pixel_source(), with_pictures(cut), rules)

    def current_key(self) -> str:
        """Render key of what the files would show if they were made now."""
        return render_key(self.cut.capture.storage_key, self.cut.as_drawn(), self.render_rules())

    @property
    def paths(self) -> list[Path]:
        """Where the files are, from the top leaf to the last; none before they are made."""
        return [file.path for file in self.files.all()]

    @property
    def slot_changed(self) -> bool:
        """Whether the slot's rules have changed since they were taken over."""
        slot = self.slot
        if slot is None:
            return False
        if self.credit_in_file() != slot.outlet.credit_in_file():
            return True
        return any(getattr(self, name) != getattr(slot, name) for name in RULES)

    def file_facts(self) -> FileFacts:
        """What its files can say beside their pixels."""
        capture = self.cut.capture
        return FileFacts(
            credit=self.credit,
            source=capture.final_address or capture.address,
            taken_at=timezone.localtime(capture.taken_at or capture.created_at),
        )

    @property
    def stale(self) -> bool:
        """Whether the files show something else than they would if they were made now."""
        return bool(self.files.all()) and self.drawn_key != self.current_key()


class OutputFile(models.Model):
    """A file that was made: all that its output shows, or one leaf of it."""

    output = models.ForeignKey(Output, on_delete=models.CASCADE, related_name="files")
    number = models.PositiveSmallIntegerField(default=1, help_text="its place among the leaves, from 1")
    key = models.CharField(max_length=32, help_text="names the file on disk")
    format = models.CharField(max_length=8)
    choice = models.JSONField(help_text="how it is encoded")
    width_px = models.PositiveIntegerField()
    height_px = models.PositiveIntegerField()
    bytes = models.PositiveBigIntegerField()
    fidelity = models.FloatField()
    met = models.BooleanField()
    row_px = models.PositiveIntegerField(help_text="first row of the frame that it shows")
    rows_px = models.PositiveIntegerField(help_text="how many rows of the frame it shows")

    class Meta:
        ordering = ["output", "number"]
        constraints = [models.UniqueConstraint(fields=["output", "number"], name="one_file_a_place")]

    def __str__(self) -> str:
        return f"{self.key}.{self.format}"

    @property
    def path(self) -> Path:
        """Path of the file."""
        return file_path(self.key, self.format)


def file_path(key: str, name: str) -> Path:
    """Where the file of a key is, in the format of that name."""
    return output_file(key, FORMATS[name].extension)  # type: ignore[index]


def choice_from_json(data: dict[str, Any] | None) -> Choice | None:
    """A stored choice."""
    return Choice(**data) if data else None
