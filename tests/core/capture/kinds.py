"""Pages of every kind that must come out whole, each with the landmarks that a person would see.

A page is HTML; ``expected`` maps each landmark's number to the CSS px from the page's top at which
it must stand (None where any place will do).
"""

from __future__ import annotations

from dataclasses import dataclass

from tests.core.capture.landmarks import mark_html

Places = dict[int, int | None]
VIEW_PX = 800
_SECTION_PX = 400


@dataclass(frozen=True, slots=True, kw_only=True)
class Kind:
    """One page and what must be found on its picture."""

    html: str
    expected: Places
    absent: tuple[int, ...] = ()
    """Landmarks that must not be seen."""
    height_px: int | None = None
    """Height of the whole picture in CSS px, where it is known."""
    width_px: int = 1280
    warns: str = ""
    """Words that one of the warnings must hold."""


def page(body: str, *, style: str = "", script: str = "", html: str = "") -> str:
    """A page without any margins of its own."""
    return (
        f"<!doctype html><html {html}><meta charset=utf-8><title>Kind</title>"
        f"<style>*{{margin:0}} body{{background:#fff}} {style}</style>{body}<script>{script}</script>"
    )


def section(number: int, *, height_px: int = _SECTION_PX, more: str = "", inner: str = "") -> str:
    """A stretch of the page with a landmark 20 px below its top."""
    content = inner or mark_html(number)
    box = f"height:{height_px}px;padding:20px;box-sizing:border-box"
    return f'<section style="{box};background:hsl({number * 37 % 360} 30% 90%)" {more}>{content}</section>'


def sections(count: int, *, first: int = 1, more: str = "", height_px: int = _SECTION_PX) -> str:
    """Numbered stretches one below the other."""
    return "".join(section(first + row, more=more, height_px=height_px) for row in range(count))


def places(
    count: int, *, first: int = 1, top_px: int = 0, height_px: int = _SECTION_PX
) -> dict[int, int | None]:
    """Where the landmarks of :func:`sections` stand."""
    return {first + row: top_px + row * height_px + 20 for row in range(count)}


def _image(number: int, attributes: str, *, after_ms: int = 150) -> str:
    return f'<img width=80 height=8 style="display:block" {attributes}"/mark/{number}.png?after={after_ms}">'


def _image_sections(count: int, attributes: str) -> str:
    return "".join(section(row, inner=_image(row, attributes)) for row in range(1, count + 1))


_SWAP = """
const watcher = new IntersectionObserver((entries) => {
  for (const { target, isIntersecting } of entries)
    if (isIntersecting) { target.src = target.dataset.src; watcher.unobserve(target); }
});
for (const image of document.images) watcher.observe(image);
"""
_REVEAL = """
new Set(document.querySelectorAll("section")).forEach((row) => new IntersectionObserver(([entry]) =>
  row.classList.toggle("seen", entry.isIntersecting), { threshold: 0.1 }).observe(row));
"""
_REVEAL_STYLE = (
    "section>div{opacity:0;transform:translateY(60px);transition:opacity .8s,transform .8s}"
    "section.seen>div{opacity:1;transform:none}"
)
_SCROLL_REVEAL = """
const show = () => { for (const row of document.querySelectorAll("section"))
  if (row.getBoundingClientRect().top < innerHeight) row.style.visibility = "visible"; };
addEventListener("scroll", show); show();
"""
_THROTTLED = """
const swap = () => { for (const image of document.images) {
  const box = image.getBoundingClientRect();
  if (box.top < innerHeight && box.bottom > 0 && image.dataset.src) {
    image.src = image.dataset.src; delete image.dataset.src; } } };
let last = 0;
addEventListener("scroll", () => { const now = Date.now(); if (now - last >= 200) { last = now; swap(); } });
swap();
"""
_DEBOUNCED = """
let timer = 0;
addEventListener("scroll", () => { clearTimeout(timer); timer = setTimeout(swap, 150); });
"""
_VIRTUAL = """
const list = document.querySelector("#list");
const draw = () => {
  const top = list.getBoundingClientRect().top;
  for (let row = 0; row < 40; row += 1) {
    const near = Math.abs(top + row * 400 - innerHeight / 2) < 1200;
    const shown = document.getElementById("row" + row);
    if (near && !shown) {
      const box = document.createElement("div");
      box.id = "row" + row;
      box.style = `position:absolute;top:${row * 400}px;left:0;right:0;height:400px`;
      box.innerHTML = ROWS[row];
      list.append(box);
    } else if (!near && shown) shown.remove();
  }
};
addEventListener("scroll", draw); draw();
"""
_FEED = """
let next = 5, busy = false;
const end = document.querySelector("#end");
new IntersectionObserver(async ([entry]) => {
  if (!entry.isIntersecting || busy || next > 200) return;
  busy = true;
  const answer = await fetch("/feed?from=" + next);
  end.insertAdjacentHTML("beforebegin", await answer.text());
  next += 4; busy = false;
}, { rootMargin: "100px" }).observe(end);
"""
_APP = "html,body{height:100%;overflow:hidden} "
_BAR = "position:fixed;left:0;right:0;top:0;height:60px;background:#dde"


def kinds() -> dict[str, Kind]:
    """Name -> page."""
    bar = f'<div style="{_BAR}">{mark_html(200)}</div>'
    cookies = (
        '<div style="position:fixed;left:0;right:0;bottom:0;height:80px;background:#eee;z-index:9">Cookies '
    )
    cookies += f"{mark_html(201)}</div>"
    bubble = '<div style="position:fixed;right:20px;bottom:100px;width:90px;height:60px;background:#eed">'
    bubble += f"{mark_html(202)}</div>"
    frame = f"<div style='padding:20px'>{mark_html(50)}</div>".replace('"', "&quot;")
    canvas = "const pen=document.querySelector('canvas').getContext('2d');"
    canvas += (
        "const image=new Image();image.onload=()=>pen.drawImage(image,20,20);image.src='/mark/60.png?after=0'"
    )
    heading = "position:sticky;top:0;height:50px;background:#dde"
    snap = "html{scroll-behavior:smooth;scroll-snap-type:y mandatory}section{scroll-snap-align:start}"
    return {
        "plain": Kind(html=page(sections(20)), expected=places(20), height_px=8_000),
        "very tall": Kind(html=page(sections(100)), expected=places(100), height_px=40_000),
        "lazy pictures from a slow server": Kind(
            html=page(_image_sections(30, "loading=lazy src=")), expected=places(30), height_px=12_000
        ),
        "pictures swapped in by an observer": Kind(
            html=page(_image_sections(30, "data-src="), script=_SWAP), expected=places(30)
        ),
        "pictures swapped in by a handler that looks seldom": Kind(
            html=page(_image_sections(30, "data-src="), script=_THROTTLED), expected=places(30)
        ),
        "pictures swapped in once scrolling rests": Kind(
            html=page(_image_sections(30, "data-src="), script=_THROTTLED.split("let last")[0] + _DEBOUNCED),
            expected=places(30),
        ),
        "a body that scrolls itself": Kind(
            html=page(
                _image_sections(10, "data-src="),
                style="html{height:100%;overflow:hidden}body{height:100%;overflow-y:auto}",
                script=_SWAP,
            ),
            expected=places(10),
            height_px=4_000,
        ),
        "a list that draws only the rows near the window": Kind(
            html=page(
                f'<header style="{_BAR}">{mark_html(200)}</header>'
                '<div id=list style="position:relative;margin-top:60px;height:16000px"></div>',
                script=f"const ROWS={[section(row) for row in range(1, 41)]!r};{_VIRTUAL}",
            ),
            expected={200: 0, **places(40, top_px=60)},
        ),
        "sections revealed and hidden again by an observer": Kind(
            html=page(sections(15), style=_REVEAL_STYLE, script=_REVEAL), expected=places(15)
        ),
        "sections shown by a scroll handler": Kind(
            html=page(sections(15), style="section{visibility:hidden}", script=_SCROLL_REVEAL),
            expected=places(15),
        ),
        "sections animated by scrolling": Kind(
            html=page(
                sections(12),
                style="@keyframes in{from{opacity:0}to{opacity:1}}"
                "section{animation:in linear;animation-timeline:view();animation-range:entry}",
            ),
            expected=places(12),
        ),
        "a sticky header": Kind(
            html=page(
                f'<header style="position:sticky;top:0;height:60px;background:#dde">{mark_html(200)}</header>'
                + sections(10)
            ),
            expected={200: 0, **places(10, top_px=60)},
        ),
        "sticky section headings": Kind(
            html=page(
                "".join(
                    f'<div><h2 style="{heading}">{mark_html(100 + row)}</h2>'
                    f"{section(row, height_px=950)}</div>"
                    for row in range(1, 7)
                )
            ),
            expected={100 + row: (row - 1) * 1_000 for row in range(1, 7)}
            | {row: (row - 1) * 1_000 + 70 for row in range(1, 7)},
        ),
        "something sticky at the lower edge": Kind(
            html=page(
                sections(6)
                + f'<div style="position:sticky;bottom:0;height:40px;background:#dde">{mark_html(99)}</div>'
                + sections(4, first=7)
            ),
            expected={**places(6), 99: 2_400, **places(4, first=7, top_px=2_440)},
        ),
        "a fixed bar, a notice and a bubble": Kind(
            html=page(f'{bar}<div style="height:60px"></div>{sections(10)}{cookies}{bubble}'),
            expected={200: 0, **places(10, top_px=60)},
            absent=(201, 202),
        ),
        "an application whose inside scrolls": Kind(
            html=page(
                '<div style="display:flex;flex-direction:column;height:100vh">'
                f'<nav style="flex:none;height:60px;background:#dde">{mark_html(200)}</nav>'
                f'<main style="flex:1;overflow-y:auto">{sections(12)}</main></div>',
                style=_APP,
            ),
            expected={200: 0, **places(12, top_px=60)},
            height_px=60 + 12 * 400,
        ),
        "a fixed application with a grid": Kind(
            html=page(
                '<div style="position:fixed;inset:0;display:grid;grid-template:50px 1fr 40px/200px 1fr">'
                f'<nav style="grid-column:1/3;background:#dde">{mark_html(200)}</nav>'
                f"<aside>{mark_html(201)}</aside>"
                f'<main style="overflow:auto;min-height:0">{_image_sections(9, "data-src=")}</main>'
                f'<footer style="grid-column:1/3">{mark_html(203)}</footer></div>',
                script=_SWAP,
            ),
            expected={200: 0, 201: 50, **places(9, top_px=50), 203: 50 + 9 * 400},
        ),
        "a panel that scrolls inside a page": Kind(
            html=page(
                sections(2)
                + f'<div style="height:300px;overflow:auto">{sections(5, first=30, height_px=200)}</div>'
                + sections(2, first=3)
            ),
            expected={**places(2), 30: 820, 31: 1_020, **places(2, first=3, top_px=1_100)},
            absent=(33, 34),
        ),
        "a hero of the window's height": Kind(
            html=page(
                section(1, more="", height_px=0).replace("height:0px", "height:100vh") + sections(8, first=2)
            ),
            expected={1: 20, **places(8, first=2, top_px=VIEW_PX)},
            height_px=VIEW_PX + 8 * 400,
        ),
        "sections skipped while far away": Kind(
            html=page(
                sections(25), style="section{content-visibility:auto;contain-intrinsic-size:auto 400px}"
            ),
            expected=places(25),
        ),
        "a layout that grows after it loaded": Kind(
            html=page(
                "<div id=late></div>" + sections(5, first=2),
                script="setTimeout(()=>{document.querySelector('#late').innerHTML=atob('"
                + _base64(section(1))
                + "')},400)",
            ),
            expected={1: None, **dict.fromkeys(range(2, 7))},
        ),
        "smooth scrolling with snap": Kind(
            html=page(
                _image_sections(12, "data-src="),
                style=snap,
                script=_SWAP,
            ),
            expected=places(12),
        ),
        "dialogs": Kind(
            html=page(sections(3), script="alert('hello');confirm('sure?');onbeforeunload=()=>'stay'"),
            expected=places(3),
        ),
        "content wider than the screen": Kind(
            html=page(f'<div style="width:3000px;height:50px"></div>{sections(4)}'),
            expected=places(4, top_px=50),
            warns="beyond 1,280 px is not in the picture",
        ),
        "a right-to-left page that overflows": Kind(
            html=page(f'<div style="width:2000px;height:50px"></div>{sections(4)}', html="dir=rtl"),
            expected=places(4, top_px=50),
            warns="beyond 1,280 px is not in the picture",
        ),
        "frames, a canvas and a poster": Kind(
            html=page(
                sections(4)
                + f'<iframe loading=lazy style="border:0;height:200px" srcdoc="{frame}"></iframe>'
                + '<canvas width=300 height=200 style="display:block"></canvas>'
                + '<video poster="/mark/61.png?after=0" width=80 height=8 style="display:block"></video>',
                script=canvas,
            ),
            expected={**places(4), 50: None, 60: None, 61: None},
        ),
        "movement without end": Kind(
            html=page(
                sections(4)
                + f'<div id=m style="width:80px">{mark_html(70)}</div><textarea autofocus></textarea>',
                style="@keyframes go{to{transform:translateX(200px)}}#m{animation:go 1s infinite alternate}",
            ),
            expected={**places(4), 70: 1_600},
        ),
        "a page behind a lock": Kind(
            html=page(
                sections(8)
                + '<div role=dialog style="position:fixed;inset:0;background:#0008;z-index:9">Cookies?</div>',
                style="body{overflow:hidden}",
            ),
            expected=places(8),
        ),
        "shadow trees": Kind(
            html=page(
                "<x-page></x-page>",
                script="const root=document.querySelector('x-page').attachShadow({mode:'open'});"
                f"root.innerHTML=atob('{_base64(_image_sections(12, 'loading=lazy src='))}')",
            ),
            expected=places(12),
        ),
        "an endless feed": Kind(
            html=page(f"{sections(4)}<p id=end style='height:40px'>More…</p>", script=_FEED),
            expected=places(12),
            warns="kept growing",
        ),
        "a slow endless feed on a page that is never quiet": Kind(
            html=page(
                f"{sections(4)}<p id=end style='height:40px'>More…</p>"
                '<img width=10 height=10 src="/never.png">',
                script=_FEED.replace("?from", "?after=900&from"),
            ),
            expected=places(12),
            warns="kept growing",
        ),
        "a picture that never comes": Kind(
            html=page(sections(4) + '<img width=10 height=10 src="/never.png">'),
            expected=places(4),
            warns="/never.png",
        ),
        "a picture that is missing": Kind(
            html=page(sections(4) + '<img width=10 height=10 src="/missing.png">'),
            expected=places(4),
            warns="/missing.png",
        ),
    }


def _base64(text: str) -> str:
    import base64

    return base64.b64encode(text.encode("latin-1")).decode()
