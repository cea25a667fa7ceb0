"""Clips of a shared screen: a browser sends frames one by one; they become a clip in the background."""

from __future__ import annotations

import re
from pathlib import Path
from typing import TYPE_CHECKING

from django.db import transaction

from tallpage.core.clip import MOST_RATE_FPS, MOST_SECONDS, Frames, FramesWriter, require_rate
from tallpage.core.errors import ClipError, Stopped
from tallpage.core.files import storage_errors
from tallpage.core.naming import MAX_NAME_CHARS
from tallpage.server.clips.models import Clip
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.queue import Signals, Work, enqueue
from tallpage.server.storage import (
    clip_folder,
    discard_folder,
    incoming_folder,
    incoming_named,
    publish_clip,
)

if TYPE_CHECKING:
    from ninja import UploadedFile

KIND = "keep_shared_clip"
MOST_FRAMES = MOST_SECONDS * MOST_RATE_FPS
_MOST_FRAME_BYTES = 60_000_000
_BEGUN = "shared-screen"
"""An empty file that tells the folder of a shared screen from other work under way."""
_KEY = re.compile(r"[0-9a-f]{32}")
_NAME = re.compile(r"(?P<number>\d{5})-(?P<seen>\d{1,5})\.png")


def begin_shared() -> str:
    """Make room for the frames of a shared screen; gives the key by which they are sent."""
    folder = incoming_folder()
    with storage_errors(folder):
        (folder / _BEGUN).touch()
    return folder.name


def put_shared_frame(key: str, number: int, seen: int, picture: UploadedFile) -> None:
    """Keep a frame as it came, which is seen for so many frames. It is decoded when the clip is made.

    Raises:
        ClipError: nothing was begun under that key, or the picture is absurdly large.
        StorageError: it could not be written.
    """
    folder = _begun(key)
    if (picture.size or 0) > _MOST_FRAME_BYTES:
        raise ClipError(
            f"Frame {number + 1} has {picture.size:,} bytes; at most {_MOST_FRAME_BYTES:,} are taken.",
            hint="Share a smaller window.",
            code="frame_too_large",
        )
    with storage_errors(folder), (folder / f"{number:05d}-{seen}.png").open("wb") as file:
        for chunk in picture.chunks():
            file.write(chunk)


def end_shared(key: str, name: str, rate_fps: int) -> Clip:
    """Put a clip of the frames that were sent in the list, and its making on the queue.

    Raises:
        ClipError: nothing was begun under that key, or no frame was sent.
    """
    require_rate(rate_fps)
    if not _sent(_begun(key)):
        raise ClipError("No frame was taken.", hint="Take it again, a little longer.", code="clip_empty")
    with transaction.atomic():
        return Clip.objects.create(
            name=name[:MAX_NAME_CHARS],
            address="",
            asked={"kind": "shared", "frames": key},
            rate_fps=rate_fps,
            job=enqueue(KIND),
        )


def prepare(job: Job) -> Work:
    """How the frames of a shared screen are read and stored."""
    clip = Clip.objects.get(job=job)
    sent = incoming_named(clip.asked["frames"])
    if clip.incoming_key:  # of an attempt that was killed
        discard_folder(incoming_named(clip.incoming_key))
        discard_folder(clip_folder(clip.incoming_key))
    folder = incoming_folder()
    Clip.objects.filter(pk=clip.pk).update(incoming_key=folder.name)

    def run(signals: Signals) -> Frames:
        pictures = _sent(sent)
        writer = FramesWriter(folder, rate_fps=clip.rate_fps)
        for done, (path, seen) in enumerate(pictures):
            if signals.stop_mode != "go_on":
                raise Stopped("Making the clip was stopped.")
            signals.report("taking", done, len(pictures))
            png = path.read_bytes()
            for _ in range(seen):
                writer.add(png)
        return writer.finish()

    def commit(frames: Frames) -> None:
        now = Clip.objects.get(pk=clip.pk)
        now.storage_key, now.incoming_key = publish_clip(folder), ""
        now.width_px, now.height_px = frames.width_px, frames.height_px
        now.frame_count = len(frames.frames)
        now.save()
        discard_folder(sent)

    return Work(run=run, commit=commit, rollback=lambda: discard_folder(folder))


def _begun(key: str) -> Path:
    folder = incoming_named(key) if _KEY.fullmatch(key) else None
    if folder is None or not (folder / _BEGUN).exists():
        raise ClipError(
            "The frames of this shared screen are not there any more.",
            hint="Take the clip again.",
            code="clip_not_begun",
        )
    return folder


def _sent(folder: Path) -> list[tuple[Path, int]]:
    """The pictures that were sent, in their order, and for how many frames each is seen."""
    paths = sorted(folder.glob("*.png"))
    return [(path, int(match["seen"])) for path in paths if (match := _NAME.fullmatch(path.name))]
