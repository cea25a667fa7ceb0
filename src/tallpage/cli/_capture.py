"""``tallpage capture``: a page into one PNG file."""

from __future__ import annotations

import os
import shutil
import tempfile
import time
from collections.abc import Iterator, Sequence
from dataclasses import asdict
from pathlib import Path
from typing import TYPE_CHECKING, Annotated, cast

import typer

from tallpage.cli._output import print_json, progress_bar, require_file, told_in_one_line
from tallpage.cli._piping import STANDARD, messages_beside, output_file
from tallpage.core.capture import (
    LEAST_BUSY_S,
    BasicSignIn,
    Browser,
    Extent,
    PageRequest,
    PageWidth,
    Scheme,
    Screen,
    SignIn,
    Step,
    Timeouts,
    normalise_address,
    read_state,
    take_page,
)
from tallpage.core.errors import PageError
from tallpage.core.render import save_joined_png
from tallpage.core.units import format_bytes

if TYPE_CHECKING:
    from tallpage.cli import _json as told

MOST_COUNT = 1_000


def capture(
    url: Annotated[str, typer.Argument(help="Address of the page, http or https.")],
    out: Annotated[Path, typer.Option(help="PNG file to write; - for standard output.", dir_okay=False)],
    width: Annotated[int, typer.Option(help="Width of the screen in CSS px.")] = 1280,
    height: Annotated[int, typer.Option(help="Height of the screen in CSS px.")] = 800,
    scale: Annotated[int, typer.Option(help="Device px per CSS px: 1, 2 or 3.")] = 1,
    extent: Annotated[
        Extent, typer.Option(help="The full page, its first screen, or what --element says.")
    ] = "full",
    element: Annotated[
        str, typer.Option(help='Take only this: a CSS selector, or words it shows in "quotation marks".')
    ] = "",
    to_element: Annotated[
        str, typer.Option(help="With --extent between: the last element of the stretch.")
    ] = "",
    from_px: Annotated[
        int, typer.Option("--from", help="Begin so many CSS px from the page's top.", min=0)
    ] = 0,
    max_height: Annotated[
        int | None, typer.Option(help="Cut a full page off after so many CSS px.", min=1)
    ] = None,
    max_screens: Annotated[int | None, typer.Option(help="Or after so many screens.", min=1)] = None,
    page_width: Annotated[
        PageWidth, typer.Option(help="Of a page wider than the screen: what the screen shows, or all.")
    ] = "screen",
    scheme: Annotated[Scheme, typer.Option(help="Ask the page for light or dark colours.")] = "light",
    touch: Annotated[bool, typer.Option(help="Ask for the page as a phone or tablet does.")] = False,
    language: Annotated[
        str, typer.Option(help="Ask for the page in this language, like de or pt-BR.")
    ] = "en-GB",
    step: Annotated[
        list[str] | None,
        typer.Option(
            help='Do this before the picture, in order: click "Accept all" · hover #menu · '
            'type #q = ferries · press Enter · scroll #prices · wait for "Total" · pause 1.5'
        ),
    ] = None,
    wait: Annotated[float, typer.Option(help="Wait so many seconds before the picture.", min=0)] = 0,
    leave_out: Annotated[
        list[str] | None, typer.Option(help="CSS selector of something to hide; may be given several times.")
    ] = None,
    keep_overlays: Annotated[
        bool,
        typer.Option(
            "--keep-hanging", help="Keep notices and bubbles that hang in the window, once at the lower end."
        ),
    ] = False,
    busy: Annotated[
        int, typer.Option(help="For how many seconds the page's own scripts may keep it busy: 60 to 300.")
    ] = LEAST_BUSY_S,
    sign_in_file: Annotated[
        Path | None,
        typer.Option(help="Be signed in by this file: storage state or cookies as JSON, or cookies.txt."),
    ] = None,
    basic: Annotated[
        bool, typer.Option(help="Answer the server's own sign-in with TALLPAGE_BASIC, written name:password.")
    ] = False,
    count: Annotated[
        int,
        typer.Option(help="Take it so many times, into files numbered before .png.", min=1, max=MOST_COUNT),
    ] = 1,
    every: Annotated[
        float, typer.Option(help="With --count: seconds from the start of one picture to the next.", min=0)
    ] = 0,
    as_json: Annotated[bool, typer.Option("--json", help="Print one JSON object.")] = False,
) -> None:
    """Take a full-length picture of a page into one PNG file, or several in a row."""
    with told_in_one_line():
        request = PageRequest(
            address=normalise_address(url),
            screen=Screen(width_px=width, height_px=height, scale=scale, touch=touch),
            # An element that is named without an extent is what is taken.
            extent="element" if element and extent == "full" else extent,
            element=element,
            to_element=to_element,
            from_px=from_px,
            max_height_px=max_height,
            max_screens=max_screens,
            page_width=page_width,
            scheme=scheme,
            language=language,
            steps=tuple(Step.parse(line) for line in step or ()),
            wait_ms=round(wait * 1_000),
            leave_out=tuple(leave_out or ()),
            fixed_overlays="keep" if keep_overlays else "leave_out",
            sign_in=_sign_in(sign_in_file, basic=basic),
            timeouts=Timeouts().busy_for(busy),
        )
        if every and count == 1:
            raise PageError(
                "--every says how far apart pictures are, and there is one.", hint="Give --count too."
            )
        if out == STANDARD and count > 1:
            raise PageError("Several pictures cannot leave by standard output.", hint="Name a file.")
        files = _numbered(out, count)
        for file in files:
            require_file(file)
        taken: list[told.Taken] = []
        with Browser() as browser:
            for file in _in_time(files, every):
                with output_file(file, "page.png") as target:
                    taken.append(_taken(browser, request, target, named=file))
                if not as_json:
                    with messages_beside(out):
                        _print_taken(taken[-1])
    if as_json:
        with messages_beside(out):
            print_json(taken[0] if count == 1 else {"pictures": taken})


def _print_taken(facts: told.Taken) -> None:
    print(f"{facts['file']}: {facts['width']} × {facts['height']} px, {format_bytes(facts['bytes'])}")
    for warning in facts["warnings"]:
        print(f"  {warning}")


def _numbered(out: Path, count: int) -> list[Path]:
    """The files of a series: their numbers have as many digits as the last one."""
    if count == 1:
        return [out]
    digits = len(str(count))
    return [out.with_name(f"{out.stem}-{number:0{digits}}{out.suffix}") for number in range(1, count + 1)]


def _in_time(files: Sequence[Path], every_s: float) -> Iterator[Path]:
    """Each file when it is due; one whose time has passed already is due at once."""
    started = time.monotonic()
    for number, file in enumerate(files):
        time.sleep(max(0.0, started + number * every_s - time.monotonic()))
        yield file


def _taken(browser: Browser, request: PageRequest, out: Path, *, named: Path) -> told.Taken:
    """A page taken into a file; what there is to say of it, under the name that it was asked for by."""
    started = time.monotonic()
    scratch = Path(tempfile.mkdtemp(prefix="tallpage-"))
    try:
        with progress_bar() as on_progress:
            manifest, report = take_page(browser, request, scratch, on_progress=on_progress)
        byte_count = save_joined_png(scratch, manifest, out)
    finally:
        shutil.rmtree(scratch, ignore_errors=True)
    return {
        "file": str(named),
        "url": request.address,
        "final_url": report.final_address,
        "title": report.title,
        "status": report.status,
        "width": manifest.width_px,
        "height": manifest.height_px,
        "scale": request.screen.scale,
        "bytes": byte_count,
        "truncated": report.truncated,
        "whole": report.wholeness.is_whole,
        "lacking": [cast("told.Lacking", asdict(row)) for row in report.wholeness.lacking],
        "left_out": list(report.left_out),
        "warnings": list(report.warnings),
        "seconds": round(time.monotonic() - started, 2),
    }


def _sign_in(file: Path | None, *, basic: bool) -> SignIn | None:
    """A sign-in never stands on the command line itself, where others can read it."""
    if file is not None:
        try:
            return read_state(file.read_bytes())
        except OSError as error:
            raise PageError(
                f"{file} cannot be read.", hint="Check the path.", code="sign_in_unreadable"
            ) from error
    if basic:
        name, colon, password = os.environ.get("TALLPAGE_BASIC", "").partition(":")
        if not colon:
            raise PageError(
                "TALLPAGE_BASIC does not hold name:password.", hint="Set it.", code="sign_in_unreadable"
            )
        return BasicSignIn(name=name, password=password)
    return None
