"""Gaps that no plan can keep, by hand."""

from kemble.core.cards.card_parts import StepDependency
from kemble.core.stations.impossible_gaps import gaps_that_cannot_hold


def test_two_that_fit_are_left():
    """Dough 10 min, syrup 40: poured within 5 of either, the dough begins half an hour after the syrup."""
    waits = {"dough": [], "syrup": [], "pour": [StepDependency("dough", 0, 5), StepDependency("syrup", 0, 5)]}
    assert gaps_that_cannot_hold({"dough": 10, "syrup": 40, "pour": 3}, waits) == []


def test_what_lies_between_is_longer_than_the_gap():
    """Pour 3, wipe 9, then steam within 2 min of pouring: 9 are between. At 2 min of wiping it holds."""
    waits = {
        "pour": [],
        "wipe": [StepDependency("pour")],
        "steam": [StepDependency("pour", 0, 2), StepDependency("wipe")],
    }
    assert gaps_that_cannot_hold({"pour": 3, "wipe": 9, "steam": 40}, waits) == [("steam", 0)]
    assert gaps_that_cannot_hold({"pour": 3, "wipe": 2, "steam": 40}, waits) == []


def test_of_a_circle_the_longest_gap_is_given_up():
    """a, then b within 5, then c within 60 of b; but d, an hour and a half, lies between a and c, c within 20 of a's end."""
    waits = {
        "a": [],
        "b": [StepDependency("a", 0, 5)],
        "d": [StepDependency("a")],
        "c": [StepDependency("b", 0, 60), StepDependency("d")],
    }
    assert gaps_that_cannot_hold({"a": 5, "b": 5, "d": 90, "c": 5}, waits) == [("c", 0)]


def test_a_least_wait_counts_too():
    waits = {"soak": [], "cook": [StepDependency("soak", 30, 20)]}
    assert gaps_that_cannot_hold({"soak": 10, "cook": 5}, waits) == [("cook", 0)]
