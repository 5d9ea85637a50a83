"""How wide windows are, as a kitchen begins and once it has measured; and how often drawn kitchens lie within them."""

import numpy as np
import pytest
from moved_kitchens import coverage
from promises import amount

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


@pytest.mark.parametrize("way", sorted(WAYS))
def test_coverage(way):
    """Of two thousand kitchens drawn from the table of estimates: windows go from where one in twenty is sooner to where one in
    twenty is later, so that nine in ten should lie within. What leaves 86 to 94 in a hundred is marked."""
    share = coverage(default_sheet(way), np.random.default_rng(1), amount(2000, 20))
    print(f"\n{way}")
    for key, within in sorted(share.items(), key=lambda item: item[1]):
        print(f"  {within:6.1%} {key}{'' if 0.86 <= within <= 0.94 else '  <'}")
