"""A folder on the server's disk, below the one that is kept for this."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from pathlib import Path, PurePosixPath

from pathvalidate import sanitize_filename

from tallpage.core.files import storage_errors
from tallpage.core.handover import FolderChannel, Item, with_manifest
from tallpage.server.handover.models import HandOver
from tallpage.server.handover.selection import Selection
from tallpage.server.handover.ways.base import Outcome, go_on, named_items
from tallpage.server.jobs.queue import Signals
from tallpage.server.preferences.out_folder import out_folder
from tallpage.server.storage import new_folder_in

_MOST_CHARS = 80
_MOST_OF_ONE_NAME = 10_000


class FolderWay:
    """Files with a manifest in a folder that was not there before.

    With the option ``joined`` one file beside those that are in the folder already.
    """

    def check(self, line: HandOver, selection: Selection) -> None:
        """The folder, or the joining file, is made now: a worker that begins anew finds it, and no second
        one comes to be."""
        asked = sanitize_filename(
            str(line.options.get("folder", "")), platform="universal", max_len=_MOST_CHARS
        )
        name = asked.strip(" .") or sanitize_filename(selection.subject(), max_len=_MOST_CHARS).strip(" .")
        if line.options.get("joined"):
            folder = out_folder() / (name or "handed over")
            line.options["file"] = _reserved(folder, next(_files(line, selection)).path)
        else:
            folder = new_folder_in(out_folder(), name or "handed over")
        line.where, line.options["at"] = folder.name, str(folder)

    def send(self, line: HandOver, selection: Selection, signals: Signals) -> Outcome:
        """Write everything; what was written stays when the rest fails."""
        names: list[str] = []

        def counted(items: Iterator[Item]) -> Iterator[Item]:
            for item in items:
                go_on(signals)
                signals.report("saving", len(names))
                names.append(item.path)
                yield item

        folder = Path(line.options.get("at") or out_folder() / line.where)
        if line.options.get("joined"):
            items = iter([replace(next(_files(line, selection)), path=line.options["file"])])
        else:
            items = with_manifest(named_items(line, selection))
        try:
            FolderChannel(folder).send(counted(items))
        except Exception:
            _let_go(folder, line)
            raise
        files = [{"name": name, "bytes": (folder / name).stat().st_size} for name in names]
        return Outcome(answer=f"Saved in {folder}.", address=str(folder), files=files)


def _let_go(folder: Path, line: HandOver) -> None:
    """What was only reserved goes when nothing was written there."""
    reserved = folder / str(line.options.get("file", ""))
    if line.options.get("joined") and reserved.is_file() and reserved.stat().st_size == 0:
        reserved.unlink()


def _files(line: HandOver, selection: Selection) -> Iterator[Item]:
    return (item for item in named_items(line, selection) if isinstance(item, Item))


def _reserved(folder: Path, path: str) -> str:
    """A path in the folder that nothing had, with an empty file at it; nothing is written over."""
    wanted = PurePosixPath(path)
    for number in range(1, _MOST_OF_ONE_NAME):
        free = wanted if number == 1 else wanted.with_name(f"{wanted.stem} {number}{wanted.suffix}")
        with storage_errors(folder):
            (folder / free).parent.mkdir(parents=True, exist_ok=True)
            try:
                (folder / free).open("xb").close()
            except FileExistsError:
                continue
        return str(free)
    raise FileExistsError(folder / path)
