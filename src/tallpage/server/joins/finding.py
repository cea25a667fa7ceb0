"""Where the pieces of a join lie: by what pages say of themselves, else by their pixels."""

from __future__ import annotations

from collections.abc import Sequence

from django.db import transaction

from tallpage.core.errors import JoinError
from tallpage.core.picture import Raster
from tallpage.core.render import whole_page
from tallpage.core.stitch import MOST_VIEWS, join_pictures, place_below
from tallpage.core.stitch import Join as Found
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.queue import Signals, Work, enqueue
from tallpage.server.joins.models import Join, as_plan
from tallpage.server.shelf.models import Capture

KIND = "find_join"


def order_join(pieces: Sequence[int], *, in_order: bool) -> Join:
    """Put captures together, and finding out how on the queue.

    Raises:
        JoinError: too few or too many; one has no picture, or they are not of one width. Nothing is stored.
    """
    _require_joinable(pieces)
    with transaction.atomic():
        return Join.objects.create(pieces=list(pieces), in_order=in_order, job=enqueue(KIND))


def prepare(job: Job) -> Work:
    """How it is found where the pieces lie."""
    join = Join.objects.get(job=job)
    captures = _whole(join)

    def run(signals: Signals) -> Found:
        signals.report("comparing")
        return _continued(captures) or join_pictures(rasters_of(captures), in_order=join.in_order)

    def commit(found: Found) -> None:
        Join.objects.filter(pk=join.pk).update(plan=as_plan(found))

    return Work(run=run, commit=commit)


def rasters_of(captures: Sequence[Capture]) -> list[Raster]:
    """Their pixels, which may be read in any order."""
    return [whole_page(row.folder, row.manifest(), access="random") for row in captures]


def _whole(join: Join) -> list[Capture]:
    captures = join.captures()
    if len(captures) < len(join.pieces):
        raise JoinError(
            "One of the captures is not there any more.", hint="Choose those that are left.", code="join_gone"
        )
    return captures


def _continued(captures: Sequence[Capture]) -> Found | None:
    """Pages that were taken one further down than the other; None if that is not what they are."""
    pages = {(row.final_address, str(row.screen)) for row in captures}
    tops = [row.report.get("top_px") for row in captures]
    if len(pages) > 1 or not captures[0].final_address or None in tops or len(set(tops)) < len(tops):
        return None
    return place_below([row.size for row in captures], [int(top) * captures[0].scale for top in tops])


def _require_joinable(pieces: Sequence[int]) -> None:
    if not 2 <= len(pieces) <= MOST_VIEWS:
        raise JoinError(
            f"{len(pieces)} cannot be joined: at least 2 captures are, and at most {MOST_VIEWS}.",
            code="join_count",
        )
    if len(set(pieces)) < len(pieces):
        raise JoinError("A capture was named twice.", hint="Name each once.", code="join_count")
    there = Capture.objects.on_shelf().exclude(storage_key="").in_bulk(list(pieces))
    if len(there) < len(pieces):
        raise JoinError(
            "One of the captures has no picture: it is still being taken, has failed, or is deleted.",
            hint="Wait until it is there, or leave it out.",
            code="join_gone",
        )
    first = there[pieces[0]]
    odd = next((row for row in there.values() if row.width_px != first.width_px), None)
    if odd is not None:
        raise JoinError(
            f"“{odd.name}” is {odd.width_px:,} px wide and “{first.name}” {first.width_px:,} px.",
            hint="Choose captures of one width.",
            code="join_widths",
        )
