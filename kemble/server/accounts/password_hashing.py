"""Passwords are hashed one at a time: ten tries at once would take every core from those who only read."""

from __future__ import annotations

from typing import Any

from django.contrib.auth.hashers import PBKDF2PasswordHasher

from kemble.core.computing_guard import computes
from kemble.server.storage.fair_lock import HASHING


class QueuedHashing:
    """Mixed into a hasher: each hash waits for the one before it, and none is made while others wait to write."""

    @computes
    def encode(self, *args: Any, **kwargs: Any) -> str:
        with HASHING:
            return super().encode(*args, **kwargs)  # type: ignore[misc, no-any-return]


class PasswordHasher(QueuedHashing, PBKDF2PasswordHasher):
    """Django's usual one, in turn."""
