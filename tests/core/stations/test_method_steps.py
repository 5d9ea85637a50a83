"""The cook's method laid over the steps: what is followed, what is not and why, and that no gram is lost by it."""

from datetime import UTC, datetime, timedelta

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from ledger_laws import adds_up, all_behind, has_every_gram_once
from thorough import examples

from kemble.core.cards.common_steps import COMMON_STEPS
from kemble.core.cards.ways import WAYS
from kemble.core.facts.problems import Refused
from kemble.core.kitchen.document import Kitchen, Pot
from kemble.core.plan.schedule import plan_for, plan_from
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.traits import joined
from kemble.core.stations.work_sheet import work

KITCHEN = Kitchen()
NOON = datetime(2026, 12, 5, 12, 0, tzinfo=UTC)


def with_method(*entries, way="set-cake", kitchen=KITCHEN, **fields):
    document = {**default_sheet(way).model_dump(mode="json"), **fields, "method": list(entries)}
    return work(sheet_from(document), kitchen)


def by_id(worked):
    return {step.id: step for step in worked.steps}


def waits(worked, step):
    return {wait.step: (wait.at_least, wait.at_most) for wait in by_id(worked)[step].after}


def notes(worked, step):
    return [(note.kind, note.says) for note in worked.method.notes if note.step == step]


class TestGivenTimes:
    def test_a_given_time_is_the_one_that_is_used_and_ours_stands_beside(self):
        plain, told = with_method(), with_method({"step": "rest-batter", "minutes": 15, "by": "my aunt"})
        step = by_id(told)["rest-batter"]
        assert (step.minutes, step.given.by, step.given.is_used) == (15, "my aunt", True)
        assert step.predicted.minutes == by_id(plain)["rest-batter"].minutes == 20
        assert by_id(told)["mix"] == by_id(plain)["mix"]

    def test_the_cook_can_have_ours_used_all_the_same(self):
        step = by_id(with_method({"step": "rest-batter", "minutes": 15, "use": "ours"}))["rest-batter"]
        assert (step.minutes, step.predicted, step.given.minutes, step.given.is_used) == (20, None, 15, False)

    def test_what_is_judged_by_its_looks_keeps_our_window_opened_to_the_given_time(self):
        ours = by_id(with_method())["steam"].window
        late = by_id(with_method({"step": "heat", "minutes": 80}))["steam"]
        assert (late.minutes, late.window.latest, late.window.first_check) == (80, 80, ours.first_check)
        assert late.ours.window == ours
        early = by_id(with_method({"step": "heat", "minutes": 20, "use": "given"}))["steam"]
        assert (early.minutes, early.window.first_check, early.window.latest) == (20, 20, ours.latest)

    def test_a_time_by_which_it_may_be_raw_is_used_only_once_the_cook_chose_it(self):
        worked = with_method({"step": "heat", "minutes": 20, "by": "a page"})
        step = by_id(worked)["steam"]
        assert (step.given.is_used, step.predicted) == (False, None)
        assert notes(worked, "steam")[0][1].startswith("By then it may be raw within")

    def test_set_times_have_no_spread_left(self):
        ours, step = (by_id(with_method(*entries))["cool"] for entries in ((), ({"step": "rest", "minutes": 180},)))
        assert ours.between is not None
        assert (step.minutes, step.between, step.hangs) == (180, None, {})

    def test_a_soak_is_a_field_of_the_sheet(self):
        worked = with_method({"step": "soak", "minutes": 60}, way="tray-rice")
        assert by_id(worked)["soak"].minutes == 120
        assert notes(worked, "soak") == [("not-followed", "Its minutes stand in Mix: they are the ones used.")]

    def test_by_the_piece_and_by_the_load(self):
        pieces = int(with_method(way="boiled-balls").facts["shape.pieces"].value)
        worked = with_method(
            {"step": "wrap", "minutes": 0.5, "per": "piece"}, {"step": "heat", "minutes": 6}, way="boiled-balls"
        )
        loads = worked.facts["heat.loads"].value
        assert by_id(worked)["wrap"].minutes == pytest.approx(0.5 * pieces)
        assert by_id(worked)["boil"].given.minutes == pytest.approx(6 * loads)

    def test_by_the_load_where_hands_do_several(self):
        small = Kitchen(pots=(Pot(diameter_mm=160, water_ml=1000),))
        many = {"pieces": {"count": 60, "dough_g": 18}, "way": "boiled-balls", "kitchen": small}
        loads = with_method(**many).facts["heat.loads"].value
        assert loads > 1
        worked = with_method({"step": "wrap", "minutes": 4, "per": "load"}, **many)
        assert by_id(worked)["wrap"].minutes == pytest.approx(4 * loads)

    def test_pace_does_not_touch_a_given_time(self):
        quick = Kitchen(pace={"cut": 0.5})
        assert by_id(with_method(kitchen=quick))["cut"].minutes == 5
        step = by_id(with_method({"step": "cut", "minutes": 12}, kitchen=quick))["cut"]
        assert (step.minutes, step.predicted.minutes) == (12, 5)

    def test_that_the_sheet_has_moved_since_is_told(self):
        ours = by_id(with_method())["steam"].minutes
        near = with_method({"step": "heat", "minutes": 50, "ours_min": ours * 1.05})
        far = with_method({"step": "heat", "minutes": 50, "ours_min": ours * 1.5})
        assert notes(near, "steam") == []
        assert notes(far, "steam")[0][1].startswith(
            "It was given when Kemble's own time was 64 min; that is 42 min now"
        )


class TestLeftOut:
    def test_what_waited_for_it_waits_for_what_it_waited_for(self):
        worked = with_method({"step": "sieve", "skip": True})
        assert "sieve" not in by_id(worked)
        assert waits(worked, "rest-batter") == {"mix": (0, 10)}
        assert [(step.id, step.after) for step in worked.method.left_out] == [("sieve", "mix")]
        assert by_id(worked)["rest-batter"].vessel.tipped[0].vessel == "bowl"

    def test_what_would_go_in_at_it_goes_in_along_the_mass(self):
        """Salt and sugar of the crushed rice would go in at the crushing: they go in with what is made of it."""
        plain = by_id(with_method(way="batter-bake"))["whisk"]
        worked = with_method({"step": "whisk", "skip": True}, way="batter-bake")
        assert plain.to_hand
        assert {item.name for item in plain.to_hand} <= {item.name for item in by_id(worked)["flour"].to_hand}
        has_every_gram_once(worked)

    @pytest.mark.parametrize(
        ("way", "step", "why"),
        [
            ("set-cake", "serve", "what is served"),
            ("set-cake", "steam", "It cooks what is eaten"),
            ("tray-rice", "cook-grain", "It cooks what is eaten"),
            ("boiled-balls", "divide", "The pieces are made at it"),
            ("tray-rice", "soak", "0 leaves it out"),
            ("stirred-rounds", "filling-simmer", "make ill"),
        ],
    )
    def test_what_cannot_be_left_out_says_why(self, way, step, why):
        worked = with_method({"step": step, "skip": True}, way=way)
        if step not in by_id(with_method(way=way)):
            pytest.fail(f"{way} has no step {step}")
        assert step in by_id(worked)
        ((kind, says),) = notes(worked, step)
        assert kind == "not-followed"
        assert why in says


class TestMoved:
    def test_habit_gives_way(self):
        worked = with_method({"step": "line", "after": "mix"})
        assert [step.id for step in worked.steps][:4] == ["melt", "cool-syrup", "mix", "line"]
        assert "line" not in waits(worked, "mix")
        assert "mix" in waits(worked, "line")
        assert "line" in all_behind(by_id(worked), "pour")

    @pytest.mark.parametrize(
        ("step", "after", "other"),
        [
            ("sieve", "melt", "Whisk the syrup into the flour"),
            ("line", "pour", "Pour and set the tin on the rack"),
            ("raise-steam", "steam", "Steam"),
        ],
    )
    def test_not_before_what_it_needs_nor_after_what_needs_it(self, step, after, other):
        plain, worked = with_method(), with_method({"step": step, "after": after})
        assert [each.id for each in worked.steps] == [each.id for each in plain.steps]
        ((kind, says),) = notes(worked, step)
        assert kind == "not-followed"
        assert other in says

    def test_a_step_of_a_part_is_called_by_its_parts_name(self):
        worked = with_method(
            {"step": "syrup-reduce", "after": "fold"}, {"step": "fold", "after": "rinse"}, way="tray-rice"
        )
        words = [note.says for note in worked.method.notes]
        assert len(words) == 2
        assert not any("{" in each for each in words)

    def test_a_step_that_is_not_there_or_itself(self):
        for after in ("mix", "no-such-step"):
            assert notes(with_method({"step": "mix", "after": after}), "mix")[0][0] == "not-followed"


class TestOwnSteps:
    def test_it_stands_in_the_vessel_and_what_goes_on_there_waits_for_it(self):
        worked = with_method({"own": "own-rim", "title": "Wipe the rim", "after": "pour", "minutes": 2})
        step = by_id(worked)["own-rim"]
        assert (step.minutes, step.hands, step.vessel.vessel) == (2, "held", "tin")
        assert step.vessel.after_g == by_id(worked)["pour"].vessel.after_g
        assert "own-rim" in waits(worked, "steam")

    def test_a_wait_over_which_it_is_put_is_longer_by_it_and_that_is_told(self):
        short = with_method({"own": "own-rim", "title": "Wipe the rim", "after": "pour", "minutes": 2})
        long = with_method({"own": "own-rim", "title": "Sing", "after": "pour", "minutes": 9})
        assert waits(short, "steam")["pour"] == (0, 4)
        assert notes(short, "own-rim") == []
        assert waits(long, "steam")["pour"] == (0, 11)
        assert "within 2 min" in notes(long, "own-rim")[0][1]

    def test_by_itself_it_is_done_before_the_step_it_is_for_or_before_serving(self):
        pan = {"own": "own-pan", "common": "heat-pan", "before": "melt"}
        tea = {"own": "own-tea", "title": "Put the kettle on", "at": "", "after": "cut", "hands": "eye", "on": "burner"}
        worked = with_method(pan, tea)
        assert "own-pan" in waits(worked, "melt")
        assert "own-tea" in waits(worked, "serve")
        assert (by_id(worked)["own-tea"].hands, by_id(worked)["own-tea"].uses) == ("minded", ["burner"])

    def test_a_common_step_brings_its_words_and_minutes(self):
        worked = with_method({"own": "own-turn", "common": "turn-out", "after": "cool", "words": "On mother's plate."})
        step, card = by_id(worked)["own-turn"], COMMON_STEPS["turn-out"]
        assert (step.title, step.words, step.minutes) == (card.title, joined(card.words), card.minutes)
        assert step.own_words == "On mother's plate."
        assert "own-turn" in waits(worked, "cut")

    def test_behind_a_step_that_is_not_there_it_lies_dormant(self):
        worked = with_method({"own": "own-rim", "title": "Wipe", "after": "bake"}, {"step": "bake", "minutes": 3})
        assert "own-rim" not in by_id(worked)
        assert [(entry.entry, entry.title) for entry in worked.method.dormant] == [
            ("bake", "Bake"),
            ("own-rim", "Wipe"),
        ]

    def test_packing_comes_after_serving_and_the_plan_is_of_the_table(self):
        worked = with_method(
            {"own": "own-pack", "common": "pack", "after": "serve"},
            {"own": "own-label", "title": "Write the day on it", "after": "own-pack"},
        )
        assert [step.id for step in worked.steps][-3:] == ["serve", "own-pack", "own-label"]
        assert [step.id for step in worked.steps if step.serves] == ["serve"]
        plan = plan_for(worked.steps, KITCHEN, serve=NOON + timedelta(days=1), now=NOON)
        at = {scheduled.step.id: scheduled for scheduled in plan.scheduled}
        assert plan.serve == at["serve"].ends == NOON + timedelta(days=1)
        assert at["own-pack"].starts == at["serve"].ends
        assert at["own-label"].starts == at["own-pack"].ends

    def test_a_step_in_a_vessel_that_nobody_uses_again_is_done_before_serving(self):
        worked = with_method({"own": "own-soda", "title": "Soak the pan", "after": "melt", "at": "sink", "minutes": 4})
        assert "own-soda" in waits(worked, "serve")

    def test_before_what_comes_sooner_is_told(self):
        worked = with_method({"own": "own-rim", "title": "Wipe", "after": "pour", "before": "mix", "at": ""})
        assert notes(worked, "own-rim")[0] == ("not-followed", "It cannot come before Whisk the syrup into the flour.")


class TestStages:
    def test_a_step_has_as_many_clocks_one_at_once_after_the_other(self):
        entry = {"step": "melt", "stages": [{"minutes": 2}, {"minutes": 3, "note": "then the salt", "power_pct": 60}]}
        worked = with_method(entry)
        first, second = by_id(worked)["melt"], by_id(worked)["melt-2"]
        assert (first.minutes, second.minutes) == (2, 3)
        assert first.to_hand
        assert second.to_hand == []
        assert "60 % power" in second.words
        assert waits(worked, "melt-2") == {"melt": (0, 2)}
        assert list(waits(worked, "cool-syrup")) == ["melt-2"]

    def test_what_to_look_at_comes_with_the_last(self):
        steps = by_id(with_method({"step": "crush", "stages": [{"minutes": 2}, {}]}, way="crushed-balls"))
        assert (steps["crush"].cue, steps["crush-2"].cue is not None) == (None, True)

    def test_the_open_one_has_what_the_others_leave(self):
        ours = by_id(with_method())["cool-syrup"].minutes
        worked = with_method({"step": "cool-syrup", "stages": [{"minutes": 4}, {}]})
        assert by_id(worked)["cool-syrup-2"].minutes == pytest.approx(ours - 4)

    def test_those_of_the_heat_stand_in_heat(self):
        worked = with_method({"step": "heat", "stages": [{"minutes": 10}, {}]})
        assert notes(worked, "steam")[0][0] == "not-followed"

    def test_of_a_part_too(self):
        plain = by_id(with_method(way="tray-rice"))
        step = next(step for step in plain.values() if step.part and step.minutes > 3)
        worked = with_method({"step": step.id, "stages": [{"minutes": 2}, {}]}, way="tray-rice")
        has_every_gram_once(worked)
        adds_up(worked)
        assert f"{step.id}-2" in by_id(worked)


def test_words_and_sentences_stand_at_their_steps():
    worked = with_method({"step": "mix", "words": "Dry things first."}, {"text": "Mother hummed.", "after": "heat"})
    assert by_id(worked)["mix"].own_words == "Dry things first."
    assert by_id(worked)["steam"].texts == ["Mother hummed."]


@st.composite
def methods(draw):
    """A way, and any entries for its steps: sensible or not."""
    way = draw(st.sampled_from(sorted(WAYS)))
    steps = [step.id for step in work(default_sheet(way), KITCHEN).steps]
    some = draw(st.lists(st.sampled_from(steps), max_size=5, unique=True))
    entries = []
    for i, step in enumerate(some):
        other = draw(st.sampled_from(steps))
        kind = draw(st.integers(0, 4))
        entries.append(
            {"step": step, "skip": True}
            if kind == 0
            else {"step": step, "after": other}
            if kind == 1
            else {"step": step, "minutes": draw(st.floats(0.5, 200))}
            if kind == 2
            else {"step": step, "stages": [{"minutes": draw(st.floats(0.5, 30))}, {}]}
            if kind == 3
            else {
                "own": f"own-{'abcde'[i]}",
                "common": draw(st.sampled_from(sorted(COMMON_STEPS))),
                "after": other,
                "before": draw(st.sampled_from(["", *steps])),
            }
        )
    return way, entries


@pytest.mark.long
@settings(max_examples=examples(120), deadline=None)
@given(methods())
def test_whatever_the_method_no_gram_is_lost_and_there_is_a_plan(drawn):
    """Every gram once, every vessel adds up, the same is served; no step waits for itself or for one that is not there."""
    way, entries = drawn
    plain, worked = with_method(way=way), with_method(*entries, way=way)
    assert worked.problems == []
    has_every_gram_once(worked)
    adds_up(worked)
    served = next(step for step in worked.steps if step.serves)
    assert served.vessel.after_g == pytest.approx(plain.steps[-1].vessel.after_g, abs=0.01)
    steps = by_id(worked)
    assert len(steps) == len(worked.steps)
    for step in worked.steps:
        assert step.id not in all_behind(steps, step.id)
    assert plan_from(worked.steps, KITCHEN, begin=NOON).scheduled


def test_something_can_join_late_in_a_step_that_has_stages():
    """The salt of the syrup goes in at its second act, by the sheet; and no gram is listed twice for it."""
    document = default_sheet("tray-rice").model_dump(mode="json")
    syrup = next(part for part in document["parts"] if part["role"] == "syrup")
    salt = next(line for line in syrup["lines"] if line["ingredient"] == "salt")
    salt["joins"] = "reduce-2"
    stages = [{"minutes": 6}, {"note": "then the salt"}]
    worked = work(sheet_from({**document, "method": [{"step": "syrup-reduce", "stages": stages}]}), KITCHEN)
    assert "Salt" not in [item.name for item in by_id(worked)["syrup-reduce"].to_hand]
    assert [item.name for item in by_id(worked)["syrup-reduce-2"].to_hand] == ["Salt"]
    has_every_gram_once(worked)
    adds_up(worked)
    with pytest.raises(Refused, match="no step"):
        sheet_from(document)


class TestGapsThatCannotHold:
    """The tin is lined once the batter rests: then the steamer is heated, and the batter poured within an hour of its rest."""

    def entry(self, **more):
        return {"step": "line", "after": "rest-batter", "minutes": 70, **more}

    def test_a_time_that_is_used_gives_up_a_gap_and_says_so(self):
        worked = with_method(self.entry())
        assert waits(worked, "pour")["rest-batter"] == (0, None)
        assert notes(worked, "pour") == [
            (
                "look",
                "“Pour and set the tin on the rack” should come within 60 min of “Rest the batter”: by this method it cannot.",
            )
        ]
        assert plan_from(worked.steps, KITCHEN, begin=NOON).gaps_kept

    def test_one_that_is_not_used_gives_up_none(self):
        worked = with_method(self.entry(use="ours"))
        assert waits(worked, "pour")["rest-batter"] == (0, 60)
        assert worked.method.notes == ()

    def test_what_another_choice_would_ask_is_not_asked(self):
        """Without the mixing, sieving comes within half an hour of the cooled syrup: not within 5 min of melting, as hot
        beaten batter would."""
        worked = with_method({"step": "mix", "skip": True})
        assert waits(worked, "sieve")["cool-syrup"] == (0, 30)
        assert "melt" not in waits(worked, "sieve")
        assert worked.method.notes == ()
