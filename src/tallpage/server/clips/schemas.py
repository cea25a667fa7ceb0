"""Clips on the wire."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from ninja import Field, Schema

from tallpage.core.capture import SignIn
from tallpage.core.capture.clip import USUAL_RATE_FPS, ClipRequest, Scroll
from tallpage.core.clip import (
    LEAST_WIDTH_PX,
    MOST_ON_FRAMES,
    MOST_RATE_FPS,
    MOST_SECONDS,
    MOST_WIDTH_PX,
    ClipDocument,
    ClipFormat,
    HiddenOnFrames,
    MarkOnFrames,
    Palette,
)
from tallpage.core.geometry import Box
from tallpage.server.jobs.schemas import JobOut
from tallpage.server.shelf.routes.schemas import ScreenIn, StepSchema, TakeSettings

MOST_FRAMES = MOST_SECONDS * MOST_RATE_FPS
_MOST_LISTED = 20


class ClipIn(Schema):
    """A clip to take: of a page that is scrolled through, used, or watched."""

    address: str = Field(max_length=4_000)
    screen: ScreenIn = Field(default_factory=ScreenIn)
    kind: Literal["scroll", "steps", "watch"] = "scroll"
    from_px: int = 0
    to_px: int | None = None
    speed_px_s: int | None = None
    pause_s: float = 0
    steps: list[StepSchema] = Field(default=[], max_length=_MOST_LISTED)
    seconds: float = 0
    element: str = Field(default="", max_length=2_000)
    rate_fps: int = USUAL_RATE_FPS

    def as_request(self, address: str, sign_in: SignIn | None = None) -> ClipRequest:
        """The request as the core knows it.

        Raises:
            ClipError, PageError, ScreenError: something that is not possible, or a step that is none.
        """
        scrolls = self.kind == "scroll"
        plain = TakeSettings(steps=self.steps)
        return ClipRequest(
            page=plain.as_request(address, self.screen.as_screen(), sign_in),
            scroll=Scroll(
                from_px=self.from_px, to_px=self.to_px, speed_px_s=self.speed_px_s, pause_s=self.pause_s
            )
            if scrolls
            else None,
            plays_steps=self.kind == "steps",
            seconds=0 if scrolls else self.seconds,
            element="" if scrolls else self.element,
            rate_fps=self.rate_fps,
        )


class SharedKeyOut(Schema):
    """By which key the frames of a shared screen are sent."""

    key: str


class SharedEndIn(Schema):
    """What the clip of a shared screen is called, how many frames it has, and how many are seen a second."""

    name: str = Field(min_length=1, max_length=500)
    frame_count: int = Field(ge=1, le=MOST_FRAMES)
    rate_fps: int


class ClipBox(Schema):
    """A part of the frames, in px of their pictures."""

    x_px: int = Field(ge=0)
    y_px: int = Field(ge=0)
    width_px: int = Field(ge=1)
    height_px: int = Field(ge=1)


class ClipDocumentSchema(Schema):
    """How a clip is seen; ``dropped`` are frames counted from 0."""

    dropped: list[int] = Field(default=[], max_length=MOST_FRAMES)
    keep_every: int = 1
    speed: float = 1.0
    there_and_back: bool = False
    hold_start_ms: int = 0
    hold_end_ms: int = 0
    repeats: int = 0
    box: ClipBox | None = None
    pointer: bool = True
    hidden: list[HiddenOnFrames] = Field(default=[], max_length=MOST_ON_FRAMES)
    marks: list[MarkOnFrames] = Field(default=[], max_length=MOST_ON_FRAMES)

    def as_document(self) -> ClipDocument:
        """The document as the core knows it.

        Raises:
            ClipError: something in it is not possible.
        """
        plain = self.model_dump(exclude={"dropped", "box", "hidden", "marks"})
        box = None if self.box is None else Box(**self.box.model_dump())
        return ClipDocument(
            dropped=frozenset(self.dropped),
            box=box,
            hidden=tuple(self.hidden),
            marks=tuple(self.marks),
            **plain,
        )


class ClipChangeIn(Schema):
    """Another document, and the revision that it was made from."""

    revision: int
    document: ClipDocumentSchema


class ClipOutputIn(Schema):
    """A file to be made; the width is at most that of what is seen."""

    format: ClipFormat
    limit_bytes: int = Field(ge=1, le=10**9)
    width_px: int | None = Field(default=None, ge=LEAST_WIDTH_PX, le=MOST_WIDTH_PX)
    keeps_width: bool = False
    palette: Palette = "all"


class ClipAdviceOut(Schema):
    """One thing that would help where a limit cannot be met; ``value`` is bytes or ms."""

    kind: Literal["format", "limit", "length"]
    value: int
    sentence: str


class ClipOutputOut(Schema):
    """A file of a clip, and what was given up for its limit."""

    id: int
    format: ClipFormat
    limit_bytes: int
    wanted_width_px: int | None
    job: JobOut
    bytes: int
    width_px: int
    height_px: int
    pictures: int
    pictures_wanted: int
    duration_ms: int
    fidelity: float
    met: bool
    given_up: list[str]
    advice: list[ClipAdviceOut]
    document: ClipDocumentSchema
    """How the clip was seen when this was asked for."""


class ClipRow(Schema):
    """A clip in the list of all."""

    id: int
    name: str
    address: str
    job: JobOut
    frame_count: int
    rate_fps: int
    revision: int
    created_at: datetime


class ClipOut(ClipRow):
    """A clip with its frames, and the files that were made of it."""

    width_px: int
    height_px: int
    warnings: list[str]
    document: ClipDocumentSchema
    files: list[str]
    """Which picture each frame shows: those of the same name show the same."""
    outputs: list[ClipOutputOut]
