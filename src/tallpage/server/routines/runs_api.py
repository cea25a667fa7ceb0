"""HTTP API of runs: begun, watched, paused, made again; and of watched folders."""

from __future__ import annotations

from django.db.models import Case, IntegerField, Prefetch, Q, QuerySet, Value, When
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router, Status

from tallpage.core.render import step_view
from tallpage.server.outlets.models import Output
from tallpage.server.people.guarding import person_of
from tallpage.server.routines.applying import LOOK, LOOK_WIDTH_PX, width_of
from tallpage.server.routines.models import Routine, Run, RunItem, WatchedFolder
from tallpage.server.routines.run_schemas import (
    RetriedOut,
    RunIn,
    RunItemOut,
    RunItemsOut,
    RunModeIn,
    RunOut,
    WatchedFolderIn,
    WatchedFolderOut,
)
from tallpage.server.routines.runs import counts_of, retry_failed, run_again, set_stop_mode, start_run
from tallpage.server.routines.watching import folder_of, watch_folder
from tallpage.server.shelf.models import Cut
from tallpage.server.shelf.showing.views import derived
from tallpage.server.storage import view_file
from tallpage.server.sweeps.models import Sweep

router = Router(tags=["routines"])
_MOST_RUNS = 100
_ITEMS_AT_ONCE = 60
_NEEDS_A_LOOK = (
    Q(state__in=(RunItem.State.FAILED, RunItem.State.SKIPPED))
    | ~Q(warnings=[])
    | Q(state=RunItem.State.DONE, outputs__met=False)
)


@router.post("/routines/{int:routine_id}/runs", response={202: RunOut}, operation_id="start_run")
def post_run(request: HttpRequest, routine_id: int, payload: RunIn) -> Status[RunOut]:
    """Run a routine over captures, addresses and the pages of a sweep; or try it on three of them."""
    run = start_run(
        get_object_or_404(Routine, pk=routine_id),
        captures=payload.captures,
        addresses=payload.addresses,
        sweep=get_object_or_404(Sweep, pk=payload.sweep_id) if payload.sweep_id else None,
        values=payload.values,
        trial=payload.trial,
        person=person_of(request),
    )
    return Status(202, _told(run))


@router.get("/runs", response=list[RunOut], operation_id="list_runs")
def list_runs(request: HttpRequest, routine: int | None = None) -> list[RunOut]:
    """The latest runs, of all routines or of one; trials are left out."""
    found = _runs().filter(trial=False)
    if routine is not None:
        found = found.filter(version__routine=routine)
    runs = list(found[:_MOST_RUNS])
    counts = counts_of(runs)
    return [RunOut.of(run, counts[run.pk]) for run in runs]


@router.get("/runs/{int:run_id}", response=RunOut, operation_id="read_run")
def get_run(request: HttpRequest, run_id: int) -> RunOut:
    """A run, and how far it is."""
    return _told(_run(run_id))


@router.get("/runs/{int:run_id}/items", response=RunItemsOut, operation_id="list_run_items")
def list_items(request: HttpRequest, run_id: int, skip: int = 0) -> RunItemsOut:
    """Items of a run: those that need a look, then the others in their order."""
    run = _run(run_id)
    looked_at = RunItem.objects.filter(_NEEDS_A_LOOK, run=run).values("pk")
    items = run.items.annotate(
        behind=Case(When(pk__in=looked_at, then=Value(0)), default=Value(1), output_field=IntegerField())
    )
    made = Output.objects.select_related("job").prefetch_related("files").order_by("pk")
    found = (
        items.select_related("cut", "replaces__cut", "replaces__run__version")
        .prefetch_related(Prefetch("outputs", made), Prefetch("replaces__outputs", made))
        .order_by("behind", "number")
    )
    rows = [RunItemOut.of(row) for row in found[max(0, skip) : max(0, skip) + _ITEMS_AT_ONCE]]
    return RunItemsOut(items=rows, total=run.items.count())


@router.get("/runs/{int:run_id}/outputs", response=list[int], operation_id="list_run_outputs")
def list_outputs(request: HttpRequest, run_id: int) -> list[int]:
    """The rows of ledgers that a run made, in its order: to be handed over as one package."""
    found = Output.objects.filter(run_items__run=_run(run_id), files__isnull=False)
    ordered = found.order_by("run_items__number", "pk").values_list("pk", flat=True)
    return list(dict.fromkeys(ordered))


@router.put("/runs/{int:run_id}/mode", response=RunOut, operation_id="set_run_mode")
def put_mode(request: HttpRequest, run_id: int, payload: RunModeIn) -> RunOut:
    """Pause a run, go on with it, or stop it."""
    return _told(set_stop_mode(_run(run_id), Run.StopMode(payload.mode)))


@router.post("/runs/{int:run_id}/retry", response=RetriedOut, operation_id="retry_run")
def post_retry(request: HttpRequest, run_id: int) -> RetriedOut:
    """Try what failed, was stopped or left out once more."""
    return RetriedOut(again=retry_failed(_run(run_id)))


@router.post("/runs/{int:run_id}/again", response={202: RunOut}, operation_id="run_again")
def post_again(request: HttpRequest, run_id: int) -> Status[RunOut]:
    """Run the newest version over the same pictures; it replaces what this one made."""
    return Status(202, _told(run_again(_run(run_id), person=person_of(request))))


@router.get("/runs/items/{int:item_id}/look", operation_id="run_item_look", include_in_schema=False)
def get_look(request: HttpRequest, item_id: int, key: str = "") -> HttpResponse:
    """A small picture of what came of an item."""
    item = get_object_or_404(RunItem.objects.select_related("run__version"), pk=item_id)
    if item.look:
        path = view_file(item.look, LOOK)
        if not path.exists():
            raise Http404
        return _picture(path.read_bytes())
    if item.cut_id is None:
        raise Http404
    cut = get_object_or_404(Cut.with_deleted.select_related("capture"), pk=item.cut_id)
    width_px = width_of(item.run.chain())

    def drawn() -> bytes:
        shown = cut.as_drawn()
        return step_view(cut.capture.pixel_source(), shown, file_width_px=width_px, width_px=LOOK_WIDTH_PX)

    return _picture(derived(cut.capture, f"run-{cut.pk}-{cut.version}-{width_px}.webp", drawn))


@router.get("/watched-folders", response=list[WatchedFolderOut], operation_id="list_watched_folders")
def list_folders(request: HttpRequest) -> list[WatchedFolderOut]:
    """The folders in which pictures are waited for."""
    rows = WatchedFolder.objects.select_related("routine")
    return [WatchedFolderOut.of(row, str(folder_of(row.name))) for row in rows]


@router.post("/watched-folders", response={201: WatchedFolderOut}, operation_id="watch_folder")
def post_folder(request: HttpRequest, payload: WatchedFolderIn) -> Status[WatchedFolderOut]:
    """Run a routine over each picture that is put into a folder, which is made."""
    routine = get_object_or_404(Routine, pk=payload.routine_id)
    row = watch_folder(payload.name, routine, payload.values)
    return Status(201, WatchedFolderOut.of(row, str(folder_of(row.name))))


@router.delete("/watched-folders/{int:folder_id}", response={204: None}, operation_id="leave_folder")
def delete_folder(request: HttpRequest, folder_id: int) -> Status[None]:
    """Watch a folder no longer; it stays with what is in it."""
    get_object_or_404(WatchedFolder, pk=folder_id).delete()
    return Status(204, None)


def _picture(data: bytes) -> HttpResponse:
    return HttpResponse(
        data,
        content_type="image/webp",
        headers={"Cache-Control": "private, max-age=31536000, immutable"},
    )


def _told(run: Run) -> RunOut:
    return RunOut.of(run, counts_of([run])[run.pk])


def _runs() -> QuerySet[Run]:
    return Run.objects.select_related("version__routine").prefetch_related("version__routine__versions")


def _run(run_id: int) -> Run:
    return get_object_or_404(_runs(), pk=run_id)
