"""The door: keys that open it once, and how often a password may be tried.

Nobody is let in for where they seem to ask from: a forwarder on this machine has its address and can send its name. The
start command prints an address with a key that is good once; every other browser gives a name and a password.
"""

from __future__ import annotations

import hashlib
import secrets
from datetime import datetime, timedelta

from django.conf import settings
from django.core.signing import BadSignature, TimestampSigner
from django.http import HttpRequest, HttpResponse

from kemble.core.words import say
from kemble.server.models import DoorKey, Try
from kemble.server.turns import writing

KEY_LASTS = timedelta(days=1)
MOST_TRIES = 10
FORGIVEN_AFTER = timedelta(minutes=5)  # so long a wrong try counts
_KNOWN_COOKIE = "kemble-known"
_KNOWN_FOR = timedelta(days=365)


def fresh_key() -> str:
    """A key that nobody guesses; what is kept of it is its digest."""
    return secrets.token_urlsafe(24)


def digest_of(key: str) -> str:
    return hashlib.sha256(key.encode()).hexdigest()


def new_key(now: datetime) -> str:
    """A key that opens the door once, within a day. Those of earlier starts are good no longer."""
    key = fresh_key()
    with writing():
        DoorKey.objects.all().delete()
        DoorKey.objects.create(digest=digest_of(key), made=now)
    return key


def use_key(key: str, now: datetime) -> bool:
    """Whether the key opened the door; it does so no second time, however many try at once."""
    with writing():
        used, _ = DoorKey.objects.filter(digest=digest_of(key), made__gt=now - KEY_LASTS).delete()
    return bool(used)


def who(request: HttpRequest) -> str:
    """Whom a try is counted against: a browser that has signed in here before by itself, any other by its address.

    So a phone that forgot its password does not shut the door on those behind the same address that know it.
    """
    try:
        known = TimestampSigner(salt=_KNOWN_COOKIE).unsign(request.COOKIES.get(_KNOWN_COOKIE, ""), max_age=_KNOWN_FOR)
    except BadSignature:
        return say("address {get}", get=request.META.get("REMOTE_ADDR", ""))[:80]
    return say("browser {known}", known=known)[:80]


def remember(response: HttpResponse) -> None:
    """Know this browser again: it has given the right password."""
    value = TimestampSigner(salt=_KNOWN_COOKIE).sign(secrets.token_hex(8))
    response.set_cookie(
        _KNOWN_COOKIE, value, max_age=_KNOWN_FOR, httponly=True, samesite="Lax", secure=settings.SESSION_COOKIE_SECURE
    )


def may_try(name: str, now: datetime) -> datetime | None:
    """Enter a try before it is made, so that sixty at once are ten. When none is left: the instant of the next one."""
    since = now - FORGIVEN_AFTER
    with writing():
        Try.objects.filter(at__lt=since).delete()
        tries = list(Try.objects.filter(who=name).order_by("-at").values_list("at", flat=True)[:MOST_TRIES])
        if len(tries) == MOST_TRIES:
            return tries[-1] + FORGIVEN_AFTER
        Try.objects.create(who=name, at=now)
    return None


def forgive(name: str) -> None:
    """The password was right: what was wrong before counts no more."""
    with writing():
        Try.objects.filter(who=name).delete()
