"""Taking turns: what can only be done by one at a time is done in the order in which it was asked for.

SQLite lets one writer in and has the rest try again after pauses of their own, the unlucky ones until their patience
runs out; Python works one sheet at a time whatever the number of threads, and lets all of them finish last. A queue
before each is fair, and costs nothing while nobody waits.
"""

from __future__ import annotations

import threading
from collections import deque
from collections.abc import Iterator
from contextlib import contextmanager

from django.db import transaction

from kemble.core.computing_guard import no_computing


class FairLock:
    """A lock that is handed on in the order of asking. One thread may take it again while it holds it."""

    def __init__(self) -> None:
        self._guard = threading.Lock()
        self._waiting: deque[threading.Lock] = deque()
        self._holder: int | None = None
        self._depth = 0

    def __enter__(self) -> FairLock:
        me = threading.get_ident()
        with self._guard:
            if self._holder in (None, me):
                self._holder = me
                self._depth += 1
                return self
            ticket = threading.Lock()
            ticket.acquire()
            self._waiting.append(ticket)
        ticket.acquire()  # let go by whoever hands the turn on
        with self._guard:
            self._holder, self._depth = me, 1
        return self

    def __exit__(self, *_: object) -> None:
        with self._guard:
            self._depth -= 1
            if self._depth:
                return
            if self._waiting:
                self._holder = -1  # on its way to the next: nobody may step in between
                self._waiting.popleft().release()
            else:
                self._holder = None


WORKING = FairLock()
PRINTING = FairLock()
PICTURES = FairLock()
HASHING = FairLock()  # of passwords: each takes a core for a second, on purpose
_WRITING = FairLock()


@contextmanager
def writing() -> Iterator[None]:
    """One transaction, begun when every write asked for before it is done. Nothing computes inside it (core/computing.py):
    everybody's writes wait for it."""
    with _WRITING, no_computing("the turn to write"), transaction.atomic():
        yield
