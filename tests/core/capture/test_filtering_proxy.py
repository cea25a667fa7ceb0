import socket
import threading
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tallpage.core.capture import (
    PRESETS,
    Browser,
    FilteringProxy,
    PageReport,
    PageRequest,
    PrivateHosts,
    Timeouts,
    require_public,
    take_page,
)
from tallpage.core.capture.browser._filtering_proxy import is_public
from tallpage.core.errors import AddressError, PageUnreachable
from tests.core.capture.kinds import Kind, page, places, sections
from tests.core.capture.kinds_server import KindsServer

HASTY = Timeouts(load_ms=2_000, quiet_ms=1_000)
ELSEWHERE = "127.0.0.2"
"""Plays the private network; 127.0.0.1 plays the public one."""


@pytest.fixture
def server() -> Iterator[KindsServer]:
    with KindsServer({}) as running:
        threading.Thread(target=running.serve_forever, daemon=True).start()
        yield running
        running.closing.set()
        running.shutdown()


@pytest.fixture
def filtering_proxy() -> Iterator[FilteringProxy]:
    with FilteringProxy(allows=lambda _, address: address == "127.0.0.1") as running:
        yield running


def _take(filtering_proxy: FilteringProxy, address: str, folder: Path) -> PageReport:
    def run() -> PageReport:
        with Browser(filtering_proxy=filtering_proxy) as browser:
            request = PageRequest(address=address, screen=PRESETS["desk"], timeouts=HASTY)
            return take_page(browser, request, folder)[1]

    with ThreadPoolExecutor(max_workers=1) as thread:
        return thread.submit(run).result()


def test_an_allowed_page_comes_through_and_what_it_wants_from_elsewhere_does_not(
    server: KindsServer, filtering_proxy: FilteringProxy, tmp_path: Path
) -> None:
    elsewhere = f"http://{ELSEWHERE}:{server.server_port}/mark/9.png?after=0"
    html = page(sections(3) + f'<img width=80 height=8 src="{elsewhere}">')
    server.pages["mixed"] = Kind(html=html, expected=places(3))
    report = _take(filtering_proxy, f"{server.address}/kind/mixed", tmp_path)
    assert report.status == 200
    assert filtering_proxy.refused == {ELSEWHERE}
    assert any(ELSEWHERE in warning for warning in report.warnings)


def test_a_redirect_to_a_private_address_is_refused(
    server: KindsServer, filtering_proxy: FilteringProxy, tmp_path: Path
) -> None:
    with pytest.raises(AddressError) as refused:
        _take(filtering_proxy, f"{server.address}/to/http://{ELSEWHERE}:{server.server_port}/error", tmp_path)
    assert refused.value.code == "address_private"


@pytest.mark.long
def test_a_page_that_cannot_be_reached_through_the_guard_is_said_so(
    filtering_proxy: FilteringProxy, closed_port: int, tmp_path: Path
) -> None:
    with pytest.raises(PageUnreachable) as refused:
        _take(filtering_proxy, f"http://127.0.0.1:{closed_port}/", tmp_path)
    assert refused.value.code == "page_refused"


def test_a_name_is_judged_by_every_address_it_stands_for(
    filtering_proxy: FilteringProxy, closed_port: int
) -> None:
    assert filtering_proxy.connect(ELSEWHERE, closed_port) is None
    with pytest.raises(OSError, match="refused"):
        filtering_proxy.connect("127.0.0.1", closed_port)
    with pytest.raises(OSError, match="known"):
        filtering_proxy.connect("no-such-host.invalid", 80)


def test_a_name_that_changes_its_answer_between_look_up_and_use_does_not_get_through(
    server: KindsServer, monkeypatch: pytest.MonkeyPatch, tmp_path: Path
) -> None:
    look_up, asked = socket.getaddrinfo, []

    def changing(host: str, *rest: Any, **more: Any) -> Any:
        if host != "changing.example":
            return look_up(host, *rest, **more)
        asked.append(host)
        return look_up("93.184.216.34" if len(asked) == 1 else "127.0.0.1", *rest, **more)

    monkeypatch.setattr(socket, "getaddrinfo", changing)
    address = f"http://changing.example:{server.server_port}/error"
    require_public(address, PrivateHosts())
    with FilteringProxy() as running, pytest.raises(AddressError) as refused:
        _take(running, address, tmp_path)
    assert refused.value.code == "address_private"
    assert len(asked) > 1


@pytest.mark.parametrize(
    ("address", "public"),
    [
        ("93.184.216.34", True),
        ("2606:2800:220:1:248:1893:25c8:1946", True),
        ("127.0.0.1", False),
        ("10.0.0.7", False),
        ("169.254.169.254", False),
        ("::1", False),
        ("::ffff:10.0.0.7", False),
        ("64:ff9b::10.0.0.7", False),
        ("64:ff9b::93.184.216.34", True),
        ("64:ff9b:1::10.0.0.7", False),
        ("2002:0a00:0007::1", False),
        ("2002:5db8:d822::1", True),
        ("::10.0.0.7", False),
        ("::ffff:0:10.0.0.7", False),
        ("fec0::1", False),
        ("fd00::1", False),
        ("224.0.0.1", False),
        ("0.0.0.0", False),  # noqa: S104  (judged, not bound)
    ],
)
def test_public_addresses_are_told_from_all_others(address: str, public: bool) -> None:
    assert is_public(address) == public


@given(st.binary(max_size=200))
def test_whatever_is_said_to_the_guard_it_answers_and_goes_on(said: bytes) -> None:
    with FilteringProxy(allows=lambda *_: False) as running:
        host, port = "127.0.0.1", int(running.address.rpartition(":")[2])
        with socket.create_connection((host, port), timeout=5) as client:
            client.sendall(said + b"\r\n\r\n")
            client.shutdown(socket.SHUT_WR)
            answer = client.recv(100)
        assert not answer or answer.startswith((b"HTTP/1.1 400", b"HTTP/1.1 403", b"HTTP/1.1 502"))
