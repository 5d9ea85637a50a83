"""Starting up: what the serve command does before it serves, and what it refuses to do."""

import os
import socket
from pathlib import Path

import pytest
from django.core.management import CommandError, call_command

from kemble.server.accounts.owner import local_owner
from kemble.server.management.commands import serve
from kemble.server.models import Batch, KitchenRecord, SheetRecord
from kemble.server.web import time_zone

pytestmark = pytest.mark.django_db(transaction=True)


@pytest.fixture
def served(monkeypatch, settings, tmp_path):
    """`serve` with everything but the serving; gives the options that the server would have had."""
    settings.DATA = tmp_path
    options = {}
    monkeypatch.setattr("uvicorn.run", lambda *args, **named: options.update(named))
    monkeypatch.setattr(serve, "_warm_up", lambda started: None)
    return options


def free_port():
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return probe.getsockname()[1]


def test_a_real_start_is_empty_and_on_this_machine_only(served, capsys):
    port = free_port()
    call_command("serve", port=port)
    assert (served["host"], served["port"]) == ("127.0.0.1", port)
    assert served["proxy_headers"] is False  # a header must not make a stranger look local
    assert f"http://127.0.0.1:{port}/" in capsys.readouterr().out
    assert SheetRecord.objects.count() == 0


def test_the_demo_is_laid_out_anew_each_time_unless_kept(served):
    call_command("serve", port=free_port(), demo=True)
    assert Batch.objects.count() == 30
    SheetRecord.objects.get(title="Quince cake").delete()
    call_command("serve", port=free_port(), demo=True, keep=True)
    assert not SheetRecord.objects.filter(title="Quince cake").exists()
    call_command("serve", port=free_port(), demo=True)
    assert SheetRecord.objects.filter(title="Quince cake").exists()
    assert SheetRecord.objects.get(title="Black tea and orange cake").pk == 1
    assert KitchenRecord.objects.count() == 1


def test_the_demo_never_wipes_a_real_kitchen(served):
    local_owner()
    with pytest.raises(CommandError, match="holds a real kitchen"):
        call_command("serve", port=free_port(), demo=True)
    assert KitchenRecord.objects.count() == 1


def test_a_port_that_is_taken_is_said_plainly(served):
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        port = taken.getsockname()[1]
        with pytest.raises(CommandError, match=rf"Port {port} on 127\.0\.0\.1 is taken .* PORT={port + 1}"):
            call_command("serve", port=port)
    assert served == {}


@pytest.mark.parametrize(
    ("named", "linked", "expected"),
    [
        ("Europe/Lisbon", "Asia/Tokyo", "Europe/Lisbon"),
        ("", "/usr/share/zoneinfo/Asia/Tokyo", "Asia/Tokyo"),
        (":/etc/localtime", "/usr/share/zoneinfo/Etc/UTC", "Etc/UTC"),
        ("", "/somewhere/else", "UTC"),
    ],
)
def test_a_new_kitchen_goes_by_the_machines_clock(monkeypatch, named, linked, expected):
    monkeypatch.setenv("TZ", named)
    monkeypatch.setattr(os, "readlink", lambda path: linked)
    monkeypatch.setattr(Path, "read_text", lambda self, encoding: "")
    assert time_zone.local_zone() == expected


def test_a_machine_that_does_not_say_is_on_utc(monkeypatch):
    monkeypatch.delenv("TZ", raising=False)

    def gone(path):
        raise FileNotFoundError(path)

    monkeypatch.setattr(os, "readlink", gone)
    assert time_zone.local_zone() == "UTC"
