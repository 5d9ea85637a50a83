"""How wide windows are: half of each in per cent of the likely time, as a kitchen begins and once it has measured."""

import pytest

from kemble.core.cards.ways import WAYS
from kemble.core.kitchen.document import Kitchen, OwnEstimate
from kemble.core.kitchen.estimates import ESTIMATES
from kemble.core.sheet.document import default_sheet
from kemble.core.stations.work_sheet import work


def measured(*kinds):
    """A kitchen in which everything that those measurements narrow is as narrow as they leave it."""
    own = {}
    for name, row in ESTIMATES.items():
        if row.narrows in kinds:
            if row.shape == "log":
                low, high = (row.value * (end / row.value) ** row.after for end in (row.low, row.high))
            else:
                low, high = (row.value + (end - row.value) * row.after for end in (row.low, row.high))
            own[name] = OwnEstimate(value=row.value, low=low, high=high)
    return Kitchen(estimates=own)


def half_pct(way, kitchen):
    facts = work(default_sheet(way), kitchen).facts
    first, done, latest = (facts[f"heat.{name}_min"].value for name in ("first_check", "done", "latest"))
    return 100 * (latest - first) / 2 / done


@pytest.mark.parametrize("way", sorted(WAYS))
def test_windows(way):
    plain = half_pct(way, Kitchen())
    tools = half_pct(
        way, measured("kettle", "oven", "oven-tin", "steam", "depth", "warmth", "scale", "taste", "manner")
    )
    logged = half_pct(
        way, measured("kettle", "oven", "oven-tin", "steam", "depth", "warmth", "scale", "taste", "manner", "log")
    )
    print(f"\n{way:15} {plain:4.0f} % at first, {tools:4.0f} % measured, {logged:4.0f} % with three makings logged")
    assert logged <= tools + 0.5 <= plain + 1.0
