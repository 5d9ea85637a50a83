"""Where the synchronous part of a request is done: in a thread that is kept, with its connection to the database.

Django gives each request a new thread, and so a new connection, both thrown away after it: of a short request that is a
third of the work. Here a thread goes back when its request is answered, and the next one takes the one that came back
last. There are as many as there are requests at once: one that takes long makes nobody wait.
"""

from __future__ import annotations

import asyncio
from concurrent.futures import ThreadPoolExecutor

from asgiref.sync import ThreadSensitiveContext
from django.core.handlers.asgi import ASGIHandler
from django.db import connections

_MOST_IDLE = 6  # kept for the next; more were wanted for a moment only


class Seated(ASGIHandler):
    """Django's own handler of requests, each in a thread that is kept."""

    def __init__(self) -> None:
        super().__init__()
        self._idle: list[ThreadPoolExecutor] = []

    async def handle(self, scope, receive, send):  # type: ignore[no-untyped-def]
        seat = self._idle.pop() if self._idle else ThreadPoolExecutor(1, thread_name_prefix="seat")
        loop = asyncio.get_running_loop()
        try:
            async with ThreadSensitiveContext(executor=seat):
                await super().handle(scope, receive, send)
        finally:
            # Whoever went away may have left work behind in it: it is free when that is done.
            seat.submit(lambda: loop.call_soon_threadsafe(self._free, seat))

    def _free(self, seat: ThreadPoolExecutor) -> None:
        if len(self._idle) < _MOST_IDLE:
            self._idle.append(seat)
        else:
            seat.submit(connections.close_all)
            seat.shutdown(wait=False)
