"""Glaze: brushed on at the end, of syrup, egg or milk."""

from kemble.core.cards.family import Adds, Family, FamilyOutput, Fault, Minutes, PartFinish, Step, always

FAMILY = Family(
    id="glaze",
    name="Glaze",
    says="Brushed on for the last minutes, for a shine and a brown edge.",
    roles=("glaze", "topping"),
    finish=PartFinish(),
    lines=(
        {"ingredient": "coconut-milk-thick", "amount": {"value": 80, "unit": "ml"}},
        {"ingredient": "light-brown-sugar", "amount": {"value": 30, "unit": "g"}},
    ),
    outputs=(FamilyOutput("glaze", "glaze", "liquid"),),
    steps=(
        Step(
            "whisk",
            "Whisk the glaze",
            always("Whisk until no grain is felt.", "Put a brush next to it."),
            Minutes(4),
            "held",
            work="messy",
            tools=("small bowl", "whisk"),
            uses=("counter",),
            weigh="made",
            at="bowl",
            adds=(Adds(),),
        ),
    ),
    faults=(Fault("glaze-burnt", "the glaze burns", "on too early", "foil over it", "the last ten minutes only"),),
)
