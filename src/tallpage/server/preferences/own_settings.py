"""Settings that belong to no part of the work: where files go, and how things are shown."""

from __future__ import annotations

from tallpage.server.preferences import out_folder
from tallpage.server.preferences.catalogue import register_setting
from tallpage.server.preferences.kinds import choice

_UNITS = (("kB", "kB, of 1,000 bytes"), ("KiB", "KiB, of 1,024 bytes"))
_DATES = (
    ("en-GB", "English, day first"),
    ("en-US", "English, month first"),
    ("cs-CZ", "Čeština"),
    ("da-DK", "Dansk"),
    ("de-DE", "Deutsch"),
    ("es-ES", "Español"),
    ("fr-FR", "Français"),
    ("it-IT", "Italiano"),
    ("nl-NL", "Nederlands"),
    ("nb-NO", "Norsk"),
    ("pl-PL", "Polski"),
    ("pt-PT", "Português"),
    ("fi-FI", "Suomi"),
    ("sv-SE", "Svenska"),
    ("ja-JP", "日本語"),
)
_THEMES = (("day", "Day colours"), ("night", "Night colours"), ("computer", "As the computer"))


def register() -> None:
    """Have them known."""
    register_setting(out_folder.SETTING)
    register_setting(
        choice(
            "show.units",
            "On screen",
            "Sizes of files",
            "Sizes are written in this unit, and a limit typed without a unit is read in it.",
            _UNITS,
            variable="TALLPAGE_UNITS",
        )
    )
    register_setting(
        choice(
            "show.dates",
            "On screen",
            "Language of dates",
            "Days and hours are written in the way of this language; everything else stays English.",
            _DATES,
            variable="TALLPAGE_DATES",
        )
    )
    register_setting(
        choice(
            "show.theme",
            "On screen",
            "Colours",
            "The application is shown in these colours; pictures never change with them.",
            _THEMES,
            variable="TALLPAGE_THEME",
        )
    )
