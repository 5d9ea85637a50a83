"""Windows from the table of estimates: by hand, and against two thousand draws of the same solvers."""

import json
import math
import re
from pathlib import Path

import numpy as np
import pytest
from thorough import times as often

from kemble.core.cards.parts import FAMILIES
from kemble.core.cards.ways import WAYS
from kemble.core.kitchen.document import Kitchen, OwnEstimate
from kemble.core.kitchen.estimates import ESTIMATES, TASTES, Estimate
from kemble.core.physics.time_spread import EDGE, spread
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.work_sheet import work


def test_a_product_of_two_by_hand():
    """T = 40 a / b, each a factor of 1.2 either way: the logarithms add as squares, 0.182 root two: 30.9 to 51.8."""
    rows = {
        "burner": Estimate("stove", "a", 1.0, 1 / 1.2, 1.2, "x", ""),
        "depth": Estimate("batter", "b", 1.0, 1 / 1.2, 1.2, "x", "", "log", "depth", 0.0),
    }
    found_spread = spread(lambda of: 40 * of["burner"] / of["depth"], rows, ["burner", "depth"])
    half = math.log(1.2) * math.sqrt(2)
    assert (found_spread.first, found_spread.likely, found_spread.latest) == pytest.approx(
        (40 * math.exp(-half), 40, 40 * math.exp(half))
    )
    assert [share.share for share in found_spread.shares] == pytest.approx([0.5, 0.5])
    # With the depth measured, half of the variance is gone.
    left = next(share.left for share in found_spread.shares if share.id == "depth")
    assert left == pytest.approx(found_spread.half * math.sqrt(0.5))


def test_what_moves_nothing_has_no_share_and_no_likely_time_no_window():
    rows = {"burner": Estimate("stove", "a", 1.0, 0.8, 1.25, "x", "")}
    assert spread(lambda of: 30.0, rows, ["burner"]).shares == ()
    assert spread(lambda of: None, rows, ["burner"]) is None


def drawn(row, rng, n):
    return np.array([row.at(z) for z in rng.normal(0, 1, n).tolist()])


MADE = [
    ("set-cake", {}),
    ("set-cake", {"cover": "covered"}),
    ("batter-bake", {}),
    ("tray-rice", {}),
    ("tray-rice", {"finish": "bare"}),
    ("leaf-parcels", {}),
    ("ground-packets", {}),
    ("pounded", {}),
    ("stirred-rounds", {"cook": "steam"}),
]


@pytest.mark.long
@pytest.mark.parametrize(("way", "schools"), MADE)
def test_ends_as_draws_have_them(way, schools, monkeypatch):
    """The station's own solver, drawn 2000 times where it is cheap (300 times where it is a march): within 6 %, and as
    much more as so few draws are sure of."""
    from kemble.core.stations import time_windows as station

    caught = {}

    def catch(working, solve, which):
        caught.update(solve=solve, which=which, rows=working.estimates)
        return real(working, solve, which)

    real = station.enter_heat_window
    for module in ("steam", "bake", "wrapped_parcels", "grain_heat"):
        monkeypatch.setattr(f"kemble.core.stations.heat.{module}.enter_heat_window", catch)
    content = default_sheet(way).model_dump(mode="json")
    content["schools"].update(schools)
    told = work(sheet_from(content), Kitchen()).facts
    rng, rows = np.random.default_rng(7), caught["rows"]
    marched = way in ("batter-bake", "tray-rice")
    n = 300 if marched else often(2000, 700)
    values = {name: drawn(rows[name], rng, n) for name in caught["which"]}
    result = [caught["solve"]({name: float(of[i]) for name, of in values.items()}) for i in range(n)]
    times = np.array([item for item in result if item is not None])
    assert len(times) >= 0.98 * n
    sure = 0.06 + (0.05 if marched else 0.0)
    first, likely, latest = (told[f"heat.{name}_min"].value for name in ("first_check", "done", "latest"))
    stands = 8.0 if schools.get("finish") == "bare" else 0.0
    ends = np.quantile(times, [0.05, 0.5, 0.95]) + stands
    assert [first, likely, latest] == pytest.approx(ends, rel=sure)


@pytest.mark.parametrize("way", sorted(WAYS))
def test_half_of_every_window_is_less_than_a_third_of_its_time(way):
    facts = work(default_sheet(way), Kitchen()).facts
    first, done, latest = (facts[f"heat.{name}_min"].value for name in ("first_check", "done", "latest"))
    assert first <= done <= latest
    assert (latest - first) / 2 <= done / 3


def test_what_a_kitchen_has_measured_narrows_its_windows():
    """Kettle timed, depth measured: the same row with a fifth, a quarter of its range."""
    rough = work(default_sheet("set-cake"), Kitchen())
    own = {
        "burner": OwnEstimate(value=1.0, low=0.95, high=1.06),
        "depth": OwnEstimate(value=1.0, low=0.98, high=1.02),
    }
    fine = work(default_sheet("set-cake"), Kitchen(estimates=own))
    half = [
        result.facts["heat.latest_min"].value - result.facts["heat.first_check_min"].value for result in (rough, fine)
    ]
    assert half[1] < 0.97 * half[0]
    assert {"burner", "depth"} & {hang.id for hang in rough.hangs}
    assert not {"burner", "depth"} & {hang.id for hang in fine.hangs}


def test_what_it_hangs_on_is_told_with_what_would_settle_it():
    hangs = work(default_sheet("batter-bake"), Kitchen()).hangs
    assert [hang.share_pct for hang in hangs] == sorted((hang.share_pct for hang in hangs), reverse=True)
    oven = next(hang for hang in hangs if hang.id == "oven_c")
    assert oven.narrow_words == "put a thermometer in the oven"
    facts = work(default_sheet("batter-bake"), Kitchen()).facts
    half = (facts["heat.latest_min"].value - facts["heat.first_check_min"].value) / 2
    assert oven.becomes_min < half
    assert sum(hang.minutes**2 for hang in hangs) == pytest.approx(half**2, rel=0.15)


def test_who_says_how_it_is_liked_knows_more():
    """The tastes of a row lie about where the row does; each is known more closely than the row, and moves the time."""
    for name, tastes in TASTES.items():
        row = ESTIMATES[name]
        assert row.narrows in ("taste", "manner")
        assert row.low <= min(value for _, value in tastes) < row.value < max(value for _, value in tastes) <= row.high
    assert {name for name, row in ESTIMATES.items() if row.narrows in ("taste", "manner")} == set(TASTES)
    plain = work(default_sheet("set-cake"), Kitchen())
    (hang,) = (sensitivity for sensitivity in plain.hangs if sensitivity.tastes)
    chewy = {taste.words: OwnEstimate(value=taste.value, low=taste.low, high=taste.high) for taste in hang.tastes}
    halves, times = {}, []
    for words, own in chewy.items():
        facts = work(default_sheet("set-cake"), Kitchen(estimates={hang.id: own})).facts
        times.append(facts["heat.done_min"].value)
        halves[words] = (facts["heat.latest_min"].value - facts["heat.first_check_min"].value) / 2
    assert times == sorted(times)
    assert halves["clear and chewy"] == pytest.approx(hang.becomes_min, rel=0.06)


def test_the_table_is_in_order():
    for name, row in ESTIMATES.items():
        assert row.low < row.value < row.high, name
        assert row.at(-EDGE) == pytest.approx(row.low, abs=1e-9)
        assert row.at(EDGE) == pytest.approx(row.high)
        assert (row.narrows is None) == (row.after == 1.0), name
    assert pytest.approx(1.645, abs=1e-3) == EDGE


def test_the_table_of_cases_is_worked_from_frozen_sheets():
    """At least forty, over every way; those that miss are in it, and said to; nothing is left out of the count."""
    root = Path(__file__).resolve().parents[3]
    files = list((root / "tests" / "fixtures" / "cases").glob("*.json"))
    text = (root / "docs" / "science.md").read_text(encoding="utf-8")
    rows = [line for line in text.split("<!-- cases")[1].split("<!-- end")[0].splitlines() if line.startswith("| ")]
    said, inside = (int(number) for number in re.search(r"Of (\d+) cases .*?\*\*(\d+)\*\*", text).groups())
    assert said == len(files) == len(rows) - 1 >= 40
    outside = sum("window meets it" in row or "**misses**" in row for row in rows)
    assert inside == said - outside
    ways = {json.loads(file.read_text(encoding="utf-8"))["sheet"]["way"] for file in files}
    assert ways == set(WAYS)
    assert inside >= 0.75 * said


def sheets_of_every_school():
    """The starting sheets and a few of their own, then each with one choice answered otherwise; parts with theirs."""
    for way in sorted(WAYS):
        yield way, default_sheet(way).model_dump(mode="json")
    yield from OTHERS
    for way in sorted(WAYS):
        for choice in WAYS[way].choices:
            for school in choice.schools:
                content = default_sheet(way).model_dump(mode="json")
                if content["schools"].get(choice.id) != school.id:
                    content["schools"][choice.id] = school.id
                    yield f"{way}, {school.id}", content
    for way in sorted(WAYS):
        content = default_sheet(way).model_dump(mode="json")
        for i, part in enumerate(content["parts"]):
            family = FAMILIES.get(part["family"])
            for choice in family.choices if family else ():
                for school in choice.schools:
                    other = json.loads(json.dumps(content))
                    other["parts"][i]["schools"][choice.id] = school.id
                    yield f"{way}, {part['role']} {school.id}", other


def with_(way, **change):
    content = default_sheet(way).model_dump(mode="json")
    for path, value in change.items():
        *where, last = path.split("__")
        node = content
        for step in where:
            node = node[step]
        node[last] = value
    return content


def more(way, times):
    """The starting sheet with so many times as much of everything."""
    content = default_sheet(way).model_dump(mode="json")
    for part in content["parts"]:
        for line in part["lines"]:
            line["amount"]["value"] = min(90_000.0, line["amount"]["value"] * times)
    return content


def with_nuts(way):
    content = default_sheet(way).model_dump(mode="json")
    line = {**content["parts"][0]["lines"][0], "ingredient": "walnut", "state": "whole"}
    line["amount"] = {"value": 60.0, "unit": "g"}
    content["parts"][0]["lines"].append(line)
    return content


OTHERS = [
    ("much grain in the steamer", more("pounded", 7)),
    ("nuts in the dough", with_nuts("set-cake")),
    ("two tins on a rack", with_("set-cake", vessel__count=3)),
    ("a leaf measured", with_("leaf-parcels", wrap__leaf_length_mm=420.0, wrap__leaf_width_mm=80.0)),
    ("the steamer off at last", with_("set-cake", heat__stages=[{"level": "high", "minutes": 28}, {"level": "off"}])),
]


@pytest.fixture(scope="module")
def many():
    machine = Kitchen(steamers=({"watts": 900},))
    cake = default_sheet("set-cake")
    plain = [("a machine", cake, machine)]
    plain += [(f"{watts} W", cake, Kitchen(burner={"medium_w": watts})) for watts in (320, 960)]
    plain += [(name, sheet_from(content), Kitchen()) for name, content in sheets_of_every_school()]
    return [(name, sheet, kitchen, said(sheet, kitchen)) for name, sheet, kitchen in plain]


def said(sheet, kitchen):
    """All that is told of a sheet, to four figures."""
    result = work(sheet, kitchen)
    facts = {
        (key, end): float(f"{value:.4g}") if isinstance(value, float) else value
        for key, fact in result.facts.items()
        for end, value in (("value", fact.value), ("low", fact.low), ("high", fact.high))
    }
    return facts, [advice.says for advice in result.advice], result.problems


@pytest.mark.parametrize("name", sorted(ESTIMATES))
def test_what_a_kitchen_holds_of_its_own_moves_something(name, many):
    """No row of the table is only shown: with another value in it something that some sheet tells is another."""
    row = ESTIMATES[name]
    value = row.value + 0.9 * (row.high - row.value)
    own = {name: OwnEstimate(value=value, low=row.value, high=value + abs(value) * 0.1 + 0.1)}
    assert any(
        said(sheet, kitchen.model_copy(update={"estimates": own})) != before for _, sheet, kitchen, before in many
    ), name
