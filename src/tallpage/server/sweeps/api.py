"""HTTP API of sweeps."""

from __future__ import annotations

from datetime import UTC, datetime

from django.http import HttpRequest, HttpResponseBase
from django.shortcuts import get_object_or_404
from ninja import File, Form, Router, Status, UploadedFile

from tallpage.core.sweep import Named, Namer, Pattern, list_of
from tallpage.server.outlets.models import Slot
from tallpage.server.people.guarding import person_of
from tallpage.server.shelf.arriving.usual import as_set, by_host
from tallpage.server.shelf.models import Capture
from tallpage.server.sweeps import deleting, export_folder, listing, planning, saving, scheduling
from tallpage.server.sweeps.list_schemas import ListIn, ListOut, NamesOut, PatternIn, SiteIn, SweepIn
from tallpage.server.sweeps.models import Comparison, Schedule, Sweep
from tallpage.server.sweeps.schemas import (
    ChangeOut,
    DoneOut,
    MarkIn,
    RetakeIn,
    RowOut,
    RowsOut,
    SavingIn,
    SavingOut,
    ScheduleIn,
    ScheduleOut,
    StopModeIn,
    SweepOut,
    TimesOut,
)
from tallpage.server.sweeps.statistics import Filter, count, pages_of, rows_of

router = Router(tags=["sweeps"])
_MOST_ROWS = 200
_MOST_SWEEPS = 50
_MOST_TO_LOOK_AT = 200


@router.post("/lists/text", response=ListOut, operation_id="list_text")
def list_text(request: HttpRequest, payload: ListIn) -> ListOut:
    """What a pasted text holds."""
    return ListOut.of(listing.list_pasted(payload.text))


@router.post("/lists/file", response=ListOut, operation_id="list_file")
def list_file(
    request: HttpRequest, list_file: File[UploadedFile], column: Form[int | None] = None
) -> ListOut:
    """What a dropped text, CSV or XLSX file holds, in its likeliest column or the one given."""
    return ListOut.of(listing.list_file(list_file.read(), list_file.name or "The file", column))


@router.post("/lists/site", response=ListOut, operation_id="list_site")
def list_site(request: HttpRequest, payload: SiteIn) -> ListOut:
    """The pages of a sitemap, or the links of a page."""
    return ListOut.of(listing.list_site(payload.address))


@router.post("/lists/names", response=NamesOut, operation_id="try_pattern")
def try_pattern(request: HttpRequest, payload: PatternIn) -> NamesOut:
    """Names that a pattern would give to some pages, were they taken now."""
    namer = Namer(Pattern(payload.pattern))
    pages = list_of(payload.found()).pages
    names = [
        namer.name(
            Named(
                address=page.address,
                title=page.title,
                screen=screen.as_screen(),
                taken_at=datetime.now(UTC),
                number=number,
                of=len(pages),
                width_px=screen.width_px * screen.scale,
                slot=slot,
            ).values(),
            "png",
        )
        for number, page in enumerate(pages, start=1)
        for screen in payload.screens
        for slot in payload.slot_names or [""]
    ]
    return NamesOut(names=names)


@router.get("/sweeps", response=list[SweepOut], operation_id="list_sweeps")
def list_sweeps(request: HttpRequest) -> list[SweepOut]:
    """The latest sweeps."""
    return [_out(sweep) for sweep in Sweep.objects.all()[:_MOST_SWEEPS]]


@router.post("/sweeps", response={201: SweepOut}, operation_id="start_sweep")
def start_sweep(request: HttpRequest, payload: SweepIn) -> Status[SweepOut]:
    """Start taking many pages."""
    sweep = planning.start_sweep(
        name=payload.name,
        found=payload.found(),
        screens=[screen.as_screen() for screen in payload.screens],
        settings=as_set(payload.settings, person_of(request)),
        host_settings=by_host(payload.settings, person_of(request)),
        pattern=payload.pattern,
        pace=payload.pace(),
        slots=list(Slot.objects.filter(pk__in=payload.slot_ids)),
        site=payload.site,
        left_out=payload.left_out,
    )
    return Status(201, _out(sweep))


@router.get("/sweeps/{sweep_id}", response=SweepOut, operation_id="get_sweep")
def get_sweep(request: HttpRequest, sweep_id: int) -> SweepOut:
    """One sweep and how far it is."""
    return _out(_sweep(sweep_id))


@router.delete("/sweeps/{sweep_id}", response={204: None}, operation_id="delete_sweep")
def delete_sweep(request: HttpRequest, sweep_id: int) -> Status[None]:
    """Delete a sweep that has ended; its captures can be put back on the shelf."""
    deleting.delete_sweep(_sweep(sweep_id))
    return Status(204, None)


@router.get("/sweeps/{sweep_id}/rows", response=RowsOut, operation_id="sweep_rows")
def sweep_rows(
    request: HttpRequest,
    sweep_id: int,
    offset: int = 0,
    limit: int = 50,
    kept: Filter = "all",
    words: str = "",
) -> RowsOut:
    """Pages with their shots, in the order of the list, ``limit`` (1–200) from ``offset`` on."""
    pages = pages_of(_sweep(sweep_id), kept, words)
    start = max(offset, 0)
    shown = pages[start : start + min(max(limit, 1), _MOST_ROWS)]
    return RowsOut(rows=[RowOut.of(page, shots) for page, shots in rows_of(shown)], total=pages.count())


@router.post("/sweeps/{sweep_id}/stop-mode", response=SweepOut, operation_id="set_stop_mode")
def set_stop_mode(request: HttpRequest, sweep_id: int, payload: StopModeIn) -> SweepOut:
    """Pause, go on, or stop."""
    return _out(planning.set_stop_mode(_sweep(sweep_id), Sweep.StopMode(payload.stop_mode)))


@router.post("/sweeps/{sweep_id}/again", response={201: SweepOut}, operation_id="sweep_again")
def sweep_again(request: HttpRequest, sweep_id: int) -> Status[SweepOut]:
    """Take the same pages once more, or those that their site lists now, as a new sweep."""
    sweep = _sweep(sweep_id)
    listed = scheduling.pages_now(sweep, scheduling.known_addresses(sweep))
    return Status(201, _out(planning.start_again(sweep, listed)))


@router.put("/sweeps/{sweep_id}/schedule", response=SweepOut, operation_id="set_schedule")
def set_schedule(request: HttpRequest, sweep_id: int, payload: ScheduleIn) -> SweepOut:
    """Take a sweep again at set times."""
    scheduling.set_schedule(_sweep(sweep_id), payload.cron, payload.time_zone)
    return _out(_sweep(sweep_id))


@router.delete("/sweeps/{sweep_id}/schedule", response=SweepOut, operation_id="end_schedule")
def end_schedule(request: HttpRequest, sweep_id: int) -> SweepOut:
    """Take a sweep no more by itself."""
    Schedule.objects.filter(sweep=_sweep(sweep_id)).delete()
    return _out(_sweep(sweep_id))


@router.post("/schedules/times", response=TimesOut, operation_id="try_schedule")
def try_schedule(request: HttpRequest, payload: ScheduleIn) -> TimesOut:
    """The next three times of a schedule."""
    now = datetime.now(UTC)
    return TimesOut(times=scheduling.next_times(payload.cron, payload.time_zone, after=now, count=3))


@router.get("/sweeps/shots/{shot_id}/change", response=ChangeOut, operation_id="shot_change")
def shot_change(request: HttpRequest, shot_id: int) -> ChangeOut:
    """What changed on a page since the last time."""
    return ChangeOut.of(get_object_or_404(Comparison.objects.select_related("before"), shot=shot_id))


@router.post("/sweeps/{sweep_id}/mark", response=DoneOut, operation_id="mark_shots")
def mark_shots(request: HttpRequest, sweep_id: int, payload: MarkIn) -> DoneOut:
    """Mark shots to keep, to retake or to drop."""
    return DoneOut(done=planning.mark(_sweep(sweep_id), payload.shot_ids, payload.word, was=payload.was))


@router.post("/sweeps/{sweep_id}/retake", response={202: DoneOut}, operation_id="retake_shots")
def retake_shots(request: HttpRequest, sweep_id: int, payload: RetakeIn) -> Status[DoneOut]:
    """Take some shots anew, or all that failed or are marked for it."""
    return Status(202, DoneOut(done=planning.retake(_sweep(sweep_id), payload.shot_ids, payload.settings)))


@router.post("/sweeps/{sweep_id}/folder", response={202: SweepOut}, operation_id="save_sweep")
def save_sweep(request: HttpRequest, sweep_id: int, payload: SavingIn) -> Status[SweepOut]:
    """Save everything that was taken into a folder of the server."""
    export_folder.order_saving(_sweep(sweep_id), payload.folder, only_kept=payload.only_kept)
    return Status(202, _out(_sweep(sweep_id)))


@router.get("/sweeps/{sweep_id}/zip", operation_id="sweep_zip", include_in_schema=False)
def sweep_zip(request: HttpRequest, sweep_id: int, only_kept: bool = False) -> HttpResponseBase:
    """Everything that was taken, with its names, in one ZIP."""
    return saving.zip_of(_sweep(sweep_id), only_kept=only_kept)


def _sweep(sweep_id: int) -> Sweep:
    return get_object_or_404(Sweep, pk=sweep_id)


def _out(sweep: Sweep) -> SweepOut:
    latest = sweep.savings.select_related("job").first()
    schedule = Schedule.objects.filter(sweep=sweep).select_related("job").first()
    return SweepOut(
        id=sweep.pk,
        name=sweep.name,
        stop_mode=sweep.stop_mode,  # type: ignore[arg-type]
        screens=sweep.screens,
        pattern=sweep.pattern,
        at_once=sweep.at_once,
        pause_ms=sweep.pause_ms,
        created_at=sweep.created_at,
        finished_at=sweep.finished_at,
        count=count(sweep),
        slots=[str(slot) for slot in sweep.slots.select_related("outlet")],
        settings=sweep.settings,
        site=sweep.site,
        problem=sweep.problem,
        previous_id=sweep.previous_id,
        previous_at=sweep.previous.created_at if sweep.previous else None,
        schedule=ScheduleOut.of(schedule) if schedule else None,
        saving=SavingOut.of(latest) if latest else None,
        to_look_at=sorted(
            Capture.objects.on_shelf()
            .filter(shot__sweep=sweep, cuts__needs_a_look=True)
            .values_list("pk", flat=True)
            .distinct()[:_MOST_TO_LOOK_AT]
        ),
    )
