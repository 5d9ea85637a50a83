"""Burnt-sugar syrup: dry sugar melted to amber, let down with hot water off the heat."""

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
    Sentence,
    Sets,
    Step,
    Variant,
    always,
)

FAMILY = Family(
    id="burnt-sugar",
    name="Burnt-sugar syrup",
    says="Dry sugar melted to amber, then hot water a little at a time, off the heat.",
    roles=("syrup", "glaze", "broth"),
    finish=PartFinish("solids", Band(60, 70), "sugar is 60 to 70 % of it: thin enough to pour when cold"),
    lines=(
        {"ingredient": "white-sugar", "amount": {"value": 200, "unit": "g"}},
        {"ingredient": "water", "amount": {"value": 160, "unit": "ml"}},
    ),
    casts_off=("steeped",),
    sets=Sets(75, 5),  # a syrup of less sugar can be poured when cold; kitchen estimate
    outputs=(FamilyOutput("syrup", "syrup", "sugar"),),
    steps=(
        Step(
            "burn",
            "Melt the sugar to amber",
            (
                *always(
                    "Heat it in a dry pan over medium heat.",
                    "Swirl the pan, do not stir.",
                    "Take it off the heat at amber.",
                ),
                Sentence("Then add the hot water, a spoonful at a time, and wait between them.", ("liquid goes in",)),
                Sentence("Pour it out at once: it goes on darkening.", (), unless=("liquid goes in",)),
            ),
            Minutes(fact="part.*.caramel_min"),
            "held",
            work="stove",
            tools=("heavy pan", "long spoon"),
            uses=("burner",),
            weigh="made",
            asks=always("Is the hot water measured and beside the stove?"),
            cue=Cue(
                "Amber?", "A drop on a white plate is the colour of strong tea.", "Like tea", "Pale still", "amber"
            ),
            cautions=("molten-sugar",),
            at="pan",
            adds=(Adds(("sugar",), act="dry"), Adds(act="hot, at amber")),
            variants=(Variant(("liquid goes in",), tools=("heavy pan", "kettle", "long spoon")),),
            rhythm=Rhythm(20, "Swirl the pan, look at the colour"),
        ),
    ),
    faults=(
        Fault("bitter-syrup", "bitter syrup", "taken past amber", "sweeten it, use less", "off the heat sooner"),
        Fault(
            "grainy-syrup",
            "grains in the syrup",
            "stirred while it melted",
            "a spoon of water, melt again",
            "swirl only",
        ),
    ),
    cautions=("molten-sugar",),
)
