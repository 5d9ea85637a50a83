"""Set the owner's password from the terminal, before anybody can come in through a browser."""

from __future__ import annotations

from getpass import getpass
from typing import Any

from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.core.management.base import BaseCommand, CommandError

from kemble.server.accounts.owner import OWNER, local_owner


class Command(BaseCommand):
    help = "Set the password with which browsers come in."

    def handle(self, *args: Any, **options: Any) -> None:
        owner = local_owner()
        typed = getpass(f"A password for {OWNER}: ")
        try:
            validate_password(typed, owner)
        except ValidationError as error:
            raise CommandError(error.messages[0]) from None
        if typed != getpass("The same again: "):
            raise CommandError("The two are not the same; nothing has been changed.")
        owner.set_password(typed)
        owner.save()
        print(f"The password of {OWNER} is set.")
