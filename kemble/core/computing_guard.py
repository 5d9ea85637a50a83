"""Forbids long calculations in a thread that holds something others wait for.

A function that takes long is marked with `@computes`; inside `no_computing` it raises, however quick it would have been
this time. So a test sees what only a busy machine would feel.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from functools import wraps
from typing import ParamSpec, TypeVar

P = ParamSpec("P")
R = TypeVar("R")

_forbidden_by: ContextVar[str] = ContextVar("computing is forbidden by", default="")


class ComputedTooLate(Exception):
    """Something that takes long was begun while others wait."""


@contextmanager
def no_computing(holder: str) -> Iterator[None]:
    """In this thread nothing may compute for as long; `holder` names what others wait for."""
    before = _forbidden_by.set(holder)
    try:
        yield
    finally:
        _forbidden_by.reset(before)


def check_computing(what: str) -> None:
    """Raises ComputedTooLate where computing is forbidden."""
    holder = _forbidden_by.get()
    if holder:
        raise ComputedTooLate(f"{what} takes long, and others wait for {holder}: do it before")


def computes(function: Callable[P, R]) -> Callable[P, R]:
    """Marks a function that takes long."""

    @wraps(function)
    def checked(*args: P.args, **kwargs: P.kwargs) -> R:
        check_computing(function.__name__)
        return function(*args, **kwargs)

    return checked
