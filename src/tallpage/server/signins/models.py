"""A saved sign-in: whose it is can be read, what is secret cannot."""

from __future__ import annotations

from django.db import models


class SavedSignIn(models.Model):
    """How pages of one host are opened signed in. ``sealed`` needs the key beside the database."""

    class Kind(models.TextChoices):
        """Ways of being signed in."""

        FORM = "form"
        BASIC = "basic"
        STATE = "state"

    host = models.CharField(max_length=255, unique=True, help_text="with its port, when it has one")
    kind = models.CharField(max_length=10, choices=Kind.choices)
    label = models.CharField(max_length=200, help_text="what may be shown: the name, or how many cookies")
    sealed = models.BinaryField()
    saved_at = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ["host"]

    def __str__(self) -> str:
        return f"{self.host} ({self.kind})"
