"""What really went into a batch: the weighings and additions of a run, and everything recalculated from them."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from kemble.core.computing_guard import computes
from kemble.core.facts.fact import Fact, FactChange, number_of, ripple
from kemble.core.facts.problems import Refused, refuse
from kemble.core.facts.vocabulary import PartId
from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.schedule import Plan
from kemble.core.run.event_fold import events_that_count
from kemble.core.run.events import AddedIngredient, AnyEvent
from kemble.core.run.weighed_pieces import BASE_PIECES, weighed_pieces
from kemble.core.sentences import say
from kemble.core.sheet.document import Sheet, sheet_from
from kemble.core.stations.work_sheet import WorkResult, work

_BATCH, _COOKED, _SOAKED = "mix.batch_g", "mix.cooked_g", "grain.soaked_g"
_AS_TOLD = 0.01  # a weight so near to what was told moves nothing
_PIECES_OFF = 0.03  # pieces that are so far off on the mean come out in another number
# What a cook wants to know of what moved, the most telling first; all else follows silently.
_TOLD = (
    "shape.pieces",
    "shape.piece_g",
    "shape.base_g",
    "shape.depth_mm",
    "mix.hydration_pct",
    "mix.sugar_pct",
    "heat.done_min",
    "heat.all_loads_min",
    "rest.cut_after_min",
    "grain.cook_water_g",
)
_MOST_TOLD = 4


@dataclass(frozen=True, slots=True)
class ActualBatch:
    """The sheet with what was added, and the facts that a scale has shown, in grams, pans taken off."""

    sheet: Sheet
    weighed: Mapping[str, float]


@dataclass(frozen=True, slots=True)
class RecalculatedRun:
    """The making by what was weighed and added: all of it worked anew, what moved against before, and that in words."""

    worked: WorkResult
    moved: Sequence[FactChange]
    says: Sequence[str]


def with_added(sheet: Sheet, added: Sequence[AddedIngredient]) -> Sheet:
    """The sheet with additions as lines: more of a line where it is in grams, else one of its own.

    Raises Refused for an ingredient that is not in the larder, and for a part that the sheet does not have.
    """
    if not added:
        return sheet
    document = sheet.model_dump(mode="json")
    for added_ingredient in added:
        part = next((part for part in document["parts"] if part["id"] == added_ingredient.part), None)
        if part is None:
            refuse(
                "added.part",
                say("the sheet has no {part}", part=added_ingredient.part),
                ", ".join(part["id"] for part in document["parts"]),
            )
        line = next(
            (
                line
                for line in part["lines"]
                if line["ingredient"] == added_ingredient.ingredient and _is_plain_line(line)
            ),
            None,
        )
        if line:
            line["amount"]["value"] = round(line["amount"]["value"] + added_ingredient.grams, 3)
        else:
            part["lines"].append(
                {"ingredient": added_ingredient.ingredient, "amount": {"value": added_ingredient.grams, "unit": "g"}}
            )
    return sheet_from(document)


def _is_plain_line(line: Mapping[str, Any]) -> bool:
    return line["amount"]["unit"] == "g" and not line.get("splits") and not line.get("joins")


def actual(sheet: Sheet, kitchen: Kitchen, plan: Plan, events: Sequence[AnyEvent]) -> ActualBatch:
    """What the events say was in it: the newest weighing of each thing, and with it what was put in after that."""
    targets = {
        scheduled_step.step.id: scheduled_step.step.target
        for scheduled_step in plan.scheduled
        if scheduled_step.step.target
    }
    weighed: dict[str, float] = {}
    added: list[AddedIngredient] = []
    for event in events_that_count(plan, events):
        if event.kind == "added":
            added.append(event.added)
            for key in _holding(event.added.part):
                if key in weighed:
                    weighed[key] += event.added.grams
        elif event.kind == "weighed" and event.step in targets:
            target = targets[event.step]
            key, grams = _off_the_pan(target.key, event.grams, sheet, kitchen)
            if key in (_BATCH, _COOKED, _SOAKED) or key.startswith("part."):
                weighed[key] = grams + target.beyond_g
    return ActualBatch(with_added(sheet, added), weighed)


def _holding(part: PartId) -> tuple[str, ...]:
    """The weighings that what is put into a part afterwards makes heavier."""
    return (_BATCH, _COOKED) if part == "base" else (f"part.{part}.made_g",)


def _off_the_pan(key: str, grams: float, sheet: Sheet, kitchen: Kitchen) -> tuple[str, float]:
    """A reading with a pan on the scale as one without: the fact it stands for, and its grams."""
    if not key.endswith(".scale_g"):
        return key, grams
    part_id = "base" if key.startswith("mix.") else key.split(".")[1]
    name = next((part.pan for part in sheet.parts if part.id == part_id), "")
    pan = next((pan.empty_g for pan in kitchen.pans if pan.name == name), 0.0)
    bare = _COOKED if part_id == "base" else f"part.{part_id}.made_g"
    return bare, max(0.1, grams - pan)


@computes
def reworked(
    sheet: Sheet,
    kitchen: Kitchen,
    plan: Plan,
    events: Sequence[AnyEvent],
    told: Mapping[str, Fact],
    now: Mapping[str, Fact],
) -> RecalculatedRun | None:
    """Everything that follows from what was weighed and added; None when that is as it goes already.

    `told` are the facts that it began with, `now` those by which it goes. Raises Refused where it cannot be worked any
    more.
    """
    really = actual(sheet, kitchen, plan, events)
    off = {
        key: grams
        for key, grams in really.weighed.items()
        if key not in told or abs(grams / max(0.1, number_of(told, key)) - 1) > _AS_TOLD
    }
    pieces = _piece_count_words(plan, events, now)
    if not off and really.sheet == sheet and now is told and not pieces:
        return None
    worked = work(really.sheet, kitchen, off)
    if worked.problems:
        raise Refused(worked.problems)
    moved = ripple(now, worked.facts)
    if not moved and not pieces:
        return None
    by_key = {change.key: change for change in moved}
    says = [_change_words(by_key[key]) for key in _TOLD if key in by_key][:_MOST_TOLD]
    return RecalculatedRun(worked, moved, [*says, *pieces])


def _change_words(change: FactChange) -> str:
    was, now = (
        "none"
        if value is None
        else value
        if isinstance(value, str)
        else f"{value:.{change.decimals}f} {change.unit}".strip()
        for value in (change.old, change.new)
    )
    return say(
        "{first}{others} {now}, not {was}.", first=change.label[:1].upper(), others=change.label[1:], now=now, was=was
    )


def _piece_count_words(plan: Plan, events: Sequence[AnyEvent], before: Mapping[str, Fact]) -> list[str]:
    """How many pieces it makes by those that were weighed, where that is another number than was told."""
    weighed = {
        each_weighed_pieces.key: each_weighed_pieces.mean_g for each_weighed_pieces in weighed_pieces(plan, events)
    }
    for key in BASE_PIECES:
        if key not in weighed or key not in before or "shape.pieces" not in before:
            continue
        told, count, mean = number_of(before, key), round(number_of(before, "shape.pieces")), weighed[key]
        if told <= 0 or abs(mean / told - 1) <= _PIECES_OFF:
            continue
        makes = max(1, round(count * told / mean))
        if makes != count:
            return [
                say(
                    "At {mean:.0f} g a piece, not {told:.0f}, it makes {makes}, not {count}.",
                    mean=mean,
                    told=told,
                    makes=makes,
                    count=count,
                )
            ]
    return []
