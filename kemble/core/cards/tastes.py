"""The scales of taste: just-about-right, two ends and the middle. Each stands here once; a way names those it asks."""

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
]


@dataclass(frozen=True, slots=True)
class Scale:
    """What is said at its two ends; the middle is "just right"."""

    too_little: str
    too_much: str


SCALES: Mapping[TasteId, Scale] = {
    "softness": Scale("too firm", "too soft"),
    "sweetness": Scale("not sweet enough", "too sweet"),
    "chew": Scale("too short", "too chewy"),
    "richness": Scale("too lean", "too rich"),
    "skin": Scale("skin too thin", "skin too thick"),
    "paste": Scale("too little paste", "too much paste"),
    "filling": Scale("too little filling", "too much filling"),
    "fragrance": Scale("too plain", "too much of the oil"),
    "grind": Scale("too coarse", "too fine"),
    "seasoning": Scale("too plain", "too strong"),
    "smoothness": Scale("too grainy", "too smooth"),
}
