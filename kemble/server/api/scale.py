"""The scale: what it shows, live; its zero; and what lies on the simulated one."""

from __future__ import annotations

from typing import Literal

from django.http import HttpRequest, HttpResponse
from ninja import Router
from ninja.responses import Status
from pydantic import BaseModel, Field

from kemble.core.facts.problems import refuse
from kemble.core.words import say
from kemble.server.api.asked import Body, asking
from kemble.server.api.live import stream
from kemble.server.devices.attached import Device
from kemble.server.devices.ears import ScaleLive
from kemble.server.devices.scales import simulated, stands_in, watch_of

router = Router(tags=["scale"])


class LoadScale(Body):
    """What to do with the simulated scale. `pinch` puts a lump on such as a hand takes that aims at `grams`."""

    do: Literal["put", "pinch", "lift", "unplug", "plug", "garble"] = Field(
        description="put, pinch, lift, unplug, plug or garble"
    )
    grams: float | None = Field(None, gt=0, le=20_000, allow_inf_nan=False, description="above 0, at most 20 000 g")


class ScaleCard(BaseModel):
    """What scale the kitchen has, and what it last showed. A simulated one ships with Kemble, loaded from the page."""

    device: Device
    live: ScaleLive


@router.get("/scale", response={200: ScaleCard})
def scale(request: HttpRequest) -> ScaleCard:
    kitchen = asking(request)
    device = stands_in(kitchen)
    live = ScaleLive() if device == "none" else watch_of(kitchen).live
    return ScaleCard.model_validate({"device": device, "live": live.model_dump()})


@router.get("/scale/live", include_in_schema=False)
async def live(request: HttpRequest) -> HttpResponse:
    """Readings as they change (event `reading`) and where the tray comes to rest (event `still`), as an event stream."""
    return await stream(request, watch_of)


@router.post("/scale/zero", response={204: None})
def zero(request: HttpRequest) -> Status[None]:
    if not watch_of(asking(request)).zero():
        refuse("scale", say("is not there"), say("a scale that is plugged in and watched"))
    return Status(204, None)


@router.post("/scale/load", response={204: None})
def load(request: HttpRequest, load: LoadScale) -> Status[None]:
    """Load the simulated scale, or pull its plug. A real one is loaded by hand."""
    port = simulated(asking(request))
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
