"""What was set. A setting that has no row is as usual."""

from __future__ import annotations

from django.db import models


class SettingValue(models.Model):
    """One setting of a person; without one, of the whole server, or of all where nobody signs in."""

    person = models.CharField(max_length=150, blank=True)
    name = models.CharField(max_length=40)
    value = models.JSONField(null=True)
    sealed = models.BinaryField(null=True, help_text="in place of the value, of what is secret")
    changed_at = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ["name", "person"]
        constraints = [
            models.UniqueConstraint(fields=["person", "name"], name="one_value_a_person_and_setting")
        ]

    def __str__(self) -> str:
        return f"{self.name} of {self.person or 'everybody'}"
