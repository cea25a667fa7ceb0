"""HTTP API of outputs: the ledger of a cut, and its files."""

from __future__ import annotations

from django.db import transaction
from django.db.models import QuerySet
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router, Status

from tallpage.server.jobs.queue import request_stop
from tallpage.server.jobs.turns import take_in_hand
from tallpage.server.outlets.comparing import Side, band
from tallpage.server.outlets.fitting import (
    add_own_output,
    add_slot_output,
    divide_again,
    fit_again,
    fit_for_outlet,
    fit_stale,
    keep_legible,
    remove_output,
)
from tallpage.server.outlets.making import swatch_file
from tallpage.server.outlets.models import Outlet, Output, Slot
from tallpage.server.outlets.output_schemas import (
    DivideIn,
    FitIn,
    ForManyIn,
    ForManyOut,
    LeftOutOut,
    LegibleIn,
    OutputIn,
    OutputOut,
)
from tallpage.server.outlets.saving import name_of, saved_leaf, saved_output
from tallpage.server.outlets.schemas import SwatchName
from tallpage.server.outlets.signals import file_saved
from tallpage.server.people.guarding import person_of
from tallpage.server.shelf.models import Capture, Cut
from tallpage.server.shelf.sorting.folders import require_some

router = Router(tags=["outputs"])
_MOST_CAPTURES = 200
"""So many are put on the queue within a request."""


@router.get("/cuts/{cut_id}/outputs", response=list[OutputOut], operation_id="list_outputs")
def list_outputs(request: HttpRequest, cut_id: int) -> QuerySet[Output]:
    """The ledger of a cut."""
    cut = get_object_or_404(Cut, pk=cut_id)
    rows = Output.objects.filter(cut=cut).select_related("job", "cut__capture", "slot__outlet")
    return rows.prefetch_related("files")


@router.post("/cuts/{cut_id}/outputs", response={202: OutputOut}, operation_id="add_output")
def add_output(request: HttpRequest, cut_id: int, payload: OutputIn) -> Status[Output]:
    """Add a row to the ledger and queue its file."""
    cut = get_object_or_404(Cut, pk=cut_id)
    if payload.slot_id is not None:
        return Status(202, add_slot_output(cut, get_object_or_404(Slot, pk=payload.slot_id)))
    assert payload.rules is not None  # noqa: S101  (one or the other, says the schema)
    return Status(202, add_own_output(cut, payload.rules.rules()))


@router.post("/outlets/{int:outlet_id}/files", response={202: ForManyOut}, operation_id="fit_for_outlet")
def post_for_many(request: HttpRequest, outlet_id: int, payload: ForManyIn) -> Status[ForManyOut]:
    """Make the files of an outlet of many captures, each of its first cut."""
    outlet = get_object_or_404(Outlet, pk=outlet_id)
    ids = require_some(payload.captures, most=_MOST_CAPTURES)
    found = Capture.objects.on_shelf().exclude(storage_key="").in_bulk(ids)
    with transaction.atomic():
        done = fit_for_outlet((found[pk] for pk in ids if pk in found), outlet)
    left_out = [LeftOutOut(name=name, sentence=sentence) for name, sentence in done.left_out]
    return Status(202, ForManyOut(ordered=done.ordered, there=done.there, left_out=left_out))


@router.post("/cuts/{cut_id}/outputs/fit", response={202: list[OutputOut]}, operation_id="fit_stale_outputs")
def fit_stale_outputs(request: HttpRequest, cut_id: int) -> Status[list[Output]]:
    """Make those files anew whose frame has changed since they were asked for."""
    return Status(202, fit_stale(get_object_or_404(Cut, pk=cut_id)))


@router.post("/outputs/{output_id}/fit", response={202: OutputOut}, operation_id="fit_output")
def fit_output(request: HttpRequest, output_id: int, payload: FitIn) -> Status[Output]:
    """Make the file anew: searched, or by a choice."""
    choice = payload.choice.as_choice() if payload.choice else None
    return Status(202, fit_again(_output(output_id), choice, follow_slot=payload.follow_slot))


@router.post("/outputs/{output_id}/leaves", response={202: OutputOut}, operation_id="divide_output")
def divide_output(request: HttpRequest, output_id: int, payload: DivideIn) -> Status[Output]:
    """Make the files anew, divided otherwise."""
    return Status(202, divide_again(_output(output_id), count=payload.leaf_count, breaks=payload.breaks))


@router.put("/outputs/{output_id}/legible", response={202: OutputOut}, operation_id="keep_legible")
def put_legible(request: HttpRequest, output_id: int, payload: LegibleIn) -> Status[Output]:
    """Make the files anew, with marks drawn larger whose letters could not be read; or as they are."""
    return Status(202, keep_legible(_output(output_id), legible=payload.legible))


@router.post("/outputs/{output_id}/stop", response=OutputOut, operation_id="stop_output")
def stop_output(request: HttpRequest, output_id: int) -> Output:
    """End a search; the best file so far stays."""
    request_stop(_output(output_id).job)
    return _output(output_id)


@router.post("/outputs/{output_id}/hand", response={204: None}, operation_id="take_in_hand")
def hand_output(request: HttpRequest, output_id: int) -> Status[None]:
    """Say that somebody looks at this row: its file comes before others that wait."""
    take_in_hand(_output(output_id).job)
    return Status(204, None)


@router.delete("/outputs/{output_id}", response={204: None}, operation_id="delete_output")
def delete_output(request: HttpRequest, output_id: int) -> Status[None]:
    """Delete a row and its file."""
    remove_output(_output(output_id))
    return Status(204, None)


@router.get("/outputs/{output_id}/file", operation_id="output_file", include_in_schema=False)
def output_file(request: HttpRequest, output_id: int) -> HttpResponse:
    """The file itself, to save; of several leaves, all of them in a ZIP."""
    output = _output(output_id)
    response = saved_output(output)
    _tell_saved(request, output, response)
    return response


@router.get("/outputs/{output_id}/leaves/{number}/file", operation_id="leaf_file", include_in_schema=False)
def leaf_file(request: HttpRequest, output_id: int, number: int) -> HttpResponse:
    """The file of one leaf, counted from 1."""
    output = _output(output_id)
    response = saved_leaf(output, number)
    _tell_saved(request, output, response)
    return response


def _tell_saved(request: HttpRequest, output: Output, response: HttpResponse) -> None:
    """Say that a person saves a file; a page of ours that shows it does not."""
    if request.headers.get("Sec-Fetch-Dest") != "image":
        file_saved.send(sender=Output, output=output, name=name_of(response), person=person_of(request))


@router.get("/outputs/{output_id}/swatches/{name}", operation_id="swatch", include_in_schema=False)
def swatch(request: HttpRequest, output_id: int, name: SwatchName) -> HttpResponse:
    """The worst place of the chosen file at 1:1: as it was, or as the candidate of that number shows it."""
    path = swatch_file(_output(output_id).swatch_key, name)
    if not path.exists():
        raise Http404
    headers = {"Cache-Control": "private, max-age=3600"}
    return HttpResponse(path.read_bytes(), content_type="image/png", headers=headers)


@router.get("/outputs/{output_id}/{side}/{number}", operation_id="compare_band", include_in_schema=False)
def compare_band(request: HttpRequest, output_id: int, side: Side, number: int) -> HttpResponse:
    """One band of original or result, for Compare."""
    return HttpResponse(
        band(_output(output_id), side, number),
        content_type="image/png",
        headers={"Cache-Control": "private, max-age=3600"},
    )


def _output(output_id: int) -> Output:
    rows = Output.objects.select_related("job", "cut__capture", "slot__outlet").prefetch_related("files")
    return get_object_or_404(rows, pk=output_id)
