"""What every route shares of what comes in: whose kitchen it is about, and the shape of a body."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest
from pydantic import BaseModel, ConfigDict, Field

from kemble.server.models import KitchenRecord, Member

MOST_NUMBER = 2**53 - 1  # beyond it a browser's numbers are no longer whole


def member_of(request: HttpRequest) -> Member:
    """Who asks, as one of a household (guard.py)."""
    member = request.auth  # type: ignore[attr-defined]
    assert isinstance(member, Member)
    return member


def asking(request: HttpRequest) -> KitchenRecord:
    """The kitchen of the person who asks. Every query goes through it."""
    return member_of(request).kitchen


def number_of(what: str) -> Any:
    """A field for the number of something kept."""
    return Field(ge=1, le=MOST_NUMBER, description=f"the number of {what}")


class Body(BaseModel):
    """What a route takes in. A key that it does not know is refused."""

    model_config = ConfigDict(extra="forbid")


class Write(Body):
    """A change. With a `uid` it may be sent again by whoever is unsure of the answer, and is answered as the first time."""

    uid: str | None = Field(None, min_length=8, max_length=64, description="8 to 64 letters or figures, new for each")
