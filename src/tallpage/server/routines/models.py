"""Routines with their versions, their runs, and what became of each picture of a run."""

from __future__ import annotations

from typing import Any

from django.db import models

from tallpage.core.routine import Routine as Chain
from tallpage.core.routine import routine_of, with_answers
from tallpage.server.handover.models import HandOver
from tallpage.server.jobs.models import Job
from tallpage.server.outlets.models import Output
from tallpage.server.shelf.models import Capture, Cut
from tallpage.server.sweeps.models import Sweep

_NAME_CHARS = 120


class StandingRoutines(models.Manager["Routine"]):
    """Routines but for those that were deleted, which can still be put back."""

    def get_queryset(self) -> models.QuerySet[Routine]:
        """Those that stand."""
        return super().get_queryset().filter(deleted_at=None)


class Routine(models.Model):
    """A chain of steps with a name. What it says is in its versions."""

    name = models.CharField(max_length=_NAME_CHARS)
    position = models.PositiveIntegerField(default=0)
    key = models.PositiveSmallIntegerField(null=True, blank=True, help_text="the digit that runs it, 1 to 9")
    created_at = models.DateTimeField(auto_now_add=True)
    deleted_at = models.DateTimeField(null=True, blank=True)

    objects = StandingRoutines()
    with_deleted = models.Manager["Routine"]()

    class Meta:
        ordering = ["position", "pk"]
        constraints = [
            models.UniqueConstraint(
                fields=["key"], condition=models.Q(deleted_at=None), name="one_routine_a_key"
            )
        ]

    def __str__(self) -> str:
        return self.name

    @property
    def newest(self) -> RoutineVersion:
        """The version that runs from now on."""
        return self.versions.latest("number")


class RoutineVersion(models.Model):
    """What a routine says. It is never changed once something was made with it."""

    routine = models.ForeignKey(Routine, on_delete=models.CASCADE, related_name="versions")
    number = models.PositiveIntegerField(default=1)
    document = models.JSONField(help_text="as core/routine writes it; docs/routine-file.md")
    changes = models.PositiveIntegerField(default=1, help_text="goes up with each change, by whomever")
    changed_by = models.CharField(max_length=150, blank=True)
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["number"]
        constraints = [models.UniqueConstraint(fields=["routine", "number"], name="one_version_a_number")]

    def __str__(self) -> str:
        return f"{self.routine} {self.number}"

    def chain(self, values: dict[str, Any] | None = None) -> Chain:
        """The routine as the core knows it, with values in place of those that it asks for.

        Raises:
            RoutineError: a value that it does not ask for, or that cannot be worked with.
        """
        return with_answers(routine_of(self.document), values or {})


class Run(models.Model):
    """A routine over some pictures. What has become of them is told by its items."""

    class StopMode(models.TextChoices):
        """What the person wants of it."""

        GO_ON = "go_on"
        PAUSE = "pause"
        STOP = "stop"

    version = models.ForeignKey(RoutineVersion, on_delete=models.PROTECT, related_name="runs")
    values = models.JSONField(default=dict, blank=True, help_text="what was answered")
    subject = models.CharField(max_length=200, blank=True, help_text="what it runs over, in words")
    trial = models.BooleanField(default=False, help_text="results are shown, nothing else is kept")
    stop_mode = models.CharField(max_length=8, choices=StopMode.choices, default=StopMode.GO_ON)
    ended_by = models.TextField(blank=True, help_text="the step that ended it, in words")
    note = models.TextField(blank=True, help_text="what became of handing its files over")
    sweep = models.ForeignKey(
        Sweep,
        on_delete=models.CASCADE,
        null=True,
        blank=True,
        related_name="routine_runs",
        help_text="each of its pages is an item as soon as it arrives",
    )
    watched_folder = models.CharField(max_length=80, blank=True, help_text="where its pictures came from")
    hand_over = models.ForeignKey(
        HandOver, on_delete=models.SET_NULL, null=True, blank=True, help_text="how its files left together"
    )
    person = models.CharField(max_length=150, blank=True)
    created_at = models.DateTimeField(auto_now_add=True)
    finished_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["-pk"]

    def __str__(self) -> str:
        return f"{self.version} over {self.subject}"

    def chain(self) -> Chain:
        """The routine as it runs here."""
        return self.version.chain(self.values)


class RunItem(models.Model):
    """One picture of a run."""

    class State(models.TextChoices):
        """How far it is."""

        WAITING = "waiting"
        TAKING = "taking"
        APPLYING = "applying"
        MAKING = "making"
        DONE = "done"
        SKIPPED = "skipped"
        FAILED = "failed"
        STOPPED = "stopped"

    run = models.ForeignKey(Run, on_delete=models.CASCADE, related_name="items")
    number = models.PositiveIntegerField()
    name = models.CharField(max_length=200, blank=True)
    address = models.TextField(blank=True, help_text="a page that is taken for the run")
    capture = models.ForeignKey(
        Capture, on_delete=models.SET_NULL, null=True, blank=True, related_name="run_items"
    )
    cut = models.ForeignKey(Cut, on_delete=models.SET_NULL, null=True, blank=True, related_name="run_items")
    cut_version = models.PositiveIntegerField(default=0, help_text="of the cut as the routine made it")
    outputs = models.ManyToManyField(Output, blank=True, related_name="run_items")
    replaces = models.ForeignKey(
        "self",
        on_delete=models.SET_NULL,
        null=True,
        blank=True,
        related_name="replaced_by",
        help_text="the same picture as an earlier version made it",
    )
    hand_over = models.ForeignKey(
        HandOver, on_delete=models.SET_NULL, null=True, blank=True, help_text="a document of this picture"
    )
    source_file = models.CharField(
        max_length=255, blank=True, db_index=True, help_text="what it was called while it was taken in"
    )
    state = models.CharField(max_length=10, choices=State.choices, default=State.WAITING)
    warnings = models.JSONField(default=list, blank=True)
    error = models.TextField(blank=True)
    files = models.JSONField(default=list, blank=True, help_text="of a trial: what would be made")
    look = models.CharField(max_length=32, blank=True, help_text="names the picture of a trial's result")
    job = models.OneToOneField(Job, on_delete=models.SET_NULL, null=True, blank=True, related_name="run_item")

    class Meta:
        ordering = ["run", "number"]
        constraints = [
            models.UniqueConstraint(fields=["run", "number"], name="one_item_a_number"),
            models.UniqueConstraint(fields=["run", "capture"], name="one_item_a_capture"),
        ]
        indexes = [models.Index(fields=["run", "state", "number"])]

    def __str__(self) -> str:
        return f"{self.name} of {self.run_id}"


UNDER_WAY = (RunItem.State.TAKING, RunItem.State.APPLYING, RunItem.State.MAKING)
ENDED = (RunItem.State.DONE, RunItem.State.SKIPPED, RunItem.State.FAILED, RunItem.State.STOPPED)


class AfterTaking(models.Model):
    """What is to be done with a page once it is taken, as the settings had it when it was ordered."""

    class What(models.TextChoices):
        """What is done."""

        RUN = "routine"
        SAVE = "folder"

    capture = models.OneToOneField(Capture, on_delete=models.CASCADE, related_name="after_taking")
    what = models.CharField(max_length=8, choices=What.choices)
    name = models.CharField(max_length=_NAME_CHARS, help_text="of the routine, or of the folder")
    pattern = models.CharField(max_length=300, blank=True, help_text="for the name of the file")
    person = models.CharField(max_length=150, blank=True)

    class Meta:
        verbose_name_plural = "after taking"

    def __str__(self) -> str:
        return f"{self.what} {self.name} once {self.capture_id} is taken"


class WatchedFolder(models.Model):
    """A folder of the data folder; a routine is run over each picture that is put into it."""

    name = models.CharField(max_length=80, unique=True, help_text="of the folder below “watched”")
    routine = models.ForeignKey(Routine, on_delete=models.CASCADE, related_name="watched_folders")
    values = models.JSONField(default=dict, blank=True)
    problem = models.TextField(blank=True, help_text="what kept the last picture from being taken in")
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["name"]

    def __str__(self) -> str:
        return self.name
