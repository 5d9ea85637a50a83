"""Seed-and-fat filling: roasted seeds or nuts ground with sugar and bound with fat that sets in the cold."""

from kemble.core.cards.family import (
    Adds,
    Band,
    Family,
    FamilyOutput,
    Fault,
    Minutes,
    PartFinish,
    Sentence,
    Step,
    StepDependency,
    always,
)
from kemble.core.cards.parts.roasting import ROAST

FAMILY = Family(
    id="seed-filling",
    name="Seed and fat filling",
    says="Roasted seeds or nuts ground fine with sugar, bound with a fat that sets hard in the cold.",
    roles=("filling",),
    finish=PartFinish(),
    lines=(
        {"ingredient": "hazelnut", "amount": {"value": 110, "unit": "g"}},
        {"ingredient": "light-brown-sugar", "amount": {"value": 60, "unit": "g"}},
        {"ingredient": "butter", "amount": {"value": 46, "unit": "g"}},
    ),
    tells=("nut",),
    sweetened="nut",
    sugar=Band(20, 90),
    outputs=(FamilyOutput("filling", "filling", "paste"),),
    steps=(
        ROAST,
        Step(
            "grind",
            "Mix the filling",
            (
                Sentence("Grind the nuts and seeds fine.", ("nut",)),
                Sentence("Grind the sugar with them.", ("sugar goes in", "nut")),
                Sentence("Work in the fat.", ("fat goes in",)),
                Sentence("Work in the syrup until it holds.", ("syrup goes in",)),
                *always("It is right when it holds together in a squeezed hand."),
            ),
            Minutes(12),
            "held",
            work="knife",
            tools=("grinder", "bowl", "spatula"),
            after=(StepDependency("roast", 20, 1440),),
            uses=("counter",),
            weigh="made",
            at="grinder",
            tips=("pan",),
            adds=(Adds(),),
        ),
        Step(
            "chill",
            "Chill the filling until it can be scooped",
            always(
                "Spread it flat in a box and put it in the freezer for half an hour.",
                "It should hold the print of a thumb.",
            ),
            Minutes(30),
            "free",
            tools=("shallow tray", "film"),
            after=(StepDependency("grind", 0, 60),),
            uses=("freezer",),
            at="tray",
            tips=("grinder",),
        ),
    ),
    faults=(
        Fault(
            "soft-filling",
            "the filling is too soft to wrap",
            "warm, or much fat",
            "back in the freezer for a quarter of an hour",
            "take out only a few at a time",
        ),
    ),
)
