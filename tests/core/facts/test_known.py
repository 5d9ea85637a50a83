"""Models made of values that are known to be good are those that a check would have made."""

from kemble.core import Kitchen
from kemble.core.facts.fact import Because, Fact
from kemble.core.facts.known import known
from kemble.core.kitchen.document import Tin
from kemble.core.kitchen.larder import Composition
from kemble.core.sheet.document import Pieces, Vessel
from kemble.core.stations.chain import Worked


def test_they_are_equal_to_checked_ones():
    assert known(Pieces, count=3) == Pieces(count=3)
    assert known(Vessel, tin=Tin(), count=2) == Vessel(count=2)
    assert known(Composition, water=5.0) == Composition(water=5.0)
    assert known(Kitchen).model_dump() == Kitchen().model_dump()


def test_they_are_written_as_checked_ones():
    because = Because(says="so", source="a test", inputs=[])
    values = {"key": "mix.base_g", "label": "flour", "value": 3.0, "unit": "g", "decimals": 0, "because": because}
    assert known(Fact, **values).model_dump(mode="json") == Fact(**values).model_dump(mode="json")
    assert known(Pieces, count=3).model_dump(exclude_unset=True) == {"count": 3}


def test_no_two_share_a_list():
    one, other = known(Worked, facts={}), known(Worked, facts={})
    one.checks.append("x")
    assert other.checks == []
