"""Taking one page: open, do the steps, scroll through, settle, picture by picture into strips."""

from __future__ import annotations

import time
from dataclasses import replace
from pathlib import Path

from tallpage.core.capture._picture import NAMED_AT_MOST, Taken, picture_of
from tallpage.core.capture._report import PageReport
from tallpage.core.capture._request import AskStopMode, OnProgress, PageRequest, Progress
from tallpage.core.capture.browser._page_session import PageSession
from tallpage.core.capture.browser._starting import Browser
from tallpage.core.capture.layout._preparing import Prepared, prepare
from tallpage.core.capture.layout._walk import GoOn
from tallpage.core.capture.opening._arriving import do_steps, met_sign_in, open_signed_in
from tallpage.core.errors import Stopped
from tallpage.core.files import empty_folder
from tallpage.core.picture import StripManifest


def take_page(
    browser: Browser,
    request: PageRequest,
    folder: Path,
    *,
    on_progress: OnProgress = lambda _: None,
    ask_stop_mode: AskStopMode = lambda: "go_on",
) -> tuple[StripManifest, PageReport]:
    """Take ``request`` and write its strips and page map into ``folder``, which exists and is empty.

    Raises:
        PageError, PageUnreachable, AddressError: the page could not be taken.
        StorageError: a strip could not be written.
        Stopped: ``ask_stop_mode`` said so; what was written is left for the caller.
    """
    started = time.monotonic()
    timeouts = request.timeouts
    go_on = _asking(on_progress, ask_stop_mode)
    with browser.open_page(request) as page:
        go_on(Progress(stage="opening"))
        opened = open_signed_in(browser, page, request)
        still_loading = "" if opened.loaded else _still_loading(page, timeouts.load_ms)
        met_first = bool(request.steps) and met_sign_in(page, request, opened.status)
        steps = do_steps(page, request, go_on)
        prepared = prepare(page, request, steps, go_on)
        # What the steps brought up is not what the address led to.
        met = met_first if request.steps else met_sign_in(page, request, opened.status)
        taken = picture_of(page, request, prepared, folder, go_on, on_progress)
        if prepared.moves == "wheel" and not taken.moved:
            # The wheel does nothing here: the page is taken as any other.
            empty_folder(folder)
            again = prepare(page, request, steps, go_on, by_wheel=False)
            prepared = replace(again, left_out=(*prepared.left_out, *again.left_out))
            taken = picture_of(page, request, prepared, folder, go_on, on_progress)
        area, manifest = taken.area, taken.manifest
        taken_px = manifest.height_px // request.screen.scale
        warnings = [
            f"The page answered with status {opened.status}." if opened.status >= 400 else "",
            taken.wholeness.as_sentence(),
            _sign_in_warning(page, request) if met else "",
            still_loading,
            *(f"This step could not be done: {line}." for line in prepared.steps.failed),
            *what_lacks(page, request, prepared, taken),
        ]
        waited = (f"pause {request.wait_ms / 1_000:g}",) if request.wait_ms else ()
        report = PageReport(
            address=request.address,
            final_address=page.address,
            title=prepared.measured["title"],
            status=opened.status,
            screen=request.screen,
            page_width_px=area.box.width_px,
            page_height_px=taken_px,
            top_px=area.box.y_px,
            truncated=bool(taken.cut_off),
            warnings=tuple(warning for warning in warnings if warning),
            # Beside a part that was asked for, nothing is missed.
            left_out=prepared.left_out if request.extent in ("full", "view") else (),
            wholeness=taken.wholeness,
            done_before=prepared.steps.done + waited,
            signed_in=request.sign_in is not None and not met,
            seconds=round(time.monotonic() - started, 2),
        )
    return manifest, report


def _asking(on_progress: OnProgress, ask_stop_mode: AskStopMode) -> GoOn:
    def go_on(progress: Progress) -> bool:
        stop_mode = ask_stop_mode()
        if stop_mode == "stop":
            raise Stopped("The capture was stopped.")
        on_progress(progress)
        return stop_mode == "go_on"

    return go_on


def _still_loading(page: PageSession, load_ms: int) -> str:
    names = _named(page.under_way)
    return f"Still loading after {load_ms / 1000:.0f} s" + (f": {names}." if names else ".")


def _sign_in_warning(page: PageSession, request: PageRequest) -> str:
    met = f"A sign-in page was met instead: {page.address}."
    if request.sign_in is None:
        return f"{met} Save a sign-in for it, then take it again."
    return f"{met} The saved sign-in was not accepted, or has run out."


def what_lacks(page: PageSession, request: PageRequest, prepared: Prepared, taken: Taken) -> list[str]:
    """What is said of everything that is not in a picture, or may not be; empty where nothing is to say."""
    area = taken.area
    bottom_px = area.box.y_px + taken.manifest.height_px // request.screen.scale
    return [
        f"Cut off after {bottom_px:,} px: {taken.cut_off}." if taken.cut_off else "",
        *(f"Rows may be missing or repeated near {place_px:,} px." for place_px in taken.doubts_px),
        area.beside,
        *_missing(page, list(prepared.missing_pictures)),
    ]


def _missing(page: PageSession, pictures: list[str]) -> list[str]:
    kinds = {"pictures": pictures, **page.missing}
    found = [
        f"{kind.capitalize()} that did not load: {_named(names)}." for kind, names in kinds.items() if names
    ]
    if page.refused_hosts:
        found.append(f"On a private network, not opened: {_named(page.refused_hosts)}.")
    return found


def _named(addresses: list[str]) -> str:
    """The first few addresses, and how many more."""
    shown = ", ".join(address[:120] for address in addresses[:NAMED_AT_MOST])
    more = len(addresses) - NAMED_AT_MOST
    return f"{shown} and {more} more" if more > 0 else shown
