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
    Sentence,
    Step,
    Variant,
    always,
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
                School("chopped", "chopped", "flecks of green", traits=("chopped",)),
                School("blended", "blended", "one even green; a spoon of water with it", traits=("blended",)),
            ),
        ),
    ),
    outputs=(FamilyOutput("herb", "herb", "herb"),),
    steps=(
        Step(
            "blanch",
            "Blanch the herb",
            (
                *always("Two minutes in boiling water, then into cold water.", "Squeeze it dry."),
                Sentence("Chop it fine.", ("chopped",)),
                Sentence("Blend it with a spoon of water.", ("blended",)),
                *always("It goes in when the dough is cooked."),
            ),
            Minutes(10),
            "held",
            work="stove",
            tools=("pan", "sieve", "bowl of cold water"),
            uses=("burner",),
            weigh="made",
            cautions=("plants",),
            at="board",
            adds=(Adds(),),
            variants=(
                Variant(
                    ("chopped",),
                    title="Blanch and chop the herb",
                    tools=("pan", "sieve", "bowl of cold water", "knife"),
                ),
                Variant(
                    ("blended",),
                    title="Blanch and blend the herb",
                    tools=("pan", "sieve", "bowl of cold water", "blender"),
                ),
            ),
        ),
    ),
    faults=(Fault("brown-green", "green turned brown", "herb cooked with the dough", "none", "add it after cooking"),),
    cautions=("plants",),
)
