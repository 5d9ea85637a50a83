"""The scale: what it shows, live; its zero; and the tray of the simulated one."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from ninja import Router
from ninja.responses import Status

from kemble.core.facts.problems import Problem, Refused
from kemble.server.api.bodies import LoadTray
from kemble.server.api.kitchen import asking
from kemble.server.api.live import stream
from kemble.server.api.refusal import REFUSALS
from kemble.server.api.views import ScaleCard
from kemble.server.devices.scales import is_simulated, simulated, watch_of

router = Router(tags=["scale"])


@router.get("/scale", response={200: ScaleCard, **REFUSALS})
def scale(request: HttpRequest) -> ScaleCard:
    kitchen = asking(request)
    return ScaleCard.model_validate({"simulated": is_simulated(kitchen), "live": watch_of(kitchen).live.model_dump()})


@router.get("/scale/live", include_in_schema=False)
async def live(request: HttpRequest) -> HttpResponse:
    """Readings as they change (event `reading`) and where the tray comes to rest (event `still`), as an event stream."""
    return await stream(request, watch_of)


@router.post("/scale/zero", response={204: None, **REFUSALS})
def zero(request: HttpRequest) -> Status[None]:
    if not watch_of(asking(request)).zero():
        raise Refused([Problem(path="scale", says="is not there", accepts="a scale that is plugged in and watched")])
    return Status(204, None)


@router.post("/scale/tray", response={204: None, **REFUSALS})
def tray(request: HttpRequest, load: LoadTray) -> Status[None]:
    """Load the simulated scale, or pull its plug. A real one is loaded by hand."""
    kitchen = asking(request)
    if not is_simulated(kitchen):
        raise Refused([Problem(path="scale", says="is a real one", accepts="a lump, put on by hand")])
    port = simulated(kitchen)
    if load.do in ("put", "pinch"):
        if load.grams is None:
            raise Refused([Problem(path="grams", says="is missing", accepts="the weight of the lump in g")])
        (port.put if load.do == "put" else port.pinch)(load.grams)
    elif load.do == "lift":
        port.lift()
    elif load.do == "garble":
        port.garble()
    else:
        port.plugged = load.do == "plug"
    return Status(204, None)
