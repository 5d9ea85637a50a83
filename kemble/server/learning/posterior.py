"""What a kitchen has learned: from the sights of its batches, kept with it, worked anew when the log changes."""

from __future__ import annotations

from functools import lru_cache
from typing import Any

from kemble.core.kitchen.document import Kitchen
from kemble.core.kitchen.estimates import ESTIMATES, EstimateId
from kemble.core.learn.measurement_gain import MadeSheet
from kemble.core.learn.next_time import LEVERS, Lever, TastedBatch
from kemble.core.learn.observations import (
    BatchObservations,
    Observation,
    document_of,
    each_taught_once,
    observation_from,
    observe_run,
)
from kemble.core.learn.pace import paces
from kemble.core.learn.posterior import LearningResult, Prior, learn, prior_of
from kemble.core.sheet.document import Sheet
from kemble.core.stations.work_sheet import work_with_spreads
from kemble.server.models import Batch, KitchenRecord, Run, Tasting
from kemble.server.sheets.work_results import calculation_failed
from kemble.server.storage.fair_lock import WORKING, writing

_HELD_SD = 0.02  # of a row that is kept where it was set back to


def see(run: Run) -> dict[str, Any]:
    """What a run shows of the kitchen, to be kept with its batch."""
    plan, kept = run.plan, run.kept
    end = run.finished or run.clock()
    steps = {scheduled.step.id: scheduled.step for scheduled in plan.scheduled}
    states = {state.id: state for state in run.state(end).steps}
    with WORKING:
        try:
            seen = observe_run(kept.sheet, run.kitchen.settings, steps, states, run.log)
        except Exception:  # the batch is logged all the same, and teaches nothing
            calculation_failed(kept.sheet)
            seen = BatchObservations([], [], {})
    facts = kept.facts
    ratios = {name: facts[f"mix.{name}"].value for name in LEVERS if f"mix.{name}" in facts}
    return {
        **document_of(seen),
        "ratios": ratios,
        "compared": [prediction.model_dump(mode="json") for prediction in run.compared],
    }


def priors_of(kitchen: KitchenRecord) -> dict[EstimateId, Prior]:
    """What is known of the table before any making: what was measured here; and rows that were set back, held there."""
    settings = kitchen.typed
    priors_by_estimate_id = {name: prior_of(ESTIMATES[name], own) for name, own in settings.estimates.items()}
    for name in kitchen.learnt.get("held", []):
        if name in ESTIMATES:
            priors_by_estimate_id[name] = Prior(priors_by_estimate_id.get(name, Prior()).mean, _HELD_SD)
    return priors_by_estimate_id


def batches_of(kitchen: KitchenRecord) -> list[Batch]:
    """The batches that teach: made in earnest, in the log, and not left out. Oldest first."""
    return list(
        Batch.objects.filter(kitchen=kitchen, rehearsed=False, left_out=False)
        .only("id", "seen", "title", "made", "kitchen_id")
        .order_by("made", "id")
    )


def observations_in(batch: Batch) -> list[Observation]:
    return [observation_from(item) for item in batch.seen.get("sights", [])]


def learn_from_batches(kitchen: KitchenRecord, batches: list[Batch] | None = None) -> LearningResult:
    """All that its batches say, from the beginning: the order they came in does not matter."""
    found_batches = batches_of(kitchen) if batches is None else batches
    return learn(each_taught_once([observations_in(batch) for batch in found_batches]), priors_of(kitchen))


def relearn(kitchen: KitchenRecord) -> None:
    """Work anew what the kitchen has learned, and keep it."""
    batches = batches_of(kitchen)
    result = learn_from_batches(kitchen, batches)
    logs: dict[str, list[float]] = {}
    for batch in batches:
        for step, log in batch.seen.get("paces", {}).items():
            logs.setdefault(step, []).append(log)
    learnt = {
        **kitchen.learnt,
        "learned": {name: learned_value.model_dump(mode="json") for name, learned_value in result.known().items()},
        "together": [learned_correlation.model_dump(mode="json") for learned_correlation in result.together()],
        "pace": paces(logs),
    }
    if learnt != kitchen.learnt:
        kitchen.learnt = learnt
        with writing():
            KitchenRecord.objects.filter(pk=kitchen.pk).update(learnt=learnt)


@lru_cache(maxsize=64)
def _heat_of(sheet_json: str, kitchen_json: str) -> MadeSheet | None:
    sheet, kitchen = Sheet.model_validate_json(sheet_json), Kitchen.model_validate_json(kitchen_json)
    with WORKING:
        try:
            worked, spreads = work_with_spreads(sheet, kitchen)
        except Exception:
            calculation_failed(sheet)
            return None
    heat = spreads.get("heat.done_min")
    return MadeSheet(sheet.title, heat) if heat and not worked.problems else None


def made_here(kitchen: KitchenRecord, most: int = 12) -> list[MadeSheet]:
    """The sheets that were worked on last, with what their heat hangs on by the craft's own table."""
    plain = kitchen.typed.model_copy(update={"estimates": {}, "time_factor": 1.0})
    document = plain.model_dump_json()
    made_sheets = [
        _heat_of(row.sheet.model_dump_json(), document) for row in kitchen.sheets.order_by("-changed")[:most]
    ]
    return [made_sheet for made_sheet in made_sheets if made_sheet is not None]


def tasted_of(kitchen: KitchenRecord, way: str) -> list[TastedBatch]:
    """Every tasting of a way's batches, the cook's own and everybody else's, with the ratios of its batch."""
    batches = Batch.objects.filter(kitchen=kitchen, way=way, rehearsed=False)
    others: dict[int, list[dict[str, int]]] = {}
    for batch, tastes in Tasting.objects.filter(batch__in=batches).values_list("batch_id", "tastes"):
        others.setdefault(batch, []).append(tastes)
    tasteds = []
    # Thousands of rows, and of their long documents one number: it is read by the database.
    rows = batches.values_list("id", "tastes", "hydration_pct", "sugar_pct", "run__sheet_id", "seen__ratios__fat_pct")
    for batch, own, hydration, sugar, sheet, fat in rows:
        ratios: dict[Lever, float] = {"hydration_pct": hydration, "sugar_pct": sugar, "fat_pct": float(fat or 0.0)}
        tasteds += [TastedBatch(sheet or 0, ratios, marks) for marks in (own, *others.get(batch, ())) if marks]
    return tasteds


def marks_of_sheet(kitchen: KitchenRecord, batch: Batch) -> list[dict[str, int]]:
    """Every tongue on a batch and on the others of its sheet; on it alone where its sheet is gone."""
    if batch.run.sheet_id is None:
        rows = Batch.objects.filter(pk=batch.pk)
    else:
        rows = Batch.objects.filter(kitchen=kitchen, run__sheet_id=batch.run.sheet_id, rehearsed=False)
    return [marks for row in rows.only("id", "tastes").prefetch_related("tastings") for marks in row.marks]


def ratios_of(batch: Batch) -> dict[Lever, float]:
    """A batch's own ratios; of one of before its fat was kept, none."""
    told = batch.seen.get("ratios", {})
    return {
        "hydration_pct": batch.hydration_pct,
        "sugar_pct": batch.sugar_pct,
        "fat_pct": float(told.get("fat_pct", 0.0)),
    }
