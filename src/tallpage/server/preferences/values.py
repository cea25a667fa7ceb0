"""What settings are now: what the environment says, else what was set, else as usual."""

from __future__ import annotations

import os
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, Literal

from django.conf import settings as server_settings
from django.db import transaction
from pydantic import ValidationError

from tallpage.core.errors import SettingError, StorageError
from tallpage.server.preferences.catalogue import Setting, all_settings, setting_named
from tallpage.server.preferences.models import SettingValue
from tallpage.server.signins.encryption import seal, unseal

Origin = Literal["usual", "set", "environment"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Standing:
    """What a setting is for somebody, and what makes it so."""

    setting: Setting
    value: Any
    origin: Origin


def value_of(name: str, person: str = "") -> Any:
    """What a setting is for a person; of a shared one it does not matter for whom.

    Raises:
        SettingError: the variable of the environment holds something that it cannot be.
        StorageError: it is secret and cannot be opened with the key that is there.
    """
    setting = setting_named(name)
    row = SettingValue.objects.filter(name=name, person="" if setting.shared else person).first()
    return _standing(setting, row).value


def standings(person: str = "") -> list[Standing]:
    """Every setting as it is for a person.

    What cannot be read any more is told as usual.
    """
    rows = {
        (row.person, row.name): row for row in SettingValue.objects.filter(person__in=sorted({person, ""}))
    }
    found = []
    for setting in all_settings():
        row = rows.get(("" if setting.shared else person, setting.name))
        try:
            found.append(_standing(setting, row))
        except (SettingError, StorageError):
            origin: Origin = "environment" if _said(setting) else "usual"
            found.append(Standing(setting=setting, value=setting.usual(), origin=origin))
    return found


def change(values: Mapping[str, Any], person: str = "", *, may_share: bool = True) -> None:
    """Set some settings, all or none; None sets one back to what is usual.

    Raises:
        SettingError: one is not known, cannot be that, is set by the environment, or is the server's and
            this person may not change it. Nothing was changed.
    """
    checked = {name: _checked(setting_named(name), value, may_share) for name, value in values.items()}
    with transaction.atomic():
        for name, value in checked.items():
            setting = setting_named(name)
            whose = "" if setting.shared else person
            if value is None:
                SettingValue.objects.filter(name=name, person=whose).delete()
                continue
            kept = (
                {"value": None, "sealed": seal({"value": value})}
                if setting.kind == "secret"
                else {"value": value, "sealed": None}
            )
            SettingValue.objects.update_or_create(name=name, person=whose, defaults=kept)


def why_locked(setting: Setting, *, may_share: bool) -> str:
    """Why somebody cannot change a setting on a screen, in a sentence; empty where they can."""
    if _said(setting):
        return f"Set by the variable {setting.variable}."
    if setting.at_this_machine and server_settings.ACCOUNTS:
        return f"Whoever starts the server sets it, by the variable {setting.variable}."
    return "A producer changes it." if setting.shared and not may_share else ""


def _standing(setting: Setting, row: SettingValue | None) -> Standing:
    said = _said(setting)
    if said:
        value = setting.usual() if setting.read_at_start else _from_environment(setting, said)
        return Standing(setting=setting, value=value, origin="environment")
    locked = setting.at_this_machine and server_settings.ACCOUNTS
    if row is None or locked:
        return Standing(setting=setting, value=setting.usual(), origin="usual")
    value = unseal(bytes(row.sealed))["value"] if row.sealed else row.value
    return Standing(setting=setting, value=value, origin="set")


def _said(setting: Setting) -> str:
    return os.environ.get(setting.variable, "").strip() if setting.variable else ""


def _from_environment(setting: Setting, said: str) -> Any:
    try:
        value = setting.check.validate_python(said)
    except ValidationError as error:
        raise SettingError(
            f"The variable {setting.variable} is {said[:60]!r}: {_first(error)}.",
            hint="Whoever starts Tall Page gives it another value, or none.",
            code="setting_environment",
        ) from error
    return setting.check.dump_python(value, mode="json", exclude_unset=True)


def _checked(setting: Setting, value: Any, may_share: bool) -> Any:
    """A value as it is stored; None for the usual one."""
    locked = why_locked(setting, may_share=may_share)
    if locked:
        raise SettingError(
            f"“{setting.words}” cannot be changed here. {locked}",
            hint="Nothing was changed.",
            code="setting_locked",
        )
    if value is None:
        return None
    try:
        checked = setting.check.dump_python(
            setting.check.validate_python(value), mode="json", exclude_unset=True
        )
    except ValidationError as error:
        raise SettingError(
            f"“{setting.words}” cannot be that: {_first(error)}.",
            hint="Nothing was changed.",
            code="setting_impossible",
        ) from error
    return None if checked == setting.usual() else checked


def _first(error: ValidationError) -> str:
    told = error.errors(include_url=False)[0]
    where = ".".join(str(part) for part in told["loc"])
    words = str(told["msg"]).removeprefix("Value error, ")
    return f"{where}: {words}" if where else words[0].lower() + words[1:]
