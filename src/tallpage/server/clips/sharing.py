"""Clips of a shared screen: a browser sends frames one by one; they become a clip in the background."""

from __future__ import annotations

import re
from collections.abc import Sequence
from itertools import pairwise
from pathlib import Path
from typing import TYPE_CHECKING

from django.db import transaction

from tallpage.core.clip import Frames, FramesWriter, require_rate
from tallpage.core.errors import ClipError, Stopped
from tallpage.core.files import storage_errors
from tallpage.core.naming import MAX_NAME_CHARS
from tallpage.server.clips.models import Clip
from tallpage.server.clips.storing import attempt_folder, store_frames
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.queue import Signals, Work, enqueue
from tallpage.server.storage import discard_folder, incoming_folder, incoming_named

if TYPE_CHECKING:
    from ninja import UploadedFile

    from tallpage.server.clips.schemas import SharedEndIn

KIND = "keep_shared_clip"
_MOST_FRAME_BYTES = 60_000_000
_BEGUN = "shared-screen"
"""An empty file that tells the folder of a shared screen from other work under way."""
_KEY = re.compile(r"[0-9a-f]{32}")


def begin_shared() -> str:
    """Make room for the frames of a shared screen; gives the key by which they are sent."""
    folder = incoming_folder()
    with storage_errors(folder):
        (folder / _BEGUN).touch()
    return folder.name


def put_shared_frame(key: str, number: int, picture: UploadedFile) -> None:
    """Keep what is seen from a frame on, as it came. It is decoded when the clip is made.

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
    with storage_errors(folder), (folder / f"{number:05d}.png").open("wb") as file:
        for chunk in picture.chunks():
            file.write(chunk)


def end_shared(key: str, ended: SharedEndIn) -> Clip:
    """Put a clip of the frames that were sent in the list, and its making on the queue.

    Raises:
        ClipError: nothing was begun under that key, or no frame was sent.
    """
    require_rate(ended.rate_fps)
    if not _sent(_begun(key)):
        raise ClipError("No frame was taken.", hint="Take it again, a little longer.", code="clip_empty")
    with transaction.atomic():
        return Clip.objects.create(
            name=ended.name[:MAX_NAME_CHARS],
            address="",
            asked={"kind": "shared", "frames": key, "frame_count": ended.frame_count},
            rate_fps=ended.rate_fps,
            job=enqueue(KIND),
        )


def prepare(job: Job) -> Work:
    """How the frames of a shared screen are read and stored."""
    clip = Clip.objects.get(job=job)
    sent = incoming_named(clip.asked["frames"])
    folder = attempt_folder(clip)

    def run(signals: Signals) -> Frames:
        paths = _sent(sent)
        writer = FramesWriter(folder, rate_fps=clip.rate_fps)
        for done, (path, seen) in enumerate(zip(paths, _seen(paths, clip.asked["frame_count"]), strict=True)):
            if signals.stop_mode != "go_on":
                raise Stopped("Making the clip was stopped.")
            signals.report("taking", done, len(paths))
            png = path.read_bytes()
            for _ in range(seen):
                writer.add(png)
        return writer.finish()

    def commit(frames: Frames) -> None:
        store_frames(clip.pk, frames)
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


def _sent(folder: Path) -> list[Path]:
    """The pictures that were sent, in their order."""
    return sorted(folder.glob("*.png"))


def _seen(paths: Sequence[Path], frame_count: int) -> list[int]:
    """For how many frames each is seen: until the next that arrived, the first from the beginning on."""
    numbers = [0, *(int(path.stem) for path in paths[1:])]
    return [max(1, end - start) for start, end in pairwise([*numbers, frame_count])]
