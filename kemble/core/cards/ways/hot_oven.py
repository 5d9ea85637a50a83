"""The step that every way with an oven has: heated up in time, so that it is hot when something goes in."""

from collections.abc import Mapping

from kemble.core.cards.way import Minutes, Step, StepDependency, always

# What goes into the oven waits for it; hot and empty it stands no longer than so. Kitchen estimate.
OVEN_IS_HOT = StepDependency("heat-oven", 0, 10)


def heat_oven_step(*, when: Mapping[str, tuple[str, ...]] | None = None) -> Step:
    """Heat it up. Its minutes are a kitchen estimate, 10 to 20 for most."""
    return Step(
        "heat-oven",
        "Heat the oven",
        always("Heat it to {oven}, with the rack in the middle.", "A thermometer inside says when it is hot."),
        Minutes(15),
        "free",
        work="stove",
        uses=("oven",),
        when=when or {},
    )
