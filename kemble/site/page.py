"""The page that carries the front end, with the nonce that lets the dialogs' own style sheets in."""

from __future__ import annotations

import sys
from functools import lru_cache
from pathlib import Path

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.views.decorators.cache import never_cache
from django.views.decorators.csrf import ensure_csrf_cookie
from django.views.decorators.http import require_safe

from kemble.core.facts.problems import Problem
from kemble.server.api.error_responses import TOKEN_LOST, refusal
from kemble.server.web.error_response import fault_response
from kemble.server.web.request_language import locale_for

NONCE_MARK = "__KEMBLE_NONCE__"
LOCALE_MARK = '<html lang="en">'


@lru_cache(maxsize=1)
def _index_html(path: Path, _changed: float) -> str:
    return path.read_text(encoding="utf-8")


@require_safe
@never_cache
@ensure_csrf_cookie
def page(request: HttpRequest) -> HttpResponse:
    index = settings.WEB_BUILD / "index.html"
    if not index.is_file():
        return HttpResponse(
            "The front end has not been built yet. Run: make build\n", status=503, content_type="text/plain"
        )
    text = _index_html(index, index.stat().st_mtime)
    text = text.replace(LOCALE_MARK, f'<html lang="{locale_for(request.user)}">', 1)
    return HttpResponse(text.replace(NONCE_MARK, str(request.csp_nonce)))  # type: ignore[attr-defined]


def missing(request: HttpRequest, exception: Exception) -> HttpResponse:
    """An address that does not exist. The front end answers its own; what is left is the API's and files."""
    return refusal([Problem(path="address", says="nothing is at this address")], 404)


def unfit(request: HttpRequest, exception: Exception) -> HttpResponse:
    """A request that is none: most often a host name that Kemble has not been told is its own."""
    return refusal([Problem(path="host", says="is not one of this kitchen's", accepts="a name in KEMBLE_HOSTS")], 400)


def failed(request: HttpRequest) -> HttpResponse:
    """A fault of ours outside the API, under a number, in a body that a program can read."""
    return fault_response(request, sys.exc_info()[1] or RuntimeError("unknown"))


def forged(request: HttpRequest, reason: str = "") -> HttpResponse:
    return refusal([TOKEN_LOST], 403)
