"""A role more than once: each part with its own lines, steps, facts and place; what several share, by hand."""

import json

import pytest
from ledger_laws import adds_up, all_behind, has_every_gram_once
from sheets_by_hand import KITCHEN, line

from kemble.core.change.adjust import Adjustment, adjust
from kemble.core.change.shopping import shopping
from kemble.core.facts.vocabulary import KEYS, fact_label, role_of, vocabulary_key
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.work_sheet import work


def with_more(way, *parts):
    document = json.loads(default_sheet(way).model_dump_json())
    document["parts"] += parts
    return sheet_from(document)


def worked_by(sheet):
    worked = work(sheet, KITCHEN)
    assert worked.problems == []
    has_every_gram_once(worked)
    adds_up(worked)
    return worked, {key: fact.value for key, fact in worked.facts.items()}, {step.id: step for step in worked.steps}


LINING = {
    "role": "syrup",
    "id": "syrup-2",
    "name": "caramel for the tin",
    "lines": [line("white-sugar", 90), line("water", 25)],
    "rest": {"": {"to": "whole", "where": "under"}},
}
BATTER_SYRUP = {
    "role": "syrup",
    "name": "syrup of the batter",
    "lines": [line("light-brown-sugar", 120), line("water", 60)],
    "rest": {"": {"to": "base", "joins": "mix"}},
}


class TestALiningBesideTheSyrupOfTheBatter:
    """180 g of syrup go into the bowl, 115 g of another lie under the batter: two pans, neither in the other."""

    sheet = with_more("set-cake", BATTER_SYRUP, LINING)

    def test_each_goes_where_it_says(self):
        _, facts, steps = worked_by(self.sheet)
        assert (facts["part.syrup.raw_g"], facts["part.syrup-2.raw_g"]) == (180, 115)
        lists = {name: [item.name for item in step.to_hand] for name, step in steps.items()}
        assert lists["syrup-reduce"] == ["Light brown sugar", "Water"]
        assert lists["syrup-2-reduce"] == ["White sugar", "Water"]
        assert "syrup of the batter" in lists["mix"]
        assert lists["put-syrup-2"] == ["caramel for the tin"]
        assert "caramel for the tin" not in lists["mix"]

    def test_each_step_waits_for_its_own(self):
        _, _, steps = worked_by(self.sheet)
        assert "syrup-reduce" in all_behind(steps, "mix")
        assert "syrup-2-reduce" not in all_behind(steps, "mix")
        assert "put-syrup-2" in all_behind(steps, "pour")

    def test_their_titles_say_which(self):
        _, _, steps = worked_by(self.sheet)
        assert steps["syrup-2-reduce"].title == "Reduce the syrup: caramel for the tin"
        assert steps["syrup-2-reduce"].part == "syrup-2"

    def test_what_one_takes_of_the_other(self):
        """30 g of the lining's caramel go into the batter's syrup instead: 85 g are left under."""
        document = json.loads(self.sheet.model_dump_json())
        batters = next(part for part in document["parts"] if part["id"] == "syrup")
        batters["takes"] = [{"of": "syrup-2", "amount": {"value": 30}}]
        _, facts, _ = worked_by(sheet_from(document))
        assert facts["part.syrup-2.have_g"] == pytest.approx(facts["part.syrup-2.made_g"] - 30)
        assert facts["part.syrup.raw_g"] == pytest.approx(210)

    def test_both_are_bought(self):
        need = {item.ingredient: item.need_g for item in shopping([self.sheet], KITCHEN).lines}
        assert (need["white-sugar"], need["light-brown-sugar"]) == (90, 360)  # 240 are in the batter itself


DATES = {
    "role": "filling",
    "id": "filling-2",
    "name": "date paste",
    "lines": [line("dried-jujube", 120), line("white-sugar", 20)],
}
CHESTNUTS = {"role": "filling", "id": "filling-3", "name": "chestnuts", "lines": [line("chestnut-cooked", 60)]}


class TestThreeFillingsInOneParcel:
    """224, 140 and 60 g: 424 in all. Of 693 g of grain at 62 g each eleven parcels: 38.5 g within each, of which
    224 / 11 = 20.36 are the first, 12.73 the second and 5.45 the third."""

    sheet = with_more("leaf-parcels", DATES, CHESTNUTS)

    def test_a_parcel_holds_its_share_of_each(self):
        _, facts, _ = worked_by(self.sheet)
        assert facts["shape.pieces"] == 11
        assert facts["shape.filling_g"] == pytest.approx(424 / 11)
        shares = [facts[f"part.{name}.piece_g"] for name in ("filling", "filling-2", "filling-3")]
        assert shares == pytest.approx([224 / 11, 140 / 11, 60 / 11])

    def test_all_three_go_in_where_they_are_folded_and_are_waited_for(self):
        _, _, steps = worked_by(self.sheet)
        fold = {item.name: item.grams for item in steps["fold"].to_hand}
        assert {name: round(fold[name]) for name in ("chestnut and mushroom", "date paste", "chestnuts")} == {
            "chestnut and mushroom": 224, "date paste": 140, "chestnuts": 60,
        }  # fmt: skip
        assert {"filling-season", "filling-2-chill", "filling-3-season"} <= all_behind(steps, "fold")

    def test_twice_as_much_within_scales_all_three(self):
        """38 % of filling and grain is filling; at half, as much filling as grain: each 693 / 424 of what it was."""
        half = adjust(self.sheet, Adjustment(by="filling_share", share_pct=50), KITCHEN).sheet
        grams = [sum(each.amount.value for each in part.lines) for part in half.parts_of("filling")]
        factor = work(self.sheet, KITCHEN).facts["mix.batch_g"].value / 424
        assert grams[1:] == pytest.approx([140 * factor, 60 * factor], rel=1e-3)

    def test_one_alone_is_made_half_as_much(self):
        one = adjust(self.sheet, Adjustment(by="part", part_id="filling-2", factor=0.5), KITCHEN).sheet
        assert [part.lines[0].amount.value for part in one.parts_of("filling")] == [160, 60, 60]
        both = adjust(self.sheet, Adjustment(by="part", role="filling", factor=0.5), KITCHEN).sheet
        assert [part.lines[0].amount.value for part in both.parts_of("filling")] == [80, 60, 30]


class TestTwoCoats:
    def test_each_goes_round_every_piece(self):
        """40 g of ground sesame beside 60 g of starch: the sesame shared, of the starch what is not brushed off."""
        sesame = {"role": "coat", "id": "coat-2", "name": "sesame", "lines": [line("sesame-seed", 40)]}
        _, facts, _ = worked_by(with_more("stirred-rounds", sesame))
        count = facts["shape.pieces"]
        assert facts["part.coat-2.piece_g"] == pytest.approx(40 / count)
        assert 0.5 < facts["part.coat.piece_g"] < 1.2 < 60 / count


def test_a_date_and_a_nut_in_the_middle():
    """One of each: 5 g and 1.5 g within every ball beside the paste, 6.5 g together; 60 g of nuts are enough for 40."""
    date = {"role": "heart", "name": "date", "lines": [line("dried-jujube", 200)], "each_g": 5}
    nut = {"role": "heart", "id": "heart-2", "name": "nut", "lines": [line("hazelnut", 60)], "each_g": 1.5}
    worked = work(with_more("boiled-balls", date, nut), KITCHEN)
    facts = {key: fact.value for key, fact in worked.facts.items()}
    assert facts["shape.heart_g"] == pytest.approx(6.5)
    assert (facts["part.heart.piece_g"], facts["part.heart-2.piece_g"]) == (5, 1.5)


def test_a_fact_of_a_further_part_is_named_by_it():
    assert vocabulary_key("part.syrup-2.made_g") == "part.syrup.made_g"
    assert fact_label("part.syrup-2.made_g") == "syrup-2: made"
    assert fact_label("mix.batch_g") == KEYS["mix.batch_g"].label
    assert role_of("filling-9") == "filling"
