"""Weir House: its kitchen, its sheets, and what its cooks note. Its amounts are its own, from the ways' bands."""

from __future__ import annotations

from typing import Any

from kemble.core.kitchen.document import Kitchen
from kemble.server.web.time_zone import local_zone


def _line(ingredient: str, value: float, unit: str = "g", **more: Any) -> dict[str, Any]:
    return {"ingredient": ingredient, "amount": {"value": value, "unit": unit}, **more}


def _part(role: str, name: str, *lines: dict[str, Any], **more: Any) -> dict[str, Any]:
    return {"role": role, "name": name, "lines": list(lines), **more}


SHEETS: tuple[dict[str, Any], ...] = (
    {
        "title": "Black tea and orange cake",
        "way": "set-cake",
        "parts": [
            _part(
                "base",
                "batter",
                _line("sweet-rice-flour", 300),
                _line("black-tea", 390, "ml"),
                _line("dark-slab-sugar", 255),
                _line("sunflower-oil", 18),
                _line("orange-rind", 1, "piece"),
                _line("salt", 1),
            )
        ],
        "vessel": {"tin": {"name": "the blue tin", "shape": "round", "diameter_mm": 180, "height_mm": 60}},
        "start": {"batter_c": 48},
    },
    {
        "title": "Walnut and date balls",
        "way": "boiled-balls",
        "parts": [
            _part(
                "base",
                "dough",
                _line("sweet-rice-flour", 260),
                _line(
                    "water",
                    208,
                    "ml",
                    splits=[{"share": 0.35, "at": "boiling"}, {"share": 0.65, "at": "cool"}],
                ),
            ),
            _part("filling", "walnut and date", _line("walnut", 96), _line("date", 98), _line("butter", 22)),
            _part("broth", "pear broth", _line("pear-juice", 900, "ml"), _line("ginger", 24)),
        ],
        "pieces": {"dough_g": 18, "filling_g": 9},
    },
    {
        "title": "Barley-malt and pumpkin seed cake",
        "way": "set-cake",
        "schools": {"cover": "covered", "rest": "chill"},
        "parts": [
            _part(
                "base",
                "batter",
                _line("sweet-rice-flour", 270),
                _line("water", 300, "ml"),
                _line("barley-malt", 80),
                _line("light-brown-sugar", 140),
                _line("hazelnut-oil", 11),
                _line("pumpkin-seed", 30),
                _line("salt", 1.5),
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
            _part(
                "base",
                "dough",
                _line("sweet-rice-flour", 230),
                _line("water", 186, "ml"),
                _line("sunflower-oil", 6),
            ),
            _part(
                "filling",
                "pistachio and lemon",
                _line("pistachio", 92),
                _line("white-sugar", 58),
                _line("butter", 48),
                _line("lemon-rind", 1, "piece"),
            ),
        ],
        "pieces": {"dough_g": 16, "filling_g": 7.5},
    },
    {
        "title": "Quince cake",
        "way": "set-cake",
        "schools": {"rest": "overnight"},
        "parts": [
            _part(
                "base",
                "batter",
                _line("sweet-rice-flour", 320),
                _line("apple-juice", 390, "ml"),
                _line("quince-paste", 130),
                _line("white-sugar", 110),
                _line("coconut-oil", 16),
                _line("lemon-rind", 1, "piece"),
            )
        ],
        "vessel": {
            "tin": {"name": "the wide tin", "shape": "round", "diameter_mm": 200, "height_mm": 60},
            "more": [
                {"tin": {"name": "the loaf tin", "shape": "oblong", "length_mm": 150, "width_mm": 75}, "count": 1}
            ],
        },
        "cut": {"pattern": "rings", "pieces": 24},
    },
    {
        "title": "Poppy seed and buckwheat honey balls",
        "way": "boiled-balls",
        "parts": [
            _part(
                "base",
                "dough",
                _line("sweet-rice-flour", 240),
                _line("water", 190, "ml"),
            ),
            _part(
                "filling",
                "poppy seed and honey",
                _line("poppy-seed", 92),
                _line("buckwheat-honey", 58),
                _line("butter", 50),
            ),
        ],
        "pieces": {"dough_g": 17, "filling_g": 8},
    },
    {
        "title": "Squash rounds with chestnut",
        "way": "stirred-rounds",
        "schools": {"cook": "steam"},
        "parts": [
            _part(
                "base",
                "dough",
                _line("sweet-rice-flour", 220),
                _line("squash-puree", 130),
                _line("water", 150, "ml"),
                _line("light-brown-sugar", 64),
                _line("salt", 1),
            ),
            _part(
                "filling",
                "chestnut and white bean",
                _line("white-bean", 140),
                _line("water", 480, "ml"),
                _line("white-sugar", 96),
                _line("chestnut-puree", 60),
                _line("salt", 1),
                family="bean-paste",
                pan="the wide pan",
            ),
            _part("heart", "roast chestnut", _line("chestnut-cooked", 17, "piece"), schools={"ready": "roasted"}),
            _part("coat", "starch", _line("potato-starch", 60)),
        ],
        "pieces": {"dough_g": 32, "filling_g": 30},
    },
    {
        "title": "Hazelnut pulls",
        "way": "folded-pulls",
        "parts": [
            _part(
                "base",
                "batter",
                _line("sweet-rice-flour", 210),
                _line("water", 308, "ml"),
                _line("hazelnut-oil", 32),
                _line("buckwheat-honey", 16),
                _line("salt", 1),
            ),
            _part("coat", "sweet hazelnut", _line("hazelnut", 120), _line("light-brown-sugar", 64), each_g=3),
        ],
        "pieces": {"dough_g": 9},
    },
    {
        "title": "Buckwheat honey and squash bake",
        "way": "batter-bake",
        "schools": {"rest": "chill", "lining": "crust"},
        "parts": [
            _part(
                "base",
                "batter",
                _line("sweet-rice-flour", 240),
                _line("milk", 240, "ml"),
                _line("squash-puree", 130),
                _line("egg", 2, "piece"),
                _line("butter", 85),
                _line("light-brown-sugar", 130),
                _line("buckwheat-honey", 70),
                _line("salt", 2),
            ),
            _part("crust", "sugar crust", _line("light-brown-sugar", 24)),
            _part("topping", "hazelnuts", _line("hazelnut", 40)),
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
            _part("base", "grain", _line("sweet-rice", 480), _line("water", 14, "ml"), _line("white-sugar", 12)),
            _part("coat", "pumpkin seed", _line("pumpkin-seed", 90), _line("light-brown-sugar", 36), each_g=6),
        ],
        "grain": {"rinses": 3, "soak_min": 660, "soak_c": 9, "drain_min": 45},
        "pieces": {"dough_g": 38},
    },
    {
        "title": "Half-crushed balls in white bean",
        "way": "crushed-balls",
        "parts": [
            _part(
                "base",
                "rice",
                _line("sweet-rice", 180),
                _line("plain-rice", 60),
                _line("water", 345, "ml"),
                _line("white-sugar", 15),
                _line("salt", 2),
            ),
            _part(
                "filling",
                "white bean paste",
                _line("white-bean", 226),
                _line("water", 760, "ml"),
                _line("white-sugar", 165),
                _line("lemon-rind", 1, "piece"),
                _line("salt", 1.5),
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
            _part(
                "base",
                "rice",
                _line("sweet-rice-long", 380),
                _line("coconut-milk-thin", 380, "ml"),
                _line("water", 190, "ml"),
                _line(
                    "light-brown-sugar",
                    180,
                    splits=[
                        {"share": 1 / 3, "at": "with the rice"},
                        {"share": 2 / 3, "at": "from the start", "to": "syrup"},
                    ],
                ),
                _line("salt", 3),
                takes=[{"of": "topping.oil", "amount": {"value": 1, "unit": "tbsp_metric"}, "joins": "fold"}],
            ),
            _part(
                "syrup",
                "coconut and quince syrup",
                _line(
                    "coconut-milk-thick",
                    300,
                    "ml",
                ),
                _line("quince-paste", 60),
                pan="the deep pan",
            ),
            _part(
                "topping",
                "curds",
                _line("coconut-milk-thick", 200, "ml"),
                family="coconut-curd",
                pan="the small pan",
            ),
            _part("glaze", "syrup to brush", takes=[{"of": "syrup", "amount": {"value": 45, "unit": "ml"}}]),
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
            _part(
                "base",
                "grain",
                _line("sweet-rice", 460),
                _line("walnut-oil", 18),
                _line("soy-sauce", 14),
                _line("salt", 4),
            ),
            _part(
                "filling",
                "chestnut and mushroom",
                _line("chestnut-cooked", 150),
                _line("mushroom-dried", 16),
                _line("shallot", 2, "piece"),
            ),
            _part(
                "wrapper",
                "leaves",
                _line("bamboo-leaf", 26, "piece"),
                _line("kitchen-string", 12, "piece"),
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
            _part(
                "base",
                "mass",
                _line("sweet-rice", 280),
                _line("soybean", 58),
                _line("water", 425, "ml"),
                _line("barley-malt", 54),
                _line("salt", 2),
            ),
            _part(
                "wrapper",
                "leaf and foil",
                _line("banana-leaf", 12, "piece"),
                _line("kitchen-foil", 12, "piece"),
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
            _part(
                "base",
                "dough",
                _line("sweet-rice-flour", 260),
                _line("water", 310, "ml"),
                _line("white-sugar", 92),
                _line("lemon-rind", 1, "piece"),
            ),
            _part(
                "filling",
                "pistachio paste",
                _line("pistachio", 160),
                _line("white-sugar", 70),
                _line("butter", 60),
                _line("mild-honey", 44),
            ),
            _part("coat", "starch", _line("potato-starch", 70)),
        ],
        "pieces": {"skin_mm": 4.2, "filling_g": 19},
    },
    {
        "title": "Plain blocks for the freezer",
        "way": "pounded",
        "schools": {"finish": "block"},
        "parts": [_part("base", "grain", _line("sweet-rice", 620), _line("water", 20, "ml"))],
        "grain": {"rinses": 4, "soak_min": 720, "soak_c": 8, "drain_min": 45},
        "bag": {"length_mm": 280, "width_mm": 210},
        "cut": {"pieces": 24, "small": 5},
    },
    {
        "title": "Aunt's tea cake, as she told it",
        "way": "set-cake",
        "parts": [
            _part(
                "base",
                "batter",
                _line("sweet-rice-flour", 2.5, "cup_metric"),
                _line("black-tea", 2, "cup_metric"),
                _line("dark-slab-sugar", 1.25, "cup_metric"),
                _line("sunflower-oil", 1, "tbsp_metric"),
                _line("salt", 1, "pinch"),
            )
        ],
        "vessel": {
            "tin": {"name": "her bowl", "shape": "round", "diameter_mm": 160, "height_mm": 80, "material": "ceramic"}
        },
        "taught": {"heat": {"minutes": 70, "by": "my aunt"}},
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
