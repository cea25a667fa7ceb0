"""Taking clips in the background."""

from __future__ import annotations

from django.conf import settings as server_settings
from django.db import transaction

from tallpage.core.capture import Progress, normalise_address, require_public
from tallpage.core.capture.clip import ClipReport, take_clip
from tallpage.core.clip import Frames
from tallpage.core.naming import MAX_NAME_CHARS
from tallpage.server.clips.models import Clip
from tallpage.server.clips.schemas import ClipIn
from tallpage.server.clips.storing import attempt_folder, store_frames
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.queue import Signals, Work, enqueue
from tallpage.server.shelf.arriving.taking import browser_pool
from tallpage.server.signins.keeping import sign_in_for
from tallpage.server.storage import discard_folder

KIND = "take_clip"


def order_clip(asked: ClipIn) -> Clip:
    """Put a clip in the list, and its taking on the queue.

    Raises:
        AddressError, ClipError, PageError: it cannot be taken as asked; nothing was stored.
    """
    address = asked.as_request(normalise_address(asked.address)).page.address
    with transaction.atomic():
        return Clip.objects.create(
            name=address.partition("://")[2][:MAX_NAME_CHARS],
            address=address,
            asked=asked.model_dump(),
            job=enqueue(KIND),
        )


def prepare(job: Job) -> Work:
    """How a clip is taken and stored."""
    clip = Clip.objects.get(job=job)
    request = ClipIn(**clip.asked).as_request(clip.address, sign_in_for(clip.address))
    folder = attempt_folder(clip)

    def run(signals: Signals) -> tuple[Frames, ClipReport]:
        if not server_settings.ALLOW_PRIVATE:
            require_public(request.page.address, server_settings.PRIVATE_HOSTS)

        def on_progress(progress: Progress) -> None:
            signals.report(progress.stage, progress.done, progress.expected)

        return browser_pool().do(
            lambda browser: take_clip(
                browser,
                request,
                folder,
                on_progress=on_progress,
                is_stopped=lambda: signals.stop_mode != "go_on",
            ),
            request.page.address,
            folder,
        )

    def commit(taken: tuple[Frames, ClipReport]) -> None:
        frames, report = taken
        now = store_frames(clip.pk, frames)
        now.warnings = list(report.warnings)
        now.name = (report.title or now.name)[:MAX_NAME_CHARS]
        now.save()

    return Work(run=run, commit=commit, rollback=lambda: discard_folder(folder))
