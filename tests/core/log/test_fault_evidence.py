"""Causes of a fault, for and against, from the numbers of a batch and from what happened: each by hand."""

from datetime import UTC, datetime, timedelta

import pytest
from sheets_by_hand import KITCHEN

from kemble.core.cards.card_parts import stage_of
from kemble.core.cards.faults import faults_of
from kemble.core.cards.parts import FAMILIES
from kemble.core.cards.ways import WAYS
from kemble.core.log.fault_evidence import SEEN, BatchFacts, at_step, explain_fault, likeliest
from kemble.core.plan.schedule import plan_from
from kemble.core.run.events import event_from
from kemble.core.run.run_state import state_of
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.work_sheet import work

NINE = datetime(2026, 11, 28, 9, 0, tzinfo=UTC)


class Making:
    """A way's starting sheet, made as planned but for what a test says."""

    def __init__(self, way, sheet=None):
        self.worked = work(sheet or default_sheet(way), KITCHEN)
        self.plan = plan_from(self.worked.steps, KITCHEN, begin=NINE)
        self.way = WAYS[way]
        self.times = {
            scheduled_step.step.id: [scheduled_step.starts, scheduled_step.ends]
            for scheduled_step in self.plan.scheduled
        }
        self.more = []

    def lasts(self, step, minutes):
        """A step ends after so many minutes, and what is left moves with it."""
        starts, ends = self.times[step]
        by = starts + timedelta(minutes=minutes) - ends
        for name, (a, b) in self.times.items():
            if name != step and a >= ends:
                self.times[name] = [a + by, b + by]
        self.times[step][1] = starts + timedelta(minutes=minutes)
        return self

    def begins_later(self, step, minutes):
        by = timedelta(minutes=minutes)
        a0 = self.times[step][0]
        for name, (a, b) in self.times.items():
            if a >= a0:
                self.times[name] = [a + by, b + by]
        return self

    def tells(self, kind, step, minute=1, **more):
        at = self.times[step][0] + timedelta(minutes=minute)
        self.more.append(event_from({"uid": f"more-{len(self.more):04}", "at": at, "kind": kind, "step": step, **more}))
        return self

    def fault(self, name):
        events = list(self.more)
        for i, (step, (a, b)) in enumerate(self.times.items()):
            for kind, at in (("started", a), ("done", b)):
                events.append(event_from({"uid": f"{kind}-{i:04}", "at": at, "kind": kind, "step": step}))
        events.sort(key=lambda event: event.at)
        end = events[-1].at + timedelta(minutes=1)
        happened = BatchFacts(
            self.worked.facts,
            {scheduled_step.step.id: scheduled_step.step for scheduled_step in self.plan.scheduled},
            {state.id: state for state in state_of(self.plan, events, end).steps},
            events,
        )
        fault = next(fault for fault in faults_of(self.way) if fault.id == name)
        return explain_fault(fault, happened)


class TestWhatHappened:
    def test_a_cake_cut_hot(self):
        """Cooled ten minutes and not its hour: that speaks for "cut too warm", which comes first."""
        making = Making("set-cake")
        told_min = next(
            scheduled_step.step.minutes for scheduled_step in making.plan.scheduled if scheduled_step.step.id == "cool"
        )
        result = making.lasts("cool", 10).fault("ragged-cut")
        assert result.causes[0].says == "cut too warm"
        assert result.causes[0].speaks_for == [f"Cool it in the tin: 10 min, {told_min:.0f} told"]
        assert result.sure

    def test_a_cake_cut_cold(self):
        """Cooled as told: what is left is the knife, and that is said to be against the other."""
        result = Making("set-cake").fault("ragged-cut")
        assert not result.sure
        assert [cause.says for cause in result.causes] == ["a dry knife", "cut too warm"]
        assert result.causes[1].speaks_against

    def test_a_heart_that_was_too_short_in_the_steam(self):
        making = Making("set-cake")
        window = next(
            scheduled_step.step.window for scheduled_step in making.plan.scheduled if scheduled_step.step.window
        )
        steam = next(scheduled_step.step.id for scheduled_step in making.plan.scheduled if scheduled_step.step.window)
        short = making.lasts(steam, window.first_check - 4).fault("raw-heart")
        assert short.causes[0].says == "too short in the heat"
        assert "first look at" in short.causes[0].speaks_for[0]
        full = Making("set-cake").lasts(steam, window.done + 1).fault("raw-heart")
        raw = next(cause for cause in full.causes if cause.says == "too short in the heat")
        assert raw.speaks_against
        assert not raw.speaks_for

    def test_a_thermometer_speaks(self):
        making = Making("set-cake")
        window = next(
            scheduled_step.step.window for scheduled_step in making.plan.scheduled if scheduled_step.step.window
        )
        steam = next(scheduled_step.step.id for scheduled_step in making.plan.scheduled if scheduled_step.step.window)
        making.lasts(steam, window.done + 1).tells("probed", steam, minute=window.done - 1, celsius=52.0)
        raw = next(cause for cause in making.fault("raw-heart").causes if cause.says == "too short in the heat")
        assert any("52 °C" in item for item in raw.speaks_for)

    def test_dough_that_waited(self):
        """Wrapped long after its window: cooled below it."""
        making = Making("stirred-rounds")
        result = making.begins_later("wrap", 240).fault("cracks")
        assert result.causes[0].says == "cooled below its window, or left uncovered"
        assert "at most" in result.causes[0].speaks_for[0]

    def test_a_pan_that_stood(self):
        result = Making("folded-pulls").tells("paused", "fold-pan").fault("burnt")
        assert result.causes[0].speaks_for == ["Fold it over low heat with the oil was paused"]
        assert not Making("folded-pulls").fault("burnt").causes[0].speaks_for

    def test_what_the_scale_said(self):
        making = Making("tray-rice")
        target = next(
            scheduled_step.step.target
            for scheduled_step in making.plan.scheduled
            if scheduled_step.step.id == "syrup-reduce"
        )
        making.tells("weighed", "syrup-reduce", grams=round(target.grams * 1.2, 1))
        result = making.fault("no-set")
        assert result.causes[0].says == "the syrup was not reduced to its weight"
        assert result.causes[0].speaks_for

    def test_grain_that_was_soaked_short(self):
        making = Making("pounded")
        minutes = next(
            scheduled_step.step.minutes for scheduled_step in making.plan.scheduled if scheduled_step.step.id == "soak"
        )
        result = making.lasts("soak", minutes / 3).fault("hard-hearts")
        assert result.causes[0].says == "the soak was short or cold"


class TestItsNumbers:
    def dry(self):
        document = default_sheet("boiled-balls").model_dump()
        document["parts"][0]["lines"][1]["amount"]["value"] = 178
        return sheet_from(document)

    def test_a_ratio_speaks_for_and_against(self):
        """178 g of water make 74 %, under the card's 77; the starting sheet lies well over it."""
        result = Making("boiled-balls", self.dry()).fault("cracks")
        assert result.causes[0].says == "too little water"
        assert result.causes[0].speaks_for == ["Effective hydration 74 %: under 77"]

    def test_before_it_is_made(self):
        facts = work(self.dry(), KITCHEN).facts
        likely = likeliest(faults_of(WAYS["boiled-balls"]), facts)
        assert [fault.id for fault in likely] == ["cracks"]
        assert likeliest(faults_of(WAYS["boiled-balls"]), work(default_sheet("boiled-balls"), KITCHEN).facts) == []

    def test_nothing_is_known_and_nothing_is_said(self):
        fault = next(fault for fault in WAYS["set-cake"].faults if fault.id == "ragged-cut")
        explained_fault = explain_fault(fault, BatchFacts({}))
        assert not explained_fault.sure
        assert not any(
            ranked_cause.speaks_for or ranked_cause.speaks_against for ranked_cause in explained_fault.causes
        )


FAULTS = {fault.id: fault for item in (*WAYS.values(), *FAMILIES.values()) for fault in item.faults}  # type: ignore[attr-defined]


class TestTable:
    def test_every_fault_of_the_craft_is_in_it_and_no_other(self):
        assert set(SEEN) == set(FAULTS)

    def test_every_limit_of_a_card_has_its_witness(self):
        """A number on a card that nobody reads is a number that says nothing: each moves its fault when it is beyond."""
        for way in WAYS.values():
            facts = work(default_sheet(way.id), KITCHEN).facts
            for fault in way.faults:
                for limit in fault.evidence:
                    if limit.fact not in facts:
                        continue
                    beyond = limit.than * (0.5 if limit.side == "low" else 2.0)
                    fact = facts[limit.fact].model_copy(update={"value": beyond})
                    explained_fault = explain_fault(fault, BatchFacts({limit.fact: fact}))
                    assert explained_fault.sure, (way.id, fault.id, limit.fact)

    @pytest.mark.parametrize("name", SEEN)
    def test_it_shows_at_a_step_that_there_is(self, name):
        """By the steps of every way and part that has the fault."""
        steps = {step.id for item in (*WAYS.values(), *FAMILIES.values()) for step in item.steps}  # type: ignore[attr-defined]
        assert set(SEEN[name].at) & steps, SEEN[name].at

    def test_at_a_step_its_own_come_first(self):
        here, others = at_step(faults_of(WAYS["stirred-rounds"]), "wrap")
        assert {fault.id for fault in here} >= {"cracks", "tears", "slumps"}
        assert not {fault.id for fault in here} & {fault.id for fault in others}
        stages, _ = at_step(faults_of(WAYS["set-cake"]), "steam-2")
        assert "raw-heart" in {fault.id for fault in stages}
        assert stage_of("steam-2") == ("steam", 2)
