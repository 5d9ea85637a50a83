"""What each of a household may do: one table over the operations of the API. What stands in none of it is for whoever cooks.

A helper does the steps of a making beside a cook; a taster says how a batch is, and is not told what is in which cup.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from enum import StrEnum
from typing import Literal

from django.http import HttpRequest


class Role(StrEnum):
    OWNER = "owner"
    COOK = "cook"
    HELPER = "helper"
    TASTER = "taster"


InvitedRole = Literal[Role.COOK, Role.HELPER, Role.TASTER]  # there is one owner

_ALL = frozenset(Role)
_COOKS = frozenset({Role.OWNER, Role.COOK})
_OWNER = frozenset({Role.OWNER})
_HELPERS = _COOKS | {Role.HELPER}
_TASTERS = _COOKS | {Role.TASTER}

_OF: tuple[tuple[frozenset[Role], str], ...] = (
    (
        _ALL,  # who one is oneself, and what every page is written with
        """
        DELETE /session
        PUT /session/password
        GET /session/browsers
        DELETE /session/browsers/{number}
        POST /session/second-factor
        PUT /session/second-factor
        POST /session/second-factor/off
        GET /kitchen
        GET /ways
        """,
    ),
    (
        _OWNER,  # who is in, and what puts one kitchen in the place of another
        """
        GET /household
        PUT /household/{member_id}
        DELETE /household/{member_id}
        DELETE /household/browsers/{number}
        POST /household/invitations
        DELETE /household/invitations/{invitation_id}
        GET /archive
        POST /archive/staged
        GET /archive/staged/{archive_id}
        POST /archive/staged/{archive_id}/take
        DELETE /archive/staged/{archive_id}
        """,
    ),
    (
        _HELPERS,  # a making, its plan, its bench and its devices
        """
        GET /runs
        GET /runs/{run_id}
        GET /runs/{run_id}/news
        GET /runs/{run_id}/faults
        GET /runs/{run_id}/hands
        GET /runs/{run_id}/pictures
        POST /runs/{run_id}/pictures
        POST /runs/{run_id}/events
        POST /runs/{run_id}/rest
        GET /pictures/{picture_id}.webp
        GET /occasions
        GET /occasions/{occasion_id}
        GET /occasions/{occasion_id}/day.ics
        GET /occasions/{occasion_id}/day.txt
        POST /shopping
        GET /sheets/{sheet_id}
        GET /sheets/{sheet_id}/hands
        GET /benches
        POST /benches
        GET /benches/{bench_id}
        POST /benches/{bench_id}/marks
        GET /scale
        GET /scale/live
        POST /scale/zero
        POST /scale/load
        GET /probe
        GET /probe/live
        POST /probe/stick
        """,
    ),
    (
        _TASTERS,
        """
        GET /to-taste
        GET /log/{batch_id}
        POST /log/{batch_id}/tastings
        GET /splits
        GET /splits/{split_id}
        POST /splits/{split_id}/answers
        GET /to-eat
        """,
    ),
)
MAY: Mapping[str, frozenset[Role]] = {
    operation.strip(): roles for roles, operations in _OF for operation in operations.strip().splitlines()
}


def role_may(role: Role, operation: str) -> bool:
    """Whether an operation ("GET /runs/{run_id}") is for somebody of that role."""
    return role in MAY.get(operation, _COOKS)


def operation_of(request: HttpRequest) -> str:
    """Which operation of the API a request asks for, as its document names it."""
    assert request.resolver_match is not None
    path = re.sub(r"<(?:\w+:)?(\w+)>", r"{\1}", request.resolver_match.route.removeprefix("api"))
    return f"{request.method} {path}"
