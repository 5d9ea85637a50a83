"""Who is asking: whoever holds the key that the start command printed, or knows the name and the password."""

from __future__ import annotations

from zoneinfo import ZoneInfo

from django.contrib.auth import authenticate, login, logout, update_session_auth_hash
from django.contrib.auth.models import User
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from django.views.decorators.csrf import csrf_protect, ensure_csrf_cookie
from ninja import Router
from ninja.decorators import decorate_view
from pydantic import BaseModel, Field

from kemble.core.facts.problems import Problem, refuse
from kemble.server import door
from kemble.server.api.asked import Body
from kemble.server.api.refusal import refusal
from kemble.server.owner import local_owner
from kemble.server.place import local_zone

router = Router(tags=["session"])
_BACKEND = "django.contrib.auth.backends.ModelBackend"


class UseKey(Body):
    key: str = Field(min_length=8, max_length=100, description="the key that the start command printed")


class SignIn(Body):
    username: str = Field(min_length=1, max_length=150, description="your name")
    password: str = Field(min_length=1, max_length=200, description="your password")


class NewPassword(Body):
    password: str = Field(min_length=10, max_length=200, description="at least 10 letters or figures")


class Session(BaseModel):
    """Who is asking. `has_password`: other browsers can come in with one."""

    signed_in: bool
    name: str
    has_password: bool


def _session(request: HttpRequest) -> Session:
    user = request.user
    known = isinstance(user, User)
    return Session(
        signed_in=known,
        name=user.get_username() if known else "",
        has_password=isinstance(user, User) and user.has_usable_password(),
    )


@router.get("/session", response={200: Session}, auth=None)
@decorate_view(ensure_csrf_cookie)
def who(request: HttpRequest) -> Session:
    """Also gives the page a new token for its changes, when it has lost its own."""
    return _session(request)


@router.post("/session/key", response={200: Session}, auth=None)
@decorate_view(csrf_protect)
def use_key(request: HttpRequest, use_key: UseKey) -> Session:
    """Come in as the owner with the key of the start command. It is good once."""
    if not door.use_key(use_key.key, timezone.now()):
        says = "has been used, or is too old"
        refuse("key", says, "a new one (make key), or the password")
    login(request, local_owner(), backend=_BACKEND)
    return _session(request)


@router.post("/session", response={200: Session}, auth=None)
@decorate_view(csrf_protect)
def sign_in(request: HttpRequest, sign_in: SignIn, response: HttpResponse):  # type: ignore[no-untyped-def]
    """Sign in with a name and a password. After ten wrong tries one has to wait for the oldest to be forgiven."""
    name = door.who(request)
    again = door.may_try(name, timezone.now())
    if again is not None:
        at = again.astimezone(ZoneInfo(local_zone()))
        accepts = f"another try at {at:%H:%M:%S}"
        return refusal([Problem(path="password", says="has been wrong too often", accepts=accepts)], 429)
    user = authenticate(request, username=sign_in.username, password=sign_in.password)
    if user is None:
        accepts = "the name and password set in the kitchen"
        refuse("password", "does not go with that name", accepts)
    door.forgive(name)
    door.remember(response)
    login(request, user)
    return _session(request)


@router.delete("/session", response={200: Session})
def sign_out(request: HttpRequest) -> Session:
    logout(request)
    return _session(request)


@router.put("/session/password", response={200: Session})
def set_password(request: HttpRequest, new_password: NewPassword) -> Session:
    """The password for other devices in the house."""
    user = request.user
    assert isinstance(user, User)
    try:
        validate_password(new_password.password, user)
    except ValidationError as error:
        says = error.messages[0].rstrip(".")
        refuse("password", says[:1].lower() + says[1:], "another one")
    user.set_password(new_password.password)
    user.save()
    update_session_auth_hash(request, user)
    return _session(request)
