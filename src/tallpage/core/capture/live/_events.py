"""What a live page tells of itself. Sizes in CSS px unless the name says otherwise."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path
from typing import Literal

from tallpage.core.capture._report import PageReport
from tallpage.core.capture._request import Progress
from tallpage.core.capture.live._recording import Recording
from tallpage.core.errors import TallPageError
from tallpage.core.geometry import Box
from tallpage.core.picture import StripManifest


@dataclass(frozen=True, slots=True)
class Frame:
    """A picture of the window, JPEG or PNG: smaller while it moves, in its own pixels once it rests."""

    data: bytes
    sharp: bool
    after_input: int
    """The last input that the page had been told of before."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Place:
    """Where the page is."""

    address: str
    title: str
    loading: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class DialogOpened:
    """The page asks something, and waits."""

    kind: Literal["alert", "confirm", "prompt", "beforeunload"]
    message: str
    default: str


@dataclass(frozen=True, slots=True)
class DialogClosed:
    """What the page asked has been answered."""


@dataclass(frozen=True, slots=True)
class Said:
    """Something that a person should hear of."""

    sentence: str


@dataclass(frozen=True, slots=True)
class Stuck:
    """The page has not reacted for a while to what was done."""


@dataclass(frozen=True, slots=True)
class Recorded:
    """What was done so far."""

    recording: Recording


@dataclass(frozen=True, slots=True, kw_only=True)
class Focused:
    """What of the page has the focus: its kind and how it is called; both empty for nothing."""

    kind: str
    label: str
    typed: bool
    """Whether it is a field that a text can be typed into."""


@dataclass(frozen=True, slots=True)
class Pointed:
    """What would be taken at the place that was asked for; None for nothing."""

    box_px: Box | None
    target: str = ""
    words: str = ""


@dataclass(frozen=True, slots=True)
class Choices:
    """A list of the page to choose from was opened: its options, and the one that is chosen."""

    options: tuple[str, ...]
    chosen: int


@dataclass(frozen=True, slots=True)
class Taking:
    """How far a picture is."""

    progress: Progress


@dataclass(frozen=True, slots=True, kw_only=True)
class Taken:
    """A picture was taken into a folder."""

    folder: Path
    manifest: StripManifest
    report: PageReport
    recording: Recording
    """What had been done until then."""


@dataclass(frozen=True, slots=True, kw_only=True)
class NotTaken:
    """A picture could not be taken."""

    error: TallPageError
    folder: Path
    """Where it would have been."""


@dataclass(frozen=True, slots=True)
class Failed:
    """The page could not be opened; another one can."""

    error: TallPageError


@dataclass(frozen=True, slots=True)
class Ended:
    """The browser is gone: closed, or (with an error) by itself."""

    error: TallPageError | None


Event = (
    Frame
    | Place
    | DialogOpened
    | DialogClosed
    | Said
    | Stuck
    | Recorded
    | Focused
    | Pointed
    | Choices
    | Taking
    | Taken
    | NotTaken
    | Failed
    | Ended
)
