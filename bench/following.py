"""How many blocks of edited pages are found again: right, in doubt, not found, and wrong without a doubt.

Two kinds of pairs: pages that are written, edited and laid out here, so that it is known which block became
which; and pages of the demo in its first and its next edition, taken in a browser. There a leaf of the first
edition is what its words say, as often as they are said, but for what the editor changed.
"""

from __future__ import annotations

import tempfile
import threading
from collections import Counter
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from pathlib import Path

from tests.core.following.edited_pages import Writer, laid_out

from tallpage.core.capture import PRESETS, Browser, PageRequest, take_page
from tallpage.core.following import Match, Outline, matched
from tallpage.core.page_map import PageMap
from tallpage.demo.photo_store import PhotoStore
from tallpage.demo.site_server import DemoSite

_SHARES, _PAGES = (0.05, 0.1, 0.2), 100
WANTED_RIGHT = 0.95
_REWORDED = {
    "20 minutes late: fog at the Narrows": "On time",
    "Not sailing until Thursday: refit": "Sailing again",
    "6.40 8.20 24.00 31.50": "6.60 8.40 24.50 32.00",
    "14:05 Sea Thrift": "14:05 Kittiwake",
    "44 cars, 300": "46 cars, 310",
    "under five": "under six",
}
"""What the editor wrote anew near the beginning of a line; lines are told by their beginnings."""
_BEGINNING_CHARS = 48
_SHORT_CHARS = 24
"""Texts of one block that are longer are told by so much of them."""


def told(before: Sequence[str], now: Sequence[str], found: dict[int, Match]) -> Counter[str]:
    """What became of blocks that are known by names; a name that is nowhere now is gone."""
    places = {name: number for number, name in enumerate(now)}
    rows: Counter[str] = Counter()
    for number, name in enumerate(before):
        match, place = found.get(number), places.get(name)
        if match is None:
            rows["right" if place is None else "not found"] += 1
        elif not match.sure:
            rows["in doubt"] += 1
        else:
            rows["right" if match.now == place else "wrong"] += 1
    return rows


def _written(share: float) -> Counter[str]:
    rows: Counter[str] = Counter()
    for seed in range(_PAGES):
        writer = Writer(seed)
        page = writer.page()
        _, before, names = laid_out(page)
        _, now, names_now = laid_out(writer.edited(page, share=share))
        rows += told(names, names_now, matched(Outline.of(before), Outline.of(now)))
    return rows


def _named(outline: Outline, *, first: bool) -> Iterator[tuple[int, str]]:
    """The leaves, each named by its line, its place in it, and how often the line was there before."""
    met: Counter[str] = Counter()
    for line in outline.lines:
        said = " ".join(outline.blocks[leaf].text or outline.blocks[leaf].alt for leaf in line)
        for words, instead in _REWORDED.items() if first else ():
            said = said.replace(words, instead)
        said = said[: _BEGINNING_CHARS if len(line) > 1 else _SHORT_CHARS]
        met[said] += 1
        for column, leaf in enumerate(line):
            yield leaf, f"{said} / {column} / {met[said]}"


@contextmanager
def _demo_site(scratch: Path) -> Iterator[DemoSite]:
    with DemoSite(0, PhotoStore(scratch / "photographs")) as site:
        threading.Thread(target=site.serve_forever, daemon=True).start()
        yield site
        site.shutdown()


def _edition(path: str) -> Counter[str]:
    outlines = []
    with (
        tempfile.TemporaryDirectory() as scratch,
        _demo_site(Path(scratch)) as site,
        Browser() as browser,
    ):
        for edition in (1, 2):
            site.edition = edition
            folder = Path(scratch) / str(edition)
            folder.mkdir()
            address = f"http://127.0.0.1:{site.server_port}{path}"
            take_page(browser, PageRequest(address=address, screen=PRESETS["desk"]), folder)
            outlines.append(Outline.of(PageMap.load(folder).blocks))
    before, now = outlines
    found = matched(before, now)
    leaves, leaves_now = dict(_named(before, first=True)), dict(_named(now, first=False))
    places = {leaf: at for at, leaf in enumerate(leaves_now)}
    by_leaf = {
        at: Match(places.get(match.now, -1), match.sure)
        for at, leaf in enumerate(leaves)
        if (match := found.get(leaf))
    }
    return told(list(leaves.values()), list(leaves_now.values()), by_leaf)


def main() -> None:
    """Print one line for each kind of pair."""
    rows = {f"written pages, {share:.0%} edited": _written(share) for share in _SHARES}
    rows |= {f"next edition of {path}": _edition(path) for path in ("/", "/timetable", "/fleet")}
    print(f"wanted: {WANTED_RIGHT:.0%} right, none wrong")
    for name, row in rows.items():
        total = row.total()
        shares = ", ".join(f"{row[kind] / total:.1%} {kind}" for kind in ("right", "in doubt", "not found"))
        print(f"{name:32} {total:6} blocks: {shares}, {row['wrong']} wrong")


if __name__ == "__main__":
    main()
