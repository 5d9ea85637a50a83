"""The larder: sentences whole, and what hangs on what an ingredient is."""

import pytest
from sheets_by_hand import a_sheet, line

from kemble.core.kitchen.document import Kitchen
from kemble.core.kitchen.larder import OWN, Ingredient, larder
from kemble.core.stations.work_sheet import work

COMPOSITION = {"water": 18, "sugar": 80, "other": 2}


def own(name, **more):
    said = {"id": f"{OWN}{name}", "name": name, "group": "sugar", "per_100_g": COMPOSITION, "density": {"poured": 1.4}}
    return Ingredient.model_validate({**said, **more})


def cautions(sheet, *ingredients):
    return {caution.id for caution in work(sheet, Kitchen(ingredients=ingredients)).cautions}


def cake(sweet):
    return a_sheet("set-cake", ("base", [line("sweet-rice-flour", 300), line("water", 360), line(sweet, 240)]))


@pytest.mark.parametrize("item", larder().values(), ids=lambda item: item.id)
def test_every_sentence_is_whole(item):
    """One that was cut would begin small, or end in nothing."""
    for sentence in (item.look_alike, item.caution):
        assert sentence == "" or (sentence[0].isupper() and sentence.endswith("."))


def test_a_sentence_with_a_semicolon_is_read_to_its_end():
    assert larder()["plain-rice"].look_alike.endswith("a softer, shorter mass; alone it will not hold.")
    assert larder()["small-red-bean"].look_alike.startswith("Small and matt; kidney beans")
    assert "; short grain pounds smoother" in larder()["sweet-rice-long"].look_alike


def test_a_caution_hangs_on_what_it_is_and_not_on_its_name():
    assert "infants" in cautions(cake("mild-honey"))
    assert "infants" not in cautions(cake("white-sugar"))
    assert "infants" in cautions(cake("own-heather"), own("heather", tags=["honey"]))
    assert "infants" not in cautions(cake("own-honeydew"), own("honeydew", tags=[]))
    assert "alcohol" in cautions(cake("own-cordial"), own("cordial", tags=["alcohol"]))


def test_one_kept_before_there_were_tags_goes_by_its_name_as_then():
    assert own("heather-honey").tags == ("honey",)
    assert own("cordial", caution="Holds alcohol.").tags == ("alcohol",)
    assert own("cordial").tags == ()
