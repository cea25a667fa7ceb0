"""Archives that were brought in."""

from __future__ import annotations

from django.db import models

from tallpage.server.jobs.models import Job


class BroughtArchive(models.Model):
    """An archive that is, or was, brought in: how many of its captures are there."""

    archive_id = models.CharField(max_length=32, help_text="its own, the same wherever it is brought in")
    name = models.CharField(max_length=200, help_text="of the file")
    upload_name = models.CharField(max_length=64, blank=True)
    total = models.PositiveIntegerField(help_text="captures that it says it holds")
    brought = models.JSONField(
        default=dict, blank=True, help_text="by their number in it: {capture, cuts}, as they are here"
    )
    refused = models.JSONField(default=list, blank=True, help_text="[{name, sentence}]")
    job = models.OneToOneField(Job, on_delete=models.PROTECT, related_name="brought_archive")
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-pk"]

    def __str__(self) -> str:
        return self.name
