"""Blended liquid: herb, fruit, seed or cooked grain made smooth with water or milk; all of it goes on."""

from kemble.core.cards.family import (
    Adds,
    Band,
    Family,
    FamilyOutput,
    Fault,
    Minutes,
    PartFinish,
    Step,
    StepDependency,
    always,
)

FAMILY = Family(
    id="blended-liquid",
    name="Blended liquid",
    says="Something made smooth with water or milk in a blender, to be the dough's own liquid.",
    roles=("liquid", "syrup", "broth"),
    finish=PartFinish("loss", Band(1, 5), "1 to 5 % stays in the blender and the sieve"),
    lines=(
        {"ingredient": "milk", "amount": {"value": 250, "unit": "ml"}},
        {"ingredient": "sweet-potato-mash", "amount": {"value": 80, "unit": "g"}},
    ),
    outputs=(FamilyOutput("liquid", "blended liquid", "liquid"),),
    steps=(
        Step(
            "blend",
            "Blend the liquid",
            always("Blend until nothing is felt between two fingers."),
            Minutes(4),
            "held",
            work="knife",
            tools=("blender", "jug"),
            uses=("counter", "machine"),
            at="blender",
            adds=(Adds(),),
        ),
        Step(
            "strain",
            "Strain the liquid",
            always("Press it through a sieve with a spoon, and weigh what came through."),
            Minutes(3),
            "held",
            tools=("sieve", "jug", "spoon"),
            after=(StepDependency("blend", 0, 120),),
            uses=("counter",),
            weigh="made",
            at="jug",
            tips=("blender",),
        ),
    ),
    faults=(Fault("grainy", "grains in the dough", "blended short, not strained", "strain it", "blend longer"),),
)
