"""Handing over what was made: one file under a sensible name, or several in a ZIP."""

from __future__ import annotations

import io
import zipfile

from django.http import Http404, HttpResponse

from tallpage.core.fit import FORMATS
from tallpage.core.naming import output_file_name
from tallpage.server.outlets.fitting import require_files
from tallpage.server.outlets.ledger import made_size
from tallpage.server.outlets.models import Output, OutputFile


def saved_output(output: Output) -> HttpResponse:
    """The file, or a ZIP of the leaves' files.

    Raises:
        FitError: there is none yet.
    """
    require_files(output)
    files = list(output.files.all())
    if len(files) == 1:
        return _download(_name(files[0], 1), files[0])
    archive = io.BytesIO()
    with zipfile.ZipFile(archive, "w", zipfile.ZIP_STORED) as zipped:  # pictures are compressed already
        for file in files:
            zipped.write(file.path, _name(file, len(files)))
    width_px, height_px = made_size(output)
    name = output_file_name(
        capture_name=output.cut.capture.name, width_px=width_px, height_px=height_px, extension="zip"
    )
    return _answered(name, archive.getvalue(), "application/zip")


def saved_leaf(output: Output, number: int) -> HttpResponse:
    """The file of the leaf of that number, counted from 1.

    Raises:
        FitError: there is none yet.
        Http404: there is no such leaf.
    """
    require_files(output)
    files = list(output.files.all())
    if len(files) == 1 or not 1 <= number <= len(files):
        raise Http404
    return _download(_name(files[number - 1], len(files)), files[number - 1])


def _name(file: OutputFile, count: int) -> str:
    return output_file_name(
        capture_name=file.output.cut.capture.name,
        width_px=file.width_px,
        height_px=file.height_px,
        extension=FORMATS[file.format].extension,  # type: ignore[index]
        part=f"{file.number}-of-{count}" if count > 1 else "",
    )


def _download(name: str, file: OutputFile) -> HttpResponse:
    return _answered(name, file.path.read_bytes(), FORMATS[file.format].media_type)  # type: ignore[index]


def _answered(name: str, data: bytes, media_type: str) -> HttpResponse:
    headers = {"Content-Disposition": f'attachment; filename="{name}"', "Cache-Control": "no-store"}
    return HttpResponse(data, content_type=media_type, headers=headers)
