"""Handing over what was made: one file under a sensible name, or several in a ZIP."""

from __future__ import annotations

import io
import zipfile

from django.http import Http404, HttpResponse

from tallpage.core.fit import FORMATS
from tallpage.core.naming import output_file_name
from tallpage.server.outlets.fitting import require_files
from tallpage.server.outlets.models import Output


def saved_output(output: Output) -> HttpResponse:
    """The file, or a ZIP of the leaves' files.

    Raises:
        FitError: there is none yet.
    """
    paths = require_files(output)
    if not output.leaves:
        return _download(_name(output), paths[0].read_bytes(), FORMATS[output.format].media_type)  # type: ignore[index]
    archive = io.BytesIO()
    with zipfile.ZipFile(archive, "w", zipfile.ZIP_STORED) as file:  # pictures are compressed already
        for number, path in enumerate(paths, start=1):
            file.write(path, _leaf_name(output, number))
    return _download(_name(output, extension="zip"), archive.getvalue(), "application/zip")


def saved_leaf(output: Output, number: int) -> HttpResponse:
    """The file of the leaf of that number, counted from 1.

    Raises:
        FitError: there is none yet.
        Http404: there is no such leaf.
    """
    paths = require_files(output)
    if not 1 <= number <= len(output.leaves):
        raise Http404
    media_type = FORMATS[output.leaves[number - 1]["format"]].media_type
    return _download(_leaf_name(output, number), paths[number - 1].read_bytes(), media_type)


def _name(output: Output, *, extension: str | None = None) -> str:
    return output_file_name(
        capture_name=output.cut.capture.name,
        width_px=output.made_width_px,
        height_px=output.made_height_px,
        extension=extension or FORMATS[output.format].extension,  # type: ignore[index]
    )


def _leaf_name(output: Output, number: int) -> str:
    leaf = output.leaves[number - 1]
    return output_file_name(
        capture_name=output.cut.capture.name,
        width_px=output.made_width_px,
        height_px=leaf["height_px"],
        extension=FORMATS[leaf["format"]].extension,
        part=f"{number}-of-{len(output.leaves)}",
    )


def _download(name: str, data: bytes, media_type: str) -> HttpResponse:
    headers = {"Content-Disposition": f'attachment; filename="{name}"', "Cache-Control": "no-store"}
    return HttpResponse(data, content_type=media_type, headers=headers)
