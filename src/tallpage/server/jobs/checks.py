"""Bad set-up is found before the first request."""

from __future__ import annotations

from typing import Any

from django.conf import settings
from django.core.checks import CheckMessage, Error, register
from django.core.checks import Warning as CheckWarning

from tallpage.core.capture import find_chromium


@register()
def chromium_is_installed(**_: Any) -> list[CheckMessage]:
    """Pages cannot be taken without a browser."""
    if find_chromium():
        return []
    return [
        CheckWarning(
            "Chromium is not installed: pages cannot be taken.",
            hint="Install Debian's package chromium, or set TALLPAGE_CHROMIUM to its path.",
            id="capture.W001",
        )
    ]


@register()
def page_workers_are_sane(**_: Any) -> list[CheckMessage]:
    """Each page worker runs a browser of its own, at up to about 1 GB."""
    workers: int = settings.PAGE_WORKERS
    if 1 <= workers <= 16:
        return []
    return [Error(f"TALLPAGE_PAGE_WORKERS is {workers}.", hint="Give 1 to 16.", id="jobs.E001")]
