"""``python -m tallpage.server.workers``: the workers of both queues and the live pages, from one process.

What is loaded before their processes are forked is in memory once for all of them.
"""

from __future__ import annotations

import gc
import importlib
import os
import signal
import sys
import time
from types import FrameType

from tallpage.core.processes import die_with_parent
from tallpage.server.supervisor import become_supervisor, supervisor_id

QUEUES = ("pages", "files")
_LIVE = "live"
_LOADED_ONCE = ("django.db.models", "ninja", "numpy", "pyvips", "playwright.sync_api", "django_q")
_AGAIN_AFTER_S = 1.0


def main() -> int:
    """Run until told to end; whoever ends is replaced by another."""
    die_with_parent(supervisor_id())
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "tallpage.server.settings")
    for name in _LOADED_ONCE:
        importlib.import_module(name)
    gc.collect()
    gc.freeze()  # nothing of it is looked through for garbage again, or each process would get a copy
    become_supervisor()
    return _Processes().run()


class _Processes:
    """The process of each queue, and the one of live pages."""

    def __init__(self) -> None:
        self._running: dict[int, str] = {}
        self._told_to_end = False
        for number in (signal.SIGTERM, signal.SIGINT):
            signal.signal(number, self._end)

    def run(self) -> int:
        """Start all, and again whichever ends."""
        for name in (*QUEUES, _LIVE):
            self._start(name)
        while self._running:
            process, _ = os.wait()
            name = self._running.pop(process, "")
            if name and not self._told_to_end:
                time.sleep(_AGAIN_AFTER_S)
                self._start(name)
        return 0

    def _start(self, name: str) -> None:
        process = os.fork()
        if process:
            self._running[process] = name
            if self._told_to_end:  # while it was forked
                os.kill(process, signal.SIGTERM)
            return
        for number in (signal.SIGTERM, signal.SIGINT):
            signal.signal(number, signal.SIG_DFL)
        os._exit(_serve(name))

    def _end(self, _number: int, _frame: FrameType | None) -> None:
        self._told_to_end = True
        for process in self._running:
            os.kill(process, signal.SIGTERM)


def _serve(name: str) -> int:
    """Serve one queue, or the live pages, in a process of its own."""
    try:
        if name == _LIVE:
            die_with_parent(supervisor_id())
            from tallpage.server.live.serving import serve_live_pages

            serve_live_pages()
        else:
            os.environ["Q_CLUSTER_NAME"] = name
            import django

            django.setup()
            from django.core.management import call_command

            call_command("worker")
    except SystemExit as error:
        return error.code if isinstance(error.code, int) else 1
    except BaseException:
        sys.excepthook(*sys.exc_info())
        return 1
    return 0


if __name__ == "__main__":
    sys.exit(main())
