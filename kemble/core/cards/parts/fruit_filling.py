"""Fruit filling: a stiff fruit paste or whole fruit, mixed cold and rolled."""

from kemble.core.cards.family import (
    Adds,
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

FAMILY = Family(
    id="fruit-filling",
    name="Fruit filling",
    says="A stiff fruit paste with nuts or rind worked through it, rolled cold; or a whole fruit in a coat of paste.",
    roles=("filling",),
    finish=PartFinish(),
    lines=(
        {"ingredient": "date", "amount": {"value": 180, "unit": "g"}},
        {"ingredient": "walnut", "amount": {"value": 60, "unit": "g"}},
        {"ingredient": "orange-rind", "amount": {"value": 1, "unit": "piece"}},
    ),
    tells=("fruit", "paste"),
    outputs=(FamilyOutput("filling", "filling", "fruit"),),
    steps=(
        Step(
            "chop",
            "Make the filling",
            (
                *always("Chop or mash it even."),
                Sentence(
                    "If the dried fruit is leathery, soften it first with a spoon of hot water.", ("dried-fruit",)
                ),
                Sentence("Wipe fresh fruit dry.", (), unless=("dried-fruit",)),
            ),
            Minutes(12),
            "held",
            work="knife",
            tools=("knife", "board", "scoop"),
            uses=("counter",),
            weigh="made",
            at="board",
            adds=(Adds(),),
        ),
        Step(
            "chill",
            "Chill the filling",
            always("Leave it in the fridge for half an hour: cold, it rolls without sticking."),
            Minutes(30),
            "free",
            tools=("tray",),
            after=(StepDependency("chop", 0, 120),),
            uses=("fridge",),
            at="tray",
            tips=("board",),
        ),
    ),
    faults=(
        Fault(
            "wet-filling",
            "the filling weeps",
            "fruit too wet",
            "blot it; a spoon of starch in the paste",
            "dry the fruit; a stiffer paste round it",
        ),
    ),
)
