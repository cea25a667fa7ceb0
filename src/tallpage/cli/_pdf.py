"""``tallpage pdf``: pages and pictures as one document."""

from __future__ import annotations

import json
import re
import tempfile
from collections.abc import Iterator
from datetime import date
from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from tallpage.cli._output import (
    NOT_MET,
    Step,
    opened_cut,
    print_json,
    progress_bar,
    require_file,
    told_in_one_line,
)
from tallpage.cli._part import require_picture
from tallpage.core.capture import Browser, PageRequest, Screen, normalise_address, take_page
from tallpage.core.cut import Cut, page_facts
from tallpage.core.errors import HandOverError
from tallpage.core.pdf import PdfMade, PdfOrder, PdfPart, make_pdf, parse_paper
from tallpage.core.render import CaptureSource, PictureSource, Rendering, RenderRules, Source
from tallpage.core.sizing import Sizing
from tallpage.core.units import format_bytes, parse_byte_count

if TYPE_CHECKING:
    from tallpage.cli import _json as told

_WEB = re.compile(r"https?://", re.IGNORECASE)
_MANIFEST = "manifest.json"


def pdf(
    sources: Annotated[
        list[str],
        typer.Argument(metavar="SOURCE…", help="Addresses, pictures, folders that a sweep was saved in."),
    ],
    out: Annotated[Path, typer.Option(help="File to write.", dir_okay=False)],
    paper: Annotated[
        str, typer.Option(help="tall: one page as high as the picture; A4, letter, or 210x297mm.")
    ] = "tall",
    margin: Annotated[float, typer.Option(help="Margins of paper in mm.")] = 12.0,
    limit: Annotated[str | None, typer.Option(help="Greatest file size: 2MB, 900kB, or bytes.")] = None,
    caption: Annotated[
        str,
        typer.Option(
            metavar="PATTERN", help="Said below each picture: {title} {address} {host} {date} {name}."
        ),
    ] = "",
    numbered: Annotated[bool, typer.Option(help="Number the sheets of paper.")] = True,
    screen: Annotated[str, typer.Option(help="Screen of pages that are taken: 1280x800.")] = "1280x800",
    cut: Annotated[
        Path | None, typer.Option(help="What of each is shown: the file of a cut, as the Bench saves it.")
    ] = None,
    *,
    as_json: Annotated[bool, typer.Option("--json", help="Print one JSON object.")] = False,
) -> None:
    """Make one PDF of pages and pictures: tall or on paper, with the words and links of pages in it."""
    with told_in_one_line(), tempfile.TemporaryDirectory() as scratch:
        order = PdfOrder(
            paper=parse_paper(paper),
            margin_mm=margin,
            caption=caption,
            numbered=numbered,
            limit_bytes=None if limit is None else parse_byte_count(limit),
        )
        require_file(out)
        shown = opened_cut(cut)
        parts = list(_parts(sources, Screen.parse(screen), shown, Path(scratch)))
        with progress_bar() as on_progress:
            made = make_pdf(
                parts, order, out, on_sheet=lambda done, of: on_progress(Step("drawing", done, of))
            )
    if as_json:
        print_json(_facts(made, out, order))
    else:
        print(f"{out}: {_counted(made.sheets)}, {format_bytes(made.bytes)}")
        if not made.met and order.limit_bytes is not None:
            print(f"  This is as light as it gets; {format_bytes(order.limit_bytes)} were asked for.")
    if not made.met:
        raise typer.Exit(NOT_MET)


def _parts(sources: list[str], screen: Screen, cut: Cut | None, scratch: Path) -> Iterator[PdfPart]:
    addresses = [row for row in sources if _WEB.match(row)]
    requests = {row: PageRequest(address=normalise_address(row), screen=screen) for row in addresses}
    pictures = {row: list(_pictures(Path(row))) for row in sources if row not in requests}
    taken = _taken(requests, scratch) if requests else {}
    for source in sources:
        if source in taken:
            yield _part(*taken[source], cut)
        for path, facts in pictures.get(source, []):
            yield _part(PictureSource(path), facts, cut)


def _taken(requests: dict[str, PageRequest], scratch: Path) -> dict[str, tuple[Source, dict[str, str]]]:
    """The pages of addresses, each with what a caption can say of it."""
    found: dict[str, tuple[Source, dict[str, str]]] = {}
    with Browser() as browser:
        for number, (source, request) in enumerate(requests.items()):
            folder = scratch / str(number)
            folder.mkdir()
            with progress_bar() as on_progress:
                _, report = take_page(browser, request, folder, on_progress=on_progress)
            facts = page_facts(title=report.title, address=report.final_address, taken_on=date.today())
            found[source] = CaptureSource(folder), facts
    return found


def _pictures(path: Path) -> Iterator[tuple[Path, dict[str, str]]]:
    """A picture, or those of a folder that a sweep was saved in, in the order of its manifest."""
    if not path.is_dir():
        require_picture(path)
        yield path, page_facts(title=path.stem, name=path.stem, taken_on=date.today())
        return
    try:
        rows = json.loads((path / _MANIFEST).read_text("utf-8"))
        named = [(str(row["file"]), str(row["title"]), str(row["address"])) for row in rows if row["file"]]
    except (OSError, ValueError, TypeError, KeyError) as error:
        raise HandOverError(
            f"{path} holds no {_MANIFEST} that can be read.",
            hint="Give a folder that a sweep was saved in, or the pictures themselves.",
            code="manifest_missing",
        ) from error
    for name, title, address in named:
        picture = path / name
        if not picture.resolve().is_relative_to(path.resolve()):
            raise HandOverError(
                f"{path / _MANIFEST} names a file elsewhere: {name}.", code="manifest_missing"
            )
        require_picture(picture)
        yield picture, page_facts(title=title, address=address, name=picture.stem, taken_on=date.today())


def _part(source: Source, facts: dict[str, str], cut: Cut | None) -> PdfPart:
    shown = (cut or Cut.whole(source.size)).require_on(source.size).resolved(facts)
    rules = RenderRules(sizing=Sizing(way="share", percent=100), flattened=True)
    rendering = Rendering(source, shown, rules)
    rendering.require_seen()
    return PdfPart(
        rendering=rendering, title=facts["title"] or facts["name"] or facts["address"], facts=facts
    )


def _facts(made: PdfMade, out: Path, order: PdfOrder) -> told.Pdf:
    return {
        "file": str(out),
        "sheets": made.sheets,
        "bytes": made.bytes,
        "limit": order.limit_bytes,
        "met": made.met,
        "quality": made.quality,
        "share_percent": made.share_percent,
    }


def _counted(sheets: int) -> str:
    return "1 page" if sheets == 1 else f"{sheets} pages"
