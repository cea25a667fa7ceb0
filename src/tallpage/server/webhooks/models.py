"""Addresses that are told, and each message to them."""

from __future__ import annotations

import uuid

from django.db import models
from django.utils import timezone

from tallpage.server.jobs.models import Job


class Webhook(models.Model):
    """An address that is told when something has finished."""

    address = models.TextField()
    events = models.JSONField(help_text="which kinds of thing it is told of")
    sealed = models.BinaryField(help_text="the secret that messages are signed with")
    active = models.BooleanField(default=True)
    person = models.CharField(max_length=150, blank=True)
    looked_up_to = models.DateTimeField(
        default=timezone.now, help_text="what finished before has been looked at"
    )
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["pk"]

    def __str__(self) -> str:
        return self.address


class Delivery(models.Model):
    """One message. The same thing finishing once is told once, however often it is tried."""

    class State(models.TextChoices):
        """What has become of it."""

        WAITING = "waiting"
        SENT = "sent"
        FAILED = "failed"

    webhook = models.ForeignKey(Webhook, on_delete=models.CASCADE, related_name="deliveries")
    key = models.UUIDField(default=uuid.uuid4, unique=True, help_text="the same with each try")
    event = models.CharField(max_length=20)
    subject_id = models.PositiveBigIntegerField(default=0)
    happened_at = models.DateTimeField()
    body = models.JSONField()
    state = models.CharField(max_length=8, choices=State.choices, default=State.WAITING)
    tries = models.PositiveSmallIntegerField(default=0)
    next_at = models.DateTimeField(default=timezone.now)
    answer = models.TextField(blank=True, help_text="what came of the last try")
    job = models.OneToOneField(Job, on_delete=models.SET_NULL, null=True, blank=True, related_name="delivery")
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-pk"]
        verbose_name_plural = "deliveries"
        constraints = [
            models.UniqueConstraint(
                fields=["webhook", "event", "subject_id", "happened_at"], name="one_message_for_one_finish"
            )
        ]
        indexes = [models.Index(fields=["state", "next_at"])]

    def __str__(self) -> str:
        return f"{self.event} {self.subject_id} to {self.webhook_id}"
