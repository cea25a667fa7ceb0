"""HTTP API of clips: taken, seen frame by frame, changed, made into files."""

from __future__ import annotations

from typing import Annotated

from django.db import transaction
from django.http import FileResponse, Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import File, Query, Router, Status, UploadedFile

from tallpage.core.clip import ClipDocument, draw
from tallpage.core.errors import ChangedElsewhere
from tallpage.core.picture import Raster, encode_webp
from tallpage.server.clips.making import order_output
from tallpage.server.clips.models import Clip, ClipOutput
from tallpage.server.clips.schemas import (
    MOST_FRAMES,
    ClipChangeIn,
    ClipDocumentSchema,
    ClipIn,
    ClipOut,
    ClipOutputIn,
    ClipOutputOut,
    ClipRow,
    SharedEndIn,
    SharedKeyOut,
)
from tallpage.server.clips.sharing import begin_shared, end_shared, put_shared_frame
from tallpage.server.clips.taking import order_clip
from tallpage.server.jobs.queue import request_stop
from tallpage.server.jobs.schemas import JobOut

router = Router(tags=["clips"])
_MOST_LISTED = 200
_SHOWN_WIDTHS_PX = (120, 640)
_MEDIA_TYPES = {
    "gif": "image/gif",
    "webp": "image/webp",
    "avif": "image/avif",
    "mp4": "video/mp4",
    "webm": "video/webm",
}


@router.get("/clips", response=list[ClipRow], operation_id="list_clips")
def list_clips(request: HttpRequest) -> list[Clip]:
    """The newest clips."""
    return list(Clip.objects.select_related("job")[:_MOST_LISTED])


@router.post("/clips", response={202: ClipOut}, operation_id="take_clip")
def post_clip(request: HttpRequest, payload: ClipIn) -> Status[ClipOut]:
    """Take a few seconds of a page."""
    return Status(202, _told(order_clip(payload)))


@router.post("/clips/shared", response={201: SharedKeyOut}, operation_id="begin_shared_clip")
def post_shared(request: HttpRequest) -> Status[SharedKeyOut]:
    """Begin a clip of a shared screen."""
    return Status(201, SharedKeyOut(key=begin_shared()))


@router.post("/clips/shared/{key}/frames", response=SharedKeyOut, operation_id="send_shared_frame")
def post_shared_frame(
    request: HttpRequest,
    key: str,
    picture: File[UploadedFile],
    number: Annotated[int, Query(ge=0, lt=MOST_FRAMES)],
) -> SharedKeyOut:
    """What a shared screen shows from a frame on, until another is sent."""
    put_shared_frame(key, number, picture)
    return SharedKeyOut(key=key)


@router.post("/clips/shared/{key}", response={202: ClipOut}, operation_id="end_shared_clip")
def post_shared_end(request: HttpRequest, key: str, payload: SharedEndIn) -> Status[ClipOut]:
    """Make a clip of the frames that were sent."""
    return Status(202, _told(end_shared(key, payload)))


@router.get("/clips/{int:clip_id}", response=ClipOut, operation_id="read_clip")
def read_clip(request: HttpRequest, clip_id: int) -> ClipOut:
    """A clip, its frames and its files."""
    return _told(_clip(clip_id))


@router.put("/clips/{int:clip_id}", response=ClipOut, operation_id="change_clip")
def put_clip(request: HttpRequest, clip_id: int, payload: ClipChangeIn) -> ClipOut:
    """Say how a clip is seen; refused where another window was faster."""
    payload.document.as_document()
    with transaction.atomic():
        clip = get_object_or_404(Clip.objects.select_for_update(), pk=clip_id)
        if clip.revision != payload.revision:
            raise ChangedElsewhere(f"“{clip.name}” was changed in another window meanwhile.")
        clip.document = payload.document.model_dump()
        clip.revision += 1
        clip.save(update_fields=["document", "revision"])
    return _told(_clip(clip_id))


@router.delete("/clips/{int:clip_id}", response={204: None}, operation_id="delete_clip")
def delete_clip(request: HttpRequest, clip_id: int) -> Status[None]:
    """Delete a clip with its files; what is under way for it ends."""
    clip = _clip(clip_id)
    for job in (clip.job, *(row.job for row in clip.outputs.select_related("job"))):
        request_stop(job)
    clip.delete()
    return Status(204, None)


@router.post("/clips/{int:clip_id}/stop", response=ClipOut, operation_id="stop_clip")
def stop_clip(request: HttpRequest, clip_id: int) -> ClipOut:
    """Stop taking a clip."""
    request_stop(_clip(clip_id).job)
    return _told(_clip(clip_id))


@router.get("/clips/{int:clip_id}/frames/{int:number}/{int:width_px}", include_in_schema=False)
def read_frame(
    request: HttpRequest,
    clip_id: int,
    number: int,
    width_px: int,
    pointer: bool = True,
    revision: int | None = None,
    output: int | None = None,
) -> HttpResponse:
    """All of a frame, small, with the pointer where it was.

    What is hidden and marked is on it: as the clip has it now, or had it when an ``output`` was asked for.
    """
    clip = _clip(clip_id)
    frames = clip.frames()
    if number >= len(frames.frames) or width_px not in _SHOWN_WIDTHS_PX:
        raise Http404("There is no such frame.")
    told = clip.document if output is None else _output(output).document
    on_it = ClipDocumentSchema(**told).as_document()
    document = ClipDocument(pointer=pointer, hidden=on_it.hidden, marks=on_it.marks)
    size = frames.size.at_width(min(width_px, frames.width_px))
    drawn = Raster.from_rows(draw(frames, document, number, size))
    answer = HttpResponse(encode_webp(drawn, quality=80), content_type="image/webp")
    is_plain = not on_it.hidden and not on_it.marks
    is_lasting = is_plain or output is not None or revision == clip.revision
    answer["Cache-Control"] = "private, max-age=86400, immutable" if is_lasting else "no-store"
    return answer


@router.post("/clips/{int:clip_id}/files", response={202: ClipOutputOut}, operation_id="make_clip")
def post_output(request: HttpRequest, clip_id: int, payload: ClipOutputIn) -> Status[ClipOutputOut]:
    """Make a file of what is seen of a clip, under a limit."""
    return Status(202, _file_told(order_output(_clip(clip_id), payload)))


@router.post("/clips/files/{int:output_id}/stop", response=ClipOutputOut, operation_id="stop_clip_file")
def stop_output(request: HttpRequest, output_id: int) -> ClipOutputOut:
    """Stop making a file."""
    request_stop(_output(output_id).job)
    return _file_told(_output(output_id))


@router.delete("/clips/files/{int:output_id}", response={204: None}, operation_id="delete_clip_file")
def delete_output(request: HttpRequest, output_id: int) -> Status[None]:
    """Delete a file of a clip."""
    output = _output(output_id)
    request_stop(output.job)
    output.delete()
    return Status(204, None)


@router.get("/clips/files/{int:output_id}/file", include_in_schema=False)
def read_output(request: HttpRequest, output_id: int, save: bool = False) -> FileResponse:
    """The file itself."""
    output = _output(output_id)
    if not output.key or not output.path.exists():
        raise Http404("The file is not made yet.")
    answer = FileResponse(
        output.path.open("rb"),
        as_attachment=save,
        filename=f"{output.clip.name}.{output.format}",
        content_type=_MEDIA_TYPES[output.format],
    )
    answer["Cache-Control"] = "private, max-age=86400, immutable"
    return answer


def _clip(clip_id: int) -> Clip:
    return get_object_or_404(Clip.objects.select_related("job"), pk=clip_id)


def _output(output_id: int) -> ClipOutput:
    return get_object_or_404(ClipOutput.objects.select_related("job", "clip"), pk=output_id)


def _told(clip: Clip) -> ClipOut:
    files = [frame.file for frame in clip.frames().frames] if clip.storage_key else []
    return ClipOut(
        id=clip.pk,
        name=clip.name,
        address=clip.address,
        job=JobOut.from_orm(clip.job),
        frame_count=clip.frame_count,
        rate_fps=clip.rate_fps,
        created_at=clip.created_at,
        width_px=clip.width_px,
        height_px=clip.height_px,
        warnings=clip.warnings,
        document=ClipDocumentSchema(**clip.document),
        revision=clip.revision,
        files=files,
        outputs=[_file_told(row) for row in clip.outputs.select_related("job")],
    )


def _file_told(output: ClipOutput) -> ClipOutputOut:
    return ClipOutputOut.from_orm(output)
