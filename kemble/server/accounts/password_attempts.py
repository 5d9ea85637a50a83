"""Limits password attempts by account, browser and address.

A browser on which somebody has signed in before has a small count of its own for that account, so that others' wrong
tries do not lock its owner out; it is limited too, for a tablet in a kitchen is shared. Every other try counts against
the account, wherever it comes from, and against the browser and the address, whichever account it is for. A success
forgives the wrong tries of its own account from the same place, and no others.
"""

from __future__ import annotations

import hashlib
import secrets
import unicodedata
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Final

from django.conf import settings
from django.contrib.auth.models import User
from django.core.signing import BadSignature, TimestampSigner
from django.db.models import Q, QuerySet
from django.http import HttpRequest, HttpResponse

from kemble.server.models import PasswordAttempt
from kemble.server.storage.fair_lock import writing

FORGOTTEN_AFTER: Final = timedelta(minutes=5)  # so long a wrong try counts
MAX_FOR_ACCOUNT: Final = 10  # from browsers on which it has not signed in
MAX_FROM_OWN_BROWSER: Final = 5  # for an account, on a browser on which it has signed in
MAX_FROM_PLACE: Final = 30  # from one browser or address, whatever the accounts
_COOKIE: Final = "kemble-known"
_COOKIE_LASTS: Final = timedelta(days=365)
_MAX_USERS: Final = 30  # remembered of one browser: as many as a household may have


@dataclass(frozen=True, slots=True)
class KnownBrowser:
    """A browser by its signed cookie: its own id ("" when it has none), and who has signed in on it before."""

    id: str = ""
    users: tuple[int, ...] = ()


def known_browser(request: HttpRequest) -> KnownBrowser:
    """The browser that asks. A cookie that is missing, old or made up is nobody's."""
    try:
        told = TimestampSigner(salt=_COOKIE).unsign(request.COOKIES.get(_COOKIE, ""), max_age=_COOKIE_LASTS)
    except BadSignature:
        return KnownBrowser()
    browser, *users = told.split(".")
    return KnownBrowser(browser[:32], tuple(int(user) for user in users if user.isdigit()))


def remember_browser(request: HttpRequest, response: HttpResponse, user: User) -> None:
    """Know this browser again as one on which this user has signed in. It keeps its id, and so its counts."""
    known = known_browser(request)
    users = [*(other for other in known.users if other != user.pk), user.pk][-_MAX_USERS:]
    told = ".".join([known.id or secrets.token_hex(16), *map(str, users)])
    response.set_cookie(
        _COOKIE,
        TimestampSigner(salt=_COOKIE).sign(told),
        max_age=_COOKIE_LASTS,
        httponly=True,
        samesite="Lax",
        secure=settings.SESSION_COOKIE_SECURE,
    )


def account_digest(username: str) -> str:
    """What an account's tries are counted under: names that read alike are one, and a password that was typed into the
    wrong field is not kept."""
    return hashlib.sha256(unicodedata.normalize("NFKC", username).casefold().encode()).hexdigest()


def enter_attempt(request: HttpRequest, username: str, now: datetime) -> datetime | None:
    """Enter a try before it is made, so that sixty at once are ten. When none is left: the instant of the next one."""
    browser, account = known_browser(request), account_digest(username)
    user = User.objects.filter(username=username).only("pk").first()
    own = user is not None and user.pk in browser.users
    address = _client_address(request)
    with writing():
        PasswordAttempt.objects.filter(at__lt=now - FORGOTTEN_AFTER).delete()
        rows = PasswordAttempt.objects.filter(on_own_browser=own)
        place = Q(address=address) | Q(browser=browser.id) if browser.id else Q(address=address)
        if own:
            limits = [(rows.filter(account=account, browser=browser.id), MAX_FROM_OWN_BROWSER)]
        else:
            limits = [(rows.filter(account=account), MAX_FOR_ACCOUNT), (rows.filter(place), MAX_FROM_PLACE)]
        waits = [until for counted, most in limits if (until := _next_try(counted, most)) is not None]
        if waits:
            return max(waits)
        PasswordAttempt.objects.create(account=account, browser=browser.id, address=address, on_own_browser=own, at=now)
    return None


def forgive(request: HttpRequest, username: str) -> None:
    """The password was right: this account's wrong tries from this place count no more."""
    browser, account = known_browser(request), account_digest(username)
    with writing():
        own = PasswordAttempt.objects.filter(account=account)
        place = Q(address=_client_address(request), on_own_browser=False)
        own.filter(place | Q(browser=browser.id) if browser.id else place).delete()


def _client_address(request: HttpRequest) -> str:
    return str(request.META.get("REMOTE_ADDR", ""))[:60]


def _next_try(counted: QuerySet[PasswordAttempt], most: int) -> datetime | None:
    """When there is one more of `most` tries; None when there is one now."""
    newest = list(counted.order_by("-at").values_list("at", flat=True)[:most])
    return newest[-1] + FORGOTTEN_AFTER if len(newest) == most else None
