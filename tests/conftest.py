"""Shared by all tests: data in a folder of their own, and clients that ask as different people would."""

import os
import tempfile

os.environ["KEMBLE_DATA"] = tempfile.mkdtemp(prefix="kemble-test-")
os.environ.pop("KEMBLE_HOSTS", None)
os.environ.pop("KEMBLE_TLS", None)
os.environ.setdefault("DJANGO_ALLOW_ASYNC_UNSAFE", "true")  # Playwright's loop and the ORM in one test
