"""What every server and command loads, loaded once: the process that imports this is the one they are forked from.

Only the settings depend on whose server it is. They are read here from an empty folder, and anew in each fork.
"""

import gc
import os
import sys
import tempfile
from pathlib import Path

os.environ["DJANGO_SETTINGS_MODULE"] = "kemble.site.settings"

with tempfile.TemporaryDirectory(prefix="kemble-loaded-") as folder:
    os.environ["KEMBLE_DATA"] = folder
    import django

    django.setup()
    import django.core.management.commands.migrate
    import ortools.sat.python.cp_model  # noqa: F401 (a second, and every server loads it)
    import uvicorn.protocols.http.h11_impl  # noqa: F401

    import kemble.server.api
    import kemble.server.management.commands.serve
    import kemble.site.page
    import kemble.site.request_threads  # noqa: F401

from django.conf import settings
from django.core.management import execute_from_command_line
from django.db import connections
from django.utils.functional import empty

from kemble.cli import main

gc.collect()
gc.freeze()  # what is loaded is never looked through again, which would copy it into each fork

ROOT = Path(__file__).resolve().parents[2]


def run_command(command, arguments, environment, output, errors):
    """In a fork of this process: what `python manage.py` or `kemble` does with these arguments, writing to two pipes."""
    os.dup2(output.fileno(), 1)
    os.dup2(errors.fileno(), 2)
    os.chdir(ROOT)
    os.environ.clear()
    os.environ.update(environment)
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "kemble.site.settings")
    sys.path[:0] = environment.get("PYTHONPATH", "").split(os.pathsep)
    sys.modules.pop("kemble.site.settings", None)
    settings._wrapped = empty
    vars(connections).clear()
    connections.__init__()
    if command == "kemble":
        sys.exit(main(arguments))
    execute_from_command_line(["manage.py", *arguments])
