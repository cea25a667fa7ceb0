"""HTTP API of the settings."""

from __future__ import annotations

from typing import Annotated, Any
from urllib.parse import urlsplit, urlunsplit

from django.http import HttpRequest, HttpResponse
from ninja import Field, File, Router, Schema, UploadedFile

from tallpage.core.errors import SettingError
from tallpage.server.people.guarding import person_of, role_here
from tallpage.server.preferences import settings_file
from tallpage.server.preferences.catalogue import Group, Kind
from tallpage.server.preferences.started_with import started_with
from tallpage.server.preferences.values import Origin, Standing, change, standings, why_locked

router = Router(tags=["settings"])
_HIDDEN = "•••"


class OptionOut(Schema):
    """One thing that a setting can be, and the words for it."""

    value: str
    words: str


class SettingOut(Schema):
    """A setting as it is for whoever asks. Where they cannot change it, ``locked`` says why."""

    name: str
    group: Group
    words: str
    effect: str
    kind: Kind
    value: Any
    usual: Any
    origin: Origin
    shared: bool
    locked: str
    variable: str
    options: list[OptionOut]
    unit: str
    least: int | None
    most: int | None

    @classmethod
    def of(cls, row: Standing, *, may_share: bool) -> SettingOut:
        """A setting; of what is secret, that it is there."""
        setting = row.setting
        plain = {name: getattr(setting, name) for name in ("name", "group", "words", "effect", "kind")}
        limits = {name: getattr(setting, name) for name in ("shared", "variable", "unit", "least", "most")}
        secret = setting.kind == "secret"
        return cls(
            **plain,
            **limits,
            value=_without_password(row.value) if secret else row.value,
            usual=_without_password(setting.usual()) if secret else setting.usual(),
            origin=row.origin,
            locked=why_locked(setting, may_share=may_share),
            options=[OptionOut(value=value, words=words) for value, words in setting.options],
        )


class StartedWithOut(Schema):
    """Something that whoever starts the server says."""

    words: str
    variable: str
    value: str


class SettingsOut(Schema):
    """Every setting, and for producers what the server was started with."""

    settings: list[SettingOut]
    started_with: list[StartedWithOut]


class SettingsIn(Schema):
    """New values by name; null sets one back to what is usual."""

    values: Annotated[dict[str, Any], Field(max_length=100)]


@router.get("/settings", response=SettingsOut, operation_id="read_settings")
def get_settings(request: HttpRequest) -> SettingsOut:
    """Every setting as it is for whoever asks."""
    may_share = role_here(request) == "producer"
    return SettingsOut(
        settings=[SettingOut.of(row, may_share=may_share) for row in standings(person_of(request))],
        started_with=[StartedWithOut(**row) for row in started_with()] if may_share else [],
    )


@router.post("/settings", response=SettingsOut, operation_id="change_settings")
def post_settings(request: HttpRequest, payload: SettingsIn) -> SettingsOut:
    """Change some settings, all or none. Those of the whole server are changed by producers."""
    change(payload.values, person_of(request), may_share=role_here(request) == "producer")
    return get_settings(request)


@router.get("/settings/file", operation_id="save_settings_file")
def get_file(request: HttpRequest) -> HttpResponse:
    """What was set otherwise than usual, as a file; what is secret is not in it."""
    file = settings_file.written(person_of(request), may_share=role_here(request) == "producer")
    return HttpResponse(
        file.model_dump_json(indent=2),
        content_type="application/json",
        headers={"Content-Disposition": 'attachment; filename="tall-page-settings.json"'},
    )


@router.post("/settings/file", response=SettingsOut, operation_id="open_settings_file")
def post_file(request: HttpRequest, file: File[UploadedFile]) -> SettingsOut:
    """Set what a file says; what it does not say stays as it is."""
    if (file.size or 0) > settings_file.MOST_BYTES:
        raise SettingError("The file has over 1 MB.", hint="Nothing was changed.", code="settings_file")
    found = settings_file.read(file.read())
    settings_file.bring_in(found, person_of(request), may_share=role_here(request) == "producer")
    return get_settings(request)


def _without_password(address: str) -> str:
    """An address that is shown: that it has a password, and not which."""
    try:
        parts = urlsplit(address)
        if parts.password is None:
            return address
    except ValueError:
        return _HIDDEN
    place = parts.netloc.rpartition("@")[2]
    return urlunsplit(parts._replace(netloc=f"{parts.username}:{_HIDDEN}@{place}"))
