"""Leaf infusion: a fragrant leaf steeped in hot water, strained, used for the dough's own water."""

from kemble.core.cards.family import Adds, Band, Family, FamilyOutput, Fault, Minutes, PartFinish, Step, always

FAMILY = Family(
    id="leaf-infusion",
    name="Leaf infusion",
    says="A fragrant leaf steeped ten minutes in hot water and strained.",
    roles=("syrup", "broth", "liquid"),
    finish=PartFinish("loss", Band(6, 14), "6 to 14 % stays in the leaf or steams away"),
    lines=(
        {"ingredient": "water", "amount": {"value": 300, "unit": "ml"}},
        {"ingredient": "bay-leaf", "amount": {"value": 4, "unit": "piece"}},
    ),
    tells=("bay-leaf",),
    casts_off=("steeped",),
    outputs=(FamilyOutput("infusion", "infusion", "liquid"),),
    steps=(
        Step(
            "steep-leaf",
            "Steep the leaf",
            always("Heat the liquid, but do not boil it; steep for ten minutes with the lid on.", "Strain it."),
            Minutes(12),
            "free",
            work="stove",
            tools=("kettle", "jug", "sieve"),
            uses=("counter",),
            weigh="made",
            at="jug",
            adds=(Adds(),),
        ),
    ),
    faults=(Fault("grassy", "a bitter, grassy taste", "boiled or steeped long", "sweeten", "hot, not boiling"),),
    cautions=("plants",),
)
