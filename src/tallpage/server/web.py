"""How the web server runs: gunicorn's settings, and what it does at its start."""

from __future__ import annotations

from tallpage.core.processes import die_with_parent

worker_class = "gthread"
threads = 8
loglevel = "warning"
control_socket_disable = True


def on_starting(_server: object) -> None:
    """A supervisor that is killed takes the web server with it, and the port is free again."""
    die_with_parent()
