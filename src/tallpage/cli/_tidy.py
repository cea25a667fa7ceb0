"""``tallpage tidy``: what nothing in the data folder refers to, told and cleared."""

from __future__ import annotations

import os

from tallpage.cli._telling import told_in_one_line


def tidy_data_folder(*, dry_run: bool) -> None:
    """Tell what is left over, a line for each kind, and clear it unless it is a dry run."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "tallpage.server.settings")
    with told_in_one_line():
        import django

        django.setup()
        from tallpage.server.upkeep.tidying import tidy

        tidied = tidy(dry_run=dry_run)
    if dry_run:
        for row in tidied.leftovers:
            print(row.path)
    for line in tidied.lines():
        print(("Would clear: " if dry_run else "Cleared: ") + line)
    if not tidied.lines():
        print("Nothing is left over.")
