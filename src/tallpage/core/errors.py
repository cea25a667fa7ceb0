"""Every error a person can meet, in one tree.

TallPageError
├── AddressError        the address cannot be used
├── ScreenError         the screen cannot be simulated
├── BrowserMissing      Chromium is not installed, or would not start
├── PageError           the page could not be taken
│   └── PageUnreachable     the host could not be reached; trying again may help
├── PictureError        the picture cannot be used
│   ├── PictureUnreadable   not a picture, or damaged
│   └── PictureTooLarge     more pixels than Tall Page takes in
├── FrameError          the frame does not lie on the capture
├── CutError            the file of a cut cannot be read, or says what is not known
├── RoutineError        a routine cannot be read, or cannot be run as it is
├── ArchiveError        an archive of captures cannot be read
├── JoinError           pictures cannot be joined into one
├── ClipError           a clip cannot be taken or made as asked
├── FitError            what was asked of a file makes no sense
├── HandOverError       a way out cannot be taken as asked, or did not lead there
├── ListError           a list of pages, or a pattern for their names, cannot be used
├── AccountError        an account or token cannot be made or found
├── SettingError        a setting is not known, or cannot be what was asked
├── StorageError        the data folder cannot be written
│   └── StorageBusy         somebody else writes; trying again helps
├── ChangedElsewhere    another window changed the same thing meanwhile
└── Stopped             the person asked to stop

Each carries a code (stable, for programmes), a sentence (what happened, to what)
and a hint (what to do next).
"""

from __future__ import annotations

from pathlib import Path


class TallPageError(Exception):
    """Base of the tree; never raised itself."""

    code = "error"
    default_hint = ""

    def __init__(self, sentence: str, *, hint: str | None = None, code: str | None = None) -> None:
        super().__init__(sentence)
        self.sentence = sentence
        self.hint = self.default_hint if hint is None else hint
        if code is not None:
            self.code = code

    def in_one_line(self) -> str:
        """What somebody at this machine is told: what happened, and what to do."""
        return f"{self.sentence} {self.hint}".strip().replace("\n", " ")


class AddressError(TallPageError):
    """The address is empty, malformed, of a kind that is never opened, or refused by the policy."""

    code = "address_malformed"
    default_hint = "Type it as the browser shows it, for example example.org/page."


class ScreenError(TallPageError):
    """A screen outside what can be simulated."""

    code = "screen_impossible"
    default_hint = "Give 200–4,000 × 200–4,000 CSS px and a scale of 1, 2 or 3, like 390x844@3."


class BrowserMissing(TallPageError):
    """Chromium is not installed, or would not start."""

    code = "browser_missing"
    default_hint = "Install Debian's package chromium, or set TALLPAGE_CHROMIUM to its path."


class PageError(TallPageError):
    """The page was reached, or nearly, but could not be taken."""

    code = "page_failed"
    default_hint = "Open the address in a browser to see whether it works, then take it again."


class PageUnreachable(PageError):
    """The host does not exist, refuses, or does not answer."""

    code = "page_unreachable"
    default_hint = "Check the address and the connection, then take it again."


class PictureError(TallPageError):
    """Base of what can be wrong with a picture file."""

    code = "picture_failed"


class PictureUnreadable(PictureError):
    """The bytes are not a picture that is taken in, or they are damaged."""

    code = "picture_unreadable"
    default_hint = "Use a PNG, JPEG, WebP, AVIF, GIF or TIFF picture that opens in a viewer."


class PictureTooLarge(PictureError):
    """The picture says it has more pixels than are taken in."""

    code = "picture_too_large"
    default_hint = "Divide it, or save it smaller, and drop it again."


class FrameError(TallPageError):
    """The frame is empty or lies outside the capture."""

    code = "frame_outside"
    default_hint = "Give a box of at least 1 × 1 px that lies on the picture."


class CutError(TallPageError):
    """The file of a cut cannot be read, or says what is not known."""

    code = "cut_unreadable"
    default_hint = "The format is described in docs/cut-file.md."


class RoutineError(TallPageError):
    """The file of a routine cannot be read, says what is not known, or asks for what cannot be done."""

    code = "routine_unreadable"
    default_hint = "The format is described in docs/routine-file.md."


class ArchiveError(TallPageError):
    """An archive of captures cannot be read: it is none, damaged, or says what is not known."""

    code = "archive_unreadable"
    default_hint = "Save it once more where it was made, and bring it in again."


class JoinError(TallPageError):
    """Pictures that cannot be joined into one tall one."""

    code = "join_failed"


class ClipError(TallPageError):
    """A clip cannot be taken, or made as asked."""

    code = "clip_impossible"


class FitError(TallPageError):
    """A width, limit or format that cannot be worked with."""

    code = "fit_impossible"


class HandOverError(TallPageError):
    """What was to be given away cannot be, or the place did not take it."""

    code = "hand_over_failed"


class AccountError(TallPageError):
    """An account or token that cannot be made, or is not there; or what an account may not do."""

    code = "account"


class SettingError(TallPageError):
    """There is no such setting, or it cannot be what was asked."""

    code = "setting"


class ListError(TallPageError):
    """A list of pages cannot be read, or a pattern for the names of their files not be filled."""

    code = "list_unreadable"
    default_hint = "Paste addresses, one a line, or give a text, CSV or XLSX file."


class StorageError(TallPageError):
    """A folder is full or cannot be written.

    ``folder`` is for whoever sits at this machine; it is no part of what others are told.
    """

    code = "storage_failed"
    default_hint = "Free some space in the data folder, then try again. Nothing that was saved is lost."

    def __init__(
        self, sentence: str, *, hint: str | None = None, code: str | None = None, folder: Path | None = None
    ) -> None:
        super().__init__(sentence, hint=hint, code=code)
        self.folder = folder

    def in_one_line(self) -> str:
        """The same, after the folder that it is about."""
        said = super().in_one_line()
        return f"{self.folder}: {said}" if self.folder else said


class StorageBusy(StorageError):
    """Somebody else writes to the database for longer than is waited."""

    code = "storage_busy"
    default_hint = "Try again in a moment. Nothing that was saved is lost."


class ChangedElsewhere(TallPageError):
    """Somebody, or another tab, changed the same thing meanwhile."""

    code = "changed_elsewhere"
    default_hint = "The newer version is shown; make your change again on it."


class Stopped(TallPageError):
    """The person asked for the work to stop."""

    code = "stopped"
    default_hint = "Take it again whenever you like."
