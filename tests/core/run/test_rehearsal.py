"""A simulated cook, and what a making showed: the report by hand, the cook by what it can do wrong."""

from datetime import UTC, datetime, timedelta

import pytest
from sheets_by_hand import KITCHEN, steps

from kemble.core.plan.schedule import Plan, ScheduledStep, plan_from
from kemble.core.run.events import check_event, event_from
from kemble.core.run.rehearsal import RehearsedRun, SimulatedCookTraits, report, simulate_events
from kemble.core.run.run_state import state_of
from kemble.core.stations.heat.core_curve import CoreCurve, TemperatureCurve
from kemble.core.stations.steps import DonenessWindow, StepResult, StepWait

NINE = datetime(2026, 11, 28, 9, 0, tzinfo=UTC)


def at(minutes):
    return NINE + timedelta(minutes=minutes)


def step(name, minutes, hands="held", after=(), window=None):
    waits = [StepWait(step=item, at_least=least, at_most=most) for item, least, most in after]
    rest = {"cue": None, "window": window, "target": None, "to_hand": [], "cautions": [], "uses": []}
    return StepResult(id=name, title=name.title(), words="", minutes=minutes, hands=hands, after=waits, **rest)


def plan(*rows, serve=120):
    scheduled = [ScheduledStep(step=row, starts=at(a), ends=at(a + row.minutes)) for row, a in rows]
    return Plan(serve=at(serve), begin=scheduled[0].starts, scheduled=scheduled, proven=True, quiet_kept=True)


def events(*rows):
    return [
        event_from({"uid": f"event-{i:03}", "at": at(minute), "kind": kind, "step": name})
        for i, (minute, kind, name) in enumerate(rows)
    ]


STEAM = step("steam", 40, "free", window=DonenessWindow(first_check=30, done=40, latest=55))


class TestReport:
    def test_in_time_nothing_is_said(self):
        its = plan((STEAM, 0), serve=60)
        told = report([("a cake", its, events((0, "started", "steam"), (41, "done", "steam")))], 1, at(60))
        assert not any(getattr(told, name) for name in ("hands", "burnt", "missed", "table"))

    def test_what_stood_past_its_latest(self):
        its = plan((STEAM, 0), serve=60)
        told = report([("a cake", its, events((0, "started", "steam"), (69, "done", "steam")))], 1, at(70))
        assert [item.says for item in told.burnt] == ["Steam: 14 min past its latest."]
        assert [item.says for item in told.table] == ["a cake: 9 min late on the table."]

    def test_two_held_at_once(self):
        item, two = plan((step("stir", 10), 0)), plan((step("burn", 10), 0))
        told = report(
            [
                ("a", item, events((0, "started", "stir"), (10, "done", "stir"))),
                ("b", two, events((6, "started", "burn"), (16, "done", "burn"))),
            ],
            1,
            at(20),
        )
        assert "Stir and Burn: held at once for 4 min." in [each.says for each in told.hands]
        again = report(
            [
                ("a", item, events((0, "started", "stir"), (10, "done", "stir"))),
                ("b", two, events((0, "started", "burn"), (16, "done", "burn"))),
            ],
            2,
            at(20),
        )
        assert again.hands == []

    def test_what_waited_for_hands(self):
        item, two = plan((step("stir", 30), 0)), plan((step("wrap", 10), 5))
        told = report(
            [
                ("a", item, events((0, "started", "stir"), (30, "done", "stir"))),
                ("b", two, events((30, "started", "wrap"), (40, "done", "wrap"))),
            ],
            1,
            at(50),
        )
        assert [each.says for each in told.hands] == ["Wrap waited 25 min: hands were in Stir."]

    def test_a_window_that_was_missed(self):
        its = plan((step("dough", 10), 0), (step("wrap", 10, "held", [("dough", 0, 15)]), 10))
        done = events((0, "started", "dough"), (10, "done", "dough"), (35, "started", "wrap"), (45, "done", "wrap"))
        told = report([("balls", its, done)], 1, at(50))
        assert [item.says for item in told.missed] == ["Wrap began 25 min after dough, 15 min at most."]


def rounds():
    its = plan_from(steps("stirred-rounds"), KITCHEN, begin=NINE)
    return RehearsedRun(its)


class TestCook:
    def test_who_is_on_time_makes_what_was_planned(self):
        part = rounds()
        done = simulate_events([part], SimulatedCookTraits(), 1)[0]
        state = state_of(part.plan, done, done[-1].at + timedelta(minutes=1))
        assert all(step_state.status == "done" for step_state in state.steps)
        told = report([("rounds", part.plan, done)], 1, done[-1].at)
        assert told.burnt == []
        assert not [item for item in told.hands if "at once" in item.says]

    def test_every_event_can_be_taken(self):
        part = rounds()
        for event in simulate_events([part], SimulatedCookTraits(late=2, heavy=2, forgetful=2, seed=4), 1)[0]:
            check_event(part.plan, event)

    def test_a_simulated_thermometer_reads_the_middle_at_the_first_look(self):
        """Through the curve that the sheet predicts, from 20 degrees at the start to 100 at done: straight by hand."""
        its = plan_from(steps("set-cake"), KITCHEN, begin=NINE)
        window = next(each.step for each in its.scheduled if each.step.id == "steam").window
        curve = TemperatureCurve(minutes=[0.0, window.done], core_c=[20.0, 100.0], surface_c=[100.0, 100.0])
        core = CoreCurve(curve=curve, first=window.first_check, done=window.done, latest=window.latest)
        readings = []
        for seed in range(40):
            played = simulate_events([RehearsedRun(its, core)], SimulatedCookTraits(seed=seed), 1)[0]
            probed = next((event for event in played if event.kind == "probed"), None)
            if probed:
                began = next(event.at for event in played if (event.kind, event.step) == ("started", "steam"))
                assert probed.at - began == timedelta(minutes=window.first_check)
                assert (probed.step, probed.sure, probed.uid) == ("steam", True, "played-0-steam-probed")
                readings.append(probed.celsius)
        assert len(readings) > 20
        assert sum(readings) / len(readings) == pytest.approx(20 + 80 * window.first_check / window.done, abs=1.0)

    def test_the_same_seed_is_the_same_cook(self):
        part, manner = rounds(), SimulatedCookTraits(late=1, heavy=1, forgetful=1, seed=7)
        assert simulate_events([part], manner, 1) == simulate_events([part], manner, 1)
        assert simulate_events([part], manner, 1) != simulate_events([part], manner.model_copy(update={"seed": 8}), 1)

    def test_who_is_late_is_late(self):
        """Over thirty seeds: later on the table than who is on time, and heavier on the scale than who is to the gram."""
        part = rounds()

        def ends(manner):
            eventses = [simulate_events([part], manner.model_copy(update={"seed": seed}), 1)[0] for seed in range(30)]
            last = [max(event.at for event in run_finished) for run_finished in eventses]
            return sum((moment - part.plan.serve).total_seconds() / 60 for moment in last) / 30

        assert ends(SimulatedCookTraits(late=2)) > ends(SimulatedCookTraits(late=1)) > ends(SimulatedCookTraits()) + 5

    def test_who_is_heavy_handed_is_heavier(self):
        part = rounds()
        targets = {item.step.id: item.step.target.grams for item in part.plan.scheduled if item.step.target}

        def over(heavy):
            shares = [
                event.grams / targets[event.step]
                for seed in range(30)
                for event in simulate_events([part], SimulatedCookTraits(heavy=heavy, seed=seed), 1)[0]
                if event.kind == "weighed"
            ]
            return sum(shares) / len(shares)

        assert over(0) == pytest.approx(1.0, abs=0.004)
        assert over(2) == pytest.approx(1.04, abs=0.006)  # a uniform share of 2 × 4 %, half of it on the mean

    def test_who_forgets_burns(self):
        part = RehearsedRun(plan((STEAM, 0), (step("cut", 5, "held", [("steam", 0, None)]), 40)))
        burnt = sum(
            bool(
                report(
                    [("a", part.plan, simulate_events([part], SimulatedCookTraits(forgetful=2, seed=seed), 1)[0])],
                    1,
                    at(400),
                ).burnt
            )
            for seed in range(60)
        )
        assert 8 <= burnt <= 28  # 28 % of sixty, and its scatter

    def test_one_pair_of_hands_is_never_in_two(self):
        item, two = plan((step("stir", 30), 0)), plan((step("burn", 20), 5))
        done = simulate_events([RehearsedRun(item), RehearsedRun(two)], SimulatedCookTraits(late=1), 1)
        told = report([("a", item, done[0]), ("b", two, done[1])], 1, at(200))
        assert not [each for each in told.hands if "at once" in each.says]
