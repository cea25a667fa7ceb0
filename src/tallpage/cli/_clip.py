"""``tallpage clip``: a few seconds of a page as one file under a limit."""

from __future__ import annotations

import re
import tempfile
import time
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
from tallpage.cli._piping import STANDARD, messages_beside, output_file
from tallpage.core.capture import Browser, PageRequest, Screen, normalise_address
from tallpage.core.capture import Step as PageStep
from tallpage.core.capture.clip import USUAL_RATE_FPS, ClipReport, ClipRequest, Scroll, take_clip
from tallpage.core.clip import CLIP_FORMATS, ClipDocument, clip_format, seen_through
from tallpage.core.clip.making import ClipFile, ClipRules, fit_clip
from tallpage.core.errors import ClipError
from tallpage.core.fit import fidelity_in_words
from tallpage.core.units import format_bytes, parse_byte_count

if TYPE_CHECKING:
    from tallpage.cli import _json as told

_RANGE = re.compile(r"(?P<first>\d{1,8})-(?P<last>\d{1,8})?")


def clip(
    url: Annotated[str, typer.Argument(metavar="ADDRESS", help="Address of the page.")],
    out: Annotated[
        Path, typer.Option(help=f"File to write; its extension says the format: {', '.join(CLIP_FORMATS)}.")
    ],
    limit: Annotated[str, typer.Option(help="Greatest file size: 500kB, 2MB, or bytes.")],
    *,
    screen: Annotated[str, typer.Option(help="The screen, like 1280x800 or 390x844@3.")] = "1280x800",
    width: Annotated[
        int | None, typer.Option(help="Width of the file in px, at most; else as wide as it was taken.")
    ] = None,
    scroll: Annotated[
        str | None,
        typer.Option(help="Scroll from here to there, in CSS px, like 0-2400 or 600-; else all of the page."),
    ] = None,
    speed: Annotated[int | None, typer.Option(help="Scroll by so many CSS px a second.")] = None,
    pause: Annotated[float, typer.Option(help="Stay so many seconds where headings come to the top.")] = 0,
    step: Annotated[
        list[str] | None,
        typer.Option(
            help='Show this being done, in order: click "Accept all" · hover #menu · type #q = ferries · '
            'press Enter · scroll #prices · wait for "Total" · pause 1.5'
        ),
    ] = None,
    seconds: Annotated[float, typer.Option(help="Watch the page for so long, after what is done on it.")] = 0,
    element: Annotated[
        str, typer.Option(help='CSS selector, or "words" that it shows, of what is seen; else the window.')
    ] = "",
    cut: Annotated[
        Path | None,
        typer.Option(help="The part that is seen, what is hidden on it, and marks: the file of a cut."),
    ] = None,
    rate: Annotated[int, typer.Option(help="Frames a second, at most.")] = USUAL_RATE_FPS,
    there_and_back: Annotated[
        bool, typer.Option("--there-and-back", help="Play to the end and back to the beginning.")
    ] = False,
    repeats: Annotated[
        int, typer.Option(help="How often it plays, where the format says; 0 is for ever.")
    ] = 0,
    as_json: Annotated[bool, typer.Option("--json", help="Print one JSON object.")] = False,
) -> None:
    """Take a few seconds of a page, scrolling or moving, as one file under a limit."""
    started = time.monotonic()
    with told_in_one_line():
        steps = tuple(PageStep.parse(line) for line in step or ())
        scrolls = not steps and not seconds
        if not scrolls and (scroll is not None or speed is not None or pause):
            raise ClipError(
                "A clip scrolls through a page, or shows its steps and movement.",
                hint="Ask for one of both.",
                code="clip_two_kinds",
            )
        request = ClipRequest(
            page=PageRequest(address=normalise_address(url), screen=Screen.parse(screen), steps=steps),
            scroll=_scroll(scroll, speed, pause) if scrolls else None,
            plays_steps=bool(steps),
            seconds=seconds,
            element=element,
            rate_fps=rate,
        )
        rules = ClipRules(
            format=clip_format(out.suffix.removeprefix(".") or "webp"),
            limit_bytes=parse_byte_count(limit),
            width_px=width,
        )
        document = ClipDocument(there_and_back=there_and_back, repeats=repeats)
        if (given := opened_cut(cut)) is not None:
            document = seen_through(given, document)
        require_file(out)
        with tempfile.TemporaryDirectory(prefix="tallpage-") as scratch, progress_bar() as on_progress:
            with Browser() as browser:
                frames, report = take_clip(browser, request, Path(scratch), on_progress=on_progress)
            with output_file(out, f"clip.{rules.format}") as file:
                made = fit_clip(
                    frames, document, rules, file, on_try=lambda tries: on_progress(Step("fitting", tries, 0))
                )
    facts = _facts(out, report, made, seconds=round(time.monotonic() - started, 2))
    with messages_beside(out):
        if as_json:
            print_json(facts)
        else:
            _print_clip(facts)
    if not made.is_met:
        raise typer.Exit(NOT_MET)


def _scroll(stretch: str | None, speed_px_s: int | None, pause_s: float) -> Scroll:
    if stretch is None:
        return Scroll(speed_px_s=speed_px_s, pause_s=pause_s)
    match = _RANGE.fullmatch(stretch.strip())
    if match is None:
        raise ClipError(
            f"“{stretch[:40]}” does not say from where to where.",
            hint="Write it like 0-2400, or 600- for all from there on.",
            code="clip_malformed",
        )
    last = int(match["last"]) if match["last"] else None
    return Scroll(from_px=int(match["first"]), to_px=last, speed_px_s=speed_px_s, pause_s=pause_s)


def _facts(out: Path, report: ClipReport, made: ClipFile, *, seconds: float) -> told.Clip:
    return {
        "file": str(out),
        "url": report.address,
        "final_url": report.final_address,
        "title": report.title,
        "status": report.status,
        "format": made.settings.format,
        "width": made.size.width_px,
        "height": made.size.height_px,
        "bytes": made.byte_count,
        "limit": made.limit_bytes,
        "met": made.is_met,
        "score": made.fidelity,
        "frames": made.frames,
        "frames_wanted": made.wanted_frames,
        "duration": round(made.seconds, 3),
        "given_up": list(made.given_up),
        "advice": [{"kind": row.kind, "value": row.value, "sentence": row.sentence} for row in made.advice],
        "left_out": list(report.left_out),
        "warnings": list(report.warnings),
        "seconds": seconds,
    }


def _print_clip(facts: told.Clip) -> None:
    out = STANDARD if facts["file"] == str(STANDARD) else Path(facts["file"])
    print(
        f"{out}: {facts['format']}, {facts['width']} × {facts['height']} px, {facts['duration']:.1f} s, "
        f"{format_bytes(facts['bytes'])} of {format_bytes(facts['limit'])}, fidelity {facts['score']:.0f} "
        f"({fidelity_in_words(facts['score'])})"
    )
    for sentence in (*facts["given_up"], *(row["sentence"] for row in facts["advice"]), *facts["warnings"]):
        print(f"  {sentence}")
