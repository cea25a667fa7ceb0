"""How files are called that leave: as usual, or by a pattern; none twice in one package."""

from __future__ import annotations

from pathlib import PurePosixPath

from django.utils import timezone

from tallpage.core.geometry import Size
from tallpage.core.handover import Item
from tallpage.core.naming import output_file_name
from tallpage.core.sweep import Named, Namer, Pattern
from tallpage.server.outlets.models import Output
from tallpage.server.shelf.models import Capture, Cut


class FileNames:
    """Gives the files of one package their names."""

    def __init__(self, pattern: str = "", *, expected: int = 1) -> None:
        """By a pattern with the fields of sweeps; without one, page, date and size.

        Raises:
            ListError: a pattern that says what is not known.
        """
        self._namer = Namer(Pattern(pattern)) if pattern.strip() else None
        self._expected = max(1, expected)
        self._given: set[str] = set()
        self._numbers: dict[int, int] = {}

    def of_file(self, row: Output, item: Item, *, part: str = "") -> str:
        """The name of a file that was made for a row; ``part`` says which of several, like “2 of 5”."""
        facts = item.facts
        width_px = (facts.width_px if facts else None) or 0
        if self._namer is None:
            return self._once(item.path)
        slot = f"{row.label} {part}" if part else row.label
        return self._by_pattern(row.cut.capture, width_px, slot, PurePosixPath(item.path).suffix[1:])

    def of_picture(self, cut: Cut, size: Size, extension: str = "png") -> str:
        """The name of a cut's picture."""
        if self._namer is not None:
            return self._by_pattern(cut.capture, size.width_px, cut.name, extension)
        return self._once(
            output_file_name(
                capture_name=cut.capture.name,
                width_px=size.width_px,
                height_px=size.height_px,
                extension=extension,
            )
        )

    def _by_pattern(self, capture: Capture, width_px: int, slot: str, extension: str) -> str:
        assert self._namer is not None  # noqa: S101 - asked before
        number = self._numbers.setdefault(capture.pk, len(self._numbers) + 1)
        named = Named(
            address=capture.final_address or capture.address,
            title=capture.title or capture.name,
            screen=capture.screen,
            taken_at=timezone.localtime(capture.taken_at or capture.created_at),
            number=number,
            of=self._expected,
            width_px=width_px,
            slot=slot,
        )
        return self._namer.name(named.values(), extension)

    def _once(self, name: str) -> str:
        """A name that was not given before."""
        stem, dot, extension = name.rpartition(".")
        candidate, count = name, 1
        while candidate in self._given:
            count += 1
            candidate = f"{stem}-{count}{dot}{extension}"
        self._given.add(candidate)
        return candidate
