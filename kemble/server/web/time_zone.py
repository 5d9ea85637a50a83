"""Where this machine stands, as far as a new kitchen needs to know."""

from __future__ import annotations

import os
from pathlib import Path
from zoneinfo import available_timezones


def local_zone() -> str:
    """The machine's time zone by name, or UTC when it does not say."""
    named = os.environ.get("TZ", "")
    try:
        linked = os.readlink("/etc/localtime").partition("zoneinfo/")[2]
        written = Path("/etc/timezone").read_text(encoding="utf-8").strip()
    except OSError:
        linked, written = "", ""
    known = available_timezones()
    return next((name for name in (named, linked, written) if name in known), "UTC")
