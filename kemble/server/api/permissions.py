"""Who may call which operation: a signed-in member of a household, within their role."""

from __future__ import annotations

from typing import Any

from django.contrib.auth.models import User
from django.http import HttpRequest
from ninja.security import SessionAuth

from kemble.server.accounts.roles import Role, operation_of, role_may
from kemble.server.models import Member
from kemble.server.web.request_language import locale_of, speak_as


class RoleForbidden(Exception):
    """Asked for by somebody whose role has no part in it; its text is the role."""


class HouseholdAuth(SessionAuth):
    """Gives the member who asks, with the kitchen, as `request.auth`; from here on their language is spoken."""

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        if not isinstance(request.user, User):
            return None
        member = Member.objects.select_related("kitchen").filter(user=request.user).first()
        if member is not None and not role_may(Role(member.role), operation_of(request)):
            raise RoleForbidden(member.role)
        speak_as(locale_of(member))
        return member
