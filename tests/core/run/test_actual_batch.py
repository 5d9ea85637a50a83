"""What was weighed and added goes into the chain: worked by hand, by conservation of mass."""

from datetime import UTC, datetime, timedelta

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from sheets_by_hand import KITCHEN, a_sheet, line
from thorough import examples

from kemble.core.facts.problems import Refused
from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.schedule import plan_from
from kemble.core.run.actual_batch import actual, reworked, with_added
from kemble.core.run.events import AddedIngredient, event_from
from kemble.core.sheet.document import default_sheet
from kemble.core.stations.work_sheet import work

NOW = datetime(2026, 11, 28, 9, 0, tzinfo=UTC)
ROUNDS = default_sheet("stirred-rounds")


def made(sheet, kitchen=KITCHEN):
    worked = work(sheet, kitchen)
    return worked, plan_from(worked.steps, kitchen, begin=NOW)


def event(number, kind, **more):
    at = NOW + timedelta(minutes=number)
    return event_from({"uid": f"event-{number:04}", "at": at, "kind": kind, **more})


def step_at(plan, key):
    return next(item.step.id for item in plan.scheduled if item.step.target and item.step.target.key == key)


class TestWeighed:
    def test_a_lighter_dough_makes_lighter_pieces(self):
        worked, plan = made(ROUNDS)
        told, count = worked.facts["mix.cooked_g"].value, worked.facts["shape.pieces"].value
        events = [event(1, "weighed", step=step_at(plan, "mix.cooked_g"), grams=round(told * 0.9, 1))]
        recalculated = reworked(ROUNDS, KITCHEN, plan, events, worked.facts, worked.facts)
        facts = recalculated.worked.facts
        assert facts["mix.cooked_g"].value == pytest.approx(told * 0.9, abs=0.05)
        assert facts["mix.cooked_g"].because.source == "weighed in this making"
        each = facts["shape.base_g"].value * facts["shape.pieces"].value
        assert each == pytest.approx(told * 0.9, rel=0.02)
        assert (facts["shape.base_g"].value, facts["shape.pieces"].value) != (worked.facts["shape.base_g"].value, count)
        assert recalculated.says

    def test_what_the_dough_lost_is_water(self):
        """150 g of flour and 150 g of water; cooked to 270 it holds the same solids."""
        sheet = a_sheet("stirred-rounds", ("base", [line("sweet-rice-flour", 150), line("water", 150)]))
        kept = work(sheet, KITCHEN, {"mix.cooked_g": 270.0})
        assert kept.facts["mix.cooked_g"].value == 270.0
        more = work(sheet, KITCHEN, {"mix.cooked_g": 285.0})
        water = {}
        for name, result in (("less", kept), ("more", more)):
            part = next(part for part in result.parts if part.role == "base")
            assert part.made_g == result.facts["mix.cooked_g"].value
            water[name] = result.facts["mix.density_g_per_ml"].value
        assert water["less"] > water["more"]  # starch is heavier than water

    def test_as_told_moves_nothing(self):
        worked, plan = made(ROUNDS)
        as_told = worked.facts["mix.cooked_g"].value * 1.005
        events = [event(1, "weighed", step=step_at(plan, "mix.cooked_g"), grams=as_told)]
        assert reworked(ROUNDS, KITCHEN, plan, events, worked.facts, worked.facts) is None

    def test_the_pan_is_taken_off(self):
        kitchen = Kitchen.model_validate({"pans": [{"name": "the wide pan", "empty_g": 640}]})
        document = ROUNDS.model_dump(mode="json")
        next(part for part in document["parts"] if part["role"] == "base")["pan"] = "the wide pan"
        sheet = type(ROUNDS).model_validate(document)
        _, plan = made(sheet, kitchen)
        events = [event(1, "weighed", step=step_at(plan, "mix.scale_g"), grams=1100)]
        assert actual(sheet, kitchen, plan, events).weighed == {"mix.cooked_g": 460.0}

    def test_grain_that_drank_less(self):
        """240 g of rice that weighs 300 drained has taken up 60 g less the film; the water to pour is more by what it
        lacks."""
        rice = default_sheet("crushed-balls")
        worked, plan = made(rice)
        told = worked.facts["grain.soaked_g"].value
        dry = worked.facts["grain.dry_g"].value
        events = [event(1, "weighed", step=step_at(plan, "grain.soaked_g"), grams=told - 30)]
        facts = reworked(rice, KITCHEN, plan, events, worked.facts, worked.facts).worked.facts
        lost = (worked.facts["grain.uptake_pct"].value - facts["grain.uptake_pct"].value) * dry / 100
        assert lost == pytest.approx(30.0, abs=0.5)
        poured = facts["grain.cook_water_g"].value - worked.facts["grain.cook_water_g"].value
        assert poured == pytest.approx(30.0, abs=0.5)

    def test_a_reduced_part_goes_on_as_it_weighs(self):
        tray = default_sheet("tray-rice")
        worked, plan = made(tray)
        made_g = worked.facts["part.syrup.made_g"].value
        events = [event(1, "weighed", step=step_at(plan, "part.syrup.made_g"), grams=round(made_g * 0.9, 1))]
        facts = reworked(tray, KITCHEN, plan, events, worked.facts, worked.facts).worked.facts
        assert facts["part.syrup.made_g"].value == pytest.approx(made_g * 0.9, abs=0.1)
        lost = worked.facts["mix.cooked_g"].value - facts["mix.cooked_g"].value
        assert lost == pytest.approx(made_g * 0.1, rel=0.2)

    def test_pieces_on_the_bench_tell_how_many(self):
        """At a tenth more each, twenty pieces are eighteen."""
        worked, plan = made(ROUNDS)
        told, count = worked.facts["shape.base_g"].value, worked.facts["shape.pieces"].value
        step = step_at(plan, "shape.base_g")
        events = [event(i, "weighed", step=step, grams=round(told * 1.12, 2)) for i in (1, 2, 3)]
        says = reworked(ROUNDS, KITCHEN, plan, events, worked.facts, worked.facts).says
        assert says == [
            f"At {told * 1.12:.0f} g a piece, not {told:.0f}, it makes {round(count / 1.12)}, not {count:.0f}."
        ]

    def test_the_first_three_are_practice(self):
        """Three far too heavy, then three as told: it makes what was told."""
        worked, plan = made(ROUNDS)
        told = worked.facts["shape.base_g"].value
        step = step_at(plan, "shape.base_g")
        grams = [told * 1.3] * 3 + [told] * 3
        events = [event(i, "weighed", step=step, grams=round(gram, 2)) for i, gram in enumerate(grams)]
        assert reworked(ROUNDS, KITCHEN, plan, events, worked.facts, worked.facts) is None

    def test_taken_back_it_is_as_told_again(self):
        worked, plan = made(ROUNDS)
        weight = event(1, "weighed", step=step_at(plan, "mix.cooked_g"), grams=worked.facts["mix.cooked_g"].value * 0.9)
        now = reworked(ROUNDS, KITCHEN, plan, [weight], worked.facts, worked.facts).worked.facts
        back = [weight, event(2, "undone", of=weight.uid)]
        again = reworked(ROUNDS, KITCHEN, plan, back, worked.facts, now)
        assert again.worked.facts == worked.facts


class TestAdded:
    def test_fifteen_grams_of_flour(self):
        """Flour added lowers the hydration by hand: water on the flour's weight."""
        sheet = a_sheet("boiled-balls", ("base", [line("sweet-rice-flour", 200), line("water", 160)]))
        worked, plan = made(sheet)
        assert worked.facts["mix.hydration_pct"].value == pytest.approx(80.0, abs=0.05)
        more = AddedIngredient(ingredient="sweet-rice-flour", part="base", grams=15)
        recalculated = reworked(sheet, KITCHEN, plan, [event(1, "added", added=more)], worked.facts, worked.facts)
        assert recalculated.worked.facts["mix.hydration_pct"].value == pytest.approx(100 * 160 / 215, abs=0.05)
        assert recalculated.worked.facts["mix.batch_g"].value == pytest.approx(375.0, abs=0.01)
        assert recalculated.says[0] == "Effective hydration 74 %, not 80 %."

    def test_it_becomes_more_of_its_line(self):
        sheet = a_sheet("boiled-balls", ("base", [line("sweet-rice-flour", 200), line("water", 160)]))
        both = with_added(
            sheet, [AddedIngredient(ingredient="water", grams=10), AddedIngredient(ingredient="white-sugar", grams=8)]
        )
        lines = {each_line.ingredient: each_line.amount.value for each_line in both.parts[0].lines}
        assert lines == {"sweet-rice-flour": 200, "water": 170, "white-sugar": 8}

    def test_after_the_scale_it_is_heavier_by_it(self):
        _, plan = made(ROUNDS)
        events = [
            event(1, "weighed", step=step_at(plan, "mix.cooked_g"), grams=400),
            event(2, "added", added=AddedIngredient(ingredient="water", grams=12)),
        ]
        assert actual(ROUNDS, KITCHEN, plan, events).weighed["mix.cooked_g"] == 412.0

    def test_into_a_part_that_is_not_there(self):
        sheet = a_sheet("boiled-balls", ("base", [line("sweet-rice-flour", 200), line("water", 160)]))
        with pytest.raises(Refused, match="no filling"):
            with_added(sheet, [AddedIngredient(ingredient="water", part="filling", grams=5)])


@settings(max_examples=examples(25), deadline=None)
@given(share=st.floats(0.86, 1.01))
def test_whatever_the_scale_shows_the_pieces_add_up(share):
    worked, _ = TestWhole.MADE
    grams = worked.facts["mix.cooked_g"].value * share
    facts = work(ROUNDS, KITCHEN, {"mix.cooked_g": grams}).facts
    assert facts["shape.base_g"].value * facts["shape.base_enough_for"].value == pytest.approx(grams, rel=1e-6)


class TestWhole:
    MADE = made(ROUNDS)
