"""A day that cannot be done, to the word: what clashes, each of it, and every way out. Worked out by hand."""

from datetime import UTC, datetime, timedelta

import pytest

from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.clashes import ChangedDish, explain_clash
from kemble.core.plan.day_solver import Dish, PlanRequest, key_of
from kemble.core.plan.resources import HelperHours
from kemble.core.stations.steps import StepResult, StepWait

SERVE = datetime(2026, 11, 28, 15, 30, tzinfo=UTC)  # a Saturday
TITLES = ["the cake", "the rice"]


def step(name, minutes, hands="held", after=(), uses=()):
    waits = [StepWait(step=item, at_least=least, at_most=most) for item, least, most in after]
    rest = {"cue": None, "window": None, "target": None, "to_hand": [], "cautions": []}
    return StepResult(id=name, title=name, words="", minutes=minutes, hands=hands, uses=list(uses), after=waits, **rest)


def clash_of(*dishes, before_min, others=None, serve=SERVE, pins=None, helpers=(), **kitchen):
    """Of dishes, each a list of steps, so many minutes before they are to be on the table."""
    asked = PlanRequest(
        tuple(Dish(title, steps, serve) for title, steps in zip(TITLES, dishes, strict=False)),
        Kitchen(**{"cooks": 1, "quiet": {"begins": "22:00", "ends": "07:00"}, "timezone": "UTC", **kitchen}),
        not_before=serve - timedelta(minutes=before_min),
        pins=pins or {},
        helpers=helpers,
    )
    return explain_clash(asked, titles=TITLES[: len(dishes)], others=others)


def ways_out(clash):
    return {fix.kind: (fix.says, fix.costs) for fix in clash.remedies}


class TestHands:
    """Half an hour of stirring and half an hour of kneading, one cook, fifty minutes: ten are missing."""

    STIR_AND_KNEAD = ([step("stir", 30)], [step("knead", 30)])

    def test_what_clashes(self):
        clash = clash_of(*self.STIR_AND_KNEAD, before_min=50)
        assert clash.says == "“stir” and “knead” want hands at once, and there is one cook."
        assert {(bond.kind, bond.dish, bond.says) for bond in clash.bonds} == {
            ("hands", 0, "“stir” is held for 30 min"),
            ("hands", 1, "“knead” is held for 30 min"),
            ("serve", 0, "the cake is on the table at 15:30 on Saturday"),
            ("serve", 1, "the rice is on the table at 15:30 on Saturday"),
            ("now", None, "it is 14:40 on Saturday already"),
        }

    def test_the_ways_out(self):
        clash = clash_of(*self.STIR_AND_KNEAD, before_min=50)
        assert ways_out(clash) == {
            "later": ("10 min later", "everybody eats later"),
            "helper": ("a helper from 15:00 to 15:30", "30 min of somebody"),
        }
        assert next(fix.minutes for fix in clash.remedies if fix.kind == "later") == 10

    def test_several_cooks_and_helpers_are_counted(self):
        three = (
            [step("stir", 30)],
            [step("knead", 30), step("fold", 30), step("plate", 1, after=[("knead", 0, None), ("fold", 0, None)])],
        )
        child = HelperHours("Wren", SERVE - timedelta(minutes=5), SERVE)
        clash = clash_of(*three, before_min=33, cooks=2, helpers=(child,))
        assert clash.says.endswith("want hands at once, and there are 2 cooks and 1 to help.")

    def test_one_step_in_quiet_hours(self):
        noon = SERVE.replace(hour=13, minute=30)
        clash = clash_of([step("stir", 90)], before_min=100, serve=noon, quiet={"begins": "13:00", "ends": "14:00"})
        assert clash.says == "“stir” falls into quiet hours, or where nobody is there."
        assert "quiet from 13:00 to 14:00" in [bond.says for bond in clash.bonds]
        assert ways_out(clash)["quiet"] == ("work into the quiet hours", "not quiet from 13:00")


class TestPlaces:
    def test_two_want_one_burner(self):
        boil, fry = ([step(name, 30, "free", uses=["burner"])] for name in ("boil", "fry"))
        clash = clash_of(boil, fry, before_min=50, burners=1)
        assert clash.says == "“boil” and “fry” want the burner at once, and there is one."
        assert "“boil” takes the burner for 30 min" in [bond.says for bond in clash.bonds]

    def test_what_the_kitchen_has_not_helps_only_without_it(self):
        clash = clash_of([step("stir", 30)], [step("bake", 30, "free", uses=["oven"])], before_min=300, ovens=0)
        assert clash.says == "“bake” wants an oven, and this kitchen has none."
        assert ways_out(clash) == {"without": ("without the rice", "one dish less")}


class TestTime:
    def test_too_late_by_hours(self):
        clash = clash_of([step("soak", 155, "free")], before_min=30)
        assert clash.says == "It should have been begun already."
        assert ways_out(clash) == {"later": ("2 h 05 later", "everybody eats later")}

    def test_a_wait_is_said_with_its_minutes(self):
        steps = [step("soak", 10, "free"), step("cook", 10, "free", after=[("soak", 30, None)])]
        clash = clash_of(steps, before_min=40)
        assert "“cook” follows “soak”, 30 min later at least" in [bond.says for bond in clash.bonds]

    def test_a_pin_against_a_gap(self):
        steps = [step("melt", 10, "free"), step("pour", 10, "free", after=[("melt", 0, 5)])]
        clash = clash_of(steps, before_min=300, pins={key_of(0, "melt"): SERVE.replace(hour=14, minute=0)})
        assert clash.says == "A pin holds a step where its gaps do not let it lie."
        assert {bond.says for bond in clash.bonds} == {
            "“pour” begins at most 5 min after “melt”",
            "“melt” is pinned at 14:00 on Saturday",
            "the cake is on the table at 15:30 on Saturday",
        }
        fix = next(fix for fix in clash.remedies if fix.kind == "unpin")
        assert (fix.says, fix.costs, fix.dish, fix.step) == ("let the pin go", "it lies where it can", 0, "melt")

    def test_the_hours_are_those_of_the_kitchen(self):
        clash = clash_of([step("soak", 155, "free")], before_min=30, timezone="Asia/Kathmandu")  # 5 h 45 ahead
        assert {bond.says for bond in clash.bonds} == {
            "it is 20:45 on Saturday already",
            "the cake is on the table at 21:15 on Saturday",
        }


class TestOtherwise:
    """Two dishes of an hour each with one cook and half that time."""

    def others(self, dish):
        quick = [step("stir" if dish == 0 else "knead", 10)]
        yield ChangedDish("as it is", "nothing", [step("stir", 60)], factor=0.9)
        yield ChangedDish("by machine", "noise", quick, choice="pound", school="machine")
        yield ChangedDish("not soaked", "a hard middle", quick, soak="none")
        yield ChangedDish("half of it", "less", quick, factor=0.5)

    def test_only_what_works_is_offered_with_the_dish_it_is_of(self):
        clash = clash_of([step("stir", 40)], [step("knead", 40)], before_min=60, others=self.others)
        found = [
            (fix.kind, fix.says, fix.costs, fix.dish)
            for fix in clash.remedies
            if fix.kind in ("school", "soak", "smaller")
        ]
        assert found[:3] == [
            ("school", "the cake: by machine", "noise", 0),
            ("soak", "the cake: not soaked", "a hard middle", 0),
            ("smaller", "the cake: half of it", "less", 0),
        ]

    def test_of_one_dish_the_title_goes_without_saying(self):
        clash = clash_of([step("stir", 40)], before_min=30, others=self.others)
        assert [fix.says for fix in clash.remedies if fix.kind == "school"] == ["by machine"]

    @pytest.mark.parametrize("before_min", [60, 24 * 60 + 120])
    def test_the_day_before_where_there_is_one(self, before_min):
        """Two steps of forty minutes that both must end within three quarters of an hour of the meal: never, for one cook."""
        clash = clash_of([step("stir", 50)], [step("knead", 50)], before_min=before_min)
        found = {fix.says for fix in clash.remedies if fix.kind == "before"}
        assert found == ({"the cake the day before", "the rice the day before"} if before_min > 1000 else set())
