"""The thermometer: its lines, a simulated one, and the rest of a heating told anew from what it read."""

import math
from contextlib import suppress
from datetime import UTC, datetime, timedelta

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from thorough import examples

from kemble.core.devices.device_lines import DeviceError
from kemble.core.devices.probe import CoreReading, ProbeHello, read_probe, refit
from kemble.core.devices.simulated_probe import SimulatedProbe
from kemble.core.facts.fact import FactBook
from kemble.core.facts.problems import Refused
from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.schedule import plan_from
from kemble.core.run.events import check_event, event_from, told_event
from kemble.core.run.run_state import state_of
from kemble.core.sheet.document import default_sheet
from kemble.core.stations.heat.core_curve import TemperatureCurve
from kemble.core.stations.heat.doneness_checks import QUARTERS, checks, minute_of, share_of
from kemble.core.stations.work_sheet import work

NOW = datetime(2026, 11, 25, 9, 0, tzinfo=UTC)
# A heart that comes up 2 °C a minute from 20 to 90, told done at 30 minutes.
STRAIGHT = TemperatureCurve(minutes=(0.0, 35.0, 60.0), core_c=(20.0, 90.0, 95.0), surface_c=(90.0, 99.0, 99.0))
WINDOW = (24.0, 30.0, 38.0)


class TestLines:
    def test_what_it_says(self):
        assert read_probe(b'{"t": 3, "temperature": 71.5, "unit": "C"}').celsius == 71.5
        assert read_probe(b'{"t": 3, "temperature": 212, "unit": "F"}').celsius == pytest.approx(100)
        assert read_probe(b'{"t": 3, "out": true}').out
        hello = read_probe(b'{"probe": 1, "name": "thin tip"}')
        assert isinstance(hello, ProbeHello)
        assert hello.name == "thin tip"

    @pytest.mark.parametrize(
        ("line", "why"),
        [
            (b"nonsense", "JSON"),
            (b"[1]", "object"),
            (b'{"t": 1, "temperature": "hot"}', "number"),
            (b'{"t": 1, "temperature": 20, "unit": "K"}', "not C or F"),
            (b'{"t": 1, "temperature": 9000}', "less than or equal"),
            (b'{"t": 1}', "missing"),
            (b" " * 500, "at most"),
        ],
    )
    def test_what_is_no_line(self, line, why):
        with pytest.raises(DeviceError, match=why):
            read_probe(line)

    @given(st.binary(max_size=60))
    def test_anything_is_a_line_or_told(self, line):
        with suppress(DeviceError):
            read_probe(line)


class TestRefit:
    def test_as_told_it_stays(self):
        """15 minutes at 2 °C a minute: 50 °C, just as told."""
        refitted_window = refit(STRAIGHT, WINDOW, [CoreReading(minute=15, celsius=50)])
        assert refitted_window.factor == pytest.approx(1.0, abs=1e-6)
        assert refitted_window.done == pytest.approx(30.0)
        assert refitted_window.says == "At 15 minutes the heart is 50 °C: as told, done at 30."

    def test_behind_it_is_told_later(self):
        """50 °C at 18 minutes and not at 15: a fifth slower, drawn in by how surely that is known."""
        refitted_window = refit(STRAIGHT, WINDOW, [CoreReading(minute=18, celsius=50)])
        # By hand: the prior's spread is ln(38/24) / 3.29 = 0.1397; 2 °C are a minute in 15, 0.0667.
        prior, seen = 0.1397**-2, 0.0667**-2
        mean = math.log(18 / 15) * seen / (prior + seen)
        assert refitted_window.factor == pytest.approx(math.exp(mean), rel=2e-3)
        assert refitted_window.done == pytest.approx(30 * math.exp(mean), rel=2e-3)
        assert refitted_window.weight == pytest.approx(seen / (prior + seen), abs=0.01)
        assert refitted_window.first < refitted_window.done < refitted_window.latest
        assert refitted_window.latest - refitted_window.first < WINDOW[2] - WINDOW[0]
        assert refitted_window.says == "At 18 minutes the heart is 50 °C: done at 35, not 30."

    def test_in_the_kitchens_degrees(self):
        assert "122 °F" in refit(STRAIGHT, WINDOW, [CoreReading(minute=15, celsius=50)], "F").says

    def test_nothing_read_nothing_told(self):
        assert refit(STRAIGHT, WINDOW, []) is None

    def test_past_its_time_it_says_so(self):
        assert "Look at it now" in refit(STRAIGHT, WINDOW, [CoreReading(minute=40, celsius=94)]).says

    def test_where_the_curve_is_flat_a_reading_says_little(self):
        steep = refit(STRAIGHT, WINDOW, [CoreReading(minute=20, celsius=50)])
        flat = refit(STRAIGHT, WINDOW, [CoreReading(minute=55, celsius=93)])
        assert flat.weight < 0.6 < steep.weight

    @given(st.floats(0.8, 1.25), st.lists(st.floats(5, 34), min_size=3, max_size=6, unique=True))
    @settings(max_examples=examples(60))
    def test_true_readings_draw_it_to_the_truth(self, slower, told_at):
        """Readings of a batch that goes so much slower bring the time nearer to its own, never past it."""
        readings = [CoreReading(minute=m * slower, celsius=20 + 2 * m) for m in sorted(told_at)]
        refitted_window = refit(STRAIGHT, WINDOW, readings)
        assert abs(math.log(refitted_window.factor / slower)) <= abs(math.log(slower)) + 1e-9
        assert min(1, slower) - 1e-9 <= refitted_window.factor <= max(1, slower) + 1e-9
        assert 0 < refitted_window.weight < 1

    @given(st.floats(0, 120), st.floats(-60, 400))
    def test_whatever_is_read_it_is_a_time(self, minute, celsius):
        refitted_window = refit(STRAIGHT, WINDOW, [CoreReading(minute=minute, celsius=celsius)])
        assert 0 < refitted_window.first <= refitted_window.done <= refitted_window.latest < 1000


class TestSimulated:
    def heating(self, truth=5):
        probe = SimulatedProbe(seed=2)
        probe.put_into(STRAIGHT, truth)
        return probe

    def test_it_reads_the_heart_that_was_told_at_a_pace_of_its_own(self):
        probe = self.heating()
        readings = [read_probe(probe.reading(float(m), float(m)).encode()).celsius for m in range(31)]
        lagging = [20 + 2 * m / probe.factor for m in range(31)]
        assert np.abs(np.array(readings) - lagging).max() < 1.5  # noise, and 12 s of lag
        assert readings[30] - readings[0] > 45

    def test_it_lags(self):
        """A step of 40 °C: after one time constant of 12 s about 63 % of it."""
        step = TemperatureCurve(
            minutes=(0.0, 10.0, 10.0001, 60.0), core_c=(20.0, 20.0, 60.0, 60.0), surface_c=(0, 0, 0, 0)
        )
        probe = SimulatedProbe(seed=2, noise_c=0.0)
        probe.put_into(step, 5)
        at = 10 * probe.factor
        probe.reading(0, at)
        probe.reading(0, at + 0.001)
        later = read_probe(probe.reading(0, at + 0.2).encode()).celsius
        assert 20 + 0.55 * 40 < later < 20 + 0.72 * 40

    def test_the_same_batch_always_goes_the_same_and_others_otherwise(self):
        assert self.heating(5).factor == self.heating(5).factor
        factors = [self.heating(truth).factor for truth in range(60)]
        assert 0.05 < np.std(np.log(factors)) < 0.12

    def test_out_of_it_it_says_so(self):
        probe = self.heating()
        probe.pull_out()
        assert read_probe(probe.reading(1.0, 12.0).encode()).out
        assert read_probe(self.heating().reading(1.0, None).encode()).out

    def test_a_rehearsal_comes_closer_to_the_truth_as_it_is_read(self):
        """Ten batches: read four times, the time is on the mean at least twice as near as told."""
        told, result = [], []
        for truth in range(10):
            probe = self.heating(truth)
            readings = []
            for minute in range(36):
                line = read_probe(probe.reading(float(minute), float(minute)).encode())
                if minute in (8, 14, 20, 26):
                    readings.append(CoreReading(minute=minute, celsius=line.celsius))
            true = 30 * probe.factor
            told.append(abs(30 - true))
            result.append(abs(refit(STRAIGHT, WINDOW, readings).done - true))
        assert np.mean(result) < 0.5 * np.mean(told)


class TestInARun:
    worked = work(default_sheet("set-cake"), Kitchen())
    plan = plan_from(worked.steps, Kitchen(), begin=NOW)
    facts = worked.facts
    core = worked.core

    def at(self, minutes):
        return NOW + timedelta(minutes=minutes)

    def event(self, kind, minutes, step="steam", **more):
        uid = f"{kind}-{step}-{minutes:06.2f}"
        return event_from({}, uid=uid, at=self.at(minutes), kind=kind, step=step, **more)

    def before(self):
        ids = [scheduled_step.step.id for scheduled_step in self.plan.scheduled]
        return [self.event("done", i, step) for i, step in enumerate(ids[: ids.index("steam")])]

    def test_what_is_probed_moves_the_clock(self):
        planned = next(
            scheduled_step.starts for scheduled_step in self.plan.scheduled if scheduled_step.step.id == "steam"
        )
        goes_in = (planned - NOW).total_seconds() / 60
        begun = [*self.before(), self.event("started", goes_in)]
        cold = float(np.interp(10, self.core.curve.minutes, self.core.curve.core_c))
        events = [*begun, self.event("probed", goes_in + 14, celsius=cold)]
        then = self.at(goes_in + 15)
        was = next(state for state in state_of(self.plan, begun, then, self.core).steps if state.id == "steam")
        now = next(state for state in state_of(self.plan, events, then, self.core).steps if state.id == "steam")
        assert now.refit.done > self.core.done + 2
        assert now.due - was.due == pytest.approx(
            timedelta(minutes=now.refit.done - self.core.done), abs=timedelta(seconds=1)
        )
        assert now.first_check > was.first_check
        assert [core_reading.minute for core_reading in now.probed] == [pytest.approx(14)]
        serve = state_of(self.plan, events, then, self.core).expected_serve
        assert serve > state_of(self.plan, begun, then, self.core).expected_serve

    def test_a_wrong_reading_is_taken_back(self):
        events = [*self.before(), self.event("started", 20), self.event("probed", 34, celsius=17)]
        wrong = next(
            state for state in state_of(self.plan, events, self.at(35), self.core).steps if state.id == "steam"
        )
        assert wrong.refit is not None
        events.append(self.event("undone", 35, step=None))
        back = next(state for state in state_of(self.plan, events, self.at(35), self.core).steps if state.id == "steam")
        assert back.refit is None
        assert back.probed == []
        assert back.status == "running"

    def test_without_a_heart_a_reading_is_kept_and_moves_nothing(self):
        events = [*self.before(), self.event("started", 20), self.event("probed", 34, celsius=40)]
        steam = next(state for state in state_of(self.plan, events, self.at(35)).steps if state.id == "steam")
        assert steam.refit is None
        assert steam.probed[0].celsius == 40

    def test_what_cannot_be_probed(self):
        with pytest.raises(Refused, match="celsius"):
            told_event({"uid": "probed-001", "at": self.at(34), "kind": "probed", "step": "steam"})
        with pytest.raises(Refused, match="no window"):
            check_event(self.plan, self.event("probed", 3, step="melt", celsius=40))
        check_event(self.plan, self.event("probed", 34, celsius=40))


class TestChecks:
    def test_first_half_and_last(self):
        assert minute_of(0.05, *WINDOW) == pytest.approx(24)
        assert minute_of(0.5, *WINDOW) == pytest.approx(30)
        assert minute_of(0.95, *WINDOW) == pytest.approx(38)
        assert share_of(24, *WINDOW) == pytest.approx(0.05)
        # A quarter lies 0.6745 / 1.6449 = 0.41 of the way from done to first check.
        assert minute_of(0.25, *WINDOW) == pytest.approx(30 - 0.41 * 6, abs=0.01)

    @given(st.floats(5, 60), st.floats(0.5, 20), st.floats(0.5, 30), st.sampled_from(QUARTERS))
    def test_there_and_back(self, first, more, yet_more, share):
        window = first, first + more, first + more + yet_more
        assert share_of(minute_of(share, *window), *window) == pytest.approx(share, abs=1e-6)

    def test_of_a_sheet_whole_minutes_in_order(self):
        worked = work(default_sheet("set-cake"), Kitchen())
        minutes = [check.minute for check in worked.checks]
        assert minutes == sorted(set(minutes))
        assert minutes[0] == round(worked.facts["heat.first_check_min"].value)
        assert minutes[-1] == round(worked.facts["heat.latest_min"].value)
        short = work(default_sheet("boiled-balls"), Kitchen()).checks
        assert any(check.minute % 1 for check in short)  # half minutes count in a heat of nine
        assert all(a.done_pct < b.done_pct for a, b in zip(worked.checks, worked.checks[1:], strict=False))

    def test_none_without_a_window(self):
        assert checks(FactBook()) == []
