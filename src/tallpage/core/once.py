"""What is found out once, when it is first asked for."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, Generic, TypeVar, overload

_T = TypeVar("_T")


class once(Generic[_T]):  # noqa: N801  (used as a decorator, like a property)
    """A property that is computed once for each instance and kept in its ``__dict__``.

    Like :func:`functools.cached_property`, which up to Python 3.11 holds one lock for all instances while
    it computes, so that threads wait for each other. Two threads that ask one instance at once may both
    compute.
    """

    def __init__(self, compute: Callable[[Any], _T]) -> None:
        self._compute = compute
        self.__doc__ = compute.__doc__

    def __set_name__(self, owner: type, name: str) -> None:
        self._name = name

    @overload
    def __get__(self, instance: None, owner: type) -> once[_T]: ...
    @overload
    def __get__(self, instance: object, owner: type) -> _T: ...
    def __get__(self, instance: object | None, owner: type) -> once[_T] | _T:
        if instance is None:
            return self
        value = self._compute(instance)
        instance.__dict__[self._name] = value
        return value
