"""Peak memory while a page of 100,000 px is taken: the worker, the browser's driver, the browser.

The page is served by this process and taken by another, so that the peaks are the taking's own.
"""

from __future__ import annotations

import subprocess
import sys
import tempfile
import threading
import time
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer

import psutil

HEIGHT_PX = 100_000
_ROW_PX = 500
_SAMPLED_EVERY_S = 0.05
_ROWS = HEIGHT_PX // _ROW_PX


def page_html() -> str:
    """Text, tables of figures and drawn pictures, row after row."""
    words = "The tide turns at the sound and every boat turns with it, whatever the timetable says. "
    dots = "".join(
        f'<circle cx="{x * 7 % 600}" cy="{x * 13 % 200}" r="9" fill="hsl({x * 31} 60% 50%)"/>'
        for x in range(90)
    )
    inside = f'<svg width="600" height="200">{dots}</svg><p>{words * 9}</p>'
    rows = "".join(f"<section><h2>Stretch {row}</h2>{inside}</section>" for row in range(_ROWS))
    style = f"*{{margin:0}}section{{height:{_ROW_PX}px;overflow:hidden;padding:20px;box-sizing:border-box}}"
    return f"<!doctype html><meta charset=utf-8><title>Tall</title><style>{style}</style>{rows}"


class _Handler(BaseHTTPRequestHandler):
    def do_GET(self) -> None:
        data = page_html().encode()
        self.send_response(200)
        self.send_header("Content-Type", "text/html")
        self.send_header("Content-Length", str(len(data)))
        self.end_headers()
        self.wfile.write(data)

    def log_message(self, format: str, *args: object) -> None:  # noqa: A002  (the base class names it so)
        """Stay quiet."""


def _resident_mb(process: psutil.Process) -> float:
    try:
        return process.memory_info().rss / 1_048_576
    except psutil.Error:
        return 0.0


def _peaks(command: list[str]) -> dict[str, float]:
    """Peak MiB of a command's own process, of the driver that it starts, and of the browser under that."""
    peaks = {"worker": 0.0, "driver": 0.0, "browser": 0.0}
    with subprocess.Popen(command, stdout=subprocess.PIPE, text=True) as child:
        worker = psutil.Process(child.pid)
        while child.poll() is None:
            family = worker.children(recursive=True) if worker.is_running() else []
            browser = sum(_resident_mb(row) for row in family if "chrom" in _name(row))
            driver = sum(_resident_mb(row) for row in family if "node" in _name(row))
            now = {"worker": _resident_mb(worker), "driver": driver, "browser": browser}
            peaks = {name: max(peaks[name], now[name]) for name in peaks}
            time.sleep(_SAMPLED_EVERY_S)
        print((child.stdout.read() if child.stdout else "").strip())
    return peaks


def _name(process: psutil.Process) -> str:
    try:
        return process.name()
    except psutil.Error:
        return ""


_TAKING = """
import sys, time
from pathlib import Path
from tallpage.core.capture import Browser, PageRequest, Screen, take_page
started = time.monotonic()
with Browser() as browser:
    screen = Screen(width_px=1280, height_px=800, scale=int(sys.argv[3]))
    request = PageRequest(address=sys.argv[1], screen=screen)
    manifest, report = take_page(browser, request, Path(sys.argv[2]))
seconds = round(time.monotonic() - started, 1)
print(f"{manifest.width_px} x {manifest.height_px} px in {seconds} s", *report.warnings)
"""


def main() -> None:
    """Measure and print."""
    with ThreadingHTTPServer(("127.0.0.1", 0), _Handler) as server:
        threading.Thread(target=server.serve_forever, daemon=True).start()
        address = f"http://127.0.0.1:{server.server_port}/"
        for scale in (1, 2):
            with tempfile.TemporaryDirectory() as folder:
                peaks = _peaks([sys.executable, "-c", _TAKING, address, folder, str(scale)])
            figures = ", ".join(f"{name} {round(peak)} MiB" for name, peak in peaks.items())
            print(f"scale {scale}: {figures}", flush=True)
        server.shutdown()


if __name__ == "__main__":
    main()
