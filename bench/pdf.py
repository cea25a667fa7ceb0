"""PDFs of a page of some 60,000 px: seconds, MB, peak memory, words and links; beside a plain way.

The plain way stores the same rows as JPEGs of the same quality, a sheet each, by Pillow: without gaps,
words, links, tags or outline. Each runs in a process of its own, so that its peak is its own.
"""

from __future__ import annotations

import http.server
import re
import sys
import tempfile
import threading
import time
from functools import partial
from pathlib import Path
from subprocess import run

from tallpage.core.capture import PRESETS, Browser, PageRequest, take_page
from tallpage.core.page_words import PageWords

_PEAK = """
status = open("/proc/self/status").read()
print(int(status.split("VmHWM:")[1].split()[0]) // 1024)
"""
_OURS = """
from tallpage.core.cut import Cut
from tallpage.core.pdf import PdfOrder, PdfPart, make_pdf, parse_paper
from tallpage.core.render import CaptureSource, Rendering, RenderRules
from tallpage.core.sizing import Sizing
from pathlib import Path
source = CaptureSource(Path(FOLDER))
rules = RenderRules(sizing=Sizing(way="share", percent=100), flattened=True)
part = PdfPart(rendering=Rendering(source, Cut.whole(source.size), rules), title="A long page", facts={})
order = PdfOrder(paper=parse_paper(PAPER), limit_bytes=LIMIT)
made = make_pdf([part], order, Path(OUT))
print(made)
"""
_PLAIN = """
from tallpage.core.geometry import Box, bands
from tallpage.core.render import CaptureSource
from pathlib import Path
from PIL import Image
source = CaptureSource(Path(FOLDER))
sheets = [
    Image.fromarray(source.region(Box(x_px=0, y_px=top, width_px=source.size.width_px, height_px=rows)).rows(0, rows)[..., :3])
    for top, rows in bands(source.size.height_px, 1_700)
]
sheets[0].save(OUT, format="PDF", quality=92, save_all=True, append_images=sheets[1:])
"""  # noqa: E501


class _Page(http.server.BaseHTTPRequestHandler):
    """Sections with a heading, words, links, a table and shades, until the page is long enough."""

    def do_GET(self) -> None:
        sections = "".join(
            f"<h2>Sailing {number}</h2><p>{'The boat leaves the pier at noon and comes back at night. ' * 9}"
            f"<a href='/sailing/{number}'>More about sailing {number}</a></p>"
            f"<div style='height:160px;background:linear-gradient({number * 7}deg,#1f5a6b,#f5c451)'></div>"
            + "<table border=1>"
            + "".join(f"<tr><td>{row}:00</td><td>Pier {row}</td></tr>" for row in range(12))
            + "</table>"
            for number in range(102)
        )
        body = f"<!doctype html><html lang=en><title>Sailings</title><body>{sections}".encode()
        self.send_response(200)
        self.send_header("Content-Type", "text/html")
        self.end_headers()
        self.wfile.write(body)

    def log_message(self, *_: object) -> None:
        pass


def main() -> None:
    """Measure and print."""
    with tempfile.TemporaryDirectory() as scratch:
        folder, out = Path(scratch) / "capture", Path(scratch) / "out.pdf"
        folder.mkdir()
        with http.server.ThreadingHTTPServer(("127.0.0.1", 0), _Page) as server, Browser() as browser:
            threading.Thread(target=server.serve_forever, daemon=True).start()
            address = f"http://127.0.0.1:{server.server_port}/"
            manifest, _ = take_page(browser, PageRequest(address=address, screen=PRESETS["desk"]), folder)
            server.shutdown()
        words = PageWords.load(folder) or PageWords(runs=())
        count = sum(map(len, words.runs))
        print(f"{manifest.width_px} × {manifest.height_px} px, {count} words, {len(words.links)} links")
        measured = partial(_measured, folder=folder, out=out)
        measured("plain", _PLAIN)
        for paper in ("tall", "A4"):
            measured(paper, f"PAPER, LIMIT = {paper!r}, None\n{_OURS}")
        measured("tall under 4 MB", f"PAPER, LIMIT = 'tall', 4_000_000\n{_OURS}")
        measured("A4 under 4 MB", f"PAPER, LIMIT = 'A4', 4_000_000\n{_OURS}")


def _measured(name: str, code: str, *, folder: Path, out: Path) -> None:
    begun = time.perf_counter()
    head = f"FOLDER, OUT = {str(folder)!r}, {str(out)!r}\n"
    done = run([sys.executable, "-c", head + code + _PEAK], capture_output=True, text=True, check=True)
    *said, peak = done.stdout.split("\n")[:-1]
    seconds, megabytes = time.perf_counter() - begun, out.stat().st_size / 1e6
    sheets = re.findall(r"sheets=\d+|quality=\d+|share_percent=\d+", " ".join(said))
    print(f"{name}: {seconds:.1f} s, {megabytes:.2f} MB, peak {peak} MiB {', '.join(sheets)}", flush=True)


if __name__ == "__main__":
    main()
