"""Writes down the settings as the code has them: ``docs/settings.md``."""

from __future__ import annotations

HEAD = """# Settings

Made from the code by `make api`; the screen *Settings* shows the same and changes it.

A setting is what the environment says, else what was set, else what is usual. Those marked *server* are \
the whole server's, the others each person's own. *Save as a file* and *Bring in* carry them to another \
server as JSON: `{"kind": "tall page settings", "version": 1, "own": {…}, "server": {…}, "keys": {…}}`, by \
the names below; what is secret is not in it. A file of a newer version, or with a name that is not known, \
is refused and changes nothing.

How a page is taken (`take.usual`, `take.hosts`) is written as the API takes it (`TakeSettings` in \
`openapi.json`); only what differs is kept. What is said beside an address comes first, then what is set for \
its host, then what is set for all pages.
"""


def settings_in_words() -> str:
    """All settings by group, as Markdown. Django is set up."""
    from tallpage.server.preferences.catalogue import GROUPS, all_settings

    parts = [HEAD]
    for group in GROUPS:
        parts.append(f"## {group}\n")
        parts.append("| setting | name | what it does | variable |\n|---|---|---|---|")
        for row in all_settings():
            if row.group == group:
                whose = " (server)" if row.shared else ""
                variable = f"`{row.variable}`" if row.variable else ""
                effect = row.effect.replace("|", "\\|")
                parts.append(f"| {row.words}{whose} | `{row.name}` | {effect} | {variable} |")
        parts.append("")
    return "\n".join(parts)
