"""The command line: the core's work from a script.

Exit codes: 0 done, 1 failed, 2 usage, 3 the limit cannot be met acceptably.
"""

from __future__ import annotations

from typing import Annotated

import typer

from tallpage.cli._capture import capture
from tallpage.cli._fit import fit
from tallpage.cli._sweep import sweep

app = typer.Typer(
    help="Full-length pictures of web pages, fitted under a byte limit.",
    no_args_is_help=True,
    add_completion=False,
    pretty_exceptions_enable=False,
)
app.command()(capture)
app.command()(fit)
app.command()(sweep)


@app.command()
def serve() -> None:
    """Run the application: web, workers, all in one. Settings come from TALLPAGE_* variables."""
    from tallpage.server.serve import serve_all

    serve_all()


@app.command()
def tidy(
    dry_run: Annotated[bool, typer.Option("--dry-run", help="Only say what would be cleared.")] = False,
) -> None:
    """Clear what nothing in the data folder refers to. The running server does so once an hour."""
    from tallpage.cli._tidy import tidy_data_folder

    tidy_data_folder(dry_run=dry_run)


def main() -> None:
    """Entry point of the command ``tallpage``."""
    app()
