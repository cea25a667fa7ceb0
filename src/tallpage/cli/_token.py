"""``tallpage token``: what scripts sign in by."""

from __future__ import annotations

import os
from typing import Annotated, Literal

import typer

from tallpage.cli._output import told_in_one_line


def token(
    action: Annotated[Literal["add", "list", "revoke"], typer.Argument(help="What to do.")],
    which: Annotated[
        str, typer.Argument(help="Name of an account to add one for, or number of one to revoke.")
    ] = "",
    *,
    scope: Annotated[
        Literal["read", "all"], typer.Option(help="Reading only, or everything the account may.")
    ] = "read",
    label: Annotated[str, typer.Option(help="What it is for.")] = "",
) -> None:
    """Add a token for scripts, list all, or revoke one. It is shown once, when it is made."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "tallpage.server.settings")
    with told_in_one_line():
        import django

        django.setup()
        from tallpage.server.people import accounts

        if action == "list":
            for row in accounts.listed_tokens():
                print(row)
        elif action == "revoke":
            accounts.revoke(which)
            print(f"Token {which} opens nothing any more.")
        else:
            print(accounts.add_token(which, scope, label))
