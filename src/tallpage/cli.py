"""The command line: the core's work from a script.

Exit codes: 0 done, 1 failed, 2 usage, 3 the limit cannot be met acceptably.
"""

from __future__ import annotations

import json
import os
import shutil
import sys
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import asdict
from pathlib import Path
from typing import Annotated, Any, NoReturn

import typer
from rich.console import Console
from rich.progress import BarColumn, MofNCompleteColumn, Progress, TextColumn

from tallpage.core.capture import (
    BasicSignIn,
    Browser,
    Extent,
    PageRequest,
    PageWidth,
    Scheme,
    Screen,
    SignIn,
    Step,
    normalise_address,
    read_state,
    take_page,
)
from tallpage.core.capture import Progress as PageProgress
from tallpage.core.errors import FitError, PageError, StorageError, TallPageError
from tallpage.core.files import write_whole
from tallpage.core.fit import FORMATS, FitOrder, FitResult, fidelity_in_words, fit_cut, require_formats
from tallpage.core.picture import Raster, check_picture, save_joined_png
from tallpage.core.units import format_bytes, parse_byte_count

app = typer.Typer(
    help="Full-length pictures of web pages, fitted under a byte limit.",
    no_args_is_help=True,
    add_completion=False,
    pretty_exceptions_enable=False,
)
_FAILED, _USAGE, _NOT_MET = 1, 2, 3
_USAGE_CODES = {
    "address_empty",
    "address_malformed",
    "address_scheme",
    "screen_impossible",
    "limit_malformed",
    "limit_impossible",
    "width_impossible",
    "format_unknown",
    "element_malformed",
    "height_impossible",
    "language_malformed",
    "step_malformed",
    "wait_impossible",
}


@app.command()
def capture(
    url: Annotated[str, typer.Argument(help="Address of the page, http or https.")],
    out: Annotated[Path, typer.Option(help="PNG file to write.", dir_okay=False)],
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
    keep_hanging: Annotated[
        bool, typer.Option(help="Keep notices and bubbles that hang in the window, once at the lower end.")
    ] = False,
    sign_in_file: Annotated[
        Path | None,
        typer.Option(help="Be signed in by this file: storage state or cookies as JSON, or cookies.txt."),
    ] = None,
    basic: Annotated[
        bool, typer.Option(help="Answer the server's own sign-in with TALLPAGE_BASIC, written name:password.")
    ] = False,
    as_json: Annotated[bool, typer.Option("--json", help="Print one JSON object.")] = False,
) -> None:
    """Take a full-length picture of a page into one PNG file."""
    started = time.monotonic()
    with _told_in_one_line():
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
            hanging="keep" if keep_hanging else "leave_out",
            sign_in=_sign_in(sign_in_file, basic=basic),
        )
        _require_folder(out)
        scratch = Path(tempfile.mkdtemp(prefix="tallpage-"))
        try:
            with Browser() as browser, _progress_bar() as on_progress:
                manifest, report = take_page(browser, request, scratch, on_progress=on_progress)
            byte_count = save_joined_png(scratch, manifest, out)
        finally:
            shutil.rmtree(scratch, ignore_errors=True)
    facts = {
        "url": request.address,
        "final_url": report.final_address,
        "title": report.title,
        "status": report.status,
        "width": manifest.width_px,
        "height": manifest.height_px,
        "scale": scale,
        "file": str(out),
        "bytes": byte_count,
        "truncated": report.truncated,
        "warnings": list(report.warnings),
        "seconds": round(time.monotonic() - started, 2),
    }
    if as_json:
        _print_json(facts)
    else:
        print(f"{out}: {manifest.width_px} × {manifest.height_px} px, {format_bytes(byte_count)}")
        for warning in report.warnings:
            print(f"  {warning}")


@app.command()
def fit(
    picture: Annotated[Path, typer.Argument(help="Picture to fit: PNG, JPEG, WebP, AVIF, GIF or TIFF.")],
    limit: Annotated[str, typer.Option(help="Greatest file size: 90kB, 64KiB, or bytes.")],
    out: Annotated[Path, typer.Option(help="File to write, without extension.")],
    width: Annotated[int | None, typer.Option(help="Width in px; the picture's own when left out.")] = None,
    formats: Annotated[
        str, typer.Option(help="Accepted formats, separated by commas; gif is another.")
    ] = "jpeg,png,webp,avif",
    as_json: Annotated[bool, typer.Option("--json", help="Print one JSON object.")] = False,
) -> None:
    """Find the best-looking file of a picture that is never over a limit."""
    started = time.monotonic()
    with _told_in_one_line():
        if not picture.is_file():
            raise FitError(f"There is no picture {picture}.", hint="Check the path.", code="picture_missing")
        size = check_picture(picture)
        order = FitOrder(
            width_px=size.width_px if width is None else width,
            limit_bytes=parse_byte_count(limit),
            formats=require_formats(formats.split(",")),
        )
        _require_folder(out)
        upright = Raster.open_foreign(picture).normalised().size

        def open_at(width_px: int) -> Raster:
            return Raster.open_foreign(picture).normalised().resized(upright.at_width(width_px)).held()

        with _progress_bar():
            result = fit_cut(open_at, upright, order)
        target = upright.at_width(order.width_px)
        file = _write_chosen(result, out)
    chosen = result.chosen
    facts: dict[str, Any] = {
        "file": str(file) if file else None,
        "format": chosen.choice.format if chosen else None,
        "width": target.width_px,
        "height": target.height_px,
        "bytes": chosen.byte_count if chosen else None,
        "limit": order.limit_bytes,
        "quality": (chosen.choice.quality or chosen.choice.colours or 100) if chosen else None,
        "score": chosen.fidelity if chosen else None,
        "met": result.met,
        "seconds": round(time.monotonic() - started, 2),
        "tries": result.tries,
        "advice": [asdict(row) for row in result.advice],
    }
    if as_json:
        _print_json(facts)
    else:
        _print_fit(facts)
    if not result.met:
        raise typer.Exit(_NOT_MET)


@app.command()
def serve() -> None:
    """Run the application: web, workers, all in one. Settings come from TALLPAGE_* variables."""
    from tallpage.server.serve import serve_all

    raise typer.Exit(serve_all())


def main() -> None:
    """Entry point of the command ``tallpage``."""
    app()


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


def _require_folder(out: Path) -> None:
    if not out.absolute().parent.is_dir():
        raise StorageError(
            f"There is no folder {out.absolute().parent}.", hint="Make it first.", code="no_folder"
        )


def _write_chosen(result: FitResult, out: Path) -> Path | None:
    if result.chosen is None:
        return None
    # The name's own dots stay: only the extension is ours to add.
    file = out.with_name(f"{out.name}.{FORMATS[result.chosen.choice.format].extension}")
    write_whole(file, result.chosen.data)
    return file


def _print_json(facts: dict[str, Any]) -> None:
    print(json.dumps(facts, ensure_ascii=False))


def _print_fit(facts: dict[str, Any]) -> None:
    if facts["file"]:
        size = f"{facts['width']} × {facts['height']} px"
        weight = f"{format_bytes(facts['bytes'])} of {format_bytes(facts['limit'])}"
        looks = f"fidelity {facts['score']:.0f} ({fidelity_in_words(facts['score'])})"
        print(f"{facts['file']}: {size}, {weight}, {looks}")
    if not facts["met"]:
        print(f"The limit of {format_bytes(facts['limit'])} cannot be met acceptably.")
        for advice in facts["advice"]:
            print(f"  {advice['sentence']}")


@contextmanager
def _told_in_one_line() -> Iterator[None]:
    """Our errors end the command with one line on standard error."""
    try:
        yield
    except TallPageError as error:
        _fail(error)
    except KeyboardInterrupt:
        print("Stopped.", file=sys.stderr)
        raise typer.Exit(_FAILED) from None


def _fail(error: TallPageError) -> NoReturn:
    line = f"{error.sentence} {error.hint}".strip().replace("\n", " ")
    print(line, file=sys.stderr)
    raise typer.Exit(_USAGE if error.code in _USAGE_CODES else _FAILED) from None


@contextmanager
def _progress_bar() -> Iterator[Any]:
    """A bar on a terminal, nothing in a pipe."""
    console = Console(stderr=True)
    if not console.is_terminal:
        yield lambda _: None
        return
    columns = (TextColumn("{task.description}"), BarColumn(), MofNCompleteColumn())
    with Progress(*columns, console=console, transient=True) as bar:
        task = bar.add_task("starting", total=None)

        def on_progress(progress: PageProgress) -> None:
            bar.update(
                task, description=progress.stage, completed=progress.done, total=progress.expected or None
            )

        yield on_progress
