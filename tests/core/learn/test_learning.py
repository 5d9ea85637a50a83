"""What is learned, held against kitchens whose truth is known; and against hand-worked normals where there is one row."""

import math
import random
import statistics
from dataclasses import replace
from datetime import UTC, datetime, timedelta

import numpy as np
import pytest
from learning_kitchens import DONE, House, cake, knowing, off, told

from kemble.core.kitchen.document import Kitchen, OwnEstimate
from kemble.core.kitchen.estimates import ANEW, ESTIMATES
from kemble.core.learn.measurement_gain import MadeSheet, rank_measurements
from kemble.core.learn.observations import Observation, each_taught_once, observation_from, observe_run
from kemble.core.learn.pace import paces
from kemble.core.learn.posterior import Prior, learn, prior_of
from kemble.core.plan.schedule import plan_from
from kemble.core.run.events import event_from
from kemble.core.run.run_state import state_of
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.work_sheet import work, work_with_spreads

HOUSES = 24
MADE = [cake(180), cake(160, 0.8), cake(220, 1.15)]
NEW = cake(200, 1.5)  # another tin, and deeper
BALLS = default_sheet("boiled-balls")


@pytest.fixture(scope="module")
def years():
    """Some kitchens, ten makings of three cakes each."""
    result = []
    for seed in range(HOUSES):
        house = House(seed)
        result.append((house, [house.makes(MADE[house.chance.randrange(3)]) for _ in range(10)]))
    return result


class TestKitchensWhoseTruthIsKnown:
    def error(self, years, n, sheet=MADE[0]):
        return statistics.mean(off(house, sheet, batches[:n]) for house, batches in years)

    def test_after_three_makings_and_after_ten(self, years):
        """The issue: at most three quarters of the error after three, at most half after ten."""
        at_first = self.error(years, 0)
        assert at_first > 0.06  # there is something to learn
        assert self.error(years, 3) <= 0.75 * at_first
        assert self.error(years, 10) <= 0.5 * at_first

    def test_a_new_tin_and_depth_is_known_too(self, years):
        """What was learned of three tins holds for a fourth, deeper one: at least two fifths of its error are gone."""
        assert self.error(years, 10, NEW) <= 0.6 * self.error(years, 0, NEW)

    def test_ninety_in_a_hundred_lie_within(self, years):
        """Of what the kitchens make next, in every tin: 85 to 97 in a hundred lie within first and latest."""
        inside, widths = [], []
        for house, batches in years:
            kitchen = knowing(batches)
            for sheet in (*MADE, NEW):
                fact = work(sheet, kitchen).facts[DONE]
                inside += [fact.low <= house.takes(sheet) <= fact.high for _ in range(2)]
                widths.append(math.log(fact.high / fact.low))
        assert 0.85 <= statistics.mean(inside) <= 0.97
        fresh = math.log(told(NEW).latest / told(NEW).first)
        assert statistics.mean(widths) < 0.65 * fresh

    def test_a_look_every_five_minutes_teaches_of_balls_too(self):
        """Nine minutes in the pot, looked at every five: by the interval the error falls in fifteen makings. Taken for the
        minute of the last look it would grow."""
        first, then, rough = [], [], []
        for seed in range(8):
            house = House(seed)
            seen = [house.stands_by(BALLS, every=5.0) for _ in range(15)]
            at_the_look = [[replace(each, low=each.high) for each in batch] for batch in seen]
            for errors, batches in ((first, []), (then, seen), (rough, at_the_look)):
                errors.append(off(house, BALLS, batches))
        assert statistics.mean(then) < statistics.mean(first) < statistics.mean(rough)

    def test_an_odd_making_in_ten_costs_little(self, years):
        """A clock that was forgotten, twice as long: at most a fifth of what was won is lost."""
        won = lost = 0.0
        for house, batches in years[:12]:
            before = off(house, MADE[0], [])
            clean = off(house, MADE[0], batches)
            spoiled = off(house, MADE[0], [*batches[:9], house.makes(MADE[1], odd=2.0)])
            won += before - clean
            lost += spoiled - clean
        assert lost <= 0.2 * won


def sight(told, seen, sd=0.07, low=None, **moves):
    return [Observation("time", DONE, "", told, seen if low is None else low, seen, sd, moves)]


MOVES = {"burner": (0.3, -0.3)}  # half as strong again: three tenths quicker, as a logarithm


class TestOneRow:
    def test_two_normals(self):
        """A prior of one and a sight that moves 0.3/1.645 a width, seen 20 % slow with 7 %: by the product of normals."""
        slope = -0.3 / 1.6449
        y, s = math.log(1.2), 0.07
        sd = 1 / math.sqrt(1 + (slope / s) ** 2)
        z = sd**2 * slope * y / s**2
        row = learn([sight(40, 48, **MOVES)]).rows["burner"]
        # An odd sight counts less by Student's weight: with y one and a half widths off, none of it is odd here.
        assert row.sd == pytest.approx(sd, rel=0.1)
        assert row.z == pytest.approx(z, rel=0.1)

    def test_done_at_the_first_look_says_only_at_most(self):
        """Open below: it may have been done long before. The row moves less than if it were known, and to the same side."""
        known = learn([sight(40, 32, **MOVES)]).rows["burner"].z
        open_below = learn([[Observation("time", DONE, "", 40, None, 32, 0.07, MOVES)]]).rows["burner"].z
        between = learn([[Observation("time", DONE, "", 40, 27, 32, 0.07, MOVES)]]).rows["burner"].z
        assert open_below > 0
        assert known > 0
        assert between >= open_below - 0.6

    def test_only_not_yet(self):
        """Stopped at fifty and never done: the burner is weak, by some."""
        row = learn([[Observation("time", DONE, "", 40, 50, None, 0.07, MOVES)]]).rows["burner"]
        assert row.z < -0.5

    def test_what_is_measured_is_where_it_begins(self):
        own = OwnEstimate(value=0.8, low=0.76, high=0.84)
        prior = prior_of(ESTIMATES["burner"], own)
        assert ESTIMATES["burner"].at(prior.mean) == pytest.approx(0.8)
        assert prior.sd < 0.3
        moved = learn([sight(40, 40, **MOVES)], {"burner": prior}).rows["burner"]
        assert abs(moved.z - prior.mean) < abs(learn([sight(40, 40, **MOVES)]).rows["burner"].z - prior.mean)

    def test_a_row_that_is_held_stays(self):
        row = learn([sight(40, 60, **MOVES)], {"burner": Prior(0.0, 0.02)}).rows["burner"]
        assert abs(row.z) < 0.02
        assert not row.has_moved

    def test_the_chance_of_one_making_is_not_learned(self):
        result = learn([sight(40, 60, burner=(0.3, -0.3), depth=(-0.2, 0.2))])
        assert "depth" in ANEW
        assert set(result.rows) == {"burner"}

    def test_nothing_of_nothing(self):
        assert learn([]).rows == {}
        assert learn([[]]).known() == {}


class TestOrder:
    def test_in_any_order_it_is_the_same(self):
        house = House(5)
        batches = [house.makes(MADE[i % 3]) for i in range(8)]
        shuffled = [*batches]
        random.Random(3).shuffle(shuffled)
        result, other = learn(batches), learn(shuffled)
        for name, row in result.rows.items():
            assert other.rows[name].z == pytest.approx(row.z, abs=1e-6)
            assert other.rows[name].sd == pytest.approx(row.sd, abs=1e-6)

    def test_a_sight_that_was_kept_is_read_again(self):
        (item,) = House(2).makes(MADE[0])
        again = observation_from(item.document)
        assert (again.kind, again.key, set(again.moves)) == (item.kind, item.key, set(item.moves))
        assert again.high == pytest.approx(item.high, rel=1e-3)
        gone = observation_from({**item.document, "moves": {**item.document["moves"], "phlogiston": [0.1, -0.1]}})
        assert set(gone.moves) == set(item.moves)

    def test_what_each_making_pulls_is_what_it_would_leave(self):
        """To first order: the row without a making is where it was, less that making's pull."""
        house = House(9)
        batches = [house.makes(MADE[i % 3]) for i in range(8)]
        whole, without = learn(batches), learn(batches[1:])
        for name, row in whole.rows.items():
            moved = row.z - without.rows[name].z
            assert row.pulls[0] == pytest.approx(moved, abs=0.05 + 0.3 * abs(moved)), name


class TestWhatARunShows:
    NOW = datetime(2026, 11, 28, 9, 0, tzinfo=UTC)

    def run(self, way="set-cake", method=(), **lasts):
        """A way's starting sheet, with a method of its cook's own, made as told but for some steps, in minutes."""
        sheet = sheet_from({**default_sheet(way).model_dump(mode="json"), "method": list(method)})
        worked = work(sheet, Kitchen())
        plan = plan_from(worked.steps, Kitchen(), begin=self.NOW)
        events, at = [], self.NOW
        for i, scheduled_step in enumerate(plan.scheduled):
            minutes = lasts.get(scheduled_step.step.id, scheduled_step.step.minutes)
            events.append(self.event(2 * i, "started", scheduled_step.step.id, at))
            at += timedelta(minutes=minutes)
            events.append(self.event(2 * i + 1, "done", scheduled_step.step.id, at))
        return sheet, plan, events

    def event(self, number, kind, step, at, **more):
        return event_from({"uid": f"event-{number:04}", "at": at, "kind": kind, "step": step, **more})

    def seen(self, sheet, plan, events, kitchen=None):
        states = {state.id: state for state in state_of(plan, events, events[-1].at).steps}
        steps = {item.step.id: item.step for item in plan.scheduled}
        return observe_run(sheet, kitchen or Kitchen(), steps, states, events)

    def test_every_time_that_is_told_with_a_range(self):
        sheet, plan, events = self.run()
        sights = {each_sight.key: each_sight for each_sight in self.seen(sheet, plan, events).sights}
        assert {DONE, "heat.to_boil_min"} <= set(sights)
        window = next(item.step.window for item in plan.scheduled if item.step.window)
        assert sights[DONE].low == pytest.approx(window.first_check)  # it was called to the first look, and went on
        assert set(sights[DONE].moves) >= {"clear_min", "burner"}

    def test_what_ended_when_its_given_time_was_up_shows_nothing_of_when_it_was_done(self):
        """A cook ends at the minute that the book says; one who looks and goes on shows something all the same."""
        given = [{"step": "heat", "minutes": 55, "by": "the book"}]
        sheet, plan, events = self.run(method=given, steam=55.5)
        seen = self.seen(sheet, plan, events)
        assert DONE not in [each.key for each in seen.sights if each.kind == "time"]
        assert any("given time was up" in words for words in seen.left_out)
        for minutes in (47, 60):
            sheet, plan, events = self.run(method=given, steam=minutes)
            seen = self.seen(sheet, plan, events)
            assert DONE in [each.key for each in seen.sights if each.kind == "time"], minutes

    def test_ours_is_what_a_given_time_is_learned_against(self):
        """The time of the hands at a step is held against Kemble's, though the cook gave another one."""
        given = [{"step": "cut", "minutes": 30}]
        sheet, plan, events = self.run(method=given, cut=20)
        assert self.seen(sheet, plan, events).paces["cut"] == pytest.approx(math.log(20 / 10))

    def test_done_before_anybody_was_called_says_only_at_most(self):
        steam = next(step for step in work(default_sheet("set-cake"), Kitchen()).steps if step.window)
        sheet, plan, events = self.run(**{steam.id: steam.window.first_check - 3})
        (item,) = [each for each in self.seen(sheet, plan, events).sights if each.key == DONE]
        assert item.low is None

    def test_looks_before_it_was_done(self):
        sheet, plan, events = self.run()
        steam = next(item.step.id for item in plan.scheduled if item.step.window)
        began = next(event.at for event in events if event.kind == "started" and event.step == steam)
        look = self.event(900, "not_yet", steam, began + timedelta(minutes=37))
        sights = {
            each_sight.key: each_sight for each_sight in self.seen(sheet, plan, [*events[:-1], look, events[-1]]).sights
        }
        assert sights[DONE].low == pytest.approx(37.0)

    def test_somebody_stands_by_and_presses_not_yet(self):
        """Balls are held: without a press their time is what it was; with one they were done between it and the end."""
        sheet, plan, events = self.run("boiled-balls")
        boil = next(item.step for item in plan.scheduled if item.step.window)
        assert boil.hands == "held"
        (exact,) = [each for each in self.seen(sheet, plan, events).sights if each.key == DONE]
        assert exact.low == exact.high == pytest.approx(boil.minutes)
        began = next(event.at for event in events if event.kind == "started" and event.step == boil.id)
        look = self.event(900, "not_yet", boil.id, began + timedelta(minutes=5))
        (between,) = [
            each for each in self.seen(sheet, plan, [*events[:-1], look, events[-1]]).sights if each.key == DONE
        ]
        assert (between.low, between.high) == (pytest.approx(5.0), pytest.approx(boil.minutes))

    def test_what_was_not_made_is_left_out_and_why(self):
        sheet, plan, events = self.run(**{"raise-steam": 0.2, "cool": 4000})
        seen = self.seen(sheet, plan, events)
        assert len(seen.left_out) == 2
        assert "ended after 0 minutes" in seen.left_out[0]
        assert "a clock that was forgotten" in seen.left_out[1]

    def test_what_the_kitchen_has_learned_is_no_part_of_it(self):
        """Told by the craft's own table, whatever the kitchen has come to know: so it can be learned again for ever."""
        sheet, plan, events = self.run()
        knows = Kitchen(estimates={"burner": OwnEstimate(value=0.7, low=0.69, high=0.71)})
        plain = {each_sight.key: each_sight.told for each_sight in self.seen(sheet, plan, events).sights}
        wise = {each_sight.key: each_sight.told for each_sight in self.seen(sheet, plan, events, knows).sights}
        assert plain == wise

    def test_a_heart_that_was_read_hangs_on_no_taste(self):
        sheet, plan, events = self.run()
        worked = work(sheet, Kitchen())
        steam = next(item.step.id for item in plan.scheduled if item.step.window)
        began = next(event.at for event in events if event.kind == "started" and event.step == steam)
        hot = float(np.interp(15, worked.core.curve.minutes, worked.core.curve.core_c))
        read = self.event(901, "probed", steam, began + timedelta(minutes=18), celsius=round(hot, 1))
        done = next(i for i, event in enumerate(events) if event.kind == "done" and event.step == steam)
        with_read = [*events[:done], read, *events[done:]]
        core = worked.core
        states = {state.id: state for state in state_of(plan, with_read, with_read[-1].at, core).steps}
        steps = {item.step.id: item.step for item in plan.scheduled}
        seen = observe_run(sheet, Kitchen(), steps, states, with_read)
        (observation,) = [each for each in seen.sights if each.kind == "reading"]
        assert observation.told == pytest.approx(15.0, abs=0.4)
        assert observation.high == pytest.approx(18.0, abs=0.1)
        assert "clear_min" not in observation.moves


class TestPace:
    def test_one_step_is_drawn_to_the_cook(self):
        """Twice as long at one step, once: by hand, between one and two; after ten times nearly two."""
        once = paces({"wrap": [math.log(2)]})["wrap"]
        often = paces({"wrap": [math.log(2)] * 10})["wrap"]
        assert 1.2 < once < often < 2.0
        assert often > 1.75

    def test_a_slow_cook_is_slow_at_what_was_done_once(self):
        slow = {"mix": [math.log(1.5)] * 5, "cut": [math.log(1.5)] * 5, "line": [0.0]}
        assert paces(slow)["line"] > 1.05

    def test_as_is_usual_says_nothing(self):
        assert paces({"wrap": [0.01, -0.01]}) == {}
        assert paces({}) == {}

    def test_it_moves_the_steps(self):
        steps = {step.id: step.minutes for step in work(default_sheet("set-cake"), Kitchen()).steps}
        slow = {step.id: step.minutes for step in work(default_sheet("set-cake"), Kitchen(pace={"mix": 1.5})).steps}
        assert slow["mix"] == pytest.approx(1.5 * steps["mix"])
        assert {name for name in steps if steps[name] != slow[name]} == {"mix"}


class TestWhatWouldTeachMost:
    def made(self):
        return [
            MadeSheet("a cake", work_with_spreads(MADE[0], Kitchen())[1][DONE]),
            MadeSheet("a deep one", work_with_spreads(NEW, Kitchen())[1][DONE]),
        ]

    def test_it_is_what_the_windows_hang_on(self):
        """A steamed cake: how it is liked and the steam's leak hold most of its window, and come first."""
        gains = rank_measurements(self.made(), learn([]), {})
        assert gains == sorted(gains, key=lambda gain: -gain.brings_min)
        assert {"taste", "steam"} & {gain.measurement for gain in gains[:3]}
        assert "oven" not in {gain.measurement for gain in gains}

    def test_what_is_known_brings_no_more(self):
        own = prior_of(ESTIMATES["leak_ml_s"], OwnEstimate(value=0.2, low=0.199, high=0.201))
        before = {gain.measurement: gain.brings_min for gain in rank_measurements(self.made(), learn([]), {})}
        after = {
            gain.measurement: gain.brings_min for gain in rank_measurements(self.made(), learn([]), {"leak_ml_s": own})
        }
        assert before["steam"] > 1
        assert after.get("steam", 0.0) < 0.2 * before["steam"]

    def test_it_is_what_it_brings(self):
        """A measurement that is told to bring so many minutes brings them, to a fifth: by the window worked anew."""
        sheet = work_with_spreads(MADE[0], Kitchen())[1][DONE]
        (gain,) = [
            each
            for each in rank_measurements([MadeSheet("a cake", sheet)], learn([]), {})
            if each.measurement == "steam"
        ]
        row = ESTIMATES["leak_ml_s"]
        ends = (
            math.exp(row.after * math.log(row.low / row.value)),
            math.exp(row.after * math.log(row.high / row.value)),
        )
        knows = OwnEstimate(value=row.value, low=row.value * ends[0], high=row.value * ends[1])
        after = work_with_spreads(MADE[0], Kitchen(estimates={"leak_ml_s": knows}))[1][DONE]
        assert sheet.half - after.half == pytest.approx(gain.brings_min, rel=0.35)


class TestEveryFigureSaysSo:
    def test_what_was_learned_stands_among_its_origins(self):
        house = House(4)
        kitchen = knowing([house.makes(MADE[0]) for _ in range(6)])
        fact = work(MADE[0], kitchen).facts["heat.to_boil_min"]
        said = [origin for origin in fact.because.inputs if origin.ref.startswith("learned:")]
        if "burner" in kitchen.learned:
            assert said
            assert "of your makings" in said[0].label


def test_a_time_that_was_taught_counts_once_however_often_it_is_made():
    """Somebody said 70 minutes of a sheet that was made three times; another sheet of theirs says 55."""
    taught = Observation("taught", DONE, "", 62, 70, 70, 0.2, MOVES)
    another = Observation("taught", DONE, "", 50, 55, 55, 0.2, MOVES)
    seen = Observation("time", DONE, "", 62, 60, 64, 0.07, MOVES)
    assert each_taught_once([[taught, seen], [seen, taught], [taught, another]]) == [[taught, seen], [seen], [another]]
