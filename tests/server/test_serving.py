"""The server as it runs for real: what keeps it from starting, slow clients, and how it ends."""

import gzip
import json
import re
import signal
import socket
import sqlite3
import subprocess
import sys
import urllib.request
from collections import Counter
from collections.abc import Iterator
from contextlib import ExitStack, suppress
from dataclasses import dataclass
from pathlib import Path

import psutil
import pytest
from ninja import Schema

from tallpage.server.api import api
from tests.server.processes import environment, start_logged, until

# One worker of the test run serves them all, the one that kills last.
_SERVE = [sys.executable, "-m", "tallpage", "serve"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Served:
    """A server that runs, and where."""

    process: psutil.Process
    home: Path
    port: int


@pytest.fixture(scope="module")
def served(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Served]:
    """A server for all tests of this module; the last one kills it."""
    folder = tmp_path_factory.mktemp("served")
    with socket.socket() as listener:
        listener.bind(("127.0.0.1", 0))
        port = int(listener.getsockname()[1])
    told = environment(folder / "home", TALLPAGE_PORT=str(port))
    process = start_logged(_SERVE, told, folder / "serve.log")
    try:
        until(lambda: _answers(port))
        yield Served(process=psutil.Process(process.pid), home=folder / "home", port=port)
    finally:
        if process.poll() is None:
            process.send_signal(signal.SIGTERM)
        process.wait(timeout=30)


def _answers(port: int) -> bool:
    with (
        suppress(OSError),
        urllib.request.urlopen(f"http://127.0.0.1:{port}/api/outlets", timeout=5) as answer,
    ):
        return bool(answer.status == 200)
    return False


def _refused(**told: str) -> str:
    """What a server that does not start says."""
    result = subprocess.run(
        _SERVE, env={**environment(Path()), **told}, capture_output=True, text=True, timeout=60, check=False
    )
    assert result.returncode == 1
    assert "Traceback" not in result.stderr
    return result.stderr


def test_what_keeps_it_from_starting_is_said_in_a_line(tmp_path: Path) -> None:
    home = str(tmp_path / "home")
    (tmp_path / "file").touch()
    assert "TALLPAGE_PORT is 'abc'" in _refused(TALLPAGE_HOME=home, TALLPAGE_PORT="abc")
    assert "TALLPAGE_PORT is '99999'" in _refused(TALLPAGE_HOME=home, TALLPAGE_PORT="99999")
    assert "is a file" in _refused(TALLPAGE_HOME=str(tmp_path / "file"))
    assert "cannot be written" in _refused(TALLPAGE_HOME=str(tmp_path / "file" / "below"))


def test_unless_told_otherwise_it_listens_to_this_machine_alone(served: Served) -> None:
    family = [served.process, *served.process.children(recursive=True)]
    open_ports = {
        (row.laddr.ip, row.laddr.port)
        for process in family
        for row in process.net_connections(kind="inet")
        if row.status == psutil.CONN_LISTEN
    }
    assert ("127.0.0.1", served.port) in open_ports
    assert {ip for ip, _ in open_ports} == {"127.0.0.1"}


def test_readers_of_the_database_are_not_kept_waiting_by_a_writer(served: Served) -> None:
    writer = sqlite3.connect(served.home / "tallpage.sqlite3", isolation_level=None)
    try:
        writer.execute("begin immediate")
        assert _answers(served.port)
    finally:
        writer.close()


SMALL_BYTES = 10_000


def test_scripts_and_styles_are_sent_compressed_and_kept(served: Served) -> None:
    root = f"http://127.0.0.1:{served.port}"
    with urllib.request.urlopen(f"{root}/shelf") as page:
        names = re.findall(r"/static/assets/[^\"]+\.(?:js|css)", page.read().decode())
    assert len(names) >= 2
    for name in names:
        request = urllib.request.Request(root + name, headers={"Accept-Encoding": "gzip"})
        with urllib.request.urlopen(request) as sent, urllib.request.urlopen(root + name) as plain:
            assert "immutable" in sent.headers["Cache-Control"]
            data, whole = sent.read(), plain.read()
        if len(whole) < SMALL_BYTES:
            continue  # not worth it
        assert sent.headers["Content-Encoding"] == "gzip"
        assert gzip.decompress(data) == whole
        assert len(data) < 0.4 * len(whole)


@pytest.mark.long
def test_a_second_server_on_the_same_data_folder_does_not_start(served: Served, free_port: int) -> None:
    said = _refused(TALLPAGE_HOME=str(served.home), TALLPAGE_PORT=str(free_port))
    assert "runs already with this data folder" in said
    assert served.process.is_running()


@pytest.mark.parametrize("body", [False, True], ids=["heads", "bodies"])
def test_requests_that_are_half_sent_keep_nobody_waiting(served: Served, body: bool) -> None:
    half = b"POST /api/captures HTTP/1.1\r\nHost: 127.0.0.1\r\n"
    half += b'Content-Type: application/json\r\nContent-Length: 1000\r\n\r\n{"a' if body else b"X-Slow: "
    with ExitStack() as clients:
        for _ in range(30 if body else 200):
            client = clients.enter_context(socket.create_connection(("127.0.0.1", served.port)))
            client.sendall(half)
        assert all(_answers(served.port) for _ in range(3))


def test_a_request_that_comes_by_and_by_is_answered(served: Served) -> None:
    request = b"GET /api/outlets HTTP/1.1\r\nHost: 127.0.0.1\r\nConnection: close\r\n\r\n"
    with socket.create_connection(("127.0.0.1", served.port), timeout=20) as client:
        client.setsockopt(socket.IPPROTO_TCP, socket.TCP_NODELAY, 1)
        for start in range(0, len(request), 7):
            client.sendall(request[start : start + 7])
        answer = b"".join(iter(lambda: client.recv(4_096), b""))
    assert answer.startswith(b"HTTP/1.1 200")
    assert json.loads(answer.rpartition(b"\r\n\r\n")[2]) == []


def test_when_it_is_killed_nothing_stays_on_its_port(served: Served) -> None:
    with socket.create_connection(("127.0.0.1", served.port)) as client:
        client.sendall(b"POST /api/captures HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 9\r\n\r\n{")
        family = served.process.children(recursive=True)
        assert len(family) >= 4
        served.process.kill()
        _, alive = psutil.wait_procs(family, timeout=20)
    assert alive == []
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        probe.bind(("127.0.0.1", served.port))


def test_no_two_things_on_the_wire_have_one_name() -> None:
    """The description of the API knows a schema by its name alone: of two, one would be lost."""

    def below(kind: type) -> set[type]:
        return {kind} | {row for child in kind.__subclasses__() for row in below(child)}

    assert api.urls, "all schemas are known once the API is loaded"
    ours = [row for row in below(Schema) if row.__module__.startswith("tallpage.server")]
    names = Counter(row.__name__ for row in ours if not row.__name__.startswith("_"))
    assert [name for name, count in names.items() if count > 1] == []
