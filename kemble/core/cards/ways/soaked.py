"""The steps that every way with whole grain begins with: rinse, soak, drain."""

from kemble.core.cards.way import Adds, Minutes, Sentence, Step, StepDependency, always


def soaked_steps(drain: tuple[Sentence, ...]) -> tuple[Step, ...]:
    """Rinse, soak and drain; `drain` says how dry this way wants it. The last one's id is "drain". The grain goes in at the first
    of them that is done. Beans with a soak of
    their own have it in a bowl of their own, before."""
    return (
        Step(
            "soak-beans",
            "Sort and soak the beans",
            always(
                "Take out stones and split beans, and rinse.",
                "Cover them with three times their volume of water; in a warm room, put them in the fridge.",
                "Drain them before they go in.",
            ),
            Minutes(fixed=10, fact="grain.bean_soak_min"),
            "free",
            tools=("bowl", "sieve"),
            uses=("counter",),
            presumes=("soaking",),
            at="bean bowl",
            adds=(Adds(("soaking",)),),
            changes=("beans",),
            becomes="soaked beans",
        ),
        Step(
            "rinse",
            "Rinse the grain",
            always(
                "Pour on cold water, turn it with a hand, pour it off: {rinses}.",
                "It is clean enough when the water is nearly clear.",
            ),
            Minutes(6),
            "held",
            work="messy",
            tools=("bowl", "sieve"),
            uses=("counter",),
            when={"grain.rinses": ("some",)},
            at="sieve",
            adds=(Adds(("grain", "legume")), Adds(("water",), by="stands-in", act="taken up in the soak")),
            becomes="rinsed grain",
            changes=("soak",),
        ),
        Step(
            "soak",
            "Soak the grain",
            (
                *always("Cover it by two fingers with water: it swells."),
                Sentence("In a warm room, put it in the fridge.", ()),
            ),
            Minutes(fact="grain.soak_min"),
            "free",
            tools=("wide bowl", "lid or plate"),
            after=(StepDependency("rinse", 0, 30),),
            uses=("counter",),
            cautions=("long-soak",),
            at="bowl",
            tips=("sieve",),
            adds=(
                Adds(("grain", "legume")),
                Adds(("liquid",), ("liquid",), when={"grain.water": ("own",)}),
                Adds(("water",), by="stands-in", act="taken up in the soak"),
            ),
            becomes="soaking grain",
            changes=("soak",),
        ),
        Step(
            "drain",
            "Drain it, and weigh it",
            drain,
            Minutes(fact="grain.drain_min"),
            "free",
            tools=("sieve", "bowl", "scale"),
            after=(StepDependency("soak", 0, 240),),
            uses=("counter",),
            weigh="grain.soaked_g",
            at="sieve",
            tips=("bowl",),
            adds=(Adds(("grain", "legume")), Adds(("water",), by="stands-in", act="taken up in the soak")),
            becomes="soaked grain",
            changes=("soak",),
        ),
    )
