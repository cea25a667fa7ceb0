"""Pictures to fit: pages of documentation from this machine's packages, photographs that ship in
Python packages (``requirements/bench.txt``), and pages of the demo site."""

from __future__ import annotations

import functools
import tempfile
import threading
from collections.abc import Iterator
from dataclasses import dataclass
from http.server import SimpleHTTPRequestHandler, ThreadingHTTPServer
from importlib.util import find_spec
from pathlib import Path

from PIL import Image

from tallpage.core.capture import PRESETS, Browser, PageRequest, take_page
from tallpage.core.picture import save_joined_png

_DOCS = Path("/usr/share/doc")
PAGES = {
    "doc itertools": "python3.11/html/library/itertools.html",
    "doc datetime": "python3.11/html/library/datetime.html",
    "doc index": "python3.11/html/index.html",
    "handbook apt": "debian-handbook/html/en-US/sect.apt-get.html",
}
PHOTOGRAPHS = {
    "photo coffee": ("skimage", "data/coffee.png"),
    "photo portrait": ("skimage", "data/astronaut.png"),
    "photo cat": ("skimage", "data/chelsea.png"),
    "photo rocket": ("skimage", "data/rocket.jpg"),
    "photo flower": ("sklearn", "datasets/images/flower.jpg"),
    "photo temple": ("sklearn", "datasets/images/china.jpg"),
}


@dataclass(frozen=True, slots=True)
class Job:
    """A picture that is to be so wide and at most so heavy."""

    name: str
    picture: Image.Image
    width_px: int
    limit_bytes: int


def jobs() -> Iterator[Job]:
    """Pages at two limits, photographs at two limits."""
    for name, picture in pages().items():
        width_px = 720
        yield Job(f"{name}, 720 px, tight", picture, width_px, 60_000)
        yield Job(f"{name}, 960 px", picture, 960, 180_000)
    for name, (package, file) in PHOTOGRAPHS.items():
        picture = Image.open(_package_folder(package) / file).convert("RGB")
        width_px = min(480, picture.width)
        pixels = width_px * width_px * picture.height // picture.width
        yield Job(f"{name}, tight", picture, width_px, max(4_000, pixels // 20))
        yield Job(f"{name}, wide", picture, width_px, pixels // 8)


def _package_folder(package: str) -> Path:
    """Where a package's files are; nothing of it is imported."""
    spec = find_spec(package)
    if spec is None or spec.origin is None:
        raise SystemExit(f"{package} is not there: pip install --no-deps -r requirements/bench.txt")
    return Path(spec.origin).parent


class _Quiet(SimpleHTTPRequestHandler):
    def log_message(self, format: str, *args: object) -> None:  # noqa: A002  (the base class names it so)
        """Stay quiet."""


@functools.cache
def pages() -> dict[str, Image.Image]:
    """Documentation pages, taken over loopback, at most 3,500 px high."""
    found = {}
    handler = functools.partial(_Quiet, directory=str(_DOCS))
    with ThreadingHTTPServer(("127.0.0.1", 0), handler) as server, Browser() as browser:
        threading.Thread(target=server.serve_forever, daemon=True).start()
        for name, path in PAGES.items():
            if not (_DOCS / path).exists():
                print(f"{name} is not there: install the package of {path.partition('/')[0]}")
                continue
            address = f"http://127.0.0.1:{server.server_port}/{path}"
            request = PageRequest(address=address, screen=PRESETS["desk"], max_height_px=3_500)
            with tempfile.TemporaryDirectory() as scratch:
                strips, file = Path(scratch) / "strips", Path(scratch) / "page.png"
                strips.mkdir()
                manifest, _ = take_page(browser, request, strips)
                save_joined_png(strips, manifest, file)
                found[name] = Image.open(file).convert("RGB")
        server.shutdown()
    return found
