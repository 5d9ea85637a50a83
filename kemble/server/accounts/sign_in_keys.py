"""Single-use keys that sign a browser in.

Nobody is let in for where they seem to ask from: a forwarder on this machine has its address and can send its name. The
start command prints an address with a key that is good once; every other browser gives a name and a password
(password_attempts.py).
"""

from __future__ import annotations

import hashlib
import secrets
from datetime import datetime, timedelta

from kemble.server.models import SignInKey
from kemble.server.storage.fair_lock import writing

KEY_LASTS = timedelta(days=1)


def fresh_key() -> str:
    """A key that nobody guesses; what is kept of it is its digest."""
    return secrets.token_urlsafe(24)


def digest_of(key: str) -> str:
    return hashlib.sha256(key.encode()).hexdigest()


def new_key(now: datetime) -> str:
    """A key that opens the door once, within a day. Those of earlier starts are good no longer."""
    key = fresh_key()
    with writing():
        SignInKey.objects.all().delete()
        SignInKey.objects.create(digest=digest_of(key), made=now)
    return key


def use_key(key: str, now: datetime) -> bool:
    """Whether the key opened the door; it does so no second time, however many try at once."""
    with writing():
        used, _ = SignInKey.objects.filter(digest=digest_of(key), made__gt=now - KEY_LASTS).delete()
    return bool(used)
