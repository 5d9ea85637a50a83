"""What holds for every request: how much it may carry, how long a session lasts, and that refusals can be read."""

from __future__ import annotations

import re
from collections.abc import Callable
from datetime import timedelta

from django.conf import settings
from django.contrib.auth.models import User
from django.core.exceptions import RequestDataTooBig
from django.http import HttpRequest, HttpResponse
from django.utils import timezone

from kemble.core.facts.problems import Problem
from kemble.core.sentences import say
from kemble.server.accounts.browsers import mark_browser_used
from kemble.server.api.error_responses import refusal
from kemble.server.exports.archive import MOST_BYTES as MOST_ARCHIVE
from kemble.server.runs.pictures import MOST_BYTES as MOST_PICTURE
from kemble.server.web.request_language import USUAL, speak_as

Handler = Callable[[HttpRequest], HttpResponse]
_SLIDE_AFTER = timedelta(days=1)
_SLID = "slid"


TIME_HEADER = "Kemble-Time"
_FORM_BYTES = 64_000  # of a form beside the file that it carries
# Where files come in: what one may weigh. It is read in pieces from the disk, never as one body.
_FILES: tuple[tuple[re.Pattern[str], int], ...] = (
    (re.compile(r"^/api/runs/\d+/pictures$"), MOST_PICTURE + _FORM_BYTES),
    (re.compile(r"^/api/archive/staged$"), MOST_ARCHIVE + _FORM_BYTES),
)


class LanguageMiddleware:
    """Every request begins in the language of those who are not known; whoever is, is spoken to in theirs (guard.py)."""

    def __init__(self, get_response: Handler) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        speak_as(USUAL)
        return self.get_response(request)


class ServerTime:
    """Every answer of the API says what time it is here, so that a device can tell how far its own clock is off."""

    def __init__(self, get_response: Handler) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        response = self.get_response(request)
        if request.path.startswith("/api/"):
            response[TIME_HEADER] = timezone.now().isoformat(timespec="milliseconds")
        return response


class BodyLimit:
    """Refuse a body over the limit with words a program can read, before anything parses it."""

    def __init__(self, get_response: Handler) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        if request.content_type == "multipart/form-data" and "boundary" not in (request.content_params or {}):
            where = Problem(
                path="Content-Type", says=say("names no boundary"), accepts=say("a form as a browser sends it")
            )
            return refusal([where], 400)
        if request.method in ("POST", "PUT", "PATCH", "DELETE"):
            most, size = _most_and_size(request)
            if size > most:
                accepts = say("at most {most:,} bytes", most=most)
                return refusal([Problem(path="the document", says=say("is too long"), accepts=accepts)], 413)
        return self.get_response(request)


def _most_and_size(request: HttpRequest) -> tuple[int, int]:
    """How large a body may be, and how large it is; one that carries a file goes by what it says it weighs."""
    of_file = next((most for where, most in _FILES if where.match(request.path)), None)
    if of_file is not None and request.content_type == "multipart/form-data":
        said = str(request.META.get("CONTENT_LENGTH") or "")
        return of_file, int(said) if said.isdigit() else of_file + 1
    most = settings.MOST_BODY_BYTES
    try:
        return most, len(request.body)
    except RequestDataTooBig:
        return most, most + 1


class ReadableRefusals:
    """A method that an address does not have is refused in a body like any other, not in a page."""

    def __init__(self, get_response: Handler) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        response = self.get_response(request)
        if response.status_code != 405:
            return response
        allowed = response["Allow"]
        readable = refusal(
            [Problem(path="address", says=say("does not take {method}", method=request.method), accepts=allowed)], 405
        )
        readable["Allow"] = allowed
        return readable


class SlidingSession:
    """A session lasts from the day on which it was last used, at one row written a day."""

    def __init__(self, get_response: Handler) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        response = self.get_response(request)
        session = request.session
        if settings.SESSION_COOKIE_NAME in request.COOKIES and not session.is_empty():
            now = timezone.now().timestamp()
            if now - session.get(_SLID, 0.0) > _SLIDE_AFTER.total_seconds() and session.get("_auth_user_id"):
                session[_SLID] = now
                if isinstance(request.user, User):
                    mark_browser_used(request, request.user, timezone.now())
        return response
