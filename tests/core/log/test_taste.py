"""What was told beside what came; tastes, and what a fault's own numbers say."""

from datetime import UTC, datetime, timedelta

import pytest
from sheets_by_hand import KITCHEN, steps

from kemble.core.cards.ways import WAYS
from kemble.core.facts.problems import Refused
from kemble.core.log.predictions import check_tastes, compared, verdict
from kemble.core.plan.schedule import plan_from
from kemble.core.run.events import event_from
from kemble.core.sheet.document import default_sheet
from kemble.core.stations.work_sheet import work

NOW = datetime(2026, 11, 25, 9, 0, tzinfo=UTC)


PLAN = plan_from(steps(), KITCHEN, begin=NOW)


def event(kind, step=None, minute=0.0, **more):
    return event_from(
        {}, uid=f"uid-{kind}-{step}-{minute}", at=NOW + timedelta(minutes=minute), kind=kind, step=step, **more
    )


def played(until):
    """Everything before `until`, done as planned."""
    result = []
    for scheduled_step in PLAN.scheduled:
        if scheduled_step.step.id == until:
            return result, (scheduled_step.starts - NOW).total_seconds() / 60
        for kind, at in (("started", scheduled_step.starts), ("done", scheduled_step.ends)):
            result.append(event(kind, scheduled_step.step.id, (at - NOW).total_seconds() / 60))
    raise AssertionError(until)


class TestTaste:
    def test_told_beside_what_happened(self):
        before, at = played("steam")
        step = next(s.step for s in PLAN.scheduled if s.step.id == "steam")
        events = [
            *before,
            event("started", "steam", at),
            event("done", "steam", at + step.minutes + 4),
            event("weighed", "mix", 1, grams=900.0),
        ]
        facts = work(default_sheet("set-cake"), KITCHEN).facts
        result = {
            (prediction.step, prediction.unit): prediction
            for prediction in compared(PLAN, events, facts, NOW + timedelta(hours=9))
        }
        steam = result["steam", "min"]
        assert steam.happened - steam.predicted == pytest.approx(4.0)
        assert steam.within
        assert result["mix", "g"].happened == 900.0
        assert ("melt", "min") not in result  # eight minutes by the clock of the hands tell nothing

    @pytest.mark.parametrize(
        ("tastes", "word"),
        [
            ({}, "untasted"),
            ({"softness": 0}, "just right"),
            ({"softness": 2}, "too soft"),
            ({"softness": -1}, "too firm"),
        ],
    )
    def test_verdict(self, tastes, word):
        assert verdict(tastes) == word

    def test_scales_are_the_ways_own(self):
        check_tastes(WAYS["set-cake"], {"softness": -2, "chew": 0})
        for tastes in ({"heart": 1}, {"softness": 3}):
            with pytest.raises(Refused):
                check_tastes(WAYS["set-cake"], tastes)
