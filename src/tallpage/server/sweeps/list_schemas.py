"""Lists of pages, and what is asked of a sweep of them, on the wire."""

from __future__ import annotations

from ninja import Field, Schema

from tallpage.core.sweep import DEFAULT_PATTERN, Found, ListedPage, Pace
from tallpage.server.shelf.routes.schemas import ScreenIn, TakeSettings
from tallpage.server.sweeps.listing import Listing


class ListIn(Schema):
    """A text that holds addresses."""

    text: str = Field(max_length=8_000_000)


class SiteIn(Schema):
    """Address of a sitemap, or of a page whose links are wanted."""

    address: str


class ListedPageOut(Schema):
    """A page of a list."""

    address: str
    line: int
    title: str
    host: str
    section: str
    modified: str
    forbidden: bool


class BadLineOut(Schema):
    """A line that is no address, and why."""

    line: int
    text: str
    sentence: str


class ColumnOut(Schema):
    """A column of a table."""

    number: int
    heading: str
    addresses: int


class ListOut(Schema):
    """What a list holds; ``bad`` are the first 500 of ``bad_count``."""

    source: str
    pages: list[ListedPageOut]
    sections: dict[str, int]
    bad: list[BadLineOut]
    bad_count: int
    duplicates: int
    left_over: int
    columns: list[ColumnOut]
    column: int | None
    problems: list[str]
    robots: str

    @classmethod
    def of(cls, listing: Listing) -> ListOut:
        """A listing on the wire."""

        def out(page: ListedPage) -> ListedPageOut:
            return ListedPageOut(
                address=page.address,
                line=page.line,
                title=page.title,
                host=page.host,
                section=page.section,
                modified=page.modified,
                forbidden=page.address in listing.forbidden,
            )

        pages = listing.pages
        return cls(
            source=listing.source,
            pages=[out(page) for page in pages.pages],
            sections=pages.sections(),
            bad=[BadLineOut(line=row.line, text=row.text, sentence=row.sentence) for row in pages.bad],
            bad_count=pages.bad_count,
            duplicates=pages.duplicates,
            left_over=pages.left_over,
            columns=[
                ColumnOut(number=row.number, heading=row.heading, addresses=row.addresses)
                for row in listing.columns
            ],
            column=listing.column,
            problems=list(listing.problems),
            robots=listing.robots,
        )


class PageIn(Schema):
    """A page to take, as a list had it."""

    address: str = Field(max_length=5_000)
    title: str = Field(default="", max_length=1_000)
    line: int = 0

    def found(self) -> Found:
        """The page as the core knows it."""
        return Found(text=self.address, line=self.line, title=self.title)


class SweepIn(Schema):
    """Many pages to take."""

    name: str = Field(default="", max_length=120)
    pages: list[PageIn]
    screens: list[ScreenIn]
    settings: TakeSettings = Field(default_factory=TakeSettings)
    slot_ids: list[int] = []
    pattern: str = Field(default=DEFAULT_PATTERN, max_length=300)
    at_once: int = 2
    pause_ms: int = 500
    site: str = Field(default="", max_length=5_000)
    """The sitemap or page that gave the list, to be asked again the next time."""
    left_out: list[str] = []
    """Addresses of the site that are not wanted."""

    def found(self) -> list[Found]:
        """The pages as the core knows them."""
        return [page.found() for page in self.pages]

    def pace(self) -> Pace:
        """The pace as the core knows it.

        Raises:
            ListError: it is not possible.
        """
        return Pace(at_once=self.at_once, pause_s=self.pause_ms / 1_000)


class PatternIn(Schema):
    """A pattern to try on some pages."""

    pattern: str
    pages: list[PageIn]
    screens: list[ScreenIn]
    slot_names: list[str] = []

    def found(self) -> list[Found]:
        """The pages as the core knows them."""
        return [page.found() for page in self.pages]


class NamesOut(Schema):
    """Names that a pattern would give."""

    names: list[str]
