"""Settings of taking pages, and of how long the shelf keeps what was deleted."""

from __future__ import annotations

from typing import Annotated

from pydantic import AfterValidator, Field, TypeAdapter

from tallpage.core.capture import PRESETS
from tallpage.server.preferences.catalogue import Setting, register_setting
from tallpage.server.preferences.kinds import number
from tallpage.server.shelf.arriving.screens import all_screens
from tallpage.server.shelf.routes.schemas import TakeSettings
from tallpage.server.signins.keeping import host_key

_MOST_HOSTS = 500
DELETED_KEPT_DAYS = 30


def register() -> None:
    """Have them known."""
    register_setting(
        Setting(
            name="take.screens",
            group="Taking pages",
            words="Screens",
            effect="Pages are taken on these screens until you choose others beside the address.",
            kind="screens",
            check=TypeAdapter(
                Annotated[
                    list[Annotated[str, Field(min_length=1, max_length=40)]],
                    Field(min_length=1, max_length=20),
                    AfterValidator(_known),
                ]
            ),
            usual=lambda: ["desk"],
        )
    )
    register_setting(
        Setting(
            name="take.usual",
            group="Taking pages",
            words="How pages are taken",
            effect="Every page is taken so, unless you say otherwise beside its address.",
            kind="take",
            check=TypeAdapter(Annotated[TakeSettings, AfterValidator(_possible)]),
            usual=dict,
        )
    )
    register_setting(
        Setting(
            name="take.hosts",
            group="Taking pages",
            words="Pages of single hosts",
            effect="Pages of these hosts are taken otherwise than usual, by hand and in sweeps.",
            kind="hosts",
            check=TypeAdapter(
                Annotated[
                    dict[str, Annotated[TakeSettings, AfterValidator(_possible)]],
                    Field(max_length=_MOST_HOSTS),
                    AfterValidator(_by_host),
                ]
            ),
            usual=dict,
        )
    )
    register_setting(
        number(
            "keep.deleted_days",
            "Keeping",
            "What was deleted",
            "Deleted captures can be put back for so long; then they are cleared from the disk.",
            usual=lambda: DELETED_KEPT_DAYS,
            least=1,
            most=3_650,
            unit="days",
            variable="TALLPAGE_KEEP_DELETED_DAYS",
        )
    )


def _known(names: list[str]) -> list[str]:
    known = {screen.name for screen in all_screens()}
    for name in names:
        if name not in known:
            raise ValueError(f"there is no screen “{name}” here")
    return names


def _possible(settings: TakeSettings) -> TakeSettings:
    settings.as_request("https://skerrin-ferries.example/", PRESETS["desk"])
    return settings


def _by_host(rows: dict[str, TakeSettings]) -> dict[str, TakeSettings]:
    return {host_key(host): settings for host, settings in rows.items()}
