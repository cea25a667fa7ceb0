"""Doing what takes long in a process of its own, so that the web server goes on answering."""

from __future__ import annotations

import multiprocessing
import os
from collections.abc import Callable
from multiprocessing.connection import Connection
from typing import ParamSpec, TypeVar, cast

from tallpage.core.errors import TallPageError
from tallpage.core.processes import die_with_parent

_P = ParamSpec("_P")
_T = TypeVar("_T")


def aside(
    too_long: TallPageError, limit_s: float, work: Callable[_P, _T], *args: _P.args, **kwargs: _P.kwargs
) -> _T:
    """What ``work`` gives, which is a plain function of a module; its own errors are raised here.

    A worker, which keeps nobody waiting and may start no process, does it itself.

    Raises:
        TallPageError: ``too_long``, when it takes over ``limit_s`` or needs more memory than there is.
    """
    if multiprocessing.current_process().daemon:
        return work(*args, **kwargs)
    context = multiprocessing.get_context("spawn")
    receiving, sending = context.Pipe(duplex=False)
    process = context.Process(target=_work, args=(os.getpid(), sending, work, args, kwargs), daemon=True)
    process.start()
    sending.close()
    try:
        if not receiving.poll(limit_s):
            raise too_long
        done, outcome = receiving.recv()
    except EOFError as error:  # the system has ended it
        raise too_long from error
    finally:
        process.kill()
        process.join()
        receiving.close()
    if not done:
        raise outcome
    return cast("_T", outcome)


def _work(
    parent_id: int,
    sending: Connection,
    work: Callable[..., object],
    args: tuple[object, ...],
    kwargs: dict[str, object],
) -> None:
    die_with_parent(parent_id)
    try:
        outcome = (True, work(*args, **kwargs))
    except Exception as error:
        outcome = (False, error)
    sending.send(outcome)
