"""Wrappers and linings: leaves soaked and trimmed, paper, foil, string. Some tear: soak spares."""

from kemble.core.cards.family import (
    Adds,
    Choice,
    Family,
    FamilyOutput,
    Fault,
    Minutes,
    PartFinish,
    School,
    Sentence,
    Step,
    StepDependency,
    always,
)

FAMILY = Family(
    id="wrapper",
    name="Leaves and wrappers",
    says="Leaves soaked overnight under a weight and trimmed, or softened in hot water; string cut; spares, because some tear.",
    roles=("wrapper",),
    finish=PartFinish(),
    lines=(
        {"ingredient": "bamboo-leaf", "amount": {"value": 40, "unit": "piece"}},
        {"ingredient": "kitchen-string", "amount": {"value": 16, "unit": "piece"}},
    ),
    tells=("leaf",),
    spare_pct=15.0,
    choices=(
        Choice(
            "soften",
            "mix",
            "The leaves are",
            "soaked",
            (
                School("soaked", "soaked overnight", "supple all through; under a weight, since last night"),
                School(
                    "blanched", "softened in hot water", "ten minutes; fresh leaf, or when last night was forgotten"
                ),
            ),
            default_for={"tin": "blanched"},  # a leaf that only lines a tray need not fold
        ),
    ),
    outputs=(FamilyOutput("leaves", "leaves", "leaf"),),
    steps=(
        Step(
            "soak-leaves",
            "Soak the leaves",
            always("Keep them under water with a plate on top, overnight."),
            Minutes(480),
            "free",
            tools=("deep tray", "plate as a weight"),
            uses=("counter",),
            when={"soften": ("soaked",)},
            presumes=("wraps",),
            at="tray",
            adds=(Adds(("wraps",)),),
        ),
        Step(
            "blanch-leaves",
            "Soften the leaves in hot water",
            always(
                "Fresh leaves need ten minutes in water just off the boil, dry ones half an hour.",
                "Or draw a fresh leaf over a low flame until it shines.",
            ),
            Minutes(20),
            "minded",
            work="stove",
            tools=("wide pot", "tongs"),
            uses=("burner",),
            when={"soften": ("blanched",)},
            presumes=("wraps",),
            at="pot",
            adds=(Adds(("wraps",)),),
        ),
        Step(
            "trim",
            "Trim and wipe the leaves",
            (
                Sentence("Cut off the hard ends.", (), unless=("ends-left",)),
                *always("Wipe both sides and stack the leaves with the grain one way."),
                Sentence("Cut the string.", ("kitchen-string goes in",)),
            ),
            Minutes(12),
            "held",
            work="knife",
            tools=("scissors", "cloth"),
            after=(StepDependency("soak-leaves", 0, 600), StepDependency("blanch-leaves", 0, 600)),
            presumes=("wraps",),
            cautions=("plants",),
            uses=("counter",),
            at="board",
            tips=("tray", "pot"),
            adds=(Adds(),),
        ),
    ),
    faults=(Fault("leaf-split", "leaf split", "brittle leaf", "a second leaf over it", "soak longer; spares"),),
)
