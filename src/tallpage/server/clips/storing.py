"""Where the frames of a clip go: a folder for each attempt, then the clip's own."""

from __future__ import annotations

from pathlib import Path

from tallpage.core.clip import Frames
from tallpage.server.clips.models import Clip
from tallpage.server.storage import (
    clip_folder,
    discard_folder,
    incoming_folder,
    incoming_named,
    publish_clip,
)


def attempt_folder(clip: Clip) -> Path:
    """A new folder for the frames; what an attempt that was killed had left is discarded."""
    if clip.incoming_key:
        discard_folder(incoming_named(clip.incoming_key))
        discard_folder(clip_folder(clip.incoming_key))
    folder = incoming_folder()
    Clip.objects.filter(pk=clip.pk).update(incoming_key=folder.name)
    return folder


def store_frames(clip_id: int, frames: Frames) -> Clip:
    """Move the frames of an attempt to where they stay; gives the clip as it is now, stored."""
    clip = Clip.objects.get(pk=clip_id)
    clip.storage_key, clip.incoming_key = publish_clip(frames.folder), ""
    clip.width_px, clip.height_px = frames.width_px, frames.height_px
    clip.rate_fps, clip.frame_count = frames.rate_fps, len(frames.frames)
    clip.save()
    return clip
