"""Two workers, as on two machines, that draw their tickets from a Redis."""

import shutil
import socket
import subprocess
from collections.abc import Iterator
from contextlib import closing
from pathlib import Path

import pytest

from tests.server.processes import environment, make_home, rows, run_django, start_worker, until

PAGES = 10


@pytest.fixture
def redis_address(tmp_path: Path, free_port: int) -> Iterator[str]:
    """A Redis of Debian's, for this test alone."""
    command = shutil.which("redis-server")
    assert command, "redis-server is not installed: apt-get install redis-server"
    options = ["--port", str(free_port), "--bind", "127.0.0.1", "--save", "", "--dir", str(tmp_path)]
    with (tmp_path / "redis.log").open("wb") as log:
        server = subprocess.Popen([command, *options], stdout=log, stderr=log)
    try:
        until(lambda: _answers(free_port))
        yield f"redis://127.0.0.1:{free_port}/0"
    finally:
        server.terminate()
        server.wait(timeout=20)


def _answers(port: int) -> bool:
    with closing(socket.socket()) as probe:
        return probe.connect_ex(("127.0.0.1", port)) == 0


class Machines:
    """Workers over one data folder and one Redis."""

    def __init__(self, home: Path, broker: str) -> None:
        self.home = home
        self._told = environment(
            home, TALLPAGE_BROKER=broker, TALLPAGE_PAGE_WORKERS="1", Q_CLUSTER_NAME="pages"
        )
        self._workers: list[subprocess.Popen[bytes]] = []

    def run(self, code: str) -> None:
        run_django(code, self._told)

    def start(self) -> subprocess.Popen[bytes]:
        self._workers.append(start_worker(self.home, self._told))
        return self._workers[-1]

    def end(self) -> None:
        for worker in self._workers:
            worker.terminate()
        for worker in self._workers:
            worker.wait(timeout=30)

    def asked(self, query: str) -> list[tuple]:
        return rows(self.home, query)


@pytest.fixture
def machines(tmp_path: Path, redis_address: str) -> Iterator[Machines]:
    found = Machines(tmp_path, redis_address)
    make_home(tmp_path)
    yield found
    found.end()


def _order(machines: Machines, site: str, count: int) -> None:
    machines.run(
        "from tallpage.core.capture import PRESETS\n"
        "from tallpage.server.shelf.arriving.taking import order_page\n"
        f"for number in range({count}): order_page(f'{site}/notices/{{number}}', PRESETS['desk'])"
    )


@pytest.mark.long
def test_two_workers_share_what_is_in_a_redis(machines: Machines, site: str) -> None:
    machines.start()
    machines.start()
    _order(machines, site, PAGES)
    owners: set[str] = set()

    def all_done() -> bool:
        owners.update(owner for (owner,) in machines.asked("select owner from jobs_job where owner != ''"))
        return machines.asked("select count(*) from jobs_job where state = 'done'") == [(PAGES,)]

    until(all_done)
    assert len(owners) == 2, "both are at work"
    assert machines.asked("select distinct attempts from jobs_job") == [(1,)]
    assert machines.asked("select count(*) from django_q_ormq") == [(0,)], "no ticket in the database"
    assert machines.asked("select count(*) from shelf_capture where storage_key != ''") == [(PAGES,)]


@pytest.mark.long
def test_what_a_killed_machine_had_drawn_is_taken_by_the_other(machines: Machines, site: str) -> None:
    machines.start()
    killed = machines.start()
    _order(machines, site, PAGES)
    until(lambda: len(machines.asked("select 1 from jobs_job where state = 'running'")) == 2)
    killed.kill()
    until(lambda: machines.asked("select count(*) from jobs_job where state = 'done'") == [(PAGES,)])
    assert machines.asked("select count(*) from shelf_capture where storage_key != ''") == [(PAGES,)]
    assert len(list((machines.home / "captures").iterdir())) == PAGES
