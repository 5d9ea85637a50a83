"""The ASGI application."""

import os

import django

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "kemble.site.settings")
django.setup(set_prefix=False)

from kemble.site.request_threads import ThreadedHandler  # noqa: E402 (what it reads is set up first)

application = ThreadedHandler()
