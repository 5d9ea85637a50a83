"""The thermometer: what it shows, live; and the batch that the simulated one is stuck into."""

from __future__ import annotations

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router
from ninja.responses import Status

from kemble.core.facts.problems import Problem, Refused
from kemble.server.api.bodies import StickProbe
from kemble.server.api.kitchen import asking
from kemble.server.api.live import stream
from kemble.server.api.refusal import REFUSALS
from kemble.server.api.views import ProbeCard
from kemble.server.devices.probes import is_simulated, simulated, watch_of
from kemble.server.models import Run

router = Router(tags=["probe"])


@router.get("/probe", response={200: ProbeCard, **REFUSALS})
def probe(request: HttpRequest) -> ProbeCard:
    kitchen = asking(request)
    return ProbeCard.model_validate({"simulated": is_simulated(kitchen), "live": watch_of(kitchen).live.model_dump()})


@router.get("/probe/live", include_in_schema=False)
async def live(request: HttpRequest) -> HttpResponse:
    """Readings as they change (event `reading`), as an event stream."""
    return await stream(request, watch_of)


@router.post("/probe/stick", response={204: None, **REFUSALS})
def stick(request: HttpRequest, sticking: StickProbe) -> Status[None]:
    """Stick the simulated thermometer into what a run has in the heat, or pull it, or its plug, out."""
    kitchen = asking(request)
    if not is_simulated(kitchen):
        raise Refused([Problem(path="probe", says="is a real one", accepts="one put in by hand")])
    port = simulated(kitchen)
    if sticking.do == "into":
        if sticking.run is None or sticking.step is None:
            raise Refused([Problem(path="run", says="is missing", accepts="a run and a step of it")])
        run = get_object_or_404(kitchen.runs, pk=sticking.run)
        heart = run.heart
        if heart is None:
            raise Refused([Problem(path="run", says="was told no heart to read", accepts="a run begun anew")])
        port.put_into(heart.curve, run.pk, _minute(run, sticking.step))
    elif sticking.do == "out":
        port.pull_out()
    elif sticking.do == "garble":
        port.garble()
    else:
        port.plugged = sticking.do == "plug"
    return Status(204, None)


def _minute(run: Run, step: str) -> Callable[[], float | None]:
    """How long the step's last load has been in the heat, by the run's own clock, and without asking the database."""
    heart = run.heart
    state = next((one for one in run.state().steps if one.id == step), None)
    window = next((one.step.window for one in run.schedule.scheduled if one.step.id == step), None)
    if state is None or window is None or state.started is None or heart is None:
        raise Refused([Problem(path="step", says=f'"{step}" has nothing in the heat', accepts="a heat that has begun")])
    started, before = state.started, window.done - heart.done

    def minute() -> float | None:
        gone = (run.clock() - started).total_seconds() / 60 - before
        return gone if gone >= 0 else None

    return minute
