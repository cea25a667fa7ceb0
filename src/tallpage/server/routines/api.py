"""HTTP API of routines: kept, changed, looked at step by step."""

from __future__ import annotations

import json

from django.db.models import QuerySet
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import File, Router, Status, UploadedFile
from slugify import slugify

from tallpage.core.errors import RoutineError
from tallpage.core.routine import (
    MOST_FILE_BYTES,
    read_routine,
    routine_of,
    starter_names,
    starter_routine,
    write_routine,
)
from tallpage.core.routine import Routine as Chain
from tallpage.server.people.guarding import person_of
from tallpage.server.routines.keeping import (
    change_routine,
    delete_routine,
    duplicate_routine,
    give_key,
    keep_routine,
    order_routines,
    restore_routine,
    routine_of_work,
)
from tallpage.server.routines.looks import StepLook, look_picture, looks_of
from tallpage.server.routines.models import Routine
from tallpage.server.routines.schemas import (
    ChangeRoutineIn,
    NewRoutineIn,
    RoutineDetailOut,
    RoutineKeyIn,
    RoutineOrderIn,
    RoutineOut,
    StarterOut,
    StepLookOut,
)
from tallpage.server.shelf.lookup import taken_capture
from tallpage.server.shelf.models import Cut

router = Router(tags=["routines"])
_KEPT_FOR_EVER = "private, max-age=31536000, immutable"


@router.get("/routines", response=list[RoutineOut], operation_id="list_routines")
def list_routines(request: HttpRequest) -> list[RoutineOut]:
    """All routines, in their order."""
    return [RoutineOut.of(row) for row in _routines()]


@router.get("/routines/starters", response=list[StarterOut], operation_id="list_starters")
def list_starters(request: HttpRequest) -> list[StarterOut]:
    """Routines that ship, to begin with."""
    found = ((name, starter_routine(name)) for name in starter_names())
    return [StarterOut(name=name, title=row.name, note=row.note) for name, row in found]


@router.post("/routines", response={201: RoutineDetailOut}, operation_id="add_routine")
def add_routine(request: HttpRequest, payload: NewRoutineIn) -> Status[RoutineDetailOut]:
    """Keep a routine: as a document says, one that ships, what was done to a page, or an empty one."""
    chain = _new(payload)
    if payload.name.strip():
        chain = chain.model_copy(update={"name": payload.name.strip()})
    return Status(201, RoutineDetailOut.of_all(keep_routine(chain, person=person_of(request))))


@router.put("/routines/order", response={204: None}, operation_id="order_routines")
def put_order(request: HttpRequest, payload: RoutineOrderIn) -> Status[None]:
    """Put routines in an order."""
    order_routines(payload.ids)
    return Status(204, None)


@router.post("/routines/file", response={201: RoutineDetailOut}, operation_id="open_routine_file")
def open_file(request: HttpRequest, file: File[UploadedFile]) -> Status[RoutineDetailOut]:
    """Keep the routine in a file."""
    if (file.size or 0) > MOST_FILE_BYTES:
        raise RoutineError(f"The file has over {MOST_FILE_BYTES // 1_000_000} MB.")
    chain = read_routine(file.read())
    return Status(201, RoutineDetailOut.of_all(keep_routine(chain, person=person_of(request))))


@router.get("/routines/{int:routine_id}", response=RoutineDetailOut, operation_id="read_routine")
def get_routine(request: HttpRequest, routine_id: int) -> RoutineDetailOut:
    """A routine with all that it says."""
    return RoutineDetailOut.of_all(_routine(routine_id))


@router.put("/routines/{int:routine_id}", response=RoutineDetailOut, operation_id="change_routine")
def put_routine(request: HttpRequest, routine_id: int, payload: ChangeRoutineIn) -> RoutineDetailOut:
    """Change what a routine says. What was made with it before is told by its earlier version."""
    routine = _routine(routine_id)
    change_routine(routine, routine_of(payload.document), changes=payload.changes, person=person_of(request))
    return RoutineDetailOut.of_all(routine)


@router.delete("/routines/{int:routine_id}", response={204: None}, operation_id="delete_routine")
def remove_routine(request: HttpRequest, routine_id: int) -> Status[None]:
    """Take a routine away; it can be restored."""
    delete_routine(_routine(routine_id))
    return Status(204, None)


@router.post("/routines/{int:routine_id}/restore", response=RoutineDetailOut, operation_id="restore_routine")
def post_restore(request: HttpRequest, routine_id: int) -> RoutineDetailOut:
    """Put a deleted routine back."""
    routine = restore_routine(routine_id)
    if routine is None:
        raise Http404
    return RoutineDetailOut.of_all(routine)


@router.post(
    "/routines/{int:routine_id}/duplicate",
    response={201: RoutineDetailOut},
    operation_id="duplicate_routine",
)
def post_duplicate(request: HttpRequest, routine_id: int) -> Status[RoutineDetailOut]:
    """Another routine that says the same."""
    again = duplicate_routine(_routine(routine_id), person=person_of(request))
    return Status(201, RoutineDetailOut.of_all(again))


@router.put("/routines/{int:routine_id}/key", response=RoutineOut, operation_id="give_routine_key")
def put_key(request: HttpRequest, routine_id: int, payload: RoutineKeyIn) -> RoutineOut:
    """The digit that runs it."""
    return RoutineOut.of(give_key(_routine(routine_id), payload.key))


@router.get("/routines/{int:routine_id}/file", operation_id="save_routine_file", include_in_schema=False)
def save_file(request: HttpRequest, routine_id: int, version: int | None = None) -> HttpResponse:
    """A routine as its file, in its newest version or an earlier one."""
    routine = _routine(routine_id)
    row = routine.newest if version is None else get_object_or_404(routine.versions, number=version)
    chain = row.chain()
    name = slugify(chain.name, max_length=80) or "routine"
    return HttpResponse(
        write_routine(chain),
        content_type="application/json",
        headers={"Content-Disposition": f'attachment; filename="{name}.json"'},
    )


@router.get("/routines/{int:routine_id}/looks", response=list[StepLookOut], operation_id="list_step_looks")
def list_looks(request: HttpRequest, routine_id: int, capture: int) -> list[StepLook]:
    """What each step of a routine does to a capture: first the capture as it is, then one for each step."""
    return looks_of(_routine(routine_id).newest.chain(), taken_capture(capture))


@router.get(
    "/routines/{int:routine_id}/looks/{int:number}",
    operation_id="step_look_picture",
    include_in_schema=False,
)
def get_look(request: HttpRequest, routine_id: int, number: int, capture: int, key: str = "") -> HttpResponse:
    """A small picture of what is left of a capture after a step, from 1; of the capture itself for 0."""
    found = look_picture(_routine(routine_id).newest.chain(), taken_capture(capture), number)
    if found is None:
        raise Http404
    data, current = found
    keeping = _KEPT_FOR_EVER if key == current else "no-store"
    return HttpResponse(data, content_type="image/webp", headers={"Cache-Control": keeping})


def _new(payload: NewRoutineIn) -> Chain:
    """The routine that is asked for."""
    if payload.document is not None:
        return routine_of(payload.document)
    if payload.starter is not None:
        if payload.starter not in starter_names():
            raise RoutineError(f"There is no routine “{payload.starter[:80]}” that ships.")
        return starter_routine(payload.starter)
    if payload.cut_id is not None:
        cut = get_object_or_404(Cut.objects.select_related("capture"), pk=payload.cut_id)
        return routine_of_work(cut)
    return routine_of(json.loads('{"version": 1, "name": "New routine", "steps": []}'))


def _routines() -> QuerySet[Routine]:
    return Routine.objects.prefetch_related("versions")


def _routine(routine_id: int) -> Routine:
    return get_object_or_404(Routine, pk=routine_id)
