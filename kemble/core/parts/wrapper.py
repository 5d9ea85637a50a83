"""Wrappers and linings: leaves soaked and trimmed, paper, foil, string. Some tear: soak spares."""

from kemble.core.parts.base import After, Family, Fault, Finish, Minutes, Step

FAMILY = Family(
    id="wrapper",
    name="Leaves and wrappers",
    says="Leaves soaked overnight under a weight and trimmed, or softened in hot water; string cut; spares, because some tear.",
    roles=("wrapper",),
    finish=Finish(),
    lines=(
        {"ingredient": "bamboo-leaf", "amount": {"value": 40, "unit": "piece"}},
        {"ingredient": "kitchen-string", "amount": {"value": 16, "unit": "piece"}},
    ),
    tells=("leaf",),
    spare_pct=15.0,
    steps=(
        Step(
            "soak-leaves",
            "Soak the leaves",
            "Under water with a plate on top, overnight. Fresh leaf: two minutes in boiling water instead.",
            Minutes(480),
            "free",
            uses=("counter",),
            needs=("bamboo-leaf", "banana-leaf", "corn-husk", "vine-leaf"),
        ),
        Step(
            "trim",
            "Trim and wipe the leaves",
            "Cut the hard ends, wipe both sides, stack them with the grain one way. Cut the string.",
            Minutes(12),
            "held",
            after=(After("soak-leaves", 0, 600),),
            uses=("counter",),
        ),
    ),
    faults=(Fault("leaf-split", "leaf split", "brittle leaf", "a second leaf over it", "soak longer; spares"),),
    cautions=("plants",),
)
