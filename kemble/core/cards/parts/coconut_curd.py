"""Coconut curd: thick coconut cream boiled until oil parts from curds, and the curds brown."""

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
    id="coconut-curd",
    name="Coconut curd and oil",
    says="Thick coconut cream boiled until the oil parts and the curds brown: curds for the top, oil for the tin.",
    roles=("topping", "oil"),
    finish=PartFinish(
        "curd", Band(60, 78), "the oil that parts is 60 to 78 % of the fat; the curds keep the rest", "syrup"
    ),
    lines=({"ingredient": "coconut-milk-thick", "amount": {"value": 400, "unit": "ml"}},),
    outputs=(
        FamilyOutput(
            "curds",
            "curds",
            "paste",
            "curds: the solids, the fat that stays, and about a quarter water",
            main_of=("topping",),
        ),
        FamilyOutput("oil", "coconut oil", "fat", "the oil that parts", main_of=("oil",)),
    ),
    steps=(
        Step(
            "boil-off",
            "Boil the cream to curds",
            always(
                "Boil it over medium heat until it splits, then turn it low.",
                "Scrape as the curds sink.",
                "Stop at amber: they go on colouring.",
            ),
            Minutes(fixed=6, fact="part.*.boil_off_min"),
            "held",
            work="stove",
            tools=("wide pan", "flat spatula", "sieve"),
            uses=("burner",),
            weigh="made",
            cue=Cue(
                "Clear oil, amber curds?",
                "The bubbling goes quiet when the water is gone. Strain at once.",
                "Clear and amber",
                "Still white",
                "curd",
            ),
            cautions=("hot-oil",),
            at="pan",
            adds=(Adds(),),
            rhythm=Rhythm(60, "Scrape the bottom"),
        ),
    ),
    faults=(
        Fault(
            "burnt-curd", "bitter, dark curds", "left in the hot oil", "use the oil only", "strain while they are amber"
        ),
    ),
    cautions=("hot-oil",),
)
