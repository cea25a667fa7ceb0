"""A night's work by the HTTP API: take pages, make an outlet's files of them, save all in a folder.

    tallpage token add isa --scope all > token.txt
    python night.py http://127.0.0.1:8600 "Harbour Gazette" morning ADDRESS... < token.txt

Only Python's own library is used. The whole API is described in docs/openapi.json.
"""

from __future__ import annotations

import json
import sys
import time
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Any
from urllib.error import HTTPError
from urllib.request import Request, urlopen

PATIENCE_S = 600.0


class Refused(Exception):
    """What Tall Page did not do, in its own words."""


@dataclass(frozen=True)
class Made:
    """A file that was made: its name, its bytes, how good it looks, and whether it keeps to its rules."""

    name: str
    bytes: int
    fidelity: float
    met: bool


class TallPage:
    """A Tall Page that somebody has a token for."""

    def __init__(self, address: str, token: str) -> None:
        self._address = address.rstrip("/")
        self._token = token

    def ask(self, path: str, body: object = None, *, method: str = "") -> Any:
        """The answer of the API: of a question, or with ``body`` of an order.

        Raises:
            Refused: Tall Page says why it does not do it, and what to do.
        """
        data = None if body is None else json.dumps(body).encode()
        with self._opened(path, data, method or ("GET" if data is None else "POST")) as answer:
            return json.load(answer)

    def fetch(self, path: str) -> bytes:
        """A file."""
        with self._opened(path, None, "GET") as answer:
            return bytes(answer.read())

    def take(self, address: str, *, width_px: int = 1_280, height_px: int = 800) -> int:
        """Take a page whole; the number of its capture, once it is there."""
        screen = {"width_px": width_px, "height_px": height_px}
        capture: int = self.ask("/api/captures", {"address": address, "screen": screen})["id"]
        self._wait(lambda: self.ask(f"/api/captures/{capture}")["job"])
        return capture

    def make_files(self, capture: int, outlet: str) -> list[Made]:
        """The files that an outlet takes, of a capture's first cut."""
        outlets = {row["name"]: row["id"] for row in self.ask("/api/outlets")}
        if outlet not in outlets:
            raise Refused(f"There is no outlet {outlet}. There are: {', '.join(outlets)}.")
        self.ask(f"/api/outlets/{outlets[outlet]}/files", {"captures": [capture]})
        cut = self.ask(f"/api/captures/{capture}")["cuts"][0]["id"]
        rows: list[dict[str, Any]] = self.ask(f"/api/cuts/{cut}/outputs")
        for row in rows:
            self._wait(lambda row=row: self._row(cut, row["id"])["job"])  # type: ignore[misc]
        made = [self._row(cut, row["id"]) for row in rows]
        return [Made(row["file_name"], row["bytes"], row["fidelity"], row["met"]) for row in made]

    def save(self, captures: list[int], folder: Path) -> Path:
        """All files that were made of some captures: one as it is, several as a ZIP with a list of them."""
        line = self.ask("/api/hand-overs", {"order": {"way": "disk", "what": {"captures": captures}}})
        file = folder / (line["files"][0]["name"] if line["way"] == "file" else "files.zip")
        folder.mkdir(parents=True, exist_ok=True)
        file.write_bytes(self.fetch(line["file_url"]))
        return file

    def _row(self, cut: int, row_id: int) -> dict[str, Any]:
        rows: list[dict[str, Any]] = self.ask(f"/api/cuts/{cut}/outputs")
        return next(row for row in rows if row["id"] == row_id)

    def _wait(self, job: Callable[[], dict[str, Any]]) -> None:
        until = time.monotonic() + PATIENCE_S
        while (told := job())["state"] in ("queued", "running"):
            if time.monotonic() > until:
                raise Refused("It takes too long.")
            time.sleep(0.5)
        if told["error"]:
            raise Refused(f"{told['error']['sentence']} {told['error']['hint']}")

    def _opened(self, path: str, data: bytes | None, method: str) -> Any:
        headers = {"Authorization": f"Bearer {self._token}", "Content-Type": "application/json"}
        request = Request(self._address + path, data=data, headers=headers, method=method)  # noqa: S310
        try:
            return urlopen(request, timeout=120)  # noqa: S310 - the address is the caller's own
        except HTTPError as error:
            problem = json.load(error)
            raise Refused(f"{problem['title']} {problem['detail']}") from error


def main(address: str, outlet: str, folder: str, *pages: str) -> int:
    """Take the pages, tell of each file, save them; a page that fails does not end the night."""
    tall_page, taken, failed = TallPage(address, sys.stdin.readline().strip()), [], 0
    for page in pages:
        try:
            capture = tall_page.take(page)
            for made in tall_page.make_files(capture, outlet):
                kept = "" if made.met else ", not as asked for"
                print(f"{made.name}: {made.bytes:,} bytes, fidelity {made.fidelity:.0f}{kept}")
            taken.append(capture)
        except Refused as refusal:
            failed += 1
            print(f"{page}: {refusal}", file=sys.stderr)
    if taken:
        print(f"Saved: {tall_page.save(taken, Path(folder))}")
    return 1 if failed else 0


if __name__ == "__main__":
    sys.exit(main(*sys.argv[1:]))
