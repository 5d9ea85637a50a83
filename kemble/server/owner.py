"""The owner of a local kitchen, made on first use with a password that no one can type."""

from __future__ import annotations

from django.contrib.auth.models import User

from kemble.core.kitchen.document import Kitchen
from kemble.server.models import KitchenRecord
from kemble.server.place import local_zone
from kemble.server.turns import writing

OWNER = "owner"


def local_owner() -> User:
    """The local owner, with a kitchen of their own. Made if missing."""
    with writing():
        user, made = User.objects.get_or_create(username=OWNER)
        if made:
            user.set_unusable_password()
            user.save()
        if not KitchenRecord.objects.filter(members=user).exists():
            kitchen = KitchenRecord.objects.create(document=Kitchen(timezone=local_zone()).model_dump(mode="json"))
            kitchen.members.add(user)
    return user


def kitchen_of(user: User) -> KitchenRecord:
    """The kitchen that a signed-in person works in."""
    return KitchenRecord.objects.filter(members=user).earliest("id")


def is_owners(kitchen: KitchenRecord) -> bool:
    """Whether it is the local owner's."""
    return bool(kitchen.members.filter(pk__in=User.objects.filter(username=OWNER)).exists())
