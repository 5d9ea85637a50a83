"""Coats and dusts: starch, roasted soy flour, ground nut and sugar, crushed dry fruit."""

from kemble.core.cards.family import Adds, Family, FamilyOutput, Fault, Minutes, PartFinish, Step, StepDependency
from kemble.core.cards.parts.roasting import RAW, ROAST

FAMILY = Family(
    id="coat",
    name="Coat or dust",
    says="What the outside is rolled in, so that nothing sticks: starch, roasted flour, or ground nut and sugar.",
    roles=("coat", "decoration", "layer"),
    finish=PartFinish(),
    lines=({"ingredient": "potato-starch", "amount": {"value": 60, "unit": "g"}},),
    tells=("dust",),
    outputs=(FamilyOutput("coat", "coat", "dust"),),
    steps=(
        ROAST,
        Step(
            "grind",
            "Grind the nuts for the coat",
            "In short bursts, the sugar with them, so that they do not turn to butter.",
            Minutes(5),
            "held",
            work="knife",
            tools=(
                "grinder",
                "bowl",
            ),
            after=(StepDependency("roast", 20, 1440),),
            uses=("counter",),
            needs=RAW,
            at="grinder",
            tips=("pan",),
            adds=(
                Adds(
                    (
                        "nut",
                        "sugar",
                    )
                ),
            ),
        ),
        Step(
            "lay",
            "Lay out the coat",
            "On the board and in a bowl, before the dough leaves the heat.",
            Minutes(4),
            "held",
            work="messy",
            tools=(
                "wide tray",
                "spoon",
            ),
            after=(StepDependency("grind", 0, 1440),),
            uses=("counter",),
            weigh="made",
            at="tray",
            tips=(
                "grinder",
                "pan",
            ),
            adds=(Adds(),),
        ),
    ),
    faults=(Fault("damp-coat", "the coat turns to paste", "rolled too hot or too early", "a second dusting", "wait"),),
)
