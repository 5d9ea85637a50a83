"""What went wrong on our side: logged under a number, and told with it."""

from __future__ import annotations

import logging
import secrets
import sqlite3

from django.db import OperationalError
from django.http import HttpRequest, HttpResponse

from kemble.core.facts.problems import Problem
from kemble.server.api.error_responses import refusal

_log = logging.getLogger("kemble.faults")
_TRY_AGAIN_S = 2


def fault_response(request: HttpRequest, error: BaseException) -> HttpResponse:
    """The answer to a request that failed. Whoever asked keeps what was typed, and may ask again."""
    cause = error.__cause__ if isinstance(error, OperationalError) else error
    code = getattr(cause, "sqlite_errorcode", None)
    number = secrets.token_hex(3)
    asked = f"{request.method} {request.path}"
    if code is not None and code & 0xFF == sqlite3.SQLITE_FULL:
        _log.error("number %s: the disk is full. %s was not kept.", number, asked)
        says = f"is full: this was not kept (number {number})"
        return refusal([Problem(path="the disk", says=says, accepts="it again, once there is room")], 507)
    if code is not None and code & 0xFF in (sqlite3.SQLITE_BUSY, sqlite3.SQLITE_LOCKED):
        _log.warning("number %s: the database was busy too long. %s was not kept.", number, asked)
        busy = Problem(path="the kitchen", says=f"is busy: this was not kept (number {number})", accepts="it again")
        response = refusal([busy], 503)
        response["Retry-After"] = str(_TRY_AGAIN_S)
        return response
    _log.error("number %s: %s failed", number, asked, exc_info=error)
    says = f"stumbled over this; what you typed is kept (number {number})"
    return refusal([Problem(path="the kitchen", says=says)], 500)
