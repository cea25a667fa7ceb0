"""A source over an array of pixels."""

from tallpage.core.geometry import Box
from tallpage.core.picture import Raster
from tests.pictures import Pixels


class RowsSource:
    """A page of which only the pixels are known."""

    def __init__(self, rows: Pixels) -> None:
        self._raster = Raster.from_rows(rows)
        self.size = self._raster.size

    def region(self, box: Box, *, access: str = "sequential") -> Raster:  # noqa: ARG002
        return self._raster.cropped(box.require_on(self.size))

    def blocks(self) -> tuple[()]:
        return ()

    def words(self) -> None:
        return None
