"""How the web server runs: gunicorn's settings, and how it meets clients that are slow."""

from __future__ import annotations

import socket
import struct
import time
from contextlib import suppress
from typing import Any

from gunicorn.workers.gthread import _DEFER, TConn, ThreadWorker

from tallpage.core.processes import die_with_parent
from tallpage.server.home import home_folder
from tallpage.server.live.handing_on import asks_for_live, hand_on
from tallpage.server.supervisor import supervisor_id

worker_class = "tallpage.server.web.Worker"
threads = 40
"""Most wait for the disk. What takes long is made by few at once; see ``shelf.views``."""
keepalive = 10
loglevel = "warning"
limit_request_line = 8_190
"""The longest address that is taken: how a page is turned and cleared is in those of its squares."""
control_socket_disable = True

_SILENT_S = 10
"""For how long a client may be silent in the middle of what it sends."""
_CLOSING_S = 2.0
_HEAD_END = b"\r\n\r\n"
_MOST_HEAD_BYTES = 65_536


class Worker(ThreadWorker):  # type: ignore[misc]
    """A request gets a thread once its head is there: one that comes by and by keeps nobody waiting."""

    def handle(self, conn: TConn) -> Any:
        """As before, or put off until more has come; gunicorn lets go of who stays silent."""
        conn.sock.setsockopt(socket.SOL_SOCKET, socket.SO_RCVTIMEO, struct.pack("ll", _SILENT_S, 0))
        if not _buffered(conn):
            if not self._head_is_there(conn.sock):
                return _DEFER
            if _is_handed_on(conn):
                return False
        answered = super().handle(conn)
        if answered is False:
            _let_read_to_the_end(conn.sock)
        return answered

    def _head_is_there(self, client: socket.socket) -> bool:
        """Whether a head has come whole, or there is nothing to wait for."""
        try:
            head = client.recv(_MOST_HEAD_BYTES, socket.MSG_PEEK | socket.MSG_DONTWAIT)
        except BlockingIOError:
            head = b" "
        except OSError:
            return True  # gone: found out by whoever reads
        there = not head or _HEAD_END in head or len(head) >= _MOST_HEAD_BYTES
        # The poller is to wake for more than what has come already.
        client.setsockopt(socket.SOL_SOCKET, socket.SO_RCVLOWAT, 1 if there else len(head) + 1)
        return there


def _is_handed_on(conn: TConn) -> bool:
    """Whether a connection went to the live pages, which this process then has no part in any more."""
    with suppress(OSError):
        head = conn.sock.recv(_MOST_HEAD_BYTES, socket.MSG_PEEK | socket.MSG_DONTWAIT)
        if asks_for_live(head) and hand_on(conn.sock, home_folder()):
            conn.sock.close()
            conn.sock = socket.socket()  # what gunicorn closes
            return True
    return False


def _let_read_to_the_end(client: socket.socket) -> None:
    """Wait a moment for the client to close a connection that ends: here, for one thread alone.

    Gunicorn would wait where all connections are watched. Source: RFC 9112, 9.6.
    """
    last_s = time.monotonic() + _CLOSING_S
    with suppress(OSError):
        client.shutdown(socket.SHUT_WR)
        while (left_s := last_s - time.monotonic()) > 0:
            client.settimeout(left_s)
            if not client.recv(_MOST_HEAD_BYTES):
                return
    with suppress(OSError):
        client.shutdown(socket.SHUT_RDWR)


def _buffered(conn: TConn) -> bool:
    """Whether the next request was read together with the one before."""
    return conn.parser is not None and bool(conn.parser.unreader.buf.getvalue())


def on_starting(_server: object) -> None:
    """A supervisor that is killed takes the web server with it, and the port is free again."""
    die_with_parent(supervisor_id())


def post_fork(_server: object, worker: ThreadWorker) -> None:
    """A web server that is killed takes those with it that answer."""
    die_with_parent(worker.ppid)
