"""The owner of a local kitchen, made on first use with a password that no one can type."""

from __future__ import annotations

from django.contrib.auth.models import User

from kemble.core.kitchen.document import Kitchen
from kemble.server.accounts.roles import Role
from kemble.server.models import KitchenRecord, Member
from kemble.server.storage.fair_lock import writing
from kemble.server.web.time_zone import local_zone

OWNER = "owner"


def local_owner() -> User:
    """The local owner, with a kitchen of their own. Made if missing."""
    with writing():
        user, made = User.objects.get_or_create(username=OWNER)
        if made:
            user.set_unusable_password()
            user.save()
        if not Member.objects.filter(user=user).exists():
            kitchen = KitchenRecord.objects.create(document=Kitchen(timezone=local_zone()).model_dump(mode="json"))
            Member.objects.create(kitchen=kitchen, user=user, role=Role.OWNER)
    return user


def kitchen_of(user: User) -> KitchenRecord:
    """The kitchen of whose household somebody is."""
    return Member.objects.select_related("kitchen").get(user=user).kitchen


def is_owners(kitchen: KitchenRecord) -> bool:
    """Whether it is the local owner's."""
    return Member.objects.filter(kitchen=kitchen, user__username=OWNER).exists()
