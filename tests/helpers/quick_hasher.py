"""A password's hash is slow on purpose. For tests that try many: one that is quick, and takes its turn all the same."""

from django.contrib.auth.hashers import MD5PasswordHasher

from kemble.server.accounts.password_hashing import QueuedHashing


class QuickHasher(QueuedHashing, MD5PasswordHasher):
    pass
