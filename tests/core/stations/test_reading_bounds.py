"""What a reading can be: never less than what was told, and never what cannot be."""

from datetime import UTC, datetime

import pytest
from sheets_by_hand import KITCHEN, steps

from kemble.core.cards.ways import WAYS
from kemble.core.facts.problems import Refused
from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.schedule import plan_from
from kemble.core.run.events import check_event, event_from

NOW = datetime(2026, 11, 28, 9, 0, tzinfo=UTC)


def by_schools():
    for way in WAYS.values():
        yield way.id, {}
        for choice in way.choices:
            for school in choice.schools[1:]:
                yield way.id, {choice.id: school.id}


@pytest.mark.parametrize(("way", "schools"), list(by_schools()), ids=str)
def test_what_is_told_can_be_read(way, schools):
    """Every target of every way and school lies within its bounds, with a tenth of room; so does 100 °C in any heat."""
    told = [step for step in steps(way, **schools) if step.target]
    assert told
    for step in told:
        assert step.bounds, step.id
        for share in (0.97, 1.0, 1.015):
            assert step.bounds.doubt(grams=step.target.grams * share) == "", (step.id, share)
    for step in steps(way, **schools):
        if step.window:
            assert step.bounds.doubt(celsius=99.0) == ""


def test_by_hand():
    """Steam at sea level: 100 and 3 more for the thermometer. In Fahrenheit 300 is 149 °C, and is doubted."""
    steam = next(step for step in steps("set-cake") if step.window)
    assert steam.bounds.most_c == pytest.approx(103.0, abs=0.3)
    assert steam.bounds.doubt(celsius=149.0).startswith("It cannot be so hot: water boils at 100 °C")
    high = next(step for step in steps("set-cake", Kitchen(altitude_m=2000)) if step.window)
    assert high.bounds.most_c == pytest.approx(93.4 + 3, abs=0.4)
    bake = next(step for step in steps("batter-bake") if step.window)
    assert bake.bounds.doubt(celsius=149.0) == ""
    stir = next(step for step in steps("stirred-rounds") if step.id == "stir")
    mixed = next(step for step in steps("stirred-rounds") if step.id == "mix")
    more = mixed.target.grams * 1.05
    assert stir.bounds.doubt(grams=more).startswith("That is more than it can be")
    assert stir.bounds.doubt(grams=0.2 * mixed.target.grams).startswith("That is less than it can be")


def test_the_server_asks_too():
    plan = plan_from(steps("set-cake"), KITCHEN, begin=NOW)
    steam = next(scheduled_step.step.id for scheduled_step in plan.scheduled if scheduled_step.step.window)
    hot = {"uid": "hot-heart", "at": NOW, "kind": "probed", "step": steam, "celsius": 149.0}
    with pytest.raises(Refused, match="so hot"):
        check_event(plan, event_from(hot))
    check_event(plan, event_from({**hot, "sure": True}))


def test_what_is_counted():
    """A hundred folds by the card; by the piece where it goes by the piece."""
    folded = {step.id: step for step in steps("stirred-rounds", cook="microwave")}
    by_id = {step.id: step for step in steps("stirred-rounds")}
    assert (folded["fold"].count.of, folded["fold"].count.what) == (100, "folds")
    assert by_id["wrap"].count.what == "pieces"
    assert by_id["mix"].count is None
    boil = next(step for step in steps("boiled-balls") if step.id == "boil")
    assert boil.rhythm.every_s == 30


def test_a_piece_is_doubted_under_two_fifths_and_over_two_and_a_half_of_itself():
    piece = next(step for step in steps("boiled-balls") if step.target and step.target.key.startswith("shape."))
    grams = piece.target.grams
    assert [bool(piece.bounds.doubt(grams=share * grams)) for share in (0.39, 0.41, 2.49, 2.51)] == [
        True,
        False,
        False,
        True,
    ]
