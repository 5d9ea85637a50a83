"""Blind tastings: designs that favour nobody, and exact binomials worked by hand."""

from collections import Counter

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.stats import binom, binomtest
from thorough import examples

from kemble.core.log.blind_tasting import BlindTastingDesign, TasterAnswer, cups_of, interval, is_right, tail, verdict


def split(kind="triangle", tasters=6, seed=1):
    return BlindTastingDesign(a="rested", b="not rested", kind=kind, tasters=tasters, seed=seed)


def answers(made, right):
    """So many tasters right, the rest wrong."""
    taster_answers = []
    for i, cups in enumerate(cups_of(made)):
        wanted = i < right
        code = next(cup.code for cup in cups if is_right(made, cups, cup.code) == wanted)
        taster_answers.append(TasterAnswer(taster=i + 1, code=code))
    return taster_answers


class TestDesign:
    @pytest.mark.parametrize("seed", range(5))
    def test_every_order_as_often_and_no_code_twice(self, seed):
        made = split(tasters=12, seed=seed)
        orders = Counter("".join(cup.half for cup in cups) for cups in cups_of(made))
        assert set(orders.values()) == {2}
        codes = [cup.code for cups in cups_of(made) for cup in cups]
        assert len(codes) == len(set(codes)) == 36
        assert all(len(code) == 3 for code in codes)

    def test_the_same_seed_is_the_same_table(self):
        assert cups_of(split(seed=4)) == cups_of(split(seed=4)) != cups_of(split(seed=5))

    def test_one_of_three_is_odd(self):
        for cups in cups_of(split(tasters=6)):
            assert sum(is_right(split(), cups, cup.code) for cup in cups) == 1


class TestByHand:
    def test_five_of_six(self):
        """Chance of five or six of six at a third each: (6·2 + 1)/729 = 13/729 = 0.0178."""
        made = split()
        tasting_verdict = verdict(made, answers(made, 5))
        assert tasting_verdict.chance == pytest.approx(13 / 729)
        assert tasting_verdict.told_apart
        assert tasting_verdict.says == "Told apart: 5 of 6 found the odd one."

    def test_four_of_six_is_chance(self):
        """Four or more: (15·4 + 12 + 1)/729 = 73/729 = 0.1001; five are needed."""
        made = split()
        tasting_verdict = verdict(made, answers(made, 4))
        assert tasting_verdict.chance == pytest.approx(73 / 729)
        assert tasting_verdict.needs == 5
        assert tasting_verdict.says.startswith("Not told apart")

    def test_a_pair_has_two_sides(self):
        """Six of six of one mind: 2/64 = 0.03125; five of six 14/64."""
        made = split("paired")
        assert verdict(made, answers(made, 6)).chance == pytest.approx(2 / 64)
        assert verdict(made, answers(made, 6)).says == "rested is liked better: by 6 of 6."
        assert verdict(made, answers(made, 0)).says == "not rested is liked better: by 6 of 6."
        assert verdict(made, answers(made, 5)).chance == pytest.approx(14 / 64)

    def test_two_are_too_few(self):
        made = split("paired", tasters=2)
        assert verdict(made, answers(made, 2)).needs is None
        assert "too few" in verdict(made, answers(made, 2)).says

    def test_the_newest_answer_counts(self):
        made = split()
        all_right = answers(made, 6)
        wrong = next(answer for answer in answers(made, 0) if answer.taster == 1)
        assert verdict(made, [*all_right, wrong]).right == 5

    def test_nobody_has_answered(self):
        tasting_verdict = verdict(split(), [])
        assert (tasting_verdict.answered, tasting_verdict.low, tasting_verdict.high, tasting_verdict.told_apart) == (
            0,
            0.0,
            1.0,
            False,
        )


@settings(max_examples=examples(60), deadline=None)
@given(n=st.integers(1, 40), share=st.floats(0, 1), p=st.sampled_from([1 / 3, 1 / 2]))
def test_against_another_library(n, share, p):
    k = round(share * n)
    assert tail(n, k, p) == pytest.approx(float(binom.sf(k - 1, n, p)), abs=1e-12)
    low, high = binomtest(k, n).proportion_ci(method="exact")
    assert interval(n, k) == pytest.approx((low, high), abs=1e-6)
