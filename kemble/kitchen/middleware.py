"""Who may come in, and how much they may carry."""

from __future__ import annotations

from collections.abc import Callable

from django.conf import settings
from django.contrib.auth import login
from django.core.exceptions import RequestDataTooBig
from django.http import HttpRequest, HttpResponse, JsonResponse

from kemble.core.problems import Problem
from kemble.kitchen.owner import local_owner

Handler = Callable[[HttpRequest], HttpResponse]
_FORWARDED = ("HTTP_FORWARDED", "HTTP_X_FORWARDED_FOR", "HTTP_X_FORWARDED_HOST", "HTTP_X_REAL_IP")
_LOOPBACK = ("127.0.0.1", "::1")


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
                problem = Problem(
                    path="the document",
                    says="is too long",
                    accepts=f"at most {settings.MOST_BODY_BYTES:,} bytes",
                )
                return JsonResponse({"problems": [problem.model_dump()], "worked": None}, status=413)
        return self.get_response(request)


def from_loopback(request: HttpRequest) -> bool:
    """Whether the request comes from this very machine, by address and by name, and through no proxy."""
    host = request.get_host().rsplit(":", 1)[0] if not request.get_host().endswith("]") else request.get_host()
    return (
        request.META.get("REMOTE_ADDR") in _LOOPBACK
        and host in settings.LOOPBACK_HOSTS
        and not any(name in request.META for name in _FORWARDED)
    )


class LocalOwner:
    """On the loopback address, and only there, sign the kitchen's owner in without a password."""

    def __init__(self, get_response: Handler) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        if not request.user.is_authenticated and from_loopback(request):
            login(request, local_owner(), backend="django.contrib.auth.backends.ModelBackend")
        return self.get_response(request)
