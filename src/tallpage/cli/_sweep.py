"""``tallpage sweep``: many pages on several screens into a folder."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from tallpage.cli._lists import WEB, listed_pages, welcome_pages
from tallpage.cli._output import opened_cut, print_json, progress_bar, require_folder, told_in_one_line
from tallpage.core.capture import PageRequest, Progress, Screen
from tallpage.core.errors import ListError
from tallpage.core.fit import FitOrder, require_formats
from tallpage.core.render import RenderRules
from tallpage.core.routine import SlotOrder
from tallpage.core.sizing import Sizing
from tallpage.core.sweep import (
    DEFAULT_PATTERN,
    Pace,
    Pattern,
    SweepOrder,
    sweep_into,
    workers_for_this_machine,
)
from tallpage.core.units import parse_byte_count

if TYPE_CHECKING:
    from tallpage.cli import _json as told


def sweep(
    source: Annotated[
        str,
        typer.Argument(
            metavar="LIST|SITEMAP_URL",
            help="A text, CSV or XLSX file, or a sitemap's address; - for a list on standard input.",
        ),
    ],
    out: Annotated[Path, typer.Option(help="Folder for the pictures; it is made.", file_okay=False)],
    screens: Annotated[str, typer.Option(help="Screens, divided by commas: 1280x800,390x844@3")] = "1280x800",
    name: Annotated[
        str,
        typer.Option(
            help="Pattern of names: text, / for folders, {host} {path} {section} {title} {screen} {width} "
            "{date} {time} {number} {slot}."
        ),
    ] = DEFAULT_PATTERN,
    slot: Annotated[
        list[str] | None,
        typer.Option(help="Make a file of this width under this limit of each page, like 720:90kB."),
    ] = None,
    cut: Annotated[
        Path | None,
        typer.Option(help="What of every page is shown: the file of a cut, as the Bench saves it."),
    ] = None,
    column: Annotated[
        int | None, typer.Option(help="Column of a table that holds the addresses, from 1.", min=1)
    ] = None,
    max_height: Annotated[int | None, typer.Option(help="Cut pages off after so many CSS px.", min=1)] = None,
    at_once: Annotated[int, typer.Option(help="Pages of one host at once.")] = Pace().at_once,
    pause: Annotated[
        float, typer.Option(help="Seconds between the starts of two of one host.")
    ] = Pace().pause_s,
    workers: Annotated[
        int | None, typer.Option(help="Browsers; as many as this machine can bear.", min=1, max=32)
    ] = None,
    robots: Annotated[
        bool | None, typer.Option(help="Leave out what robots.txt asks programmes to; so with sitemaps.")
    ] = None,
    resume: Annotated[bool, typer.Option(help="Go on with a sweep that is in the folder.")] = False,
    as_json: Annotated[bool, typer.Option("--json", help="Print one JSON object.")] = False,
) -> None:
    """Take many pages on several screens, named by a pattern, with a manifest."""
    with told_in_one_line():
        chosen = tuple(Screen.parse(text) for text in screens.split(","))
        pattern, pace = Pattern(name), Pace(at_once=at_once, pause_s=pause)
        slots = tuple(_slot(text) for text in slot or ())
        shown = opened_cut(cut)
        require_folder(out)
        pages, problems = listed_pages(source, column)
        from_sitemap = bool(WEB.match(source))
        respected = robots if robots is not None else from_sitemap
        kept, forbidden = pages, 0
        if respected:
            kept, forbidden, unknown = welcome_pages(pages)
            problems += unknown
        if not kept.pages:
            raise ListError(f"{source} holds no page to take.", code="list_empty")
        order = SweepOrder(
            pages=kept,
            screens=tuple(dict.fromkeys(chosen)),
            how=PageRequest(address="", screen=chosen[0], max_height_px=max_height),
            pattern=pattern,
            slots=slots,
            cut=shown,
        )
        with progress_bar() as on_progress:
            rows = sweep_into(
                out,
                order,
                pace=pace,
                workers=workers or workers_for_this_machine(),
                resume=resume,
                on_row=lambda done, everything: on_progress(
                    Progress(stage="taking", done=done, expected=everything)
                ),
            )
    failed = [row for row in rows if row.failed]
    facts: told.Sweep = {
        "folder": str(out),
        "pages": len(kept.pages),
        "pictures": len(rows) - len(failed),
        "failed": len(failed),
        "bad_lines": pages.bad_count,
        "duplicates": pages.duplicates,
        "left_over": pages.left_over,
        "forbidden": forbidden,
        "problems": problems,
        "manifest": str(out / "manifest.json"),
    }
    if as_json:
        print_json(facts)
    else:
        print(f"{out}: {facts['pictures']} pictures of {facts['pages']} pages, {len(failed)} failed")
        for row in failed[:20]:
            print(f"  {row.address} {row.screen}: {row.error}")
        for problem in problems[:20]:
            print(f"  {problem}")
    if failed:
        raise typer.Exit(1)


def _slot(text: str) -> SlotOrder:
    width, colon, limit = text.partition(":")
    if not colon or not width.strip().isdigit():
        raise ListError(f"“{text}” is no slot.", hint="Write it like 720:90kB.", code="slot_malformed")
    order = FitOrder(
        limit_bytes=parse_byte_count(limit), formats=require_formats(["jpeg", "png", "webp", "avif"])
    )
    rules = RenderRules(sizing=Sizing(way="width", width_px=int(width)))
    return SlotOrder(name=f"{int(width)}px", rules=rules, order=order)
