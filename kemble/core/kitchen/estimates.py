"""The table of estimates: values that nobody knows exactly, each with a range and what would narrow it.

Every row is a kitchen estimate unless its source says otherwise. `low` and `high` are where one in twenty lies below and
one in twenty above. A kitchen may hold a value and a range of its own for any of them (`Kitchen.estimates`).
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Literal, get_args

EstimateId = Literal[
    "burner",
    "float_share",
    "tap_c",
    "boil_h",
    "dip_share",
    "hot_c",
    "cooker_gives",
    "cooker_gently_min",
    "microwave_gives",
    "still_air_h",
    "pan_work_min",
    "burst_out_min",
    "gather_loss",
    "clears_loss",
    "caramel_takes",
    "caramel_least_min",
    "melt_takes",
    "melt_least_min",
    "bath_c",
    "thicken_takes",
    "thicken_min",
    "boil_off",
    "beans",
    "beans_soaked",
    "beans_lid",
    "lid_w",
    "leak_ml_s",
    "steam_h",
    "foil_h",
    "clear_min",
    "colour_min",
    "machine_gives",
    "look_s",
    "shut_h",
    "shut_min",
    "wall_h",
    "top_mm",
    "fierce_g_min",
    "weak_g_min",
    "oven_c",
    "oven_h",
    "drying",
    "firm_c",
    "golden_min",
    "tin_j",
    "sugared_top",
    "bare_loss",
    "dries_mm",
    "risen_deep",
    "risen_k",
    "skin_kg_m2",
    "glaze_min",
    "door_min",
    "conductivity",
    "gel_c",
    "start_c",
    "depth",
    "size",
    "batter_rest_min",
    "whole_gives",
    "scald_cooks",
    "scald_takes",
    "poured_c",
    "leaf_h",
    "grain_needs",
    "tight",
    "swell_share",
    "packed_g_ml",
    "edge",
    "ground_min",
    "bed_mm",
    "simmer_least_min",
    "ahead_share",
    "bed_g_ml",
    "bed_most_mm",
    "lid_lost",
    "drinks_pct",
    "pot_holds_pct",
    "uptake",
    "cling_pct",
    "pound_takes",
    "pound_h",
    "pound_c",
    "rope",
    "disc",
    "packet_mm",
    "foil_swell",
    "foil_fold_mm",
    "rigid_h",
    "firm_share",
    "counter_h",
    "shelf_h",
    "room_c",
    "fridge_c",
    "freezer_c",
    "cuts_c",
    "rolled_c",
    "soft_c",
    "board_cm2",
    "covered_min",
    "change_min",
    "hard",
    "touch_c",
    "hands_wet_c",
    "hands_oil_c",
    "gloves_c",
    "ends_c",
    "hand_work",
    "pan_c",
    "pan_h",
    "crust_kg_m2",
    "gold_min",
    "under_crust_c",
]
Measurement = Literal["kettle", "oven", "oven-tin", "steam", "depth", "warmth", "scale", "taste", "manner", "log"]
Shape = Literal["log", "plain"]
About = Literal["stove", "steam", "oven", "batter", "grain", "rest", "hands", "finish"]

_EDGE = 1.6449  # how many standard deviations lie between the middle and where one in twenty begins


@dataclass(frozen=True, slots=True)
class Estimate:
    """One row. `shape` "log": its logarithm is normal, it cannot be negative; "plain": it is normal itself. `narrows` is
    the measurement that settles it, `after` how much of its range is left then."""

    about: About
    words: str
    value: float
    low: float
    high: float
    unit: str
    moves: str
    shape: Shape = "log"
    narrows: Measurement | None = None
    after: float = 1.0
    bends: bool = False  # what it moves bends so that one end says little of the other

    def at(self, z: float) -> float:
        """Its value when it is so many standard deviations off: each side has its own, where they differ."""
        end, share = (self.high if z > 0 else self.low), abs(z) / _EDGE
        if self.shape == "log":
            return self.value * math.exp(share * math.log(end / self.value))
        return self.value + share * (end - self.value)

    def within(self, value: float, low: float, high: float) -> Estimate:
        """The same row as a kitchen holds it."""
        return replace(self, value=value, low=low, high=high)


ESTIMATES: Mapping[EstimateId, Estimate] = {
    "burner": Estimate(
        "stove", "the burner's power", 1.0, 0.75, 1.33, "x", "all that boils or steams", "log", "kettle", 0.2
    ),
    "float_share": Estimate(
        "stove", "how much has swelled when it floats", 0.85, 0.7, 0.95, "of the dough", "balls", "plain"
    ),
    "tap_c": Estimate("stove", "water from the tap", 15.0, 8.0, 22.0, "°C", "pots that come to the boil", "plain"),
    "boil_h": Estimate(
        "stove", "how boiling water gives its heat", 1000.0, 600.0, 1500.0, "W/m²K", "balls in their pot"
    ),
    "dip_share": Estimate(
        "stove",
        "heat that a load takes before the burner answers",
        0.5,
        0.3,
        0.7,
        "of it",
        "balls in their pot",
        "plain",
    ),
    "hot_c": Estimate("stove", "where a heart is called hot", 72.0, 68.0, 76.0, "°C", "hot at the heart", "plain"),
    "cooker_gives": Estimate(
        "stove",
        "power that a rice cooker puts into its pot",
        0.85,
        0.75,
        0.92,
        "of its rating",
        "grain in a cooker",
        "plain",
    ),
    "cooker_gently_min": Estimate(
        "stove", "how long a cooker warms gently first", 2.0, 0.0, 12.0, "min", "grain in a cooker", "plain"
    ),
    "microwave_gives": Estimate(
        "stove",
        "power that a microwave oven puts into food",
        0.6,
        0.5,
        0.7,
        "of its rating",
        "dough in bursts",
        "plain",
    ),
    "still_air_h": Estimate(
        "stove", "how air takes vapour from a stirred pan", 7.5, 5.0, 10.0, "W/m²K", "stirred pans"
    ),
    "pan_work_min": Estimate(
        "stove", "stirring on, until it is one mass", 1.5, 0.7, 3.0, "min", "stirred pans", "log", "manner", 0.6
    ),
    "burst_out_min": Estimate(
        "stove", "out of the oven to be stirred", 0.4, 0.25, 0.7, "min a burst", "dough in bursts"
    ),
    "gather_loss": Estimate(
        "stove", "what rice gives up until it gathers in its syrup", 0.06, 0.04, 0.09, "of its weight", "rice in syrup"
    ),
    "clears_loss": Estimate(
        "stove", "what a stirred dough gives up until it clears", 1.0, 0.7, 1.4, "x its way's least", "stirred pans"
    ),
    "caramel_takes": Estimate(
        "stove", "power that a dry pan of sugar takes", 0.33, 0.22, 0.45, "of the burner", "caramel"
    ),
    "caramel_least_min": Estimate("stove", "the least that sugar takes to amber", 4.0, 3.0, 6.0, "min", "caramel"),
    "melt_takes": Estimate(
        "stove", "power that goes into what melts", 0.7, 0.5, 0.85, "of the burner", "sugar and butter melted"
    ),
    "melt_least_min": Estimate(
        "stove", "the least that melting takes", 3.0, 2.0, 5.0, "min", "sugar and butter melted"
    ),
    "bath_c": Estimate(
        "stove", "how warm a syrup is that feels like a hot bath", 43.0, 40.0, 47.0, "°C", "syrup cooled", "plain"
    ),
    "thicken_takes": Estimate(
        "stove", "power that goes into a paste under the spoon", 0.6, 0.4, 0.8, "of the burner", "thickening"
    ),
    "thicken_min": Estimate("stove", "stirred on once it has thickened", 1.5, 0.6, 5.0, "min", "thickening"),
    "boil_off": Estimate(
        "stove", "how freely a pan lets water go", 1.0, 0.72, 1.33, "x", "syrup and paste boiled down"
    ),
    "beans": Estimate("stove", "how old and hard the beans are", 1.0, 0.76, 1.32, "x", "beans to soft"),
    "beans_soaked": Estimate(
        "stove", "what a night's soak leaves of that", 0.68, 0.55, 0.8, "x", "beans to soft", "plain"
    ),
    "beans_lid": Estimate(
        "stove", "what a lid that is never lifted leaves of it", 0.92, 0.85, 0.98, "x", "beans to soft", "plain"
    ),
    "lid_w": Estimate("steam", "what lid and wall lose", 130.0, 60.0, 230.0, "W", "steam left for the cake"),
    "leak_ml_s": Estimate(
        "steam",
        "air that comes in past the lid",
        20.0,
        8.0,
        50.0,
        "ml/s",
        "how hot the steam is",
        "log",
        "steam",
        0.4,
        bends=True,
    ),
    "steam_h": Estimate(
        "steam", "how steam gives its heat", 800.0, 450.0, 1450.0, "W/m²K", "tins and packets in steam"
    ),
    "foil_h": Estimate("steam", "heat through a cover of foil", 55.0, 35.0, 90.0, "W/m²K", "covered tins"),
    "clear_min": Estimate(
        "steam",
        "time at heat until it is clear and chewy",
        15.0,
        10.0,
        22.0,
        "min at heat",
        "steamed batter",
        "log",
        "taste",
        0.6,
    ),
    "colour_min": Estimate(
        "steam",
        "time at heat until it is brown",
        65.0,
        45.0,
        95.0,
        "min at heat",
        "the long school",
        "log",
        "taste",
        0.6,
    ),
    "machine_gives": Estimate(
        "steam",
        "power of a steamer's own machine that makes steam",
        0.92,
        0.85,
        0.97,
        "of its rating",
        "steam",
        "plain",
    ),
    "look_s": Estimate("steam", "how long the lid is up for a look", 20.0, 10.0, 40.0, "s", "a lifted lid"),
    "shut_h": Estimate("steam", "how a shut pot cools", 9.0, 7.0, 12.0, "W/m²K", "what stands with the heat off"),
    "shut_min": Estimate(
        "steam",
        "how slowly a shut steamer cools",
        25.0,
        15.0,
        40.0,
        "min to a factor e",
        "what stands with the heat off",
    ),
    "wall_h": Estimate("steam", "heat through glass, clay, paper and leaf", 1.0, 0.75, 1.33, "x", "tins"),
    "top_mm": Estimate(
        "steam", "how deep a top must set before drops mark it no more", 4.0, 3.0, 6.0, "mm", "when the top sets"
    ),
    "fierce_g_min": Estimate("steam", "steam that creases an open top", 24.0, 19.0, 30.0, "g/min", "how the top looks"),
    "weak_g_min": Estimate("steam", "steam too weak for a rim", 8.0, 6.0, 10.5, "g/min", "how the rim looks"),
    "oven_c": Estimate(
        "oven", "what the oven is off its dial", 0.0, -12.0, 12.0, "°C off", "bakes", "plain", "oven", 0.25
    ),
    "oven_h": Estimate(
        "oven", "how the oven gives its heat", 23.0, 18.0, 29.0, "W/m²K", "bakes", "log", "oven-tin", 0.3
    ),
    "drying": Estimate("oven", "how freely a thick batter dries", 0.1, 0.065, 0.155, "of open water", "bakes"),
    "firm_c": Estimate("oven", "where egg and starch spring back", 95.0, 92.0, 97.5, "°C", "bakes", "plain"),
    "golden_min": Estimate(
        "oven", "browning until it is called golden", 5.0, 3.4, 7.4, "min browning", "bakes", "log", "taste", 0.6
    ),
    "tin_j": Estimate("oven", "heat that the tin itself takes", 1.0, 0.75, 1.33, "x", "bakes, steamed tins"),
    "sugared_top": Estimate(
        "oven",
        "browning that a top under syrup wants",
        0.55,
        0.4,
        0.7,
        "of a plain one's",
        "tray rice",
        "log",
        "taste",
        0.6,
    ),
    "bare_loss": Estimate(
        "oven", "what rice baked bare gives up", 0.13, 0.09, 0.18, "of its weight", "tray rice baked bare"
    ),
    "dries_mm": Estimate(
        "oven", "depth from which a tray dries at its faces only", 22.0, 17.0, 28.0, "mm", "deep bakes"
    ),
    "risen_deep": Estimate("oven", "how much a leavened batter rises", 1.25, 1.1, 1.42, "x", "leavened bakes"),
    "risen_k": Estimate("oven", "how a risen crumb conducts", 0.72, 0.6, 0.86, "x", "leavened bakes"),
    "skin_kg_m2": Estimate(
        "oven", "water that a top gives up until it has a skin", 0.55, 0.35, 0.85, "kg/m²", "when a glaze stays on"
    ),
    "glaze_min": Estimate("oven", "what a brushed glaze takes to set", 8.0, 5.0, 12.0, "min", "when a glaze goes on"),
    "door_min": Estimate(
        "oven", "how long the oven is short after a look", 5.0, 2.5, 10.0, "min to a factor e", "a look into the oven"
    ),
    "conductivity": Estimate("batter", "how well the batter conducts", 1.0, 0.92, 1.09, "x", "everything with a heart"),
    "gel_c": Estimate("batter", "where this starch gels", 0.0, -4.0, 4.0, "°C off", "set", "plain"),
    "start_c": Estimate(
        "batter", "how warm it goes in", 0.0, -5.0, 5.0, "°C off", "everything that is heated", "plain", "warmth", 0.2
    ),
    "depth": Estimate("batter", "how deep it really stands", 1.0, 0.92, 1.09, "x", "tins", "log", "depth", 0.25),
    "size": Estimate(
        "batter", "how alike the pieces are", 1.0, 0.94, 1.065, "x", "balls and packets", "log", "scale", 0.4
    ),
    "batter_rest_min": Estimate("batter", "how long a batter rests", 20.0, 10.0, 60.0, "min", "a batter's rest"),
    "whole_gives": Estimate(
        "batter", "water that what stays whole gives up", 0.1, 0.03, 0.25, "of it", "dough with pieces in it"
    ),
    "scald_cooks": Estimate("batter", "flour that boiling water cooks", 0.9, 0.6, 1.3, "g/g", "scalding"),
    "scald_takes": Estimate("batter", "water that what is scalded takes more", 1.0, 0.5, 1.5, "x", "scalding"),
    "poured_c": Estimate("batter", "what the kettle's water loses on its way", 4.0, 2.0, 8.0, "°C", "scalding"),
    "leaf_h": Estimate(
        "grain", "heat through a wet leaf", 1.0, 0.65, 1.5, "x", "parcels and packets", "log", "manner", 0.75
    ),
    "grain_needs": Estimate("grain", "time at heat of this grain", 1.0, 0.8, 1.28, "x", "grain", "log", "taste", 0.6),
    "tight": Estimate("grain", "how slowly a tight parcel drinks", 3.0, 2.2, 4.0, "x", "parcels", "log", "manner", 0.6),
    "swell_share": Estimate("grain", "how full a parcel is folded", 0.88, 0.8, 0.95, "of it", "leaves", "plain"),
    "packed_g_ml": Estimate("grain", "how close soaked grain is pressed", 0.95, 0.85, 1.05, "g/ml", "leaves"),
    "edge": Estimate("grain", "how large a parcel its leaves fold", 1.0, 0.9, 1.1, "x", "leaves"),
    "ground_min": Estimate(
        "grain", "time at heat of ground grain", 10.0, 6.0, 15.0, "min at heat", "packets", "log", "taste", 0.6
    ),
    "bed_mm": Estimate("grain", "how much of the steam goes past the grains", 1.25, 0.94, 1.69, "x", "steamed grain"),
    "simmer_least_min": Estimate(
        "grain", "how long grain drinks what is poured on", 8.0, 6.0, 11.0, "min", "grain under a lid"
    ),
    "ahead_share": Estimate(
        "grain", "how far grain is cooked ahead of its syrup", 0.8, 0.7, 0.9, "of done", "tray rice", "plain"
    ),
    "bed_g_ml": Estimate("grain", "how loosely soaked grain lies", 0.72, 0.65, 0.8, "g/ml", "how deep a bed is"),
    "bed_most_mm": Estimate(
        "grain", "depth that steam still comes through evenly", 60.0, 50.0, 80.0, "mm", "tiers and loads"
    ),
    "lid_lost": Estimate("grain", "what leaves under a lid", 1.0, 0.6, 1.4, "x", "whether all the water is taken up"),
    "pot_holds_pct": Estimate(
        "grain",
        "what soft grain in a pot can hold",
        150.0,
        125.0,
        180.0,
        "% of the dry",
        "whether all the water is taken up",
    ),
    "drinks_pct": Estimate(
        "grain", "what grain boiled long in its parcel holds", 105.0, 90.0, 120.0, "% of the dry", "parcels"
    ),
    "uptake": Estimate("grain", "what grain takes up in a soak", 1.0, 0.85, 1.15, "x", "soaked weight"),
    "cling_pct": Estimate(
        "grain", "water that clings to drained grain", 10.0, 6.0, 14.0, "% of the dry", "soaked weight"
    ),
    "pound_takes": Estimate("grain", "how long pounding takes", 1.0, 0.7, 1.4, "x", "pounding"),
    "pound_h": Estimate("grain", "how fast a pounded lump cools", 1.0, 0.67, 1.55, "x", "pounding"),
    "pound_c": Estimate("grain", "where grains no longer close", 60.0, 56.0, 64.0, "°C", "pounding", "plain"),
    "rope": Estimate("hands", "how thick a rope is rolled", 0.72, 0.6, 0.85, "of the ball", "ropes and their cuts"),
    "disc": Estimate("hands", "how thin a disc is pressed", 0.85, 0.72, 0.98, "of its skin", "discs and cutters"),
    "packet_mm": Estimate("hands", "how thick a packet is folded", 18.0, 12.0, 25.0, "mm", "packets"),
    "foil_swell": Estimate("hands", "room that foil leaves to swell", 1.1, 1.04, 1.18, "x", "foil"),
    "foil_fold_mm": Estimate("hands", "foil that a seam takes", 30.0, 22.0, 40.0, "mm", "foil"),
    "rigid_h": Estimate("rest", "how long a sheet takes to be rigid", 20.0, 12.0, 48.0, "h", "setting"),
    "firm_share": Estimate(
        "rest", "of the time until it is hard, when it slices", 0.42, 0.25, 0.85, "x", "slices for the pan"
    ),
    "counter_h": Estimate("rest", "how fast it cools on a counter", 11.0, 8.0, 14.0, "W/m²K", "cooling"),
    "shelf_h": Estimate("rest", "how fast it cools in the cold", 9.0, 6.0, 12.0, "W/m²K", "chilling and freezing"),
    "room_c": Estimate("rest", "what the room is off", 0.0, -2.5, 2.5, "°C off", "cooling", "plain"),
    "fridge_c": Estimate("rest", "what the fridge is off", 0.0, -2.0, 2.0, "°C off", "chilling", "plain"),
    "freezer_c": Estimate("rest", "what the freezer is off", 0.0, -3.0, 3.0, "°C off", "freezing", "plain"),
    "cuts_c": Estimate(
        "rest", "where a cake parts from the knife", 0.0, -3.0, 3.0, "°C off", "when it is cut", "plain"
    ),
    "rolled_c": Estimate("rest", "where a rolled sheet can be cut", 16.0, 12.0, 20.0, "°C", "a sheet chilled", "plain"),
    "soft_c": Estimate("rest", "where a frozen filling gives", -6.0, -8.0, -4.0, "°C", "fillings taken out", "plain"),
    "board_cm2": Estimate(
        "rest", "room that a mass is laid out on", 900.0, 650.0, 1250.0, "cm²", "the window for the hands"
    ),
    "covered_min": Estimate(
        "rest", "how slowly a covered load cools", 75.0, 50.0, 110.0, "min to a factor e", "what waits"
    ),
    "change_min": Estimate("rest", "what it takes to change loads", 3.0, 2.0, 5.0, "min", "loads"),
    "hard": Estimate("rest", "how soon it turns hard", 1.0, 0.6, 1.6, "x", "keeping"),
    "touch_c": Estimate(
        "hands", "what quick, dusted hands bear", 60.0, 56.0, 64.0, "°C at the skin", "working it warm", "plain"
    ),
    "hands_wet_c": Estimate("hands", "what wet hands bear less", 5.0, 2.0, 8.0, "°C", "working it warm", "plain"),
    "hands_oil_c": Estimate("hands", "what oiled hands bear less", 4.0, 2.0, 7.0, "°C", "working it warm", "plain"),
    "gloves_c": Estimate("hands", "what gloves and tools bear more", 6.0, 3.0, 10.0, "°C", "working it warm", "plain"),
    "ends_c": Estimate(
        "hands", "where a mass no longer seals", 0.0, -4.0, 4.0, "°C off", "the window for the hands", "plain"
    ),
    "hand_work": Estimate("hands", "how quick the hands are", 1.0, 0.7, 1.45, "x", "shaping"),
    "pan_c": Estimate(
        "finish", "what a pan or a rack is off", 0.0, -20.0, 20.0, "°C off", "frying and toasting", "plain"
    ),
    "pan_h": Estimate("finish", "how a pan or the glow gives its heat", 1.0, 0.72, 1.38, "x", "frying and toasting"),
    "crust_kg_m2": Estimate(
        "finish", "water that a face gives up until it is crisp", 0.3, 0.2, 0.45, "kg/m²", "frying"
    ),
    "gold_min": Estimate("finish", "from crisp to gold", 0.8, 0.4, 1.6, "min a face", "frying"),
    "under_crust_c": Estimate(
        "finish", "what a wet inside under a crust has over the boil", 8.0, 4.0, 14.0, "°C", "frying"
    ),
}
assert set(ESTIMATES) == set(get_args(EstimateId))

# What is another with every making (how deep it was really filled, how warm it went in): that is chance, and no making
# says anything of the next one's. All else is the kitchen's, its stuff's or its cooks' own, and can be learned.
ANEW: frozenset[EstimateId] = frozenset({"depth", "size", "start_c", "poured_c", "door_min", "look_s", "dip_share"})

# What settles some of it: what is done, and how long that takes.
MEASUREMENTS: Mapping[Measurement, tuple[str, float]] = {
    "kettle": ("time one kettle", 5.0),
    "oven": ("put a thermometer in the oven", 20.0),
    "oven-tin": ("warm a tin of water in the oven", 15.0),
    "steam": ("put a thermometer in the steam", 5.0),
    "depth": ("measure the depth with a stick", 1.0),
    "warmth": ("put a thermometer in what goes in", 1.0),
    "scale": ("weigh out every piece", 5.0),
    "taste": ("say how you like it", 0.0),
    "manner": ("say how you do it", 0.0),
    "log": ("log three makings", 0.0),
}

# How cooks like what is called done, or do what is theirs to do, and the likely value that goes with it (kitchen
# estimates, each inside its row). Whoever says which narrows the row.
TASTES: Mapping[EstimateId, tuple[tuple[str, float], ...]] = {
    "clear_min": (("just clear, with a bite", 11.0), ("clear and chewy", 15.0), ("soft through", 20.0)),
    "colour_min": (("like weak tea", 50.0), ("brown", 65.0), ("dark", 85.0)),
    "golden_min": (("pale gold", 3.7), ("golden", 5.0), ("deep gold", 6.8)),
    "sugared_top": (("where it bubbles", 0.45), ("brown all over", 0.55), ("dark at the edge", 0.67)),
    "grain_needs": (("with a bite", 0.84), ("soft", 1.0), ("very soft", 1.2)),
    "ground_min": (("just set", 7.3), ("set and springy", 10.0), ("soft through", 13.5)),
    "tight": (("loose, with room to swell", 2.5), ("snug", 3.0), ("tied hard", 3.6)),
    "leaf_h": (("three leaves thick", 0.78), ("leaves overlapped", 1.0), ("one leaf, drawn tight", 1.25)),
    "pan_work_min": (("a few turns", 0.9), ("until it is one mass", 1.5), ("worked long", 2.4)),
}
