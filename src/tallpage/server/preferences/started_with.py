"""What only whoever starts the server says: shown beside the settings, where it is looked for."""

from __future__ import annotations

import os

from django.conf import settings


def started_with() -> list[dict[str, str]]:
    """In words, with the variable of the environment and what it came to."""
    hosts = os.environ.get("TALLPAGE_PRIVATE_HOSTS", "").strip()
    rows = (
        ("Data folder", "TALLPAGE_HOME", str(settings.HOME)),
        ("Address and port", "TALLPAGE_HOST, TALLPAGE_PORT", f"{settings.HOST}:{settings.PORT}"),
        ("Whether everybody signs in", "TALLPAGE_ACCOUNTS", "yes" if settings.ACCOUNTS else "no"),
        (
            "Pages on private networks",
            "TALLPAGE_ALLOW_PRIVATE",
            "are taken" if settings.ALLOW_PRIVATE else hosts or "are not taken",
        ),
        ("Pages taken at once", "TALLPAGE_PAGE_WORKERS", str(settings.PAGE_WORKERS)),
        ("Files made at once", "TALLPAGE_FILE_WORKERS", str(settings.FILE_WORKERS)),
        ("Live pages open at once", "TALLPAGE_LIVE_PAGES", str(settings.LIVE_PAGES)),
    )
    return [{"words": words, "variable": variable, "value": value} for words, variable, value in rows]
