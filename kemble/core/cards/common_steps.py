"""Steps that cooks do with many kinds of cake, to be put into a method where this cook does them. Minutes are kitchen estimates."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from kemble.core.cards.card_parts import Cue, Hands, Resource, Sentence, Work, always


@dataclass(frozen=True, slots=True)
class CommonStep:
    """One of them. `in_vessel`: it is done to what the step before it has in its vessel; else it stands by itself. `comes_after`:
    where most cooks do it, after the last of these steps that a method has; with none, where the cook puts it."""

    id: str
    title: str
    words: tuple[Sentence, ...]
    minutes: float
    hands: Hands = "held"
    per_piece: float = 0.0
    uses: tuple[Resource, ...] = ("counter",)
    in_vessel: bool = False
    work: Work = "safe"
    tools: tuple[str, ...] = ()
    cue: Cue | None = None
    cautions: tuple[str, ...] = ()
    comes_after: tuple[str, ...] = ()


_STEPS = (
    CommonStep(
        "wash-fruit",
        "Wash and dry the fruit",
        always("Under running water, then dry with a cloth: what is wet slides in its paste."),
        5,
        per_piece=0.1,
        tools=("sieve", "clean cloth"),
    ),
    CommonStep(
        "wash-leaves",
        "Wash the leaves",
        always("Both sides under running water, along the rib; shake off and dry."),
        5,
        tools=("clean cloth",),
        cautions=("plants",),
    ),
    CommonStep(
        "sort-beans",
        "Sort the beans",
        always("Take out stones, and beans that are shrivelled or broken.", "Rinse twice."),
        5,
        tools=("tray", "sieve"),
    ),
    CommonStep(
        "heat-oven",
        "Heat the oven up",
        always("To its temperature before anything goes in; a thermometer inside says when."),
        15,
        "free",
        uses=("oven",),
    ),
    CommonStep(
        "heat-pan",
        "Heat the pan",
        always("Over medium heat.", "A drop of water dances: then the oil goes in."),
        3,
        "minded",
        uses=("burner",),
        work="stove",
        tools=("heavy pan",),
    ),
    CommonStep(
        "toast-in-oven",
        "Toast the seeds in the oven",
        always("In one layer; shake the tray once.", "They go on browning once out."),
        10,
        "minded",
        uses=("oven",),
        work="stove",
        tools=("tray", "oven gloves"),
    ),
    CommonStep(
        "butter-tin", "Butter the tin", always("Bottom and wall, thin and even, with a brush."), 3, tools=("brush",)
    ),
    CommonStep(
        "chill-tin",
        "Chill the lined tin",
        always("In the fridge until the lining is set: then the batter does not lift it."),
        15,
        "free",
        uses=("fridge",),
        in_vessel=True,
        comes_after=("line", "put-glaze", "put-syrup", "put-crust", "put-layer"),
    ),
    CommonStep(
        "loosen-caramel",
        "Warm the tin to loosen the caramel",
        always("Stand the bottom in hot water until the caramel runs at the edge."),
        2,
        in_vessel=True,
        work="stove",
        tools=("wide bowl",),
        cautions=("molten-sugar",),
        comes_after=("cool",),
    ),
    CommonStep(
        "turn-out",
        "Turn it out",
        always(
            "Run a thin blade round the edge, put a plate on top, turn both over, peel off the paper, turn it back."
        ),
        3,
        in_vessel=True,
        work="knife",
        tools=("thin blade", "2 plates"),
        comes_after=("cool",),
    ),
    CommonStep(
        "cool-to-open",
        "Let it cool before it is opened",
        always("Hot, it sticks to its leaf or foil and tears."),
        30,
        "free",
        in_vessel=True,
        comes_after=("steam", "griddle"),
    ),
    CommonStep(
        "leave-days",
        "Leave it before slicing",
        always("Wrapped, in the fridge, one or two days: it firms, and slices thin."),
        24 * 60,
        "free",
        uses=("fridge",),
        in_vessel=True,
        comes_after=("cool",),
    ),
    CommonStep(
        "set-blade",
        "Put in the blade",
        always("Blade and basket before the grain goes in; wet the inside of the lid, so that nothing sticks."),
        2,
        tools=("blade of the machine",),
        comes_after=("steam-grain",),
    ),
    CommonStep(
        "take-out-blade",
        "Take the blade out of the dough",
        always("Unplug it first.", "With a wet spatula, hot as it is."),
        2,
        in_vessel=True,
        work="knife",
        tools=("wet spatula",),
        comes_after=("pound", "green"),
    ),
    CommonStep(
        "mash-filling",
        "Mash and mix the filling",
        always("Until no lump is left and it holds a shape."),
        8,
        tools=("fork", "bowl"),
    ),
    CommonStep(
        "dust",
        "Dust the board and hands",
        always("A thin layer of starch or flour through a sieve."),
        2,
        work="messy",
        tools=("fine sieve",),
    ),
    CommonStep(
        "brush-off",
        "Brush off the dust",
        always("With a dry brush, all round: what stays tastes of raw starch."),
        3,
        per_piece=0.05,
        in_vessel=True,
        tools=("dry brush",),
        comes_after=("wrap", "cut-rounds", "shape"),
    ),
    CommonStep(
        "gloves",
        "Put on gloves, oil them",
        always("Thin gloves with a drop of oil: hot dough does not stick to them."),
        1,
        comes_after=("stir", "fold", "fold-pan", "work-oil", "pound"),
    ),
    CommonStep(
        "wet-cloth",
        "Cover with a damp cloth",
        always("What waits dries at the edge and cracks."),
        1,
        in_vessel=True,
        tools=("damp cloth",),
        comes_after=("divide", "portion"),
    ),
    CommonStep(
        "wrap-to-keep",
        "Wrap for keeping",
        always("Each piece by itself, without air; write the day on it."),
        3,
        per_piece=0.25,
        in_vessel=True,
        tools=("film or paper", "pen"),
        comes_after=("cut", "cut-rounds", "wrap", "shape", "snip", "close"),
    ),
    CommonStep(
        "pack",
        "Pack as a present",
        always("Each in its own paper, so many to a box, none on top of another."),
        5,
        per_piece=0.4,
        in_vessel=True,
        tools=("boxes", "paper cups"),
        comes_after=("cut", "cut-rounds", "wrap", "shape", "snip", "close"),
    ),
)

COMMON_STEPS: Mapping[str, CommonStep] = {step.id: step for step in _STEPS}
