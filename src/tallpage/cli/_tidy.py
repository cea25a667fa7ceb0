"""``tallpage tidy``: what nothing in the data folder refers to, told and cleared."""

from __future__ import annotations

import os
from typing import Annotated

import typer

from tallpage.cli._output import told_in_one_line


def tidy(
    dry_run: Annotated[bool, typer.Option("--dry-run", help="Only say what would be cleared.")] = False,
) -> None:
    """Clear what nothing in the data folder refers to. The running server does so once an hour."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "tallpage.server.settings")
    with told_in_one_line():
        import django

        django.setup()
        from tallpage.server.upkeep import tidying

        tidied = tidying.tidy(dry_run=dry_run)
    if dry_run:
        for row in tidied.leftovers:
            print(row.path)
    for line in tidied.lines():
        print(("Would clear: " if dry_run else "Cleared: ") + line)
    if not tidied.lines():
        print("Nothing is left over.")
