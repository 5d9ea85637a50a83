"""The steps that every way with whole grain begins with: rinse, soak, drain."""

from kemble.core.cards.way import Minutes, Step, StepDependency


def soaked_steps(drain: str) -> tuple[Step, ...]:
    """Rinse, soak and drain; `drain` says how dry this way wants it. The last one's id is "drain"."""
    return (
        Step(
            "rinse",
            "Rinse the grain",
            "Cold water, a turn of the hand, pour off. Clear is clean enough; the last water need not be.",
            Minutes(6),
            "held",
            work="messy",
            tools=(
                "bowl",
                "sieve",
            ),
            uses=("counter",),
            lists="base",
            lists_groups=("grain", "legume"),
        ),
        Step(
            "soak",
            "Soak the grain",
            "Water two fingers over it: it swells. Cover it; in a warm room, in the cold.",
            Minutes(fact="grain.soak_min"),
            "free",
            tools=(
                "wide bowl",
                "lid or plate",
            ),
            after=(StepDependency("rinse", 0, 30),),
            uses=("counter",),
            cautions=("long-soak",),
        ),
        Step(
            "drain",
            "Drain it, and weigh it",
            drain,
            Minutes(fact="grain.drain_min"),
            "free",
            tools=(
                "sieve",
                "bowl",
                "scale",
            ),
            after=(StepDependency("soak", 0, 240),),
            uses=("counter",),
            weigh="grain.soaked_g",
        ),
    )
