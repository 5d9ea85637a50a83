"""Laying the demo out: by the same core that cooks run, from a fixed seed, its dates relative to the day it is loaded."""

from __future__ import annotations

import random
from collections.abc import Sequence
from datetime import datetime, timedelta
from typing import Any

import numpy as np
from django.db import transaction

from kemble.core.cards.ways import WAYS
from kemble.core.change.adjust import Adjustment, adjust
from kemble.core.change.shared_parts import share_part
from kemble.core.facts.problems import Refused
from kemble.core.geometry.hand_moves import PRACTICE
from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.occasion import Helper, Occasion, OccasionDish, Serving
from kemble.core.plan.schedule import Plan, plan_from
from kemble.core.run.events import AnyEvent, event_from
from kemble.core.run.weigh_out import BenchSetup, MarkKind
from kemble.core.run.weighed_pieces import PIECES
from kemble.core.sheet.document import Sheet, sheet_from
from kemble.core.stations.steps import StepResult
from kemble.core.stations.work_sheet import work
from kemble.server.accounts.owner import kitchen_of, local_owner
from kemble.server.demo.weir_house import NOTES, SHEETS, weir_house
from kemble.server.learning.posterior import relearn, see
from kemble.server.models import KitchenRecord, OccasionRecord, SheetRecord
from kemble.server.occasions.occasion_days import check_occasion, kept_day, store_occasion
from kemble.server.runs.records import BatchFeedback, create_sheet, keep_events, log_outcome, run_from
from kemble.server.sheets.work_results import with_fresh_cards

SEED = 1530
PAST_BATCHES = 30
# Which sheets the past batches were made from, over and over: the old favourites most often.
_MADE = (0, 1, 2, 3, 4, 5, 0, 1, 8, 6, 0, 11, 1, 2, 10, 7, 0, 9, 12, 13)


@transaction.atomic
def load(now: datetime) -> KitchenRecord:
    """Fill the local owner's kitchen, which should be empty. The same day gives the same kitchen."""
    kitchen = kitchen_of(local_owner())
    settings = weir_house()
    kitchen.document, kitchen.set_up, kitchen.demo = settings.model_dump(mode="json"), True, True
    kitchen.save()

    chance = random.Random(SEED)  # noqa: S311 (spread for a demo, not a secret)
    serve = next_saturday(now, settings.zone)
    records = [
        create_sheet(kitchen, sheet_from({**document, "serve": f"{serve:%Y-%m-%dT%H:%M}"})) for document in SHEETS
    ]
    named = {record.title: record for record in records}
    _share_paste(named["Half-crushed balls in white bean"], named["Squash rounds with chestnut"], settings)
    for i in range(PAST_BATCHES):
        _past_batch(kitchen, settings, records[_MADE[i % len(_MADE)]], now, 2 + i * 3 + i % 2, chance)
    relearn(kitchen)
    _coming(kitchen, settings, named, now)
    _in_progress(kitchen, settings, named["Barley-malt and pumpkin seed cake"], now)
    _weighed_out(kitchen, named["Walnut and date balls"], now, chance)
    with_fresh_cards(records, settings)  # so that the counter need not wait for them
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


def _share_paste(giver: SheetRecord, taker: SheetRecord, settings: Kitchen) -> None:
    """One sheet makes the paste for two."""
    for record, sheet in zip((giver, taker), share_part(giver.sheet, taker.sheet, "filling", settings), strict=True):
        record.document = sheet.model_dump(mode="json")
        record.save(update_fields=["document"])


def next_saturday(now: datetime, zone: Any) -> datetime:
    """Half past three on the first Saturday that leaves a whole day to get ready."""
    day = now.astimezone(zone) + timedelta(days=2)
    day += timedelta(days=(5 - day.weekday()) % 7)
    return day.replace(hour=15, minute=30, second=0, microsecond=0)


def _coming(kitchen: KitchenRecord, settings: Kitchen, named: dict[str, SheetRecord], now: datetime) -> None:
    """The mending circle's tea: three sheets for one table, and somebody young to help."""
    serve = next_saturday(now, settings.zone)
    wall = "%Y-%m-%dT%H:%M"
    titles = ("Black tea and orange cake", "Walnut and date balls", "Buckwheat honey and squash bake")
    helper = Helper(
        name="Wren",
        begins=(serve - timedelta(hours=4, minutes=30)).strftime(wall),
        ends=(serve - timedelta(hours=1)).strftime(wall),
        safe_only=True,
    )
    occasion = Occasion(
        title="Saturday mending circle",
        servings=(Serving(at=serve.strftime(wall), people=24),),
        dishes=tuple(OccasionDish(sheet=named[title].pk) for title in titles),
        helpers=(helper,),
    )
    record = OccasionRecord(kitchen=kitchen)
    store_occasion(record, check_occasion(kitchen, occasion))
    kept_day(record)


def _trial(sheet: Sheet, settings: Kitchen, chance: random.Random) -> Sheet:
    """The sheet as a cook tried it that day: water and sugar a little off, kept near the way's bands."""
    way, facts = WAYS[sheet.way], work(sheet, settings).facts
    spread = (way.hydration.high - way.hydration.low) * 0.17
    sweet = (way.sugar.high - way.sugar.low) * 0.12 if way.form == "tin" else 0.0
    hydration = float(facts["mix.hydration_pct"].value) + chance.gauss(0, spread)
    sugar = float(facts["mix.sugar_pct"].value) + chance.gauss(0, sweet)
    hydration = min(max(hydration, way.hydration.low + 1), way.hydration.high - 1)
    to = Adjustment(by="ratio", hydration_pct=hydration, sugar_pct=max(0.0, sugar))
    try:
        return adjust(sheet, to, settings).sheet
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
    sheet = _trial(record.sheet, settings, chance)
    worked = work(sheet, settings)
    day = (now - timedelta(days=days)).astimezone(settings.zone)
    began = day.replace(hour=chance.choice((9, 10, 11)), minute=chance.choice((0, 15, 30)), second=0, microsecond=0)
    plan = plan_from(worked.steps, settings, begin=began)
    run = run_from(record, sheet, worked, plan, began=began, clock=began, pace=1)
    run.save()
    events = _simulate_plan(plan, chance)
    keep_events(run, events)
    run.finished = events[-1].at
    run.save(update_fields=["finished"])

    way, facts = WAYS[sheet.way], worked.facts
    softness = float(facts["mix.softness"].value) * 1.2 + chance.gauss(0, 0.4)
    sweetness = (float(facts["mix.sugar_pct"].value) - way.midway[1]) / 20 + chance.gauss(0, 0.5)
    third = chance.gauss(0, 0.7)
    tastes: dict[str, int] = {
        taste: max(-2, min(2, round(value)))
        for taste, value in zip(way.tastes, (softness, sweetness, third), strict=True)
    }
    faults = [fault.id for fault in way.faults if fault.evidence and chance.random() < 0.12]
    log_outcome(run, BatchFeedback(tastes, faults[:1], chance.choice(NOTES)), seen=see(run))


def _simulate_plan(plan: Plan, chance: random.Random) -> list[AnyEvent]:
    """A plan played through with a cook's spread, to its end."""
    ends: dict[str, datetime] = {}
    events = []
    for scheduled in plan.scheduled:
        step = scheduled.step
        starts = max([scheduled.starts, *(ends[w.step] for w in step.after if w.step in ends)])
        events.append(_demo_event(starts, "started", step.id))
        if step.target and step.target.key in PIECES:
            events += _weigh_pieces(starts, step, chance)
        elif step.target and chance.random() < 0.7:
            grams = round(step.target.grams * chance.gauss(1, 0.015), 1)
            events.append(_demo_event(starts, "weighed", step.id, grams=grams))
        spread = chance.gauss(1.04, 0.1) if step.window else chance.gauss(1.05, 0.12)
        ends[step.id] = starts + timedelta(minutes=step.minutes * max(0.7, spread))
        events.append(_demo_event(ends[step.id], "done", step.id))
    return [*events, _demo_event(max(event.at for event in events), "finished")]


def _weigh_pieces(at: datetime, step: StepResult, chance: random.Random) -> list[AnyEvent]:
    """A few for practice, and some more once the hand has found the size."""
    told = step.target.grams if step.target else 0.0
    spreads = [0.13] * PRACTICE + [0.035] * chance.randint(3, 7)
    return [
        _demo_event(at, "weighed", step.id, grams=round(told * chance.gauss(1, off), 1)).model_copy(
            update={"uid": f"demo-{step.id}-weighed-{i}"}
        )
        for i, off in enumerate(spreads)
    ]


def _demo_event(at: datetime, kind: str, step: str | None = None, **more: Any) -> AnyEvent:
    uid = f"demo-{step}-{kind}" if step else f"demo-{kind}"
    return event_from({"kind": kind, "step": step, **more}, uid=uid, at=at)


def _in_progress(kitchen: KitchenRecord, settings: Kitchen, record: SheetRecord, now: datetime) -> None:
    """A cake in the steam for twelve minutes now, its heart read once."""
    worked = work(record.sheet, settings)
    trial = plan_from(worked.steps, settings, begin=now)
    steam = next(s for s in trial.scheduled if s.step.id == "steam")
    began = now - (steam.starts - trial.begin) - timedelta(minutes=12)
    plan = plan_from(worked.steps, settings, begin=began)
    run = run_from(record, record.sheet, worked, plan, began=began, clock=began, pace=1)
    run.save()
    start = next(s for s in plan.scheduled if s.step.id == "steam").starts
    events = [_demo_event(start, "started", "steam")]
    for scheduled in plan.scheduled:
        if scheduled.ends <= start:
            events.append(_demo_event(scheduled.starts, "started", scheduled.step.id))
            events.append(_demo_event(scheduled.ends, "done", scheduled.step.id))
    core = run.kept.core
    if core:
        # A thermometer found it a tenth behind what was told, nine minutes in.
        celsius = float(np.interp(9.0 / 1.1, core.curve.minutes, core.curve.core_c))
        events.append(_demo_event(start + timedelta(minutes=9), "probed", "steam", celsius=round(celsius, 1)))
    keep_events(run, events)
