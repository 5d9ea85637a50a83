"""Backups that only whoever knows the passphrase can read: Fernet (AES-128-CBC with HMAC-SHA256) under a key that scrypt
makes of the passphrase and a salt that lies in the file."""

from __future__ import annotations

import base64
import os
from pathlib import Path

from cryptography.exceptions import InvalidKey
from cryptography.fernet import Fernet, InvalidToken
from cryptography.hazmat.primitives.kdf.scrypt import Scrypt

SUFFIX = ".sealed"
_MAGIC = b"kemble-sealed-1\n"
_SALT_BYTES = 16
_COST = 2**15  # of scrypt: a tenth of a second and 32 MB for each guess


class SealedFile(ValueError):
    """A file that is sealed, and what opens it is missing or wrong."""


def is_sealed(path: Path) -> bool:
    with path.open("rb") as file:
        return file.read(len(_MAGIC)) == _MAGIC


def seal(source: Path, target: Path, passphrase: str) -> None:
    """What lies at `source` into a sealed file at `target`, which must not be there, for its owner's eyes alone."""
    salt = os.urandom(_SALT_BYTES)
    token = Fernet(_key(passphrase, salt)).encrypt(source.read_bytes())
    with os.fdopen(os.open(target, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "wb") as file:
        file.write(_MAGIC + salt + token)
        file.flush()
        os.fsync(file.fileno())  # the plain copy goes next


def unseal(source: Path, target: Path, passphrase: str) -> None:
    """What is sealed at `source` into a file at `target`. Raises Sealed for a passphrase that does not open it, or a file
    that is damaged: which of both, nobody can tell."""
    content = source.read_bytes()
    salt, token = content[len(_MAGIC) :][:_SALT_BYTES], content[len(_MAGIC) + _SALT_BYTES :]
    try:
        plain = Fernet(_key(passphrase, salt)).decrypt(token)
    except (InvalidToken, InvalidKey, ValueError):
        raise SealedFile(f"{source} does not open with this passphrase, or is damaged.") from None
    with os.fdopen(os.open(target, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "wb") as file:
        file.write(plain)


def _key(passphrase: str, salt: bytes) -> bytes:
    return base64.urlsafe_b64encode(Scrypt(salt=salt, length=32, n=_COST, r=8, p=1).derive(passphrase.encode()))
