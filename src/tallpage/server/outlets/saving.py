"""Handing over what was made: one file under a sensible name, or several in a ZIP."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from pathlib import Path, PurePosixPath

from django.http import Http404, HttpResponse
from django.utils.http import content_disposition_header

from tallpage.core.fit import FORMATS
from tallpage.core.handover import FileChannel, Item, ManifestRow
from tallpage.core.naming import output_file_name
from tallpage.server.outlets.fitting import require_files
from tallpage.server.outlets.ledger import made_size
from tallpage.server.outlets.models import Output, OutputFile


def package_of(output: Output) -> Iterator[Item]:
    """The files of an output, from the top leaf to the last, with their facts.

    Raises:
        FitError: there is none yet.
    """
    require_files(output)
    files = list(output.files.all())
    for file in files:
        name = _name(output, file, len(files))
        yield Item(
            path=name,
            data=_read(file.path),
            media_type=FORMATS[file.format].media_type,  # type: ignore[index]
            facts=_facts(output, file, name),
        )


def saved_output(output: Output) -> HttpResponse:
    """The file, or a ZIP of the leaves' files.

    Raises:
        FitError: there is none yet.
    """
    return answered(FileChannel(archive_name(output)).send(package_of(output)))


def archive_name(output: Output) -> str:
    """What an archive with all of it is called."""
    width_px, height_px = made_size(output)
    return output_file_name(
        capture_name=output.cut.capture.name, width_px=width_px, height_px=height_px, extension="zip"
    )


def saved_name(output: Output) -> str:
    """What :func:`saved_output` is called; empty where there is no file yet."""
    files = list(output.files.all())
    return _name(output, files[0], 1) if len(files) == 1 else archive_name(output) if files else ""


def saved_leaf(output: Output, number: int) -> HttpResponse:
    """The file of the leaf of that number, counted from 1.

    Raises:
        FitError: there is none yet.
        Http404: there is no such leaf.
    """
    leaves = list(package_of(output))
    if len(leaves) == 1 or not 1 <= number <= len(leaves):
        raise Http404
    return answered(leaves[number - 1])


def _read(path: Path) -> Iterator[bytes]:
    """A file once it is needed: who only asks for names does not read it."""
    yield path.read_bytes()


def _name(output: Output, file: OutputFile, count: int) -> str:
    return output_file_name(
        capture_name=output.cut.capture.name,
        width_px=file.width_px,
        height_px=file.height_px,
        extension=FORMATS[file.format].extension,  # type: ignore[index]
        part=f"{file.number}-of-{count}" if count > 1 else "",
    )


def _facts(output: Output, file: OutputFile, name: str) -> ManifestRow:
    return replace(
        output.cut.capture.facts(),
        width_px=file.width_px,
        height_px=file.height_px,
        bytes=file.bytes,
        file=name,
    )


def name_of(response: HttpResponse) -> str:
    """By which name a download is saved."""
    return response["Content-Disposition"].partition('filename="')[2].rstrip('"')


def answered(item: Item) -> HttpResponse:
    """A file as a download under its name."""
    disposition = content_disposition_header(as_attachment=True, filename=PurePosixPath(item.path).name)
    headers = {"Content-Disposition": disposition or "attachment", "Cache-Control": "no-store"}
    return HttpResponse(b"".join(item.pieces()), content_type=item.media_type, headers=headers)
