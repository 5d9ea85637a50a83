"""What holds of the ledger of vessels, whatever the sheet and its method."""

import pytest


def went_in(worked):
    """Grams by name: of the lines of the sheet, and as listed at the steps."""
    made = {output.name for part in worked.parts for output in part.outputs}
    bought, listed = {}, {}
    for weighed in worked.lines:
        bought[weighed.name] = bought.get(weighed.name, 0.0) + weighed.used_g
    for step in worked.steps:
        for item in step.to_hand:
            listed[item.name] = listed.get(item.name, 0.0) + item.grams
    return bought, {name: grams for name, grams in listed.items() if name not in made or name in bought}


def has_every_gram_once(worked):
    """Every line, and what is made of every part that is made here: at one step, once."""
    bought, listed = went_in(worked)
    assert listed == pytest.approx(bought, abs=0.01)
    goes = {}
    for part in worked.parts:
        if any(step.part == part.id for step in worked.steps):
            for output in part.outputs:
                away = sum(flow.grams for flow in output.goes if flow.to not in ("kept", "sheet"))
                goes[output.name] = goes.get(output.name, 0.0) + away
    for name in goes.keys() - bought.keys():
        items = [item for step in worked.steps for item in step.to_hand if item.name == name]
        assert sum(item.grams for item in items) == pytest.approx(goes[name], abs=0.1), name


def adds_up(worked):
    """Before, what comes in and what goes make what is there after; what one step leaves the next finds."""
    for step in worked.steps:
        entry = step.vessel
        if entry is not None:
            came = sum(content.grams for content in entry.tipped)
            total = entry.before_g + came + entry.added_g + entry.change_g - entry.beside_g
            assert entry.after_g == pytest.approx(total, abs=0.01), step.id
            assert entry.after_g >= -0.01, step.id


def all_behind(steps, name, seen=None):
    """Every step that a step waits for, over however many others."""
    seen = set() if seen is None else seen
    for wait in steps[name].after:
        if wait.step not in seen:
            seen.add(wait.step)
            all_behind(steps, wait.step, seen)
    return seen
