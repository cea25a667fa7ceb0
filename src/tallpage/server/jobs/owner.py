"""Who runs a job, in a form that can be checked from another process on the same machine."""

from __future__ import annotations

import os
import socket

import psutil


def this_process() -> str:
    """Host, process id and start time: a reused process id is not taken for the old process."""
    return f"{socket.gethostname()}:{os.getpid()}:{psutil.Process().create_time():.2f}"


def is_dead(owner: str) -> bool:
    """Whether the owner ran on this machine and has ended. False when that cannot be known."""
    host, _, rest = owner.rpartition(":")
    host, _, process_id = host.rpartition(":")
    if host != socket.gethostname() or not process_id.isdigit():
        return False
    try:
        process = psutil.Process(int(process_id))
        return f"{process.create_time():.2f}" != rest or process.status() == psutil.STATUS_ZOMBIE
    except psutil.NoSuchProcess:
        return True
