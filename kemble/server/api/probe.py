"""The thermometer: what it shows, live; and the batch that the simulated one is stuck into."""

from __future__ import annotations

from collections.abc import Callable
from typing import Literal

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router
from ninja.responses import Status
from pydantic import BaseModel, Field

from kemble.core.facts.problems import refuse
from kemble.core.words import say
from kemble.server.api.asked import MOST_NUMBER, Body, asking
from kemble.server.api.live import stream
from kemble.server.devices.attached import Device
from kemble.server.devices.ears import ProbeLive
from kemble.server.devices.probes import simulated, stands_in, watch_of
from kemble.server.models import Run

router = Router(tags=["probe"])


class StickProbe(Body):
    """What to do with the simulated thermometer: into a step of a run that is in the heat, out again, or its plug."""

    do: Literal["into", "out", "unplug", "plug", "garble"] = Field(description="into, out, unplug, plug or garble")
    run: int | None = Field(None, ge=1, le=MOST_NUMBER, description="the number of a run")
    step: str | None = Field(None, max_length=40, description="a step of the run")


class ProbeCard(BaseModel):
    """What thermometer the kitchen has, and what it last showed. A simulated one ships with Kemble."""

    device: Device
    live: ProbeLive


@router.get("/probe", response={200: ProbeCard})
def probe(request: HttpRequest) -> ProbeCard:
    kitchen = asking(request)
    device = stands_in(kitchen)
    live = ProbeLive() if device == "none" else watch_of(kitchen).live
    return ProbeCard.model_validate({"device": device, "live": live.model_dump()})


@router.get("/probe/live", include_in_schema=False)
async def live(request: HttpRequest) -> HttpResponse:
    """Readings as they change (event `reading`), as an event stream."""
    return await stream(request, watch_of)


@router.post("/probe/stick", response={204: None})
def stick(request: HttpRequest, sticking: StickProbe) -> Status[None]:
    """Stick the simulated thermometer into what a run has in the heat, or pull it, or its plug, out."""
    kitchen = asking(request)
    port = simulated(kitchen)
    if sticking.do == "into":
        if sticking.run is None or sticking.step is None:
            refuse("run", say("is missing"), say("a run and a step of it"))
        run = get_object_or_404(kitchen.runs, pk=sticking.run)
        core = run.kept.core
        if core is None:
            refuse("run", say("was told no core to read"), say("a run begun anew"))
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
    state = next((one for one in run.state().steps if one.id == step), None)
    window = next((one.step.window for one in run.kept.plan.scheduled if one.step.id == step), None)
    if state is None or window is None or state.started is None or core is None:
        refuse("step", say('"{step}" has nothing in the heat', step=step), say("a heat that has begun"))
    started, before = state.started, window.done - core.done

    def minute() -> float | None:
        gone = (run.clock() - started).total_seconds() / 60 - before
        return gone if gone >= 0 else None

    return minute
