"""``tallpage user``: accounts, for servers that others can reach."""

from __future__ import annotations

import getpass
import os
import secrets
import sys
from typing import Annotated, Literal

import typer

from tallpage.cli._output import told_in_one_line
from tallpage.core.errors import AccountError

_GENERATED_BYTES = 15


def user(
    action: Annotated[
        Literal["add", "list", "password", "close", "keeper"], typer.Argument(help="What to do.")
    ],
    name: Annotated[str, typer.Argument(help="Name of the account.")] = "",
    *,
    viewer: Annotated[
        bool,
        typer.Option("--viewer", help="Add one that looks, searches and saves files, and changes nothing."),
    ] = False,
    generate: Annotated[bool, typer.Option("--generate", help="Make a password, and print it.")] = False,
) -> None:
    """Add, list or close accounts, give one another password, or let one look after the others."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "tallpage.server.settings")
    with told_in_one_line():
        import django

        django.setup()
        from django.core.management import call_command

        call_command("migrate", verbosity=0)
        from tallpage.server.people import accounts

        if action == "list":
            for row in accounts.listed():
                print(row)
            return
        if not name:
            raise AccountError(
                "Whose account is not said.", hint=f"Give a name: user {action} NAME.", code="no_name"
            )
        if action == "keeper":
            accounts.keep_accounts(name)
            print(f"{name} looks after accounts.")
            return
        if action == "close":
            accounts.close(name)
            print(f"{name} cannot sign in any more.")
            return
        if action == "add":
            accounts.require_free(name)
        password = secrets.token_urlsafe(_GENERATED_BYTES) if generate else _asked_password()
        if action == "add":
            accounts.add(name, password, "viewer" if viewer else "producer")
        else:
            accounts.set_password(name, password)
    print(f"{name}: {password}" if generate else f"{name} can sign in.")


def _asked_password() -> str:
    """From a terminal, twice; in a pipe, the first line of standard input."""
    if not sys.stdin.isatty():
        return sys.stdin.readline().rstrip("\n")
    first = getpass.getpass("Password: ")
    if getpass.getpass("Once more: ") != first:
        raise AccountError(
            "The two are not the same.", hint="Nothing was changed: try again.", code="password"
        )
    return first
