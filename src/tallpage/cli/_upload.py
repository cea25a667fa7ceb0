"""``tallpage upload``: files to where an outlet's are published."""

from __future__ import annotations

import os
from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from tallpage.cli._output import each_with_bar, print_json, told_in_one_line
from tallpage.cli._part import require_picture
from tallpage.core.errors import HandOverError
from tallpage.core.fit import FORMATS
from tallpage.core.geometry import Size
from tallpage.core.render import PictureSource
from tallpage.core.uploads import UploadFile

if TYPE_CHECKING:
    from tallpage.cli import _json as told


def upload(
    files: Annotated[list[Path], typer.Argument(help="Pictures, fitted to the outlet's rules.")],
    outlet: Annotated[str, typer.Option(help="Name of an outlet that has an upload.")],
    *,
    as_json: Annotated[bool, typer.Option("--json", help="Print one JSON object.")] = False,
) -> None:
    """Upload pictures to where an outlet's are published; what is there is not sent again."""
    with told_in_one_line():
        pictures = [_read(path) for path in files]
        os.environ.setdefault("DJANGO_SETTINGS_MODULE", "tallpage.server.settings")
        import django

        django.setup()
        from tallpage.server.handover.fitness import Measured, require_fitting
        from tallpage.server.handover.models import UploadPlace
        from tallpage.server.handover.ways.upload import published, target_of

        place = UploadPlace.objects.select_related("outlet").filter(outlet__name__iexact=outlet).first()
        if place is None:
            raise HandOverError(
                f"No outlet “{outlet}” has an upload.",
                hint="Set one up under Outlets, or check the name.",
                code="upload_missing",
            )
        target = target_of(place)
        measured = [
            Measured(
                label=str(path),
                width_px=size.width_px,
                height_px=size.height_px,
                byte_count=len(file.data),
                format=name,
            )
            for path, (file, name, size) in zip(files, pictures, strict=True)
        ]
        require_fitting(place.outlet, measured)
        sent = [published(place, target, file) for file, *_ in each_with_bar("sending", pictures)]
    if as_json:
        rows: list[told.Sent] = [
            {"name": row.name, "address": row.address, "was_there": row.was_there} for row in sent
        ]
        answer: told.Upload = {"outlet": place.outlet.name, "files": rows}
        print_json(answer)
        return
    for row in sent:
        print(
            f"{row.name}: {row.address or place.outlet.name}{' (was there already)' if row.was_there else ''}"
        )


def _read(path: Path) -> tuple[UploadFile, str, Size]:
    require_picture(path)
    extension = path.suffix.lower().removeprefix(".").replace("jpeg", "jpg")
    name = next((key for key, row in FORMATS.items() if row.extension == extension), None)
    if name is None:
        raise HandOverError(
            f"The extension of {path.name} says no format that is published.", code="format_unknown"
        )
    file = UploadFile(name=path.name, data=path.read_bytes(), media_type=FORMATS[name].media_type)
    return file, name, PictureSource(path).size
