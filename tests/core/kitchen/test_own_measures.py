"""A kitchen's own cups, spoons and ingredients."""

import pytest
from pydantic import ValidationError
from sheets_by_hand import KITCHEN, a_sheet, facts, line

from kemble.core.kitchen.document import Kitchen
from kemble.core.kitchen.larder import larder
from kemble.core.sheet.document import default_sheet
from kemble.core.stations.work_sheet import work


class TestOwnMeasures:
    def test_a_cup_of_this_cooks_flour(self):
        """A metric cup, as this cook fills it, holds 128 g of sweet rice flour, not 140."""
        kitchen = Kitchen(weighed=[{"measure": "cup_metric", "ingredient": "sweet-rice-flour", "grams": 128}])
        sheet = a_sheet("set-cake", ("base", [line("sweet-rice-flour", 2, "cup_metric"), line("water", 300)]))
        assert facts(sheet)["mix.base_g"] == pytest.approx(280)
        assert facts(sheet, kitchen)["mix.base_g"] == pytest.approx(256)

    def test_the_cooks_own_cup(self):
        sheet = a_sheet("set-cake", ("base", [line("sweet-rice-flour", 2, "cup_own"), line("water", 300)]))
        assert facts(sheet, Kitchen(own_cup_ml=200))["mix.base_g"] == pytest.approx(2 * 200 * 0.56)
        problem = work(sheet, KITCHEN).problems[0]
        assert problem.path == "parts.0.lines.0"
        assert "not been weighed" in problem.says

    def test_a_packed_cup_weighs_more(self):
        spooned, packed = (
            facts(
                a_sheet(
                    "set-cake", ("base", [line("sweet-rice-flour", 1, "cup_metric", state=state), line("water", 300)])
                )
            )
            for state in (None, "packed")
        )
        assert (spooned["mix.base_g"], packed["mix.base_g"]) == pytest.approx((140, 165))

    def test_an_unlikely_cup_is_questioned(self):
        kitchen = Kitchen(weighed=[{"measure": "cup_metric", "ingredient": "sweet-rice-flour", "grams": 260}])
        sheet = a_sheet("set-cake", ("base", [line("sweet-rice-flour", 1, "cup_metric"), line("water", 300)]))
        assert "Another cup" in work(sheet, kitchen).lines[0].question
        assert work(sheet, KITCHEN).lines[0].question == ""

    def test_cups_of_the_wrong_kind_are_questioned(self):
        grain = a_sheet("crushed-balls", ("base", [line("sweet-rice", 2, "cup_us"), line("water", 300)]))
        assert "rice cooker" in work(grain, KITCHEN).lines[0].question
        mixed = a_sheet("set-cake", ("base", [line("sweet-rice-flour", 1, "cup_us"), line("water", 1, "cup_metric")]))
        assert "two cups" in work(mixed, KITCHEN).lines[0].question

    def test_own_ingredients_and_own_figures(self):
        own = larder()["sweet-rice-flour"].model_dump() | {
            "id": "own-mill",
            "name": "Flour from the mill",
            "per_100_g": {"water": 20, "starch": 80},
        }
        kitchen = Kitchen.model_validate({"ingredients": [own]})
        sheet = a_sheet("set-cake", ("base", [line("own-mill", 300), line("water", 300)]))
        assert facts(sheet, kitchen)["mix.water_g"] == pytest.approx(360)
        assert "not in this kitchen" in work(sheet, KITCHEN).problems[0].says
        milk = larder()["milk"].model_dump() | {"per_100_g": {"water": 90, "sugar": 5, "fat": 2, "protein": 3}}
        richer = Kitchen.model_validate({"ingredients": [milk]})
        cake = a_sheet("set-cake", ("base", [line("sweet-rice-flour", 100), line("milk", 100)]))
        assert facts(cake, richer)["mix.hydration_pct"] == pytest.approx(90)

    @pytest.mark.parametrize(
        ("change", "says"),
        [
            ({"per_100_g": {"water": 20, "starch": 70}}, "adds up to 90.0 g"),
            ({"id": "mill"}, "not in the larder"),
            ({"density": {"spooned": 9}}, "no density of food"),
            ({"packs": {"bag": -1}}, "cannot weigh"),
        ],
    )
    def test_figures_that_cannot_be(self, change, says):
        own = larder()["sweet-rice-flour"].model_dump() | {"id": "own-mill"} | change
        with pytest.raises(ValidationError, match=says):
            Kitchen.model_validate({"ingredients": [own]})

    def test_stock_of_what_is_not_there(self):
        with pytest.raises(ValidationError, match="not in this kitchen's larder"):
            Kitchen.model_validate({"stock": [{"ingredient": "own-nothing", "grams": 5}]})


class TestUnits:
    """What is said goes by the kitchen's own units; what is kept stays in grams and millilitres."""

    def test_a_sentence_in_ounces(self):
        """786 ml are 26.6 fl oz."""
        sheet = default_sheet("set-cake")
        low = sheet.vessel.model_copy(update={"tin": sheet.vessel.tin.model_copy(update={"height_mm": 20.0})})
        sheet = sheet.model_copy(update={"vessel": low})
        says = {unit: work(sheet, Kitchen(volume_unit=unit)).problems[0].says for unit in ("ml", "fl oz")}
        ml = float(says["ml"].split(" ml ")[0])
        assert says["fl oz"].startswith(f"{ml / 29.57353:.1f} fl oz of")
        assert "ml" not in says["fl oz"]

    def test_facts_do_not_move(self):
        sheet = default_sheet("boiled-balls")
        grams, ounces = (work(sheet, Kitchen(weight_unit=unit)).facts for unit in ("g", "oz"))
        assert {key: fact.value for key, fact in grams.items()} == {key: fact.value for key, fact in ounces.items()}
