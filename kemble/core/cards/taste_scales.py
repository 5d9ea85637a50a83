"""The scales of taste: just-about-right, two ends and the middle. Each stands here once; a way names those it asks of
everybody, and those that whoever has more to say may mark."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

TasteId = Literal[
    "softness",
    "sweetness",
    "chew",
    "richness",
    "skin",
    "paste",
    "filling",
    "fragrance",
    "grind",
    "seasoning",
    "smoothness",
    "stickiness",
    "salt",
    "surface",
    "colour",
    "scent",
    "heart",
    "warmth",
]


@dataclass(frozen=True, slots=True)
class TasteScale:
    """What is said at its two ends; the middle is "just right". `more` and `less`: what the craft does about too little
    and too much, where that is no matter of the ratios (kitchen rules)."""

    too_little: str
    too_much: str
    more: str = ""
    less: str = ""


SCALES: Mapping[TasteId, TasteScale] = {
    "softness": TasteScale("too firm", "too soft"),
    "sweetness": TasteScale("not sweet enough", "too sweet"),
    "chew": TasteScale("too short", "too chewy"),
    "richness": TasteScale("too lean", "too rich"),
    "skin": TasteScale("skin too thin", "skin too thick"),
    "paste": TasteScale("too little paste", "too much paste"),
    "filling": TasteScale("too little filling", "too much filling"),
    "fragrance": TasteScale("too plain", "too much of the oil"),
    "grind": TasteScale("too coarse", "too fine"),
    "seasoning": TasteScale("too plain", "too strong"),
    "smoothness": TasteScale("too grainy", "too smooth"),
    "stickiness": TasteScale("not sticky enough", "too sticky"),
    "salt": TasteScale("not salty enough", "too salty", "half as much salt again", "a third less salt"),
    "surface": TasteScale(
        "too dry outside",
        "too wet outside",
        "cover it sooner while it cools, and dust it thinner",
        "let the steam off before it is covered, and dry the lid",
    ),
    "colour": TasteScale(
        "too pale", "too dark", "longer at heat, or a darker sugar", "shorter at heat, or a lighter sugar"
    ),
    "scent": TasteScale(
        "smells of too little",
        "smells of too much",
        "stir the scent in last, off the heat",
        "half as much of the scent",
    ),
    "heart": TasteScale(
        "heart too firm",
        "heart too runny",
        "a minute or two longer in its heat",
        "freeze it harder before it is wrapped",
    ),
    "warmth": TasteScale(
        "too cold to eat", "too hot to eat", "warm the dishes, and serve it at once", "let it stand a little"
    ),
}
