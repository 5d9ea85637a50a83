"""Savoury filling for parcels: seasoned, cut even, kept cold until it is folded in."""

from kemble.core.cards.family import Adds, Family, FamilyOutput, Fault, Minutes, PartFinish, Step, always

FAMILY = Family(
    id="savoury-filling",
    name="Parcel filling",
    says="Beans, mushrooms, chestnuts or meat, cut to one size, seasoned, and kept cold until the parcels are folded.",
    roles=("filling",),
    finish=PartFinish(),
    lines=(
        {"ingredient": "chestnut-cooked", "amount": {"value": 180, "unit": "g"}},
        {"ingredient": "mushroom-dried", "amount": {"value": 15, "unit": "g"}},
        {"ingredient": "shallot", "amount": {"value": 2, "unit": "piece"}},
    ),
    tells=("savoury", "mushroom-dried", "chestnut-cooked"),
    outputs=(FamilyOutput("filling", "filling", "savoury"),),
    steps=(
        Step(
            "season",
            "Cut and season the filling",
            always(
                "Cut everything to one size, so that every parcel gets some of each.",
                "What spoils goes back into the fridge until you fold.",
            ),
            Minutes(20),
            "held",
            work="knife",
            tools=("knife", "board", "bowl"),
            uses=("counter",),
            weigh="made",
            cautions=("spoilage",),
            at="bowl",
            adds=(Adds(),),
        ),
    ),
    faults=(
        Fault(
            "salty-filling",
            "too salty at the heart",
            "salted leaves or soy counted twice",
            "a plain sauce beside it",
            "season after tasting the soaked grain",
        ),
    ),
)
