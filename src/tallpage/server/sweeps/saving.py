"""What is taken away of a sweep, with names, manifest and contact sheet; and as a ZIP, written while it
is sent."""

from __future__ import annotations

import tempfile
from collections.abc import Iterator
from dataclasses import replace
from datetime import datetime
from functools import partial
from pathlib import Path

from django.http import StreamingHttpResponse
from slugify import slugify

from tallpage.core.fit import FORMATS
from tallpage.core.handover import Item, ManifestRow, ZipChannel, with_manifest
from tallpage.core.render import save_joined_png
from tallpage.core.sweep import Named, Namer, Pattern
from tallpage.server.outlets.models import Output
from tallpage.server.shelf.models import Capture
from tallpage.server.sweeps.contact import ContactSheet
from tallpage.server.sweeps.models import Shot, ShotQuerySet, Sweep

_PIECE_BYTES = 256_000
_SHOTS_AT_ONCE = 50


def zip_of(sweep: Sweep, *, only_kept: bool) -> StreamingHttpResponse:
    """A ZIP of what was taken, of what is marked to keep only when that is asked for.

    Of a sweep with slots it holds the slots' files, of others the pictures as PNG.
    """
    response = StreamingHttpResponse(ZipChannel().send(Archive(sweep, only_kept=only_kept).items()))
    response["Content-Type"] = "application/zip"
    name = slugify(sweep.name, max_length=80) or "sweep"
    response["Content-Disposition"] = f'attachment; filename="{name}.zip"'
    response["Cache-Control"] = "no-store"
    return response


class Archive:
    """What is taken away of a sweep: pictures with their names, a contact sheet, a manifest."""

    def __init__(self, sweep: Sweep, *, only_kept: bool) -> None:
        self._sweep = sweep
        self._only_kept = only_kept
        self._namer = Namer(Pattern(sweep.pattern))
        self._pages = sweep.pages.count()
        self._slots = sweep.slots.exists()
        self._sheet = ContactSheet(sweep)

    @property
    def expected(self) -> int:
        """About how many files there will be."""
        return self._wanted().count() * max(1, self._sweep.slots.count())

    def items(self) -> Iterator[Item]:
        """The package."""
        return with_manifest(self._entries())

    def _entries(self) -> Iterator[Item | ManifestRow]:
        for shot in self._shots():
            yield from self._files(shot)
        for bad in self._sweep.bad_lines:
            yield ManifestRow(address=bad["text"], error=f"Line {bad['line']}: {bad['sentence']}")
        yield Item(path="contact-sheet.html", data=self._sheet.as_page())
        yield from (Item(path=path, data=data) for path, data in self._sheet.printed())

    def _wanted(self) -> ShotQuerySet:
        shots = self._sweep.shots.filter(dropped=False)
        return shots.filter(mark=Shot.Mark.KEEP) if self._only_kept else shots

    def _shots(self) -> Iterator[Shot]:
        """In the order of the list, a few at a time: a ZIP may take long, and holds no query open."""
        ids = list(self._wanted().order_by("page__number", "screen_at").values_list("pk", flat=True))
        for start in range(0, len(ids), _SHOTS_AT_ONCE):
            some = Shot.objects.select_related("page", "capture__job").in_bulk(
                ids[start : start + _SHOTS_AT_ONCE]
            )
            yield from (some[pk] for pk in ids[start : start + _SHOTS_AT_ONCE] if pk in some)

    def _files(self, shot: Shot) -> Iterator[Item | ManifestRow]:
        """Each file of a shot; of one without a picture only its row."""
        screen = self._sweep.core_screens()[shot.screen_at]
        row = ManifestRow(address=shot.page.address, screen=str(screen))
        capture = shot.capture
        if capture is None or not capture.storage_key:
            yield replace(row, error=_why_missing(capture))
            return
        row = replace(capture.facts(), address=row.address, screen=row.screen)
        name = partial(self._name, shot, capture)
        if not self._slots:
            path = name(capture.width_px, "", "png")
            with tempfile.TemporaryDirectory() as scratch:
                file = Path(scratch) / "picture.png"
                byte_count = save_joined_png(capture.folder, capture.manifest(), file)
                self._sheet.add(capture, path)
                yield Item(path=path, data=_read(file), facts=replace(row, file=path, bytes=byte_count))
            return
        self._sheet.add(capture, "")
        for output in (
            Output.objects.filter(cut__capture=capture, slot__isnull=False)
            .select_related("slot")
            .prefetch_related("files")
        ):
            yield from self._made(output, row, name)

    def _made(self, output: Output, row: ManifestRow, name: partial[str]) -> Iterator[Item | ManifestRow]:
        warnings = row.warnings if output.met else (*row.warnings, f"{output.label}: the limit is not met.")
        files = list(output.files.all())
        if not files:
            yield replace(row, error=f"{output.label}: there is no file.")
        for file in files:
            slot = str(output.slot)
            part = f"{slot} {file.number} of {len(files)}" if len(files) > 1 else slot
            path = name(file.width_px, part, FORMATS[file.format].extension)  # type: ignore[index]
            made = replace(
                row,
                width_px=file.width_px,
                height_px=file.height_px,
                bytes=file.bytes,
                file=path,
                warnings=warnings,
            )
            yield Item(path=path, data=_read(file.path), facts=made)

    def _name(self, shot: Shot, capture: Capture, width_px: int, slot: str, extension: str) -> str:
        named = Named(
            address=capture.final_address or shot.page.address,
            title=capture.title or shot.page.title,
            screen=self._sweep.core_screens()[shot.screen_at],
            taken_at=capture.taken_at or datetime.now().astimezone(),
            number=shot.page.number,
            of=self._pages,
            width_px=width_px,
            slot=slot,
        )
        return self._namer.name(named.values(), extension)


def _why_missing(capture: Capture | None) -> str:
    if capture is None:
        return "Not taken."
    error = capture.job.error or {}
    return (
        f"{error.get('sentence', '')} {error.get('hint', '')}".strip() or f"Not taken: {capture.job.state}."
    )


def _read(path: Path) -> Iterator[bytes]:
    with path.open("rb") as file:
        while piece := file.read(_PIECE_BYTES):
            yield piece
