"""Taking a sweep away: a ZIP that is written while it is sent, with names, manifest and contact sheet."""

from __future__ import annotations

import base64
import tempfile
from collections.abc import Iterator
from dataclasses import replace
from datetime import datetime
from functools import partial
from pathlib import Path

from django.http import StreamingHttpResponse
from django.template.loader import render_to_string
from slugify import slugify
from zipstream import ZIP_STORED, ZipStream

from tallpage.core.fit import FORMATS
from tallpage.core.picture import save_joined_png, thumbnail
from tallpage.core.sweep import ManifestRow, Named, Namer, Pattern, manifest_csv, manifest_json
from tallpage.server.outlets.models import Output
from tallpage.server.shelf.models import Capture
from tallpage.server.shelf.views import derived
from tallpage.server.sweeps.models import Shot, Sweep

_PIECE_BYTES = 256_000
_SHOTS_AT_ONCE = 50
_THUMB_PX, _THUMB_GREATEST_PX = 220, 480
_HERE = "<!-- pictures -->"


def zip_of(sweep: Sweep, *, only_kept: bool) -> StreamingHttpResponse:
    """A ZIP of what was taken, of what is marked to keep only when that is asked for.

    Of a sweep with slots it holds the slots' files, of others the pictures as PNG.
    """
    response = StreamingHttpResponse(_Archive(sweep, only_kept=only_kept).pieces())
    response["Content-Type"] = "application/zip"
    name = slugify(sweep.name, max_length=80) or "sweep"
    response["Content-Disposition"] = f'attachment; filename="{name}.zip"'
    response["Cache-Control"] = "no-store"
    return response


class _Archive:
    """What goes into the ZIP. Rows of the manifest are complete once all pictures were sent."""

    def __init__(self, sweep: Sweep, *, only_kept: bool) -> None:
        self._sweep = sweep
        self._only_kept = only_kept
        self._namer = Namer(Pattern(sweep.pattern))
        self._pages = sweep.pages.count()
        self._slots = sweep.slots.exists()
        self._rows: list[ManifestRow] = []
        self._pictures: list[tuple[int, str]] = []
        """Captures that went in, and their files, for the contact sheet."""

    def pieces(self) -> Iterator[bytes]:
        archive = ZipStream(compress_type=ZIP_STORED)  # pictures are compressed already
        for shot in self._shots():
            for path, data, row in self._files(shot):
                archive.add(data, path)
                self._rows.append(row)
                yield from archive.all_files()
        self._rows += [
            ManifestRow(address=bad["text"], error=f"Line {bad['line']}: {bad['sentence']}")
            for bad in self._sweep.bad_lines
        ]
        archive.add(self._contact_sheet(), "contact-sheet.html")  # read when its turn comes
        archive.add(manifest_json(self._rows), "manifest.json")
        archive.add(manifest_csv(self._rows), "manifest.csv")
        yield from archive.finalize()

    def _shots(self) -> Iterator[Shot]:
        """In the order of the list, a few at a time: a ZIP may take long, and holds no query open."""
        shots = self._sweep.shots.filter(dropped=False)
        if self._only_kept:
            shots = shots.filter(mark=Shot.Mark.KEEP)
        ids = list(shots.order_by("page__number", "screen_at").values_list("pk", flat=True))
        for start in range(0, len(ids), _SHOTS_AT_ONCE):
            some = Shot.objects.select_related("page", "capture__job").in_bulk(
                ids[start : start + _SHOTS_AT_ONCE]
            )
            yield from (some[pk] for pk in ids[start : start + _SHOTS_AT_ONCE] if pk in some)

    def _files(self, shot: Shot) -> Iterator[tuple[str, Iterator[bytes] | bytes, ManifestRow]]:
        """``(path, bytes, row)`` of each file; of a shot without a picture only a row is noted."""
        screen = self._sweep.core_screens()[shot.screen_at]
        row = ManifestRow(address=shot.page.address, screen=str(screen))
        capture = shot.capture
        if capture is None or not capture.storage_key:
            self._rows.append(replace(row, error=_why_missing(capture)))
            return
        row = replace(
            row,
            final_address=capture.final_address,
            title=capture.title,
            status=capture.status,
            width_px=capture.width_px,
            height_px=capture.height_px,
            warnings=tuple(capture.warnings),
        )
        name = partial(self._name, shot, capture)
        if not self._slots:
            path = name(capture.width_px, "", "png")
            with tempfile.TemporaryDirectory() as scratch:
                file = Path(scratch) / "picture.png"
                byte_count = save_joined_png(capture.folder, capture.manifest(), file)
                self._pictures.append((capture.pk, path))
                yield path, _read(file), replace(row, file=path, bytes=byte_count)
            return
        self._pictures.append((capture.pk, ""))
        for output in Output.objects.filter(cut__capture=capture, slot__isnull=False).select_related("slot"):
            yield from self._made(output, row, name)

    def _made(
        self, output: Output, row: ManifestRow, name: partial[str]
    ) -> Iterator[tuple[str, Iterator[bytes] | bytes, ManifestRow]]:
        warnings = row.warnings if output.met else (*row.warnings, f"{output.label}: the limit is not met.")
        leaves = output.leaves or [{"format": output.format, "height_px": output.made_height_px}]
        paths = output.paths
        if not paths:
            self._rows.append(replace(row, error=f"{output.label}: there is no file."))
        for number, (file, leaf) in enumerate(zip(paths, leaves, strict=False), start=1):
            extension = FORMATS[leaf["format"]].extension
            part = f"{output.slot} {number} of {len(leaves)}" if output.leaves else str(output.slot)
            path = name(output.made_width_px, part, extension)
            made = replace(
                row,
                width_px=output.made_width_px,
                height_px=leaf["height_px"],
                bytes=file.stat().st_size,
                file=path,
                warnings=warnings,
            )
            yield path, _read(file), made

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

    def _contact_sheet(self) -> Iterator[bytes]:
        page = render_to_string(
            "sweeps/contact_sheet.html", {"sweep": self._sweep, "count": len(self._pictures), "here": _HERE}
        )
        head, _, foot = page.partition(_HERE)
        yield head.encode()
        for capture_id, file in self._pictures:
            capture = Capture.objects.get(pk=capture_id)
            yield render_to_string(
                "sweeps/contact_picture.html", {"capture": capture, "picture": _small(capture), "file": file}
            ).encode()
        yield foot.encode()


def _small(capture: Capture) -> str:
    """The upper part of a page, as text that a page can hold."""
    data = derived(
        capture,
        "contact.webp",
        lambda: thumbnail(
            capture.folder, capture.manifest(), width_px=_THUMB_PX, greatest_height_px=_THUMB_GREATEST_PX
        ),
    )
    return base64.b64encode(data).decode()


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
