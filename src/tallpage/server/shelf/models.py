"""Captures, and the cuts made from them."""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path
from typing import Any, cast

from django.db import models
from django.utils import timezone

from tallpage.core import cut as core_cut
from tallpage.core.capture import Screen
from tallpage.core.geometry import Size
from tallpage.core.handover import ManifestRow
from tallpage.core.naming import MAX_NAME_CHARS
from tallpage.core.picture import StripManifest
from tallpage.core.render import CaptureSource, without_hidden_words
from tallpage.core.rights import MOST_NOTE_CHARS, Rights, RightsState
from tallpage.server.jobs.models import Job
from tallpage.server.shelf.cuts.pictures import pictures_named
from tallpage.server.storage import capture_folder


class CaptureQuerySet(models.QuerySet["Capture"]):
    """Common selections."""

    def on_shelf(self) -> CaptureQuerySet:
        """Everything that is not deleted, newest first."""
        return self.filter(deleted_at=None).select_related("job").order_by("-created_at", "-pk")

    def delete_from_shelf(self) -> int:
        """Take them off the shelf; they can be restored."""
        return self.update(deleted_at=timezone.now())


class Folder(models.Model):
    """A folder of the shelf. What is in one that is deleted moves up: no capture is ever lost with it."""

    name = models.CharField(max_length=80)
    parent = models.ForeignKey(
        "self", on_delete=models.PROTECT, null=True, blank=True, related_name="children"
    )

    class Meta:
        ordering = ["name", "pk"]

    def __str__(self) -> str:
        return self.name


class Label(models.Model):
    """A word by which captures are found together."""

    name = models.CharField(max_length=40, unique=True)

    class Meta:
        ordering = ["name"]

    def __str__(self) -> str:
        return self.name


class KeptSearch(models.Model):
    """What somebody looks for on the shelf again and again."""

    name = models.CharField(max_length=80, unique=True)
    wanted = models.JSONField(help_text="as the API takes it")
    order = models.CharField(max_length=10)

    class Meta:
        ordering = ["name"]

    def __str__(self) -> str:
        return self.name


class Capture(models.Model):
    """A page or a dropped picture as it was taken. Its pixels are never altered.

    ``storage_key`` is empty until the strips are in their final place: a row never points at a
    missing file.
    """

    class Source(models.TextChoices):
        """Where the pixels came from."""

        PAGE = "page"
        PICTURE = "picture"

    source = models.CharField(max_length=10, choices=Source.choices)
    name = models.CharField(max_length=MAX_NAME_CHARS)
    named_by_hand = models.BooleanField(default=False)
    address = models.TextField(blank=True)
    final_address = models.TextField(blank=True)
    title = models.TextField(blank=True)
    host = models.CharField(max_length=255, blank=True)
    upload_name = models.CharField(max_length=64, blank=True)
    screen_width_px = models.PositiveIntegerField(null=True, blank=True)
    screen_height_px = models.PositiveIntegerField(null=True, blank=True)
    scale = models.PositiveSmallIntegerField(default=1)
    touch = models.BooleanField(default=False)
    width_px = models.PositiveIntegerField(default=0)
    height_px = models.PositiveIntegerField(default=0)
    bytes = models.PositiveBigIntegerField(default=0)
    status = models.PositiveSmallIntegerField(null=True, blank=True)
    truncated = models.BooleanField(default=False)
    whole = models.BooleanField(default=True, help_text="the words of the page are in the picture")
    warnings = models.JSONField(default=list, blank=True)
    report = models.JSONField(default=dict, blank=True)
    settings = models.JSONField(default=dict, blank=True, help_text="how it was asked to be taken")
    storage_key = models.CharField(max_length=32, blank=True)
    one_of_many = models.BooleanField(default=False, help_text="taken with a whole list of pages")
    incoming_key = models.CharField(max_length=32, blank=True, help_text="where it is being taken")
    renews = models.ForeignKey(
        "self",
        on_delete=models.SET_NULL,
        null=True,
        blank=True,
        related_name="renewals",
        help_text="the same page as it was before: its cuts are carried over",
    )
    shelf_folder = models.ForeignKey(
        Folder, on_delete=models.SET_NULL, null=True, blank=True, related_name="captures"
    )
    labels = models.ManyToManyField(Label, blank=True, related_name="captures")
    rights_state = models.CharField(max_length=12, blank=True, help_text="as core/rights names it")
    licensed_until = models.DateField(null=True, blank=True, help_text="the last day of a licence")
    rights_note = models.CharField(max_length=MOST_NOTE_CHARS, blank=True)
    job = models.OneToOneField(Job, on_delete=models.PROTECT)
    created_at = models.DateTimeField(auto_now_add=True)
    taken_at = models.DateTimeField(null=True, blank=True)
    deleted_at = models.DateTimeField(null=True, blank=True)

    passage = ""
    """Set by a search: what of the page holds the words."""

    objects = CaptureQuerySet.as_manager()

    class Meta:
        # A row is heavy with its report: what the shelf asks of all rows is answered from these.
        indexes = [
            models.Index(fields=["deleted_at", "-created_at"]),
            models.Index(fields=["deleted_at", "one_of_many", "-created_at"]),
            models.Index(fields=["deleted_at", "host"]),
            models.Index(fields=["deleted_at", "screen_width_px", "screen_height_px", "scale"]),
            models.Index(fields=["deleted_at", "name"]),
        ]

    def __str__(self) -> str:
        return self.name

    @property
    def size(self) -> Size:
        """Pixels of the whole capture."""
        return Size(width_px=self.width_px, height_px=self.height_px)

    @property
    def screen(self) -> Screen | None:
        """The simulated display; a dropped picture has none."""
        if self.screen_width_px is None or self.screen_height_px is None:
            return None
        return Screen(
            width_px=self.screen_width_px,
            height_px=self.screen_height_px,
            scale=self.scale,
            touch=self.touch,
        )

    @property
    def left_out(self) -> list[str]:
        """First words of what hung in the window and was left out."""
        return list(self.report.get("left_out", []))

    @property
    def lacking(self) -> list[dict[str, Any]]:
        """What of the page's words the picture lacks, the most words first."""
        return list(self.report.get("wholeness", {}).get("lacking", []))

    @property
    def folder(self) -> Path:
        """Where the strips are."""
        return capture_folder(self.storage_key)

    def facts(self) -> ManifestRow:
        """What a manifest tells of the picture, before there is a file."""
        return ManifestRow(
            address=self.address,
            final_address=self.final_address,
            title=self.title,
            status=self.status,
            screen=str(self.screen or ""),
            width_px=self.width_px,
            height_px=self.height_px,
            whole=self.whole,
            warnings=tuple(self.warnings),
            rights=self.rights.in_words(timezone.localdate()),
        )

    @property
    def rights(self) -> Rights:
        """What is known of them."""
        state = cast(RightsState, self.rights_state)
        return Rights(state=state, until=self.licensed_until, note=self.rights_note)

    def caption_facts(self) -> dict[str, str]:
        """What a caption can say of the page."""
        taken_at = timezone.localtime(self.taken_at or self.created_at)
        return core_cut.page_facts(
            title=self.title,
            address=self.final_address or self.address,
            name=self.name,
            taken_on=taken_at.date(),
        )

    def manifest(self) -> StripManifest:
        """The strips, as stored."""
        return StripManifest.load(self.folder)

    def pixel_source(self) -> CaptureSource:
        """What its cuts are drawn from."""
        return CaptureSource(self.folder)


class OwnScreen(models.Model):
    """A display that somebody added to the presets."""

    name = models.CharField(max_length=40, unique=True)
    width_px = models.PositiveIntegerField()
    height_px = models.PositiveIntegerField()
    scale = models.PositiveSmallIntegerField(default=1)
    touch = models.BooleanField(default=False)

    class Meta:
        ordering = ["pk"]

    def __str__(self) -> str:
        return self.name


class KeptStyle(models.Model):
    """A look of marks that somebody gave a name; cuts that use it have a copy."""

    name = models.CharField(max_length=60, unique=True)
    look = models.JSONField(help_text="as core/marks' Style writes it")
    usual_for = models.JSONField(default=list, blank=True, help_text="kinds of marks that begin with it")

    class Meta:
        ordering = ["name"]

    def __str__(self) -> str:
        return self.name


class StandingCuts(models.Manager["Cut"]):
    """Cuts but for those that were deleted, which can still be put back for a while."""

    def get_queryset(self) -> models.QuerySet[Cut]:
        """Those that stand."""
        return super().get_queryset().filter(deleted_at=None)


class Cut(models.Model):
    """A named, always editable version of a capture. It is data; pixels follow from it."""

    capture = models.ForeignKey(Capture, on_delete=models.CASCADE, related_name="cuts")
    name = models.CharField(max_length=80)
    document = models.JSONField(help_text="as core/cut writes it; docs/cut-file.md")
    version = models.PositiveIntegerField(default=1)
    carried_from = models.ForeignKey(
        "self", on_delete=models.SET_NULL, null=True, blank=True, related_name="carried"
    )
    review = models.JSONField(
        default=list, blank=True, help_text="what became of each part when it was carried over"
    )
    needs_a_look = models.BooleanField(
        default=False,
        help_text="a part is in doubt or has no place, and nobody has looked at it",
    )
    position = models.PositiveIntegerField(default=0, help_text="its place among those of its capture")
    changed_by = models.CharField(max_length=150, blank=True, help_text="who wrote the newest version")
    deleted_at = models.DateTimeField(null=True, blank=True)
    created_at = models.DateTimeField(auto_now_add=True)
    changed_at = models.DateTimeField(auto_now=True)

    objects = StandingCuts()
    with_deleted = models.Manager["Cut"]()

    class Meta:
        ordering = ["position", "pk"]

    def __str__(self) -> str:
        return f"{self.name} of {self.capture_id}"

    def as_cut(self) -> core_cut.Cut:
        """The cut as the core knows it."""
        return core_cut.Cut.from_json(self.document)

    def as_drawn(self) -> core_cut.Cut:
        """The cut as it is drawn: in its styles, with its pictures, the caption filled.

        Raises:
            CutError: a mark names a style that is not known.
        """
        return with_pictures(self.as_cut().resolved(self.capture.caption_facts()))

    def shown_title(self) -> str:
        """What its page is called, as far as the cut shows it."""
        capture = self.capture
        return without_hidden_words(capture.title or capture.name, capture.pixel_source(), self.as_cut())


def with_pictures(cut: core_cut.Cut) -> core_cut.Cut:
    """A cut with the small pictures that it names."""
    names = cut.picture_names()
    return replace(cut, pictures=pictures_named(names)) if names else cut
