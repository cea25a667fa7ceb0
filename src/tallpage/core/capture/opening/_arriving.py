"""Getting to the page that was asked for: signed in, answered, with the steps done."""

from __future__ import annotations

from dataclasses import dataclass

from tallpage.core.capture._request import PageRequest, Progress
from tallpage.core.capture.browser._page_session import PageSession
from tallpage.core.capture.browser._starting import Browser
from tallpage.core.capture.layout._walk import GoOn
from tallpage.core.capture.opening._sign_in import FormSignIn, looks_like_sign_in
from tallpage.core.capture.opening._steps import Step
from tallpage.core.errors import PageError, PageUnreachable

_TRANSIENT = ("page_reset", "page_empty", "page_refused")
_TRANSIENT_STATUSES = (502, 503, 504)
_PASSWORD_FIELD = "input[type=password]"  # noqa: S105  (a selector, not a secret)
_NAME_FIELD = "input:not([type]), input[type=text], input[type=email], input[type=tel]"


@dataclass(frozen=True, slots=True, kw_only=True)
class Opened:
    """How a page answered."""

    status: int
    loaded: bool
    """Whether it called itself loaded in time."""


def open_signed_in(browser: Browser, page: PageSession, request: PageRequest) -> Opened:
    """Open the request's address, signed in as it says.

    A sign-in that the browser remembers is used first, and made anew when it does not hold any more.
    """
    sign_in = request.sign_in
    if not isinstance(sign_in, FormSignIn):
        return _open(page, request)
    if browser.is_signed_in(sign_in):
        opened = _open(page, request)
        if not met_sign_in(page, request, opened.status):
            return opened
        browser.forget_sign_in(sign_in)
    _fill_in(page, sign_in, request)
    opened = _open(page, request)
    if not met_sign_in(page, request, opened.status):
        browser.remember_sign_in(sign_in, page)
    return opened


def _open(page: PageSession, request: PageRequest) -> Opened:
    status = _answer(page, request)
    loaded = page.wait_loaded(timeout_ms=request.timeouts.load_ms)
    page.point_nowhere(timeout_ms=request.timeouts.operation_ms)
    return Opened(status=status, loaded=loaded)


def _answer(page: PageSession, request: PageRequest) -> int:
    """The status of the answer; what may have been a hiccup is tried again after a while."""
    timeouts = request.timeouts
    for pause_ms in timeouts.again_after_ms:
        try:
            status = page.goto(request.address, timeout_ms=timeouts.answer_ms)
            if status not in _TRANSIENT_STATUSES:
                return status
        except PageUnreachable as error:
            if error.code not in _TRANSIENT:
                raise
        page.pause(pause_ms)
    return page.goto(request.address, timeout_ms=timeouts.answer_ms)


def met_sign_in(page: PageSession, request: PageRequest, status: int) -> bool:
    """Whether the page that came asks for a sign-in, instead of being what was asked for."""
    page.note_where()
    seen = page.run("opening/sign_in_seen", timeout_ms=request.timeouts.operation_ms)
    return looks_like_sign_in(
        asked=request.address,
        final=page.address,
        status=status,
        password_fields=seen["passwordFields"],
        text_chars=seen["textChars"],
    )


def _fill_in(page: PageSession, sign_in: FormSignIn, request: PageRequest) -> None:
    """Sign in by the form; fields that were not told are the ones that such forms have."""
    timeouts = request.timeouts
    page.goto(sign_in.address, timeout_ms=timeouts.answer_ms)
    page.wait_loaded(timeout_ms=timeouts.load_ms)
    password_field = sign_in.password_field or _PASSWORD_FIELD
    try:
        page.fill(sign_in.name_field or _NAME_FIELD, sign_in.name, timeout_ms=timeouts.step_ms)
        if not page.shows(password_field):
            page.press("Enter")  # some forms ask for the name first, and for the password afterwards
        page.fill(password_field, sign_in.password, timeout_ms=timeouts.step_ms)
        if sign_in.button:
            page.click(sign_in.button, timeout_ms=timeouts.step_ms)
        else:
            page.press("Enter")
    except PageError as error:
        if error.code == "element_malformed":
            raise
        raise PageError(
            f"The sign-in page {sign_in.address} could not be filled in: {error.sentence}",
            hint="Open it in a browser, and tell its fields by CSS selectors in the saved sign-in.",
            code="sign_in_failed",
        ) from error
    page.wait_rested(timeout_ms=timeouts.load_ms)


@dataclass(frozen=True, slots=True, kw_only=True)
class StepsDone:
    """Steps as lines, in order: those that were done, and those that could not be."""

    done: tuple[str, ...] = ()
    failed: tuple[str, ...] = ()


def do_steps(page: PageSession, request: PageRequest, go_on: GoOn) -> StepsDone:
    """Do what a person would do before the picture. One that fails is told of; the rest is tried."""
    if not request.steps:
        return StepsDone()
    page.run("opening/note_fixed_overlays", timeout_ms=request.timeouts.operation_ms)
    done, failed = [], []
    for number, step in enumerate(request.steps):
        go_on(Progress(stage="steps", done=number, expected=len(request.steps)))
        try:
            _do(page, step, request.timeouts.step_ms)
            done.append(str(step))
        except PageError as error:
            if error.code not in ("element_missing", "step_failed"):
                raise
            failed.append(str(step))
        page.wait_rested(timeout_ms=request.timeouts.quiet_ms)
        page.note_where()
    return StepsDone(done=tuple(done), failed=tuple(failed))


def _do(page: PageSession, step: Step, timeout_ms: int) -> None:
    match step.kind:
        case "hover":
            page.hover(step.target, timeout_ms=timeout_ms)
        case "click":
            page.click(step.target, timeout_ms=timeout_ms)
        case "type":
            page.fill(step.target, step.text, timeout_ms=timeout_ms)
        case "press":
            page.press(step.text)
        case "scroll":
            page.scroll_to(step.target, timeout_ms=timeout_ms)
        case "wait_for":
            page.find(step.target, timeout_ms=timeout_ms)
        case "pause":
            page.pause(step.pause_ms)
