"""What a person does with pointer, finger and keys, as the browser is told of it. Pure.

Places are CSS px from the window's top left corner; ``modifiers`` adds 1 for Alt, 2 for Control, 4 for
Meta and 8 for Shift. Source: Chrome DevTools Protocol, Input domain.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Literal

Command = tuple[str, dict[str, Any]]
"""A method of the protocol and its parameters."""


@dataclass(frozen=True, slots=True)
class Pointer:
    """Where the pointer is in the window, CSS px."""

    x_px: float
    y_px: float


@dataclass(frozen=True, slots=True, kw_only=True)
class PointerInput:
    """The pointer is moved, a button goes down or up, or the wheel is turned."""

    kind: Literal["move", "down", "up", "wheel"]
    x_px: float
    y_px: float
    button: Literal["none", "left", "middle", "right"] = "none"
    buttons: int = 0
    """Which are down: 1 for the left, 2 for the right, 4 for the middle one."""
    clicks: int = 0
    modifiers: int = 0
    right_px: float = 0
    down_px: float = 0
    """How far the wheel scrolls."""

    def as_command(self) -> Command:
        """How the browser is told."""
        kinds = {"move": "mouseMoved", "down": "mousePressed", "up": "mouseReleased", "wheel": "mouseWheel"}
        told: dict[str, Any] = {
            "type": kinds[self.kind],
            "x": self.x_px,
            "y": self.y_px,
            "button": self.button,
            "buttons": self.buttons,
            "clickCount": self.clicks,
            "modifiers": self.modifiers,
        }
        if self.kind == "wheel":
            told |= {"deltaX": self.right_px, "deltaY": self.down_px}
        return "Input.dispatchMouseEvent", told


@dataclass(frozen=True, slots=True, kw_only=True)
class TouchInput:
    """Fingers on the screen: where each is that still touches it, as (x, y, number of the finger)."""

    kind: Literal["start", "move", "end", "cancel"]
    fingers: tuple[tuple[float, float, int], ...] = ()
    modifiers: int = 0

    def as_command(self) -> Command:
        """How the browser is told."""
        kinds = {"start": "touchStart", "move": "touchMove", "end": "touchEnd", "cancel": "touchCancel"}
        points = [{"x": x_px, "y": y_px, "id": number} for x_px, y_px, number in self.fingers]
        told = {"type": kinds[self.kind], "touchPoints": points, "modifiers": self.modifiers}
        return "Input.dispatchTouchEvent", told


@dataclass(frozen=True, slots=True, kw_only=True)
class KeyInput:
    """A key goes down or up; ``text`` is what it types, if anything."""

    kind: Literal["down", "up"]
    key: str
    code: str = ""
    key_code: int = 0
    text: str = ""
    modifiers: int = 0
    repeats: bool = False

    def as_command(self) -> Command:
        """How the browser is told."""
        kind = "keyUp" if self.kind == "up" else "keyDown" if self.text else "rawKeyDown"
        told: dict[str, Any] = {
            "type": kind,
            "key": self.key,
            "code": self.code,
            "windowsVirtualKeyCode": self.key_code,
            "modifiers": self.modifiers,
            "autoRepeat": self.repeats,
        }
        if kind == "keyDown":
            told |= {"text": self.text, "unmodifiedText": self.text}
        return "Input.dispatchKeyEvent", told


@dataclass(frozen=True, slots=True, kw_only=True)
class TextInput:
    """A text that comes as a whole: composed, pasted, or from the field beside the page."""

    text: str

    def as_command(self) -> Command:
        """How the browser is told."""
        return "Input.insertText", {"text": self.text}


Input = PointerInput | TouchInput | KeyInput | TextInput


def takes_place_of(later: Input, earlier: Input) -> bool:
    """Whether an input that waits to be done can be left out, because of the one that came after it."""
    if isinstance(later, PointerInput) and isinstance(earlier, PointerInput):
        return later.kind == earlier.kind == "move" and later.buttons == earlier.buttons
    if isinstance(later, TouchInput) and isinstance(earlier, TouchInput):
        return later.kind == earlier.kind == "move"
    return False
