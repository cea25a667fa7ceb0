"""Taking pages in the background."""

from __future__ import annotations

import json
import os
from dataclasses import replace
from functools import cache
from pathlib import Path

from django.conf import settings as server_settings
from django.db import transaction
from django.utils import timezone

from tallpage.core import cut as core_cut
from tallpage.core.capture import (
    BrowserPool,
    FilteringProxy,
    PageReport,
    PageRequest,
    Progress,
    Screen,
    normalise_address,
    require_public,
)
from tallpage.core.errors import FrameError, PageError
from tallpage.core.files import write_whole
from tallpage.core.geometry import Box
from tallpage.core.naming import MAX_NAME_CHARS, capture_name, host_of
from tallpage.core.page_map import PageMap
from tallpage.core.picture import StripManifest
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.queue import Signals, Work, enqueue
from tallpage.server.shelf.cuts.renewing import renew_cuts
from tallpage.server.shelf.models import Capture, Cut
from tallpage.server.shelf.routes.schemas import TakeSettings
from tallpage.server.shelf.sorting import folders as sorting
from tallpage.server.shelf.sorting.searching import index_capture
from tallpage.server.signins.keeping import sign_in_for
from tallpage.server.storage import (
    capture_folder,
    discard_folder,
    incoming_folder,
    incoming_named,
    publish_capture,
)

KIND = "take_page"
Taken = tuple[StripManifest, PageReport]


def order_page(
    text: str,
    screen: Screen,
    settings: TakeSettings | None = None,
    *,
    one_of_many: bool = False,
    renews: Capture | None = None,
) -> Capture:
    """Put a page on the shelf and its taking on the queue.

    The cuts of what it renews are carried over; it lies in the same folder, with its labels and rights.

    Raises:
        AddressError: the address cannot be used; nothing was stored.
        PageError: it cannot be taken as asked; nothing was stored.
    """
    settings = settings or TakeSettings()
    address = settings.as_request(normalise_address(text), screen).address
    with transaction.atomic():
        capture = Capture.objects.create(
            source=Capture.Source.PAGE,
            name=address.partition("://")[2][:MAX_NAME_CHARS],
            address=address,
            host=host_of(address),
            screen_width_px=screen.width_px,
            screen_height_px=screen.height_px,
            scale=screen.scale,
            touch=screen.touch,
            settings=settings.model_dump(),
            one_of_many=one_of_many,
            renews=renews,
            job=enqueue(KIND),
        )
        if renews is not None:
            sorting.sort_like(capture, renews)
        return capture


def order_retake(capture: Capture) -> Capture:
    """Take a page once more with the same screen and settings, beside the earlier capture.

    Raises:
        FrameError: it is a dropped picture.
    """
    if capture.screen is None:
        raise FrameError("A dropped picture cannot be taken again.", hint="Drop it anew.", code="not_a_page")
    return order_page(capture.address, capture.screen, TakeSettings(**capture.settings), renews=capture)


def order_further(capture: Capture) -> Capture:
    """Take what lies below a capture that was cut off, beside it on the shelf.

    Raises:
        PageError: nothing of it was cut off.
    """
    if capture.screen is None or not capture.truncated:
        raise PageError(
            "This capture was not cut off.", hint="It goes to the page's end.", code="not_cut_off"
        )
    settings = TakeSettings(**capture.settings)
    settings.from_px = capture.report["top_px"] + capture.report["page_height_px"]
    return order_page(capture.address, capture.screen, settings)


def prepare(job: Job) -> Work:
    """How a page is taken and stored."""
    capture = Capture.objects.get(job=job)
    if capture.screen is None:
        raise PageError("This capture has no screen to be taken with.")
    settings = TakeSettings(**capture.settings)
    sign_in = sign_in_for(capture.address) if settings.signed_in else None
    request = settings.as_request(capture.address, capture.screen, sign_in)
    folder = folder_for(capture)

    def run(signals: Signals) -> Taken:
        return _take(request, folder, signals)

    def commit(taken: Taken) -> None:
        _store(capture.pk, folder, *taken)

    return Work(run=run, commit=commit, rollback=lambda: discard_folder(folder))


def folder_for(capture: Capture) -> Path:
    """A new folder to take a capture into. What a killed attempt left, there or in its final place, goes."""
    if capture.incoming_key:  # its row was never written: else this would be empty
        discard_folder(incoming_named(capture.incoming_key))
        discard_folder(capture_folder(capture.incoming_key))
    folder = incoming_folder()
    Capture.objects.filter(pk=capture.pk).update(incoming_key=folder.name)
    return folder


def shelve_taken(
    folder: Path,
    manifest: StripManifest,
    report: PageReport,
    settings: TakeSettings,
    part_px: Box | None = None,
) -> Capture:
    """Put on the shelf what was taken outside of the queue, with a part of it as its first cut."""
    screen, now = report.screen, timezone.now()
    with transaction.atomic():
        capture = Capture.objects.create(
            source=Capture.Source.PAGE,
            name=report.address.partition("://")[2][:MAX_NAME_CHARS],
            address=report.address,
            host=host_of(report.address),
            screen_width_px=screen.width_px,
            screen_height_px=screen.height_px,
            scale=screen.scale,
            touch=screen.touch,
            settings=settings.model_dump(),
            incoming_key=folder.name,
            job=Job.objects.create(kind=KIND, state=Job.State.DONE, finished_at=now),
        )
        _store(capture.pk, folder, manifest, report)
        if part_px is not None:
            cut = capture.cuts.get()
            whole = core_cut.Cut.from_json(cut.document)
            cut.document = replace(whole, frame=core_cut.Frame(box=part_px)).as_json()
            cut.save(update_fields=["document"])
        return Capture.objects.get(pk=capture.pk)


def _take(request: PageRequest, folder: Path, signals: Signals) -> Taken:
    if not server_settings.ALLOW_PRIVATE:
        require_public(request.address, server_settings.PRIVATE_HOSTS)

    def on_progress(progress: Progress) -> None:
        signals.report(progress.stage, progress.done, progress.expected)

    manifest, report = browser_pool().take(
        request, folder, on_progress=on_progress, ask_stop_mode=lambda: signals.stop_mode
    )
    write_whole(folder / "report.json", _as_text(report))
    return manifest, report


@cache
def _keeper_of(_process_id: int) -> BrowserPool:
    if server_settings.ALLOW_PRIVATE:
        return BrowserPool()
    return BrowserPool(FilteringProxy(server_settings.PRIVATE_HOSTS.allows).__enter__())


def browser_pool() -> BrowserPool:
    """This process's pool; a forked process must not use its parent's."""
    return _keeper_of(os.getpid())


def close_browser() -> None:
    """End this process's browser; the next page starts another."""
    browser_pool().close()


def _store(capture_id: int, folder: Path, manifest: StripManifest, report: PageReport) -> None:
    now = timezone.now()
    capture = Capture.objects.get(pk=capture_id)
    capture.storage_key, capture.incoming_key = publish_capture(folder), ""
    capture.width_px, capture.height_px = manifest.width_px, manifest.height_px
    capture.bytes = manifest.bytes
    capture.final_address, capture.title = report.final_address, report.title
    capture.host = host_of(report.final_address)
    capture.status, capture.truncated = report.status, report.truncated
    capture.whole = report.wholeness.is_whole
    capture.warnings, capture.report = list(report.warnings), report.as_json()
    capture.taken_at = now
    if not capture.named_by_hand:
        capture.name = capture_name(title=report.title, address=report.final_address, day=now.date())
    capture.save()
    index_capture(capture, PageMap.load(capture.folder).text())
    begin_cuts(capture)


def _as_text(report: PageReport) -> bytes:
    return json.dumps(report.as_json(), indent=1, ensure_ascii=False).encode()


def begin_cuts(capture: Capture) -> None:
    """The cuts that a page begins with: those of the one that it renews, or one of all of it."""
    renew_cuts(capture)
    if not capture.cuts.exists():
        first_cut(capture)


def first_cut(capture: Capture) -> Cut:
    """The cut that every capture begins with: all of it."""
    return Cut.objects.create(
        capture=capture, name="Cut 1", document=core_cut.Cut.whole(capture.size).as_json()
    )
