"""A look inside the queue."""

from django.contrib import admin

from tallpage.server.jobs.models import Job


@admin.register(Job)
class JobAdmin(admin.ModelAdmin):  # type: ignore[type-arg]  # not generic at run time
    """Jobs, newest first."""

    list_display = ["id", "kind", "state", "stage", "done", "expected", "attempts", "heartbeat_at"]
    list_filter = ["state", "kind"]
    ordering = ["-id"]
