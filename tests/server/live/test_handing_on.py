"""A connection is handed on with all that was sent on it, and the one who handed it on lets go."""

import socket
import threading
from pathlib import Path

import pytest

from tallpage.server.live.handing_on import asks_for_live, hand_on, handed_on, open_listener

ASKED = b"GET /live/socket HTTP/1.1\r\nHost: localhost\r\nUpgrade: websocket\r\nConnection: Upgrade\r\n\r\n"


@pytest.mark.parametrize(
    ("head", "asks"),
    [
        (ASKED, True),
        (ASKED.replace(b"websocket", b"WebSocket").replace(b"Upgrade:", b"upgrade:", 1), True),
        (ASKED.replace(b"/live/socket", b"/live/socket?x=1"), True),
        (ASKED.replace(b"Upgrade: websocket\r\n", b""), False),
        (ASKED.replace(b"/live/socket", b"/live"), False),
        (ASKED.replace(b"/live/socket", b"/live/sockets"), False),
        (ASKED.replace(b"GET", b"POST"), False),
        (b"", False),
    ],
)
def test_only_a_request_for_the_socket_is_handed_on(head: bytes, asks: bool) -> None:
    assert asks_for_live(head) == asks


@pytest.mark.parametrize("deep", [False, True])
def test_the_client_is_answered_by_whom_it_was_handed_on_to(tmp_path: Path, deep: bool) -> None:
    home = tmp_path / ("d" * 120) if deep else tmp_path
    with open_listener(home) as listener:
        ours, client = socket.socketpair()
        with client:
            client.sendall(ASKED)
            with ours:
                handing = threading.Thread(target=lambda: hand_on(ours, home))
                handing.start()
                taken = handed_on(listener)
                handing.join()
            assert taken is not None
            with taken:
                assert taken.recv(1_000) == ASKED
                taken.sendall(b"welcome")
            assert client.recv(1_000) == b"welcome"
        assert (home / "run" / "live.sock").stat().st_mode & 0o777 == 0o600


def test_where_nobody_listens_it_is_kept(tmp_path: Path) -> None:
    ours, client = socket.socketpair()
    with ours, client:
        assert not hand_on(ours, tmp_path)
        open_listener(tmp_path).close()
        assert not hand_on(ours, tmp_path)
        ours.sendall(b"still here")
        assert client.recv(100) == b"still here"
