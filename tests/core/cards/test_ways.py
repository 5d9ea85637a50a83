"""Every way against sums done by hand: its starting sheet's ratios, yields and pieces; its plan; its running."""

from datetime import UTC, datetime, timedelta

import pytest

from kemble.core.cards.faults import faults_of
from kemble.core.cards.parts import FAMILIES
from kemble.core.cards.way import Band, outline
from kemble.core.cards.ways import WAYS
from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.schedule import plan_for
from kemble.core.run.events import event_from
from kemble.core.run.run_state import state_of
from kemble.core.sheet.document import blank_sheet, default_sheet, sheet_from
from kemble.core.stations.work_sheet import work

KITCHEN = Kitchen(cooks=2)
ALL = sorted(WAYS)
NOW = datetime(2026, 11, 25, 9, 0, tzinfo=UTC)
SERVE = datetime(2026, 11, 28, 15, 30, tzinfo=UTC)

# By hand, from the starting sheets and the larder's compositions. Grams and per cent.
BY_HAND = {
    # 250 water on 200 flour; 70 x 0.999 sugar; 521 g less 10 % in an open pan, 30 g to a round.
    "stirred-rounds": {
        "mix.hydration_pct": 125.0,
        "mix.sugar_pct": 34.97,
        "mix.batch_g": 521.0,
        "mix.cooked_g": 468.9,
        "shape.base_enough_for": 15.63,
        "part.filling.made_g": 377.0,
        "shape.pieces": 15,
    },
    # 290 water and 0.056 in the oil; 28 x 0.994 fat on 200; less 8 %; 9 g to a pull.
    "folded-pulls": {
        "mix.hydration_pct": 145.0,
        "mix.fat_pct": 13.92,
        "mix.batch_g": 531.0,
        "mix.cooked_g": 488.5,
        "shape.pieces": 54,
        "part.coat.enough_for": 56.67,
    },
    # 192 water on 240 flour.
    "boiled-balls": {"mix.hydration_pct": 80.0, "mix.batch_g": 432.0, "shape.pieces": 24, "mix.filling_pct": 90.0},
    # 375 water and 240 x 0.016 in the sugar, on 300; sugar 240 x 0.976.
    "set-cake": {"mix.hydration_pct": 126.3, "mix.sugar_pct": 78.1, "mix.batch_g": 934.3},
    # Milk 236.9 g: 208.0 water, 8.5 fat. Thick coconut milk 147 g: 92.6, 41.2. Eggs 100 g: 75.8, 9.9. Butter 60 g: 9.6,
    # 49.2. Sugar 200 g: 3.2 water. 389.2 water and 108.8 fat on 230.
    "batter-bake": {"mix.hydration_pct": 169.2, "mix.fat_pct": 47.3, "mix.egg_pct": 43.5, "mix.batch_g": 975.9},
    # Twelve hours at 12 °C and 4.5 min of rinsing: 35.4 x 724.5 / (724.5 + 31.78) = 33.91 %; 10 % clinging less by e^-3
    # in 45 min, 0.5 %; 3 % sprinkled on.
    "pounded": {"grain.uptake_pct": 33.91, "mix.hydration_pct": 37.41, "grain.soaked_g": 672.1},
    # 350 on 240; cooked 607.5 (and salt's) less 6.5 %, 28 g to a ball, 33 of paste.
    "crushed-balls": {
        "mix.hydration_pct": 145.8,
        "mix.batch_g": 607.5,
        "grain.cooked_g": 568.0,
        "shape.filling_on_base_pct": 117.9,
        "shape.pieces": 20,
    },
    # Thin milk 396 g: 344.5 water; 200 water; thick 294 g: 185.2; slab sugar 6. 735.7 on 400.
    "tray-rice": {"mix.hydration_pct": 183.9, "mix.sugar_pct": 52.6, "part.syrup.made_g": 434.0},
    # Three hours at 18 °C and 3 min: 36.6 x 183 / (183 + 26.55) = 31.96 %; clinging 10 % less by e^-2, 1.35 %.
    "leaf-parcels": {"grain.uptake_pct": 31.96, "mix.hydration_pct": 33.3, "shape.wrappers": 26},
    # 450 and the soybeans' 5.4 and the sugar's 0.7 on 300; 60 dry beans on 300.
    "ground-packets": {"mix.hydration_pct": 152.0, "mix.legume_pct": 20.0, "shape.pieces": 10, "shape.wrappers": 12},
}  # fmt: skip


@pytest.mark.parametrize("way", ALL)
def test_a_starting_sheet_by_hand(way):
    facts = work(default_sheet(way), KITCHEN).facts
    for key, expected in BY_HAND[way].items():
        assert facts[key].value == pytest.approx(expected, rel=2e-3), key


@pytest.mark.parametrize("way", ALL)
def test_a_blank_sheet_works_and_says_what_it_lacks(way):
    sheet = blank_sheet(way)
    worked = work(sheet, KITCHEN)
    assert len(sheet.base.lines) == 1
    assert worked.facts["mix.base_g"].value > 0
    if "grain.uptake_pct" not in worked.facts:
        assert any(advice.says.startswith("Dry for this way") for advice in worked.advice)


@pytest.mark.parametrize("way", ALL)
def test_a_plan_for_every_way_keeps_hands_and_waits(way):
    """Proven, on time, no cook holding two things, every step after what it waits for and not too long after."""
    plan = plan_for(work(default_sheet(way), KITCHEN).steps, KITCHEN, serve=SERVE, now=NOW)
    assert plan.proven
    assert plan.serve == SERVE
    at = {scheduled_step.step.id: scheduled_step for scheduled_step in plan.scheduled}
    for scheduled_step in plan.scheduled:
        assert scheduled_step.ends <= SERVE
        for wait in scheduled_step.step.after:
            gap = (scheduled_step.starts - at[wait.step].ends).total_seconds() / 60
            assert gap >= wait.at_least - 1
            assert wait.at_most is None or gap <= wait.at_most + 1
    marks = sorted({scheduled_step.starts for scheduled_step in plan.scheduled})
    for mark in marks:
        held = [
            scheduled_step
            for scheduled_step in plan.scheduled
            if scheduled_step.starts <= mark < scheduled_step.ends and scheduled_step.step.hands == "held"
        ]
        assert len(held) <= KITCHEN.cooks, [scheduled_step.step.id for scheduled_step in held]
        steaming = [
            scheduled_step
            for scheduled_step in plan.scheduled
            if scheduled_step.starts <= mark < scheduled_step.ends and "steamer" in scheduled_step.step.uses
        ]
        assert len(steaming) <= 1


@pytest.mark.parametrize("way", ALL)
def test_a_run_of_every_way_goes_from_step_to_step_to_the_table(way):
    plan = plan_for(work(default_sheet(way), KITCHEN).steps, KITCHEN, serve=SERVE, now=NOW)
    events = []
    for scheduled_step in sorted(
        plan.scheduled, key=lambda scheduled_step: (scheduled_step.starts, scheduled_step.ends)
    ):
        for kind, at in (("started", scheduled_step.starts), ("done", scheduled_step.ends)):
            events.append(
                event_from({}, uid=f"{scheduled_step.step.id}-{kind}", at=at, kind=kind, step=scheduled_step.step.id)
            )
    state = state_of(plan, events, SERVE + timedelta(minutes=1))
    assert {step.status for step in state.steps} == {"done"}
    assert abs(state.late_min) <= 1


@pytest.mark.parametrize("way", ALL)
def test_every_fault_says_what_to_do_now_and_next(way):
    faults = faults_of(WAYS[way])
    assert len({fault.id for fault in faults}) == len(faults)
    for fault in faults:
        assert fault.seen
        assert fault.cause
        assert fault.now
        assert fault.next_time
    own = {fault.id for fault in WAYS[way].faults}
    assert own <= {fault.id for fault in faults}
    for family in WAYS[way].parts.values():
        assert {fault.id for fault in FAMILIES[family].faults} <= {fault.id for fault in faults}


@pytest.mark.parametrize(
    ("way", "key", "more", "low", "high"),
    [
        ("batter-bake", "heat.done_min", {"vessel": {"tin": {"shape": "oblong", "length_mm": 140}}}, 1.2, 1.5),
        ("leaf-parcels", "heat.done_min", {"pieces": {"dough_g": 124}}, 1.02, 1.3),
        ("stirred-rounds", "heat.done_min", {"schools": {"cook": "steam"}}, 1.8, 3.6),
    ],
)
def test_a_heat_follows_the_size_and_the_school(way, key, more, low, high):
    """Deeper bakes and larger parcels take longer, less than in proportion to their weight (a parcel's longest time is
    that at heat, whatever its size); steam two to three times the pan's time."""
    document = default_sheet(way).model_dump()
    before = work(sheet_from(document), KITCHEN).facts[key].value
    for name, change in more.items():
        document[name] = {**document[name], **change} if name != "vessel" else {
            **document["vessel"], "tin": {**document["vessel"]["tin"], **change["tin"]}
        }  # fmt: skip
    after = work(sheet_from(document), KITCHEN).facts[key].value
    assert low < after / before < high


def test_a_kitchens_time_factor_moves_a_told_heat():
    slow = Kitchen(time_factor=1.2)
    for name in ("heat.first_check_min", "heat.done_min", "heat.latest_min"):
        usual, late = (work(default_sheet("pounded"), kitchen).facts[name].value for kitchen in (Kitchen(), slow))
        assert late == pytest.approx(1.2 * usual)


@pytest.mark.parametrize(
    ("way", "change", "says"),
    [
        ("batter-bake", ("parts", 0, "lines", 3, "amount", "value", 5), "Much egg"),
        ("ground-packets", ("parts", 0, "lines", 1, "amount", "value", 20), "Few beans"),
        ("leaf-parcels", ("parts", 1, "lines", 0, "amount", "value", 400), "Much filling"),
        ("crushed-balls", ("pieces", "filling_g", 20), "Little paste"),
        ("stirred-rounds", ("pieces", "filling_g", 60), "tears at the seam"),
        ("folded-pulls", ("parts", 1, "each_g", 0.5), "stick to each other"),
    ],
)
def test_each_ways_own_bands_are_watched(way, change, says):
    document = default_sheet(way).model_dump()
    *path, last, value = change
    place = document
    for step in path:
        place = place[step]
    assert not any(says in advice.says for advice in work(default_sheet(way), KITCHEN).advice)
    place[last] = value
    assert any(says in advice.says for advice in work(sheet_from(document), KITCHEN).advice)


def test_paste_outside_is_a_shell_round_the_rice():
    """28 g of rice at its density inside, 33 g of paste outside: volumes add up, and the skin is the paste's."""
    worked = work(default_sheet("crushed-balls"), KITCHEN)
    drawn = worked.drawings.shape
    assert drawn.outside
    core_ml = 28 / worked.facts["mix.density_g_per_ml"].value
    assert drawn.core_mm**3 * 0.5235988 / 1000 == pytest.approx(core_ml, rel=1e-4)
    assert worked.facts["shape.skin_mm"].value == pytest.approx((drawn.outer_mm - drawn.core_mm) / 2)


def test_a_packet_holds_its_volume():
    """80 g at its density as a square 18 mm thick; foil once round it, a tenth to swell, and its seams."""
    facts = work(default_sheet("ground-packets"), KITCHEN).facts
    side, thick = facts["shape.side_mm"].value, facts["shape.thick_mm"].value
    assert side**2 * thick / 1000 * facts["mix.density_g_per_ml"].value == pytest.approx(80.0)
    assert facts["shape.foil_mm"].value == pytest.approx(1.1 * 2 * (side + 18) + 30)
    assert facts["shape.foil_across_mm"].value == pytest.approx(1.1 * (side + 18) + 60)


def test_an_outline_lies_in_its_bands_and_is_cut_at_none():
    points = outline(Band(100, 160), Band(0, 20))
    assert all(100 <= x <= 160 and 0 <= y <= 20 for x, y in points)
    assert min(y for _, y in points) == 0
    assert max(y for _, y in points) > 19
