"""Clips, and the files that were made of them."""

from __future__ import annotations

from pathlib import Path

from django.db import models

from tallpage.core.clip import Frames, open_frames
from tallpage.core.errors import ClipError
from tallpage.server.jobs.models import Job
from tallpage.server.storage import clip_folder, output_file


class Clip(models.Model):
    """A few seconds of a page. Its frames are never altered; the document says how they are seen."""

    name = models.CharField(max_length=200)
    address = models.TextField()
    asked = models.JSONField(help_text="what of the page is taken, as it was asked for")
    storage_key = models.CharField(max_length=32, blank=True, help_text="names the folder of its frames")
    incoming_key = models.CharField(max_length=32, blank=True, help_text="folder of an attempt under way")
    width_px = models.PositiveIntegerField(default=0)
    height_px = models.PositiveIntegerField(default=0)
    rate_fps = models.PositiveSmallIntegerField(default=0)
    frame_count = models.PositiveIntegerField(default=0)
    warnings = models.JSONField(default=list, blank=True)
    document = models.JSONField(default=dict, blank=True, help_text="how it is seen")
    revision = models.PositiveIntegerField(default=0, help_text="counts changes of the document")
    job = models.OneToOneField(Job, on_delete=models.PROTECT, related_name="clip")
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-pk"]

    def __str__(self) -> str:
        return self.name

    def frames(self) -> Frames:
        """Its frames.

        Raises:
            ClipError: they are not there yet, or not any more.
        """
        if not self.storage_key:
            raise ClipError(
                "The clip has no frames yet.", hint="Wait until it is taken.", code="clip_not_taken"
            )
        return open_frames(clip_folder(self.storage_key))


class ClipOutput(models.Model):
    """A file of a clip: what was asked for, and what came of it."""

    clip = models.ForeignKey(Clip, on_delete=models.CASCADE, related_name="outputs")
    format = models.CharField(max_length=5)
    limit_bytes = models.PositiveBigIntegerField()
    wanted_width_px = models.PositiveIntegerField(null=True, blank=True)
    keeps_width = models.BooleanField(default=False)
    palette = models.CharField(max_length=4, default="all")
    document = models.JSONField(help_text="how the clip was seen when this was asked for")
    job = models.OneToOneField(Job, on_delete=models.PROTECT, related_name="clip_output")
    key = models.CharField(max_length=32, blank=True, help_text="names the file on disk")
    bytes = models.PositiveBigIntegerField(default=0)
    width_px = models.PositiveIntegerField(default=0)
    height_px = models.PositiveIntegerField(default=0)
    pictures = models.PositiveIntegerField(default=0)
    pictures_wanted = models.PositiveIntegerField(default=0)
    duration_ms = models.PositiveIntegerField(default=0)
    fidelity = models.FloatField(default=0)
    met = models.BooleanField(default=False)
    given_up = models.JSONField(default=list, blank=True)
    advice = models.JSONField(default=list, blank=True)
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["pk"]

    def __str__(self) -> str:
        return f"{self.format} of {self.clip_id}"

    @property
    def path(self) -> Path:
        """Path of the file."""
        return output_file(self.key, self.format)
