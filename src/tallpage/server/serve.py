"""Running everything on one machine: migrations first, then web and workers side by side."""

from __future__ import annotations

import fcntl
import os
import shlex
import socket
import sys
from collections.abc import Callable, Mapping, Sequence
from pathlib import Path
from typing import NoReturn

from tallpage.core.errors import StorageError, TallPageError
from tallpage.core.files import storage_errors
from tallpage.server.supervisor import become_supervisor

_PYTHON = [sys.executable]
WORKER_MEMORY = {"MALLOC_ARENA_MAX": "2", "MALLOC_MMAP_THRESHOLD_": "4000000"}
"""For glibc's allocator: what an encoder held of a tall page goes back to the system at once, instead
of lying in pieces between what is still needed. Halves the peak; see ``bench/memory``."""
Commands = Mapping[str, Sequence[str]]
"""Further processes: name -> command."""


def serve_all(*, load: Callable[[], Commands] = dict) -> NoReturn:
    """Become the supervisor of web and workers, and of the processes that ``load`` gives.

    ``load`` is called once the database is there. One that ends is started again. When the supervisor
    ends, all end, even if it is killed. What keeps it from starting is said in a sentence.
    """
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "tallpage.server.settings")
    from django.core.exceptions import ImproperlyConfigured

    try:
        arguments = _made_ready(load)
    except TallPageError as error:
        sys.exit(error.in_one_line())
    except ImproperlyConfigured as error:
        sys.exit(str(error))
    become_supervisor()
    os.execv(sys.executable, arguments)  # noqa: S606  (no shell, and nothing of anybody's input)


def _made_ready(load: Callable[[], Commands]) -> list[str]:
    """The supervisor's command line, once everything is there that it needs."""
    import django

    django.setup()
    from django.conf import settings
    from django.core.management import call_command
    from django.db import OperationalError

    from tallpage.server.database import refusal_of
    from tallpage.server.exposure import refusal_to_start
    from tallpage.server.home import scratch_folder
    from tallpage.server.reserve import make_room_to_delete

    refused = refusal_to_start(
        " ".join([settings.HOST, *settings.OTHER_HOSTS]),
        accounts_needed=settings.ACCOUNTS,
        has_account=_has_account(),
    )
    if refused:
        sys.exit(refused)
    run = Path(settings.HOME) / "run"
    _keep_for_ourselves(run)
    _require_free_port(settings.HOST, settings.PORT)
    make_room_to_delete()  # of a full disk something can be deleted only once the server runs
    try:
        call_command("migrate", verbosity=0)
        more = load()
    except OperationalError as error:
        raise (refusal_of(error) or error) from error
    web = [*_PYTHON, "-m", "gunicorn", "--config", "python:tallpage.server.web"]
    web += ["--bind", f"{settings.HOST}:{settings.PORT}", "tallpage.server.wsgi:application"]
    scratch = scratch_folder()
    worker = {
        **WORKER_MEMORY,
        **({"TMPDIR": str(scratch), "TALLPAGE_SCRATCH": str(scratch)} if scratch else {}),
    }
    file = run / "serve.conf"
    sections = [_head(file.with_suffix(".pid")), _section("web", web)]
    sections.append(_section("workers", [*_PYTHON, "-m", "tallpage.server.workers"], worker))
    sections += [_section(name, command) for name, command in more.items()]
    with storage_errors(run):
        file.write_text("\n".join(sections), encoding="utf-8")
    print(f"Tall Page is at http://{settings.HOST}:{settings.PORT}/  (Ctrl+C ends it)", flush=True)
    os.environ["PYTHONUNBUFFERED"] = "1"
    return [*_PYTHON, "-m", "supervisor.supervisord", "--configuration", str(file)]


def _has_account() -> bool:
    """Whether somebody could sign in; nobody can while there is no database yet."""
    from django.conf import settings
    from django.db import OperationalError, connection

    from tallpage.server.people import accounts

    if not Path(str(settings.DATABASES["default"]["NAME"])).exists():
        return False
    try:
        return accounts.exist()
    except OperationalError:
        return False
    finally:
        connection.close()


def _keep_for_ourselves(run: Path) -> None:
    """Hold the data folder for as long as this process lives: what it becomes keeps the lock.

    Raises:
        StorageError: the folder cannot be written, or another server holds it.
    """
    with storage_errors(run.parent):
        run.mkdir(parents=True, exist_ok=True)
        handle = os.open(run / "serve.lock", os.O_RDWR | os.O_CREAT, 0o600)
    try:
        fcntl.flock(handle, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except BlockingIOError as error:
        raise StorageError(
            "Tall Page runs already with this data folder.",
            hint="Stop it, or name another folder with TALLPAGE_HOME.",
            code="storage_held",
            folder=run.parent,
        ) from error
    os.set_inheritable(handle, True)


def _require_free_port(host: str, port: int) -> None:
    if not _port_is_free(host, port):
        sys.exit(
            f"Port {port} of {host} is taken. Stop what uses it, or choose another port with TALLPAGE_PORT."
        )


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
