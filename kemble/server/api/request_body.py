"""What all routes share: the kitchen of the request, and the shape of a body."""

from __future__ import annotations

from typing import Any, TypeVar

from django.http import HttpRequest
from pydantic import BaseModel, ConfigDict, Field, ValidationError

from kemble.core.facts.problems import Refused, problems_from
from kemble.server.models import KitchenRecord, Member

MOST_NUMBER = 2**53 - 1  # beyond it a browser's numbers are no longer whole


def member_of(request: HttpRequest) -> Member:
    """Who asks, as one of a household (guard.py)."""
    member = request.auth  # type: ignore[attr-defined]
    assert isinstance(member, Member)
    return member


def kitchen_of_request(request: HttpRequest) -> KitchenRecord:
    """The kitchen of the person who asks. Every query goes through it."""
    return member_of(request).kitchen


def number_of(what: str) -> Any:
    """A field for the number of something kept."""
    return Field(ge=1, le=MOST_NUMBER, description=f"the number of {what}")


class RequestBody(BaseModel):
    """What a route takes in. A key that it does not know is refused."""

    model_config = ConfigDict(extra="forbid")


Document = TypeVar("Document", bound=BaseModel)


def completed(sent: Document, before: Document) -> Document:
    """What was sent, and of the fields that were left out what stood there before: leaving out empties nothing.

    Raises Refused where the two do not go together.
    """
    left_out = type(sent).model_fields.keys() - sent.model_fields_set
    if not left_out:
        return sent
    kept = before.model_dump(mode="json", include=set(left_out))
    try:
        return type(sent).model_validate({**sent.model_dump(mode="json", exclude=set(left_out)), **kept})
    except ValidationError as error:
        raise Refused(problems_from(error, type(sent))) from None


class WriteBody(RequestBody):
    """A change. With a `uid` it may be sent again by whoever is unsure of the answer, and is answered as the first time."""

    uid: str | None = Field(None, min_length=8, max_length=64, description="8 to 64 letters or figures, new for each")
