"""The browser itself: started, kept, ended. What is done on a page is behind :class:`PageSession`.

Only this folder and ``live`` know Playwright. Everything that is opened is opened in a ``with``.
"""

from __future__ import annotations

import logging
import os
import shutil
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from types import TracebackType
from typing import TYPE_CHECKING, Any, Self
from urllib.parse import urlsplit

import psutil

from tallpage.core.capture._request import PageRequest
from tallpage.core.capture.browser._driver_cache import keep_compiled_driver
from tallpage.core.capture.browser._filtering_proxy import FilteringProxy
from tallpage.core.capture.browser._page_session import PageSession
from tallpage.core.capture.browser._translating import is_of_playwright, page_script, translated
from tallpage.core.capture.browser._watchdog import BrowserWatch, watchdog
from tallpage.core.capture.opening._sign_in import BasicSignIn, FormSignIn, StateSignIn
from tallpage.core.errors import BrowserMissing, PageError, StorageError

if TYPE_CHECKING:  # loaded when the first browser is started: most of what imports this starts none
    from playwright.sync_api import Browser as _Browser
    from playwright.sync_api import BrowserContext, Page, Playwright

_GONE = (psutil.NoSuchProcess, ProcessLookupError)
"""How the system tells that browser or driver ended while they were started."""
_START_MS, _OPEN_MS, _CLOSE_MS = 60_000, 5_000, 5_000
_ARGUMENTS = [
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--hide-scrollbars",
    # Nothing leaves past a proxy.
    "--force-webrtc-ip-handling-policy=disable_non_proxied_udp",
    "--font-render-hinting=none",
]
_UNWATCHED_ARGUMENTS = [
    # Frames as fast as they are drawn, not as fast as a display shows them: nobody watches.
    "--disable-gpu-vsync",
    "--disable-frame-rate-limit",
    # Animated pictures show their first frame: two takes of an unchanged page are to be the same.
    "--blink-settings=imageAnimationPolicy=2",
]


def _is_end_of_driver(error: BaseException | None) -> bool:
    """Whether the driver has ended: it is told as an exception of no kind of its own."""
    return type(error) is Exception and "driver" in str(error)


def _not_of_an_ended_browser(record: logging.LogRecord) -> bool:
    """Whether a line of the log says more than that a browser ended which is being replaced.

    Whatever was still asked of it ends with an error that nobody waits for any more.
    """
    error = record.exc_info[1] if record.exc_info else None
    return not (is_of_playwright(error) or _is_end_of_driver(error))


logging.getLogger("asyncio").addFilter(_not_of_an_ended_browser)


def find_chromium() -> str | None:
    """Path of the Chromium to drive, or None.

    The one without windows comes first: the same engine, at a third of the work for each page.
    """
    chosen = os.environ.get("TALLPAGE_CHROMIUM")
    return chosen or shutil.which("chromium-headless-shell") or shutil.which("chromium")


class Browser:
    """A running Chromium, kept for many pages. Belongs to the thread that entered it.

    With a ``filtering_proxy`` (running already) it connects to nothing that this does not allow. One that
    is ``watched`` by a person shows movement as a display would.
    """

    def __init__(self, *, filtering_proxy: FilteringProxy | None = None, watched: bool = False) -> None:
        self._filtering_proxy = filtering_proxy
        self._arguments = _ARGUMENTS if watched else [*_ARGUMENTS, *_UNWATCHED_ARGUMENTS]
        self._playwright: Playwright | None = None
        self._browser: _Browser | None = None
        self._watch: BrowserWatch | None = None
        self._signed_in: dict[FormSignIn, Any] = {}

    def __enter__(self) -> Self:
        path = find_chromium()
        if path is None:
            raise BrowserMissing("Chromium is not installed.")
        keep_compiled_driver()
        try:
            from playwright.sync_api import sync_playwright

            self._playwright = sync_playwright().start()
            self._browser = self._launched(self._playwright, path)
            self._watch = BrowserWatch(self._find_process())
        except BaseException as error:
            self._end_driver()
            if isinstance(error, _GONE) or is_of_playwright(error) or _is_end_of_driver(error):
                said = "The browser ended while it was started."
                raise PageError(said, code="browser_closed") from error
            raise
        return self

    def _launched(self, playwright: Playwright, path: str) -> _Browser:
        try:
            return playwright.chromium.launch(
                executable_path=path,
                args=self._arguments,
                # Chromium's own sandbox cannot start as root; everybody else keeps it.
                chromium_sandbox=os.geteuid() != 0,
                # Without the sign in front, Chromium would go past the filtering proxy to its own machine.
                proxy={"server": self._filtering_proxy.address, "bypass": "<-loopback>"}
                if self._filtering_proxy
                else None,
                timeout=_START_MS,
            )
        except Exception as error:
            if not is_of_playwright(error):
                raise
            if "ENOSPC" in str(error):
                raise StorageError("The disk is full.", code="storage_full") from error
            raise BrowserMissing(f"Chromium at {path} would not start.") from error

    def _end_driver(self) -> None:
        if self._playwright is not None:
            with suppress(Exception):  # it may be what has ended
                self._playwright.stop()

    def _find_process(self) -> int:
        session = self._running().new_browser_cdp_session()
        rows = session.send("SystemInfo.getProcessInfo")["processInfo"]
        session.detach()
        return next(int(row["id"]) for row in rows if row["type"] == "browser")

    def _running(self) -> _Browser:
        if self._browser is None:
            raise RuntimeError("the browser is used outside its with block")
        return self._browser

    def end_at_once(self) -> None:
        """Kill the browser, from any thread: whoever waits for it gets an error instead of an answer."""
        if self._watch is not None:
            self._watch.kill_browser()

    def __exit__(
        self, kind: type[BaseException] | None, error: BaseException | None, trace: TracebackType | None
    ) -> None:
        if self.is_alive:
            with watchdog(_CLOSE_MS, self.end_at_once), suppress(Exception):
                self._running().close()
        if self._watch is not None:
            self._watch.end()
        self._end_driver()

    @property
    def is_alive(self) -> bool:
        """Whether the browser still answers."""
        return self._watch is not None and self._watch.is_alive and self._running().is_connected()

    def died_within(self, seconds: float) -> bool:
        """Whether the browser is dead, or dies in the next moment."""
        return self._watch is not None and self._watch.died_within(seconds)

    def opens_pages(self) -> bool:
        """Whether an empty page opens: a browser that dies piece by piece may not know it itself yet."""
        try:
            with watchdog(_OPEN_MS, self.end_at_once):
                context = self._running().new_context()
                context.new_page().evaluate("1")
                context.close()
        except Exception:  # the end of the driver is told as a bare exception
            return False
        return self.is_alive

    @contextmanager
    def open_page(self, request: PageRequest, *, moving: bool = False) -> Iterator[PageSession]:
        """A fresh page on the request's screen, without cookies or memory of others but its sign-in's.

        What a form signed in to once is remembered while the browser lives. With ``moving`` the page moves
        as it likes until its clock is stopped, and then as it is let; else movement comes to its end.
        """
        with self.open_visit(request) as context:
            with watchdog(request.timeouts.open_ms, self.end_at_once), translated("about:blank"):
                page = context.new_page()
                context.on("page", lambda popup: popup.close())
                page.on("dialog", lambda dialog: dialog.dismiss())
                if moving:
                    page.clock.install()
                    page.emulate_media(reduced_motion="no-preference")
                page.add_init_script(script=page_script("browser/prelude"))
                if not moving:
                    page.add_init_script(script=page_script("browser/movement"))
                door = self.session_of(page, request)
            yield door

    @contextmanager
    def open_visit(self, request: PageRequest) -> Iterator[BrowserContext]:
        """A visit as the request's screen and sign-in make it, with no page yet."""
        browser = self._running()
        if self._filtering_proxy:
            self._filtering_proxy.refused.clear()
        with watchdog(request.timeouts.open_ms, self.end_at_once), translated("about:blank"):
            context = browser.new_context(**self._visitor(request))
        try:
            yield context
        finally:
            if self.is_alive:
                # It may die just now, and is replaced.
                with watchdog(_CLOSE_MS, self.end_at_once), suppress(Exception):
                    context.close()

    def session_of(self, page: Page, request: PageRequest) -> PageSession:
        """What a capture does with a page of a visit."""
        return PageSession(
            page,
            page.context.new_cdp_session(page),
            request,
            filtering_proxy=self._filtering_proxy,
            hang_up=self.end_at_once,
        )

    def pdf_of(self, html: str) -> bytes:
        """A page of our own, which needs nothing from elsewhere, as A4 sheets."""
        with translated("about:blank"):
            context = self._running().new_context(offline=True, java_script_enabled=False)
            try:
                page = context.new_page()
                page.set_content(html)
                return page.pdf(prefer_css_page_size=True, print_background=True)
            finally:
                context.close()

    def is_signed_in(self, sign_in: FormSignIn) -> bool:
        """Whether a form has been signed in to since the browser was started."""
        return sign_in in self._signed_in

    def remember_sign_in(self, sign_in: FormSignIn, page: PageSession) -> None:
        """Keep what the page's visit was given, for the next pages."""
        self._signed_in[sign_in] = page.state()

    def forget_sign_in(self, sign_in: FormSignIn) -> None:
        """Sign in anew with the next page."""
        self._signed_in.pop(sign_in, None)

    def _visitor(self, request: PageRequest) -> dict[str, Any]:
        """What the browser is told of who opens the page, on what."""
        screen, sign_in = request.screen, request.sign_in
        visitor: dict[str, Any] = {
            "viewport": {"width": screen.width_px, "height": screen.height_px},
            "device_scale_factor": screen.scale,
            "accept_downloads": False,
            "service_workers": "block",
            "reduced_motion": "reduce",
            "color_scheme": request.scheme,
            "locale": request.language,
            "user_agent": _user_agent(self._running().version, touch=screen.touch),
            # Only the finger and the name of a phone, not its habit of laying out pages that do not say
            # how wide they are at 980 px: a picture is as wide as its screen.
            "has_touch": screen.touch,
        }
        if isinstance(sign_in, BasicSignIn):
            parts = urlsplit(request.address)
            visitor["http_credentials"] = {
                "username": sign_in.name,
                "password": sign_in.password,
                "origin": f"{parts.scheme}://{parts.netloc.rpartition('@')[2]}",
            }
        if isinstance(sign_in, StateSignIn):
            visitor["storage_state"] = {"cookies": list(sign_in.cookies), "origins": list(sign_in.origins)}
        if isinstance(sign_in, FormSignIn) and sign_in in self._signed_in:
            visitor["storage_state"] = self._signed_in[sign_in]
        return visitor


def _user_agent(version: str, *, touch: bool) -> str:
    """What the browser calls itself: as it does with a window, or as a phone's browser does.

    Source: User-Agent Reduction, the frozen form of the string on desktop and on mobile.
    """
    system = "Linux; Android 10; K" if touch else "X11; Linux x86_64"
    major = version.partition(".")[0]
    engine = f"AppleWebKit/537.36 (KHTML, like Gecko) Chrome/{major}.0.0.0"
    return f"Mozilla/5.0 ({system}) {engine}{' Mobile' if touch else ''} Safari/537.36"


def print_as_pdf(html: str) -> bytes:
    """``html``, which needs nothing from elsewhere, printed by a browser of its own."""
    with Browser() as browser:
        return browser.pdf_of(html)
