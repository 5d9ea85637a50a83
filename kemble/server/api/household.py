"""The household: who is in, asked in with a key that is good once, in which role, and sent away."""

from __future__ import annotations

from datetime import datetime

from django.conf import settings
from django.contrib.auth import login
from django.http import Http404, HttpRequest, HttpResponse
from django.http.request import split_domain_port
from django.shortcuts import get_object_or_404
from django.utils import timezone
from django.views.decorators.csrf import csrf_protect
from ninja import Router
from ninja.decorators import decorate_view
from ninja.responses import Status
from pydantic import BaseModel, Field

from kemble.server.accounts import browsers, password_attempts
from kemble.server.accounts import household as house
from kemble.server.accounts.roles import InvitedRole, Role
from kemble.server.api.request_body import RequestBody, kitchen_of_request
from kemble.server.api.session import BACKEND, BrowserCard, Session, browser_cards, session_of
from kemble.server.models import Browser, Invitation, Member
from kemble.server.web.qr_code import qr_svg

router = Router(tags=["household"])


class Invite(RequestBody):
    name: str = Field(min_length=1, max_length=40, description="for whom, at most 40 letters")
    role: InvitedRole = Field(description="cook, helper or taster")


class GiveRole(RequestBody):
    role: InvitedRole = Field(description="cook, helper or taster")


class InvitedKey(RequestBody):
    key: str = Field(min_length=8, max_length=100, description="the key of an invitation")


class AcceptInvitation(InvitedKey):
    name: str = Field(min_length=1, max_length=30, description="a name of your own, at most 30 letters")
    password: str = Field(min_length=10, max_length=200, description="at least 10 letters or figures")


class MemberCard(BaseModel):
    """One of the household, and the browsers that are signed in as them. `me`: it is who asks."""

    id: int
    name: str
    role: Role
    since: datetime
    me: bool
    browsers: list[BrowserCard]


class InvitationCard(BaseModel):
    """One that waits, until when."""

    id: int
    name: str
    role: Role
    until: datetime


class HouseholdPage(BaseModel):
    members: list[MemberCard]
    invitations: list[InvitationCard]


class NewInvitation(BaseModel):
    """`address` holds the key, which is told this once; `svg` is the address for a camera. `here_only`: it names this
    machine by a name that no other machine knows it by."""

    invitation: InvitationCard
    address: str
    svg: str
    here_only: bool


class InvitationOffer(BaseModel):
    """What an invitation is to."""

    kitchen: str
    name: str
    role: Role


def _invitation_card(row: Invitation) -> InvitationCard:
    return InvitationCard(id=row.pk, name=row.name, role=Role(row.role), until=row.made + house.INVITED_FOR)


def _household(request: HttpRequest) -> HouseholdPage:
    kitchen, now = kitchen_of_request(request), timezone.now()
    members = [
        MemberCard(
            id=member.pk,
            name=member.user.get_username(),
            role=Role(member.role),
            since=member.since,
            me=member.user_id == request.user.pk,
            browsers=browser_cards(request, member.user, now),
        )
        for member in kitchen.members.select_related("user")
    ]
    return HouseholdPage(
        members=members, invitations=[_invitation_card(row) for row in house.open_invitations(kitchen, now)]
    )


def _member(request: HttpRequest, member_id: int) -> Member:
    return get_object_or_404(Member, pk=member_id, kitchen=kitchen_of_request(request))


@router.get("/household", response={200: HouseholdPage})
def household(request: HttpRequest) -> HouseholdPage:
    """Who is in, and who was asked."""
    return _household(request)


@router.put("/household/{int:member_id}", response={200: HouseholdPage})
def give_role(request: HttpRequest, member_id: int, give_role: GiveRole) -> HouseholdPage:
    house.give_role(_member(request, member_id), give_role.role)
    return _household(request)


@router.delete("/household/{int:member_id}", response={200: HouseholdPage})
def send_away(request: HttpRequest, member_id: int) -> HouseholdPage:
    """Out of the household and every browser. What they made stays."""
    house.send_away(_member(request, member_id))
    return _household(request)


@router.delete("/household/browsers/{int:number}", response={200: HouseholdPage})
def send_browser_away(request: HttpRequest, number: int) -> HouseholdPage:
    """Sign a browser of any of the household out: a tablet that was lost."""
    browser = get_object_or_404(Browser, pk=number, user__member__kitchen=kitchen_of_request(request))
    if not browsers.send_away(browser.user, number):
        raise Http404
    return _household(request)


@router.post("/household/invitations", response={200: NewInvitation})
def invite(request: HttpRequest, invite: Invite) -> NewInvitation:
    """Ask one more in. The address is good once, for a week."""
    row, key = house.invite(
        kitchen_of_request(request), invite.name.strip() or invite.name, invite.role, timezone.now()
    )
    address = request.build_absolute_uri(f"/#invited={key}")
    here_only = split_domain_port(request.get_host())[0] in settings.LOOPBACK_HOSTS
    return NewInvitation(invitation=_invitation_card(row), address=address, svg=qr_svg(address), here_only=here_only)


@router.delete("/household/invitations/{int:invitation_id}", response={204: None})
def take_back(request: HttpRequest, invitation_id: int) -> Status[None]:
    get_object_or_404(Invitation, pk=invitation_id, kitchen=kitchen_of_request(request)).delete()
    return Status(204, None)


@router.post("/session/invited/look", response={200: InvitationOffer}, auth=None)
@decorate_view(csrf_protect)
def look_at_invitation(request: HttpRequest, invited_key: InvitedKey) -> InvitationOffer:
    """What an invitation is to, before it is taken."""
    row = house.invitation_of(invited_key.key, timezone.now())
    return InvitationOffer(kitchen=row.kitchen.settings.name, name=row.name, role=Role(row.role))


@router.post("/session/invited", response={200: Session}, auth=None)
@decorate_view(csrf_protect)
def take_invitation(request: HttpRequest, take_up: AcceptInvitation, response: HttpResponse) -> Session:
    """Come into the household, under a name and a password of one's own."""
    now = timezone.now()
    user = house.accept_invitation(take_up.key, take_up.name.strip(), take_up.password, now)
    password_attempts.remember_browser(request, response, user)
    login(request, user, backend=BACKEND)
    browsers.record_browser(request, user, now)
    return session_of(request)
