"""Running everything on one machine: migrations first, then web and workers side by side."""

from __future__ import annotations

import os
import shlex
import socket
import sys
from collections.abc import Mapping, Sequence
from pathlib import Path
from typing import NoReturn

_PYTHON = [sys.executable]
_WORKERS = ("pages", "files")
WORKER_MEMORY = {"MALLOC_ARENA_MAX": "2", "MALLOC_MMAP_THRESHOLD_": "4000000"}
"""For glibc's allocator: what an encoder held of a tall page goes back to the system at once, instead
of lying in pieces between what is still needed. Halves the peak; see ``bench/memory``."""


def serve_all(*, more: Mapping[str, Sequence[str]] | None = None) -> NoReturn:
    """Become the supervisor of web and workers, and of the processes of ``more`` (name -> command).

    One that ends is started again. When the supervisor ends, all end, even if it is killed.
    """
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "tallpage.server.settings")
    import django
    from django.conf import settings
    from django.core.management import call_command

    from tallpage.server.exposure import OPEN_FLAG, refusal_to_start

    django.setup()
    refused = refusal_to_start(
        settings.HOST, loopback=settings.LOOPBACK, told_open=os.environ.get(OPEN_FLAG, "")
    )
    if refused:
        print(refused, file=sys.stderr)
        sys.exit(1)
    if not _port_is_free(settings.HOST, settings.PORT):
        print(
            f"Port {settings.PORT} of {settings.HOST} is taken: is Tall Page running already? "
            "Stop it, or choose another port with TALLPAGE_PORT.",
            file=sys.stderr,
        )
        sys.exit(1)
    call_command("migrate", verbosity=0)
    file = Path(settings.HOME) / "run" / "serve.conf"
    file.parent.mkdir(parents=True, exist_ok=True)
    web = [*_PYTHON, "-m", "gunicorn", "--config", "python:tallpage.server.web"]
    web += ["--bind", f"{settings.HOST}:{settings.PORT}", "tallpage.server.wsgi:application"]
    sections = [_head(file.with_suffix(".pid")), _section("web", web)]
    sections += [
        _section(name, [*_PYTHON, "-m", "django", "worker"], {**WORKER_MEMORY, "Q_CLUSTER_NAME": name})
        for name in _WORKERS
    ]
    sections += [_section(name, command) for name, command in (more or {}).items()]
    file.write_text("\n".join(sections), encoding="utf-8")
    print(f"Tall Page is at http://{settings.HOST}:{settings.PORT}/  (Ctrl+C ends it)", flush=True)
    os.environ["PYTHONUNBUFFERED"] = "1"
    arguments = [*_PYTHON, "-m", "supervisor.supervisord", "--configuration", str(file)]
    os.execv(sys.executable, arguments)  # noqa: S606  (no shell, and nothing of anybody's input)


def _head(pid_file: Path) -> str:
    lines = ["[supervisord]", "nodaemon=true", "loglevel=warn", "logfile=/dev/null", "logfile_maxbytes=0"]
    if os.geteuid() == 0:
        lines.append("user=root")
    return "\n".join([*lines, f"pidfile={_literal(str(pid_file))}", ""])


def _section(name: str, command: Sequence[str], environment: Mapping[str, str] | None = None) -> str:
    """One process, which says what it has to say on our output."""
    values = ",".join(f'{key}="{value}"' for key, value in (environment or {}).items())
    lines = [
        f"[program:{name}]",
        f"command={_literal(shlex.join(command))}",
        f"environment={_literal(values)}",
        "autorestart=true",
        "startretries=10",
        # A worker is given some seconds to end what it is at; the rest is taken up at the next start.
        "stopwaitsecs=8",
        "killasgroup=true",
        "redirect_stderr=true",
        "stdout_logfile=/dev/fd/1",
        "stdout_logfile_maxbytes=0",
    ]
    return "\n".join([*lines, ""])


def _literal(text: str) -> str:
    """A value of the supervisor's file, in which % has a meaning."""
    return text.replace("%", "%%")


def _port_is_free(host: str, port: int) -> bool:
    """Whether nobody listens there; asked before anything is started, so that nothing is half started."""
    with socket.socket(socket.AF_INET6 if ":" in host else socket.AF_INET) as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind((host, port))
        except OSError:
            return False
    return True
