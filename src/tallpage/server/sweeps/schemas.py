"""Sweeps on the wire."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from ninja import Field, Schema

from tallpage.core.changes import NEARLY_BLANK
from tallpage.server.jobs.schemas import JobOut
from tallpage.server.preferences.out_folder import out_folder
from tallpage.server.shelf.routes.schemas import ScreenOut, TakeSettings
from tallpage.server.sweeps.models import ERROR_STATUS, Comparison, Saving, Schedule, Shot, SweepPage


class CountOut(Schema):
    """Shots of a sweep by what has become of them, and the pace of the last three minutes."""

    all: int
    taken: int
    failed: int
    left: int
    """Wanted, and not there yet; those under way as well."""
    under_way: int
    to_look: int
    """Taken, but not looked at yet: not known whether blank or changed."""
    a_minute: float | None
    """Pictures a minute; None while too little has happened."""
    seconds_left: int | None
    on_now: list[str]
    """Addresses that are being taken."""
    by_filter: dict[str, int]


class ScheduleIn(Schema):
    """When to take a sweep again, in the clock of a time zone like Europe/London."""

    cron: str = Field(max_length=100)
    time_zone: str = Field(max_length=60)


class ScheduleOut(Schema):
    """When a sweep is taken again; ``problem`` is why the last time did not come to be."""

    cron: str
    time_zone: str
    next_at: datetime
    problem: str

    @classmethod
    def of(cls, schedule: Schedule) -> ScheduleOut:
        """A schedule on the wire."""
        error = (schedule.job.error or {}) if schedule.job else {}
        return cls(
            cron=schedule.cron,
            time_zone=schedule.time_zone,
            next_at=schedule.next_at,
            problem=error.get("sentence", ""),
        )


class TimesOut(Schema):
    """The next times of a schedule."""

    times: list[datetime]


class SavingIn(Schema):
    """Name of the folder to save into; without one, the sweep's name and the day."""

    folder: str = Field(default="", max_length=200)
    only_kept: bool = False


class SavingOut(Schema):
    """A saving into a folder of the server, done or under way."""

    folder: str
    """The whole path."""
    job: JobOut

    @classmethod
    def of(cls, saving: Saving) -> SavingOut:
        """A saving on the wire."""
        return cls(folder=str(out_folder() / saving.folder), job=JobOut.from_orm(saving.job))


class SweepOut(Schema):
    """A sweep as its list shows it."""

    id: int
    name: str
    stop_mode: Literal["go_on", "pause", "stop"]
    screens: list[ScreenOut]
    pattern: str
    at_once: int
    pause_ms: int
    created_at: datetime
    finished_at: datetime | None
    count: CountOut
    slots: list[str]
    settings: TakeSettings
    site: str
    problem: str
    """What keeps it from going on, or from being taken again."""
    previous_id: int | None
    """The sweep with which this one is compared."""
    previous_at: datetime | None
    """When that was begun."""
    schedule: ScheduleOut | None
    saving: SavingOut | None
    """The latest."""
    to_look_at: list[int]
    """Captures with a cut of the time before, part of which is in doubt or has no place."""


class ShotOut(Schema):
    """One page on one screen; ``capture_id`` is None while it waits."""

    id: int
    screen_at: int
    capture_id: int | None
    picture_key: str
    width_px: int
    height_px: int
    status: int | None
    warnings: list[str]
    job: JobOut | None
    mark: Literal["", "keep", "retake"]
    dropped: bool
    change: Literal["", "unchanged", "changed", "new", "gone"]
    changed_share: float
    blank: bool
    whole: bool

    @classmethod
    def of(cls, shot: Shot) -> ShotOut:
        """A shot on the wire."""
        capture = shot.capture
        comparison = getattr(shot, "comparison", None)
        warnings = list(capture.warnings) if capture else []
        if capture and capture.status is not None and capture.status >= ERROR_STATUS:
            warnings.insert(0, f"The server answered {capture.status}.")
        if capture and capture.truncated:
            warnings.append("The page was cut off.")
        return cls(
            id=shot.pk,
            screen_at=shot.screen_at,
            capture_id=capture.pk if capture else None,
            picture_key=capture.storage_key if capture else "",
            width_px=capture.width_px if capture else 0,
            height_px=capture.height_px if capture else 0,
            status=capture.status if capture else None,
            warnings=warnings,
            job=JobOut.from_orm(capture.job) if capture else None,
            mark=shot.mark,  # type: ignore[arg-type]
            dropped=shot.dropped,
            change=comparison.change if comparison else "",
            changed_share=comparison.changed_share if comparison else 0,
            blank=bool(comparison and comparison.commonest_share >= NEARLY_BLANK),
            whole=capture.whole if capture else True,
        )


class RowOut(Schema):
    """A page of a sweep with a shot for each screen."""

    number: int
    address: str
    title: str
    section: str
    gone: bool
    shots: list[ShotOut]

    @classmethod
    def of(cls, page: SweepPage, shots: list[Shot]) -> RowOut:
        """A page on the wire; its own title goes before what the list called it."""
        own = next((shot.capture.title for shot in shots if shot.capture and shot.capture.title), "")
        return cls(
            number=page.number,
            address=page.address,
            title=own or page.title,
            section=page.section,
            gone=page.gone,
            shots=[ShotOut.of(shot) for shot in shots],
        )


class BoxOut(Schema):
    """A rectangle in page pixels."""

    x_px: int
    y_px: int
    width_px: int
    height_px: int


class StretchOut(Schema):
    """A piece of the page that changed; null where there is nothing of it."""

    before: BoxOut | None
    now: BoxOut | None


class ChangeOut(Schema):
    """What changed since the last time, and the capture of then."""

    change: Literal["", "unchanged", "changed", "new", "gone"]
    changed_share: float
    before_id: int | None
    before_key: str
    before_width_px: int
    before_height_px: int
    before_taken_at: datetime | None
    stretches: list[StretchOut]
    added: list[str]
    removed: list[str]

    @classmethod
    def of(cls, comparison: Comparison) -> ChangeOut:
        """A comparison on the wire."""
        before = comparison.before
        return cls(
            change=comparison.change,  # type: ignore[arg-type]
            changed_share=comparison.changed_share,
            before_id=before.pk if before else None,
            before_key=before.storage_key if before else "",
            before_width_px=before.width_px if before else 0,
            before_height_px=before.height_px if before else 0,
            before_taken_at=before.taken_at if before else None,
            stretches=comparison.stretches,
            added=comparison.added,
            removed=comparison.removed,
        )


class RowsOut(Schema):
    """Some of the pages that a filter keeps, of how many."""

    rows: list[RowOut]
    total: int


class StopModeIn(Schema):
    """What is wanted of a sweep."""

    stop_mode: Literal["go_on", "pause", "stop"]


MarkWord = Literal["keep", "retake", "drop", ""]


class MarkIn(Schema):
    """A word on some shots. With ``was``, only if each still has the word that the person saw."""

    shot_ids: list[int]
    word: MarkWord
    was: list[MarkWord] | None = None


class RetakeIn(Schema):
    """Shots to take anew: those named, or all that failed or are marked. ``settings`` changes how."""

    shot_ids: list[int] | None = None
    settings: TakeSettings | None = None


class DoneOut(Schema):
    """How many it was done to."""

    done: int
