"""How evenly the Bench moves: times between frames while a page is scrolled and an edge is dragged.

A page of 40,000 px with 2,000 blocks, in headless Chromium; first without anything but frames, which tells
what the machine itself can do. Then with 200 marks, half of them on the first 1,500 px, while one is dragged.
"""

from __future__ import annotations

import io
import json
import statistics
import tempfile
import time
from pathlib import Path
from typing import Any

import numpy as np
from PIL import Image
from selenium import webdriver
from tests.browser.stack import open_window

from bench.running import Visitor, running_demo

_WIDTH_PX, _HEIGHT_PX = 1_280, 40_000
_BLOCKS = 2_000
_FRAMES = 240
_MARKS = 200
WANTED_MS = {"median": 17.0, "p95": 34.0}

_TIMES = """
const [step, frames, done] = [arguments[0], arguments[1], arguments[2]];
const move = new Function("number", step);
const times = [];
let before = 0;
const next = (now) => {
  if (before) times.push(now - before);
  before = now;
  if (times.length >= frames) return done(times);
  move(times.length);
  requestAnimationFrame(next);
};
requestAnimationFrame(next);
"""
NOTHING = "document.body.style.setProperty('--frame', number);"
_SCROLL = """
const view = document.querySelector('[data-zoom]');
view.scrollTop = (number * 150) % (view.scrollHeight - view.clientHeight);
"""
_DRAG = """
const handle = document.querySelector("[data-handle='0,1']");
if (number === 0) {
  const view = document.querySelector('[data-zoom]');
  view.scrollTop = view.scrollHeight;
}
const at = handle.getBoundingClientRect();
const event = (name, y) => new PointerEvent(name, {
  bubbles: true, button: 0, buttons: 1, pointerId: 1, isPrimary: true, clientX: at.x + 200, clientY: y,
});
if (number === 0) {
  Element.prototype.setPointerCapture = () => undefined;
  window.dragY = at.y + 8;
  handle.dispatchEvent(event("pointerdown", window.dragY));
}
window.dragY += number % 80 < 50 ? -4 : 4;
window.dispatchEvent(event("pointermove", window.dragY));
"""


_DRAG_MARK = """
const view = document.querySelector('[data-pointer-layer]');
const corner = view.getBoundingClientRect();
const event = (name, x, y) => new PointerEvent(name, {
  bubbles: true, button: 0, buttons: 1, pointerId: 1, isPrimary: true, clientX: x, clientY: y,
});
if (number === 0) {
  Element.prototype.setPointerCapture = () => undefined;
  const mark = document.querySelector("[data-mark='m0']").getBoundingClientRect();
  window.dragX = mark.x + mark.width / 2;
  window.dragY = mark.y + mark.height / 2;
  view.dispatchEvent(event("pointerdown", window.dragX, window.dragY));
}
window.dragX += number % 80 < 40 ? 3 : -3;
window.dragY += number % 60 < 30 ? 2 : -2;
window.dispatchEvent(event("pointermove", window.dragX, window.dragY));
"""


def some_marks(count: int, height_px: int) -> list[dict[str, Any]]:
    """Marks of several kinds; half of them on the first 1,500 px."""
    marks: list[dict[str, Any]] = []
    for number in range(count):
        x_px, near = 60 + number * 137 % 1_000, number % 2 == 0
        y_px = 100 + number * 211 % (1_300 if near else height_px - 300)
        place = {"id": f"m{number}", "x_px": x_px, "y_px": y_px}
        kinds: list[dict[str, Any]] = [
            {**place, "kind": "badge"},
            {**place, "kind": "text", "text": f"Sailing {number}: be there early", "outline_px": 2},
            {**place, "kind": "box", "width_px": 160, "height_px": 70},
            {**place, "kind": "ellipse", "width_px": 160, "height_px": 70},
        ]
        ends = {"from_x_px": x_px, "from_y_px": y_px, "to_x_px": x_px + 150, "to_y_px": y_px + 80}
        kinds.append({"id": f"m{number}", "kind": "arrow", **ends})
        marks.append(kinds[number // 2 % len(kinds)])
    return marks


def _put_on_shelf(visitor: Visitor, home: Path) -> int:
    """A tall picture with a page map of many blocks."""
    rows = np.random.default_rng(1).integers(0, 255, (_HEIGHT_PX // 8, _WIDTH_PX // 8, 3), dtype=np.uint8)
    buffer = io.BytesIO()
    Image.fromarray(rows).resize((_WIDTH_PX, _HEIGHT_PX), Image.Resampling.NEAREST).save(buffer, "PNG")
    capture = visitor.post_picture("tall.png", buffer.getvalue())
    while capture["job"]["state"] in ("queued", "running"):
        time.sleep(0.2)
        capture = visitor.get(f"/captures/{capture['id']}")
    height_px = _HEIGHT_PX // (_BLOCKS // 4)
    blocks = [
        {
            "role": "paragraph",
            "level": None,
            "box": {
                "x_px": 20 + number % 4 * 310,
                "y_px": number // 4 * height_px,
                "width_px": 300,
                "height_px": height_px - 6,
            },
            "text": f"Sailing {number}",
            "link": "",
            "alt": "",
        }
        for number in range(_BLOCKS)
    ]
    (folder,) = (path.parent for path in home.glob("captures/**/manifest.json"))
    (folder / "map.json").write_text(json.dumps({"version": 1, "blocks": blocks}))
    return int(capture["id"])


def times_between_frames(driver: webdriver.Chrome, step: str) -> list[float]:
    found: list[float] = driver.execute_async_script(_TIMES, step, _FRAMES)
    return found


def tell(name: str, times: list[float]) -> None:
    median, p95 = statistics.median(times), statistics.quantiles(times, n=20)[-1]
    print(f"{name}: median {median:.1f} ms, p95 {p95:.1f} ms, most {max(times):.1f} ms", flush=True)


def main() -> None:
    """Print times between frames beside what is wanted."""
    with (
        tempfile.TemporaryDirectory(ignore_cleanup_errors=True) as home,
        running_demo(Path(home)) as (address, _, _),
        open_window() as driver,
    ):
        capture = _put_on_shelf(Visitor(address), Path(home))
        driver.set_script_timeout(60)
        driver.get(f"{address}/captures/{capture}")
        _wait(driver, "[data-pointer-layer]")
        time.sleep(3)  # strips and map are there
        for name, step in (("nothing", NOTHING), ("scrolling", _SCROLL), ("dragging an edge", _DRAG)):
            tell(name, times_between_frames(driver, step))
        if driver.find_element("css selector", "[data-field=height_px]").get_property("value") == str(
            _HEIGHT_PX
        ):
            raise SystemExit("Nothing was dragged.")
        cut = Visitor(address).get(f"/captures/{capture}")["cuts"][0]
        document = {**cut["document"], "marks": some_marks(_MARKS, _HEIGHT_PX)}
        Visitor(address).patch(f"/cuts/{cut['id']}", {"version": cut["version"], "document": document})
        driver.get(f"{address}/captures/{capture}")
        _wait(driver, "[data-mark='m0']")
        time.sleep(3)
        driver.find_element("xpath", "//button[starts-with(., 'Point')]").click()
        _wait(driver, "[role=group][aria-label=Draw]")
        tell(f"dragging one of {_MARKS} marks", times_between_frames(driver, _DRAG_MARK))
        if not driver.find_elements("css selector", "[data-held=m0]"):
            raise SystemExit("No mark was dragged.")
        print(f"wanted of each: median {WANTED_MS['median']:g} ms, p95 {WANTED_MS['p95']:g} ms")


def _wait(driver: webdriver.Chrome, css: str) -> None:
    while not driver.find_elements("css selector", css):
        time.sleep(0.2)


if __name__ == "__main__":
    main()
