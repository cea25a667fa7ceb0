"""``tallpage run``: a routine over pages and pictures, into a folder."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from contextlib import ExitStack
from dataclasses import replace
from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from tallpage.cli._lists import WEB, listed_pages, welcome_pages
from tallpage.cli._output import NOT_MET, print_json, progress_bar, require_folder, told_in_one_line
from tallpage.cli._piping import STANDARD, input_file
from tallpage.core.capture import Progress, normalise_address
from tallpage.core.errors import ListError, PictureTooLarge, PictureUnreadable, RoutineError
from tallpage.core.handover import ManifestRow
from tallpage.core.picture import check_picture
from tallpage.core.routine import (
    OutStep,
    Routine,
    read_routine,
    request_of,
    starter_names,
    starter_routine,
    with_answers,
)
from tallpage.core.sweep import (
    BadLine,
    Found,
    ListedPage,
    Pace,
    PageList,
    Pattern,
    SweepOrder,
    list_of,
    sitemap_like,
    sweep_into,
    workers_for_this_machine,
)

if TYPE_CHECKING:
    from tallpage.cli import _json as told

_DEFAULT_NAMES = "{title}-{width}"
_LISTS = {".txt", ".csv", ".xlsx"}
_TOLD = 20


def run(
    routine: Annotated[
        str, typer.Argument(metavar="ROUTINE", help="The file of a routine, or the name of one that ships.")
    ],
    sources: Annotated[
        list[str],
        typer.Argument(
            metavar="SOURCE...",
            help="Addresses, pictures, folders of pictures, lists, sitemaps; - for a picture or a list on "
            "standard input.",
        ),
    ],
    out: Annotated[Path, typer.Option(help="Folder for the files; it is made.", file_okay=False)],
    values: Annotated[
        list[str] | None,
        typer.Option("--set", metavar="NAME=VALUE", help="A value that the routine asks for: width=600."),
    ] = None,
    name: Annotated[
        str | None, typer.Option(help="Pattern of names, as for sweeps; else the routine's own.")
    ] = None,
    at_once: Annotated[int, typer.Option(help="Pages of one host at once.")] = Pace().at_once,
    pause: Annotated[
        float, typer.Option(help="Seconds between the starts of two of one host.")
    ] = Pace().pause_s,
    workers: Annotated[
        int | None,
        typer.Option(help="Pictures at once; as many as this machine can bear.", min=1, max=32),
    ] = None,
    robots: Annotated[
        bool | None, typer.Option(help="Leave out what robots.txt asks programmes to; so with sitemaps.")
    ] = None,
    resume: Annotated[bool, typer.Option(help="Go on with a run that is in the folder.")] = False,
    as_json: Annotated[bool, typer.Option("--json", help="Print one JSON object.")] = False,
) -> None:
    """Run a routine over pages and pictures: the same steps for each, into a folder, with a manifest."""
    with told_in_one_line(), ExitStack() as open_files:
        chain = with_answers(_routine(routine), dict(_value(text) for text in values or ()))
        require_folder(out)
        found = _Sources(open_files)
        for source in sources:
            found.add(source, robots=robots)
        pages = list_of(Found(text=page.address, line=page.line, title=page.title) for page in found.pages)
        if not pages.pages and not found.pictures:
            raise ListError("There is no page and no picture to run it on.", code="list_empty")
        how = request_of(chain, pages.pages[0].address if pages.pages else "")
        order = SweepOrder(
            pages=replace(pages, bad=(*found.bad, *pages.bad)),
            screens=(how.screen,),
            how=how,
            pattern=Pattern(name or _own_names(chain) or _DEFAULT_NAMES),
            pictures=tuple(found.pictures),
            routine=chain,
        )
        with progress_bar() as on_progress:
            rows = sweep_into(
                out,
                order,
                pace=Pace(at_once=at_once, pause_s=pause),
                workers=workers or workers_for_this_machine(),
                resume=resume,
                on_row=lambda done, everything: on_progress(
                    Progress(stage="taking", done=done, expected=everything)
                ),
            )
    facts = _facts(out, chain, rows, len(pages.pages) + len(found.pictures), found.problems)
    if as_json:
        print_json(facts)
    else:
        _print_run(facts, rows)
    if facts["failed"]:
        raise typer.Exit(1)
    if facts["not_met"]:
        raise typer.Exit(NOT_MET)


class _Sources:
    """What the sources hold: pages and pictures, each list in its order."""

    def __init__(self, open_files: ExitStack) -> None:
        self._open_files = open_files
        self.pages: list[ListedPage] = []
        self.pictures: list[Path] = []
        self.bad: list[BadLine] = []
        self.problems: list[str] = []

    def add(self, source: str, *, robots: bool | None) -> None:
        """Add what a source holds.

        Raises:
            AddressError, ListError, PictureTooLarge, PictureUnreadable: it holds nothing that can be used.
        """
        if WEB.match(source) and not sitemap_like(source):
            alone = Found(text=normalise_address(source), line=1)
            self._add_pages(list_of([alone]), respected=bool(robots))
            return
        if WEB.match(source):
            self._add_list(source, respected=robots is not False)
            return
        path = Path(source)
        if path.is_dir():
            self.pictures += _pictures_in(path)
        elif path == STANDARD:
            self._add_standard_input(respected=bool(robots))
        elif path.suffix.lower() in _LISTS:
            self._add_list(source, respected=bool(robots))
        elif path.is_file():
            check_picture(path)
            self.pictures.append(path)
        else:
            raise ListError(
                f"There is no file or folder {source}.",
                hint="Check the path; an address begins with http:// or https://.",
                code="list_missing",
            )

    def _add_standard_input(self, *, respected: bool) -> None:
        file = self._open_files.enter_context(input_file(STANDARD))
        try:
            check_picture(file)
        except PictureTooLarge:
            raise
        except PictureUnreadable:
            self._add_list(str(file), respected=respected)
        else:
            self.pictures.append(file)

    def _add_list(self, source: str, *, respected: bool) -> None:
        pages, problems = listed_pages(source, None)
        self.problems += problems
        self._add_pages(pages, respected=respected)

    def _add_pages(self, pages: PageList, *, respected: bool) -> None:
        self.bad += pages.bad
        if respected:
            pages, forbidden, unknown = welcome_pages(pages)
            self.problems += unknown
            if forbidden:
                self.problems.append(f"{forbidden} pages are left out, as robots.txt asks.")
        self.pages += pages.pages


def _routine(text: str) -> Routine:
    """The routine of a file, or one that ships.

    Raises:
        RoutineError: there is none, or it cannot be read.
    """
    path = Path(text)
    if path.is_file():
        return read_routine(path.read_bytes())
    if text in starter_names():
        return starter_routine(text)
    raise RoutineError(
        f"There is no routine {text}.",
        hint=f"Give its file, or one of {', '.join(starter_names())}.",
        code="routine_missing",
    )


def _value(text: str) -> tuple[str, str]:
    name, equals, value = text.partition("=")
    if not equals or not name.strip():
        raise RoutineError(f"“{text}” is no value.", hint="Write it like width=600.", code="routine_value")
    return name.strip(), value


def _own_names(routine: Routine) -> str:
    """The pattern that a routine names its files by; empty where it has none."""
    return next((row.names for row in routine.steps if isinstance(row, OutStep) and not row.off), "").strip()


def _pictures_in(folder: Path) -> Iterator[Path]:
    """The files of a folder that are pictures, by name; what lies in folders of it is left alone."""
    for path in sorted(folder.iterdir()):
        if not path.is_file() or path.name.startswith("."):
            continue
        try:
            check_picture(path)
        except PictureTooLarge:
            pass  # it is one, and says of itself what is wrong with it
        except PictureUnreadable:
            continue
        yield path


def _facts(
    out: Path, routine: Routine, rows: Sequence[ManifestRow], source_count: int, problems: Sequence[str]
) -> told.Run:
    failed = [row for row in rows if row.failed]
    files = [row for row in rows if row.file]
    return {
        "folder": str(out),
        "routine": routine.name,
        "sources": source_count,
        "files": len(files),
        "met": sum(row.met is not False for row in files),
        "not_met": sum(row.met is False for row in files),
        "skipped": sum(not row.file and not row.failed for row in rows),
        "failed": len(failed),
        "problems": list(problems),
        "manifest": str(out / "manifest.json"),
    }


def _print_run(facts: told.Run, rows: Sequence[ManifestRow]) -> None:
    print(
        f"{facts['folder']}: {facts['files']} files of {facts['sources']} pages and pictures, "
        f"{facts['not_met']} not as asked, {facts['skipped']} left out, {facts['failed']} failed"
    )
    for row in [row for row in rows if row.failed or row.met is False or not row.file][:_TOLD]:
        print(f"  {row.file or row.address}: {row.error or ' '.join(row.warnings)}")
    for problem in facts["problems"][:_TOLD]:
        print(f"  {problem}")
