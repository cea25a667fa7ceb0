"""What moves, and what is done, as it is seen: the page's time passes frame by frame."""

from __future__ import annotations

from collections.abc import Callable

from tallpage.core.capture._request import Progress
from tallpage.core.capture.browser._page_session import PageSession
from tallpage.core.capture.clip._request import ClipRequest
from tallpage.core.capture.clip._time import PageTime
from tallpage.core.capture.opening._arriving import StepsDone
from tallpage.core.capture.opening._steps import Step
from tallpage.core.clip import FramesWriter
from tallpage.core.errors import PageError
from tallpage.core.geometry import Box

_BEFORE_S = 0.4
"""How long the page is seen before the first step."""
_WAY_S = 0.5
"""How long the pointer takes to where it is needed."""
_PRESSED_S = 0.25
_AFTER_S = 0.8
"""How long is seen what a step brought about."""
_LETTER_S = 0.12
_NOT_DONE = ("element_missing", "step_failed")


def take_movement(
    page: PageSession,
    request: ClipRequest,
    steps: StepsDone,
    writer: FramesWriter,
    go_on: Callable[[Progress], bool],
) -> StepsDone:
    """Play the steps if they are to be seen, and watch the page; which steps were done is returned."""
    camera = _Camera(page, request, writer, go_on)
    if request.plays_steps:
        steps = _Player(page, request, camera).play()
    camera.see(request.seconds)
    return steps


class _Camera:
    """Takes frames of the window or of an element, while the page's time passes."""

    def __init__(
        self,
        page: PageSession,
        request: ClipRequest,
        writer: FramesWriter,
        go_on: Callable[[Progress], bool],
    ) -> None:
        self._page, self._request, self._writer, self._go_on = page, request, writer, go_on
        self._timeout_ms = request.page.timeouts.operation_ms
        self._taken = 0
        self.pointer: tuple[float, float] | None = None
        """In CSS px of the window."""
        self._size: Box | None = None
        if request.element:
            page.scroll_to(request.element, timeout_ms=request.page.timeouts.step_ms)
            self._size = self._element_px()
        self._time = PageTime(page, timeout_ms=self._timeout_ms)

    def see(self, seconds: float, *, pressed: bool = False) -> None:
        """Let time pass, and take what is seen."""
        for _ in range(round(seconds * self._request.rate_fps)):
            self.take(pressed=pressed)

    def take(self, *, pressed: bool = False) -> None:
        """Take one frame, and let its time pass."""
        self._go_on(Progress(stage="taking", done=self._taken))
        scale = self._request.page.screen.scale
        box, in_view = self._window()
        pointer = None
        if self.pointer is not None:
            scrolled = self._scrolled_px()
            pointer = (
                round((self.pointer[0] + scrolled[0] - box.x_px) * scale),
                round((self.pointer[1] + scrolled[1] - box.y_px) * scale),
            )
        self._writer.add(
            self._page.picture(box, timeout_ms=self._timeout_ms, in_view=in_view),
            pointer_px=pointer,
            pressed=pressed,
        )
        self._taken += 1
        self._time.pass_until(round(self._taken * 1_000 / self._request.rate_fps))

    def _scrolled_px(self) -> tuple[int, int]:
        box = self._page.run("live/window", timeout_ms=self._timeout_ms)["box"]
        return box["x_px"], box["y_px"]

    def _window(self) -> tuple[Box, bool]:
        """What is taken, on the page, and whether it lies in the window."""
        screen = self._request.page.screen
        x_px, y_px = self._scrolled_px()
        window = Box(x_px=x_px, y_px=y_px, width_px=screen.width_px, height_px=screen.height_px)
        if self._size is None:
            return window, True
        try:
            now = self._element_px()
        except PageError as error:
            if error.code not in _NOT_DONE:
                raise
            now = self._size  # gone: its place is seen
        # All frames have the size of the first.
        box = Box(x_px=now.x_px, y_px=now.y_px, width_px=self._size.width_px, height_px=self._size.height_px)
        return box, window.overlap(box) == box

    def _element_px(self) -> Box:
        element = self._page.find(self._request.element, timeout_ms=self._request.page.timeouts.step_ms)
        row = self._page.run("clip/place", {"element": element}, timeout_ms=self._timeout_ms)
        return Box(
            x_px=max(0, round(row["xPx"] + row["scrolledPx"][0])),
            y_px=max(0, round(row["yPx"] + row["scrolledPx"][1])),
            width_px=max(1, round(row["widthPx"])),
            height_px=max(1, round(row["heightPx"])),
        )


class _Player:
    """Does steps as a person is seen to do them."""

    def __init__(self, page: PageSession, request: ClipRequest, camera: _Camera) -> None:
        self._page, self._request, self._camera = page, request, camera
        self._timeouts = request.page.timeouts

    def play(self) -> StepsDone:
        """All steps; one that fails is told of, and the rest is done."""
        done, failed = [], []
        self._camera.see(_BEFORE_S)
        for step in self._request.page.steps:
            try:
                self._do(step)
                done.append(str(step))
            except PageError as error:
                if error.code not in _NOT_DONE:
                    raise
                failed.append(str(step))
            self._page.wait_rested(timeout_ms=self._timeouts.quiet_ms)
            self._page.note_where()
            if step.kind != "pause":
                self._camera.see(_AFTER_S)
        return StepsDone(done=tuple(done), failed=tuple(failed))

    def _do(self, step: Step) -> None:
        timeout_ms = self._timeouts.step_ms
        match step.kind:
            case "pause":
                self._camera.see(step.pause_ms / 1_000)
            case "press":
                self._page.press(step.text)
            case "scroll":
                self._page.scroll_to(step.target, timeout_ms=timeout_ms)
            case "wait_for":
                self._wait_for(step)
            case "hover":
                self._go_to(step)
                self._page.hover(step.target, timeout_ms=timeout_ms)
            case "click":
                self._go_to(step)
                self._camera.see(_PRESSED_S, pressed=True)
                self._page.click(step.target, timeout_ms=timeout_ms)
            case "type":
                self._go_to(step)
                self._type(step)

    def _go_to(self, step: Step) -> None:
        """Move the pointer, seen, to the middle of what a step is about."""
        self._page.scroll_to(step.target, timeout_ms=self._timeouts.step_ms)
        element = self._page.find(step.target, timeout_ms=self._timeouts.step_ms)
        row = self._page.run("clip/place", {"element": element}, timeout_ms=self._timeouts.operation_ms)
        screen = self._request.page.screen
        start = self._camera.pointer or (screen.width_px / 2, screen.height_px / 2)
        end = (row["xPx"] + row["widthPx"] / 2, row["yPx"] + row["heightPx"] / 2)
        frames = max(1, round(_WAY_S * self._request.rate_fps))
        for number in range(1, frames + 1):
            share = number / frames
            share = share * share * (3 - 2 * share)  # slower at both ends
            x_px, y_px = (a + (b - a) * share for a, b in zip(start, end, strict=True))
            self._page.point_at(x_px, y_px, timeout_ms=self._timeouts.operation_ms)
            self._camera.pointer = (x_px, y_px)
            self._camera.take()

    def _type(self, step: Step) -> None:
        """Letter by letter; where a field takes no half text, or is a list, the whole at once."""
        timeout_ms = self._timeouts.step_ms
        for end in range(1, len(step.text)):
            try:
                self._page.fill(step.target, step.text[:end], timeout_ms=timeout_ms)
            except PageError as error:
                if error.code not in _NOT_DONE:
                    raise
                break
            self._camera.see(_LETTER_S)
        self._page.fill(step.target, step.text, timeout_ms=timeout_ms)

    def _wait_for(self, step: Step) -> None:
        most = round(self._timeouts.step_ms / 1_000 * self._request.rate_fps)
        for _ in range(most):
            if self._page.shows(step.target):
                return
            self._page.pause(round(1_000 / self._request.rate_fps))  # for answers, which come in real time
            self._camera.take()
        raise PageError(f"{step.target} did not come.", code="element_missing")
