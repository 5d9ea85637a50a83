"""The step with which seeds and nuts bought raw begin, in every part that grinds them."""

from kemble.core.cards.family import Adds, Cue, Minutes, Step

RAW = ("sesame-raw", "peanut-raw", "walnut-raw", "hazelnut-raw")

ROAST = Step(
    "roast",
    "Roast what is raw",
    "A dry pan, medium heat, never still; seeds jump, nuts smell. Out of the pan at once, and quite cold before it is ground.",
    Minutes(12),
    "held",
    work="stove",
    tools=(
        "dry pan",
        "spoon",
    ),
    uses=("burner",),
    needs=RAW,
    cue=Cue(
        "Does it smell, and taste of roast?",
        "Crush one: the inside is the colour of straw. It goes on colouring once it is out.",
        "Straw, crisp",
        "White within",
        "amber",
    ),
    at="pan",
    adds=(Adds(RAW),),
    becomes="roasted nuts",
)
