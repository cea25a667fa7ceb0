"""Kinds of page that hide how long they are: behind locks, in frames and layers, behind the wheel.

Their sections say something, so that what is missing can be counted by its words.
"""

from __future__ import annotations

import html as escaping

from tests.core.capture.kinds import VIEW_PX, Kind, page, places, section
from tests.core.capture.landmarks import mark_html

_SAYS = (
    "Section {number}: the ferry leaves the north pier at a quarter past the hour, calls at both islands "
    "when the sea allows, and waits for the last bus from the harbour road before it turns for home."
)


def told(count: int, *, first: int = 1, height_px: int = 400, more: str = "") -> str:
    """Sections that say something, each with its landmark."""
    return "".join(
        section(
            number,
            inner=f"{mark_html(number)}<p>{_SAYS.format(number=number)}</p>",
            height_px=height_px,
            more=more,
        )
        for number in range(first, first + count)
    )


def _framed(content: str, *, style: str = "width:100%;height:100vh;border:0;display:block") -> str:
    return f'<iframe style="{style}" srcdoc="{escaping.escape(content, quote=True)}"></iframe>'


_CONSENT = (
    '<div role=dialog style="position:fixed;inset:100px 300px;background:#fff;border:1px solid;z-index:9">'
    "We use cookies to remember which pier you sail from. Accept?</div>"
)
_BAR = "position:fixed;left:0;right:0;top:0;height:18px;z-index:9"
_LAYER = "position:fixed;inset:0;overflow:auto;background:#fffd;z-index:5"
_SHEET = "width:800px;margin:40px auto;background:#fff"
_SLIDE = "position:absolute;inset:0;transition:opacity .4s"
_WHEEL = """
let at = 0, locked = false;
const show = (next) => { at = Math.max(0, Math.min(COUNT - 1, next)); draw(); };
addEventListener("wheel", (event) => {
  event.preventDefault();
  if (locked) return;
  locked = true; setTimeout(() => { locked = false; }, 900);
  show(at + Math.sign(event.deltaY));
}, { passive: false });
"""
_GLIDE = """
let at = 0;
const inner = document.querySelector("#inner"), outer = inner.parentElement;
addEventListener("wheel", (event) => {
  event.preventDefault();
  at = Math.max(0, Math.min(inner.scrollHeight - outer.clientHeight, at + event.deltaY));
  inner.style.transform = `translateY(${-at}px)`;
}, { passive: false });
"""
_FOLLOW = """
let goal = 0, at = 0;
const inner = document.querySelector("#inner");
addEventListener("wheel", (event) => {
  event.preventDefault();
  goal = Math.max(0, Math.min(inner.scrollHeight - innerHeight, goal + event.deltaY));
}, { passive: false });
const step = () => { at += (goal - at) * 0.12; if (Math.abs(goal - at) < 0.5) at = goal;
  inner.style.transform = `translateY(${-at}px)`; requestAnimationFrame(step); };
step();
"""


def hidden() -> dict[str, Kind]:
    """Name -> page; every one came out cut off, without a word, before."""
    app = (
        '<div style="display:flex;flex-direction:column;height:100vh">'
        f'<nav style="flex:none;height:60px;background:#dde">{mark_html(200)}</nav>'
        f'<main style="flex:1;overflow-y:auto">{told(12)}</main></div>'
    )
    wheel = _WHEEL.replace("COUNT", "10")
    full = told(10, height_px=VIEW_PX)
    return {
        "a consent dialog that locks html and body": Kind(
            html=page(told(20) + _CONSENT, style="html,body{overflow:hidden;height:100%}"),
            expected=places(20),
            height_px=8_000,
        ),
        "a lock that is set again": Kind(
            html=page(
                told(20) + _CONSENT,
                script="const lock=()=>{for(const e of [document.documentElement,document.body]){"
                "e.style.overflow='hidden';e.style.height='100%'}};lock();setInterval(lock,100);"
                "addEventListener('scroll',lock)",
            ),
            expected=places(20),
            height_px=8_000,
        ),
        "a body that a dialog fixed": Kind(
            html=page(
                told(20) + _CONSENT, style="body{position:fixed;top:0;left:0;width:100%;overflow:hidden}"
            ),
            expected=places(20),
            height_px=8_000,
        ),
        "an application inside a frame that fills the window": Kind(
            html=page(_framed(page(told(12))), style="body{overflow:hidden}"),
            expected=places(12),
            height_px=4_800,
        ),
        "a frame below a bar, whose inside scrolls": Kind(
            html=page(
                f'<header style="height:50px;background:#dde">{mark_html(201)}</header>'
                + _framed(
                    page(app, style="html,body{height:100%;overflow:hidden}"),
                    style="width:100%;height:calc(100vh - 50px);border:0;display:block",
                )
            ),
            expected={201: 0, 200: 50, **places(12, top_px=110)},
            height_px=50 + 60 + 12 * 400,
        ),
        "a frame in a frame": Kind(
            html=page(
                _framed(page(_framed(page(told(8))), style="body{overflow:hidden}")),
                style="body{overflow:hidden}",
            ),
            expected=places(8),
            height_px=3_200,
        ),
        "an article opened over its list": Kind(
            html=page(
                '<ul style="height:9000px">'
                + "".join(f"<li>Notice {row}</li>" for row in range(40))
                + "</ul>"
                f'<div style="{_LAYER}"><article style="{_SHEET}">{told(12)}</article></div>',
            ),
            expected=dict.fromkeys(range(1, 13)),
            height_px=40 + 12 * 400 + 40,
        ),
        "an article in a dialog": Kind(
            html=page(
                '<ul style="height:9000px">'
                + "".join(f"<li>Notice {row}</li>" for row in range(40))
                + "</ul>"
                f'<dialog style="margin:0 auto;width:800px;padding:0;border:0">{told(12)}</dialog>',
                script="document.querySelector('dialog').showModal()",
            ),
            expected=dict.fromkeys(range(1, 13)),
            height_px=12 * 400,
        ),
        "sections moved up by the wheel": Kind(
            html=page(
                f'<div id=all style="transition:transform .7s">{full}</div>',
                style="html,body{height:100%;overflow:hidden}",
                script=wheel + "const draw=()=>{document.querySelector('#all').style.transform="
                "`translateY(${-100*at}vh)`}",
            ),
            expected=places(10, height_px=VIEW_PX),
            height_px=10 * VIEW_PX,
        ),
        "sections that the wheel puts in one another's place": Kind(
            html=page(
                f'<header style="{_BAR}">{mark_html(200)}</header>'
                + "".join(
                    f'<div class=slide style="{_SLIDE}">{told(1, first=number, height_px=VIEW_PX)}</div>'
                    for number in range(1, 11)
                ),
                style="html,body{height:100%;overflow:hidden}.slide{opacity:0}.slide.on{opacity:1}",
                script=wheel + "const draw=()=>{document.querySelectorAll('.slide').forEach((slide,row)=>"
                "slide.classList.toggle('on',row===at))};draw()",
            ),
            expected={200: 0, **places(10, height_px=VIEW_PX)},
            height_px=10 * VIEW_PX,
        ),
        "a part of the window that glides by the wheel": Kind(
            html=page(
                f'<header style="height:60px">{mark_html(200)}</header>'
                f'<div style="height:640px;overflow:clip"><div id=inner>{told(10)}</div></div>'
                f'<footer style="height:100px">{mark_html(201)}<p>Harbour office</p></footer>',
                style="html,body{height:100%;overflow:hidden}",
                script=_GLIDE,
            ),
            expected={200: 0, **places(10, top_px=60), 201: 60 + 4_000},
            height_px=60 + 4_000 + 100,
        ),
        "a page that follows the wheel by and by": Kind(
            html=page(
                f"<div id=inner>{told(10)}</div>",
                style="html,body{height:100%;overflow:hidden}",
                script=_FOLLOW,
            ),
            expected=places(10),
            height_px=4_000,
        ),
        "a box without the wheel that cuts off what is in it": Kind(
            html=page(f'<div style="height:100vh;overflow:hidden">{told(10)}</div>'),
            expected=places(10),
            height_px=4_000,
        ),
    }


def inventive() -> dict[str, Kind]:
    """Ways to hide a page's length that nobody prepared for: whole, or told with ``warns``."""
    words = "".join(f"<p>{_SAYS.format(number=number)}</p>" for number in range(40))
    closed = "const root=document.querySelector('x-app').attachShadow({mode:'closed'});root.innerHTML="
    return {
        "a closed shadow root": Kind(
            html=page(
                f"<template>{told(12)}</template><x-app></x-app>",
                style="html,body{height:100%;overflow:hidden}x-app{display:block;height:100%}",
                script=closed + "'<div style=\"height:100%;overflow:auto\">'+"
                "document.querySelector('template').innerHTML+'</div>'",
            ),
            expected=places(12),
            height_px=4_800,
        ),
        "a frameset": Kind(
            html="<!doctype html><title>Kind</title><frameset cols='240,*' border=0>"
            "<frame src='/kind/a list of links'><frame src='/kind/plain and told'></frameset>",
            expected=dict.fromkeys(range(1, 13)),
        ),
        "a conversation that begins at its end": Kind(
            html=page(
                '<main style="height:100vh;overflow:auto;display:flex;flex-direction:column-reverse">'
                f"<div>{told(12)}</div></main>",
                style="html,body{height:100%;overflow:hidden}",
            ),
            expected=places(12),
            height_px=4_800,
        ),
        "an article behind a button": Kind(
            html=page(
                f'<div style="max-height:600px;overflow:hidden">{told(10)}</div>'
                "<button>Go on reading</button>"
            ),
            expected=places(10),
        ),
        "words in the colour of the paper": Kind(
            html=page(f'<div style="color:#fff">{words}</div>'), expected={}, warns="Nothing was drawn"
        ),
        "a cover over everything": Kind(
            html=page(words + '<div style="position:absolute;inset:0;height:6000px;background:#fff"></div>'),
            expected={},
            warns="Nothing was drawn",
        ),
        "sections that never appear": Kind(
            html=page(told(2) + f'<div style="opacity:0">{words}</div>'),
            expected=places(2),
            warns="not visible",
        ),
        "a page cut by its own outline": Kind(
            html=page(f'<div style="clip-path:inset(0 0 calc(100% - 700px) 0)">{told(10)}</div>'),
            expected=places(1),
            warns="Nothing was drawn",
        ),
        "two panels side by side": Kind(
            html=page(
                '<div style="display:flex;height:100vh">'
                f'<div style="width:45%;overflow:auto">{words}</div>'
                f'<div style="width:55%;overflow:auto">{told(12)}</div></div>',
                style="html,body{height:100%;overflow:hidden}",
            ),
            expected=dict.fromkeys(range(1, 13)),
            warns="",
        ),
        "a frame in the middle of a page": Kind(
            html=page(told(4) + _framed(page(words), style="width:700px;height:300px;border:0")),
            expected=places(4),
            warns="A frame scrolls by itself",
        ),
        "columns that are paged sideways": Kind(
            html=page(f'<div style="height:100vh;overflow:auto;column-width:600px">{words}{words}</div>'),
            expected={},
            warns="scrolled sideways",
        ),
        "a popover that holds the page": Kind(
            html=page(
                "<div popover=manual style='margin:0;border:0;padding:0;width:100%;height:100%;"
                f"max-width:none;max-height:none'>{told(12)}</div>",
                script="document.querySelector('[popover]').showPopover()",
            ),
            expected=dict.fromkeys(range(1, 13)),
            height_px=4_800,
        ),
    }


def served_beside() -> dict[str, Kind]:
    """What the pages above ask for."""
    links = "".join(f'<p><a href="#{row}">Pier {row}</a></p>' for row in range(60))
    return {
        "a list of links": Kind(html=page(links), expected={}),
        "plain and told": Kind(html=page(told(12)), expected=places(12)),
    }
