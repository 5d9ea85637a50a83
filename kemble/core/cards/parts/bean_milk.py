"""Bean milk: soaked beans ground with water, strained or whole, boiled through."""

from kemble.core.cards.family import (
    Adds,
    Band,
    Choice,
    Cue,
    Family,
    FamilyOutput,
    Fault,
    Minutes,
    PartFinish,
    Rhythm,
    School,
    Step,
    StepDependency,
)

FAMILY = Family(
    id="bean-milk",
    name="Bean milk",
    says="Soaked beans ground with water; strained, or left whole for body; boiled through.",
    roles=("liquid",),
    finish=PartFinish("loss", Band(2, 8), "2 to 8 % boils off; what a cloth holds back is said by the scale"),
    lines=(
        {"ingredient": "mung-bean-split", "amount": {"value": 60, "unit": "g"}},
        {"ingredient": "water", "amount": {"value": 480, "unit": "ml"}},
    ),
    tells=("legume",),
    outputs=(FamilyOutput("milk", "bean milk", "liquid"),),
    choices=(
        Choice(
            "strain",
            "mix",
            "The milk is",
            "whole",
            (
                School("whole", "left whole", "all of the bean is in it: thicker, heavier"),
                School("strained", "strained", "smooth and thin; weigh what comes through"),
            ),
        ),
    ),
    steps=(
        Step(
            "grind",
            "Grind the beans with the water",
            "Until nothing is felt.",
            Minutes(6),
            "held",
            work="knife",
            tools=(
                "blender",
                "jug",
            ),
            uses=("counter",),
            at="jug",
            adds=(Adds(),),
        ),
        Step(
            "strain",
            "Strain it through a cloth",
            "Twist it dry; the scale says what came through.",
            Minutes(5),
            "held",
            work="messy",
            tools=(
                "cloth",
                "bowl",
            ),
            after=(StepDependency("grind", 0, 60),),
            when={"strain": ("strained",)},
            at="bowl",
            tips=("jug",),
        ),
        Step(
            "boil",
            "Boil the milk through",
            "It rises at once: a tall pot, stirred, ten minutes at the simmer. Raw bean milk is not for drinking.",
            Minutes(14),
            "held",
            work="stove",
            tools=(
                "deep pot",
                "spoon",
            ),
            after=(StepDependency("strain", 0, 60), StepDependency("grind", 0, 60)),
            uses=("burner",),
            weigh="made",
            cue=Cue("Does the raw smell go?", "Smell it: sweet, no longer of grass.", "Sweet", "Grassy", "spoon"),
            rhythm=Rhythm(30, "Stir: it rises at once"),
            at="pot",
            tips=(
                "jug",
                "bowl",
            ),
        ),
    ),
    faults=(Fault("catches", "it catches on the floor", "heat high", "another pot, do not scrape", "lower, stirred"),),
)
