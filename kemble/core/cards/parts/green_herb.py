"""Green herb: young tops blanched, chopped or blended, added when the dough is cooked."""

from kemble.core.cards.family import (
    Adds,
    Band,
    Choice,
    Family,
    FamilyOutput,
    Fault,
    Minutes,
    PartFinish,
    School,
    Step,
)

FAMILY = Family(
    id="green-herb",
    name="Green herb",
    says="Young green tops blanched two minutes, squeezed and chopped; added after the dough is cooked.",
    roles=("herb",),
    finish=PartFinish("loss", Band(-5, 15), "squeezed, it weighs about what it did fresh"),
    lines=({"ingredient": "fresh-herb", "amount": {"value": 60, "unit": "g"}},),
    tells=("herb",),
    choices=(
        Choice(
            "cut",
            "mix",
            "The herb is",
            "chopped",
            (
                School("chopped", "chopped", "flecks of green"),
                School("blended", "blended", "one even green; a spoon of water with it"),
            ),
        ),
    ),
    outputs=(FamilyOutput("herb", "herb", "herb"),),
    steps=(
        Step(
            "blanch",
            "Blanch and chop the herb",
            "Two minutes in boiling water, then cold. Squeeze, chop fine or blend. It goes in after cooking.",
            Minutes(10),
            "held",
            work="stove",
            tools=(
                "pan",
                "sieve",
                "bowl of cold water",
                "knife",
            ),
            uses=("burner",),
            weigh="made",
            cautions=("plants",),
            at="board",
            adds=(Adds(),),
        ),
    ),
    faults=(Fault("brown-green", "green turned brown", "herb cooked with the dough", "none", "add it after cooking"),),
    cautions=("plants",),
)
