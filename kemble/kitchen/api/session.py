"""Who is asking: no password on the kitchen's own machine, a name and a password from anywhere else."""

from __future__ import annotations

from django.contrib.auth import authenticate, login, logout, update_session_auth_hash
from django.contrib.auth.models import User
from django.contrib.auth.password_validation import validate_password
from django.core.cache import cache
from django.core.exceptions import ValidationError
from django.http import HttpRequest
from django.views.decorators.csrf import csrf_protect
from ninja import Router
from ninja.decorators import decorate_view

from kemble.core.problems import Problem, Refused
from kemble.kitchen.api.bodies import NewPassword, SignIn
from kemble.kitchen.api.refusal import REFUSALS, refusal
from kemble.kitchen.api.views import Session
from kemble.kitchen.middleware import from_loopback

router = Router(tags=["session"])
MOST_FAILURES = 10
FORGET_AFTER_S = 300


def _session(request: HttpRequest) -> Session:
    user = request.user
    known = isinstance(user, User)
    return Session(
        signed_in=known,
        name=user.get_username() if known else "",
        local=from_loopback(request),
        has_password=isinstance(user, User) and user.has_usable_password(),
    )


@router.get("/session", response={200: Session, **REFUSALS}, auth=None)
def who(request: HttpRequest) -> Session:
    return _session(request)


@router.post("/session", response={200: Session, **REFUSALS}, auth=None)
@decorate_view(csrf_protect)
def sign_in(request: HttpRequest, sign_in: SignIn):  # type: ignore[no-untyped-def]
    """Sign in with a name and a password. Ten wrong tries from one address, and it must wait five minutes."""
    key = f"sign-in:{request.META.get('REMOTE_ADDR')}"
    if (cache.get_or_set(key, 0, FORGET_AFTER_S) or 0) >= MOST_FAILURES:
        return refusal(
            [Problem(path="password", says="has been wrong too often", accepts="another try in five minutes")],
            429,
        )
    user = authenticate(request, username=sign_in.username, password=sign_in.password)
    if user is None:
        cache.incr(key)
        return refusal(
            [
                Problem(
                    path="password",
                    says="does not go with that name",
                    accepts="the name and password set in the kitchen",
                )
            ],
            422,
        )
    login(request, user)
    return _session(request)


@router.delete("/session", response={200: Session, **REFUSALS})
def sign_out(request: HttpRequest) -> Session:
    logout(request)
    return _session(request)


@router.put("/session/password", response={200: Session, **REFUSALS})
def set_password(request: HttpRequest, new_password: NewPassword) -> Session:
    """The password for other devices in the house."""
    user = request.user
    assert isinstance(user, User)
    try:
        validate_password(new_password.password, user)
    except ValidationError as error:
        says = error.messages[0].rstrip(".")
        raise Refused([Problem(path="password", says=says[:1].lower() + says[1:], accepts="another one")]) from None
    user.set_password(new_password.password)
    user.save()
    update_session_auth_hash(request, user)
    return _session(request)
