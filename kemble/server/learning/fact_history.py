"""One fact of every batch of a way, as the log has it: what was compared, counted, tasted, and any fact as it was told."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from statistics import fmean
from typing import Any, NamedTuple

from django.db.models import QuerySet
from django.db.models.fields.json import KeyTransform

from kemble.core.cards.taste_scales import SCALES
from kemble.core.cards.ways import WAYS
from kemble.core.facts.vocabulary import KEYS, vocabulary_key
from kemble.core.log.drift import DriftPoint
from kemble.core.log.predictions import VERDICT_BY
from kemble.core.sentences import say
from kemble.server.models import Batch, KitchenRecord

MOST = 300  # of a way, the newest
_HAPPENED, _TOLD, _TASTE = "happened:", "told:", "taste:"
_COLUMNS: Mapping[str, tuple[str, str]] = {
    "hydration_pct": ("Effective hydration", "%"),
    "sugar_pct": ("Sugar to flour", "%"),
    "pieces": ("Pieces counted", ""),
    "grams": ("All of it weighed", "g"),
}


class OfferedFact(NamedTuple):
    """A fact that can be asked for; `near` one that is asked for often."""

    id: str
    label: str
    unit: str
    near: bool


def batches_of_way(kitchen: KitchenRecord, way: str) -> QuerySet[Batch]:
    """The newest of a way that were made in earnest, with what was tasted of them."""
    rows = Batch.objects.filter(kitchen=kitchen, way=way, rehearsed=False).order_by("-made", "-id")
    return rows.select_related("run").defer("run__frozen").prefetch_related("tastings")[:MOST]


def offered(rows: Sequence[Batch]) -> list[OfferedFact]:
    """What can be asked of a way's batches: what happened first, then tastes, then what was told; what is near first."""
    result: dict[str, OfferedFact] = {}
    for batch in rows:
        for prediction in batch.compared:
            name = f"{_HAPPENED}{prediction.step}:{prediction.unit}"
            result.setdefault(
                name, OfferedFact(name, _capital(prediction.label), prediction.unit, near=prediction.low is not None)
            )
    for name, (label, unit) in _COLUMNS.items():
        if any(getattr(batch, name) is not None for batch in rows):
            result[name] = OfferedFact(name, label, unit, near=True)
    if rows:
        result["liking"] = OfferedFact("liking", say("Liked, 1 to 9"), "", near=True)
        for taste in WAYS[rows[0].way].scales:
            scale = SCALES[taste]
            name = f"{_TASTE}{taste}"
            label = say(
                "{too_little} (-2) to {too_much} (2)", too_little=_capital(scale.too_little), too_much=scale.too_much
            )
            result[name] = OfferedFact(name, label, "", near=taste == VERDICT_BY)
        for key, fact in rows[0].run.kept.facts.items():
            if not isinstance(fact.value, str) and vocabulary_key(key) in KEYS:
                name = f"{_TOLD}{key}"
                result[name] = OfferedFact(
                    name, say("{label}, as told", label=_capital(fact.label)), fact.unit, near=False
                )
    return sorted(result.values(), key=lambda item: not item.near)


def _capital(words: str) -> str:
    return words[:1].upper() + words[1:]


def points_of(rows: QuerySet[Batch], of: str) -> list[DriftPoint]:
    """The fact `of` each batch that has it, oldest first."""
    if of.startswith(_TOLD):
        key = of.removeprefix(_TOLD)
        value = KeyTransform("value", KeyTransform(key, KeyTransform("facts", "run__frozen")))
        told = rows.annotate(one_fact=value).values_list("pk", "title", "made", "one_fact")
        result = [(pk, title, made, number) for pk, title, made, number in told if isinstance(number, int | float)]
        return [
            DriftPoint(batch=pk, title=title, made=made, value=number) for pk, title, made, number in reversed(result)
        ]
    points = [_drift_point(batch, of) for batch in reversed(rows)]
    return [point for point in points if point is not None]


def _drift_point(batch: Batch, of: str) -> DriftPoint | None:
    if of.startswith(_HAPPENED):
        step, unit = of.removeprefix(_HAPPENED).rsplit(":", 1)
        prediction = next(
            (prediction for prediction in batch.compared if (prediction.step, prediction.unit) == (step, unit)), None
        )
        if prediction is None:
            return None
        told = {"told": prediction.predicted, "low": prediction.low, "high": prediction.high}
        return DriftPoint(batch=batch.pk, title=batch.title, made=batch.made, value=prediction.happened, **told)
    value = _fact_value(batch, of)
    return None if value is None else DriftPoint(batch=batch.pk, title=batch.title, made=batch.made, value=value)


def _fact_value(batch: Batch, of: str) -> float | None:
    if of == "liking":
        return mean([tasting.liking for tasting in batch.tastings.all() if tasting.liking is not None])
    if of.startswith(_TASTE):
        taste = of.removeprefix(_TASTE)
        return mean([marks[taste] for marks in batch.marks if taste in marks])
    value: Any = getattr(batch, of, None) if of in _COLUMNS else None
    return None if value is None else float(value)


def mean(values: Sequence[int]) -> float | None:
    return fmean(values) if values else None
