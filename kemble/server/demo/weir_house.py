"""Weir House: its kitchen, its sheets, and what its cooks note. Its amounts are its own, from the ways' bands."""

from __future__ import annotations

from typing import Any

from kemble.core.kitchen.document import Kitchen
from kemble.server.web.time_zone import local_zone


def _line_document(ingredient: str, value: float, unit: str = "g", **more: Any) -> dict[str, Any]:
    return {"ingredient": ingredient, "amount": {"value": value, "unit": unit}, **more}


def _part_document(role: str, name: str, *lines: dict[str, Any], **more: Any) -> dict[str, Any]:
    return {"role": role, "name": name, "lines": list(lines), **more}


SHEETS: tuple[dict[str, Any], ...] = (
    {
        "title": "Black tea and orange cake",
        "way": "set-cake",
        "parts": [
            _part_document(
                "base",
                "batter",
                _line_document("sweet-rice-flour", 300),
                _line_document("black-tea", 390, "ml"),
                _line_document("dark-slab-sugar", 255),
                _line_document("sunflower-oil", 18),
                _line_document("orange-rind", 1, "piece"),
                _line_document("salt", 1),
            )
        ],
        "vessel": {"tin": {"name": "the blue tin", "shape": "round", "diameter_mm": 180, "height_mm": 60}},
        "start": {"batter_c": 48},
    },
    {
        "title": "Walnut and date balls",
        "way": "boiled-balls",
        "parts": [
            _part_document(
                "base",
                "dough",
                _line_document("sweet-rice-flour", 260),
                _line_document(
                    "water",
                    208,
                    "ml",
                    splits=[{"share": 0.35, "at": "boiling"}, {"share": 0.65, "at": "cool"}],
                ),
            ),
            _part_document(
                "filling",
                "walnut and date",
                _line_document("walnut", 96),
                _line_document("date", 98),
                _line_document("butter", 22),
            ),
            _part_document(
                "broth", "pear broth", _line_document("pear-juice", 900, "ml"), _line_document("ginger", 24)
            ),
        ],
        "pieces": {"dough_g": 18, "filling_g": 9},
    },
    {
        "title": "Barley-malt and pumpkin seed cake",
        "way": "set-cake",
        "schools": {"cover": "covered", "rest": "chill"},
        "parts": [
            _part_document(
                "base",
                "batter",
                _line_document("sweet-rice-flour", 270),
                _line_document("water", 300, "ml"),
                _line_document("barley-malt", 80),
                _line_document("light-brown-sugar", 140),
                _line_document("hazelnut-oil", 11),
                _line_document("pumpkin-seed", 30),
                _line_document("salt", 1.5),
            )
        ],
        "vessel": {
            "tin": {
                "name": "the glass dish",
                "shape": "oblong",
                "length_mm": 190,
                "width_mm": 140,
                "height_mm": 55,
                "material": "glass",
            }
        },
        "cut": {"pieces": 24},
    },
    {
        "title": "Pistachio and lemon balls",
        "way": "boiled-balls",
        "schools": {"dough": "cool", "start": "chilled"},
        "parts": [
            _part_document(
                "base",
                "dough",
                _line_document("sweet-rice-flour", 230),
                _line_document("water", 186, "ml"),
                _line_document("sunflower-oil", 6),
            ),
            _part_document(
                "filling",
                "pistachio and lemon",
                _line_document("pistachio", 92),
                _line_document("white-sugar", 58),
                _line_document("butter", 48),
                _line_document("lemon-rind", 1, "piece"),
            ),
        ],
        "pieces": {"dough_g": 16, "filling_g": 7.5},
    },
    {
        "title": "Quince cake",
        "way": "set-cake",
        "schools": {"rest": "overnight"},
        "parts": [
            _part_document(
                "base",
                "batter",
                _line_document("sweet-rice-flour", 320),
                _line_document("apple-juice", 390, "ml"),
                _line_document("quince-paste", 130),
                _line_document("white-sugar", 110),
                _line_document("coconut-oil", 16),
                _line_document("lemon-rind", 1, "piece"),
            )
        ],
        "vessel": {
            "tin": {"name": "the wide tin", "shape": "round", "diameter_mm": 200, "height_mm": 60},
            "more": [
                {"tin": {"name": "the loaf tin", "shape": "oblong", "length_mm": 150, "width_mm": 75}, "count": 1}
            ],
        },
        "cut": {"pattern": "rings", "pieces": 24},
        "method": [
            {
                "step": "rest-batter",
                "minutes": 15,
                "by": "my aunt",
                "words": "Fifteen minutes, no more, or it settles.",
            },
            {"own": "own-lid", "title": "Tie the lid into its cloth", "minutes": 2, "at": "", "before": "raise-steam"},
            {"own": "own-turn-out", "common": "turn-out", "after": "cool"},
        ],
    },
    {
        "title": "Poppy seed and buckwheat honey balls",
        "way": "boiled-balls",
        "parts": [
            _part_document(
                "base",
                "dough",
                _line_document("sweet-rice-flour", 240),
                _line_document("water", 190, "ml"),
            ),
            _part_document(
                "filling",
                "poppy seed and honey",
                _line_document("poppy-seed", 92),
                _line_document("buckwheat-honey", 58),
                _line_document("butter", 50),
            ),
        ],
        "pieces": {"dough_g": 17, "filling_g": 8},
    },
    {
        "title": "Squash rounds with chestnut",
        "way": "stirred-rounds",
        "schools": {"cook": "steam"},
        "parts": [
            _part_document(
                "base",
                "dough",
                _line_document("sweet-rice-flour", 220),
                _line_document("squash-puree", 130),
                _line_document("water", 150, "ml"),
                _line_document("light-brown-sugar", 64),
                _line_document("salt", 1),
            ),
            _part_document(
                "filling",
                "chestnut and white bean",
                _line_document("white-bean", 140),
                _line_document("water", 480, "ml"),
                _line_document("white-sugar", 96),
                _line_document("chestnut-puree", 60),
                _line_document("salt", 1),
                family="bean-paste",
                pan="the wide pan",
            ),
            _part_document(
                "heart", "roast chestnut", _line_document("chestnut-cooked", 17, "piece"), schools={"ready": "roasted"}
            ),
            _part_document("coat", "starch", _line_document("potato-starch", 60)),
        ],
        "pieces": {"dough_g": 32, "filling_g": 30},
    },
    {
        "title": "Hazelnut pulls",
        "way": "folded-pulls",
        "parts": [
            _part_document(
                "base",
                "batter",
                _line_document("sweet-rice-flour", 210),
                _line_document("water", 308, "ml"),
                _line_document("hazelnut-oil", 32),
                _line_document("buckwheat-honey", 16),
                _line_document("salt", 1),
            ),
            _part_document(
                "coat",
                "sweet hazelnut",
                _line_document("hazelnut", 120),
                _line_document("light-brown-sugar", 64),
                each_g=3,
            ),
        ],
        "pieces": {"dough_g": 9},
    },
    {
        "title": "Buckwheat honey and squash bake",
        "way": "batter-bake",
        "schools": {"rest": "chill", "lining": "crust"},
        "parts": [
            _part_document(
                "base",
                "batter",
                _line_document("sweet-rice-flour", 240),
                _line_document("milk", 240, "ml"),
                _line_document("squash-puree", 130),
                _line_document("egg", 2, "piece"),
                _line_document("butter", 85),
                _line_document("light-brown-sugar", 130),
                _line_document("buckwheat-honey", 70),
                _line_document("salt", 2),
            ),
            _part_document("crust", "sugar crust", _line_document("light-brown-sugar", 24)),
            _part_document("topping", "hazelnuts", _line_document("hazelnut", 40)),
        ],
        "vessel": {
            "tin": {
                "name": "the square tin",
                "shape": "oblong",
                "length_mm": 200,
                "width_mm": 200,
                "height_mm": 50,
            }
        },
        "cut": {"pieces": 25},
    },
    {
        "title": "Pounded grain in pumpkin seed",
        "way": "pounded",
        "parts": [
            _part_document(
                "base",
                "grain",
                _line_document("sweet-rice", 480),
                _line_document("water", 14, "ml"),
                _line_document("white-sugar", 12),
            ),
            _part_document(
                "coat",
                "pumpkin seed",
                _line_document("pumpkin-seed", 90),
                _line_document("light-brown-sugar", 36),
                each_g=6,
            ),
        ],
        "grain": {"rinses": 3, "soak_min": 660, "soak_c": 9, "drain_min": 45},
        "pieces": {"dough_g": 38},
    },
    {
        "title": "Half-crushed balls in white bean",
        "way": "crushed-balls",
        "parts": [
            _part_document(
                "base",
                "rice",
                _line_document("sweet-rice", 180),
                _line_document("plain-rice", 60),
                _line_document("water", 345, "ml"),
                _line_document("white-sugar", 15),
                _line_document("salt", 2),
            ),
            _part_document(
                "filling",
                "white bean paste",
                _line_document("white-bean", 226),
                _line_document("water", 760, "ml"),
                _line_document("white-sugar", 165),
                _line_document("lemon-rind", 1, "piece"),
                _line_document("salt", 1.5),
                family="bean-paste",
                pan="the wide pan",
            ),
        ],
        "grain": {"rinses": 3, "soak_min": 60, "soak_c": 16, "drain_min": 15},
        "pieces": {"dough_g": 27, "filling_g": 31},
    },
    {
        "title": "Quince tray rice",
        "way": "tray-rice",
        "parts": [
            _part_document(
                "base",
                "rice",
                _line_document("sweet-rice-long", 380),
                _line_document("coconut-milk-thin", 380, "ml"),
                _line_document("water", 190, "ml"),
                _line_document(
                    "light-brown-sugar",
                    180,
                    splits=[
                        {"share": 1 / 3, "at": "with the rice"},
                        {"share": 2 / 3, "at": "from the start", "to": "syrup"},
                    ],
                ),
                _line_document("salt", 3),
                takes=[{"of": "topping.oil", "amount": {"value": 1, "unit": "tbsp_metric"}, "joins": "fold"}],
            ),
            _part_document(
                "syrup",
                "coconut and quince syrup",
                _line_document(
                    "coconut-milk-thick",
                    300,
                    "ml",
                ),
                _line_document("quince-paste", 60),
                pan="the deep pan",
            ),
            _part_document(
                "topping",
                "curds",
                _line_document("coconut-milk-thick", 200, "ml"),
                family="coconut-curd",
                pan="the small pan",
            ),
            _part_document("glaze", "syrup to brush", takes=[{"of": "syrup", "amount": {"value": 45, "unit": "ml"}}]),
        ],
        "grain": {"rinses": 4, "soak_min": 90, "soak_c": 16, "drain_min": 30},
        "vessel": {
            "tin": {
                "name": "the long tray",
                "shape": "oblong",
                "length_mm": 260,
                "width_mm": 190,
                "height_mm": 45,
            }
        },
        "cut": {"pieces": 28},
    },
    {
        "title": "Chestnut and mushroom parcels",
        "way": "leaf-parcels",
        "parts": [
            _part_document(
                "base",
                "grain",
                _line_document("sweet-rice", 460),
                _line_document("walnut-oil", 18),
                _line_document("soy-sauce", 14),
                _line_document("salt", 4),
            ),
            _part_document(
                "filling",
                "chestnut and mushroom",
                _line_document("chestnut-cooked", 150),
                _line_document("mushroom-dried", 16),
                _line_document("shallot", 2, "piece"),
            ),
            _part_document(
                "wrapper",
                "leaves",
                _line_document("bamboo-leaf", 26, "piece"),
                _line_document("kitchen-string", 12, "piece"),
            ),
        ],
        "grain": {"rinses": 2, "soak_min": 210, "soak_c": 16, "drain_min": 30},
        "pieces": {"dough_g": 60},
    },
    {
        "title": "Barley-malt packets",
        "way": "ground-packets",
        "schools": {"finish": "griddle"},
        "parts": [
            _part_document(
                "base",
                "mass",
                _line_document("sweet-rice", 280),
                _line_document("soybean", 58),
                _line_document("water", 425, "ml"),
                _line_document("barley-malt", 54),
                _line_document("salt", 2),
            ),
            _part_document(
                "wrapper",
                "leaf and foil",
                _line_document("banana-leaf", 12, "piece"),
                _line_document("kitchen-foil", 12, "piece"),
            ),
        ],
        "grain": {"rinses": 3, "soak_min": 300, "soak_c": 16, "drain_min": 60},
        "pieces": {"dough_g": 78},
    },
    {
        "title": "Pistachio and lemon rounds, cut with the ring",
        "way": "stirred-rounds",
        "schools": {"cook": "microwave", "wrap": "chill"},
        "parts": [
            _part_document(
                "base",
                "dough",
                _line_document("sweet-rice-flour", 260),
                _line_document("water", 310, "ml"),
                _line_document("white-sugar", 92),
                _line_document("lemon-rind", 1, "piece"),
            ),
            _part_document(
                "filling",
                "pistachio paste",
                _line_document("pistachio", 160),
                _line_document("white-sugar", 70),
                _line_document("butter", 60),
                _line_document("mild-honey", 44),
            ),
            _part_document("coat", "starch", _line_document("potato-starch", 70)),
        ],
        "pieces": {"skin_mm": 4.2, "filling_g": 19},
    },
    {
        "title": "Plain blocks for the freezer",
        "way": "pounded",
        "schools": {"finish": "block"},
        "parts": [
            _part_document("base", "grain", _line_document("sweet-rice", 620), _line_document("water", 20, "ml"))
        ],
        "grain": {"rinses": 4, "soak_min": 720, "soak_c": 8, "drain_min": 45},
        "bag": {"length_mm": 280, "width_mm": 210},
        "cut": {"pieces": 24, "small": 5},
    },
    {
        "title": "Aunt's tea cake, as she told it",
        "way": "set-cake",
        "parts": [
            _part_document(
                "base",
                "batter",
                _line_document("sweet-rice-flour", 2.5, "cup_metric"),
                _line_document("black-tea", 2, "cup_metric"),
                _line_document("dark-slab-sugar", 1.25, "cup_metric"),
                _line_document("sunflower-oil", 1, "tbsp_metric"),
                _line_document("salt", 1, "pinch"),
            )
        ],
        "vessel": {
            "tin": {"name": "her bowl", "shape": "round", "diameter_mm": 160, "height_mm": 80, "material": "ceramic"}
        },
        "method": [{"step": "heat", "minutes": 70, "by": "my aunt", "use": "ours"}],
    },
)

NOTES = (
    "Cut it small for the children's table.",
    "The steamer was crowded; two tins next time.",
    "Tea brewed twenty minutes: stronger is better.",
    "Good with the pear broth.",
    "The knife wanted more oil.",
    "Everyone asked for a corner.",
    "Dough rested longer than planned and wrapped the better for it.",
    "",
    "",
    "",
)


def weir_house() -> Kitchen:
    return Kitchen.model_validate(
        {
            "name": "Weir House",
            "altitude_m": 240,
            "room_c": 20,
            "cooks": 2,
            "burners": 4,
            "timezone": local_zone(),
            "tins": [sheet["vessel"]["tin"] for sheet in SHEETS if "vessel" in sheet],
            "own_cup_ml": 231,
            "weighed": [{"measure": "cup_own", "ingredient": "sweet-rice-flour", "grams": 126}],
            "pans": [
                {"name": "the wide pan", "empty_g": 1185, "across_mm": 280},
                {"name": "the deep pan", "empty_g": 1460, "across_mm": 220},
                {"name": "the small pan", "empty_g": 640, "across_mm": 160},
            ],
            "scoops": [{"name": "the small scoop", "ml": 12}, {"name": "the ice scoop", "ml": 34}],
            "stock": [
                {"ingredient": "sweet-rice-flour", "grams": 650},
                {"ingredient": "white-sugar", "grams": 800},
                {"ingredient": "light-brown-sugar", "grams": 120},
                {"ingredient": "salt", "grams": 400},
                {"ingredient": "potato-starch", "grams": 180},
            ],
            "steamers": [
                {"name": "the steamer", "diameter_mm": 260, "rack_mm": 38, "gap_mm": 10, "low_mm": 12, "tiers": 2},
                {"name": "the wide steamer", "diameter_mm": 340, "rack_mm": 52, "gap_mm": 12, "low_mm": 12, "tiers": 3},
            ],
            "pots": [
                {"name": "the boiling pot", "diameter_mm": 240, "water_ml": 3000},
                {"name": "the preserving pot", "diameter_mm": 320, "water_ml": 6500},
            ],
        }
    )
