"""Strand topping: grated young coconut boiled in sweet coconut milk until the strands are clear."""

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
    Step,
    always,
)

FAMILY = Family(
    id="strands",
    name="Strand topping",
    says="Grated young coconut boiled in sweet coconut milk until the strands are clear, with rind against heaviness.",
    roles=("topping",),
    finish=PartFinish("solids", Band(50, 60), "half to three fifths of it is solids", "syrup"),
    lines=(
        {"ingredient": "young-coconut", "amount": {"value": 200, "unit": "g"}},
        {"ingredient": "coconut-milk-thin", "amount": {"value": 150, "unit": "ml"}},
        {"ingredient": "light-brown-sugar", "amount": {"value": 90, "unit": "g"}},
        {"ingredient": "lemon-rind", "amount": {"value": 1, "unit": "piece"}},
    ),
    tells=("young-coconut",),
    outputs=(FamilyOutput("strands", "strands", "fruit"),),
    steps=(
        Step(
            "boil-clear",
            "Boil the strands clear",
            (
                *always("Boil gently and stir, so that none catches."),
                Sentence("Stir in the rind off the heat.", ("orange-rind goes in",)),
                Sentence("Stir in the rind off the heat.", ("lemon-rind goes in",), unless=("orange-rind goes in",)),
            ),
            Minutes(fixed=4, fact="part.*.boil_off_min"),
            "held",
            work="stove",
            tools=("pan", "spoon", "sieve"),
            uses=("burner",),
            weigh="made",
            cue=Cue(
                "Are the strands clear?",
                "Hold one to the light: glassy from end to end, and the pan nearly dry.",
                "Glassy",
                "White in the middle",
                "strand",
            ),
            cautions=("molten-sugar",),
            rhythm=Rhythm(60, "Stir, so that none catches"),
            at="pan",
            adds=(Adds(),),
        ),
    ),
    faults=(
        Fault("strands-hard", "hard, chewy strands", "boiled dry too fast", "a splash of milk, lid on", "gentler heat"),
    ),
)
