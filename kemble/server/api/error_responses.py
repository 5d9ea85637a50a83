"""Errors that a program can read and a cook can understand."""

from __future__ import annotations

from collections.abc import Sequence

from django.http import HttpResponse
from pydantic import BaseModel

from kemble.core.facts.problems import Problem
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.stations.work_sheet import WorkResult


class Refusal(BaseModel):
    """What every 4xx answer carries. `worked` is what could be worked out all the same, if anything."""

    problems: list[Problem]
    worked: WorkResult | None = None


class ConflictRefusal(Exception):
    """Somebody saved in between."""


class GoneRefusal(Exception):
    """It was thrown away, and can be brought back; its text says what and when."""


# A change without its page's token: the cookie is gone, or the change comes from another site.
TOKEN_LOST = Problem(path="session", says="has lost its token", accepts="it again, after a reload")


def refusal(problems: Sequence[Problem], status: int, worked: WorkResult | None = None) -> HttpResponse:
    body = unchecked_model(Refusal, problems=list(problems), worked=worked)
    return HttpResponse(body.model_dump_json(), status=status, content_type="application/json")


def model_response(body: BaseModel, status: int = 200) -> HttpResponse:
    """A core model as it is: already of its type, so not validated a second time."""
    return HttpResponse(body.model_dump_json(), status=status, content_type="application/json")
