"""Print a key that lets one more browser in, once. Kemble may be running."""

from __future__ import annotations

from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError
from django.utils import timezone

from kemble.server.accounts.owner import local_owner
from kemble.server.accounts.sign_in_keys import new_key


class Command(BaseCommand):
    help = "Print what to put behind Kemble's address to come in without a password, once."

    def handle(self, *args: Any, **options: Any) -> None:
        if settings.ASK_ALWAYS:
            raise CommandError("KEMBLE_ASK is set: everybody gives the password.")
        local_owner()
        print(f"Put this behind the address, within a day: /#key={new_key(timezone.now())}")
