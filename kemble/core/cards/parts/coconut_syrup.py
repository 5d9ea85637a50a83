"""Coconut syrup: coconut milk and sugar boiled down until it coats; done is a weight."""

from kemble.core.cards.family import (
    Adds,
    Band,
    Cue,
    Family,
    FamilyOutput,
    Fault,
    Minutes,
    PartFinish,
    Rhythm,
    Step,
    always,
)

FAMILY = Family(
    id="coconut-syrup",
    name="Coconut syrup",
    says="Coconut milk and sugar boiled down, stirred without pause near the end, until it coats the spoon.",
    roles=("syrup", "glaze", "topping"),
    finish=PartFinish("solids", Band(66, 74), "solids are two thirds to three quarters of it", "syrup"),
    lines=(
        {"ingredient": "coconut-milk-thick", "amount": {"value": 400, "unit": "ml"}},
        {"ingredient": "dark-slab-sugar", "amount": {"value": 180, "unit": "g"}},
        {"ingredient": "salt", "amount": {"value": 2, "unit": "g"}},
    ),
    tells=("coconut-milk-thick", "coconut-milk-thin"),
    casts_off=("steeped",),
    outputs=(FamilyOutput("syrup", "syrup", "sugar"),),
    steps=(
        Step(
            "reduce",
            "Reduce the syrup",
            always(
                "Boil it gently in a wide pan.",
                "Near the end stir without a pause, along the bottom and the corners.",
                "Go by the scale, not by the clock.",
            ),
            Minutes(fixed=2, fact="part.*.boil_off_min"),
            "held",
            work="stove",
            tools=("wide pan", "flat spatula", "scale"),
            uses=("burner",),
            weigh="made",
            cue=Cue(
                "Does it coat the spoon?",
                "Draw a finger through it: the line stays open. The pan on the scale shows the weight it should have.",
                "The line stays",
                "It runs together",
                "spoon",
            ),
            cautions=("molten-sugar",),
            at="pan",
            adds=(Adds(),),
            rhythm=Rhythm(60, "Stir along the bottom"),
        ),
    ),
    faults=(
        Fault(
            "split-syrup",
            "split, greasy syrup",
            "boiled hard, or very fat milk",
            "whisk in hot water, a spoon at a time",
            "gentler, and stir",
        ),
    ),
)
