"""Running everything on one machine: migrations first, then web and workers side by side."""

from __future__ import annotations

import os
import shlex
import socket
import sys

from honcho.manager import Manager

_PYTHON = [sys.executable]
_WORKERS = ("pages", "files")
WORKER_MEMORY = {"MALLOC_ARENA_MAX": "2", "MALLOC_MMAP_THRESHOLD_": "4000000"}
"""For glibc's allocator: what an encoder held of a tall page goes back to the system at once, instead
of lying in pieces between what is still needed. Halves the peak; see ``bench/memory``."""


def serve_all(*, more: dict[str, list[str]] | None = None) -> int:
    """Start web and workers, and the processes of ``more`` (name -> command and arguments).

    Returns an exit code. One that ends brings down the others: nothing is left half running.
    """
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "tallpage.server.settings")
    import django
    from django.conf import settings
    from django.core.management import call_command

    django.setup()
    if not _port_is_free(settings.HOST, settings.PORT):
        print(
            f"Port {settings.PORT} of {settings.HOST} is taken: is Tall Page running already? "
            "Stop it, or choose another port with TALLPAGE_PORT.",
            file=sys.stderr,
        )
        return 1
    call_command("migrate", verbosity=0)
    manager = Manager()
    environment = {**os.environ, "PYTHONUNBUFFERED": "1"}
    web = [*_PYTHON, "-m", "gunicorn", "--worker-class", "gthread", "--threads", "8"]
    web += ["--log-level", "warning", "--no-control-socket", "--bind", f"{settings.HOST}:{settings.PORT}"]
    manager.add_process("web", shlex.join([*web, "tallpage.server.wsgi:application"]), env=environment)
    for cluster in _WORKERS:
        manager.add_process(
            cluster,
            shlex.join([*_PYTHON, "-m", "django", "worker"]),
            env={**environment, **WORKER_MEMORY, "Q_CLUSTER_NAME": cluster},
        )
    for name, command in (more or {}).items():
        manager.add_process(name, shlex.join(command), env=environment)
    print(f"Tall Page is at http://{settings.HOST}:{settings.PORT}/  (Ctrl+C ends it)", flush=True)
    manager.loop()
    return int(manager.returncode or 0)


def _port_is_free(host: str, port: int) -> bool:
    """Whether nobody listens there; asked before anything is started, so that nothing is half started."""
    with socket.socket(socket.AF_INET6 if ":" in host else socket.AF_INET) as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind((host, port))
        except OSError:
            return False
    return True
