"""The step with which seeds and nuts bought raw begin, in every part that grinds them."""

from kemble.core.cards.family import Adds, Cue, Minutes, Rhythm, Step, always

ROAST = Step(
    "roast",
    "Roast what is raw",
    always(
        "Use a dry pan and medium heat, and keep them moving: seeds jump, nuts smell.",
        "Tip them out of the pan at once and let them get cold before you grind them.",
    ),
    Minutes(12),
    "held",
    work="stove",
    tools=("dry pan", "spoon"),
    uses=("burner",),
    presumes=("raw-nut",),
    cue=Cue(
        "Does it smell, and taste of roast?",
        "Crush one: the inside is the colour of straw. It goes on colouring once it is out.",
        "Straw, crisp",
        "White within",
        "amber",
    ),
    at="pan",
    adds=(Adds(("raw-nut",)),),
    becomes="roasted nuts",
    rhythm=Rhythm(15, "Shake or stir"),
)
