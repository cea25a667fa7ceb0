"""A PDF of what cuts show, kept until it is fetched."""

from __future__ import annotations

from dataclasses import replace
from typing import TYPE_CHECKING, Any

from slugify import slugify

from tallpage.core.errors import HandOverError
from tallpage.core.files import storage_errors
from tallpage.core.render import RenderRules
from tallpage.core.sizing import Sizing
from tallpage.core.units import format_bytes
from tallpage.server.handover.models import HandOver
from tallpage.server.handover.previews import draw_previews
from tallpage.server.handover.selection import Selection, picture_rules, rendering_of
from tallpage.server.handover.ways.base import Outcome, go_on
from tallpage.server.jobs.queue import Signals
from tallpage.server.outlets.models import Output
from tallpage.server.shelf.models import Cut
from tallpage.server.storage import made_folder, new_key

if TYPE_CHECKING:
    from tallpage.core.pdf import PdfOrder, PdfPart

# What writes PDFs is loaded once one is asked for: most processes of the server never need it.

DOCUMENT = "document.pdf"
_MOST_NAME_CHARS = 90


class PdfWay:
    """One document of all that was chosen."""

    def check(self, line: HandOver, selection: Selection) -> None:
        """Refuse paper and captions that cannot be, and nothing to be shown."""
        _order(line.options)
        _parts(selection)

    def send(self, line: HandOver, selection: Selection, signals: Signals) -> Outcome:
        """Draw it. Begun anew, it is made anew: nothing has left yet."""

        def on_sheet(number: int, count: int) -> None:
            go_on(signals)
            signals.report("drawing", number, count)

        from tallpage.core.pdf import make_pdf

        key = new_key()
        folder = made_folder(key)
        with storage_errors(folder.parent):
            folder.mkdir(parents=True)
        file = folder / DOCUMENT
        order = _order(line.options)
        made = make_pdf(_parts(selection), order, file, on_sheet=on_sheet)
        previews = draw_previews(file, folder)
        name = f"{slugify(selection.subject(), max_length=_MOST_NAME_CHARS) or 'pages'}.pdf"
        pages = "1 page" if made.sheets == 1 else f"{made.sheets} pages"
        answer = f"{pages}, {format_bytes(made.bytes)}"
        if not made.met and order.limit_bytes is not None:
            answer += f": as light as it gets, and over {format_bytes(order.limit_bytes)}"
        return Outcome(
            answer=f"{answer}.",
            files=[{"name": name, "bytes": made.bytes}],
            facts={
                "sheets": made.sheets,
                "met": made.met,
                "quality": made.quality,
                "share_percent": made.share_percent,
                "previews": previews,
            },
            made_key=key,
            made_name=name,
        )


def _order(options: dict[str, Any]) -> PdfOrder:
    from tallpage.core.pdf import PdfOrder, parse_paper

    return PdfOrder(
        paper=parse_paper(str(options.get("paper", "tall"))),
        margin_mm=float(options.get("margin_mm", 12)),
        caption=str(options.get("caption", "")),
        numbered=bool(options.get("numbered", True)),
        limit_bytes=options.get("limit_bytes"),
    )


def _parts(selection: Selection) -> list[PdfPart]:
    """What each capture shows: as its file does where a row was chosen, else in its own px."""
    if selection.outputs:
        return [_part(row.cut, _rules_of(row)) for row in selection.rows()]
    return [_part(cut, replace(picture_rules(), flattened=True)) for cut in selection.cuts()]


def _rules_of(row: Output) -> RenderRules:
    """The size of a row's file; sheets are divided by the document, not by the place."""
    rules = row.render_rules()
    if not rules.sizing.divisible:
        return replace(rules, flattened=True)
    sizing: Sizing = rules.sizing
    return RenderRules(
        sizing=sizing, background=rules.background, flattened=True, legible_marks=rules.legible_marks
    )


def _part(cut: Cut, rules: RenderRules) -> PdfPart:
    from tallpage.core.pdf import PdfPart

    capture = cut.capture
    if not capture.storage_key:
        raise HandOverError(f"“{capture.name}” is not taken yet.", code="not_taken")
    title = cut.shown_title()
    return PdfPart(
        rendering=rendering_of(cut, rules), title=title, facts={**capture.caption_facts(), "title": title}
    )
