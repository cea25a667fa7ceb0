"""The frames of a clip as they were taken: PNG pictures in a folder, and when each is seen."""

from __future__ import annotations

import hashlib
import json
from dataclasses import asdict, dataclass
from pathlib import Path

from tallpage.core.errors import ClipError
from tallpage.core.files import storage_errors
from tallpage.core.geometry import Size
from tallpage.core.picture import decode

MOST_SECONDS = 60
MOST_RATE_FPS = 30
_VERSION = 1
_INDEX = "frames.json"


@dataclass(frozen=True, slots=True, kw_only=True)
class Frame:
    """One moment. Frames that show the same share a picture."""

    file: str
    pointer_px: tuple[int, int] | None = None
    """Where the pointer is, in px of the picture; None where there is none."""
    pressed: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Frames:
    """All frames of a clip, equally far apart, in the folder that holds their pictures."""

    folder: Path
    width_px: int
    height_px: int
    rate_fps: int
    frames: tuple[Frame, ...]

    @property
    def size(self) -> Size:
        """Width and height of every picture."""
        return Size(width_px=self.width_px, height_px=self.height_px)

    @property
    def seconds(self) -> float:
        """How long they last as they were taken."""
        return len(self.frames) / self.rate_fps


class FramesWriter:
    """Writes frames as they come. The index is written last: a folder without one holds no clip."""

    def __init__(self, folder: Path, *, rate_fps: int) -> None:
        require_rate(rate_fps)
        self._folder, self._rate_fps = folder, rate_fps
        self._frames: list[Frame] = []
        self._size: Size | None = None

    def add(self, png: bytes, *, pointer_px: tuple[int, int] | None = None, pressed: bool = False) -> None:
        """Add the next frame.

        Raises:
            ClipError: the clip would become too long, or the picture has another size than the first.
            StorageError: it could not be written.
        """
        if len(self._frames) >= MOST_SECONDS * self._rate_fps:
            raise too_long()
        name = f"{hashlib.sha256(png).hexdigest()[:24]}.png"
        if not self._frames or self._frames[-1].file != name:
            size = decode(png).size
            if self._size is not None and size != self._size:
                raise ClipError(
                    f"Frame {len(self._frames) + 1} has {size.width_px} × {size.height_px} px, the first "
                    f"{self._size.width_px} × {self._size.height_px}.",
                    hint="Take the clip again; the window must keep its size.",
                    code="clip_sizes",
                )
            self._size = size
            path = self._folder / name
            if not path.exists():
                with storage_errors(self._folder):
                    path.write_bytes(png)
        self._frames.append(Frame(file=name, pointer_px=pointer_px, pressed=pressed))

    def finish(self) -> Frames:
        """Write the index.

        Raises:
            ClipError: there is no frame.
            StorageError: it could not be written.
        """
        if self._size is None:
            raise ClipError("No frame was taken.", hint="Take it again, a little longer.", code="clip_empty")
        frames = Frames(
            folder=self._folder,
            width_px=self._size.width_px,
            height_px=self._size.height_px,
            rate_fps=self._rate_fps,
            frames=tuple(self._frames),
        )
        told = {
            "version": _VERSION,
            "width_px": frames.width_px,
            "height_px": frames.height_px,
            "rate_fps": frames.rate_fps,
            "frames": [asdict(frame) for frame in frames.frames],
        }
        with storage_errors(self._folder):
            (self._folder / _INDEX).write_text(json.dumps(told))
        return frames


def open_frames(folder: Path) -> Frames:
    """The clip in a folder.

    Raises:
        ClipError: there is none, or its index cannot be read.
    """
    try:
        told = json.loads((folder / _INDEX).read_text())
        return Frames(
            folder=folder,
            width_px=int(told["width_px"]),
            height_px=int(told["height_px"]),
            rate_fps=int(told["rate_fps"]),
            frames=tuple(
                Frame(
                    file=str(row["file"]),
                    pointer_px=tuple(row["pointer_px"]) if row["pointer_px"] else None,
                    pressed=bool(row["pressed"]),
                )
                for row in told["frames"]
            ),
        )
    except (OSError, ValueError, KeyError, TypeError) as error:
        raise ClipError(
            f"The frames in {folder} cannot be read.", hint="Take the clip again.", code="clip_unreadable"
        ) from error


def require_rate(rate_fps: int) -> None:
    """Refuse a number of frames a second that is not possible."""
    if not 1 <= rate_fps <= MOST_RATE_FPS:
        raise ClipError(
            f"{str(rate_fps)[:20]} frames a second are not possible.",
            hint=f"Give 1 to {MOST_RATE_FPS}.",
            code="rate_impossible",
        )


def too_long() -> ClipError:
    """What is said of a clip that lasts too long."""
    return ClipError(
        f"A clip lasts at most {MOST_SECONDS} s.",
        hint="Scroll faster or less far, or take fewer seconds.",
        code="clip_too_long",
    )
