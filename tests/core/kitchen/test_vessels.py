"""Several steamers and pots: which one a sheet stands in, what follows from it, and who else wants it."""

from datetime import UTC, datetime, timedelta

import pytest
from pydantic import ValidationError

from kemble.core.kitchen.document import Kitchen, Pot, Steamer
from kemble.core.plan.day_solver import Dish, PlanRequest, solve_day
from kemble.core.sheet.document import Sheet, default_sheet
from kemble.core.stations.work_sheet import work

SMALL = Steamer(name="small", diameter_mm=200, tiers=1)
WIDE = Steamer(name="wide", diameter_mm=340, tiers=3)
NOW = datetime(2026, 3, 2, 9, 0, tzinfo=UTC)


def steamed(vessel: str = "", across_mm: float = 180.0) -> Sheet:
    sheet = default_sheet("set-cake")
    tin = sheet.vessel.tin.model_copy(update={"shape": "round", "diameter_mm": across_mm})
    return sheet.model_copy(
        update={
            "heat": sheet.heat.model_copy(update={"vessel": vessel}),
            "vessel": sheet.vessel.model_copy(update={"tin": tin}),
        }
    )


class TestWhichOne:
    """A tin goes into a steamer 10 mm wider than it is, or wider still."""

    @pytest.mark.parametrize(
        ("said", "across_mm", "taken"),
        [
            ("", 180, "small"),  # the first that takes it
            ("", 190, "small"),
            ("", 191, "wide"),
            ("", 400, "wide"),  # none takes it: the widest
            ("wide", 180, "wide"),
            ("another", 180, "small"),
        ],
    )
    def test_named_or_fitting(self, said, across_mm, taken):
        worked = work(steamed(said, across_mm), Kitchen(steamers=(SMALL, WIDE)))
        assert (worked.stands_in.kind, worked.stands_in.name) == ("steamer", taken)
        assert any("There is no steamer called another" in advice.says for advice in worked.advice) == (
            said == "another"
        )

    def test_a_wider_one_need_not_be_topped_up(self):
        """The small one is filled to its 28 mm, π/4 · 20² · 2.8 = 880 ml, and runs low; on the wide one's floor, 90.8 ml
        to a millimetre, 12 mm still stand when all is over."""
        kitchen = Kitchen(steamers=(SMALL, WIDE))
        small, wide = (work(steamed(name), kitchen) for name in ("small", "wide"))
        assert small.facts["heat.water_ml"].value == pytest.approx(879.6, abs=0.1)
        assert min(small.drawings.heat.steamer.water_mm) == pytest.approx(12, abs=0.5)
        gone = wide.facts["heat.water_loss_g_per_min"].value * wide.facts["heat.latest_min"].value
        assert 12 * 90.8 < wide.facts["heat.water_ml"].value - gone < 16 * 90.8

    def test_a_pot_by_its_name(self):
        kitchen = Kitchen(pots=(Pot(name="little", water_ml=1500), Pot(name="big", diameter_mm=320, water_ml=8000)))
        sheet = default_sheet("boiled-balls")
        for said, ml in (("", 1500), ("big", 8000)):
            worked = work(sheet.model_copy(update={"heat": sheet.heat.model_copy(update={"vessel": said})}), kitchen)
            assert worked.facts["heat.water_ml"].value == ml
            assert worked.stands_in.name == (said or "little")

    def test_an_oven_stands_in_neither(self):
        assert work(default_sheet("batter-bake"), Kitchen()).stands_in is None


class TestWhoElseWantsIt:
    def plan(self, *vessels: str):
        sheets = [work(steamed(vessel), Kitchen(steamers=(SMALL, WIDE))) for vessel in vessels]
        dishes = tuple(Dish("a cake", result.steps, serve=NOW + timedelta(hours=30)) for result in sheets)
        placed = solve_day(PlanRequest(dishes, Kitchen(cooks=3, steamers=(SMALL, WIDE)), not_before=NOW))
        assert placed is not None
        spans = []
        for dish in range(len(vessels)):
            there = [
                (placed.starts[task.key], placed.starts[task.key] + task.length)
                for task in placed.tasks
                if task.dish == dish and any(use.startswith("steamer:") for use in task.step.uses)
            ]
            spans.append((min(begins for begins, _ in there), max(ends for _, ends in there)))
        return sorted(spans)

    def test_two_in_the_same_one_wait_for_each_other(self):
        (_, ends), (begins, _) = self.plan("small", "small")
        assert begins >= ends

    def test_so_do_two_that_only_one_takes(self):
        """Tins of 250 mm go into the wide one alone: named or not, it is one thing."""
        steps = work(steamed(across_mm=250), Kitchen(steamers=(SMALL, WIDE))).steps
        assert {use for step in steps for use in step.uses if use.startswith("steamer:")} == {"steamer:wide"}
        either = work(steamed(), Kitchen(steamers=(SMALL, WIDE))).steps
        assert not [use for step in either for use in step.uses if use.startswith("steamer:")]

    def test_in_two_they_stand_side_by_side(self):
        (_, ends), (begins, _) = self.plan("small", "wide")
        assert begins < ends

    def test_a_machine_of_its_own_leaves_the_burner(self):
        def on(steamer: Steamer) -> list[str]:
            steps = work(steamed(), Kitchen(steamers=(steamer,))).steps
            return next(step.uses for step in steps if "steamer" in step.uses)

        assert "burner" in on(SMALL)
        assert "burner" not in on(SMALL.model_copy(update={"watts": 900}))


class TestKeptBefore:
    """Settings of a time when there was one kind of steamer, and so many of it, and one pot."""

    def test_so_many_of_one_kind(self):
        kitchen = Kitchen.model_validate(
            {"steamer": {"diameter_mm": 300, "tiers": 4}, "steamers": 2, "pot": {"water_ml": 5000}}
        )
        assert [(steamer.name, steamer.diameter_mm, steamer.tiers) for steamer in kitchen.steamers] == [
            ("steamer", 300, 4),
            ("steamer 2", 300, 4),
        ]
        assert [(pot.name, pot.water_ml) for pot in kitchen.pots] == [("pot", 5000)]

    def test_none_at_all(self):
        assert Kitchen.model_validate({"steamer": {}, "steamers": 0}).steamers == ()

    def test_what_was_wrong_is_still_told(self):
        with pytest.raises(ValidationError):
            Kitchen.model_validate({"steamer": "copper"})

    @pytest.mark.parametrize("many", [-1, 7, 2_000_000_000])
    def test_a_number_that_never_was(self, many):
        """Refused as it stands; not made into so many."""
        with pytest.raises(ValidationError, match="steamers"):
            Kitchen.model_validate({"steamer": {}, "steamers": many})

    def test_two_of_one_name(self):
        with pytest.raises(ValidationError, match="like another"):
            Kitchen(steamers=(SMALL, SMALL))
