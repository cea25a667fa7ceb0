"""Which resampling keeps most of a page: reduced by each kernel, enlarged again as a reader's screen
would, and judged by ssimulacra2 against the page as it was; and how much of its contrast is left.

Contrast is the standard deviation of luma against the page's own: below 1 letters look paler.
"""

from __future__ import annotations

import statistics
import tempfile
from pathlib import Path

import numpy as np
import pyvips
from ssimulacra2 import compute_ssimulacra2

from bench.pictures import PAGES, PHOTOGRAPHS, pages, photograph

KERNELS = ("linear", "cubic", "lanczos3", "mks2013")
SHARES = (0.5625, 0.75)
_SHARPENED = "lanczos3 sharpened"


def reduced(picture: pyvips.Image, share: float, kernel: str) -> pyvips.Image:
    """The picture at a share of its size; “… light” in linear light, “… sharpened” a little sharper."""
    name, _, more = kernel.partition(" ")
    source = picture.colourspace("scrgb") if more == "light" else picture
    small = source.resize(share, kernel=name)
    small = small.colourspace("srgb") if more == "light" else small.cast("uchar")
    small = small.copy(interpretation="srgb")
    return small.sharpen(sigma=0.5, x1=2, m1=0, m2=0.6).cast("uchar") if more == "sharpened" else small


def judged(original: pyvips.Image, picture: pyvips.Image) -> float:
    """ssimulacra2 between two pictures of one size."""
    with tempfile.TemporaryDirectory() as scratch:
        paths = [Path(scratch) / name for name in ("a.png", "b.png")]
        for path, image in zip(paths, (original, picture), strict=True):
            image.write_to_file(str(path), compression=1)
        return float(compute_ssimulacra2(*map(str, paths)))


def _contrast(picture: pyvips.Image) -> float:
    return float(picture.colourspace("b-w").deviate())


def _raster(rows: object) -> pyvips.Image:
    return pyvips.Image.new_from_array(np.asarray(rows)).copy(interpretation="srgb")


def measure(title: str, originals: list[pyvips.Image]) -> None:
    """Print a row a kernel: means over pictures and shares."""
    print(f"-- {title}")
    for kernel in (*KERNELS, *(f"{name} light" for name in KERNELS), _SHARPENED):
        scores, left = [], []
        for original in originals:
            for share in SHARES:
                small = reduced(original, share, kernel)
                size = (original.width / small.width, original.height / small.height)
                again = small.resize(size[0], vscale=size[1], kernel="cubic").cast("uchar")
                again = again.gravity("north-west", original.width, original.height, extend="copy")
                scores.append(judged(original, again.copy(interpretation="srgb")))
                left.append(_contrast(small) / _contrast(original))
        print(
            f"{kernel:20} score {statistics.mean(scores):5.1f}  contrast left {statistics.mean(left):.3f}",
            flush=True,
        )


def main() -> None:
    """Documentation pages, then photographs."""
    found = pages(tuple(PAGES), most_px=700)
    measure("pages", [_raster(row) for row in found.values()])
    measure("photographs", [_raster(photograph(name)) for name in PHOTOGRAPHS])


if __name__ == "__main__":
    main()
