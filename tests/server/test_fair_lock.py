"""What takes long waits its turn, and is never done while others wait to write."""

import threading
from datetime import UTC, datetime

import pytest
from django.contrib.auth.hashers import make_password

from kemble.core.computing_guard import ComputedTooLate
from kemble.core.kitchen.document import Kitchen
from kemble.core.learn.posterior import learn
from kemble.core.plan.occasion import Occasion, plan_day
from kemble.core.plan.schedule import plan_from
from kemble.core.sheet.document import default_sheet
from kemble.core.stations.work_sheet import work
from kemble.server.sheets.work_results import result_for
from kemble.server.storage.fair_lock import HASHING, writing

pytestmark = pytest.mark.django_db
NOW = datetime(2026, 11, 25, 9, 0, tzinfo=UTC)
SHEET, KITCHEN = default_sheet("set-cake"), Kitchen()
OCCASION = Occasion.model_construct()  # type: ignore[call-arg]

TAKES_LONG = {
    "a sheet worked": lambda: work(SHEET, KITCHEN),
    "a sheet worked before, and remembered": lambda: result_for(SHEET, KITCHEN),
    "a day planned": lambda: plan_day(OCCASION, [], KITCHEN, now=NOW),
    "a sheet begun": lambda: plan_from([], KITCHEN, begin=NOW),
    "learning": lambda: learn([]),
    "a password hashed": lambda: make_password("barley under the stairs"),
}


@pytest.mark.parametrize("compute", TAKES_LONG.values(), ids=TAKES_LONG)
def test_nothing_computes_while_others_wait_to_write(compute):
    result_for(SHEET, KITCHEN)
    with writing(), pytest.raises(ComputedTooLate, match="the turn to write"):
        compute()


def test_afterwards_it_may_again_and_in_another_thread_all_the_while():
    with writing():
        other = threading.Thread(target=result_for, args=(SHEET, KITCHEN))
        other.start()
        other.join(20)
        assert not other.is_alive()
    assert result_for(SHEET, KITCHEN).facts


def test_passwords_are_hashed_one_at_a_time():
    hashed = threading.Event()
    thread = threading.Thread(target=lambda: (make_password("barley under the stairs"), hashed.set()))
    with HASHING:
        thread.start()
        thread.join(0.3)
        assert not hashed.is_set()
    assert hashed.wait(20)
