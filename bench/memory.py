"""Peak memory over a picture of 1280 × 100,000 px: taken in, looked at, cut and fitted.

Each step runs in a process of its own, in a worker's environment, so that its peak is its own.
"""

from __future__ import annotations

import os
import subprocess
import sys
import tempfile
from pathlib import Path

import numpy as np
from PIL import Image

from tallpage.core.picture import StripManifest
from tallpage.server.serve import WORKER_MEMORY

WIDTH_PX, HEIGHT_PX = 1_280, 100_000
# The high-water mark of this programme alone; rusage would carry over its parent's.
_PEAK = """
status = open("/proc/self/status").read()
print(int(status.split("VmHWM:")[1].split()[0]) // 1024)
"""
_OPEN = """
from pathlib import Path
from tallpage.core.picture import StripManifest
folder = Path(FOLDER)
manifest = StripManifest.load(folder)
"""
_TURN = (
    _OPEN
    + """
from dataclasses import replace
from tallpage.core.cut import Cut, Frame
from tallpage.core.geometry import Box
from tallpage.core.render import CaptureSource, Rendering, RenderRules, save_png
from tallpage.core.sizing import Sizing
from tallpage.core.turning import Orientation, TurnedPage
page = replace(manifest.size, height_px=60_000)
class Upper(CaptureSource):
    size = page
size = TurnedPage(page, ORIENTATION).size
cut = Cut(orientation=ORIENTATION, frame=Frame.of(Box.whole(size)))
rules = RenderRules(sizing=Sizing(way="share", percent=100))
save_png(Rendering(Upper(folder), cut, rules), Path(FOLDER) / "turned.png")
"""
)
STEPS = {
    "taken in": """
from pathlib import Path
from tallpage.core.picture import import_picture
import_picture(Path(PICTURE), Path(FOLDER))
""",
    "thumbnail, spine, strip": _OPEN
    + """
from tallpage.core.render import squeezed, strip_view, thumbnail
thumbnail(folder, manifest, width_px=480, greatest_height_px=1_200)
squeezed(folder, manifest, width_px=200, greatest_height_px=2_400)
strip_view(folder, manifest, 20, shrink=2)
""",
    "cut of 40,000 px, fitted to 720 px and 1,500 kB": _OPEN
    + """
from tallpage.core.cut import Cut, Frame
from tallpage.core.fit import FitOrder, fit_order
from tallpage.core.geometry import Box
from tallpage.core.render import CaptureSource, Rendering, RenderRules
from tallpage.core.sizing import Sizing
frame = Box(x_px=0, y_px=30_000, width_px=1_280, height_px=40_000)
order = FitOrder(limit_bytes=1_500_000, formats=("jpeg",))
rules = RenderRules(sizing=Sizing(width_px=720))
rendering = Rendering(CaptureSource(folder), Cut(frame=Frame.of(frame)), rules)
fit_order(rendering.draw(rendering.whole()), order)
""",
    "the whole page, fitted to 720 px and 4 MB": _OPEN
    + """
from tallpage.core.cut import Cut, Frame
from tallpage.core.fit import FitOrder, fit_order
from tallpage.core.geometry import Box
from tallpage.core.render import CaptureSource, Rendering, RenderRules
from tallpage.core.sizing import Sizing
frame = Box.whole(manifest.size)
order = FitOrder(limit_bytes=4_000_000, formats=("jpeg", "png"))
rules = RenderRules(sizing=Sizing(width_px=720))
rendering = Rendering(CaptureSource(folder), Cut(frame=Frame.of(frame)), rules)
fit_order(rendering.draw(rendering.whole()), order)
""",
    "60,000 px turned by 90° into a PNG": _TURN.replace("ORIENTATION", "Orientation(turn_deg=90)"),
    "60,000 px straightened by 1.3° into a PNG": _TURN.replace("ORIENTATION", "Orientation(angle_deg=1.3)"),
    "60,000 px to three slots, one of them in leaves of at most 4,000 px": _OPEN
    + """
from tallpage.core.cut import Cut, Frame
from tallpage.core.fit import FitOrder, fit_order, read_content, weight_line, worst_places
from tallpage.core.geometry import Box
from tallpage.core.picture import decode
from tallpage.core.render import CaptureSource, Rendering, RenderRules
from tallpage.core.sizing import Sizing
cut = Cut(frame=Frame.of(Box(x_px=0, y_px=0, width_px=1_280, height_px=60_000)))
for width_px, limit_bytes, formats, greatest_px in (
    (720, 2_000_000, ("jpeg", "webp"), None),
    (600, 1_500_000, ("jpeg", "png"), None),
    (1_080, 250_000, ("jpeg", "png", "webp"), 4_000),
):
    rules = RenderRules(sizing=Sizing(width_px=width_px), greatest_height_px=greatest_px)
    rendering = Rendering(CaptureSource(folder), cut, rules)
    order = FitOrder(limit_bytes=limit_bytes, formats=formats)
    for leaf in rendering.leaves():
        raster = rendering.draw(leaf).held()
        chosen = fit_order(raster, order).chosen
        weight_line(raster, chosen.choice, chosen.byte_count)
        read_content(raster)
        worst_places(raster, decode(chosen.data).held(), count=8, box_px=(144, 72))
""",
}


def tall_picture(path: Path) -> None:
    """A PNG of text-like rows, written without ever holding it as one array of floats."""
    rng = np.random.default_rng(1)
    tile = rng.integers(0, 2, (200, WIDTH_PX), dtype=np.uint8).repeat(5, axis=0)[:1_000] * 215 + 20
    picture = Image.new("RGB", (WIDTH_PX, HEIGHT_PX), (250, 248, 244))
    band = Image.fromarray(tile).convert("RGB")
    for top in range(0, HEIGHT_PX, 2_000):
        picture.paste(band, (0, top))
    picture.save(path, compress_level=1)


def peak_mb(code: str, *, picture: Path, folder: Path) -> int:
    """Peak resident memory of a process that runs ``code``, in MiB."""
    names = f"PICTURE = {str(picture)!r}\nFOLDER = {str(folder)!r}\n"
    run = subprocess.run(
        [sys.executable, "-c", names + code + _PEAK],
        capture_output=True,
        text=True,
        check=True,
        env={**os.environ, **WORKER_MEMORY},
    )
    return int(run.stdout)


def main() -> None:
    """Measure and print."""
    with tempfile.TemporaryDirectory() as scratch:
        picture, folder = Path(scratch) / "tall.png", Path(scratch) / "capture"
        tall_picture(picture)
        folder.mkdir()
        for name, code in STEPS.items():
            print(f"{name}: {peak_mb(code, picture=picture, folder=folder)} MiB", flush=True)
        print(f"strips: {len(StripManifest.load(folder).strips)}")


if __name__ == "__main__":
    main()
