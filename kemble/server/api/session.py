"""Who is asking: whoever holds the key that the start command printed, or knows the name and the password."""

from __future__ import annotations

from datetime import datetime
from zoneinfo import ZoneInfo

from django.contrib.auth import authenticate, login, logout, update_session_auth_hash
from django.contrib.auth.models import User
from django.http import Http404, HttpRequest, HttpResponse
from django.utils import timezone
from django.views.decorators.csrf import csrf_protect, ensure_csrf_cookie
from ninja import Router
from ninja.decorators import decorate_view
from ninja.responses import Status
from pydantic import BaseModel, Field

from kemble.core.facts.problems import Problem, refuse
from kemble.core.sentences import say
from kemble.server.accounts import browsers, password_attempts, second_factor, sign_in_keys
from kemble.server.accounts.household import good_password
from kemble.server.accounts.owner import local_owner
from kemble.server.accounts.roles import Role
from kemble.server.api.error_responses import refusal
from kemble.server.api.request_body import RequestBody
from kemble.server.models import Member
from kemble.server.web.qr_code import qr_svg
from kemble.server.web.time_zone import local_zone

router = Router(tags=["session"])
BACKEND = "django.contrib.auth.backends.ModelBackend"


class UseKey(RequestBody):
    key: str = Field(min_length=8, max_length=100, description="the key that the start command printed")


class SignIn(RequestBody):
    """`code`: of the second factor, where one is on; asked for when it is missing."""

    username: str = Field(min_length=1, max_length=150, description="your name")
    password: str = Field(min_length=1, max_length=200, description="your password")
    code: str = Field("", max_length=12, description="six figures")


class NewPassword(RequestBody):
    """`old`: the one that is set, where one is."""

    password: str = Field(min_length=10, max_length=200, description="at least 10 letters or figures")
    old: str = Field("", max_length=200, description="the password that is set now")


class SecondFactorCode(RequestBody):
    code: str = Field(min_length=6, max_length=12, description="six figures")


class Session(BaseModel):
    """Who is asking, and what they are in the household (none: of no household). `has_password`: other browsers can come
    in with one; `second_factor`: with a code beside it."""

    signed_in: bool
    name: str
    role: Role | None
    has_password: bool
    second_factor: bool


class BrowserCard(BaseModel):
    """A browser that is signed in; `here`: it is the one that asks. `mark_browser_used` is told to the day."""

    id: int
    name: str
    made: datetime
    seen: datetime
    here: bool


class SecondFactorSetup(BaseModel):
    """What a phone is told: the secret, its address, and that as a drawing for a camera. On once a code was right."""

    secret: str
    address: str
    svg: str


def _me(request: HttpRequest) -> User:
    """Who asks, where nobody else gets so far."""
    assert isinstance(request.user, User)
    return request.user


def session_of(request: HttpRequest) -> Session:
    user = request.user
    known = isinstance(user, User)
    member = Member.objects.filter(user=user).first() if isinstance(user, User) else None
    return Session(
        signed_in=known,
        name=user.get_username() if known else "",
        role=Role(member.role) if member else None,
        has_password=isinstance(user, User) and user.has_usable_password(),
        second_factor=isinstance(user, User) and second_factor.is_on(user),
    )


def browser_cards(request: HttpRequest, user: User, now: datetime) -> list[BrowserCard]:
    """The browsers that are signed in as somebody."""
    here = request.session.session_key
    return [
        BrowserCard(
            id=browser.pk, name=browser.name, made=browser.made, seen=browser.seen, here=browser.session_key == here
        )
        for browser in browsers.browsers_of(user, now)
    ]


@router.get("/session", response={200: Session}, auth=None)
@decorate_view(ensure_csrf_cookie)
def who(request: HttpRequest) -> Session:
    """Also gives the page a new token for its changes, when it has lost its own."""
    return session_of(request)


@router.post("/session/key", response={200: Session}, auth=None)
@decorate_view(csrf_protect)
def use_key(request: HttpRequest, use_key: UseKey, response: HttpResponse) -> Session:
    """Come in as the owner with the key of the start command. It is good once."""
    if not sign_in_keys.use_key(use_key.key, timezone.now()):
        says = say("has been used, or is too old")
        refuse("key", says, say("a new one (make key), or the password"))
    owner = local_owner()
    password_attempts.remember_browser(request, response, owner)
    login(request, owner, backend=BACKEND)
    browsers.record_browser(request, owner, timezone.now())
    return session_of(request)


@router.post("/session", response={200: Session}, auth=None)
@decorate_view(csrf_protect)
def sign_in(request: HttpRequest, sign_in: SignIn, response: HttpResponse):  # type: ignore[no-untyped-def]
    """Sign in with a name and a password. After ten wrong tries one has to wait for the oldest to be forgotten."""
    now = timezone.now()
    too_often = _too_often(request, sign_in.username, now)
    if too_often is not None:
        return too_often
    user = authenticate(request, username=sign_in.username, password=sign_in.password)
    if user is None:
        accepts = say("the name and password set in the kitchen")
        refuse("password", say("does not go with that name"), accepts)
    assert isinstance(user, User)
    if second_factor.is_on(user) and not second_factor.takes(user, sign_in.code, now):
        says = say("is not right just now, or was used before") if sign_in.code else say("is asked for too")
        refuse("code", says, say("the six figures that your phone shows"))
    password_attempts.forgive(request, sign_in.username)
    password_attempts.remember_browser(request, response, user)
    login(request, user)
    browsers.record_browser(request, user, now)
    return session_of(request)


def _too_often(request: HttpRequest, username: str, now: datetime) -> HttpResponse | None:
    """The answer to one try too many at an account."""
    again = password_attempts.enter_attempt(request, username, now)
    if again is None:
        return None
    at = again.astimezone(ZoneInfo(local_zone()))
    accepts = say("another try at {at:%H:%M:%S}", at=at)
    return refusal([Problem(path="password", says=say("has been wrong too often"), accepts=accepts)], 429)


@router.delete("/session", response={200: Session})
def sign_out(request: HttpRequest) -> Session:
    browsers.forget_browser(request.session.session_key)
    logout(request)
    return session_of(request)


@router.put("/session/password", response={200: Session})
def set_password(request: HttpRequest, new_password: NewPassword):  # type: ignore[no-untyped-def]
    """The password for other devices in the house. Where one is set it is asked for; every other browser is signed out."""
    user = _me(request)
    if user.has_usable_password():
        too_often = _too_often(request, user.get_username(), timezone.now())
        if too_often is not None:
            return too_often
        if not user.check_password(new_password.old):
            refuse(
                "old",
                say("is not the password that is set"),
                say("the one that is set now; forgotten, make password sets one"),
            )
        password_attempts.forgive(request, user.get_username())
    user.set_password(good_password(new_password.password, user))
    user.save()
    before = request.session.session_key
    update_session_auth_hash(request, user)
    request.session.save()
    browsers.send_all_away_but(request, user, before)
    return session_of(request)


@router.get("/session/browsers", response={200: list[BrowserCard]})
def signed_in(request: HttpRequest) -> list[BrowserCard]:
    """The browsers that are signed in as who asks."""
    return browser_cards(request, _me(request), timezone.now())


@router.delete("/session/browsers/{int:number}", response={204: None})
def send_away(request: HttpRequest, number: int) -> Status[None]:
    """Sign one out, wherever it is."""
    user = _me(request)
    if not browsers.send_away(user, number):
        raise Http404
    return Status(204, None)


@router.post("/session/second-factor", response={200: SecondFactorSetup})
def begin_factor(request: HttpRequest) -> SecondFactorSetup:
    """Begin a second factor: a new secret, which is asked for once a code of it was right."""
    user = _me(request)
    if second_factor.is_on(user):
        refuse("code", say("is asked for already"), say("to turn it off first"))
    factor = second_factor.begin_second_factor(user)
    address = second_factor.otpauth_address(factor)
    return SecondFactorSetup(secret=factor.secret, address=address, svg=qr_svg(address))


@router.put("/session/second-factor", response={200: Session})
def turn_factor_on(request: HttpRequest, given_code: SecondFactorCode):  # type: ignore[no-untyped-def]
    """From here on a code is asked for beside the password."""
    return _with_code(request, given_code.code, turns_on=True)


@router.post("/session/second-factor/off", response={200: Session})
def turn_factor_off(request: HttpRequest, given_code: SecondFactorCode):  # type: ignore[no-untyped-def]
    """No code is asked for any more; a last one is."""
    return _with_code(request, given_code.code, turns_on=False)


def _with_code(request: HttpRequest, code: str, *, turns_on: bool):  # type: ignore[no-untyped-def]
    user, now = _me(request), timezone.now()
    too_often = _too_often(request, user.get_username(), now)
    if too_often is not None:
        return too_often
    if not second_factor.takes(user, code, now, turns_on=turns_on):
        refuse("code", say("is not right just now, or was used before"), say("the six figures that your phone shows"))
    password_attempts.forgive(request, user.get_username())
    if not turns_on:
        second_factor.turn_off(user)
    return session_of(request)
