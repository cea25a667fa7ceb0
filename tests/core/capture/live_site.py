"""Pages for a live page to be used on: menus, dialogs, windows, files, lists, and a page that hangs."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager

from tests.core.capture.plain_site import plain_site

_STYLE = """<!doctype html><meta charset="utf-8"><style>
body { margin: 0; font: 16px sans-serif }
button, a.use, input, select { position: absolute; left: 20px; width: 200px; height: 30px }
.menu { position: absolute; left: 300px; top: 20px; width: 200px; background: #ccd }
.menu ul { display: none; margin: 0 } .menu:hover ul { display: block }
.tall { position: absolute; top: 400px; left: 300px; width: 600px; height: 3000px;
        background: linear-gradient(#fff, #8bd) } .tall p { margin: 0 0 280px }
.panel { position: absolute; left: 560px; top: 20px; width: 200px; height: 120px; overflow: auto }
</style>"""
PAGES = {
    "/": """<title>Everything</title>
<button style="top:20px" onclick="document.title=prompt('Your island?','Auk')">Ask me</button>
<button style="top:60px" onclick="window.open('/other')">New window</button>
<a class="use" style="top:100px" href="/file.zip">Get the file</a>
<input style="top:140px" name="harbour" aria-label="Harbour">
<input style="top:180px" name="word" type="password" aria-label="Word">
<input style="top:380px" name="shown" autocomplete="current-password" aria-label="Shown word">
<select style="top:220px" name="ship"><option>Auklet</option><option>Little Tern</option></select>
<button style="top:260px" onclick="navigator.geolocation.getCurrentPosition(()=>{})">Where am I</button>
<button style="top:300px" onclick="for(;;);">Hang</button>
<a class="use" style="top:340px" href="http://127.0.0.2:8099/">Elsewhere</a>
<a class="use" style="top:440px" href="/keys">Keys</a>
<div class="menu">Sailings of the day<ul><li>Morning boats<li>Evening boats<li>Night boats</ul></div>
<div class="panel"><p>Row one<p>Row two<p>Row three<p>Row four<p>Row five<p>Row six<p>Last row</div>
<div class="tall">"""
    + "".join(f"<p>Stretch {number}</p>" for number in range(10))
    + "</div>",
    "/other": """<title>The other</title>
<button style="top:20px" onclick="window.close()">Close me</button>
<button style="top:60px" onclick="window.open('/other')">One more</button>""",
    "/keys": """<title>Keys</title><body style="background:#fff"><script>
let n = 0; addEventListener("keydown", () => { n += 1;
  document.body.style.background = n % 2 ? "#000" : "#fff"; });</script>""",
}


@contextmanager
def live_site() -> Iterator[str]:
    """The address of a site of these pages, while it runs."""
    pages = {path: f"{_STYLE}{page}" for path, page in PAGES.items()}
    with plain_site(pages, {"/file.zip": b"PK"}) as address:
        yield address
