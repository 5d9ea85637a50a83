"""Start Kemble: hold the data folder, migrate, load the demo if asked, and serve on one address."""

from __future__ import annotations

import gc
import importlib
import os
import signal
import socket
import sys
import webbrowser
from argparse import ArgumentParser
from datetime import datetime
from pathlib import Path
from threading import Timer
from typing import Any

from django.conf import settings
from django.contrib.auth.models import User
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError
from django.db import DEFAULT_DB_ALIAS, DatabaseError, connections
from django.utils import timezone

from kemble.server.accounts.owner import local_owner
from kemble.server.accounts.sign_in_keys import new_key
from kemble.server.exports import archive_jobs
from kemble.server.exports.archive_staging import discard_left_over
from kemble.server.models import KitchenRecord
from kemble.server.occasions import planning_jobs
from kemble.server.storage.backups import (
    DailyBackups,
    advice_for_broken_database,
    before_migrating,
    sound,
    steps_waiting,
)
from kemble.server.storage.folder import FolderBusy, UnreadableDatabase, check_schema, checkpoint_database, hold_folder
from kemble.server.storage.trash import purge
from kemble.server.web.tls import machine_names, own_certificate

_WARM_UP_AFTER_S = 8.0


def _warm_up(started: datetime) -> None:
    """Clear away what the last stop left, and load the planner once the first page has been served, so that the first plan need not wait a second for it.

    What is loaded by then stays for good: the collector of cycles need not look through it again and again, which on a
    small machine would stop every request for a fifth of a second.
    """
    discard_left_over(started)
    connections.close_all()
    importlib.import_module("ortools.sat.python.cp_model")
    gc.collect()
    gc.freeze()


def _leave_seats() -> None:
    """Those of the requests, where any came."""
    asgi = sys.modules.get("kemble.site.asgi")
    if asgi is not None:
        asgi.application.end()


def _exit_quietly(*_: object) -> None:
    raise SystemExit(0)


class Command(BaseCommand):
    help = "Migrate the database, load the demo if asked, and serve Kemble."

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("--host", default="127.0.0.1", help="address to listen on (default: this machine only)")
        parser.add_argument("--port", type=int, default=8000)
        parser.add_argument("--demo", action="store_true", help="start from the demo kitchen")
        parser.add_argument("--keep", action="store_true", help="with --demo: keep what is there from last time")

    def handle(self, *args: Any, host: str, port: int, demo: bool, keep: bool, **options: Any) -> None:
        self._port_is_free(host, port)
        for stop in (signal.SIGTERM, signal.SIGINT):  # what follows the serving is done on a stop from outside, too
            signal.signal(stop, _exit_quietly)
        try:
            with hold_folder(settings.DATA):
                try:
                    self._serve(host, port, demo, keep)
                finally:
                    planning_jobs.end()
                    archive_jobs.end()
                    _leave_seats()
                    checkpoint_database(settings.DATABASE)
        except FolderBusy as busy:
            raise CommandError(str(busy)) from None

    def _serve(self, host: str, port: int, demo: bool, keep: bool) -> None:
        if not demo:
            self._look_after(settings.DATA, settings.DATABASE)
        self._bring_up_to_date()
        if demo and not (keep and KitchenRecord.objects.exists()):
            self._lay_out_demo()
        purge(timezone.now())
        # Behind TLS the cookies travel over TLS alone: the address is the proxy's.
        name = next(
            (allowed_host for allowed_host in settings.ALLOWED_HOSTS if allowed_host not in settings.LOOPBACK_HOSTS),
            None,
        )
        over_tls: dict[str, str] = {}
        if settings.TLS_OWN:
            own = own_certificate(settings.DATA, machine_names(host, settings.ALLOWED_HOSTS), timezone.now())
            over_tls = {"ssl_certfile": str(own.certificate), "ssl_keyfile": str(own.key)}
            print(f"Its authority: {own.authority}\nKnown by (SHA-256): {own.fingerprint}")
            self._say_where(f"https://{name or host}:{port}/")
        else:
            self._say_where(f"https://{name}/" if settings.TLS and name else f"http://{host}:{port}/")
        warming = Timer(_WARM_UP_AFTER_S, _warm_up, [timezone.now()])
        warming.daemon = True
        warming.start()
        if not demo:
            DailyBackups(settings.DATA, settings.DATABASE).start()
        import uvicorn

        trusted = settings.TRUSTED_PROXIES
        uvicorn.run(
            "kemble.site.asgi:application",
            host=host,
            port=port,
            lifespan="off",
            log_level="warning",
            proxy_headers=bool(trusted),
            forwarded_allow_ips=trusted or None,
            timeout_graceful_shutdown=3,
            **over_tls,  # type: ignore[arg-type]
        )

    @staticmethod
    def _look_after(data: Path, database: Path) -> None:
        """The database is whole, and a copy of it lies by before a new version changes it."""
        try:
            sound(data, database)
            before_migrating(data, database, timezone.now())
        except (UnreadableDatabase, OSError) as error:
            raise CommandError(str(error)) from None

    @staticmethod
    def _bring_up_to_date() -> None:
        """Change the database to what this version of the code wants. What fails is said with what to do about it."""
        database = settings.DATABASE
        waiting = steps_waiting()
        if waiting and database.is_file() and database.stat().st_size:
            print(f"Bringing your kitchen up to this version ({len(waiting)} steps). A stop does no harm.", flush=True)
        try:
            call_command("migrate", verbosity=0)
            check_schema(DEFAULT_DB_ALIAS, database)
        except (UnreadableDatabase, DatabaseError, ValueError, KeyError, TypeError) as error:
            said = (
                str(error)
                if isinstance(error, UnreadableDatabase)
                else f"{database} could not be brought up to date ({error})."
            )
            raise CommandError(f"{said} {advice_for_broken_database(settings.DATA)}") from None

    @staticmethod
    def _say_where(address: str) -> None:
        """Print the address, with a key that lets one browser in, and open it where somebody is looking."""
        if settings.ASK_ALWAYS:
            if not any(user.has_usable_password() for user in User.objects.all()):
                raise CommandError("KEMBLE_ASK is set and there is no password yet. Set one first: make password")
            print(f"Kemble is at {address}  (Ctrl-C to stop)", flush=True)
            return
        local_owner()
        address = f"{address}#key={new_key(timezone.now())}"
        print(
            f"Kemble is at {address}\nThe key lets one browser in, once. Another: make key  (Ctrl-C to stop)",
            flush=True,
        )
        if sys.stdout.isatty() and (os.environ.get("DISPLAY") or sys.platform in ("darwin", "win32")):
            webbrowser.open(address)

    @staticmethod
    def _lay_out_demo() -> None:
        """Empty the demo's own database and fill it anew. Never touches a folder with a real kitchen in it."""
        from kemble.server.demo.load import load

        mark = settings.DATA / "demo"
        if KitchenRecord.objects.exists() and not mark.exists():
            raise CommandError(
                f"{settings.DATA} holds a real kitchen; the demo wants a folder of its own (KEMBLE_DATA)."
            )
        mark.touch()
        call_command("flush", interactive=False, verbosity=0)
        load(timezone.now())
        print("The demo kitchen is laid out.")

    @staticmethod
    def _port_is_free(host: str, port: int) -> None:
        with socket.socket(socket.AF_INET6 if ":" in host else socket.AF_INET) as probe:
            probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
            try:
                probe.bind((host, port))
            except OSError as error:
                raise CommandError(
                    f"Port {port} on {host} is taken ({error.strerror}). Choose another: PORT={port + 1}"
                ) from None
