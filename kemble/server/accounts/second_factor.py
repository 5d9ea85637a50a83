"""Codes by the clock beside a password (TOTP, RFC 6238), for who wants them: six figures, thirty seconds each, none twice."""

from __future__ import annotations

from datetime import datetime

import pyotp
from django.contrib.auth.models import User

from kemble.server.models import SecondFactor
from kemble.server.storage.fair_lock import writing

_ISSUER = "Kemble"
_STEP_S = 30
_AROUND = 1  # steps before and after are taken too: clocks differ


def is_on(user: User) -> bool:
    return SecondFactor.objects.filter(user=user, on=True).exists()


def begin_second_factor(user: User) -> SecondFactor:
    """A new secret, not on before a code of it was right."""
    with writing():
        second_factor, _ = SecondFactor.objects.update_or_create(
            user=user, defaults={"secret": pyotp.random_base32(), "on": False, "used": 0}
        )
    return second_factor


def otpauth_address(factor: SecondFactor) -> str:
    """What a phone reads the secret from."""
    return pyotp.TOTP(factor.secret).provisioning_uri(name=factor.user.username, issuer_name=_ISSUER)


def takes(user: User, code: str, now: datetime, *, turns_on: bool = False) -> bool:
    """Whether a code is right just now and was not used before; with `turns_on`, it is asked for from here on."""
    digits = "".join(code.split())
    with writing():
        second_factor = SecondFactor.objects.select_for_update().filter(user=user).first()
        if second_factor is None:
            return False
        totp, step = pyotp.TOTP(second_factor.secret, interval=_STEP_S), int(now.timestamp()) // _STEP_S
        for at in range(step - _AROUND, step + _AROUND + 1):
            if at > second_factor.used and pyotp.utils.strings_equal(totp.generate_otp(at), digits):
                second_factor.used, second_factor.on = at, second_factor.on or turns_on
                second_factor.save(update_fields=["used", "on"])
                return True
    return False


def turn_off(user: User) -> None:
    with writing():
        SecondFactor.objects.filter(user=user).delete()
