"""A part made for two sheets."""

import pytest
from sheets_by_hand import KITCHEN, facts

from kemble.core.change.shared_parts import share_part, unshare_part
from kemble.core.change.shopping import shopping
from kemble.core.facts.problems import Refused
from kemble.core.kitchen.shelf import Shelf
from kemble.core.sheet.bowl import weigh
from kemble.core.sheet.document import default_sheet
from kemble.core.stations.work_sheet import work


class TestSharing:
    def two(self):
        rounds = default_sheet("stirred-rounds").model_copy(update={"title": "Rounds"})
        balls = default_sheet("crushed-balls").model_copy(update={"title": "Balls"})
        return rounds, balls

    def test_one_makes_it_for_both_and_no_gram_is_lost(self):
        rounds, balls = self.two()
        mine, theirs = facts(rounds)["part.filling.made_g"], facts(balls)["part.filling.made_g"]
        giver, taker = share_part(rounds, balls, "filling", KITCHEN)
        result = facts(giver)
        assert result["part.filling.made_g"] == pytest.approx(mine + theirs)
        assert result["part.filling.have_g"] == pytest.approx(mine)
        assert result["part.filling.away_g"] == pytest.approx(theirs)
        assert facts(taker)["part.filling.made_g"] == pytest.approx(theirs)
        assert not [step for step in work(taker, KITCHEN).steps if step.id.startswith("filling-")]

    def test_it_is_bought_once(self):
        giver, taker = share_part(*self.two(), "filling", KITCHEN)  # type: ignore[call-arg]
        both = shopping([giver, taker], KITCHEN)
        beans = next(shopping_line for shopping_line in both.lines if shopping_line.ingredient == "small-red-bean")
        assert beans.need_g == pytest.approx(130 + 228)
        assert shopping([taker], KITCHEN).notes == ["bean paste for Balls: Rounds makes it, but is not on this list."]

    def test_and_back(self):
        rounds, balls = self.two()
        giver, taker = unshare_part(*share_part(rounds, balls, "filling", KITCHEN), "filling")
        shelf = Shelf(KITCHEN)
        for was, now in ((rounds, giver),):
            before, after = ([line.grams for line in weigh(sheet, shelf).lines] for sheet in (was, now))
            assert after == pytest.approx(before, abs=0.01)
        assert taker.part("filling").made_on == ""

    @pytest.mark.parametrize(("role", "says"), [("base", "no base to share"), ("broth", "no broth to share")])
    def test_what_is_not_there(self, role, says):
        with pytest.raises(Refused, match=says):
            share_part(*self.two(), role, KITCHEN)  # type: ignore[call-arg]

    def test_not_twice(self):
        giver, taker = share_part(*self.two(), "filling", KITCHEN)  # type: ignore[call-arg]
        with pytest.raises(Refused, match="has it from Rounds"):
            share_part(giver, taker, "filling", KITCHEN)
