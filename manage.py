#!/usr/bin/env python
"""Django's command line."""

import os
import sys

if __name__ == "__main__":
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "kemble.site.settings")
    from django.core.management import execute_from_command_line

    os.umask(0o077)  # whatever it writes is for its owner's eyes alone
    execute_from_command_line(sys.argv)
