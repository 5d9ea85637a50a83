"""Models that are made unchecked, checked: by the values that each way's sheet, day and run gives them."""

from datetime import UTC, datetime, timedelta

import pytest
from pydantic import BaseModel, ValidationError

from kemble.core.cards.ways import WAYS
from kemble.core.facts.fact import Because, Fact
from kemble.core.facts.unchecked import checking_models, unchecked_model
from kemble.core.kitchen.document import Kitchen, Tin
from kemble.core.kitchen.larder import Composition
from kemble.core.plan.schedule import plan_from
from kemble.core.run.events import event_from
from kemble.core.run.run_state import state_of
from kemble.core.sheet.document import Pieces, Vessel, default_sheet
from kemble.core.stations.calculation import Advice
from kemble.core.stations.work_sheet import WorkResult, work

NOW = datetime(2026, 12, 4, 9, 0, tzinfo=UTC)


@pytest.mark.parametrize("way", WAYS)
def test_every_model_of_an_answer_would_pass_a_check(way):
    with checking_models():
        answer = work(default_sheet(way), Kitchen())
        plan = plan_from(answer.steps, Kitchen(), begin=NOW)
        first = plan.scheduled[0].step.id
        events = [event_from({"kind": "started", "uid": "event-001", "at": NOW, "step": first})]
        state_of(plan, events, NOW + timedelta(minutes=3), answer.core)


class TestMadeAsCheckedOnesAre:
    def test_they_are_equal_to_checked_ones(self):
        assert unchecked_model(Pieces, count=3) == Pieces(count=3)
        assert unchecked_model(Vessel, tin=Tin(), count=2) == Vessel(count=2)
        assert unchecked_model(Composition, water=5.0) == Composition(water=5.0)
        assert unchecked_model(Kitchen).model_dump() == Kitchen().model_dump()

    def test_they_are_written_as_checked_ones(self):
        because = Because(says="so", source="a test", inputs=[])
        values = {"key": "mix.base_g", "label": "flour", "value": 3.0, "unit": "g", "decimals": 0, "because": because}
        assert unchecked_model(Fact, **values).model_dump(mode="json") == Fact(**values).model_dump(mode="json")
        assert unchecked_model(Pieces, count=3).model_dump(exclude_unset=True) == {"count": 3}

    def test_no_two_share_a_list(self):
        result, other = unchecked_model(WorkResult, facts={}), unchecked_model(WorkResult, facts={})  # type: ignore[call-arg]
        result.checks.append("x")
        assert other.checks == []


class Ranked(BaseModel):
    rank: int
    note: str = ""


class TestTheCheckItself:
    def test_a_wrong_value_raises(self):
        with checking_models(), pytest.raises(ValidationError):
            unchecked_model(Ranked, rank="first")

    def test_so_does_one_that_a_check_would_change(self):
        with checking_models(), pytest.raises(TypeError, match="is not what a check gives"):
            unchecked_model(Ranked, rank="1")

    def test_and_a_field_that_is_none_of_its_fields(self):
        with checking_models(), pytest.raises(TypeError, match="has no rnak"):
            unchecked_model(Ranked, **{"rank": 1, "rnak": 2})

    def test_without_it_nothing_is_checked(self):
        assert unchecked_model(Ranked, rank="first").rank == "first"
        assert unchecked_model(Advice, rank=1).rank == 1  # type: ignore[call-arg]
