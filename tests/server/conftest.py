import json
from typing import get_args

import pytest
from asking import Asking
from django.contrib.auth.models import User
from django.core.management import call_command
from django.db import connections
from frozen import laid_out

from kemble.core.kitchen.document import Kitchen
from kemble.core.sheet.document import default_sheet
from kemble.server.accounts.owner import local_owner
from kemble.server.accounts.roles import InvitedRole, Role
from kemble.server.models import KitchenRecord, Member
from kemble.server.occasions import planning_jobs


@pytest.fixture(autouse=True)
def _quick_hashes(settings):
    """A password's hash is slow on purpose; what is tested here does not hang on it."""
    settings.PASSWORD_HASHERS = ["quick_hasher.QuickHasher"]


@pytest.fixture
def owner(db):
    """The kitchen's owner, come in with the key."""
    client = Asking()
    client.force_login(local_owner())
    return client


@pytest.fixture(autouse=True)
def _own_plannings(monkeypatch):
    """Each test has plannings of its own, and waits for them as long as they take."""
    monkeypatch.setattr(planning_jobs, "_plannings", {})
    monkeypatch.setattr(planning_jobs, "PATIENCE_S", 60.0)


@pytest.fixture
def play_kitchen(owner):
    """The owner's kitchen made a made-up one, where simulated devices stand in."""
    KitchenRecord.objects.update(demo=True)


@pytest.fixture
def stranger(db):
    """Somebody signed in from elsewhere, with a kitchen of their own."""
    user = User.objects.create_user("stranger", password="a long password")
    elsewhere = KitchenRecord.objects.create(document=Kitchen(name="Elsewhere").model_dump(mode="json"))
    Member.objects.create(kitchen=elsewhere, user=user, role=Role.OWNER)
    client = Asking(REMOTE_ADDR="192.0.2.7")
    client.force_login(user)
    return client


@pytest.fixture
def invited(owner):
    """A cook, a helper and a taster of the owner's household, by their role."""
    kitchen = local_owner().member.kitchen
    clients = {}
    for role in get_args(InvitedRole):
        user = User.objects.create_user(f"a-{role}", password="a long password")
        Member.objects.create(kitchen=kitchen, user=user, role=role)
        clients[role] = Asking(REMOTE_ADDR="192.0.2.8")
        clients[role].force_login(user)
    return clients


@pytest.fixture
def sheet(owner):
    """A sheet of the owner's, opened."""
    return owner.ask("POST", "/sheets", {"way": "set-cake"}).body


@pytest.fixture
def document():
    return json.loads(default_sheet("set-cake").model_dump_json())


@pytest.fixture
def past(tmp_path, django_db_blocker):
    """A kitchen kept at an early version (frozen), brought up to date."""
    file = laid_out(3, tmp_path / "past.sqlite3")
    connections.databases["past"] = {**connections.databases["default"], "NAME": str(file)}
    with django_db_blocker.unblock():
        call_command("migrate", database="past", verbosity=0)
        yield
        connections["past"].close()
    del connections.databases["past"]
    del connections["past"]
