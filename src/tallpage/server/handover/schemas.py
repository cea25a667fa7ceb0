"""Ways out on the wire."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any, Literal

from ninja import Field, Schema
from pydantic import StringConstraints

from tallpage.server.handover.models import HandOver, SharedLink, UploadPlace
from tallpage.server.handover.saving import CopiedThing
from tallpage.server.handover.selection import MOST_CAPTURES, Selection
from tallpage.server.handover.sharing import link_path
from tallpage.server.jobs.schemas import JobOut

_Line = Annotated[str, StringConstraints(strip_whitespace=True, max_length=300)]
_Text = Annotated[str, StringConstraints(max_length=5_000)]
_Ids = Annotated[list[Annotated[int, Field(ge=1)]], Field(max_length=MOST_CAPTURES)]


class WhatIn(Schema):
    """What is handed over: rows of the ledger, captures, one cut, or what a sweep took.

    Of captures and sweeps the files that were made are given, or with ``pictures`` what their first cuts
    show, as PNG.
    """

    outputs: _Ids = []
    captures: _Ids = []
    cut: int | None = None
    sweep: int | None = None
    only_kept: bool = False
    pictures: bool = False

    def selection(self) -> Selection:
        """As the server knows it."""
        return Selection.from_json(self.model_dump())


class FileNamesIn(Schema):
    """A pattern for the names of files; empty for the usual ones."""

    what: WhatIn
    pattern: _Line = ""


class FileNamesOut(Schema):
    """What the first few files would be called, and how many there are."""

    names: list[str]
    count: int


class _OrderIn(Schema):
    what: WhatIn
    uncleared: bool = False
    """Whether it leaves although its rights are not cleared."""


class DiskIn(_OrderIn):
    """Onto a person's own disk: one file as it is, several as a ZIP."""

    way: Literal["disk"]
    pattern: _Line = ""


class FolderIn(_OrderIn):
    """A folder on the server's disk, by its name."""

    way: Literal["folder"]
    folder: _Line = ""
    pattern: _Line = ""


class PdfIn(_OrderIn):
    """One document. ``paper`` is tall, A4, letter, or a size such as 210x297mm."""

    way: Literal["pdf"]
    paper: _Line = "tall"
    margin_mm: float = Field(12, ge=0, le=200)
    caption: _Text = ""
    numbered: bool = True
    limit_bytes: int | None = Field(None, ge=1)


class LinkIn(_OrderIn):
    """A page of its own; ``days`` is 1, 7, or null for until it is taken back."""

    way: Literal["link"]
    title: _Line = ""
    caption: _Text = ""
    days: int | None = 7
    word: Annotated[str, StringConstraints(strip_whitespace=True, max_length=100)] = ""


class MailIn(_OrderIn):
    """Files by mail, or a link to them."""

    way: Literal["mail"]
    to: _Text
    subject: _Line = ""
    text: _Text = ""
    as_link: bool = False
    days: int | None = 7
    pattern: _Line = ""


class UploadIn(_OrderIn):
    """Upload to the place of an outlet."""

    way: Literal["upload"]
    outlet: int
    pattern: _Line = ""


class ArchiveIn(_OrderIn):
    """The captures themselves with their cuts, for another Tall Page: also what cuts hide."""

    way: Literal["archive"]


class CopiedIn(_OrderIn):
    """Something that the browser has put into the clipboard already: only its line in the log."""

    way: Literal["copied"]
    thing: CopiedThing


OrderIn = Annotated[
    DiskIn | CopiedIn | ArchiveIn | FolderIn | PdfIn | LinkIn | MailIn | UploadIn, Field(discriminator="way")
]


class AgainIn(Schema):
    """The same once more."""

    uncleared: bool = False


class NotClearedOut(Schema):
    """What of a choice is not cleared, in one sentence; empty where all is."""

    sentence: str


class HandOverIn(Schema):
    """A way out, and what goes by it."""

    order: OrderIn


class FileOut(Schema):
    """A file that left."""

    name: str
    bytes: int = 0
    address: str = ""


class LinkOut(Schema):
    """How a shared link stands."""

    path: str
    opened: int
    opened_at: datetime | None
    expires_at: datetime | None
    taken_back_at: datetime | None
    open: bool
    has_word: bool

    @staticmethod
    def of(link: SharedLink) -> LinkOut:
        """The state of a link."""
        return LinkOut(
            path=link_path(link),
            opened=link.opened,
            opened_at=link.opened_at,
            expires_at=link.expires_at,
            taken_back_at=link.taken_back_at,
            open=link.leads_somewhere(),
            has_word=bool(link.word_hash),
        )


class HandOverOut(Schema):
    """A line of the log. ``file_url`` is where what was made can be fetched."""

    id: int
    way: str
    way_words: str
    subject: str
    where: str
    answer: str
    address: str
    files: list[FileOut]
    file_url: str
    file_name: str
    sheets: int
    previews: int
    """How many sheets can be looked at before."""
    met: bool
    person: str
    uncleared: bool
    """Whether somebody let it leave although its rights were not cleared."""
    created_at: datetime
    job: JobOut | None
    link: LinkOut | None

    @staticmethod
    def resolve_way_words(line: HandOver) -> str:
        """The way, as people say it."""
        return HandOver.Way(line.way).label

    @staticmethod
    def resolve_file_url(line: HandOver) -> str:
        """Where what was made can be fetched."""
        if line.way in (HandOver.Way.FILE, HandOver.Way.ZIP, HandOver.Way.ARCHIVE):
            return f"/api/hand-overs/{line.pk}/package"
        return f"/api/hand-overs/{line.pk}/file" if line.made_key else ""

    @staticmethod
    def resolve_file_name(line: HandOver) -> str:
        """What it is called."""
        return line.made_name

    @staticmethod
    def resolve_sheets(line: HandOver) -> int:
        """Pages of a PDF."""
        return int(line.facts.get("sheets", 0))

    @staticmethod
    def resolve_previews(line: HandOver) -> int:
        """Sheets of a PDF that can be looked at."""
        return int(line.facts.get("previews", 0))

    @staticmethod
    def resolve_met(line: HandOver) -> bool:
        """Whether it is under the limit that was asked for."""
        return bool(line.facts.get("met", True))

    @staticmethod
    def resolve_uncleared(line: HandOver) -> bool:
        """As the order said."""
        return bool(line.options.get("uncleared"))

    @staticmethod
    def resolve_link(line: HandOver) -> LinkOut | None:
        """Of a way that makes a link."""
        link: SharedLink | None = getattr(line, "link", None)
        return LinkOut.of(link) if link else None


class WaysOut(Schema):
    """What can be gone by here."""

    mail: bool
    mail_limit_bytes: int
    folder: str
    """The folder of the server in which folders are made."""


class UploadPlaceIn(Schema):
    """Where an outlet's files go. ``secret`` is a token or password; empty keeps the one that is there."""

    kind: Literal["form", "webdav", "folder"]
    address: _Line = ""
    user: Annotated[str, StringConstraints(strip_whitespace=True, max_length=200)] = ""
    folder: Annotated[str, StringConstraints(strip_whitespace=True, max_length=200)] = ""
    secret: Annotated[str, StringConstraints(strip_whitespace=True, max_length=2_000)] = ""


class UploadPlaceOut(Schema):
    """Where an outlet's files go; what signs in there is never told."""

    outlet: int
    kind: Literal["form", "webdav", "folder"]
    address: str
    user: str
    folder: str
    has_secret: bool

    @staticmethod
    def resolve_outlet(place: UploadPlace) -> int:
        """Number of the outlet."""
        return place.outlet_id

    @staticmethod
    def resolve_has_secret(place: UploadPlace) -> bool:
        """Whether something signs in there."""
        return bool(place.sealed)


def options_of(order: Schema) -> dict[str, Any]:
    """What was said besides what is handed over."""
    return order.model_dump(exclude={"what", "way"})
