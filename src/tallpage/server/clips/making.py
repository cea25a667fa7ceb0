"""Making files of clips in the background."""

from __future__ import annotations

from dataclasses import asdict
from pathlib import Path
from typing import TYPE_CHECKING

from django.db import transaction

from tallpage.core.clip import clip_format, played
from tallpage.server.clips.models import Clip, ClipOutput
from tallpage.server.clips.schemas import ClipDocumentSchema, ClipOutputIn
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.queue import Signals, Work, enqueue
from tallpage.server.storage import discard_folder, incoming_folder, new_key, publish_output

if TYPE_CHECKING:
    from tallpage.core.clip.making import ClipFile

KIND = "make_clip"


def order_output(clip: Clip, asked: ClipOutputIn) -> ClipOutput:
    """Ask for a file of what is seen of a clip now.

    Raises:
        ClipError: there are no frames, or none is seen; nothing was stored.
    """
    document = ClipDocumentSchema(**clip.document)
    frames = clip.frames()
    played(frames, document.as_document())
    document.as_document().box_on(frames.size)
    with transaction.atomic():
        return ClipOutput.objects.create(
            clip=clip,
            format=asked.format,
            limit_bytes=asked.limit_bytes,
            wanted_width_px=asked.width_px,
            keeps_width=asked.keeps_width,
            palette=asked.palette,
            document=document.model_dump(),
            job=enqueue(KIND),
        )


def prepare(job: Job) -> Work:
    """How a file is made and stored."""
    output = ClipOutput.objects.select_related("clip").get(job=job)
    frames = output.clip.frames()
    document = ClipDocumentSchema(**output.document).as_document()
    folder = incoming_folder()
    file = folder / f"{new_key()}.{output.format}"

    def run(signals: Signals) -> ClipFile:
        # The encoders are loaded by those who need them.
        from tallpage.core.clip.making import ClipRules, fit_clip

        rules = ClipRules(
            format=clip_format(output.format),
            limit_bytes=output.limit_bytes,
            width_px=output.wanted_width_px,
            keeps_width=output.keeps_width,
            palette="each" if output.palette == "each" else "all",
        )
        return fit_clip(
            frames,
            document,
            rules,
            file,
            on_try=lambda tries: signals.report("fitting", tries),
            is_stopped=lambda: signals.stop_mode != "go_on",
        )

    def commit(made: ClipFile) -> None:
        _store(output.pk, file, made)
        discard_folder(folder)

    return Work(run=run, commit=commit, rollback=lambda: discard_folder(folder))


def _store(output_id: int, file: Path, made: ClipFile) -> None:
    output = ClipOutput.objects.get(pk=output_id)
    output.key = publish_output(file)
    output.bytes, output.met, output.fidelity = made.byte_count, made.is_met, made.fidelity
    output.width_px, output.height_px = made.size.width_px, made.size.height_px
    output.pictures, output.pictures_wanted = made.frames, made.wanted_frames
    output.duration_ms = round(made.seconds * 1_000)
    output.given_up = list(made.given_up)
    output.advice = [asdict(row) for row in made.advice]
    output.save()
