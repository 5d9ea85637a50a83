"""Where the synchronous part of a request is done: in a thread that is kept, with its connection to the database.

Django gives each request a new thread, and so a new connection, both thrown away after it: of a short request that is a
third of the work. Here a thread goes back when its request is answered, and the next one takes the one that came back
last. There are as many as there are requests at once: one that takes long makes nobody wait.

All middleware and the view are called in that thread, one by the other. Django's own way goes into the thread and back for
each middleware that knows both ways, some ten times a request, which costs more than most of our views.
"""

from __future__ import annotations

import asyncio
from collections.abc import Awaitable, Callable, Mapping
from concurrent.futures import ThreadPoolExecutor
from contextlib import suppress
from typing import Any

from asgiref.sync import ThreadSensitiveContext, sync_to_async
from django.core.handlers.asgi import ASGIHandler
from django.db import connections
from django.http import HttpRequest
from django.http.response import HttpResponseBase

_MOST_IDLE = 6  # kept for the next; more were wanted for a moment only
_PATIENCE_S = 3.0  # with what is still going on when everything ends
_RETRY_AFTER_S = b"2"

Message = Mapping[str, Any]
Send = Callable[[Message], Awaitable[None]]


class _Answer:
    """What is sent of an answer. The server cancels what is unanswered when it ends, which is no fault of the request:
    without this it would be told as one (status 500). A page asks again after 503."""

    def __init__(self, send: Send) -> None:
        self._send = send
        self._begun = self._ended = False

    async def send(self, message: Message) -> None:
        if self._ended:  # the work went on in its thread after the server had said that it ends
            return
        self._begun = True
        await self._send(message)

    async def end_unanswered(self) -> None:
        self._ended = True
        if self._begun:
            return
        headers = [(b"retry-after", _RETRY_AFTER_S), (b"content-length", b"0")]
        await self._send({"type": "http.response.start", "status": 503, "headers": headers})
        await self._send({"type": "http.response.body", "body": b""})


class ThreadedHandler(ASGIHandler):
    """Django's own handler of requests, each in a thread that is kept."""

    def __init__(self) -> None:
        super().__init__()
        self._idle: list[ThreadPoolExecutor] = []
        self._all: set[ThreadPoolExecutor] = set()

    def load_middleware(self, is_async: bool = False) -> None:
        super().load_middleware(is_async=False)

    async def run_get_response(self, request: HttpRequest) -> HttpResponseBase:
        response = await sync_to_async(self.get_response)(request)
        response._handler_class = self.__class__  # type: ignore[attr-defined]  # Django's signals name who handled it
        return response

    async def handle(self, scope, receive, send):  # type: ignore[no-untyped-def]
        seat = self._idle.pop() if self._idle else self._new()
        loop = asyncio.get_running_loop()

        def back() -> None:
            with suppress(RuntimeError):  # everything has ended meanwhile
                loop.call_soon_threadsafe(self._free, seat)

        answer = _Answer(send)
        try:
            async with ThreadSensitiveContext(executor=seat):
                await super().handle(scope, receive, answer.send)
        except asyncio.CancelledError:
            await answer.end_unanswered()
            raise
        finally:
            seat.submit(back)  # whoever went away may have left work behind in it: it is free when that is done

    def _new(self) -> ThreadPoolExecutor:
        seat = ThreadPoolExecutor(1, thread_name_prefix="seat")
        self._all.add(seat)
        return seat

    def _free(self, seat: ThreadPoolExecutor) -> None:
        if len(self._idle) < _MOST_IDLE:
            self._idle.append(seat)
        else:
            self._all.discard(seat)
            seat.submit(connections.close_all)
            seat.shutdown(wait=False)

    def end(self) -> None:
        """No more requests come: every connection is closed, so that the database is left as one whole file."""
        closing = [seat.submit(connections.close_all) for seat in self._all]
        for item in closing:
            with suppress(TimeoutError):
                item.result(_PATIENCE_S)
        for seat in self._all:
            seat.shutdown(wait=False)
        self._all.clear()
        self._idle.clear()
