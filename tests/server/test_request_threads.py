"""The threads of requests: kept for the next, as many as are wanted at once, and never one in which something still goes on."""

import asyncio
import threading

import pytest
from asgiref.sync import SyncToAsync, sync_to_async
from django.core.handlers.asgi import ASGIHandler
from django.db import connections

from kemble.site.request_threads import ThreadedHandler


@pytest.fixture
def seated(monkeypatch):
    """A handler whose requests do what their scope says, in the thread that they are given."""

    async def handle(self, scope, receive, send):
        await sync_to_async(scope["does"])()
        await send({"type": "http.response.start", "status": 200, "headers": []})

    monkeypatch.setattr(ASGIHandler, "handle", handle)
    return ThreadedHandler()


async def unheard(message):
    """Nobody looks at what is sent."""


def asks(seated, does, send=unheard):
    return seated.handle({"does": does}, None, send)


async def all_free(seated, count):
    while len(seated._idle) < count:
        await asyncio.sleep(0)


def test_one_after_the_other_sit_in_one_seat(seated):
    threads = []

    async def three():
        for _ in range(3):
            await asks(seated, lambda: threads.append(threading.get_ident()))
            await all_free(seated, 1)

    asyncio.run(three())
    assert len(threads) == 3
    assert len(set(threads)) == 1


def test_nobody_waits_for_one_that_takes_long(seated):
    go = threading.Event()

    async def both():
        slow = asyncio.ensure_future(asks(seated, lambda: go.wait(20)))
        await asyncio.sleep(0)
        await asyncio.wait_for(asks(seated, lambda: None), 20)
        assert not slow.done()
        go.set()
        await slow
        await all_free(seated, 2)

    asyncio.run(both())


def test_a_seat_is_free_once_what_was_begun_in_it_is_done(seated):
    """Whoever asked may have gone; what they asked for goes on to its end."""
    begun, go = threading.Event(), threading.Event()
    threads = []

    def slow():
        threads.append(threading.get_ident())
        begun.set()
        go.wait(20)

    async def gone():
        asked = asyncio.ensure_future(asks(seated, slow))
        await asyncio.to_thread(begun.wait, 20)
        asked.cancel()
        with pytest.raises(asyncio.CancelledError):
            await asked
        await asks(seated, lambda: threads.append(threading.get_ident()))
        await all_free(seated, 1)
        go.set()
        await all_free(seated, 2)

    asyncio.run(gone())
    assert len(set(threads)) == 2


def test_what_the_end_of_the_server_cuts_off_is_to_be_asked_again(seated):
    """The server cancels what is unanswered when it ends; that is no fault to be told as one."""
    begun, go = threading.Event(), threading.Event()
    sent = []

    def slow():
        begun.set()
        go.wait(20)

    async def send(message):
        sent.append(message)

    async def cut_off():
        asked = asyncio.ensure_future(asks(seated, slow, send))
        await asyncio.to_thread(begun.wait, 20)
        asked.cancel()
        with pytest.raises(asyncio.CancelledError):
            await asked
        go.set()
        await all_free(seated, 1)

    asyncio.run(cut_off())
    assert [message["type"] for message in sent] == ["http.response.start", "http.response.body"]
    assert sent[0]["status"] == 503
    assert (b"retry-after", b"2") in sent[0]["headers"]


def test_at_the_end_every_seat_has_let_go(seated, monkeypatch):
    closed = []
    monkeypatch.setattr(connections, "close_all", lambda: closed.append(threading.get_ident()))
    together = threading.Barrier(3)
    sat = []

    def sits():
        sat.append(threading.get_ident())
        together.wait(20)

    async def three():
        await asyncio.gather(*(asks(seated, sits) for _ in range(3)))
        await all_free(seated, 3)

    asyncio.run(three())
    seated.end()
    assert sorted(closed) == sorted(sat)
    assert seated._idle == []


def test_after_a_crowd_a_few_are_kept(seated):
    together = threading.Barrier(10)

    async def crowd():
        await asyncio.gather(*(asks(seated, lambda: together.wait(20)) for _ in range(10)))
        while len(seated._all) > 6:  # until each has been looked at
            await asyncio.sleep(0)
        assert len(seated._idle) == 6

    asyncio.run(crowd())


def test_all_middleware_and_the_view_are_called_in_one_go(monkeypatch):
    """Django's own way enters the thread once for each middleware that knows both ways, and that is most of them."""
    entered = []
    called = SyncToAsync.__call__

    async def counted(self, *args, **kwargs):
        entered.append(self.func)
        return await called(self, *args, **kwargs)

    monkeypatch.setattr(SyncToAsync, "__call__", counted)
    seated, said = ThreadedHandler(), []
    asked = {
        "type": "http", "method": "GET", "path": "/api/session", "raw_path": b"/api/session", "query_string": b"",
        "headers": [(b"host", b"127.0.0.1")], "client": ("127.0.0.1", 1), "server": ("127.0.0.1", 80),
    }  # fmt: skip

    async def ask():
        heard = iter([{"type": "http.request", "body": b""}])

        async def receive():
            return next(heard, None) or await asyncio.Event().wait()

        async def send(message):
            said.append(message)

        await seated.handle(asked, receive, send)

    asyncio.run(ask())
    seated.end()
    assert said[0]["status"] == 200
    assert len(entered) == 3, entered  # that it begins, the answer, that it ends
