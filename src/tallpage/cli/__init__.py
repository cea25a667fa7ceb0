"""The command line: the core's work from a script.

Exit codes: 0 done, 1 failed, 2 usage, 3 the limit cannot be met acceptably.
"""

from __future__ import annotations

import gc
from importlib import import_module
from typing import Any

import typer
from click.shell_completion import CompletionItem
from typer.core import TyperGroup

COMMANDS = {
    "capture": "Take a full-length picture of a page into one PNG file, or several in a row.",
    "clip": "Take a few seconds of a page, scrolling or moving, as one file under a limit.",
    "cut": "Write a part of a picture into one file.",
    "fit": "Find the best-looking file under a limit, or the lightest that still looks so good.",
    "join": "Join pictures that were taken one after the other into one tall picture.",
    "pdf": "Make one PDF of pages and pictures: tall or on paper, with the words and links of pages in it.",
    "run": "Run a routine over pages and pictures: the same steps for each, into a folder, with a manifest.",
    "snippet": "Write the HTML or Markdown that shows a picture, with the file that fits each screen.",
    "sweep": "Take many pages on several screens, named by a pattern, with a manifest.",
    "upload": "Upload pictures to where an outlet's are published; what is there is not sent again.",
    "serve": "Run the application: web, workers, all in one. Settings come from TALLPAGE_* variables.",
    "send": "Send files by mail, through the server that TALLPAGE_MAIL names, from TALLPAGE_MAIL_FROM.",
    "token": "Add a token for scripts, list all, or revoke one. It is shown once, when it is made.",
    "user": "Add, list or close accounts, give one another password, or let one look after the others.",
    "tidy": "Clear what nothing in the data folder refers to. The running server does so once an hour.",
}
"""Each command, which is the function of that name in the module of that name, and its line of help."""


_OBJECTS_BETWEEN_LOOKS = 50_000


class _Commands(TyperGroup):
    """Loads a command when it is the one that is run: pictures and browser take a second to load."""

    def list_commands(self, ctx: Any) -> list[str]:  # noqa: ARG002
        return list(COMMANDS)

    def get_command(self, ctx: Any, cmd_name: str) -> Any:  # noqa: ARG002
        if cmd_name not in COMMANDS:
            return None
        alone = typer.Typer(add_completion=False, pretty_exceptions_enable=False, rich_markup_mode=None)
        alone.command()(getattr(import_module(f"tallpage.cli._{cmd_name}"), cmd_name))
        return typer.main.get_command(alone)

    def shell_complete(self, ctx: Any, incomplete: str) -> list[Any]:
        """The commands that begin so, told without loading them; then the options of all."""
        named = [(name, words) for name, words in COMMANDS.items() if name.startswith(incomplete)]
        found: list[Any] = [CompletionItem(name, help=words) for name, words in named]
        return found or super().shell_complete(ctx, incomplete)

    def format_commands(self, ctx: Any, formatter: Any) -> None:  # noqa: ARG002
        with formatter.section("Commands"):
            formatter.write_dl(list(COMMANDS.items()))


app = typer.Typer(
    cls=_Commands,
    help="Full-length pictures of web pages, fitted under a byte limit.",
    no_args_is_help=True,
    pretty_exceptions_enable=False,
    rich_markup_mode=None,
)


@app.callback()
def _tallpage() -> None:
    """What all commands have in common, which is nothing."""


def main() -> None:
    """Entry point of the command ``tallpage``."""
    # Libraries bring thousands of objects that stay: looking for garbage among them takes a while.
    gc.set_threshold(_OBJECTS_BETWEEN_LOOKS)
    app()
