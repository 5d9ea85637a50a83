"""The devices of a kitchen, its scale and its thermometer: what each shows, live; and what is done to the simulated ones."""

from __future__ import annotations

import asyncio
import json
from collections.abc import AsyncIterator, Callable
from typing import Literal

from asgiref.sync import sync_to_async
from django.http import HttpRequest, HttpResponse, StreamingHttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router
from ninja.responses import Status
from pydantic import BaseModel, Field

from kemble.core.facts.problems import refuse
from kemble.core.sentences import say
from kemble.server.api.request_body import MOST_NUMBER, RequestBody, kitchen_of_request
from kemble.server.devices import probes, scales
from kemble.server.devices.kitchen_devices import Device
from kemble.server.devices.poller import DevicePoller, Listener
from kemble.server.devices.readers import ProbeLive, ScaleLive
from kemble.server.models import KitchenRecord, Run

HEARTBEAT_S = 15.0

router = Router()


class LoadScale(RequestBody):
    """What to do with the simulated scale. `pinch` puts a lump on such as a hand takes that aims at `grams`."""

    do: Literal["put", "pinch", "lift", "unplug", "plug", "garble"] = Field(
        description="put, pinch, lift, unplug, plug or garble"
    )
    grams: float | None = Field(None, gt=0, le=20_000, allow_inf_nan=False, description="above 0, at most 20 000 g")


class StickProbe(RequestBody):
    """What to do with the simulated thermometer: into a step of a run that is in the heat, out again, or its plug."""

    do: Literal["into", "out", "unplug", "plug", "garble"] = Field(description="into, out, unplug, plug or garble")
    run: int | None = Field(None, ge=1, le=MOST_NUMBER, description="the number of a run")
    step: str | None = Field(None, max_length=40, description="a step of the run")


class ScaleCard(BaseModel):
    """What scale the kitchen has, and what it last showed. A simulated one ships with Kemble, loaded from the page."""

    device: Device
    live: ScaleLive


class ProbeCard(BaseModel):
    """What thermometer the kitchen has, and what it last showed. A simulated one ships with Kemble."""

    device: Device
    live: ProbeLive


@router.get("/scale", response={200: ScaleCard}, tags=["scale"])
def scale(request: HttpRequest) -> ScaleCard:
    kitchen = kitchen_of_request(request)
    device = scales.stands_in(kitchen)
    live = ScaleLive() if device == "none" else scales.poller_of(kitchen).live
    return ScaleCard.model_validate({"device": device, "live": live.model_dump()})


@router.get("/probe", response={200: ProbeCard}, tags=["probe"])
def probe(request: HttpRequest) -> ProbeCard:
    kitchen = kitchen_of_request(request)
    device = probes.stands_in(kitchen)
    live = ProbeLive() if device == "none" else probes.poller_of(kitchen).live
    return ProbeCard.model_validate({"device": device, "live": live.model_dump()})


@router.get("/scale/live", include_in_schema=False)
async def scale_live(request: HttpRequest) -> HttpResponse:
    """Readings as they change (event `reading`) and where the tray comes to rest (event `still`), as an event stream."""
    return await _stream(request, scales.poller_of)


@router.get("/probe/live", include_in_schema=False)
async def probe_live(request: HttpRequest) -> HttpResponse:
    """Readings as they change (event `reading`), as an event stream."""
    return await _stream(request, probes.poller_of)


async def _stream(request: HttpRequest, poller_of: Callable[[KitchenRecord], DevicePoller]) -> HttpResponse:
    poller = await sync_to_async(lambda: poller_of(kitchen_of_request(request)))()
    response = StreamingHttpResponse(_events(poller), content_type="text/event-stream")
    response["Cache-Control"] = "no-store"
    response["X-Accel-Buffering"] = "no"
    return response  # type: ignore[return-value]


async def _events(poller: DevicePoller) -> AsyncIterator[str]:
    listener = Listener(asyncio.get_running_loop())
    poller.join(listener)
    try:
        while True:
            latest, settled = await listener.hear(HEARTBEAT_S)
            if latest is not None:
                yield _stream_event("reading", latest.model_dump_json())
            for weight in settled:
                yield _stream_event("still", json.dumps({"grams": round(weight.grams, 1), "first": weight.first}))
            if latest is None and not settled:
                yield ": still here\n\n"
    finally:
        poller.leave(listener)


def _stream_event(name: str, data: str) -> str:
    return f"event: {name}\ndata: {data}\n\n"


@router.post("/scale/zero", response={204: None}, tags=["scale"])
def zero(request: HttpRequest) -> Status[None]:
    if not scales.poller_of(kitchen_of_request(request)).zero():
        refuse("scale", say("is not there"), say("a scale that is plugged in and watched"))
    return Status(204, None)


@router.post("/scale/load", response={204: None}, tags=["scale"])
def load(request: HttpRequest, load: LoadScale) -> Status[None]:
    """Load the simulated scale, or pull its plug. A real one is loaded by hand."""
    port = scales.simulated(kitchen_of_request(request))
    if load.do in ("put", "pinch"):
        if load.grams is None:
            refuse("grams", say("is missing"), say("the weight of the lump in g"))
        (port.put if load.do == "put" else port.pinch)(load.grams)
    elif load.do == "lift":
        port.lift()
    elif load.do == "garble":
        port.garble()
    else:
        port.plugged = load.do == "plug"
    return Status(204, None)


@router.post("/probe/stick", response={204: None}, tags=["probe"])
def stick(request: HttpRequest, sticking: StickProbe) -> Status[None]:
    """Stick the simulated thermometer into what a run has in the heat, or pull it, or its plug, out."""
    kitchen = kitchen_of_request(request)
    port = probes.simulated(kitchen)
    if sticking.do == "into":
        if sticking.run is None or sticking.step is None:
            refuse("run", say("is missing"), say("a run and a step of it"))
        run = get_object_or_404(kitchen.runs, pk=sticking.run)
        core = run.kept.core
        if core is None:
            refuse("run", say("has no predicted core temperature"), say("a batch that is begun anew"))
        port.put_into(core.curve, run.pk, _minute(run, sticking.step))
    elif sticking.do == "out":
        port.pull_out()
    elif sticking.do == "garble":
        port.garble()
    else:
        port.plugged = sticking.do == "plug"
    return Status(204, None)


def _minute(run: Run, step: str) -> Callable[[], float | None]:
    """How long the step's last load has been in the heat, by the run's own clock, and without asking the database."""
    core = run.kept.core
    state = next((state for state in run.state().steps if state.id == step), None)
    window = next(
        (scheduled_step.step.window for scheduled_step in run.plan.scheduled if scheduled_step.step.id == step),
        None,
    )
    if state is None or window is None or state.started is None or core is None:
        refuse("step", say('"{step}" has nothing in the heat', step=step), say("a heat that has begun"))
    started, before = state.started, window.done - core.done

    def minute() -> float | None:
        gone = (run.clock() - started).total_seconds() / 60 - before
        return gone if gone >= 0 else None

    return minute
