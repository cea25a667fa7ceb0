"""Tokens for scripts, and what each person has set. Accounts are Django's own; the role is a group."""

from __future__ import annotations

from django.conf import settings
from django.db import models


class Token(models.Model):
    """What a script signs in by. Only its hash is kept: it is shown once, when it is made."""

    class Scope(models.TextChoices):
        """What it is good for."""

        READ = "read"
        ALL = "all"

    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="tokens")
    label = models.CharField(max_length=80, blank=True)
    scope = models.CharField(max_length=4, choices=Scope.choices)
    digest = models.CharField(max_length=64, unique=True)
    used_at = models.DateTimeField(null=True, blank=True)
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["pk"]

    def __str__(self) -> str:
        return f"{self.label or 'token'} of {self.user}"


class Try(models.Model):
    """How often a password or a word was said from an address, lately."""

    what = models.CharField(max_length=80)
    address = models.CharField(max_length=45, blank=True)
    tries = models.PositiveIntegerField(default=0)
    last_at = models.DateTimeField(db_index=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["what", "address"], name="one_row_for_each_address")]
        verbose_name_plural = "tries"

    def __str__(self) -> str:
        return f"{self.what} from {self.address}"


class OwnSettings(models.Model):
    """What somebody has set for themselves; where nobody signs in, for all who come."""

    person = models.CharField(max_length=150, unique=True, blank=True)
    keys = models.JSONField(
        default=dict, blank=True, help_text="keys by action, where they are not the usual"
    )

    class Meta:
        verbose_name_plural = "own settings"

    def __str__(self) -> str:
        return self.person or "everybody"
