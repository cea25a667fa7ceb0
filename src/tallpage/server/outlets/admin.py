"""A look inside outlets and outputs."""

from django.contrib import admin

from tallpage.server.outlets.models import Outlet, Output, Slot


class SlotInline(admin.TabularInline):  # type: ignore[type-arg]  # not generic at run time
    """Slots below their outlet."""

    model = Slot
    extra = 0


@admin.register(Outlet)
class OutletAdmin(admin.ModelAdmin):  # type: ignore[type-arg]  # not generic at run time
    """Outlets with their slots."""

    list_display = ["name", "position"]
    inlines = [SlotInline]


@admin.register(Output)
class OutputAdmin(admin.ModelAdmin):  # type: ignore[type-arg]  # not generic at run time
    """Made files."""

    list_display = ["id", "label", "cut", "format", "bytes", "limit_bytes", "fidelity", "met"]
    list_filter = ["met", "format"]
