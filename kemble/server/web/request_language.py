"""The language of whoever asks: that of their kitchen, and English for everybody who is not in one."""

from __future__ import annotations

from django.contrib.auth.models import AnonymousUser, User

from kemble.core.kitchen.document import Kitchen
from kemble.core.sentences import speak
from kemble.server.models import Member
from kemble.words import tongue_of

USUAL: str = Kitchen.model_fields["locale"].default


def locale_of(member: Member | None) -> str:
    """A locale such as "en-GB"."""
    return str(member.kitchen.document.get("locale", USUAL)) if member else USUAL


def locale_for(user: User | AnonymousUser) -> str:
    """The locale of the page that somebody asks for."""
    if not isinstance(user, User):
        return USUAL
    return locale_of(Member.objects.select_related("kitchen").filter(user=user).first())


def speak_as(locale: str) -> None:
    """From here on in this request, or in this work."""
    speak(tongue_of(locale))
