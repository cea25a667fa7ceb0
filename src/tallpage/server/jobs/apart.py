"""One row never stops the others, and one step not the next: whatever is raised, it alone fails."""

from __future__ import annotations

import logging
from collections.abc import Callable, Iterable
from contextlib import suppress
from typing import TypeVar

from django.db import DatabaseError, OperationalError, close_old_connections, transaction
from django.db.models import Model

from tallpage.core.errors import StorageError, TallPageError

_Result = TypeVar("_Result")
_Row = TypeVar("_Row", bound=Model)
_log = logging.getLogger(__name__)
UNKNOWN = "Something went wrong inside Tall Page. The server's log says more."
"""What a person is told of a fault of ours."""


def each_apart(
    rows: Iterable[_Row], do: Callable[[_Row], object], *, fail: Callable[[_Row, str], object]
) -> None:
    """Do something for each row.

    Where that raises, ``fail`` is called with the row and the reason in a sentence, so that the row is not
    met again and its person sees why. A disk that is full says nothing about a row: that one is left for
    the next time.

    Raises:
        OperationalError: the database is busy, for this row as for all others.
    """
    for row in rows:
        try:
            do(row)
        except OperationalError:
            raise
        except (StorageError, OSError) as error:
            _log.warning("%s %s is tried again: %s", type(row).__name__, row.pk, error)
        except TallPageError as error:
            _fail(row, error.in_one_line(), fail)
        except Exception:
            _log.exception("%s %s failed unexpectedly", type(row).__name__, row.pk)
            _fail(row, UNKNOWN, fail)


def _fail(row: _Row, reason: str, fail: Callable[[_Row, str], object]) -> None:
    with suppress(Exception), transaction.atomic():  # then it is met again, and the others are served
        fail(row, reason)
        return
    _log.error("%s %s could not be marked as failed: %s", type(row).__name__, row.pk, reason)


def safely(step: Callable[[], _Result]) -> _Result | None:
    """Do something small with the database; when it is busy or the disk is full, a later round does it.

    Whatever it raises, this process goes on: the work of everybody else hangs on it.
    """
    name = getattr(step, "__name__", "a step")
    try:
        return step()
    except (DatabaseError, StorageError, OSError) as error:
        _log.warning("%s is tried again: %s", name, error)
        return None
    except Exception:
        _log.exception("%s failed unexpectedly and is tried again", name)
        return None
    finally:
        close_old_connections()
