"""Sheets drawn at random, for what holds of any."""

from hypothesis import strategies as st

from kemble.core.cards.ways import WAYS
from kemble.core.geometry.tray_cutting import PATTERNS
from kemble.core.sheet.document import default_sheet, sheet_from

ALL = sorted(WAYS)


@st.composite
def sheets(draw):
    """Random sheets of every way, within what a kitchen might try: splits to any part, reserves, shares, soaks."""
    document = default_sheet(draw(st.sampled_from(ALL))).model_dump()
    roles = [part["role"] for part in document["parts"]]
    for part in document["parts"]:
        for line in part["lines"]:
            line["amount"]["value"] *= draw(st.floats(0.7, 1.4))
            line["reserve"] = (
                {"value": line["amount"]["value"] * 0.1, "unit": line["amount"]["unit"]}
                if draw(st.booleans())
                else None
            )
            if draw(st.integers(0, 3)) == 0:
                away = draw(st.floats(0.05, 0.4))
                line["splits"] = [
                    {"share": 1 - away, "at": "first"},
                    {"share": away, "at": "later", "to": draw(st.sampled_from([None, *roles]))},
                ]
        if part["role"] != "base":
            part["kept"] = draw(st.sampled_from([None, {"share": 0.2}]))
            part["made_for"] = draw(st.sampled_from([(), ({"sheet": "Another cake", "share": 0.25},)]))
    document["grain"] = {
        "rinses": draw(st.integers(0, 6)),
        "soak_min": draw(st.floats(0, 1440)),
        "soak_c": draw(st.floats(3, 45)),
        "drain_min": draw(st.floats(0, 90)),
    }
    document["schools"] = {
        choice.id: draw(st.sampled_from([school.id for school in choice.schools]))
        for choice in WAYS[document["way"]].choices
    }
    document["cut"] = {
        "pattern": draw(st.sampled_from(PATTERNS)),
        "pieces": draw(st.integers(1, 60)),
        "even": draw(st.booleans()),
    }
    document["vessel"]["more"] = draw(st.sampled_from([(), ({"tin": {"diameter_mm": 100}, "count": 2},)]))
    if "heart" in WAYS[document["way"]].parts and draw(st.booleans()):
        document["parts"] = (
            *document["parts"],
            {"role": "heart", "lines": [{"ingredient": "hazelnut", "amount": {"value": 40}}]},
        )
    others = [part for part in document["parts"] if part["role"] != "base"]
    if others and draw(st.booleans()):
        document["parts"] = (*document["parts"], a_further(draw(st.sampled_from(others)), draw(st.floats(0.3, 1.2))))
    return sheet_from(document)


def a_further(part, factor):
    """Another part of the same role, so many times as large, with a name of its own."""
    lines = [
        {**line, "splits": (), "reserve": None, "amount": {**line["amount"], "value": line["amount"]["value"] * factor}}
        for line in part["lines"]
    ]
    role = part["role"]
    return {
        "role": role,
        "id": f"{role}-2",
        "name": f"the other {role}",
        "family": part.get("family", ""),
        "lines": lines,
    }
