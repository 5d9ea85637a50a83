"""The members of a kitchen's household: invited with a single-use key, in a role, and removed."""

from __future__ import annotations

from datetime import datetime, timedelta

from django.contrib.auth.models import User
from django.contrib.auth.password_validation import validate_password
from django.contrib.sessions.models import Session
from django.core.exceptions import ValidationError

from kemble.core.facts.problems import refuse
from kemble.core.sentences import say
from kemble.server.accounts.name_lookalikes import is_name, name_it_resembles
from kemble.server.accounts.roles import Role
from kemble.server.accounts.sign_in_keys import digest_of, fresh_key
from kemble.server.models import Browser, Invitation, KitchenRecord, Member
from kemble.server.storage.fair_lock import writing

INVITED_FOR = timedelta(days=7)
MOST = 30  # of a household, and invitations that wait


def open_invitations(kitchen: KitchenRecord, now: datetime) -> list[Invitation]:
    """Those that wait to be taken. What is too old goes."""
    with writing():
        kitchen.invitations.filter(made__lte=now - INVITED_FOR).delete()
        return list(kitchen.invitations.all())


def invite(kitchen: KitchenRecord, name: str, role: Role, now: datetime) -> tuple[Invitation, str]:
    """An invitation, and its key, which is told this once."""
    key = fresh_key()
    with writing():
        if kitchen.members.count() + len(open_invitations(kitchen, now)) >= MOST:
            refuse(
                "invitation",
                say("is one too many: a household is at most {most}", most=MOST),
                say("one sent away or taken back first"),
            )
        row = Invitation.objects.create(kitchen=kitchen, digest=digest_of(key), name=name, role=role, made=now)
    return row, key


def invitation_of(key: str, now: datetime) -> Invitation:
    """The invitation of a key; refused when there is none."""
    invitation = (
        Invitation.objects.select_related("kitchen").filter(digest=digest_of(key), made__gt=now - INVITED_FOR).first()
    )
    if invitation is None:
        refuse(
            "key",
            say("has been used, was taken back, or is too old"),
            say("a new invitation from the owner of the kitchen"),
        )
    assert invitation is not None
    return invitation


def accept_invitation(key: str, name: str, password: str, now: datetime) -> User:
    """Come into the household by an invitation, under a name and a password of one's own."""
    invitation_of(key, now)
    user = User(username=name)
    if not is_name(name):
        refuse(
            "name",
            say("has something in it that is no name"),
            say("letters and figures without a space, such as rye_2"),
        )
    user.set_password(good_password(password, user))
    with writing():
        invitation = invitation_of(key, now)
        taken = name_it_resembles(name, User.objects.values_list("username", flat=True))
        if taken is not None:
            refuse("name", say("is taken, or reads like “{taken}”", taken=taken), say("another one"))
        user.save()
        Member.objects.create(kitchen=invitation.kitchen, user=user, role=invitation.role, since=now)
        invitation.delete()
    return user


def good_password(password: str, user: User) -> str:
    """The password; refused when it can be guessed."""
    try:
        validate_password(password, user)
    except ValidationError as error:
        says = error.messages[0].rstrip(".")
        refuse("password", says[:1].lower() + says[1:], say("another one"))
    return password


def give_role(member: Member, role: Role) -> None:
    """From the next request on."""
    _not_the_owner(member)
    with writing():
        Member.objects.filter(pk=member.pk).update(role=role)


def send_away(member: Member) -> None:
    """Out of the household, and out of every browser. What they made stays."""
    _not_the_owner(member)
    with writing():
        Session.objects.filter(
            session_key__in=Browser.objects.filter(user=member.user_id).values("session_key")
        ).delete()
        User.objects.filter(pk=member.user_id).delete()


def _not_the_owner(member: Member) -> None:
    if member.role == Role.OWNER:
        refuse("member", say("is the owner"), say("one of the others"))
