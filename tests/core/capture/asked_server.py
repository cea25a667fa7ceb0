"""A site that looks different to different visitors: signed in, on a phone, in another language, later."""

from __future__ import annotations

import base64
import threading
from collections import Counter
from collections.abc import Iterator
from contextlib import contextmanager
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from urllib.parse import parse_qs

from tests.core.capture.kinds import page, section, sections
from tests.core.capture.landmarks import mark_html

NAME, PASSWORD = "purser", "tide-table-7"
_SESSION = "session=aboard"

SIGN_IN_FORM = (
    "<form method=post action=/sign-in><label>Name <input name=user></label>"
    "<label>Word <input name=word type=password></label><button>Go aboard</button></form>"
)
_TWO_PAGES = """
const form = document.querySelector("form"), word = form.querySelector("[type=password]");
word.hidden = true;
form.onsubmit = (event) => {
  if (!word.hidden) return;
  event.preventDefault();
  setTimeout(() => { word.hidden = false; }, 100);
};
"""
_MENU = (
    f'<nav style="height:40px"><ul style="list-style:none"><li id=menu style="width:90px">Routes'
    f'<ul style="display:none;position:absolute;background:#fff">{mark_html(90)}</ul></li></ul></nav>'
)
_SCRIPTED_MENU = (
    '<nav style="height:40px"><b id=menu style="display:block;width:90px">Boats</b>'
    f'<div id=panel hidden style="position:absolute;background:#fff">{mark_html(91)}</div></nav>'
)
_OPENS = """
const menu = document.querySelector("#menu"), panel = document.querySelector("#panel");
menu.onmouseenter = () => { panel.hidden = false; };
menu.onmouseleave = () => { panel.hidden = true; };
"""
_FORM = (
    '<button id=more style="height:40px">Show the prices</button><input id=port style="display:block">'
    f"<div id=prices hidden style=margin-top:9px>{mark_html(92)}</div>"
    f"<div id=found hidden style=margin-top:9px>{mark_html(93)}</div>"
    f'<div role=dialog id=dialog hidden style="position:fixed;left:400px;top:300px">{mark_html(94)}</div>'
    '<div style="position:fixed;left:0;right:0;bottom:0;height:60px">We use cookies</div>'
)
_REACTS = """
const by = (id) => document.getElementById(id);
by("more").onclick = () => setTimeout(() => { by("prices").hidden = by("dialog").hidden = false; }, 150);
by("port").onkeydown = (event) => {
  if (event.key === "Enter" && by("port").value === "Eldhaven") by("found").hidden = false;
};
"""
_PHONE = f"""
const touch = matchMedia("(pointer: coarse)").matches && "ontouchstart" in window
  && / Mobile /.test(navigator.userAgent);
document.querySelector("main").innerHTML = touch ? `{mark_html(95)}` : `{mark_html(96)}`;
"""

PAGES = {
    "/menu": page(_MENU + sections(8), style="#menu:hover>ul{display:block!important}"),
    "/scripted-menu": page(_SCRIPTED_MENU + sections(8), script=_OPENS),
    "/form": page(_FORM + sections(4), script=_REACTS),
    "/phone": page("<main></main>", script=_PHONE).replace(
        "<meta ", "<meta name=viewport content='width=device-width'><meta "
    ),
    "/two-steps": page(SIGN_IN_FORM, script=_TWO_PAGES),
    "/sign-in": page(SIGN_IN_FORM),
    "/panel": page(
        section(1)
        + '<div id=panel style="height:300px;width:600px;overflow:auto">'
        + sections(12, first=30, height_px=200)
        + "</div>"
        + sections(2, first=2)
    ),
    "/wide": page(
        f'<div style="width:3000px;height:50px"><div style="margin-left:2900px">{mark_html(97)}</div></div>'
    ),
    "/wide-from-right": page(
        f'<div style="width:3000px;height:50px"><div style="margin-right:2900px">{mark_html(97)}</div></div>',
        html="dir=rtl",
    ),
    "/parts-missing": page(
        "<link rel=stylesheet href=/gone.css><script src=/gone.js></script>" + sections(2),
        style="@font-face{font-family:gone;src:url(/gone.woff2)}section{font-family:gone}section::after{content:'text'}",
    ),
}


class AskedServer(ThreadingHTTPServer):
    """Counts what it is asked for, by path."""

    daemon_threads = True

    def __init__(self) -> None:
        super().__init__(("127.0.0.1", 0), _Handler)
        self.asked: Counter[str] = Counter()

    @property
    def address(self) -> str:
        return f"http://127.0.0.1:{self.server_port}"


@contextmanager
def asked_server() -> Iterator[AskedServer]:
    """The site while it runs."""
    with AskedServer() as server:
        threading.Thread(target=server.serve_forever, daemon=True).start()
        yield server
        server.shutdown()


class _Handler(BaseHTTPRequestHandler):
    server: AskedServer

    def do_GET(self) -> None:
        path = self.path.partition("?")[0]
        self.server.asked[path] += 1
        if path in PAGES:
            self._send(PAGES[path])
        elif path == "/members":
            if _SESSION in self.headers.get("Cookie", ""):
                self._send(page(sections(3)))
            else:
                self._send("", status=302, headers={"Location": "/sign-in?next=/members"})
        elif path == "/basic":
            wanted = "Basic " + base64.b64encode(f"{NAME}:{PASSWORD}".encode()).decode()
            if self.headers.get("Authorization") == wanted:
                self._send(page(sections(3)))
            else:
                self._send("who?", status=401, headers={"WWW-Authenticate": 'Basic realm="Skerrin"'})
        elif path == "/language":
            number = 98 if self.headers.get("Accept-Language", "").startswith("de") else 99
            self._send(page(mark_html(number)))
        elif path == "/busy":
            busy = self.server.asked[path] < 3
            self._send(page(sections(2)), status=503 if busy else 200)
        elif path == "/hiccup" and self.server.asked[path] < 2:
            self.close_connection = True
        elif path == "/hiccup":
            self._send(page(sections(2)))
        else:
            self._send("nothing here", status=404)

    def do_POST(self) -> None:
        self.server.asked[f"POST {self.path}"] += 1
        fields = parse_qs(self.rfile.read(int(self.headers["Content-Length"])).decode())
        if fields == {"user": [NAME], "word": [PASSWORD]}:
            self._send("", status=303, headers={"Location": "/members", "Set-Cookie": f"{_SESSION}; Path=/"})
        else:
            self._send(page("Not known." + SIGN_IN_FORM))

    def _send(self, body: str, *, status: int = 200, headers: dict[str, str] | None = None) -> None:
        data = body.encode()
        self.send_response(status)
        for name, value in {"Content-Type": "text/html", **(headers or {})}.items():
            self.send_header(name, value)
        self.send_header("Content-Length", str(len(data)))
        self.end_headers()
        self.wfile.write(data)

    def log_message(self, format: str, *args: object) -> None:  # noqa: A002  (the base class names it so)
        """Stay quiet."""
