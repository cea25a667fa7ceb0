"""How soon a live page shows what was done: from an input to the frame whose pixels show it, on loopback.

A key that changes a whole plain page, the pointer on a menu that opens, and a wheel that scrolls a long page
with pictures. Frames are decoded and acknowledged as the interface does it. Beside it what one empty answer
takes over the same socket.
"""

from __future__ import annotations

import io
import json
import statistics
import tempfile
import threading
import time
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from pathlib import Path
from typing import Any

import numpy as np
from numpy.typing import NDArray
from PIL import Image
from websockets.sync.client import ClientConnection, connect
from websockets.typing import Origin

from bench.running import running_demo

WANTED = "wanted: median at most 80 ms, 95 of 100 within 150 ms"
_TIMES = 60
_PAUSE_S = 0.25
_PATIENCE_S = 5.0
_LOOKED_AT = (160, 160)
_NOISE = 24
_MENU_PX = (300, 285)
_DESK = {"width_px": 1280, "height_px": 800, "scale": 1, "touch": False}
_PHONE = {"width_px": 390, "height_px": 844, "scale": 3, "touch": True}
_KEYS = b"""<!doctype html><title>Keys</title><body style="background:#fff"><script>
let n = 0;
addEventListener("keydown", () => { n += 1; document.body.style.background = n % 2 ? "#000" : "#fff"; });
</script>"""


class _Keys(BaseHTTPRequestHandler):
    def do_GET(self) -> None:
        self.send_response(200)
        self.send_header("Content-Type", "text/html")
        self.send_header("Content-Length", str(len(_KEYS)))
        self.end_headers()
        self.wfile.write(_KEYS)

    def log_message(self, *_: object) -> None:
        """Say nothing."""


class _Live:
    """Somebody at a live page."""

    def __init__(self, socket: ClientConnection) -> None:
        self._socket = socket
        self._number = 0
        self._seen: NDArray[np.int16] | None = None

    def open(self, address: str, screen: dict[str, Any]) -> None:
        self.send({"kind": "open", "address": address, "screen": screen})
        time.sleep(2.5)
        self._drain()

    def send(self, message: dict[str, Any]) -> None:
        self._socket.send(json.dumps(message))

    def ms_until_shown(self, act: dict[str, Any]) -> float | None:
        """From an input to the first frame that is another picture; None where none came."""
        self._drain()
        before = self._seen
        self._number += 1
        started = time.perf_counter()
        self.send({**act, "number": self._number})
        while time.perf_counter() - started < _PATIENCE_S:
            self._frame(_PATIENCE_S)
            if before is not None and self._seen is not None and _differ(before, self._seen):
                return (time.perf_counter() - started) * 1_000
        return None

    def ms_of_an_answer(self) -> float:
        """What a message takes that is answered at once."""
        started = time.perf_counter()
        self.send({"kind": "nothing"})
        while (
            not isinstance(message := self._socket.recv(timeout=_PATIENCE_S), str) or "failed" not in message
        ):
            pass
        return (time.perf_counter() - started) * 1_000

    def _drain(self) -> None:
        last = time.perf_counter() + _PAUSE_S
        while (left := last - time.perf_counter()) > 0:
            self._frame(left)

    def _frame(self, timeout_s: float) -> None:
        try:
            message = self._socket.recv(timeout=max(0.001, timeout_s))
        except TimeoutError:
            return
        if isinstance(message, str):
            return
        with Image.open(io.BytesIO(message[5:])) as frame:
            self._seen = np.asarray(frame.convert("L").resize(_LOOKED_AT), dtype=np.int16)
        if not message[0]:
            self.send({"kind": "drawn"})


def main() -> None:
    """Measure on a desk's screen and on a dense phone's."""
    with (
        tempfile.TemporaryDirectory(ignore_cleanup_errors=True) as home,
        ThreadingHTTPServer(("127.0.0.1", 0), _Keys) as keys,
        running_demo(Path(home)) as (address, site, _),
    ):
        threading.Thread(target=keys.serve_forever, daemon=True).start()
        plain = f"http://127.0.0.1:{keys.server_address[1]}/"
        host = address.removeprefix("http://")
        with connect(
            f"ws://{host}/live/socket", origin=Origin(address), max_size=None, compression=None
        ) as socket:
            live = _Live(socket)
            for name, screen in (("desk", _DESK), ("phone at 3", _PHONE)):
                live.open(plain, screen)
                _report(f"{name}: a key, seen in the pixels", _keys(live))
                if not screen["touch"]:
                    live.open(f"{site}/planning", screen)
                    _report(f"{name}: a menu under the pointer", _menus(live))
                live.open(f"{site}/", screen)
                _report(f"{name}: the wheel on a long page", _wheels(live))
            _report("an empty answer over the same socket", [live.ms_of_an_answer() for _ in range(_TIMES)])
        keys.shutdown()
    print(WANTED)


def _keys(live: _Live) -> list[float | None]:
    found = []
    for _ in range(_TIMES):
        key = {"kind": "key", "act": "down", "key": "a", "code": "KeyA", "key_code": 65, "text": "a"}
        found.append(live.ms_until_shown(key))
        live.send({**key, "act": "up", "text": "", "number": 0})
    return found


def _menus(live: _Live) -> list[float | None]:
    found = []
    for turn in range(_TIMES):
        place = _MENU_PX if turn % 2 == 0 else (5, 5)
        move = {"kind": "pointer", "act": "move", "x_px": place[0], "y_px": place[1]}
        found.append(live.ms_until_shown(move))
    return found


def _wheels(live: _Live) -> list[float | None]:
    found = []
    for turn in range(_TIMES):
        wheel = {"kind": "pointer", "act": "wheel", "x_px": 150, "y_px": 300}
        down_px = 120 if turn // 10 % 2 == 0 else -120
        found.append(live.ms_until_shown({**wheel, "down_px": down_px}))
    return found


def _differ(one: NDArray[np.int16], other: NDArray[np.int16]) -> bool:
    """Whether two looks show something else, and not only another encoding of the same."""
    return bool(np.abs(one - other).max() > _NOISE)


def _report(what: str, found: list[float | None]) -> None:
    shown = sorted(row for row in found if row is not None)
    if not shown:
        print(f"{what:40s} nothing came")
        return
    print(
        f"{what:40s} median {statistics.median(shown):6.1f} ms, 95 of 100 within "
        f"{shown[int(len(shown) * 0.95)]:6.1f} ms, {len(found) - len(shown)} of {len(found)} without a frame"
    )
