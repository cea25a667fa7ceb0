"""Which settings there are. Each app says its own when it is made ready; the screen shows them by group."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Literal, get_args

from pydantic import TypeAdapter

from tallpage.core.errors import SettingError

Group = Literal["Taking pages", "After a page is taken", "Files", "On screen", "Keeping", "Mail"]
GROUPS: tuple[Group, ...] = get_args(Group)
"""In the order of the screen, which is the order of work."""
Kind = Literal[
    "choice", "number", "text", "secret", "screens", "take", "hosts", "formats", "fidelity", "routine"
]
"""How a setting is shown and changed."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Setting:
    """One setting: what it is called, what it does, what it may be, and what it usually is.

    ``check`` refuses what it cannot be. ``usual`` is asked each time, since it may come from how the server
    was started. A ``shared`` setting is the whole server's, any other each person's own; ``at_this_machine``
    is one that only somebody who sits there changes. A ``variable`` of the environment wins over both; one
    that is ``read_at_start`` was read by the server's own settings, and is what is usual then.
    """

    name: str
    group: Group
    words: str
    effect: str
    kind: Kind
    check: TypeAdapter[Any]
    usual: Callable[[], Any]
    shared: bool = False
    at_this_machine: bool = False
    variable: str = ""
    read_at_start: bool = False
    options: tuple[tuple[str, str], ...] = ()
    """Of a choice: each value with the words for it."""
    unit: str = ""
    least: int | None = None
    most: int | None = None


_SETTINGS: dict[str, Setting] = {}


def register_setting(setting: Setting) -> None:
    """Have a setting known. The same name twice is the same setting."""
    _SETTINGS[setting.name] = setting


def all_settings() -> list[Setting]:
    """Every setting, by group, within one in the order in which they were registered."""
    return sorted(_SETTINGS.values(), key=lambda row: GROUPS.index(row.group))


def setting_named(name: str) -> Setting:
    """The setting of a name.

    Raises:
        SettingError: there is none.
    """
    try:
        return _SETTINGS[name]
    except KeyError as error:
        raise SettingError(
            f"There is no setting “{name[:60]}”.",
            hint="It may be of a newer version. Nothing was changed.",
            code="setting_unknown",
        ) from error
