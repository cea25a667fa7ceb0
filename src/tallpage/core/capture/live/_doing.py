"""What a person does on a live page is done there, and noted as steps."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from tallpage.core.capture.browser._page_session import PageSession
from tallpage.core.capture.live._events import Choices, Focused, Recorded, Said
from tallpage.core.capture.live._input import Input, KeyInput, Pointer, PointerInput, TextInput, TouchInput
from tallpage.core.capture.live._recording import Recording
from tallpage.core.errors import PageError

_TIMEOUT_MS = 20_000
_STILL_PX = 6
"""How far a pointer may move between down and up for it to be a click."""
_MORE_WORDS = 2
"""How many words more are seen when something opened under the pointer."""
_EDITING = frozenset({"Backspace", "Delete"})
_ENDED = ("page_hung", "browser_closed", "page_crashed")
_USES = frozenset({"Enter", " "})

Hear = Callable[[Choices | Focused | Recorded | Said], None]


class Doing:
    """One page of a visit in a person's hands. Belongs to the page's own thread."""

    def __init__(self, page: PageSession, hear: Hear) -> None:
        self._page, self._hear = page, hear
        self._recording = Recording()
        self._pressed: tuple[float, float, str | None] | None = None
        """Where the pointer or finger went down, and the target of what is there."""
        self._typing = False
        self._scrolled = False
        self._moved = False
        self._words_seen: int | None = None
        self._scrolled_px = (0, 0)
        self._swallowing = False
        self._focused: Focused | None = None
        self.pointer: Pointer | None = None
        """Where the pointer is in the window, once it was moved there."""

    @property
    def recording(self) -> Recording:
        """What was done so far."""
        return self._recording

    def loaded(self, address: str) -> None:
        """Another page is there, or the same one anew."""
        self._note(self._recording.loaded(address))
        self._words_seen, self._scrolled_px = None, (0, 0)
        self._typing = self._scrolled = self._moved = False

    def do(self, given: Input) -> None:
        """Do on the page what a person did."""
        if self._before(given):
            method, told = given.as_command()
            self._page.devtools.send(method, told)

    def choose(self, number: int) -> None:
        """Choose from the list that was opened, counted from 0."""
        row = self._run("live/choose", number)
        if row is not None:
            target = self._target(row)
            if target is not None:
                self._note(self._recording.typed(target, row["value"]))

    def forget(self, number: int) -> None:
        """Leave a step out."""
        self._note(self._recording.without(number))

    def look(self) -> None:
        """Note how the page stands once it has loaded, before anything is done on it."""
        stands = self._run("live/at_rest", {"scrolled": False})
        if stands is not None and self._words_seen is None:
            self._words_seen, self._scrolled_px = stands["words"], (stands["xPx"], stands["yPx"])

    def rest(self) -> None:
        """The page rests: what the last things brought about can be seen."""
        self.finish_typing()
        stands = self._run("live/at_rest", {"scrolled": self._scrolled})
        if stands is None:
            return
        place_px = (stands["xPx"], stands["yPx"])
        if self._scrolled and place_px != self._scrolled_px and stands["scrolledTo"] is not None:
            target = self._target(stands["scrolledTo"])
            if target is not None:
                self._note(self._recording.scrolled(target))
        opened = self._words_seen is not None and stands["words"] >= self._words_seen + _MORE_WORDS
        if self._moved and not self._scrolled and opened and self.pointer is not None:
            target = self._target_at(self.pointer.x_px, self.pointer.y_px)
            if target is not None:
                self._note(self._recording.pointed(target))
        self._words_seen, self._scrolled_px = stands["words"], place_px
        self._scrolled = self._moved = False
        self._tell_focus(stands["focused"])

    def finish_typing(self) -> None:
        """Note what the field that was typed into holds."""
        if not self._typing:
            return
        self._typing = False
        focused = self._run("live/focused")
        if focused is None or not focused["typed"]:
            return
        target = self._target(focused)
        if target is None:
            return
        if focused["secret"]:
            self._note(self._recording.typed_password(target))
        else:
            self._note(self._recording.typed(target, focused["value"]))

    def describe(
        self, x_px: float, y_px: float, *, outer: int, panel: bool
    ) -> tuple[dict[str, Any], str] | None:
        """What is at a place of the window, and the target that leads to it."""
        place = {"x": x_px, "y": y_px, "outer": outer, "panel": panel}
        row = self._run("live/element_at", place)
        target = self._target(row) if row is not None else None
        return (row, target) if row is not None and target is not None else None

    def _before(self, given: Input) -> bool:
        """Note what is about to be done; False where it is done otherwise than by the input."""
        match given:
            case PointerInput():
                return self._before_pointer(given)
            case TouchInput():
                self._before_touch(given)
            case KeyInput(kind="down"):
                self._before_key(given)
            case TextInput():
                self._typing = True
            case _:
                pass
        return True

    def _before_pointer(self, given: PointerInput) -> bool:
        self.pointer = Pointer(given.x_px, given.y_px)
        if given.kind == "move":
            self._moved = True
        elif given.kind == "wheel":
            self._scrolled = True
        elif given.kind == "down" and given.button == "left":
            return self._press(given.x_px, given.y_px)
        elif given.kind == "up" and given.button == "left":
            if self._swallowing:
                self._swallowing = False
                return False
            self._release(given.x_px, given.y_px)
        return True

    def _before_touch(self, given: TouchInput) -> None:
        if given.kind == "start" and len(given.fingers) == 1:
            x_px, y_px, _ = given.fingers[0]
            self._press(x_px, y_px)
        elif given.kind == "move":
            self._scrolled, self._pressed = True, None
        elif given.kind == "end" and self._pressed is not None:
            self._release(self._pressed[0], self._pressed[1])

    def _press(self, x_px: float, y_px: float) -> bool:
        self.finish_typing()
        row = self._run("live/used_at", {"x": x_px, "y": y_px})
        self._moved = False  # what shows from now on shows because of the click
        if row is None:
            self._pressed = None
            return True
        if row["inFrame"]:
            self._note(self._recording.in_frame())
            self._pressed = None
            return True
        if row["options"] is not None:
            # The browser's own list would open beside the page, where nobody sees it.
            self._swallowing = True
            self._hear(Choices(tuple(row["options"]), row["chosen"]))
            return False
        self._pressed = (x_px, y_px, self._target(row))
        return True

    def _release(self, x_px: float, y_px: float) -> None:
        pressed, self._pressed = self._pressed, None
        if pressed is None or pressed[2] is None:
            return
        if abs(pressed[0] - x_px) <= _STILL_PX and abs(pressed[1] - y_px) <= _STILL_PX:
            self._note(self._recording.clicked(pressed[2]))

    def _before_key(self, given: KeyInput) -> None:
        self._moved = False
        if (given.text and given.key not in _USES) or given.key in _EDITING:
            self._typing = True
            return
        if given.key == "Tab":
            self.finish_typing()
            return
        focused = self._run("live/focused")
        in_field = focused is not None and focused["typed"]
        if given.key in _USES and in_field and given.key == " ":
            self._typing = True
            return
        self.finish_typing()
        if given.key in _USES and focused is not None and not in_field:
            target = self._target(focused)
            if target is not None:
                self._note(self._recording.clicked(target))
        elif given.key in ("Enter", "Escape") or (focused is not None and not in_field):
            self._note(self._recording.pressed(given.key))
        else:
            self._scrolled = True

    def _target_at(self, x_px: float, y_px: float) -> str | None:
        row = self._run("live/used_at", {"x": x_px, "y": y_px})
        return self._target(row) if row is not None and not row["inFrame"] else None

    def _target(self, row: dict[str, Any]) -> str | None:
        """The first way that leads to what a page script has just noted as meant."""
        for way in row["ways"]:
            try:
                if self._page.first_is(way, "live/is_meant"):
                    return str(way)
            except PageError as error:
                if error.code in _ENDED:
                    raise
        return None

    def _run(self, script: str, argument: object = None) -> Any:
        """What a page script says; None on a page that is just giving way to another."""
        try:
            return self._page.run(script, argument, timeout_ms=_TIMEOUT_MS)
        except PageError as error:
            if error.code in _ENDED:
                raise
            return None

    def _note(self, recording: Recording) -> None:
        if recording != self._recording:
            self._recording = recording
            self._hear(Recorded(recording))

    def _tell_focus(self, row: dict[str, Any] | None) -> None:
        focused = Focused(
            kind=row["kind"] if row else "",
            label=row["label"] if row else "",
            typed=bool(row and row["typed"]),
        )
        if focused != self._focused:
            self._focused = focused
            self._hear(focused)
