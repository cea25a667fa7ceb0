"""What the interface and a live page say to each other, as JSON; frames are bytes."""

from __future__ import annotations

import struct
from dataclasses import asdict
from typing import Annotated, Any, Literal

from pydantic import BaseModel, Field, TypeAdapter, ValidationError

from tallpage.core.capture import Scheme
from tallpage.core.capture.live import (
    Choices,
    DialogClosed,
    DialogOpened,
    Event,
    Failed,
    Focused,
    Frame,
    KeyInput,
    LiveExtent,
    NotTaken,
    Place,
    Pointed,
    PointerInput,
    Recorded,
    Said,
    Stuck,
    Taking,
    TextInput,
    TouchInput,
)
from tallpage.core.errors import PageError, TallPageError
from tallpage.core.geometry import Box
from tallpage.server.shelf.routes.schemas import ScreenIn

_FURTHEST_PX = 100_000.0
_MOST_STEPS = 1_000
_FRAME_HEAD = struct.Struct(">BI")

_Px = Annotated[float, Field(ge=-_FURTHEST_PX, le=_FURTHEST_PX)]
_Number = Annotated[int, Field(ge=0, le=2**32 - 1)]
_Modifiers = Annotated[int, Field(ge=0, le=15)]


class Open(BaseModel):
    """Open an address, on a screen where no page is open yet."""

    kind: Literal["open"]
    address: str = Field(max_length=10_000)
    screen: ScreenIn = ScreenIn()
    scheme: Scheme = "light"
    language: str = Field("en-GB", max_length=40)


class Move(BaseModel):
    """Back, on, or the same again."""

    kind: Literal["move"]
    by: Literal[-1, 0, 1]


class PointerIn(BaseModel):
    """The pointer moved, a button or the wheel."""

    kind: Literal["pointer"]
    number: _Number
    act: Literal["move", "down", "up", "wheel"]
    x_px: _Px
    y_px: _Px
    button: Literal["none", "left", "middle", "right"] = "none"
    buttons: int = Field(0, ge=0, le=7)
    clicks: int = Field(0, ge=0, le=3)
    modifiers: _Modifiers = 0
    right_px: _Px = 0
    down_px: _Px = 0

    def as_input(self) -> PointerInput:
        """As the core knows it."""
        return PointerInput(kind=self.act, **self.model_dump(exclude={"kind", "act", "number"}))


class TouchIn(BaseModel):
    """Fingers, each as (x, y, number)."""

    kind: Literal["touch"]
    number: _Number
    act: Literal["start", "move", "end", "cancel"]
    fingers: list[tuple[_Px, _Px, Annotated[int, Field(ge=0, le=20)]]] = Field(max_length=10)
    modifiers: _Modifiers = 0

    def as_input(self) -> TouchInput:
        """As the core knows it."""
        return TouchInput(kind=self.act, fingers=tuple(self.fingers), modifiers=self.modifiers)


class KeyIn(BaseModel):
    """A key."""

    kind: Literal["key"]
    number: _Number
    act: Literal["down", "up"]
    key: str = Field(max_length=40)
    code: str = Field("", max_length=40)
    key_code: int = Field(0, ge=0, le=255)
    text: str = Field("", max_length=8)
    modifiers: _Modifiers = 0
    repeats: bool = False

    def as_input(self) -> KeyInput:
        """As the core knows it."""
        return KeyInput(kind=self.act, **self.model_dump(exclude={"kind", "act", "number"}))


class TextIn(BaseModel):
    """A text as a whole."""

    kind: Literal["text"]
    number: _Number
    text: str = Field(min_length=1, max_length=10_000)

    def as_input(self) -> TextInput:
        """As the core knows it."""
        return TextInput(text=self.text)


class Drawn(BaseModel):
    """The last frame is on the screen."""

    kind: Literal["drawn"]


class Point(BaseModel):
    """What is there, or what does that lie in?"""

    kind: Literal["point"]
    x_px: _Px
    y_px: _Px
    outer: int = Field(0, ge=0, le=100)
    panel: bool = False


class Choose(BaseModel):
    """One of the choices."""

    kind: Literal["choose"]
    number: int = Field(ge=0, le=100_000)


class Answer(BaseModel):
    """To what the page asks."""

    kind: Literal["answer"]
    accept: bool
    text: str = Field("", max_length=10_000)


class Forget(BaseModel):
    """A step is to be left out."""

    kind: Literal["forget"]
    number: int = Field(ge=0, le=_MOST_STEPS)


class AreaIn(BaseModel):
    """A box of the window, CSS px."""

    x_px: int = Field(ge=0, le=10_000)
    y_px: int = Field(ge=0, le=10_000)
    width_px: int = Field(ge=1, le=10_000)
    height_px: int = Field(ge=1, le=10_000)

    def as_box(self) -> Box:
        """As the core knows it."""
        return Box(**self.model_dump())


class Take(BaseModel):
    """A picture; with an ``area``, what is seen is taken, and its first cut is the area."""

    kind: Literal["take"]
    extent: LiveExtent
    target: str = Field("", max_length=2_000)
    area: AreaIn | None = None


class Plain(BaseModel):
    """What needs nothing besides: stay open, save the sign-in, open it again, close."""

    kind: Literal["stay", "keep_sign_in", "open_again", "close"]


Message = Annotated[
    Open
    | Move
    | PointerIn
    | TouchIn
    | KeyIn
    | TextIn
    | Drawn
    | Point
    | Choose
    | Answer
    | Forget
    | Take
    | Plain,
    Field(discriminator="kind"),
]
_MESSAGES: TypeAdapter[Message] = TypeAdapter(Message)


def read_message(data: str | bytes) -> Message:
    """A message of the interface.

    Raises:
        PageError: it is none; the sentence says what is wrong with it.
    """
    try:
        return _MESSAGES.validate_json(data)
    except ValidationError as error:
        first = error.errors(include_url=False)[0]
        where = ".".join(str(part) for part in first["loc"])
        raise PageError(f"{where or 'The message'}: {first['msg']}.", code="malformed") from error


def frame_bytes(frame: Frame) -> bytes:
    """One byte for a sharp picture (1) or a moving one (0), four for the input it came after, the file."""
    return _FRAME_HEAD.pack(frame.sharp, frame.after_input) + frame.data


def told(event: Event) -> dict[str, Any] | None:
    """What the interface is told of an event; None for what it hears of otherwise."""
    match event:
        case Place():
            return {
                "kind": "place",
                "address": event.address,
                "title": event.title,
                "loading": event.loading,
            }
        case DialogOpened():
            return {
                "kind": "dialog",
                "asks": event.kind,
                "message": event.message,
                "default": event.default,
            }
        case DialogClosed():
            return {"kind": "dialog", "asks": None}
        case Said(sentence):
            return {"kind": "said", "sentence": sentence}
        case Stuck():
            return {"kind": "stuck"}
        case Recorded(recording):
            return {
                "kind": "steps",
                "address": recording.address,
                "steps": [str(step) for step in recording.steps],
                "left_out": sorted(recording.left_out),
            }
        case Focused():
            return {"kind": "focus", "of": event.kind, "label": event.label, "typed": event.typed}
        case Pointed(box, target, words):
            return {"kind": "pointed", "box": asdict(box) if box else None, "target": target, "words": words}
        case Choices(options, chosen):
            return {"kind": "choices", "options": list(options), "chosen": chosen}
        case Taking(progress):
            return {
                "kind": "taking",
                "stage": progress.stage,
                "done": progress.done,
                "expected": progress.expected,
            }
        case NotTaken():
            return {"kind": "not_taken", **problem_of(event.error)}
        case Failed(error):
            return {"kind": "failed", **problem_of(error)}
        case _:
            return None


def problem_of(error: TallPageError) -> dict[str, str]:
    """An error as it is told."""
    return {"sentence": error.sentence, "hint": error.hint, "code": error.code}
