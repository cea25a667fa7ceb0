"""The displays that pages can be taken on: presets, and those that somebody added."""

from __future__ import annotations

from django.db import transaction

from tallpage.core.capture import PRESETS
from tallpage.core.errors import TallPageError
from tallpage.server.preferences.models import SettingValue
from tallpage.server.shelf.models import OwnScreen
from tallpage.server.shelf.routes.schemas import NamedScreenIn, NamedScreenOut, ScreenIn


def all_screens() -> list[NamedScreenOut]:
    """Presets first, then own ones in the order they were added."""
    presets = [
        NamedScreenOut(
            name=name,
            own=False,
            width_px=screen.width_px,
            height_px=screen.height_px,
            scale=screen.scale,
            touch=screen.touch,
        )
        for name, screen in PRESETS.items()
    ]
    return presets + [_out(screen) for screen in OwnScreen.objects.all()]


def add_screen(given: NamedScreenIn) -> NamedScreenOut:
    """Keep a display of one's own.

    Raises:
        ScreenError: it cannot be simulated.
        TallPageError: there is one of that name.
    """
    given.as_screen()
    name = given.name.strip()
    taken = {screen.name.casefold() for screen in all_screens()}
    if not name or name.casefold() in taken:
        raise TallPageError(
            f"There is a screen “{name}” already." if name else "The screen has no name.",
            hint="Give it another name.",
            code="screen_name",
        )
    values = given.model_dump(include=set(ScreenIn.model_fields))
    return _out(OwnScreen.objects.create(name=name, **values))


def remove_screen(screen: OwnScreen) -> None:
    """Forget a display of one's own, also where a setting chooses it: else no page would be taken."""
    with transaction.atomic():
        for row in SettingValue.objects.filter(name="take.screens"):
            left = [name for name in row.value or () if name != screen.name]
            if not left:
                row.delete()
            elif left != row.value:
                row.value = left
                row.save(update_fields=["value"])
        screen.delete()


def _out(screen: OwnScreen) -> NamedScreenOut:
    return NamedScreenOut(
        name=screen.name,
        own=True,
        width_px=screen.width_px,
        height_px=screen.height_px,
        scale=screen.scale,
        touch=screen.touch,
    )
