"""Coats and dusts: starch, roasted soy flour, ground nut and sugar, crushed dry fruit."""

from kemble.core.cards.family import Family, Fault, Finish, Minutes, Step

FAMILY = Family(
    id="coat",
    name="Coat or dust",
    says="What the outside is rolled in, so that nothing sticks: starch, roasted flour, or ground nut and sugar.",
    roles=("coat",),
    finish=Finish(),
    lines=({"ingredient": "potato-starch", "amount": {"value": 60, "unit": "g"}},),
    tells=("dust",),
    steps=(
        Step(
            "lay",
            "Lay out the coat",
            "On the board and in a bowl, before the dough leaves the heat.",
            Minutes(4),
            "held",
            uses=("counter",),
            weigh="made",
        ),
    ),
    faults=(Fault("damp-coat", "the coat turns to paste", "rolled too hot or too early", "a second dusting", "wait"),),
)
