"""Kinds of page that redraw themselves: loops of frames, ticking timers, lists inside a scroller."""

from __future__ import annotations

from tests.core.capture.kinds import Kind, Places, page, places, section, sections
from tests.core.capture.landmarks import mark_html

_COUNTING = """
const pen = document.querySelector("canvas").getContext("2d");
let count = 0;
const draw = () => { count += 1; pen.fillStyle = `hsl(${count * 7 % 360} 80% 50%)`;
  pen.fillRect(0, 0, 300, 100); requestAnimationFrame(draw); };
draw();
"""
_TURNING = """
const pen = document.querySelector("canvas").getContext("2d");
const draw = (time) => { pen.clearRect(0, 0, 300, 100);
  pen.fillRect(150 + 100 * Math.sin(time / 300), 40, 20, 20);
  requestAnimationFrame(draw); };
requestAnimationFrame(draw);
"""
_TICKING = """
let shown = 0; const box = document.querySelector("#ticks");
setInterval(() => { shown += 1; box.textContent = "tick ".repeat(shown % 40); }, 90);
"""
_LOOKING = """
const look = () => { for (const image of document.querySelectorAll("[data-src]"))
  if (image.getBoundingClientRect().top < innerHeight) {
    image.src = image.dataset.src; delete image.dataset.src; } };
"""
_ROWS = """
const scroller = document.querySelector("main"), list = document.querySelector("#list");
const draw = () => {
  const first = Math.floor(scroller.scrollTop / 200) - 2;
  for (const row of [...list.children]) if (Math.abs(row.dataset.row - first - 4) > 8) row.remove();
  for (let row = Math.max(0, first); row < Math.min(60, first + 10); row += 1)
    if (!list.querySelector(`[data-row="${row}"]`)) {
      const box = document.createElement("div");
      box.dataset.row = row;
      box.style = `position:absolute;left:0;right:0;top:${row * 200}px`;
      box.innerHTML = ROWS[row];
      list.append(box);
    }
};
scroller.addEventListener("scroll", () => requestAnimationFrame(draw)); draw();
"""
CANVAS = "<canvas width=300 height=100 style='display:block'></canvas>"


def moving() -> dict[str, Kind]:
    """Pages whose movement has no end: two takes must be the same to the pixel."""
    return {
        "a canvas that counts frames": Kind(html=page(CANVAS + sections(4), script=_COUNTING), expected={}),
        "a canvas that follows the clock": Kind(
            html=page(CANVAS + sections(4), script=_TURNING), expected={}
        ),
        "a timer that ticks": Kind(
            html=page("<p id=ticks style='height:40px'></p>" + sections(4), script=_TICKING), expected={}
        ),
        "a timer that ticks on a page that watches its scrolling": Kind(
            html=page(
                "<p id=ticks style='height:40px'></p>" + CANVAS + sections(9),
                script=_TICKING + _COUNTING + "addEventListener('scroll', () => {});",
            ),
            expected={},
        ),
    }


def redrawn() -> dict[str, Kind]:
    """Pages that come out whole only if their own loops are kept going while they are scrolled."""
    images = "".join(
        section(
            row, inner=f'<img width=80 height=8 style="display:block" data-src="/mark/{row}.png?after=0">'
        )
        for row in range(1, 16)
    )
    rows = [section(row, height_px=200) for row in range(1, 61)]
    frame = (
        '<div style="display:grid;grid-template:60px 1fr 40px/200px 1fr;height:100vh">'
        f'<header style="grid-column:1/3">{mark_html(200)}</header><aside>{mark_html(201)}</aside>'
        '<main style="overflow-y:auto;position:relative;min-height:0">'
        '<div id=list style="position:relative;height:12000px"></div></main>'
        f'<footer style="grid-column:1/3">{mark_html(203)}</footer></div>'
    )
    around: Places = {200: 0, 201: 60, 203: 60 + 60 * 200}
    return {
        "pictures swapped in by a loop of frames": Kind(
            html=page(
                images, script=f"{_LOOKING} const go = () => {{ look(); requestAnimationFrame(go); }}; go();"
            ),
            expected=places(15),
        ),
        "pictures swapped in by a timer": Kind(
            html=page(images, script=f"{_LOOKING} setInterval(look, 100);"), expected=places(15)
        ),
        "a list inside a scroller that draws only the rows near": Kind(
            html=page(
                frame, style="html,body{height:100%;overflow:hidden}", script=f"const ROWS={rows!r};{_ROWS}"
            ),
            expected={**around, **places(60, top_px=60, height_px=200)},
            height_px=60 + 60 * 200 + 40,
        ),
    }
