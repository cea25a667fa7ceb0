"""The data folder's layout.

captures/<key>/   strips and manifest, never altered
clips/<key>/      frames of clips, never altered
outputs/<key>.<extension>   files made from cuts and clips
stickers/<key>.png   small pictures that marks show
made/<key>/       documents that were handed over, for a while
shared/<token>/   what shared links show
views/<key>/      thumbnails and the like; may be deleted at any time
incoming/         work under way
reserve           room for deleting when the disk is full
run/              what the running server notes of itself
"""

from __future__ import annotations

import shutil
import uuid
from pathlib import Path

from django.conf import settings

from tallpage.core.files import move_folder_whole, storage_errors

_MOST_OF_ONE_NAME = 10_000


def new_key() -> str:
    """A fresh name for stored things; never built from what a person typed."""
    return uuid.uuid4().hex


def capture_folder(key: str) -> Path:
    """Folder of a capture's strips."""
    return _home() / "captures" / key


def clip_folder(key: str) -> Path:
    """Folder of a clip's frames."""
    return _home() / "clips" / key


def view_file(key: str, name: str) -> Path:
    """A derived picture of a capture."""
    return views_folder(key) / name


def views_folder(key: str) -> Path:
    """Folder of everything that is derived from a capture."""
    return _home() / "views" / key


def output_file(key: str, extension: str) -> Path:
    """A made file."""
    return _home() / "outputs" / f"{key}.{extension}"


def made_folder(key: str) -> Path:
    """A document that was made to be handed over, with small pictures of its sheets."""
    return _home() / "made" / key


def shared_folder(token: str) -> Path:
    """What a shared link shows."""
    return _home() / "shared" / token


def new_folder_in(out: Path, name: str) -> Path:
    """Make a folder in ``out`` for what is saved on the server: of that name, or of that name with a number.

    It was not there before: nothing of an earlier time is written over.
    """
    for number in range(1, _MOST_OF_ONE_NAME):
        folder = out / (name if number == 1 else f"{name} {number}")
        with storage_errors(out):
            out.mkdir(parents=True, exist_ok=True)
            try:
                folder.mkdir()
            except FileExistsError:
                continue
        return folder
    raise FileExistsError(out / name)


def sticker_file(key: str) -> Path:
    """A small picture that marks show."""
    return _home() / "stickers" / f"{key}.png"


def incoming_folder() -> Path:
    """A new empty folder for work under way, on the same disk as the final places."""
    folder = _home() / "incoming" / new_key()
    with storage_errors(folder.parent):
        folder.mkdir(parents=True)
    return folder


def incoming_named(key: str) -> Path:
    """The folder of work under way that has that key."""
    return _home() / "incoming" / key


def incoming_file() -> Path:
    """A place for an uploaded file until it is taken in."""
    with storage_errors(_home()):
        (_home() / "incoming").mkdir(parents=True, exist_ok=True)
    return _home() / "incoming" / f"{new_key()}.upload"


def incoming_upload(name: str) -> Path:
    """The uploaded file of that name, which :func:`incoming_file` gave."""
    return _home() / "incoming" / Path(name).name


def publish_capture(folder: Path) -> str:
    """Move a finished folder of strips to its final place; returns its key, which is the folder's name.

    So whoever is killed between this and writing the row leaves a folder that can be found again. Where
    the row could not be written, it is tried again: then the folder has moved already.
    """
    return _published(folder, capture_folder(folder.name))


def publish_clip(folder: Path) -> str:
    """The same with a finished folder of frames."""
    return _published(folder, clip_folder(folder.name))


def publish_output(file: Path) -> str:
    """Move a finished file to its final place; returns its key, which is its name without extension."""
    final = output_file(file.stem, file.suffix.removeprefix("."))
    with storage_errors(final.parent):
        final.parent.mkdir(parents=True, exist_ok=True)
        if file.exists():  # else it has moved already, and its row could not be written
            file.replace(final)
    return file.stem


def _published(folder: Path, final: Path) -> str:
    if folder.exists() or not final.exists():
        move_folder_whole(folder, final)
    return folder.name


def discard_folder(folder: Path) -> None:
    """Delete work that is not wanted any more."""
    shutil.rmtree(folder, ignore_errors=True)


def _home() -> Path:
    return Path(settings.HOME)


def discard(path: Path) -> None:
    """Delete a file or folder that nothing refers to."""
    if path.is_dir() and not path.is_symlink():
        discard_folder(path)
    else:
        path.unlink(missing_ok=True)
