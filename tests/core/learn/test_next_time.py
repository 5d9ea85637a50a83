"""What to change the next time: by hand where one taste hangs on one ratio, and over simulated tongues."""

import numpy as np
import pytest

from kemble.core.cards.taste_scales import SCALES
from kemble.core.cards.ways import WAYS
from kemble.core.learn.next_time import _RULE, LEVERS, TastedBatch, TasteModel, advise_on_tastes, proposals

CAKE = WAYS["set-cake"]
MIDDLE = {"hydration_pct": 135.0, "sugar_pct": 85.0, "fat_pct": 7.0}
HALF = {"hydration_pct": 35.0, "sugar_pct": 25.0, "fat_pct": 3.0}


def batch(tastes, sheet=1, **ratios):
    return TastedBatch(sheet, {**MIDDLE, **ratios}, tastes)


class TestByHand:
    def test_too_soft_wants_less_water(self):
        please = proposals(CAKE, [batch({"softness": 1, "sweetness": 0})] * 3, 1, MIDDLE)[0]
        assert please.kind == "please"
        change = next(ratio_change for ratio_change in please.changes if ratio_change.lever == "hydration_pct")
        assert change.to < change.was
        soft = next(expected_taste for expected_taste in please.expected if expected_taste.taste == "softness")
        assert abs(soft.after) < abs(soft.now)
        assert soft.low < soft.after < soft.high

    def test_a_little_too_soft_and_a_little_too_sweet(self):
        """The issue's own words: both are answered, water and sugar down."""
        please = proposals(CAKE, [batch({"softness": 1, "sweetness": 1})] * 3, 1, MIDDLE)[0]
        down = {ratio_change.lever for ratio_change in please.changes if ratio_change.to < ratio_change.was}
        assert down == {"hydration_pct", "sugar_pct"}
        assert "too soft" in " ".join(please.because)

    def test_what_only_some_say_counts_once_it_is_said(self):
        """Too sticky wants less water or sugar, or more fat; nobody said it, and it is no matter."""
        silent, said = (
            proposals(CAKE, [batch({"softness": 0, "sweetness": 0, "chew": 0, **more})] * 4, 1, MIDDLE)[0]
            for more in ({}, {"stickiness": 2})
        )
        assert silent.changes == []
        assert "stickiness" not in {expected_taste.taste for expected_taste in silent.expected}
        sticky = next(expected_taste for expected_taste in said.expected if expected_taste.taste == "stickiness")
        assert abs(sticky.after) < abs(sticky.now)
        assert all(
            (ratio_change.to > ratio_change.was) == (ratio_change.lever == "fat_pct") for ratio_change in said.changes
        )

    def test_just_right_is_left_alone(self):
        please = proposals(CAKE, [batch({"softness": 0, "sweetness": 0, "chew": 0})] * 4, 1, MIDDLE)[0]
        assert please.changes == []
        assert please.says == "Leave it as it is."

    def test_with_no_data_nothing_is_invented(self):
        assert proposals(CAKE, [], 1, MIDDLE) == []
        first = proposals(CAKE, [batch({"softness": 2})], 1, MIDDLE)[0]
        assert any("craft’s rule" in item for item in first.because)
        assert first.rests_on == 1

    def test_a_normal_by_hand(self):
        """One ratio, one sheet, no other: the slope of sweetness from four tastings, by the normal equations."""
        told = [
            batch({"sweetness": mark}, sugar_pct=85 + 25 * u) for u, mark in ((-1, -2), (-0.5, -1), (0.5, 1), (1, 2))
        ]
        tongue = TasteModel(CAKE, told)
        mean, _ = tongue.at("sweetness", 1, tongue.scaled({**MIDDLE, "sugar_pct": 110.0}))
        # Prior slope 1.6 with 0.6, four marks with 0.55 at u of −1, −½, ½, 1: precision 1/0.36 + 2.5/0.3025.
        precision = 1 / 0.36 + 2.5 / 0.3025
        slope = (1.6 / 0.36 + 5.0 / 0.3025) / precision
        assert mean == pytest.approx(slope, abs=0.01)

    def test_no_trial_goes_far(self):
        please = proposals(CAKE, [batch({"softness": 2, "sweetness": 2})] * 6, 1, MIDDLE)[0]
        for change in please.changes:
            assert abs(change.to - change.was) <= 0.46 * HALF[change.lever]

    def test_sheets_lend_to_each_other(self):
        """A second sheet of the way, never tasted, is expected to be as sweet as the first, less surely."""
        told = [batch({"sweetness": 2})] * 6
        tongue = TasteModel(CAKE, told)
        here, sd_here = tongue.at("sweetness", 1, np.zeros(3))
        there, sd_there = tongue.at("sweetness", 2, np.zeros(3))
        assert 0.3 < there < here
        assert sd_there > sd_here

    def test_contradictory_tastes_are_no_certainty(self):
        told = [batch({"softness": mark}) for mark in (-2, 2, -2, 2)]
        assert abs(TasteModel(CAKE, told).at("softness", 1, np.zeros(3))[0]) < 0.2
        assert proposals(CAKE, told, 1, MIDDLE)[0].changes == []

    def test_to_learn_is_told_apart_from_to_please(self):
        kinds = [proposal.kind for proposal in proposals(CAKE, [batch({"softness": 1})], 1, MIDDLE)]
        assert kinds == ["please", "learn"]


RULES = {
    "softness": ((1.6, 0.6), (0.5, 0.5), (0.2, 0.4)),
    "sweetness": ((0.0, 0.3), (1.6, 0.6), (0.0, 0.2)),
    "chew": ((-0.8, 0.6), (0.2, 0.5), (-0.3, 0.4)),
}


class Mouth:
    """A tongue whose truth is known: straight, with a kink beyond the band that the model does not have."""

    def __init__(self, rng):
        self.rng = rng
        self.level = {taste: rng.normal(0, 0.7) for taste in CAKE.tastes}
        self.slope = {
            taste: np.array([rng.normal(mean, sd) for mean, sd in RULES.get(taste, ((0, 0.3),) * 3)])
            for taste in CAKE.tastes
        }

    def true(self, u):
        kinked = np.sign(u) * np.minimum(np.abs(u), 1 + 0.5 * np.maximum(0, np.abs(u) - 1))
        return {taste: self.level[taste] + float(self.slope[taste] @ kinked) for taste in CAKE.tastes}

    def off(self, u):
        return sum(mark**2 for mark in self.true(u).values())

    def says(self, u):
        return {
            taste: int(np.clip(round(mark + self.rng.normal(0, 0.5)), -2, 2)) for taste, mark in self.true(u).items()
        }


def test_within_three_trials_it_tastes_better():
    """Sixty mouths: in at least four of five what is proposed the third time is better than the first; on the mean it is
    better than the craft's rule of thumb, and nowhere much worse."""
    rng = np.random.default_rng(17)
    better, gains = 0, []
    for _ in range(60):
        mouth = Mouth(rng)
        start = rng.normal(0, 0.5, 3)
        u, thumb, told = start.copy(), start.copy(), []
        for _ in range(3):
            ratios = {lever: MIDDLE[lever] + HALF[lever] * u[i] for i, lever in enumerate(LEVERS)}
            told.append(TastedBatch(1, ratios, mouth.says(u)))
            changed = {
                **ratios,
                **{ratio_change.lever: ratio_change.to for ratio_change in proposals(CAKE, told, 1, ratios)[0].changes},
            }
            u = np.array([(changed[lever] - MIDDLE[lever]) / HALF[lever] for lever in LEVERS])
            said = mouth.says(thumb)
            thumb = thumb - np.array([0.1 * np.sign(said["softness"]), 0.15 * np.sign(said["sweetness"]), 0.0])
        at_first, now, by_thumb = mouth.off(start), mouth.off(u), mouth.off(thumb)
        better += now < at_first or at_first < 0.4
        gains.append(by_thumb - now)
    assert better >= 48
    assert np.mean(gains) > 0
    assert np.quantile(gains, 0.1) > -0.8


def test_what_the_craft_does_about_what_most_found():
    """By hand: three of four too pale, two of four too wet (no more than half), one too dark of one that is not asked."""
    marked = [
        {"colour": -1, "surface": 1},
        {"colour": -2, "surface": 2},
        {"colour": -1, "surface": 0},
        {"colour": 0, "surface": -1},
    ]
    (taste_advice,) = advise_on_tastes(CAKE, [*marked, {"warmth": 2}])
    assert (taste_advice.taste, taste_advice.words, taste_advice.said, taste_advice.of) == ("colour", "too pale", 3, 4)


@pytest.mark.parametrize("way", sorted(WAYS))
def test_every_scale_has_its_answer(way):
    """By the ratios or by the craft: no mark is asked for that nothing comes of. Some are only looked at."""
    for taste in WAYS[way].more_tastes:
        assert taste in _RULE or (SCALES[taste].more and SCALES[taste].less)
