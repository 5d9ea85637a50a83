"""The whole heart: one fruit or nut in the middle of each piece, with paste or dough round it."""

from kemble.core.cards.family import (
    Choice,
    Family,
    FamilyOutput,
    Fault,
    Minutes,
    PartFinish,
    School,
    Step,
    StepDependency,
)

FAMILY = Family(
    id="whole-heart",
    name="Whole fruit or nut",
    says="One whole fruit or nut to a piece, dry outside, all of a size; paste goes round it, or the dough itself.",
    roles=("heart",),
    finish=PartFinish(),
    lines=({"ingredient": "hazelnut", "amount": {"value": 24, "unit": "piece"}},),
    tells=("fruit", "nut"),
    choices=(
        Choice(
            "ready",
            "mix",
            "It goes in",
            "raw",
            (
                School("raw", "raw, wiped dry", "fresh and sharp; eaten the same day"),
                School("candied", "cooked in sugar, drained", "keeps longer; sweeter, and wet unless it drains well"),
                School("roasted", "roasted", "dry, crisp for a day; nuts and chestnuts"),
            ),
        ),
    ),
    outputs=(FamilyOutput("hearts", "hearts", "fruit"),),
    steps=(
        Step(
            "wipe",
            "Wipe the fruit dry",
            "Stalks off, one by one on paper. A wet one slides in its paste and sours the seam.",
            Minutes(fixed=3, per_piece=0.1),
            "held",
            tools=("cloth",),
            uses=("counter",),
            when={"ready": ("raw",)},
        ),
        Step(
            "candy",
            "Cook the fruit in sugar and drain it",
            "Under a bare simmer until clear at the edge; on a rack until it no longer drips.",
            Minutes(45),
            "minded",
            work="stove",
            tools=(
                "pan",
                "rack",
            ),
            uses=("burner",),
            when={"ready": ("candied",)},
            cautions=("molten-sugar",),
        ),
        Step(
            "roast",
            "Roast the nuts",
            "Until they smell and the skins crack; cool them before they go into paste.",
            Minutes(15),
            "minded",
            work="stove",
            tools=(
                "tray",
                "oven cloth",
            ),
            uses=("oven",),
            when={"ready": ("roasted",)},
        ),
        Step(
            "sort",
            "Sort out those of a size",
            "The largest to be eaten now: all equal, the skins come out equal too.",
            Minutes(2),
            "held",
            tools=("tray",),
            after=(StepDependency("wipe", 0, 240), StepDependency("candy", 0, 1440), StepDependency("roast", 0, 1440)),
            uses=("counter",),
        ),
    ),
    faults=(
        Fault(
            "heart-slides",
            "the fruit shows through",
            "paste too thin round it, or the fruit wet",
            "turn that side down, eat it first",
            "a smaller fruit, more paste, wiped dry",
        ),
    ),
)
