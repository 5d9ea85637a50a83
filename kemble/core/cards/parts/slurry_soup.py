"""Thickened soup: a slurry of the same flour gives a sweet broth body."""

from kemble.core.cards.family import Adds, Band, Cue, Family, FamilyOutput, Fault, Minutes, PartFinish, Step, always

FAMILY = Family(
    id="slurry-soup",
    name="Thickened soup",
    says="A sweet broth given body with a slurry of the same flour.",
    roles=("broth",),
    finish=PartFinish("loss", Band(2, 8), "2 to 8 % steams away"),
    lines=(
        {"ingredient": "apple-juice", "amount": {"value": 800, "unit": "ml"}},
        {"ingredient": "sweet-rice-flour", "amount": {"value": 24, "unit": "g"}},
        {"ingredient": "mild-honey", "amount": {"value": 40, "unit": "g"}},
    ),
    tells=("flour", "corn-starch", "tapioca-starch", "potato-starch"),
    casts_off=("steeped",),
    made_in_pot={"pot": ("thickened",)},
    outputs=(FamilyOutput("soup", "soup", "liquid"),),
    steps=(
        Step(
            "thicken",
            "Thicken the soup",
            always(
                "Pour the cold slurry into the simmering soup in a thread, stirring.",
                "One minute at the boil makes it clear.",
            ),
            Minutes(12),
            "held",
            work="stove",
            tools=("pan", "whisk"),
            uses=("burner",),
            weigh="made",
            cue=Cue(
                "Has it cleared?", "It turns from milky to glassy and coats the ladle.", "Glassy", "Milky", "spoon"
            ),
            at="pan",
            adds=(Adds(),),
        ),
    ),
    faults=(Fault("lumpy-soup", "lumps", "slurry poured in warm or all at once", "sieve it", "cold slurry, a thread"),),
)
