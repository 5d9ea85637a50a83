"""The demo kitchen: Weir House, which makes tea for the Saturday mending circle.

Made by the same core that cooks run, from a fixed seed, with dates relative to the day it is loaded. Its amounts are
its own, worked out from the ways' bands.
"""

from __future__ import annotations

import random
from collections.abc import Sequence
from datetime import datetime, timedelta
from typing import Any

import numpy as np
from django.db import transaction

from kemble.core.cards.ways import WAYS
from kemble.core.change.adjust import Adjustment, adjust
from kemble.core.change.sharing import share_part
from kemble.core.facts.problems import Refused
from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.schedule import Plan, plan_for, plan_from
from kemble.core.run.events import Event
from kemble.core.run.weighing import BenchSetup, MarkKind
from kemble.core.sheet.document import Sheet, sheet_from
from kemble.core.stations.chain import work
from kemble.server.keeping import add_event, begin, create_sheet, log_outcome
from kemble.server.models import KitchenRecord, Occasion, Run, SheetRecord
from kemble.server.owner import kitchen_of, local_owner
from kemble.server.place import local_zone

SEED = 1530
PAST_BATCHES = 30
# Which sheets the past batches were made from, over and over: the old favourites most often.
_MADE = (0, 1, 2, 3, 4, 5, 0, 1, 8, 6, 0, 11, 1, 2, 10, 7, 0, 9, 12, 13)


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
            ),
            _part(
                "syrup",
                "coconut and quince syrup",
                _line(
                    "coconut-milk-thick",
                    300,
                    "ml",
                    reserve={"value": 40, "unit": "ml"},
                    reserve_for="to brush the top",
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
)

_NOTES = (
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
            "steamer": {"diameter_mm": 260, "rack_mm": 38, "gap_mm": 10, "low_mm": 12, "tiers": 2},
        }
    )


@transaction.atomic
def load(now: datetime) -> KitchenRecord:
    """Fill the local owner's kitchen, which should be empty. The same day gives the same kitchen."""
    kitchen = kitchen_of(local_owner())
    settings = weir_house()
    kitchen.document, kitchen.set_up = settings.model_dump(mode="json"), True
    kitchen.save()

    chance = random.Random(SEED)  # noqa: S311 (spread for a demo, not a secret)
    serve = next_saturday(now, settings.zone)
    records = [
        create_sheet(kitchen, sheet_from({**document, "serve": f"{serve:%Y-%m-%dT%H:%M}"})) for document in SHEETS
    ]
    named = {record.title: record for record in records}
    _share(named["Half-crushed balls in white bean"], named["Squash rounds with chestnut"], settings)
    for i in range(PAST_BATCHES):
        _past_batch(kitchen, settings, records[_MADE[i % len(_MADE)]], now, 2 + i * 3 + i % 2, chance)
    for title in ("Black tea and orange cake", "Walnut and date balls", "Buckwheat honey and squash bake"):
        _coming(kitchen, settings, named[title], now, "Saturday mending circle", 24)
    _in_progress(kitchen, settings, named["Barley-malt and pumpkin seed cake"], now)
    _weighed_out(kitchen, named["Walnut and date balls"], now, chance)
    return kitchen


def _weighed_out(kitchen: KitchenRecord, record: SheetRecord, now: datetime, chance: random.Random) -> None:
    """A bench of dough shared out last week, one begun just now, and a drill on each of six days, the eye coming on."""
    week = now - timedelta(days=7)
    dough = BenchSetup(what="dough", total_g=462, pieces=24)
    _bench(kitchen, record, dough, week, [("piece", aim * chance.gauss(1.01, 0.035)) for aim in [19.25] * 23])
    for day in range(6):
        marks: list[tuple[MarkKind, float]] = []
        for _ in range(8):
            grams = chance.gauss(19, 2.4)
            marks += [("guess", grams * chance.gauss(1.24 - 0.04 * day, 0.17 - 0.018 * day)), ("piece", grams)]
        drill = BenchSetup(what="dough", total_g=200, pieces=8, tolerance_pct=10, drill=True)
        _bench(kitchen, record, drill, now - timedelta(days=15 - 2 * day), marks)


def _bench(
    kitchen: KitchenRecord,
    record: SheetRecord,
    setup: BenchSetup,
    at: datetime,
    marks: Sequence[tuple[MarkKind, float]],
) -> None:
    bench = kitchen.benches.create(sheet=record, setup=setup.model_dump(mode="json"), drill=setup.drill, began=at)
    told: list[tuple[MarkKind, float | None]] = [*marks, ("closed", None)]
    for i, (kind, grams) in enumerate(told):
        bench.marks.create(
            uid=f"demo-{bench.pk}-{i:03d}",
            at=at + timedelta(seconds=14 * i),
            document={"kind": kind} if grams is None else {"kind": kind, "grams": round(grams, 1)},
        )


def _share(giver: SheetRecord, taker: SheetRecord, settings: Kitchen) -> None:
    """One sheet makes the paste for two."""
    for record, sheet in zip((giver, taker), share_part(giver.sheet, taker.sheet, "filling", settings), strict=True):
        record.document = sheet.model_dump(mode="json")
        record.save(update_fields=["document"])


def next_saturday(now: datetime, zone: Any) -> datetime:
    """Half past three on the first Saturday that leaves a whole day to get ready."""
    day = now.astimezone(zone) + timedelta(days=2)
    day += timedelta(days=(5 - day.weekday()) % 7)
    return day.replace(hour=15, minute=30, second=0, microsecond=0)


def _coming(
    kitchen: KitchenRecord, settings: Kitchen, record: SheetRecord, now: datetime, title: str, people: int
) -> None:
    plan = plan_for(work(record.sheet, settings).steps, settings, serve=next_saturday(now, settings.zone), now=now)
    Occasion.objects.create(
        kitchen=kitchen,
        sheet=record,
        title=title,
        people=people,
        serve=plan.serve,
        plan=plan.model_dump(mode="json"),
    )


def _trial(sheet: Sheet, chance: random.Random) -> Sheet:
    """The sheet as a cook tried it that day: water and sugar a little off, kept near the way's bands."""
    way, facts = WAYS[sheet.way], work(sheet, weir_house()).facts
    spread = (way.hydration.high - way.hydration.low) * 0.17
    sweet = (way.sugar.high - way.sugar.low) * 0.12 if way.form == "tin" else 0.0
    hydration = float(facts["mix.hydration_pct"].value) + chance.gauss(0, spread)
    sugar = float(facts["mix.sugar_pct"].value) + chance.gauss(0, sweet)
    hydration = min(max(hydration, way.hydration.low + 1), way.hydration.high - 1)
    to = Adjustment(by="ratio", hydration_pct=hydration, sugar_pct=max(0.0, sugar))
    try:
        return adjust(sheet, to, weir_house()).sheet
    except Refused:
        return sheet  # a soak does not reach every moisture: made as written


def _past_batch(
    kitchen: KitchenRecord,
    settings: Kitchen,
    record: SheetRecord,
    now: datetime,
    days: int,
    chance: random.Random,
) -> None:
    sheet = _trial(record.sheet, chance)
    worked = work(sheet, settings)
    day = (now - timedelta(days=days)).astimezone(settings.zone)
    began = day.replace(hour=chance.choice((9, 10, 11)), minute=chance.choice((0, 15, 30)), second=0, microsecond=0)
    plan = plan_from(worked.steps, settings, begin=began)
    run = begin(record, sheet, worked, plan, began=began, clock=began, pace=1)
    end = _events(run, plan, chance)
    add_event(run, Event(uid=f"{run.pk}-finished", at=end, kind="finished"))
    run.finished = end
    run.save(update_fields=["finished"])

    way, facts = WAYS[sheet.way], worked.facts
    softness = float(facts["mix.softness"].value) * 1.2 + chance.gauss(0, 0.4)
    sweetness = (float(facts["mix.sugar_pct"].value) - way.midway[1]) / 20 + chance.gauss(0, 0.5)
    third = chance.gauss(0, 0.7)
    tastes = {
        taste.id: max(-2, min(2, round(value)))
        for taste, value in zip(way.tastes, (softness, sweetness, third), strict=True)
    }
    faults = [fault.id for fault in way.faults if fault.evidence and chance.random() < 0.12]
    log_outcome(run, tastes=tastes, faults=faults[:1], note=chance.choice(_NOTES))


def _events(run: Run, plan: Plan, chance: random.Random) -> datetime:
    """Play a plan through with a cook's spread. Returns the last instant."""
    ends: dict[str, datetime] = {}
    at = plan.begin
    for scheduled in plan.scheduled:
        step = scheduled.step
        starts = max([scheduled.starts, *(ends[w.step] for w in step.after if w.step in ends)])
        add_event(run, Event(uid=f"{run.pk}-{step.id}-started", at=starts, kind="started", step=step.id))
        if step.target and chance.random() < 0.7:
            grams = round(step.target.grams * chance.gauss(1, 0.015), 1)
            add_event(
                run,
                Event(uid=f"{run.pk}-{step.id}-weighed", at=starts, kind="weighed", step=step.id, grams=grams),
            )
        spread = chance.gauss(1.04, 0.1) if step.window else chance.gauss(1.05, 0.12)
        ends[step.id] = starts + timedelta(minutes=step.minutes * max(0.7, spread))
        add_event(run, Event(uid=f"{run.pk}-{step.id}-done", at=ends[step.id], kind="done", step=step.id))
        at = max(at, ends[step.id])
    return at


def _in_progress(kitchen: KitchenRecord, settings: Kitchen, record: SheetRecord, now: datetime) -> None:
    """A cake in the steam for twelve minutes now, its heart read once."""
    worked = work(record.sheet, settings)
    trial = plan_from(worked.steps, settings, begin=now)
    steam = next(s for s in trial.scheduled if s.step.id == "steam")
    began = now - (steam.starts - trial.begin) - timedelta(minutes=12)
    plan = plan_from(worked.steps, settings, begin=began)
    run = begin(record, record.sheet, worked, plan, began=began, clock=began, pace=1)
    start = next(s for s in plan.scheduled if s.step.id == "steam").starts
    for scheduled in plan.scheduled:
        if scheduled.ends <= start:
            for kind, at in (("started", scheduled.starts), ("done", scheduled.ends)):
                uid = f"{run.pk}-{scheduled.step.id}-{kind}"
                add_event(run, Event.model_validate({"uid": uid, "at": at, "kind": kind, "step": scheduled.step.id}))
    add_event(run, Event(uid=f"{run.pk}-steam-started", at=start, kind="started", step="steam"))
    core = run.kept.core
    if core:
        # A thermometer found it a tenth behind what was told, nine minutes in.
        celsius = float(np.interp(9.0 / 1.1, core.curve.minutes, core.curve.core_c))
        read = {"uid": f"{run.pk}-steam-probed", "at": start + timedelta(minutes=9), "kind": "probed", "step": "steam"}
        add_event(run, Event.model_validate({**read, "celsius": round(celsius, 1)}))
