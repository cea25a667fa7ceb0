"""Captures and cuts on the wire. Sizes are page pixels unless the name says otherwise."""

from __future__ import annotations

from datetime import date, datetime
from typing import Any, Literal

from django.utils import timezone
from ninja import Field, Schema

from tallpage.core.capture import (
    LEAST_BUSY_S,
    Extent,
    FixedOverlays,
    PageRequest,
    PageWidth,
    Scheme,
    Screen,
    SignIn,
    Step,
    StepKind,
    Timeouts,
    Why,
)
from tallpage.core.naming import MAX_NAME_CHARS
from tallpage.core.rights import Rights, RightsState
from tallpage.server.jobs.schemas import JobOut
from tallpage.server.shelf.routes.cut_schemas import MOST_LISTED, BoxSchema, CutOut


class ScreenIn(Schema):
    """A simulated display: CSS px and device px per CSS px."""

    width_px: int = 1280
    height_px: int = 800
    scale: int = 1
    touch: bool = False

    def as_screen(self) -> Screen:
        """The screen as the core knows it.

        Raises:
            ScreenError: it cannot be simulated.
        """
        return Screen(width_px=self.width_px, height_px=self.height_px, scale=self.scale, touch=self.touch)


class ScreenOut(ScreenIn):
    """A display a capture was taken with."""


class NamedScreenIn(ScreenIn):
    """A display with a name of its own."""

    name: str = Field(min_length=1, max_length=40)


class NamedScreenOut(ScreenIn):
    """A display with a name; an own one can be removed."""

    name: str
    own: bool


class StepSchema(Schema):
    """One thing that is done before the picture; ``target`` is CSS, or words in quotation marks."""

    kind: StepKind
    target: str = ""
    text: str = ""


class TakeSettings(Schema):
    """How a page is taken; what is left out is as it suits most pages."""

    extent: Extent = "full"
    element: str = ""
    to_element: str = ""
    from_px: int = 0
    max_height_px: int | None = None
    max_screens: int | None = None
    page_width: PageWidth = "screen"
    scheme: Scheme = "light"
    language: str = "en-GB"
    steps: list[StepSchema] = Field(default=[], max_length=MOST_LISTED)
    wait_ms: int = 0
    leave_out: list[str] = Field(default=[], max_length=MOST_LISTED)
    fixed_overlays: FixedOverlays = "leave_out"
    busy_s: int = LEAST_BUSY_S
    """For how many seconds a page's own scripts may keep it busy."""
    signed_in: bool = True
    """Whether the sign-in saved for the host is used, when there is one."""

    def as_request(self, address: str, screen: Screen, sign_in: SignIn | None = None) -> PageRequest:
        """The request as the core knows it.

        Raises:
            PageError: something that is not possible, or a step that is none.
        """
        plain = self.model_dump(exclude={"steps", "leave_out", "busy_s", "signed_in"})
        return PageRequest(
            address=address,
            screen=screen,
            steps=tuple(Step(**step.model_dump()) for step in self.steps),
            leave_out=tuple(self.leave_out),
            sign_in=sign_in,
            timeouts=Timeouts().busy_for(self.busy_s),
            **plain,
        )


class TakeIn(Schema):
    """A page to take."""

    address: str
    screen: ScreenIn = Field(default_factory=ScreenIn)
    settings: TakeSettings = Field(default_factory=TakeSettings)


class RenameIn(Schema):
    """A new name for a capture."""

    name: str = Field(min_length=1, max_length=MAX_NAME_CHARS)


class StripOut(Schema):
    """Where a strip lies on the page."""

    number: int
    top_px: int
    height_px: int


class RightsOut(Schema):
    """What is known of a picture's rights today; ``words`` is empty where nothing is said."""

    state: RightsState
    until: date | None
    note: str
    words: str
    cleared: bool
    """Whether it is handed over without asking."""

    @staticmethod
    def of(rights: Rights) -> RightsOut:
        """Rights as they stand today."""
        today = timezone.localdate()
        return RightsOut(
            state=rights.state,
            until=rights.until,
            note=rights.note,
            words=rights.in_words(today),
            cleared=rights.cleared_on(today),
        )


class CaptureOut(Schema):
    """A capture as the shelf shows it. ``picture_key`` is empty until it is taken.

    ``passage`` is what of the page holds the words that were searched for.
    """

    id: int
    source: Literal["page", "picture"]
    name: str
    title: str
    address: str
    final_address: str
    host: str
    screen: ScreenOut | None
    scale: int
    width_px: int
    height_px: int
    bytes: int
    status: int | None
    truncated: bool
    whole: bool
    """Whether the words of the page are in the picture."""
    left_out: list[str]
    """First words of what hung in the window and was left out."""
    warnings: list[str]
    picture_key: str = Field(alias="storage_key")
    passage: str = ""
    folder: int | None = Field(None, alias="shelf_folder_id")
    labels: list[str] = []
    rights: RightsOut
    job: JobOut
    created_at: datetime
    taken_at: datetime | None

    @staticmethod
    def resolve_labels(capture: Any) -> list[str]:
        """Their names; of what is told already, as they were told."""
        if isinstance(capture, dict):
            return list(capture["labels"])
        return [label.name for label in capture.labels.all()]

    @staticmethod
    def resolve_rights(capture: Any) -> RightsOut:
        """As they stand today; of what is told already, as they were told."""
        if isinstance(capture, dict):
            return RightsOut(**capture["rights"])
        return RightsOut.of(capture.rights)


class DeletedCaptureOut(CaptureOut):
    """A capture that was deleted, and when."""

    deleted_at: datetime


class DeletedOut(Schema):
    """Captures that were deleted and can be put back, the latest first, and what all of them take."""

    captures: list[DeletedCaptureOut]
    total: int
    bytes: int
    kept_days: int


class ShelfOut(Schema):
    """A page of the shelf; ``next_before`` continues it."""

    captures: list[CaptureOut]
    total: int
    next_before: int | None


class BlockOut(BoxSchema):
    """A visible block of a page, its box in page pixels."""

    role: str
    level: int | None
    text: str
    link: str
    alt: str


class LackingOut(Schema):
    """Words of a page that its picture lacks; ``target`` is a CSS selector, or a frame's address."""

    why: Why
    words: int
    first: str
    target: str


class CaptureDetailOut(CaptureOut):
    """A capture as the Bench shows it."""

    strips: list[StripOut]
    cuts: list[CutOut]
    settings: TakeSettings
    lacking: list[LackingOut]
    words: int
    """Words that the page has laid out, in the picture or not."""
    done_before: list[str]
    signed_in: bool
    top_px: int
    """CSS px from the page's top at which the capture begins."""
    bottom_px: int
    """CSS px from the page's top at which it ends."""
    seconds: float | None
