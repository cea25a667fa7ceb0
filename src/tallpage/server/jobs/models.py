"""One row for each piece of queued work."""

from __future__ import annotations

from django.db import models


class Job(models.Model):
    """State, progress and heartbeat of a piece of work; what it works on points here."""

    class State(models.TextChoices):
        """Life of a job. Only a running job has an owner."""

        QUEUED = "queued"
        RUNNING = "running"
        DONE = "done"
        FAILED = "failed"
        STOPPED = "stopped"

    kind = models.CharField(max_length=40)
    state = models.CharField(max_length=10, choices=State.choices, default=State.QUEUED)
    stage = models.CharField(max_length=40, blank=True)
    done = models.PositiveIntegerField(default=0)
    expected = models.PositiveIntegerField(default=0)
    owner = models.CharField(max_length=200, blank=True)
    attempts = models.PositiveSmallIntegerField(default=0)
    heartbeat_at = models.DateTimeField(null=True, blank=True)
    stop_requested = models.BooleanField(default=False)
    keep_requested = models.BooleanField(default=False, help_text="stop, and keep what there is")
    wanted_at = models.DateTimeField(null=True, blank=True, help_text="when a person last took it in hand")
    made_way = models.BooleanField(default=False, help_text="begun, and waiting until it is its turn again")
    told = models.JSONField(null=True, blank=True, help_text="what else there is to say while it runs")
    error = models.JSONField(null=True, blank=True)
    created_at = models.DateTimeField(auto_now_add=True)
    finished_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        indexes = [models.Index(fields=["state", "heartbeat_at"])]

    def __str__(self) -> str:
        return f"{self.kind} {self.pk} ({self.state})"

    @property
    def pending(self) -> bool:
        """Whether it still has to come to an end."""
        return self.state in (self.State.QUEUED, self.State.RUNNING)
