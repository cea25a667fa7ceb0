"""Where the pixels of a page come from: strips of a capture, a picture file, or pixels in memory."""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path
from typing import Protocol

from tallpage.core.geometry import Box, Size
from tallpage.core.once import once
from tallpage.core.page_map import Block, PageMap
from tallpage.core.page_words import PageWords
from tallpage.core.picture import Access, Raster, StripManifest, open_file, open_foreign


class Source(Protocol):
    """A page whose pixels never change."""

    @property
    def size(self) -> Size:
        """Width and height in page px."""

    def region(self, box: Box, *, access: Access = "sequential") -> Raster:
        """The pixels of a box; ``sequential`` ones may be pulled once, from top to bottom.

        Raises:
            FrameError: the box does not lie on the page.
        """

    def blocks(self) -> tuple[Block, ...]:
        """What the page says stands where; nothing when that is not known."""

    def words(self) -> PageWords | None:
        """The words of the page with their boxes; None when they are not known."""


class CaptureSource:
    """A capture's folder. What its strips are is read from there, when it is not said, once it is needed."""

    def __init__(self, folder: Path, manifest: StripManifest | None = None) -> None:
        self._folder = folder
        self._given = manifest

    @once
    def manifest(self) -> StripManifest:
        """The strips.

        Raises:
            PictureUnreadable: they are not known.
        """
        return self._given or StripManifest.load(self._folder)

    @property
    def size(self) -> Size:
        """Width and height in page px."""
        return self.manifest.size

    def region(self, box: Box, *, access: Access = "sequential") -> Raster:
        """The pixels of a box, from only the strips that hold it.

        Raises:
            FrameError: the box does not lie on the capture.
        """
        box.require_on(self.size)
        strips = self.manifest.strips_under(box)
        stack = Raster.stacked([open_file(self._folder / strip.file, access=access) for strip in strips])
        within = replace(box, y_px=box.y_px - strips[0].top_px)
        return stack if within == Box.whole(stack.size) else stack.cropped(within)

    def blocks(self) -> tuple[Block, ...]:
        """The page map's; none where there is no map, or a damaged one."""
        return PageMap.load_if_readable(self._folder).blocks

    def words(self) -> PageWords | None:
        """Those of the capture; None of an older one, and where they are damaged."""
        return self._words

    @once
    def _words(self) -> PageWords | None:
        return PageWords.load_if_readable(self._folder)


class PictureSource:
    """A picture file, upright and in sRGB."""

    def __init__(self, path: Path, *, held: bool = False) -> None:
        """With ``held``, it is decoded once and its pixels are kept: for whoever reads them several times."""
        self._path = path
        self._held = held

    @property
    def size(self) -> Size:
        """Width and height in px."""
        return self._size

    @once
    def _size(self) -> Size:
        return self._opened().size

    def region(self, box: Box, *, access: Access = "sequential") -> Raster:  # noqa: ARG002
        """The pixels of a box.

        Raises:
            FrameError: the box does not lie on the picture.
            PictureUnreadable: the file is damaged.
        """
        box.require_on(self.size)
        opened = self._opened()
        return opened if box == Box.whole(opened.size) else opened.cropped(box)

    def blocks(self) -> tuple[Block, ...]:
        """None are known."""
        return ()

    def words(self) -> None:
        """They are not known."""

    def _opened(self) -> Raster:
        return self._kept if self._held else open_foreign(self._path).normalised()

    @once
    def _kept(self) -> Raster:
        return open_foreign(self._path).normalised().held()


class RasterSource:
    """Pixels that are there already, upright and in sRGB."""

    def __init__(self, raster: Raster) -> None:
        self._raster = raster

    @property
    def size(self) -> Size:
        """Width and height in px."""
        return self._raster.size

    def region(self, box: Box, *, access: Access = "sequential") -> Raster:  # noqa: ARG002
        """The pixels of a box.

        Raises:
            FrameError: the box does not lie on them.
        """
        box.require_on(self.size)
        return self._raster if box == Box.whole(self.size) else self._raster.cropped(box)

    def blocks(self) -> tuple[Block, ...]:
        """None are known."""
        return ()

    def words(self) -> None:
        """They are not known."""
