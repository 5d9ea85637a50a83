"""The bench by sums done by hand, by simulated cooks, and the scale by its lines."""

import itertools
import json
import random
from contextlib import suppress
from datetime import UTC, datetime
from statistics import fmean, stdev

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from kemble.core.devices.device_lines import DeviceError
from kemble.core.devices.scale import SettledWeight, SettlingDetector, read_line
from kemble.core.devices.simulated_scale import CAPACITY_G, SimulatedScale
from kemble.core.facts.problems import Refused
from kemble.core.run.weigh_out import BenchMarkEvent, BenchSetup, bench_of, check_mark

NOW = datetime(2026, 11, 26, 10, 0, tzinfo=UTC)


numbers = itertools.count()


def mark(kind, grams=None):
    return BenchMarkEvent(uid=f"mark-{next(numbers):08d}", kind=kind, at=NOW, grams=grams)


def bench(total, pieces, *grams, **more):
    return bench_of(BenchSetup(what="dough", total_g=total, pieces=pieces, **more), [mark("piece", g) for g in grams])


class TestBench:
    def test_the_next_target_is_what_is_left_over_the_pieces_left(self):
        """300 g in ten: 30. After 33 and 31 are gone, 236 g for eight: 29.5."""
        state = bench(300, 10, 33, 31)
        assert (state.first_g, state.next_g, state.left_pieces) == (30, 29.5, 8)
        assert (state.low_g, state.high_g) == pytest.approx((29.5 * 0.95, 29.5 * 1.05))

    def test_mean_and_spread_by_hand(self):
        """28, 30, 32: mean 30, sum of squares 8 over 2: 2 g, 6.67 %."""
        state = bench(300, 10, 28, 30, 32)
        assert (state.mean_g, state.sd_g, state.cv_pct) == pytest.approx((30, 2, 6.6667), rel=1e-4)

    def test_pieces_outside_the_tolerance(self):
        """5 % of 30 is 1.5: 31.4 is inside; 32 against (300 - 31.4) / 9 = 29.84 is 7.2 % over."""
        state = bench(300, 10, 31.4, 32)
        assert [item.outside for item in state.weighed] == [False, True]
        assert state.weighed[1].off_pct == pytest.approx(7.22, abs=0.01)
        assert "too heavy" in state.says

    def test_a_hand_that_drifts_is_told(self):
        growing = bench(600, 20, *(27 + 0.5 * i for i in range(8)))
        assert growing.drift_g == pytest.approx(0.5)
        assert bench(600, 20, 30, 31, 29, 30, 30, 31, 29, 30).drift_g is None

    def test_it_says_when_to_stop(self):
        """Ten of 30, but 36 each were taken: after seven, 48 g are left for three. They make two, not three."""
        says = bench(300, 10, *[36] * 7).says
        assert says == "Stop at 9: 48 g make 2 more of their size, not 3."

    def test_it_says_when_there_is_enough_for_more(self):
        assert "make 1 more piece" in bench(300, 10, *[25] * 7).says

    @pytest.mark.parametrize(
        ("last", "words"),
        [
            (30, "nothing left"),
            (26, "4 g left: 2.0 g to each of the 2 lightest"),
            (15, "one small piece"),
            (5, "1 more piece"),
        ],
    )
    def test_what_to_do_with_the_rest(self, last, words):
        assert words in bench(300, 10, *[30] * 9, last).says

    def test_more_than_there_was_is_refused_and_left_anew_is_taken(self):
        setup = BenchSetup(what="dough", total_g=100, pieces=4)
        marks = [mark("piece", 40), mark("piece", 40)]
        with pytest.raises(Refused, match="more than the 20 g"):
            check_mark(setup, marks, mark("piece", 30))
        again = [*marks, mark("whole", 60)]
        check_mark(setup, again, mark("piece", 30))
        assert bench_of(setup, again).next_g == 30

    def test_sending_twice_and_taking_back(self):
        setup = BenchSetup(what="dough", total_g=100, pieces=4)
        once = mark("piece", 25)
        assert bench_of(setup, [once, once]).left_pieces == 3
        back = bench_of(setup, [once, mark("undone")])
        assert (back.left_pieces, back.left_g, back.weighed) == (4, 100, [])

    @pytest.mark.parametrize(
        ("marks", "kind", "grams", "path"),
        [
            ([], "piece", None, "grams"),
            ([], "guess", 20, "kind"),
            ([("piece", 50), ("piece", 50)], "piece", 1, "kind"),
            ([("closed", None)], "piece", 10, "kind"),
        ],
    )
    def test_marks_that_make_no_sense(self, marks, kind, grams, path):
        setup = BenchSetup(what="dough", total_g=100, pieces=2)
        with pytest.raises(Refused) as caught:
            check_mark(setup, [mark(*each_mark) for each_mark in marks], mark(kind, grams))
        assert caught.value.problems[0].path == path

    def test_a_bench_that_makes_no_sense(self):
        for wrong in ({"pieces": 0}, {"total_g": -3}, {"total_g": 10, "pieces": 100}, {"tolerance_pct": 0}):
            with pytest.raises(ValidationError):
                BenchSetup(**{"what": "dough", "total_g": 100, "pieces": 4, **wrong})

    @given(st.floats(50, 3000), st.lists(st.floats(0.5, 60), max_size=60), st.integers(1, 60))
    def test_every_gram_is_in_a_piece_or_left(self, total, grams, pieces):
        if total / pieces < 0.5:
            return
        setup, marks = BenchSetup(what="dough", total_g=total, pieces=pieces), []
        for g in grams:
            item = mark("piece", g)
            try:
                check_mark(setup, marks, item)
            except Refused:
                continue
            marks.append(item)
        state = bench_of(setup, marks)
        gone = sum(piece.grams for piece in state.weighed)
        # The last lump may be a hair more than was left: the scale and the first weighing need not agree to the gram.
        assert total - 1e-6 <= gone + state.left_g <= total * 1.02 + 1.0
        assert len(state.weighed) + state.left_pieces == pieces


class TestDrill:
    def test_bias_and_spread_of_the_eye(self):
        """Guesses 22 for 20 and 27 for 30: + 10 % and - 10 %: no bias, a spread of 14.1 %."""
        setup = BenchSetup(what="dough", total_g=200, pieces=8, drill=True)
        marks = [mark("guess", 22), mark("piece", 20), mark("guess", 27), mark("piece", 30)]
        eye = bench_of(setup, marks).eye
        assert (eye.guesses, eye.bias_pct, eye.spread_pct) == pytest.approx((2, 0, 14.142), abs=1e-3)

    def test_the_guess_comes_first(self):
        setup = BenchSetup(what="dough", total_g=200, pieces=8, drill=True)
        with pytest.raises(Refused, match="guess it before"):
            check_mark(setup, [], mark("piece", 20))


def a_cook(seed, follows, pieces=60, total=1800.0):
    """Sixty pieces from 1.8 kg by a hand that runs heavy and heavier, on a noisy scale.

    She aims at the running target, or all along at the first one; the last piece is what is left.
    """
    hand = random.Random(seed)
    scale = SimulatedScale(seed=seed)
    setup, marks, t = BenchSetup(what="dough", total_g=total, pieces=pieces), [], 0.0
    for i in range(pieces):
        state = bench_of(setup, marks)
        if state.next_g is None:
            break
        aim = state.next_g if follows else state.first_g
        taken = state.left_g if i == pieces - 1 else min(aim * hand.gauss(1.02 + 0.0006 * i, 0.035), state.left_g)
        scale.zero(t)
        scale.put(taken, t)
        t += 3
        shown = read_line(scale.reading(t).encode()).grams
        scale.lift(t)
        t += 2
        if shown <= 0:
            break
        marks.append(mark("piece", shown))
    return bench_of(setup, marks)


@pytest.mark.parametrize("seed", range(8))
def test_who_follows_the_target_comes_out_more_alike(seed):
    followed, ignored = a_cook(seed, True), a_cook(seed, False)
    for state in (followed, ignored):
        assert sum(item.grams for item in state.weighed) + state.left_g == pytest.approx(1800, abs=0.2)
    assert len(followed.weighed) == 60
    made = [item.grams for item in followed.weighed]
    careless = [item.grams for item in ignored.weighed] + [0.0] * (60 - len(ignored.weighed))
    assert stdev(made) < stdev(careless)
    assert fmean(made) == pytest.approx(30, abs=0.1)


class TestLines:
    def test_a_reading_in_any_unit(self):
        assert read_line(b'{"t": 1.5, "weight": 23.4, "unit": "g", "steady": true}').grams == 23.4
        assert read_line(b'{"t": 1.5, "weight": 1, "unit": "oz"}').grams == pytest.approx(28.3495, rel=1e-5)
        assert read_line(b'{"t": 2, "over": true}').over

    def test_what_it_says_of_itself(self):
        hello = read_line(SimulatedScale().hello().encode())
        assert (hello.name, hello.capacity_g, hello.step_g) == ("simulated scale", 5000, 0.1)

    @pytest.mark.parametrize(
        ("line", "why"),
        [
            (b"23.4 g", "not a line of JSON"),
            (b"[1, 2]", "not a JSON object"),
            (b'{"t": 1}', "weight is missing"),
            (b'{"t": 1, "weight": "much"}', "weight is missing"),
            (b'{"t": 1, "weight": 3, "unit": "stone"}', "not g, kg, oz or lb"),
            (b'{"weight": 3}', "required"),
            (b'{"t": 1, "weight": NaN}', "finite"),
            (b'{"scale": 2}', "Input should be 1"),
            (b"\xff\xfe\x00", "not a line of JSON"),
            (b"{" * 300, "not a line of JSON"),
            (b'{"t": 1, "weight": 1' + b" " * 500 + b"}", "at most 400"),
        ],
    )
    def test_nonsense_is_told_for_what_it_is(self, line, why):
        with pytest.raises(DeviceError, match=why):
            read_line(line)

    @given(st.binary(max_size=80))
    def test_any_bytes_are_a_line_or_an_error(self, line):
        with suppress(DeviceError):
            assert read_line(line)


def readings(scale, start, end, step=0.1):
    return [read_line(scale.reading(start + i * step).encode()) for i in range(round((end - start) / step))]


class TestSimulatedScale:
    def test_it_swings_then_lies_still(self):
        scale = SimulatedScale(seed=3)
        scale.put(25, 1.0)
        moving = readings(scale, 1.0, 2.4)
        assert not any(item.steady for item in moving)
        assert max(item.grams for item in moving) > 26
        still = readings(scale, 2.6, 4.6)
        assert all(item.steady for item in still)
        assert fmean(item.grams for item in still) == pytest.approx(25, abs=0.05)

    def test_zero_drift_and_overload(self):
        scale = SimulatedScale(noise_g=0, drift_g_per_min=0.6)
        scale.put(300, 0)
        scale.zero(5)
        assert read_line(scale.reading(5).encode()).grams == 0
        assert read_line(scale.reading(65).encode()).grams == pytest.approx(0.6)
        scale.put(CAPACITY_G, 70)
        assert read_line(scale.reading(80).encode()).over


class TestStillness:
    def stills(self, *loads, seed=2):
        """Where an empty tray comes to rest on which these are put one after another; 0 lifts everything off."""
        scale, rest, t, result = SimulatedScale(seed=seed), SettlingDetector(settled_g=0.0), 0.0, []
        for load in loads:
            scale.put(load, t) if load else scale.lift(t)
            result += [lies.grams for reading in readings(scale, t, t + 4) if (lies := rest.still(reading)) is not None]
            t += 4
        return result

    def test_one_after_another_mended_and_lifted_off(self):
        assert self.stills(25, 0, 31, -3, 24, 0) == pytest.approx([25, 0, 31, 28, 52, 0], abs=0.3)

    def test_what_lies_there_at_the_beginning_is_told_as_such(self):
        scale, rest = SimulatedScale(noise_g=0, drift_g_per_min=0), SettlingDetector()
        scale.put(40, -9)
        told = [lies for reading in readings(scale, 0, 2) if (lies := rest.still(reading))]
        assert told == [SettledWeight(40, first=True)]

    def test_nothing_new_tells_nothing(self):
        assert len(self.stills(25)) == 1

    def test_the_same_reading_twice_is_one(self):
        rest = SettlingDetector(settled_g=0.0)
        line = json.dumps({"t": 3, "weight": 20, "steady": True}).encode()
        assert rest.still(read_line(line)) == SettledWeight(20)
        rest.settled_g = 0
        assert rest.still(read_line(line)) is None

    def test_an_hour_of_drift_is_no_lump(self):
        scale, rest = SimulatedScale(noise_g=0, drift_g_per_min=0.2), SettlingDetector(settled_g=0.0)
        assert not [1 for reading in readings(scale, 0, 3600, 0.5) if rest.still(reading) is not None]
