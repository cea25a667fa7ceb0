"""What was handed over: a row is a line of the log of each capture that it holds something of."""

from __future__ import annotations

import secrets

from django.db import models
from django.utils import timezone

from tallpage.server.jobs.models import Job
from tallpage.server.outlets.models import Outlet, Output
from tallpage.server.shelf.models import Capture

_TOKEN_BYTES = 24


class HandOver(models.Model):
    """Something that was given away, or is on its way."""

    class Way(models.TextChoices):
        """How it leaves."""

        FILE = "file", "Saved"
        ZIP = "zip", "Saved as a ZIP"
        FOLDER = "folder", "Folder on the server"
        PDF = "pdf", "PDF"
        LINK = "link", "Link"
        MAIL = "mail", "Mail"
        UPLOAD = "upload", "Upload"
        ARCHIVE = "archive", "Archive"
        COPIED = "copied", "Copied"

    way = models.CharField(max_length=10, choices=Way.choices)
    what = models.JSONField(help_text="which outputs, captures or sweep")
    options = models.JSONField(default=dict, blank=True)
    subject = models.CharField(max_length=200, blank=True, help_text="what was given, in words")
    where = models.TextField(blank=True, help_text="a folder, addresses, an outlet")
    answer = models.TextField(blank=True, help_text="what came back, in words")
    address = models.TextField(blank=True, help_text="where it can be reached now")
    files = models.JSONField(default=list, blank=True, help_text="[{name, bytes}]")
    progress = models.JSONField(default=dict, blank=True, help_text="which parts have left already")
    made_key = models.CharField(max_length=32, blank=True, help_text="names the file that was made")
    made_name = models.CharField(max_length=200, blank=True)
    facts = models.JSONField(default=dict, blank=True, help_text="of the file that was made")
    person = models.CharField(max_length=150, blank=True)
    job = models.OneToOneField(Job, on_delete=models.PROTECT, null=True, blank=True, related_name="hand_over")
    captures = models.ManyToManyField(Capture, related_name="log")
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-pk"]

    def __str__(self) -> str:
        return f"{self.way} of {self.subject}"


def new_token() -> str:
    """A name that nobody guesses: 192 random bits."""
    return secrets.token_urlsafe(_TOKEN_BYTES)


class SharedLink(models.Model):
    """A page of its own with pictures as they were when it was made, for whoever has its address."""

    hand_over = models.OneToOneField(HandOver, on_delete=models.CASCADE, related_name="link")
    token = models.CharField(max_length=64, unique=True, default=new_token)
    title = models.CharField(max_length=200)
    caption = models.TextField(blank=True)
    pictures = models.JSONField(
        default=list, help_text="what it shows: names, sizes, the fitted and the full file"
    )
    word_hash = models.CharField(max_length=200, blank=True)
    expires_at = models.DateTimeField(null=True, blank=True)
    taken_back_at = models.DateTimeField(null=True, blank=True)
    opened = models.PositiveIntegerField(default=0)
    opened_at = models.DateTimeField(null=True, blank=True)
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-pk"]

    def __str__(self) -> str:
        return self.title

    def may_lead_somewhere(self) -> bool:
        """Whether it was not taken back and has not run out; its pictures may not be there yet."""
        expired = self.expires_at is not None and self.expires_at <= timezone.now()
        return self.taken_back_at is None and not expired

    def leads_somewhere(self) -> bool:
        """Whether it can be opened."""
        return self.may_lead_somewhere() and bool(self.pictures)


class UploadPlace(models.Model):
    """Where an outlet's files are uploaded to. ``sealed`` is what signs in there."""

    class Kind(models.TextChoices):
        """Ways of uploading."""

        FORM = "form"
        WEBDAV = "webdav"
        FOLDER = "folder"

    outlet = models.OneToOneField(Outlet, on_delete=models.CASCADE, related_name="upload_place")
    kind = models.CharField(max_length=10, choices=Kind.choices)
    address = models.TextField(blank=True)
    user = models.CharField(max_length=200, blank=True)
    folder = models.CharField(max_length=200, blank=True)
    sealed = models.BinaryField(blank=True, default=b"")

    def __str__(self) -> str:
        return f"{self.kind} of {self.outlet_id}"


class Published(models.Model):
    """A file that a place has taken: it is not sent there again."""

    outlet = models.ForeignKey(Outlet, on_delete=models.CASCADE, related_name="published")
    output = models.ForeignKey(
        Output, on_delete=models.SET_NULL, null=True, blank=True, related_name="published"
    )
    key = models.CharField(max_length=64, help_text="of name and data together")
    name = models.CharField(max_length=200)
    address = models.TextField(blank=True)
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-pk"]
        constraints = [models.UniqueConstraint(fields=["outlet", "key"], name="published_once")]

    def __str__(self) -> str:
        return self.name
