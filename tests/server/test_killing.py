"""A sweep, while whatever serves it is killed at random and started again."""

import random
import subprocess
import sys
import time
from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager, suppress
from pathlib import Path

import psutil
import pytest

from tests.server.processes import environment, make_home, rows, run_django, start_logged, until

EVERY_KIND = ("browser", "worker", "watcher", "web", "anything", "everything", "anything", "driver")
PATIENCE_S = 150
_PLAN = """
from tallpage.core.capture import PRESETS
from tallpage.core.sweep import Found, Pace
from tallpage.server.shelf.routes.schemas import TakeSettings
from tallpage.server.sweeps.planning import start_sweep
found = [Found(text=f"{site}/notices/{number}", line=1) for number in range(pages)]
start_sweep(name="", found=found, screens=[PRESETS["desk"]], settings=TakeSettings(),
            pattern="{number}", pace=Pace(at_once=4, pause_s=0))
"""
_SERVE = "from tallpage.server.serve import serve_all; serve_all()"


class Served:
    """Web and workers as they run for real, over a data folder of their own."""

    def __init__(self, home: Path, port: int) -> None:
        self._home = home
        self._told = environment(home, TALLPAGE_PORT=str(port))
        self._process: subprocess.Popen[bytes] | None = None

    def run(self, code: str) -> None:
        run_django(code, self._told)

    def keep_up(self) -> None:
        """Start it, when it has never run or was killed."""
        if self._process is None or self._process.poll() is not None:
            self._process = start_logged([sys.executable, "-c", _SERVE], self._told, self._home / "serve.log")

    def family(self) -> list[psutil.Process]:
        """Itself and all below it, parents first."""
        assert self._process is not None
        with suppress(psutil.NoSuchProcess):
            top = psutil.Process(self._process.pid)
            return [top, *top.children(recursive=True)]
        return []

    def end(self) -> None:
        family = self.family() if self._process else []
        for process in family:
            with suppress(psutil.NoSuchProcess):
                process.kill()
        if self._process:
            self._process.wait(timeout=20)
        psutil.wait_procs(family, timeout=20)

    def asked(self, query: str) -> int:
        return int(rows(self._home, query)[0][0])

    def tell(self) -> None:
        """What there is to say when it went wrong; pytest shows it."""
        unfinished = (
            "select id, kind, state, owner, attempts, heartbeat_at, error from jobs_job where state != 'done'"
        )
        for row in rows(self._home, unfinished):
            print(*row)
        print("tickets:", self.asked("select count(*) from django_q_ormq"))
        for process in self.family():
            print(process.pid, process.ppid(), _words(process))
        print((self._home / "serve.log").read_text(encoding="utf-8", errors="replace")[-20_000:])

    def taken(self) -> int:
        return self.asked(
            "select count(*) from sweeps_shot join shelf_capture c on c.id = capture_id "
            "where storage_key != ''"
        )


@contextmanager
def _served(home: Path, port: int) -> Iterator[Served]:
    served = Served(home, port)
    try:
        yield served
    except BaseException:
        served.tell()
        raise
    finally:
        served.end()


def _words(process: psutil.Process) -> str:
    """The command line of a process; nothing once it has ended."""
    with suppress(psutil.NoSuchProcess, psutil.ZombieProcess):
        return " ".join(process.cmdline())
    return ""


def _chosen(what: str, family: list[psutil.Process], chance: random.Random) -> list[psutil.Process]:
    words = {process: _words(process) for process in family}
    if what == "everything":
        return family
    if what == "anything":
        return [chance.choice(family)] if family else []
    if what == "browser":
        return [process for process in family if "/chromium" in words[process]]
    if what == "driver":
        return [process for process in family if "run-driver" in words[process]]
    if what == "web":
        return [process for process in family if "gunicorn" in words[process]]
    workers = [process for process in family if "tallpage.server.workers" in words[process]]
    depth = {process: len(process.parents()) for process in workers if process.is_running()}
    # The one of both queues starts one for each, this one that watches, and this one those that work.
    wanted = min(depth.values(), default=0) + {"queue": 1, "watcher": 2, "worker": 3}[what]
    return [process for process in depth if depth[process] == wanted]


def _wait(served: Served, seen: Callable[[], bool]) -> None:
    until(seen, timeout_s=PATIENCE_S, step=served.keep_up)


@pytest.mark.long
@pytest.mark.parametrize(
    ("page_count", "kills"),
    [
        pytest.param(18, ("browser", "worker", "everything"), id="some"),
        pytest.param(60, EVERY_KIND, id="all", marks=pytest.mark.long),
    ],
)
def test_every_page_of_a_sweep_is_there_once_whatever_is_killed(
    tmp_path: Path, site: str, free_port: int, page_count: int, kills: Sequence[str]
) -> None:
    seed = random.randrange(10_000)
    print(f"seed {seed}")  # pytest shows it when the test fails
    chance = random.Random(seed)
    with _served(tmp_path, free_port) as served:
        make_home(tmp_path)
        served.run(f"site, pages = {site!r}, {page_count}\n{_PLAN}")
        for number, what in enumerate(kills, start=1):
            goal = number * page_count // (len(kills) + 2)
            _wait(served, lambda goal=goal: served.taken() >= goal)  # type: ignore[misc]
            time.sleep(chance.random())
            for process in _chosen(what, served.family(), chance):
                with suppress(psutil.NoSuchProcess):
                    process.kill()
        _wait(served, lambda: served.asked("select count(finished_at) from sweeps_sweep") == 1)
        # Each page is looked at besides.
        done = "select count(*) from jobs_job where state = 'done'"
        _wait(served, lambda: served.asked(done) == 2 * page_count)
        assert served.taken() == page_count
        assert served.asked("select count(distinct address) from shelf_capture") == page_count
        assert served.asked("select count(*) from shelf_capture") == page_count
        assert served.asked("select count(*) from jobs_job") == 2 * page_count
        assert len(list((tmp_path / "captures").iterdir())) == page_count
