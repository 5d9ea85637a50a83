"""What holds for every request: how much it may carry, how long a session lasts, and that refusals can be read."""

from __future__ import annotations

from collections.abc import Callable
from datetime import timedelta

from django.conf import settings
from django.core.exceptions import RequestDataTooBig
from django.http import HttpRequest, HttpResponse
from django.utils import timezone

from kemble.core.facts.problems import Problem
from kemble.server.api.refusal import refusal

Handler = Callable[[HttpRequest], HttpResponse]
_SLIDE_AFTER = timedelta(days=1)
_SLID = "slid"


class BodyLimit:
    """Refuse a body over the limit with words a program can read, before anything parses it."""

    def __init__(self, get_response: Handler) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        if request.method in ("POST", "PUT", "PATCH", "DELETE"):
            try:
                size = len(request.body)
            except RequestDataTooBig:
                size = settings.MOST_BODY_BYTES + 1
            if size > settings.MOST_BODY_BYTES:
                accepts = f"at most {settings.MOST_BODY_BYTES:,} bytes"
                return refusal([Problem(path="the document", says="is too long", accepts=accepts)], 413)
        return self.get_response(request)


class ReadableRefusals:
    """A method that an address does not have is refused in a body like any other, not in a page."""

    def __init__(self, get_response: Handler) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        response = self.get_response(request)
        if response.status_code != 405:
            return response
        allowed = response["Allow"]
        readable = refusal([Problem(path="address", says=f"does not take {request.method}", accepts=allowed)], 405)
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
        return response
