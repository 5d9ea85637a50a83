"""What is strewn, pressed or laid on or under, as it is: crumbs, sugar, cheese, fruit, nuts."""

from kemble.core.cards.family import Adds, Family, FamilyOutput, Fault, Minutes, PartFinish, Sentence, Step, always

FAMILY = Family(
    id="strewn",
    name="Strewn or laid",
    says="Crumbs, sugar, cheese, nuts or fruit, made ready and laid where it belongs. Nothing is cooked.",
    roles=("topping", "crust", "layer", "decoration"),
    finish=PartFinish(),
    lines=({"ingredient": "hazelnut", "amount": {"value": 60, "unit": "g"}},),
    tells=("nut", "fruit", "dust", "savoury", "sugar", "flour"),
    outputs=(FamilyOutput("strewn", "", "nut"),),
    steps=(
        Step(
            "ready",
            "Make the {name} ready",
            (
                *always("Chop, grate, slice or measure it into a bowl."),
                Sentence("Lay wet fruit on a cloth.", ("fruit goes in",)),
            ),
            Minutes(5),
            "held",
            work="messy",
            tools=("bowl",),
            uses=("counter",),
            weigh="made",
            at="bowl",
            adds=(Adds(),),
        ),
    ),
    faults=(
        Fault("weeps", "wet where the fruit lies", "fruit too wet", "bake it on a while", "dry it on a cloth, less"),
    ),
)
