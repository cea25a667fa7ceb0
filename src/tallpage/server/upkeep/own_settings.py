"""Settings of what takes room on the disk and can be made again."""

from __future__ import annotations

from tallpage.server.preferences.catalogue import register_setting
from tallpage.server.preferences.kinds import number


def register() -> None:
    """Have them known."""
    register_setting(
        number(
            "keep.views_days",
            "Keeping",
            "Small pictures of captures",
            "Small pictures that are older are cleared, and made again when somebody looks; "
            "0 keeps them until room is made.",
            usual=lambda: 0,
            least=0,
            most=3_650,
            unit="days",
            variable="TALLPAGE_KEEP_VIEWS_DAYS",
        )
    )
