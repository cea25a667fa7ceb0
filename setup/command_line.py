"""Writes down the command line as the code has it: ``docs/command-line.md``."""

from __future__ import annotations

import importlib
import inspect
from typing import Any

HEAD = """# The command line

Made from the code by `make api`; each command says the same with `--help`.

Exit codes: 0 done, 1 failed, 2 used wrongly, 3 the limit cannot be met acceptably. \
`tallpage --install-completion` lets your shell complete commands and options; \
`tallpage --show-completion` prints what it would install.

What `--json` prints is written down in `command-line-json.schema.json`, with a schema for each command.
"""
_HIDDEN_OPTIONS = ("--help",)
_KINDS = {"INT": "NUMBER", "FLOAT": "NUMBER", "STR": "TEXT", "PATH": "FILE"}


def command_line() -> str:
    """All commands with their arguments and options, as Markdown."""
    import typer

    from tallpage.cli import COMMANDS, app

    group = typer.main.get_command(app)
    context = typer.Context(group, info_name="tallpage")
    parts = [HEAD]
    for name in COMMANDS:
        command: Any = group.get_command(context, name)  # type: ignore[attr-defined]
        parts.append(_command(name, command, _module_words(name)))
    return "\n".join(parts)


def _command(name: str, command: Any, words: str) -> str:
    arguments = [row for row in command.params if row.param_type_name == "argument"]
    options = [row for row in command.params if row.param_type_name == "option"]
    usage = " ".join(["tallpage", name, *map(_argument_usage, arguments), "[OPTIONS]" if options else ""])
    lines = [f"## tallpage {name}", "", inspect.cleandoc(command.help or ""), "", "```", usage.strip(), "```"]
    if words:
        lines += ["", words]
    for title, rows in (("argument", arguments), ("option", options)):
        told = [row for row in rows if not set(row.opts) & set(_HIDDEN_OPTIONS)]
        if told:
            lines += ["", f"| {title} | meaning | usual |", "|---|---|---|", *map(_row, told)]
    return "\n".join([*lines, ""])


def _module_words(name: str) -> str:
    """What the module of a command says beyond its first line."""
    text = inspect.getdoc(importlib.import_module(f"tallpage.cli._{name}")) or ""
    return text.partition("\n")[2].strip()


def _argument_usage(argument: Any) -> str:
    name = argument.human_readable_name.upper() + ("…" if argument.nargs != 1 else "")
    return name if argument.required else f"[{name}]"


def _row(parameter: Any) -> str:
    is_option = parameter.param_type_name == "option"
    kind = "" if getattr(parameter, "is_flag", False) else _kind(parameter, only_choices=not is_option)
    names = parameter.opts if is_option else [parameter.human_readable_name.upper()]
    words = (parameter.help or "").replace("|", "\\|")
    return f"| {', '.join(f'`{name}{kind}`' for name in names)} | {words} | {_usual(parameter)} |"


def _kind(parameter: Any, *, only_choices: bool) -> str:
    choices = getattr(parameter.type, "choices", None)
    if choices:
        return " " + "\\|".join(choices)
    name = parameter.type.name.upper().removesuffix(" RANGE")
    return "" if only_choices else f" {_KINDS.get(name, name)}"


def _usual(parameter: Any) -> str:
    if parameter.required:
        return "has to be given"
    usual = parameter.default
    if usual is None or usual is False or callable(usual) or usual in ("", [], ()):
        return ""
    return f"`{' '.join(map(str, usual)) if isinstance(usual, list | tuple) else usual}`"
