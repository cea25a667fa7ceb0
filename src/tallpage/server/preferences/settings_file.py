"""Settings as a file: what was set otherwise than usual, to be brought to another server or kept."""

from __future__ import annotations

import json
from collections.abc import Mapping
from typing import Any

from django.db import transaction
from pydantic import BaseModel, ConfigDict, Field, ValidationError

from tallpage.core.errors import SettingError
from tallpage.server.people.models import OwnSettings
from tallpage.server.people.own_keys import OwnKeys
from tallpage.server.preferences.values import change, standings

KIND = "tall page settings"
VERSION = 1
MOST_BYTES = 1_000_000


class SettingsFile(BaseModel):
    """What is in the file. ``own`` is a person's, ``server`` the whole server's; keys are by action."""

    model_config = ConfigDict(extra="forbid")

    kind: str
    version: int
    own: dict[str, Any] = Field(default_factory=dict)
    server: dict[str, Any] = Field(default_factory=dict)
    keys: OwnKeys = Field(default_factory=dict)


def written(person: str, *, may_share: bool) -> SettingsFile:
    """What a person has set, and with ``may_share`` what was set of the server, but for what is secret."""
    own: dict[str, Any] = {}
    server: dict[str, Any] = {}
    for row in standings(person):
        if row.origin == "set" and row.setting.kind != "secret":
            (server if row.setting.shared else own)[row.setting.name] = row.value
    kept = OwnSettings.objects.filter(person=person).first()
    return SettingsFile(
        kind=KIND,
        version=VERSION,
        own=own,
        server=server if may_share else {},
        keys=kept.keys if kept else {},
    )


def read(data: bytes) -> SettingsFile:
    """The file that the bytes are.

    Raises:
        SettingError: they are none, or one of a newer version.
    """
    try:
        told = json.loads(data)
        if isinstance(told, Mapping) and isinstance(told.get("version"), int) and told["version"] > VERSION:
            raise SettingError(
                f"The file is of version {told['version']}; this Tall Page reads up to {VERSION}.",
                hint="Bring Tall Page up to date. Nothing was changed.",
                code="settings_newer",
            )
        found = SettingsFile.model_validate(told)
    except (ValueError, RecursionError) as error:
        where = ".".join(map(str, error.errors()[0]["loc"])) if isinstance(error, ValidationError) else ""
        raise SettingError(
            f"The file holds no settings{f': {where} cannot be that' if where else ''}.",
            hint="Choose a file that was saved under Settings. Nothing was changed.",
            code="settings_file",
        ) from error
    if found.kind != KIND:
        raise SettingError(
            "The file holds no settings.",
            hint="Choose a file that was saved under Settings. Nothing was changed.",
            code="settings_file",
        )
    return found


def bring_in(file: SettingsFile, person: str, *, may_share: bool) -> None:
    """Set what a file says; what it does not say stays as it is. All or nothing.

    Raises:
        SettingError: something of it cannot be set here.
    """
    with transaction.atomic():
        change({**file.own, **file.server}, person, may_share=may_share)
        if file.keys:
            OwnSettings.objects.update_or_create(person=person, defaults={"keys": file.keys})
