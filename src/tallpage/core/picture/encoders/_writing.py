"""Having libvips write a file into memory."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from tallpage.core.picture._libvips import translated
from tallpage.core.picture.operations._raster import Raster


@dataclass(frozen=True, slots=True, kw_only=True)
class Metadata:
    """What a file says beside its pixels. A format leaves out what it cannot hold: GIF holds neither."""

    xmp: bytes
    iptc: Mapping[str, str] = field(default_factory=dict)
    """Fields of IPTC-IIM by name, for JPEG alone."""


def written(raster: Raster, suffix: str, metadata: Metadata | None = None, **options: object) -> bytes:
    """The file of a raster, in the format of a suffix like ``.webp``, with libvips' own options.

    No profile and no metadata are kept but those that are given.
    """
    image, keep = raster.image, "none"
    if metadata is not None:
        image, keep = raster.with_xmp(metadata.xmp).image, "xmp"
    with translated("The picture"):
        data: bytes = image.write_to_buffer(suffix, keep=keep, **options)
    return data
