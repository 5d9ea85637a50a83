"""Frozen documents of runs, of every version that was ever written: each is read, and says what it said."""

import json
from pathlib import Path

import pytest

from kemble.core.run.frozen_run import FrozenRun, frozen_from

PLACE = Path(__file__).resolve().parents[2] / "fixtures" / "runs"
# Read off the files: way, hydration, steps, and first check, done, latest of the core temperature where it was kept.
SAYS = {
    "1-first-set-cake": ("set-cake", 118.7, 12, (19.0, 28.5, 46.8)),
    "1-last-boiled-balls": ("boiled-balls", 75.6, 12, (7.5, 8.8, 11.0)),
    "1-without-a-curve-leaf-parcels": ("leaf-parcels", 37.3, 12, None),
    "2-crushed-balls": ("crushed-balls", 145.8, 14, (21.4, 25.3, 32.0)),
}


def opened(name):
    return frozen_from(json.loads((PLACE / f"{name}.json").read_text(encoding="utf-8")))


@pytest.mark.parametrize("name", SAYS)
def test_it_says_what_it_said(name):
    way, hydration, steps, window = SAYS[name]
    run = opened(name)
    assert (run.sheet.way, round(run.facts["mix.hydration_pct"].value, 1)) == (way, hydration)
    assert len(run.plan.scheduled) == steps
    assert run.cautions
    told = run.core and tuple(round(at, 1) for at in (run.core.first, run.core.done, run.core.latest))
    assert told == window
    if run.core:
        assert len(run.core.curve.minutes) == len(run.core.curve.core_c) > 10
        assert run.core.curve.core_c[-1] > run.core.curve.core_c[0]


def test_every_version_has_a_frozen_document():
    versions = {json.loads(file.read_text(encoding="utf-8"))["version"] for file in PLACE.glob("*.json")}
    assert versions == set(range(1, FrozenRun.model_fields["version"].default + 1))
    assert {file.stem for file in PLACE.glob("*.json")} == set(SAYS)


def test_a_version_of_tomorrow_is_not_guessed_at():
    with pytest.raises(KeyError):
        frozen_from({"version": 99})
