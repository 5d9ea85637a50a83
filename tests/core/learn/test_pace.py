"""How quick a cook's hands are, from what steps took over what was predicted."""

import math

import pytest

from kemble.core.learn.pace import paces


def test_a_step_that_took_ten_times_as_long_counts_as_three():
    """By hand: one making of one step draws its logarithm L to 0.7093 L; of ln 3 that is 2.180, of its inverse 0.459."""
    assert paces({"fold": [math.log(10)]}) == {"fold": pytest.approx(2.180, abs=0.001)}
    assert paces({"fold": [math.log(3)]}) == {"fold": pytest.approx(2.180, abs=0.001)}
    assert paces({"fold": [math.log(0.1)]}) == {"fold": pytest.approx(0.459, abs=0.001)}


def test_less_than_three_is_not_cut():
    """0.7093 ln 2 = 0.4917: 1.635 times."""
    assert paces({"fold": [math.log(2)]}) == {"fold": pytest.approx(1.635, abs=0.001)}
