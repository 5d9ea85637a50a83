"""Seed-and-fat filling: roasted seeds or nuts ground with sugar and bound with fat that sets in the cold."""

from kemble.core.cards.family import (
    Adds,
    Band,
    Family,
    FamilyOutput,
    Fault,
    Minutes,
    PartFinish,
    Step,
    StepDependency,
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
            "Grind the nuts fine with the sugar, then work in the fat and the syrup until it holds.",
            Minutes(12),
            "held",
            work="knife",
            tools=(
                "grinder",
                "bowl",
                "spatula",
            ),
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
            "Flat in a box, half an hour in the freezer. It should hold a thumb print.",
            Minutes(30),
            "free",
            tools=(
                "shallow tray",
                "film",
            ),
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
