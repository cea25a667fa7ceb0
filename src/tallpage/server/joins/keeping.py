"""A join kept: one capture of its own, with one page map, beside the pieces."""

from __future__ import annotations

from django.db import transaction
from django.utils import timezone

from tallpage.core.errors import JoinError
from tallpage.core.naming import MAX_NAME_CHARS
from tallpage.core.page_map import PageMap, has_map
from tallpage.core.page_words import PageWords
from tallpage.core.picture import StripManifest
from tallpage.core.stitch import Join as Found
from tallpage.core.stitch import joined_map, joined_words, write_join
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.queue import Signals, Work, enqueue
from tallpage.server.joins.finding import rasters_of
from tallpage.server.joins.models import Join
from tallpage.server.shelf.arriving.taking import first_cut, folder_for
from tallpage.server.shelf.models import Capture
from tallpage.server.shelf.sorting import folders as sorting
from tallpage.server.shelf.sorting.searching import index_capture
from tallpage.server.storage import discard_folder, publish_capture

KIND = "keep_join"


def keep(join: Join) -> Capture:
    """Put a capture of the whole on the shelf, and its drawing on the queue. Kept once, it is that one.

    Raises:
        JoinError: a piece is missing, or not there any more.
    """
    with transaction.atomic():
        join.refresh_from_db(from_queryset=Join.objects.select_for_update())
        if join.capture is not None and join.capture.deleted_at is None:
            return join.capture
        found = _require_whole(join)
        first = join.captures()[found.order[0]]
        capture = Capture.objects.create(
            source=first.source,
            name=_name(first),
            title=first.title,
            address=first.address,
            final_address=first.final_address,
            host=first.host,
            status=first.status,
            screen_width_px=first.screen_width_px,
            screen_height_px=first.screen_height_px,
            scale=first.scale,
            touch=first.touch,
            settings=first.settings,
            job=enqueue(KIND),
        )
        sorting.sort_like(capture, first)
        Join.objects.filter(pk=join.pk).update(capture=capture)
        return capture


def prepare(job: Job) -> Work:
    """How the whole is drawn and stored."""
    capture = Capture.objects.get(job=job)
    join = Join.objects.get(capture=capture)
    found = _require_whole(join)
    captures = join.captures()
    folder = folder_for(capture)

    def run(signals: Signals) -> StripManifest:
        signals.report("joining")
        manifest = write_join(found, rasters_of(captures), folder)
        if any(has_map(row.folder) for row in captures):
            joined_map(found, [PageMap.load_if_readable(row.folder) for row in captures]).save(folder)
            words = joined_words(found, [PageWords.load(row.folder) for row in captures])
            if words is not None:
                words.save(folder)
        return manifest

    def commit(manifest: StripManifest) -> None:
        report = _report(found, captures)
        capture.storage_key, capture.incoming_key = publish_capture(folder), ""
        capture.width_px, capture.height_px = manifest.width_px, manifest.height_px
        capture.bytes = manifest.bytes
        # Only of what goes on from the top of a page is known where more of it would be.
        capture.truncated = bool(report) and captures[found.stretches[-1].view].truncated
        capture.whole = all(row.whole for row in captures)
        capture.report = report
        capture.warnings = list(dict.fromkeys(words for row in captures for words in row.warnings))
        capture.taken_at = timezone.now()
        capture.save()
        index_capture(capture, PageMap.load_if_readable(capture.folder).text())
        first_cut(capture)

    return Work(run=run, commit=commit, rollback=lambda: discard_folder(folder))


def _require_whole(join: Join) -> Found:
    found = join.found
    if found is None or not found.is_whole or len(join.captures()) < len(join.pieces):
        raise JoinError(
            "Pieces are missing: there is no whole to keep.",
            hint="Take the page once more where they are missing, and join all of them.",
            code="join_missing",
        )
    return found


def _report(found: Found, captures: list[Capture]) -> dict[str, object]:
    """What is told of a page that was taken in several goes; nothing where the pieces are no such page."""
    if any("top_px" not in row.report for row in captures):
        return {}
    return {
        "top_px": min(row.report["top_px"] for row in captures),
        "page_height_px": found.height_px // captures[0].scale,
        "left_out": list(dict.fromkeys(words for row in captures for words in row.left_out)),
        "wholeness": {"lacking": [words for row in captures for words in row.lacking]},
    }


def _name(first: Capture) -> str:
    ending = ", joined"
    return first.name[: MAX_NAME_CHARS - len(ending)] + ending
