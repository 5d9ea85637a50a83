"""Whether a fact moves from making to making: by hand, and never said where chance would do."""

from datetime import UTC, datetime, timedelta

import numpy as np
import pytest

from kemble.core.log.drift import DriftPoint, drift

FIRST = datetime(2026, 9, 1, tzinfo=UTC)


def points(values, *, every=7.0, told=None):
    return [
        DriftPoint(batch=i, title="", made=FIRST + timedelta(days=every * i), value=value, told=told)
        for i, value in enumerate(values)
    ]


def test_a_straight_line_is_told_as_it_is():
    """A gram more a week is 30 / 7 = 4.29 in thirty days; the one odd making moves the median of slopes not at all."""
    line = [100.0, 101, 102, 103, 104, 105, 106, 107, 108, 109]
    assert drift(points(line), "g").a_month == pytest.approx(30 / 7)
    odd = drift(points([*line[:5], 140.0, *line[6:]]), "g")
    assert odd.a_month == pytest.approx(30 / 7, rel=0.05)
    assert "more" in odd.says


def test_beside_what_was_told_a_larger_batch_is_no_drift():
    """Twice as much each time, and twice as much told; then each a hundredth over the one before it: 4.36 % in a month."""
    doubled = [point.model_copy(update={"told": point.value}) for point in points([100.0 * 2**i for i in range(6)])]
    assert drift(doubled, "g").a_month == pytest.approx(0.0, abs=1e-9)
    assert "chance" in drift(doubled, "g").says
    slow = drift(points([30 * 1.01**i for i in range(8)], told=30.0), "min")
    assert slow.pct
    assert slow.a_month == pytest.approx(100 * (1.01 ** (30 / 7) - 1), rel=1e-6)


def test_too_few_or_too_near_say_nothing():
    assert drift(points([1, 2, 3, 4]), "g") is None
    assert drift(points([1, 2, 3, 4, 5, 6], every=1.0), "g") is None


def test_noise_is_told_from_chance_in_nine_of_ten():
    """Of 300 kitchens in which nothing moves, about one in ten is told to drift: as sure as it says."""
    rng = np.random.default_rng(5)
    said = sum("chance" not in drift(points(rng.normal(30, 3, 12), told=30.0), "min").says for _ in range(300))
    assert 0.04 <= said / 300 <= 0.14
