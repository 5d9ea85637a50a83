"""Infused oil: shallots fried pale gold and strained; the oil carries the fragrance."""

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
    Variant,
    always,
)

FAMILY = Family(
    id="infused-oil",
    name="Infused oil",
    says="Shallots fried pale gold in oil and strained; the crisps are kept for the top.",
    roles=("oil",),
    finish=PartFinish(
        "fry", Band(10, 22), "the oil, less the 10 to 22 % of the raw shallots' weight that the crisps hold"
    ),
    lines=(
        {"ingredient": "sunflower-oil", "amount": {"value": 80, "unit": "g"}},
        {"ingredient": "shallot", "amount": {"value": 60, "unit": "g"}},
    ),
    tells=("shallot",),
    outputs=(FamilyOutput("oil", "oil", "fat"), FamilyOutput("crisps", "crisps", "savoury")),
    steps=(
        Step(
            "fry",
            "Fry them pale gold",
            always(
                "Begin in cold oil, over medium heat, and stir.",
                "Strain it while they are pale gold: they darken in their own heat.",
            ),
            Minutes(12),
            "held",
            work="stove",
            tools=("small pan", "sieve", "heatproof bowl"),
            uses=("burner",),
            weigh="made",
            cue=Cue("Pale gold?", "The bubbling slows, the edges are straw.", "Straw gold", "Still white", "straw"),
            cautions=("hot-oil",),
            rhythm=Rhythm(30, "Stir, and look at the colour"),
            at="pan",
            adds=(Adds(),),
            variants=(
                Variant(("shallot",), title="Fry the shallots pale gold"),
                Variant(("garlic",), unless=("shallot",), title="Fry the garlic pale gold"),
            ),
        ),
    ),
    faults=(Fault("bitter-oil", "bitter oil", "shallots taken to brown", "start again", "strain at pale gold"),),
    cautions=("hot-oil",),
)
