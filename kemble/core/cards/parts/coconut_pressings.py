"""Two pressings of one coconut: the first thick, the second thin with warm water."""

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
    id="coconut-pressings",
    name="Two pressings of a coconut",
    says="Grated ripe coconut wrung out with a little warm water, then again with more: thick milk, then thin.",
    roles=("liquid",),
    finish=PartFinish("press", Band(55, 70), "the first pressing takes 55 to 70 % of the fat that comes out"),
    lines=(
        {"ingredient": "coconut-fresh", "amount": {"value": 300, "unit": "g"}},
        {"ingredient": "water", "amount": {"value": 450, "unit": "ml"}},
    ),
    tells=("coconut-fresh",),
    outputs=(
        FamilyOutput("thick", "thick coconut milk", "liquid"),
        FamilyOutput("thin", "thin coconut milk", "liquid"),
    ),
    steps=(
        Step(
            "first",
            "Wring out the first pressing",
            always(
                "Pour on a third of the water, as hot as a hand can bear; knead, then wring it out in a cloth.",
                "Keep it apart.",
            ),
            Minutes(8),
            "held",
            work="messy",
            tools=("cloth", "two bowls"),
            uses=("counter",),
            weigh="made",
            at="bowl",
            adds=(Adds(("nut", "fruit")), Adds(("liquid",), share=1 / 3)),
        ),
        Step(
            "second",
            "Wring out the second pressing",
            always("Pour on the rest of the water and do the same again.", "The thin is used first, the thick last."),
            Minutes(8),
            "held",
            work="messy",
            tools=("cloth", "kettle", "bowl"),
            after=(StepDependency("first", 0, 60),),
            uses=("counter",),
            at="bowl",
            adds=(Adds(),),
        ),
    ),
    faults=(
        Fault("thin-first", "a thin first pressing", "cold or much water", "let it stand: cream rises", "hot, less"),
    ),
)
