"""A sweep, its pages, and a shot for each page and screen."""

from __future__ import annotations

from typing import Any

from django.db import models
from django.db.models import Q

from tallpage.core.capture import Screen
from tallpage.core.sweep import DEFAULT_PATTERN, Pace
from tallpage.server.jobs.models import Job
from tallpage.server.outlets.models import Slot
from tallpage.server.shelf.models import Capture

_NAME_CHARS = 120


class Sweep(models.Model):
    """Pages × screens, and how they are taken. What has become of them is told by its shots."""

    class StopMode(models.TextChoices):
        """What the person wants of it."""

        GO_ON = "go_on"
        PAUSE = "pause"
        STOP = "stop"

    name = models.CharField(max_length=_NAME_CHARS)
    stop_mode = models.CharField(max_length=8, choices=StopMode.choices, default=StopMode.GO_ON)
    screens = models.JSONField(help_text="[{width_px, height_px, scale, touch}]")
    settings = models.JSONField(default=dict, help_text="how every page is taken")
    host_settings = models.JSONField(
        default=dict, blank=True, help_text="how pages of single hosts are taken, by host"
    )
    pattern = models.CharField(max_length=300, default=DEFAULT_PATTERN)
    at_once = models.PositiveSmallIntegerField(default=2)
    pause_ms = models.PositiveIntegerField(default=500)
    slots = models.ManyToManyField(Slot, blank=True, help_text="made of every page at once")
    bad_lines = models.JSONField(default=list, help_text="[{line, text, sentence}] of the list")
    site = models.TextField(blank=True, help_text="the sitemap or page that is asked for the list again")
    left_out = models.JSONField(default=list, help_text="addresses of the site that were not wanted")
    problem = models.TextField(blank=True, help_text="what keeps it from going on, or from being taken again")
    previous = models.ForeignKey("self", on_delete=models.SET_NULL, null=True, blank=True)
    created_at = models.DateTimeField(auto_now_add=True)
    finished_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["-pk"]

    def __str__(self) -> str:
        return self.name

    @property
    def pace(self) -> Pace:
        """How hard hosts are pressed."""
        return Pace(at_once=self.at_once, pause_s=self.pause_ms / 1_000)

    def core_screens(self) -> list[Screen]:
        """The screens as the core knows them."""
        return [Screen(**screen) for screen in self.screens]


class SweepPage(models.Model):
    """A page of the list; ``number`` counts from 1."""

    sweep = models.ForeignKey(Sweep, on_delete=models.CASCADE, related_name="pages")
    number = models.PositiveIntegerField()
    line = models.PositiveIntegerField(default=0)
    address = models.TextField()
    title = models.TextField(blank=True, help_text="what the list called it")
    host = models.CharField(max_length=255)
    section = models.CharField(max_length=255)
    gone = models.BooleanField(default=False, help_text="the site listed it the last time, and no more")

    class Meta:
        ordering = ["number"]
        constraints = [models.UniqueConstraint(fields=["sweep", "number"], name="one_page_a_number")]
        indexes = [models.Index(fields=["sweep", "address"])]

    def __str__(self) -> str:
        return self.address


ERROR_STATUS = 400
"""From this status of its answer on, a page was taken that says that something is wrong."""
WAITING = Q(capture=None, dropped=False)
UNDER_WAY = Q(capture__job__state__in=(Job.State.QUEUED, Job.State.RUNNING))
TAKEN = Q(capture__isnull=False) & ~Q(capture__storage_key="")
FAILED = Q(capture__job__state__in=(Job.State.FAILED, Job.State.STOPPED))


class ShotQuerySet(models.QuerySet["Shot"]):
    """Shots by what has become of them."""

    def waiting(self) -> ShotQuerySet:
        """Not begun yet, and still wanted."""
        return self.filter(WAITING)

    def under_way(self) -> ShotQuerySet:
        """Queued or being taken."""
        return self.filter(UNDER_WAY)

    def taken(self) -> ShotQuerySet:
        """Shots that have a picture."""
        return self.filter(TAKEN)

    def failed(self) -> ShotQuerySet:
        """Shots without a picture, and none is coming."""
        return self.filter(FAILED)


class Shot(models.Model):
    """One page on one screen. Its capture is on the shelf like any other."""

    class Mark(models.TextChoices):
        """What a person said of it while skimming."""

        NONE = ""
        KEEP = "keep"
        RETAKE = "retake"

    sweep = models.ForeignKey(Sweep, on_delete=models.CASCADE, related_name="shots")
    page = models.ForeignKey(SweepPage, on_delete=models.CASCADE, related_name="shots")
    screen_at = models.PositiveSmallIntegerField(help_text="which of the sweep's screens, from 0")
    capture = models.OneToOneField(Capture, on_delete=models.SET_NULL, null=True, blank=True)
    replaced = models.ForeignKey(
        Capture,
        on_delete=models.SET_NULL,
        null=True,
        blank=True,
        related_name="+",
        help_text="what was taken before it was taken anew: its cuts go along",
    )
    mark = models.CharField(max_length=8, choices=Mark.choices, default=Mark.NONE, blank=True)
    dropped = models.BooleanField(default=False)
    settings = models.JSONField(null=True, blank=True, help_text="how it is taken, if not as the others are")
    ordered_at = models.DateTimeField(null=True, blank=True)
    followed_up = models.BooleanField(default=False, help_text="what is done with an arrived one is ordered")

    objects = ShotQuerySet.as_manager()

    class Meta:
        ordering = ["page__number", "screen_at"]
        constraints = [models.UniqueConstraint(fields=["page", "screen_at"], name="one_shot_a_screen")]
        indexes = [models.Index(fields=["sweep", "ordered_at"])]

    def __str__(self) -> str:
        return f"{self.page} on screen {self.screen_at}"


class Comparison(models.Model):
    """What a shot looks like, by itself and beside the same page the last time."""

    class Change(models.TextChoices):
        """What became of the page since the last time; nothing where it was not taken then."""

        NONE = ""
        UNCHANGED = "unchanged"
        CHANGED = "changed"
        NEW = "new"
        GONE = "gone"

    shot = models.OneToOneField(Shot, on_delete=models.CASCADE, related_name="comparison")
    job = models.OneToOneField(Job, on_delete=models.PROTECT)
    capture = models.ForeignKey(Capture, on_delete=models.CASCADE, related_name="+")
    before = models.ForeignKey(Capture, on_delete=models.SET_NULL, null=True, blank=True, related_name="+")
    digest = models.CharField(max_length=32, blank=True, db_index=True)
    commonest_share = models.FloatField(default=0, help_text="of the pixels, 0–1, in the commonest colour")
    change = models.CharField(max_length=10, choices=Change.choices, default=Change.NONE, blank=True)
    changed_share = models.FloatField(default=0, help_text="of the pixels, 0–1")
    stretches = models.JSONField(default=list, help_text="[{before, now}], boxes in page pixels or null")
    added = models.JSONField(default=list, help_text="passages that are new")
    removed = models.JSONField(default=list, help_text="passages that are gone")

    def __str__(self) -> str:
        return f"{self.shot}: {self.change or 'seen'}"


class Schedule(models.Model):
    """When a sweep is taken again. It goes along to each new sweep that it begins."""

    sweep = models.OneToOneField(Sweep, on_delete=models.CASCADE, related_name="schedule")
    cron = models.CharField(max_length=100)
    time_zone = models.CharField(max_length=60)
    next_at = models.DateTimeField(db_index=True)
    job = models.OneToOneField(Job, on_delete=models.SET_NULL, null=True, blank=True)

    def __str__(self) -> str:
        return f"{self.sweep}: {self.cron}"


class Saving(models.Model):
    """A sweep saved into a folder on the server's disk."""

    sweep = models.ForeignKey(Sweep, on_delete=models.CASCADE, related_name="savings")
    job = models.OneToOneField(Job, on_delete=models.PROTECT)
    folder = models.TextField(help_text="its whole path; of earlier versions only its name")
    only_kept = models.BooleanField(default=False)

    class Meta:
        ordering = ["-pk"]

    def __str__(self) -> str:
        return f"{self.sweep} in {self.folder}"


def plain_screen(screen: Screen) -> dict[str, Any]:
    """A screen as it is stored."""
    return {
        "width_px": screen.width_px,
        "height_px": screen.height_px,
        "scale": screen.scale,
        "touch": screen.touch,
    }
