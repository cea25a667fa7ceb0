"""A look inside outlets and outputs."""

from django.contrib import admin

from tallpage.server.outlets.models import Outlet, Output, OutputFile, Slot


class SlotInline(admin.TabularInline):  # type: ignore[type-arg]  # not generic at run time
    """Slots below their outlet."""

    model = Slot
    extra = 0


@admin.register(Outlet)
class OutletAdmin(admin.ModelAdmin):  # type: ignore[type-arg]  # not generic at run time
    """Outlets with their slots."""

    list_display = ["name", "position"]
    inlines = [SlotInline]


class FileInline(admin.TabularInline):  # type: ignore[type-arg]  # not generic at run time
    """Files below their output."""

    model = OutputFile
    extra = 0


@admin.register(Output)
class OutputAdmin(admin.ModelAdmin):  # type: ignore[type-arg]  # not generic at run time
    """Rows of ledgers, with the files that were made."""

    list_display = ["id", "label", "cut", "limit_bytes", "least_fidelity"]
    inlines = [FileInline]
