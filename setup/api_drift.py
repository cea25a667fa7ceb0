"""Holds what is written down against the code: API, types of the interface, formats of files, command line.

Without an option it says whether they are current (exit 1 when not); ``--write`` makes them so.
"""

from __future__ import annotations

import json
import os
import subprocess
import sys
import tempfile
from pathlib import Path

from command_line import command_line
from settings_in_words import settings_in_words

ROOT = Path(__file__).resolve().parent.parent
SCHEMA = ROOT / "docs" / "openapi.json"
NODE = ROOT / ".venv" / "node" / "node"
CUT_FILE = ROOT / "docs" / "cut-file.schema.json"
ROUTINE_FILE = ROOT / "docs" / "routine-file.schema.json"
ANSWERS = ROOT / "docs" / "command-line-json.schema.json"
SETTINGS = ROOT / "docs" / "settings.md"
COMMAND_LINE = ROOT / "docs" / "command-line.md"
TYPES = ROOT / "frontend" / "src" / "api" / "generated.ts"


def current_schema() -> str:
    """The API as the code has it now."""
    os.environ["DJANGO_SETTINGS_MODULE"] = "tallpage.server.settings"
    import django

    django.setup()
    from tallpage.server.api import api

    return json.dumps(api.get_openapi_schema(), indent=1, ensure_ascii=False) + "\n"


def cut_file() -> str:
    """JSON Schema of the file of a cut."""
    from tallpage.core.cut import cut_file_schema

    return json.dumps(cut_file_schema(), indent=1, ensure_ascii=False) + "\n"


def routine_file() -> str:
    """JSON Schema of the file of a routine."""
    from tallpage.core.routine import routine_file_schema

    return json.dumps(routine_file_schema(), indent=1, ensure_ascii=False) + "\n"


def answers() -> str:
    """JSON Schema of what commands print with --json."""
    from tallpage.cli._json import answers_schema

    return json.dumps(answers_schema(), indent=1, ensure_ascii=False) + "\n"


def types_of(schema: Path) -> str:
    """TypeScript generated from a schema file."""
    generator = ROOT / "frontend" / "node_modules" / ".bin" / "openapi-typescript"
    with tempfile.TemporaryDirectory() as scratch:
        out = Path(scratch) / "generated.ts"
        subprocess.run([NODE, generator, schema, "-o", out], check=True, capture_output=True)
        return out.read_text("utf-8")


def main() -> int:
    """Compare, or write."""
    schema = current_schema()
    written = {
        SCHEMA: schema,
        CUT_FILE: cut_file(),
        ROUTINE_FILE: routine_file(),
        COMMAND_LINE: command_line(),
        ANSWERS: answers(),
        SETTINGS: settings_in_words(),
    }
    if "--write" in sys.argv[1:]:
        for path, text in written.items():
            path.write_text(text, "utf-8")
        TYPES.write_text(types_of(SCHEMA), "utf-8")
        return 0
    stale = [path for path, text in written.items() if not path.exists() or path.read_text("utf-8") != text]
    stale += [TYPES] if not stale and TYPES.read_text("utf-8") != types_of(SCHEMA) else []
    for path in stale:
        print(f"{path.relative_to(ROOT)} is not current. Run: make api", file=sys.stderr)
    return 1 if stale else 0


if __name__ == "__main__":
    with tempfile.TemporaryDirectory(prefix="tallpage-schema-") as home:
        os.environ["TALLPAGE_HOME"] = home
        sys.exit(main())
