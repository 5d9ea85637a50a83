"""Coats and dusts: starch, roasted soy flour, ground nut and sugar, crushed dry fruit."""

from kemble.core.cards.family import (
    Adds,
    Family,
    FamilyOutput,
    Fault,
    Minutes,
    PartFinish,
    Sentence,
    Step,
    StepDependency,
    always,
)
from kemble.core.cards.parts.roasting import ROAST

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
            (
                *always("Grind in short bursts."),
                Sentence("Grind the sugar with them, so that they stay dry.", ("sugar goes in",)),
            ),
            Minutes(5),
            "held",
            work="knife",
            tools=("grinder", "bowl"),
            after=(StepDependency("roast", 20, 1440),),
            uses=("counter",),
            presumes=("raw-nut",),
            at="grinder",
            tips=("pan",),
            adds=(Adds(("nut", "sugar")),),
        ),
        Step(
            "lay",
            "Lay out the coat",
            always("Spread it on the board and in a bowl, before the dough leaves the heat."),
            Minutes(4),
            "held",
            work="messy",
            tools=("wide tray", "spoon"),
            after=(StepDependency("grind", 0, 1440),),
            uses=("counter",),
            weigh="made",
            at="tray",
            tips=("grinder", "pan"),
            adds=(Adds(),),
        ),
    ),
    faults=(Fault("damp-coat", "the coat turns to paste", "rolled too hot or too early", "a second dusting", "wait"),),
)
