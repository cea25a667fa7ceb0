"""Starting a sweep, and changing what is wanted of it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace

from django.db import transaction
from django.db.models import Q

from tallpage.core.capture import Screen
from tallpage.core.errors import ChangedElsewhere, ListError
from tallpage.core.sweep import MOST_PAGES, Found, ListedPage, Pace, Pattern, list_of
from tallpage.server.jobs.queue import request_stop
from tallpage.server.outlets.models import Slot
from tallpage.server.shelf.models import Capture
from tallpage.server.shelf.routes.schemas import TakeSettings
from tallpage.server.sweeps.dispatch import wake_feeding
from tallpage.server.sweeps.models import FAILED, Comparison, Schedule, Shot, Sweep, SweepPage, plain_screen

_MOST_SCREENS = 6
_ROWS_AT_ONCE = 500
_KNOWN_CHARS = 255


def start_sweep(
    *,
    name: str,
    found: Sequence[Found],
    screens: Sequence[Screen],
    settings: TakeSettings,
    host_settings: Mapping[str, TakeSettings] | None = None,
    pattern: str,
    pace: Pace,
    slots: Sequence[Slot] = (),
    site: str = "",
    left_out: Sequence[str] = (),
) -> Sweep:
    """Store a sweep; the workers begin with it within a second.

    Pages of the hosts in ``host_settings`` are taken so instead. ``site`` is the sitemap or page that gave
    the list, ``left_out`` what of it is not wanted.

    Raises:
        ListError: no page, too many, or a pattern that cannot be filled; nothing is stored.
        PageError, AddressError: it cannot be taken as asked; nothing is stored.
    """
    pages = list_of(found)
    if not pages.pages:
        raise ListError("There is no page in the list.", code="list_empty")
    if pages.left_over:
        raise ListError(
            f"The list holds over {MOST_PAGES:,} pages.", hint="Divide it.", code="list_too_large"
        )
    distinct = list(dict.fromkeys(screens))
    if not 1 <= len(distinct) <= _MOST_SCREENS:
        raise ListError(
            f"{len(distinct)} screens were chosen.",
            hint=f"Choose 1 to {_MOST_SCREENS}.",
            code="screens_count",
        )
    settings.as_request(pages.pages[0].address, distinct[0])  # checked before anything is stored
    with transaction.atomic():
        sweep = Sweep.objects.create(
            name=name.strip() or f"{len(pages.pages)} pages of {pages.pages[0].host}",
            screens=[plain_screen(screen) for screen in distinct],
            settings=settings.model_dump(),
            host_settings={host: row.model_dump() for host, row in (host_settings or {}).items()},
            pattern=Pattern(pattern).text,
            at_once=pace.at_once,
            pause_ms=round(pace.pause_s * 1_000),
            site=site,
            left_out=list(left_out),
            bad_lines=[{"line": row.line, "text": row.text, "sentence": row.sentence} for row in pages.bad],
        )
        sweep.slots.set(slots)
        rows = SweepPage.objects.bulk_create(
            [_row(sweep, number, page) for number, page in enumerate(pages.pages, start=1)],
            batch_size=_ROWS_AT_ONCE,
        )
        Shot.objects.bulk_create(
            [Shot(sweep=sweep, page=row, screen_at=at) for row in rows for at in range(len(distinct))],
            batch_size=_ROWS_AT_ONCE,
        )
    return sweep


def _row(sweep: Sweep, number: int, page: ListedPage, *, gone: bool = False) -> SweepPage:
    return SweepPage(
        sweep=sweep,
        number=number,
        line=page.line,
        address=page.address,
        title=page.title,
        host=page.host[:_KNOWN_CHARS],
        section=page.section[:_KNOWN_CHARS],
        gone=gone,
    )


def set_stop_mode(sweep: Sweep, stop_mode: Sweep.StopMode) -> Sweep:
    """Pause, go on or stop. What is under way comes to its end when pausing, and is ended by a stop."""
    with transaction.atomic():
        sweep.stop_mode = stop_mode
        sweep.finished_at, sweep.problem = None, ""
        sweep.save(update_fields=["stop_mode", "finished_at", "problem"])
        if stop_mode == Sweep.StopMode.STOP:
            for shot in sweep.shots.under_way().select_related("capture__job"):
                if shot.capture:
                    request_stop(shot.capture.job)
    return sweep


def start_again(sweep: Sweep, listed: Sequence[Found] | None = None) -> Sweep:
    """A new sweep of the same pages, taken the same way, to be compared with this one.

    With ``listed``, what the site lists now, pages that have come join where pages were wanted
    before, and those that have gone are noted. A schedule goes along.
    """
    known = list(sweep.pages.filter(gone=False))
    found = [Found(text=page.address, line=page.line, title=page.title) for page in known]
    gone: list[Found] = []
    if listed is not None:
        found, gone = _still_wanted(sweep, known, found, listed)
    with transaction.atomic():
        again = start_sweep(
            name=sweep.name,
            found=found,
            screens=sweep.core_screens(),
            settings=TakeSettings(**sweep.settings),
            host_settings={host: TakeSettings(**row) for host, row in sweep.host_settings.items()},
            pattern=sweep.pattern,
            pace=sweep.pace,
            slots=list(sweep.slots.all()),
            site=sweep.site,
            left_out=sweep.left_out,
        )
        again.previous = sweep
        again.save(update_fields=["previous"])
        _note_gone(again, gone, from_number=len(found) + 1)
        Schedule.objects.filter(sweep=sweep).update(sweep=again)
    return again


def _still_wanted(
    sweep: Sweep, known: Sequence[SweepPage], found: Sequence[Found], listed: Sequence[Found]
) -> tuple[list[Found], list[Found]]:
    """``(pages to take, pages gone)``, the first in the site's order."""
    before = {page.address for page in known}
    places = {(page.host, page.section) for page in known}
    unwanted = set(sweep.left_out)
    now = [page for page in list_of(listed).pages if page.address not in unwanted]
    wanted = [page for page in now if page.address in before or (page.host, page.section) in places]
    here = {page.address for page in wanted}
    titled = sweep.shots.exclude(capture__title="").values_list("page__address", "capture__title")
    titles = {address: title for address, title in titled if title}
    return (
        [Found(text=page.address, line=page.line, title=page.title) for page in wanted],
        [replace(page, title=titles.get(page.text, page.title)) for page in found if page.text not in here],
    )


def _note_gone(sweep: Sweep, gone: Sequence[Found], *, from_number: int) -> None:
    pages = list_of(gone).pages
    SweepPage.objects.bulk_create(
        [_row(sweep, number, page, gone=True) for number, page in enumerate(pages, start=from_number)],
        batch_size=_ROWS_AT_ONCE,
    )


def retake(sweep: Sweep, shot_ids: Sequence[int] | None, changed: TakeSettings | None = None) -> int:
    """Take shots anew, all that failed or were marked for it when none is named; returns how many.

    They wait again like the others, so that no host is pressed; a sweep that had come to its end
    goes on. What was taken before leaves the shelf, from where it can be restored.
    """
    ended = sweep.finished_at is not None and not sweep.shots.waiting().exists()
    shots = sweep.shots.select_related("capture__job").filter(dropped=False, capture__isnull=False)
    wanted = FAILED | Q(mark=Shot.Mark.RETAKE) if shot_ids is None else Q(pk__in=shot_ids)
    with transaction.atomic():
        ready = [shot for shot in shots.filter(wanted) if shot.capture and not shot.capture.job.pending]
        Capture.objects.filter(pk__in=[shot.capture_id for shot in ready]).delete_from_shelf()
        Comparison.objects.filter(shot__in=ready).delete()
        for shot in ready:
            shot.replaced = shot.capture if shot.capture and shot.capture.storage_key else shot.replaced
            shot.capture, shot.mark, shot.followed_up = None, Shot.Mark.NONE, False
            shot.settings = changed.model_dump() if changed else shot.settings
            shot.save()
        if ready:
            stop_mode = Sweep.StopMode.GO_ON if ended else sweep.stop_mode
            Sweep.objects.filter(pk=sweep.pk).update(finished_at=None, stop_mode=stop_mode)
            wake_feeding()
    return len(ready)


@transaction.atomic
def mark(sweep: Sweep, shot_ids: Sequence[int], word: str, *, was: Sequence[str] | None = None) -> int:
    """Mark shots ``keep`` or ``retake``, ``drop`` them, or with an empty word neither; returns how many.

    ``was`` is the word that each of them has as far as the person knows.

    Raises:
        ChangedElsewhere: one was marked otherwise meanwhile; nothing is written.
    """
    chosen = sweep.shots.filter(pk__in=shot_ids)
    if was is not None:
        seen = dict(zip(shot_ids, was, strict=False))
        others = sum(_word_of(shot) != seen.get(shot.pk, _word_of(shot)) for shot in chosen)
        if others:
            what = "This picture was" if len(shot_ids) == 1 else f"{others} of these pictures were"
            raise ChangedElsewhere(
                f"{what} marked in another window meanwhile.",
                hint="The newer marks are shown; mark again what you want otherwise.",
            )
    if word == "drop":
        return chosen.update(dropped=True, mark=Shot.Mark.NONE)
    if chosen.filter(capture=None, dropped=True).exists():
        Sweep.objects.filter(pk=sweep.pk).update(finished_at=None)  # it is to be taken after all
        wake_feeding()
    return chosen.update(dropped=False, mark=word)


def _word_of(shot: Shot) -> str:
    return "drop" if shot.dropped else str(shot.mark)
