"""What a device shows, as it changes, told to a page as an event stream."""

from __future__ import annotations

import asyncio
import json
from collections.abc import AsyncIterator, Callable

from asgiref.sync import sync_to_async
from django.http import HttpRequest, HttpResponse, StreamingHttpResponse

from kemble.server.api.asked import asking
from kemble.server.devices.watch import Listener, Watch
from kemble.server.models import KitchenRecord

HEARTBEAT_S = 15.0


async def stream(request: HttpRequest, watch_of: Callable[[KitchenRecord], Watch]) -> HttpResponse:
    """Readings as they change (event `reading`) and where a tray comes to rest (event `still`)."""
    watch = await sync_to_async(lambda: watch_of(asking(request)))()
    answer = StreamingHttpResponse(_events(watch), content_type="text/event-stream")
    answer["Cache-Control"] = "no-store"
    answer["X-Accel-Buffering"] = "no"
    return answer  # type: ignore[return-value]


async def _events(watch: Watch) -> AsyncIterator[str]:
    listener = Listener(asyncio.get_running_loop())
    watch.join(listener)
    try:
        while True:
            latest, rests = await listener.hear(HEARTBEAT_S)
            if latest is not None:
                yield _event("reading", latest.model_dump_json())
            for rest in rests:
                yield _event("still", json.dumps({"grams": round(rest.grams, 1), "first": rest.first}))
            if latest is None and not rests:
                yield ": still here\n\n"
    finally:
        watch.leave(listener)


def _event(name: str, data: str) -> str:
    return f"event: {name}\ndata: {data}\n\n"
