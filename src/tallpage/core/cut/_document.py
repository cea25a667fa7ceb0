"""The document of a cut."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import TYPE_CHECKING, Any, Self

from tallpage.core.cut._frame import Frame
from tallpage.core.geometry import Box, Size

if TYPE_CHECKING:
    from tallpage.core.clearing import Clearing
    from tallpage.core.cut._hidden import HiddenArea, SoughtWords
    from tallpage.core.cut._seam import Seam
    from tallpage.core.dressing import Dressing
    from tallpage.core.marks import Mark, Style
    from tallpage.core.outlining import FreeOutline
    from tallpage.core.page_words import PageWords
    from tallpage.core.tone import Tone
    from tallpage.core.turning import Orientation

VERSION = 1


@dataclass(frozen=True, slots=True, kw_only=True)
class Cut:
    """A cut of a page. Its parts stand in the order in which they are carried out.

    All places count on the page as ``orientation`` turns it. A part that a document does not name is not
    there.
    """

    orientation: Orientation | None = None
    hidden: tuple[HiddenArea, ...] = ()
    sought: tuple[SoughtWords, ...] = ()
    """What was hidden by words; who draws the cut looks at ``hidden`` alone."""
    cleared: Clearing | None = None
    frame: Frame
    seam: Seam | None = None
    """What its folds look like; without one, the two sides just meet."""
    outline: FreeOutline | None = None
    tone: Tone | None = None
    marks: tuple[Mark, ...] = ()
    """From the lowest to the highest."""
    dressing: Dressing | None = None
    styles: Mapping[str, Style] = field(default_factory=dict, hash=False)
    """Looks that marks name; who draws the cut may know more."""
    pictures: Mapping[str, bytes] = field(default_factory=dict, hash=False, repr=False)
    """PNG files that stickers and stamps name; they stand in the file of a cut, not in its document."""

    @classmethod
    def whole(cls, page: Size) -> Self:
        """The cut that shows all of a page."""
        return cls(frame=Frame.of(Box.whole(page)))

    @classmethod
    def from_json(cls, data: Mapping[str, Any]) -> Self:
        """A cut as :meth:`as_json` gave it. What comes from outside is read by :func:`read_cut`."""
        frame = Frame.from_json(data["frame"])
        if data.keys() <= {"version", "frame"}:
            return cls(frame=frame)
        # The models of the other parts take a tenth of a second to load, which most commands do without.
        from tallpage.core.cut.models import PartsFile

        named = PartsFile.model_validate({name: data[name] for name in data.keys() - {"version", "frame"}})
        return cls(frame=frame, **named.parts())

    def as_json(self) -> dict[str, Any]:
        """Plain types, always in the same order."""
        parts: dict[str, Any] = {
            "orientation": self.orientation and self.orientation.model_dump(mode="json"),
            "hidden": [row.model_dump(mode="json") for row in self.hidden],
            "sought": [row.model_dump(mode="json") for row in self.sought],
            "cleared": self.cleared and self.cleared.model_dump(mode="json"),
            "seam": self.seam and self.seam.model_dump(mode="json"),
            "outline": self.outline and self.outline.model_dump(mode="json"),
            "tone": self.tone and self.tone.model_dump(mode="json"),
            "marks": [row.model_dump(mode="json") for row in self.marks],
            "dressing": self.dressing and self.dressing.model_dump(mode="json"),
            "styles": {name: row.model_dump(mode="json") for name, row in self.styles.items()},
        }
        said = {name: part for name, part in parts.items() if part}
        return {"version": VERSION, "frame": self.frame.as_json(), **said}

    def resolved(self, facts: Mapping[str, str]) -> Self:
        """The cut as it is drawn: each mark in its style, the caption filled with facts of the page.

        Raises:
            CutError: a mark names a style that is not known.
        """
        if not self.marks and self.dressing is None:
            return replace(self, sought=()) if self.sought else self
        from tallpage.core.marks import styled

        dressing = self.dressing
        if dressing is not None and dressing.caption is not None:
            dressing = dressing.model_copy(update={"caption": dressing.caption.filled(facts)})
        marks = tuple(styled(mark, self.styles) for mark in self.marks)
        return replace(self, marks=marks, dressing=dressing, styles={}, sought=())

    def hidden_anew(self, words: PageWords) -> Self:
        """The cut with what was hidden by words looked for again, on a page that says ``words``.

        Where that is in more places than a cut may hide, one area covers all the rest of them.
        """
        from tallpage.core.cut._hidden import MOST_HIDDEN, one_around
        from tallpage.core.finding import find_places

        sought = {row.id for row in self.sought}
        by_hand = tuple(area for area in self.hidden if area.found_by not in sought)
        found = [area for row in self.sought for area in row.areas(find_places(words, row.sought))]
        room = max(1, MOST_HIDDEN - len(by_hand))
        if len(found) > room:
            found = [*found[: room - 1], one_around(found[room - 1 :])]
        return replace(self, hidden=(*by_hand, *found))

    def picture_names(self) -> frozenset[str]:
        """The pictures that stickers and stamps name."""
        stickers = {getattr(mark, "picture", None) for mark in self.marks}
        stamp = self.dressing.stamp.picture if self.dressing and self.dressing.stamp else None
        return frozenset(name for name in (*stickers, stamp) if name)

    def renamed_pictures(self, names: Mapping[str, str]) -> Self:
        """The cut whose stickers and stamps name their pictures otherwise; the pictures stay behind."""

        def renamed(row: Any) -> Any:
            name: str = getattr(row, "picture", None) or ""
            return row.model_copy(update={"picture": names[name]}) if name in names else row

        dressing = self.dressing
        if dressing is not None and dressing.stamp is not None:
            dressing = dressing.model_copy(update={"stamp": renamed(dressing.stamp)})
        marks = tuple(renamed(mark) for mark in self.marks)
        return replace(self, marks=marks, dressing=dressing, pictures={})

    def page_size(self, page: Size) -> Size:
        """The size of a page as the cut turns it.

        Raises:
            FrameError: nothing of it is left between its cropped corners.
        """
        if self.orientation is None:
            return page
        from tallpage.core.turning import TurnedPage

        return TurnedPage(page, self.orientation).size

    def require_on(self, page: Size) -> Self:
        """The cut itself.

        Raises:
            FrameError: its frame does not lie on a page of this size.
        """
        self.frame.box.require_on(self.page_size(page))
        return self
