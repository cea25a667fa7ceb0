"""The browser's library in our terms: page scripts, and its errors as ours."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from functools import cache
from importlib import resources
from urllib.parse import urlsplit

from tallpage.core.capture.browser._faults import page_fault
from tallpage.core.errors import PageUnreachable


@cache
def page_script(name: str) -> str:
    """One of our page scripts."""
    return resources.files("tallpage.core.capture").joinpath("scripts", f"{name}.js").read_text("utf-8")


def is_of_playwright(error: BaseException | None) -> bool:
    """Whether an error is Playwright's own, which is loaded when the first browser is started."""
    return type(error).__module__.startswith("playwright.") and isinstance(error, Exception)


@contextmanager
def translated(address: str, *, timeout_ms: int = 0) -> Iterator[None]:
    """Turn Playwright's errors into ours."""
    from playwright.sync_api import Error
    from playwright.sync_api import TimeoutError as PlaywrightTimeout

    try:
        yield
    except PlaywrightTimeout as error:
        raise PageUnreachable(
            f"{urlsplit(address).netloc} did not answer within {timeout_ms / 1000:.0f} s.",
            code="page_no_answer",
        ) from error
    except Error as error:
        raise page_fault(address, error.message) from error
