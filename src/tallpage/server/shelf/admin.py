"""A look inside the shelf."""

from django.contrib import admin

from tallpage.server.shelf.models import Capture, Cut


@admin.register(Capture)
class CaptureAdmin(admin.ModelAdmin):  # type: ignore[type-arg]  # not generic at run time
    """Captures, newest first."""

    list_display = ["id", "name", "host", "width_px", "height_px", "status", "created_at", "deleted_at"]
    list_filter = ["source", "truncated"]
    search_fields = ["name", "title", "address"]
    ordering = ["-id"]


@admin.register(Cut)
class CutAdmin(admin.ModelAdmin):  # type: ignore[type-arg]  # not generic at run time
    """Cuts with their documents."""

    list_display = ["id", "name", "capture", "document", "version", "changed_at"]
