"""The settings as they are, but for a password's hash, which is slow on purpose: for tests that try many."""

from kemble.site.settings import *  # noqa: F403

PASSWORD_HASHERS = ["quick_hasher.QuickHasher"]
