"""Parts that feed parts: read, refused with its reason, lifted from before; and no gram lost on any way through."""

import json
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from sheets_by_hand import line
from thorough import examples

from kemble.core import Kitchen
from kemble.core.cards.parts import FAMILIES
from kemble.core.cards.ways import WAYS
from kemble.core.facts.problems import Refused
from kemble.core.facts.vocabulary import role_of
from kemble.core.kitchen.larder import COMPONENTS, Composition
from kemble.core.kitchen.shelf import Shelf
from kemble.core.sheet.bowl import weigh
from kemble.core.sheet.document import sheet_from
from kemble.core.sheet.part_flow import working_order

RUNS = Path(__file__).resolve().parents[2] / "fixtures" / "runs"
FLOUR = ("base", [line("sweet-rice-flour", 200), line("water", 180)])


def part(role, *lines, **more):
    return {"role": role, "lines": list(lines), **more}


def base(**more):
    return part("base", *FLOUR[1], **more)


def sheet(*parts, way="set-cake", **more):
    return sheet_from({"way": way, "parts": list(parts), **more})


def refused(*parts, **more):
    with pytest.raises(Refused) as result:
        sheet(*parts, **more)
    return "; ".join(f"{problem.path}: {problem.says} ({problem.accepts})" for problem in result.value.problems)


class TestWhatIsRefused:
    def test_a_take_of_what_is_not_there(self):
        told = refused(base(takes=[{"of": "oil", "share": 1}]), part("syrup", line("white-sugar", 100)))
        assert "parts.0.takes.0.of" in told
        assert 'no "oil" to take' in told
        assert "syrup" in told

    def test_an_output_that_the_part_does_not_make(self):
        oil = part("oil", line("sunflower-oil", 80), line("shallot", 60), family="infused-oil")
        told = refused(base(takes=[{"of": "oil.curds", "share": 1}]), oil)
        assert "oil.oil or oil.crisps" in told

    def test_a_circle_is_named(self):
        syrup = part("syrup", line("white-sugar", 100), takes=[{"of": "topping", "share": 0.5}])
        topping = part("topping", line("coconut-milk-thick", 200), takes=[{"of": "syrup", "share": 0.5}])
        told = refused(base(), syrup, topping)
        assert "syrup goes into topping, topping goes into syrup" in told or "topping goes into syrup" in told
        assert "circle" in told

    def test_a_rest_can_close_a_circle_too(self):
        syrup = part("syrup", line("white-sugar", 100), rest={"": {"to": "glaze"}})
        glaze = part("glaze", line("milk", 50), rest={"": {"to": "syrup"}})
        assert "circle" in refused(base(), syrup, glaze)

    def test_a_step_that_its_way_does_not_have(self):
        assert 'no step "someday"' in refused(
            base(takes=[{"of": "syrup", "share": 1, "joins": "someday"}]), part("syrup", line("mild-honey", 30))
        )

    @pytest.mark.parametrize("some", [{}, {"share": 0.5, "amount": {"value": 5, "unit": "g"}}])
    def test_an_amount_is_said_once(self, some):
        assert "either a share or an amount" in refused(
            base(takes=[{"of": "syrup", **some}]), part("syrup", line("mild-honey", 30))
        )

    def test_a_place_for_what_is_not_made(self):
        oil = part("oil", line("sunflower-oil", 80), line("shallot", 60), family="infused-oil")
        assert "oil or crisps" in refused(base(), {**oil, "rest": {"curds": {"to": "kept"}}})

    def test_a_part_of_nothing(self):
        assert "the part is empty" in refused(base(), part("syrup"))


def test_parts_are_made_after_what_goes_into_them():
    """Glaze takes syrup, syrup takes infusion: made the other way round from how they stand."""
    result = sheet(
        base(),
        part("glaze", takes=[{"of": "syrup", "share": 0.2}]),
        part("syrup", line("white-sugar", 100), takes=[{"of": "liquid", "share": 1}]),
        part("liquid", line("water", 200), family="leaf-infusion"),
    )
    order = working_order(WAYS[result.way], result.parts)
    assert order.index("liquid") < order.index("syrup") < order.index("base")
    assert order.index("syrup") < order.index("glaze")


def test_a_rest_is_what_those_who_take_leave_whoever_is_made_first():
    """The base gets the rest of the syrup, though the glaze that takes 40 g of it is made after the base."""
    syrup = part("syrup", line("mild-honey", 250), family="leaf-infusion")
    result = sheet(base(), syrup, part("glaze", takes=[{"of": "syrup", "amount": {"value": 40, "unit": "g"}}]))
    bowl = weigh(result, Shelf(Kitchen()))
    made = bowl.parts["syrup"].main.made.grams
    assert bowl.parts["glaze"].grams == pytest.approx(40)
    assert bowl.base.grams == pytest.approx(380 + made - 40)
    assert all(taken.short_g == 0 for taken in bowl.taken)


class TestLifting:
    def test_a_share_kept_back_in_version_1(self):
        document = {"format": "kemble-sheet", "version": 1, "way": "set-cake"}
        found_sheet = sheet_from(
            {**document, "parts": [{**base(), "kept": 0.0}, {**part("syrup", line("mild-honey", 30)), "kept": 0.25}]}
        )
        assert (found_sheet.version, found_sheet.base.kept) == (3, None)
        assert found_sheet.parts[1].kept.share == 0.25

    @pytest.mark.parametrize("file", sorted(RUNS.glob("*.json")), ids=lambda file: file.stem)
    def test_written_and_read_again_it_is_equal(self, file):
        once = sheet_from(json.loads(file.read_text(encoding="utf-8"))["sheet"])
        assert sheet_from(once.model_dump(mode="json")) == once

    @pytest.mark.parametrize(
        "junk", [None, [], {"version": [1]}, {"version": 1}, {"version": 1, "parts": 3}, {"version": True}]
    )
    def test_junk_is_refused_like_any_other(self, junk):
        with pytest.raises(Refused):
            sheet_from(junk)


ROLES = ("syrup", "liquid", "oil", "topping", "glaze", "broth", "herb", "filling")
STUFF = ("water", "white-sugar", "coconut-milk-thick", "sunflower-oil", "shallot", "small-red-bean", "butter", "milk")
SOME = st.one_of(
    st.floats(0.01, 1).map(lambda share: {"share": share}),
    st.tuples(st.floats(0.5, 400), st.sampled_from(["g", "ml", "cup_us"])).map(
        lambda pair: {"amount": {"value": pair[0], "unit": pair[1]}}
    ),
)


@st.composite
def flows(draw):
    """Parts in an order in which each takes only of those before it, then shuffled."""
    ids = [f"{role}{nth}" for role in ROLES for nth in ("", "-2")]
    chosen = draw(st.permutations(ids))[: draw(st.integers(1, 6))]
    made, parts = [], []
    for part_id in (*chosen, "base"):
        role = role_of(part_id)
        lines = [line(draw(st.sampled_from(STUFF)), draw(st.floats(1, 500))) for _ in range(draw(st.integers(1, 3)))]
        if role == "base":
            lines.append(line("sweet-rice-flour", 200))
        takes = [{"of": of, **draw(SOME)} for of in made if draw(st.booleans())]
        item = part(role, *lines, takes=takes, id=part_id)
        if role != "base":
            item["family"] = draw(st.sampled_from(sorted(f.id for f in FAMILIES.values() if role in f.roles)))
            item["kept"] = draw(st.none() | SOME.filter(lambda some: some.get("share", 0) < 1))
            # Only to what is made later, so that no circle closes: the base, or off the flow.
            item["rest"] = {"": {"to": draw(st.sampled_from(["whole", "beside", "kept", "base"]))}}
            made += [f"{part_id}.{output.id}" for output in FAMILIES[item["family"]].outputs]
        parts.append(item)
    return sheet_from({"way": "batter-bake", "parts": list(draw(st.permutations(parts)))})


@settings(max_examples=examples(120), deadline=None)
@given(flows())
def test_every_gram_of_a_line_ends_in_one_place(result):
    """Of every component: what the lines bring is in the base, where an output ends, or lost where a part was made."""
    bowl = weigh(result, Shelf(Kitchen()))

    def summed(compositions):
        return dict(zip(COMPONENTS, Composition.summed(compositions).parts, strict=True)) if compositions else {}

    brought = summed([weighed_line.item.composition(weighed_line.used_g) for weighed_line in bowl.lines])
    beside = [part for part in bowl.parts.values() if part.id != "base"]
    ends = [bowl.base.composition]
    lost = dict.fromkeys(COMPONENTS, 0.0)
    for part_bowl in beside:
        for had in part_bowl.outputs:
            assert had.taken + had.kept + had.away + had.rest == pytest.approx(had.made.grams, rel=1e-9, abs=1e-9)
            ends.append(had.composition(had.kept + had.away + had.rest))
        after = summed([had.made.composition for had in part_bowl.outputs])
        for name in COMPONENTS:
            lost[name] += getattr(part_bowl.composition, name) - after[name]
    there = summed(ends)
    for name in COMPONENTS:
        assert there[name] + lost[name] == pytest.approx(brought[name], rel=1e-9, abs=1e-9)
    # Energy follows from what it is of, in kJ a gram: 17 of starch, sugar and protein, 37 of fat, 8 of fibre.
    assert energy(there) + energy(lost) == pytest.approx(energy(brought), rel=1e-9, abs=1e-9)
    for part_bowl in beside:
        after = summed([had.made.composition for had in part_bowl.outputs])
        more = [name for name in COMPONENTS if after[name] > getattr(part_bowl.composition, name) * (1 + 1e-9) + 1e-9]
        assert more == [] or (more == ["water"] and _takes_up_water(part_bowl)), part_bowl.id


def energy(of):
    """kJ."""
    return 17 * (of["starch"] + of["sugar"] + of["protein"]) + 37 * of["fat"] + 8 * of["fibre"]


def _takes_up_water(part):
    """Beans drink of the pot's water, which nobody writes down; a squeezed herb may hold more than it came with."""
    finish = part.family.finish
    return finish.rule == "times-dry" or (finish.rule == "loss" and finish.target.low < 0)
