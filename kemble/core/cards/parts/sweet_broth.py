"""Sweet broth: fruit juice or water steeped with ginger, sugar or a leaf."""

from kemble.core.cards.family import Adds, Band, Family, FamilyOutput, Fault, Minutes, PartFinish, Step, always

FAMILY = Family(
    id="sweet-broth",
    name="Sweet broth",
    says="Juice or water steeped with ginger, sugar or a leaf, to ladle over.",
    roles=("broth",),
    finish=PartFinish("loss", Band(3, 10), "3 to 10 % steams away under a lid"),
    lines=(
        {"ingredient": "pear-juice", "amount": {"value": 900, "unit": "ml"}},
        {"ingredient": "ginger", "amount": {"value": 24, "unit": "g"}},
    ),
    tells=("ginger-infusion", "ginger"),
    casts_off=("steeped",),
    outputs=(FamilyOutput("broth", "broth", "liquid"),),
    steps=(
        Step(
            "steep",
            "Steep the broth",
            always("Keep it just below a simmer, lid on.", "It stays warm on the lowest heat."),
            Minutes(25),
            "minded",
            work="stove",
            tools=("pan", "sieve"),
            uses=("burner",),
            weigh="made",
            at="pan",
            adds=(Adds(),),
        ),
    ),
    faults=(Fault("thin-broth", "a thin, flat broth", "steeped too short", "a pinch of salt", "longer, more ginger"),),
)
