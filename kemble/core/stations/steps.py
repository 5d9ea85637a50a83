"""The steps of a sheet: those of its parts, then its way's, as schools and parts call for, with minutes from the facts."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import partial
from typing import Any, Literal

from pydantic import BaseModel, ConfigDict, model_validator

from kemble.core.cards.card_contract import MADE
from kemble.core.cards.card_parts import Looks, Step, StepDependency, Work
from kemble.core.facts.fact import FactBook
from kemble.core.facts.quantity import household
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.facts.vocabulary import PartRole
from kemble.core.kitchen.document import Kitchen
from kemble.core.kitchen.estimates import EstimateId
from kemble.core.sentences import Words, say, translate
from kemble.core.sheet.bowl import Contribution, WeighedLine
from kemble.core.stations.calculation import Calculation
from kemble.core.stations.cautions import cautions_of_ingredients
from kemble.core.stations.claims import Amounts, Ingoing, StepOnSheet, offers_of_part, settle_claims
from kemble.core.stations.finished_cake import goes_on_pieces
from kemble.core.stations.heat.heat_stages import HeatStageResult
from kemble.core.stations.ledger import LedgerStep, VesselEntry, fold_ledger, shown_on_scale, vessels_emptied
from kemble.core.stations.reading_bounds import ReadingBounds, bounds_of
from kemble.core.stations.staged_steps import staged_steps
from kemble.core.stations.way_steps import followed, own_steps


class TextModel(BaseModel):
    model_config = ConfigDict(frozen=True)


class CueResult(TextModel):
    question: Words
    how: Words
    yes: Words
    no: Words
    looks: Looks


class StepWait(TextModel):
    """This step begins at least and at most so many minutes after `step` has ended."""

    step: str
    at_least: float
    at_most: float | None


class DonenessWindow(TextModel):
    """Minutes from the step's start."""

    first_check: float
    done: float
    latest: float


class MinutesRange(TextModel):
    """Minutes that a step lasts at the least and at the most."""

    least: float
    most: float


class WeightTarget(TextModel):
    """What the scale should show. `beyond_g`: what its fact counts beyond that, since it joins later; negative where more lies
    on the scale than the fact counts."""

    key: str
    label: Words
    grams: float
    beyond_g: float = 0.0  # kept plans of before have none


class RhythmResult(TextModel):
    """What is done again and again while a step goes on."""

    every_s: int
    says: Words


class CountResult(TextModel):
    """What is counted while it is done."""

    of: int
    what: Words


class IngredientToHand(TextModel):
    """One ingredient to have ready: grams, the household measure nearest to it, where its shares go, and at which moment of the
    step it goes in. `held_back`: what of its line is kept back, and what for."""

    name: Words
    grams: float
    household: str
    splits: list[str]
    act: Words = ""  # kept runs of before have neither
    held_back: Words = ""


class StepResult(TextModel):
    """One step with its minutes. `hands`: held takes a cook whole, minded a little, free not at all.

    `asks` is what must be so before it begins; empty when nothing is. `hangs`: of what nobody knows of its minutes, the
    signed share of each estimate in their standard deviation, so that steps which hang on the same are late together.
    """

    id: str
    part: PartRole | None = None  # that it makes; kept runs of before do not say
    title: Words
    words: Words
    asks: Words = ""  # kept runs of before have none
    minutes: float
    fact: str = ""  # that its minutes go by, where they go by one
    hands: Literal["held", "minded", "free"]
    work: Work = "safe"  # kept runs of before have neither this nor tools
    tools: list[Words] = []
    uses: list[str]
    after: list[StepWait]
    cue: CueResult | None
    between: MinutesRange | None = None  # of a time that is told with a range
    window: DonenessWindow | None
    hangs: dict[EstimateId, float] = {}  # kept plans of before have none
    target: WeightTarget | None
    to_hand: list[IngredientToHand]
    vessel: VesselEntry | None = None  # kept plans of before have none
    cautions: list[str]
    rhythm: RhythmResult | None = None
    count: CountResult | None = None
    bounds: ReadingBounds | None = None

    @model_validator(mode="before")
    @classmethod
    def _one_caution(cls, data: Any) -> Any:
        """Plans that were kept when a step had one caution, or none, open still."""
        if isinstance(data, dict) and "caution" in data:
            item = data["caution"]
            return {**{k: v for k, v in data.items() if k != "caution"}, "cautions": [item] if item else []}
        return data


@dataclass(frozen=True, slots=True)
class _SheetStep:
    """A card's step on this sheet: its id here, the part it belongs to, what its card's names stand for here, and what goes
    in at it."""

    id: str
    step: Step
    role: PartRole | None
    names: Mapping[str, str]
    goes_in: Sequence[Ingoing] = ()


def steps_of(calculation: Calculation, stages: Sequence[HeatStageResult], amounts: Amounts) -> list[StepResult]:
    """The steps in working order, a heat in `stages` as so many. A step left out hands its predecessors on to those that
    waited for it. `amounts` are what soak and heat bring or take, in grams."""
    way_steps = [_in_its_school(step, partial(followed, calculation)) for step in calculation.way.steps]
    placed = _sheet_steps(calculation, staged_steps(calculation, way_steps, stages), amounts)
    kept = {sheet_step.id: sheet_step for sheet_step in placed if _called_for(sheet_step, calculation)}
    ledger_steps = _ledger_steps(placed, kept)
    waits = _step_waits(placed, kept, {each.id: (each.step.at, *each.tips) for each in ledger_steps if each.step.at})
    last = placed[-1].id
    entries = fold_ledger(
        ledger_steps,
        calculation.bowl,
        calculation.fact_book,
        amounts,
        _left_over(calculation),
    )
    to_hand = _to_hand(kept.values(), calculation)
    return [
        _step_result(
            sheet_step,
            calculation,
            waits[sheet_step.id],
            stages,
            entries.get(sheet_step.id),
            to_hand[sheet_step.id],
            is_last=sheet_step.id == last,
        )
        for sheet_step in kept.values()
    ]


def _left_over(calculation: Calculation) -> dict[PartRole, float]:
    """Grams of what goes into, round or over the pieces that none of them takes."""
    if calculation.sheet.in_tray or "shape.pieces" not in calculation.fact_book:
        return {}
    return {
        output.role: output.rest - grams for output, grams in goes_on_pieces(calculation) if output.rest - grams > 0
    }


def _ledger_steps(placed: Sequence[_SheetStep], kept: Mapping[str, _SheetStep]) -> list[LedgerStep]:
    steps: list[LedgerStep] = []
    left_out: dict[PartRole | None, list[Step]] = {}
    filled: dict[PartRole | None, set[str]] = {}
    for each in placed:
        if each.id not in kept:
            left_out.setdefault(each.role, []).append(each.step)
            continue
        tips = vessels_emptied(each.step, filled.setdefault(each.role, set()), left_out.get(each.role, ()))
        steps.append(LedgerStep(each.id, each.step, each.role, each.goes_in, tips))
        filled[each.role].add(each.step.at)
    return steps


def _sheet_steps(calculation: Calculation, way_steps: Sequence[Step], amounts: Amounts) -> list[_SheetStep]:
    """The steps of every part that is made here, then the way's own."""
    sheet_steps: list[_SheetStep] = []
    last_of: dict[PartRole, str] = {}

    def is_called(step: Step, role: PartRole | None = None) -> bool:
        return _called_for(_SheetStep(step.id, step, role, {}), calculation)

    made = {
        role
        for role, bowl in calculation.bowl.parts.items()
        if bowl.family and not bowl.part.made_on and any(is_called(step, role) for step in bowl.family.steps)
    }
    for role in calculation.bowl.order:
        bowl = calculation.bowl.parts[role]
        if bowl.family is None or bowl.part.made_on:
            continue
        names = {step.id: f"{role}-{step.id}" for step in bowl.family.steps}
        claims = settle_claims(
            offers_of_part(calculation.bowl, bowl, made.__contains__),
            [
                StepOnSheet(step.id, step, is_called(step, role), partial(_school_followed_by, calculation, role))
                for step in bowl.family.steps
            ],
            {},
        )
        for step in bowl.family.steps:
            going = claims.get(step.id, ())
            own = _in_its_school(step, partial(_school_followed_by, calculation, role))
            sheet_steps.append(_SheetStep(names[step.id], own, role, {**names, **_last_step_by_role(last_of)}, going))
        last_of[role] = names[bowl.family.steps[-1].id]
    of_way, claims = own_steps(calculation, way_steps, last_of, is_called, made.__contains__, amounts)
    names = {**{step.id: step.id for step in of_way}, **_last_step_by_role(last_of)}
    sheet_steps.extend(_SheetStep(step.id, step, None, names, claims.get(step.id, ())) for step in of_way)
    return sheet_steps


def _in_its_school(step: Step, followed: Callable[[str], str]) -> Step:
    """The step as its card says it under the schools that are followed."""
    for variant in step.variants:
        if followed(variant.choice) == variant.school:
            step = replace(step, **variant.changes)
    return step


def _last_step_by_role(last_of: Mapping[PartRole, str]) -> dict[str, str]:
    return {str(role): step for role, step in last_of.items()}


def _called_for(sheet_step: _SheetStep, calculation: Calculation) -> bool:
    step, fact_book = sheet_step.step, calculation.fact_book
    if any(_school_followed(sheet_step, choice, calculation) not in schools for choice, schools in step.when.items()):
        return False
    if step.part is not None and step.part not in calculation.bowl.parts:
        return False
    if step.needs:
        contributions = calculation.bowl.parts[sheet_step.role or "base"].contributions
        if not any(name in step.needs for each in contributions for name in _kinds(each)):
            return False
    fact = _fact(sheet_step)
    if fact is not None:
        return fact in fact_book and (fact_book.number(fact) > 0 or step.minutes.fixed > 0)
    return True


def _kinds(contribution: Contribution) -> tuple[str, ...]:
    """What a step may need: the ingredient, its group, what has a soak of its own, and of beans those that are still dry."""
    item, line = contribution.item, contribution.weighed
    soaking = ("soaking",) if line and line.line.soak_min else ()
    dry = ("dry-legume",) if item.group == "legume" and "cooked" not in item.tags else ()
    return (item.id, item.group, *soaking, *dry)


def _school_followed(sheet_step: _SheetStep, choice: str, calculation: Calculation) -> str:
    """What is followed: a part's step goes by its part's schools, the way's by the sheet's."""
    if sheet_step.role is None:
        return followed(calculation, choice)
    return _school_followed_by(calculation, sheet_step.role, choice)


def _school_followed_by(calculation: Calculation, role: PartRole, choice: str) -> str:
    bowl = calculation.bowl.parts[role]
    assert bowl.family is not None
    return bowl.family.school(bowl.part.schools, choice)


def _step_waits(
    placed: Sequence[_SheetStep], kept: Mapping[str, _SheetStep], vessels: Mapping[str, Sequence[str]]
) -> dict[str, list[StepDependency]]:
    """What each step waits for: what its card says, and whatever last filled one of its `vessels`, its own and those that it
    empties. In place of a step that is not called for it waits for what that waited for.

    Beside steps that are called for, those further back only keep the order: how long they may lie was said of
    another path. One pass: a step follows the ones that it names.
    """
    waits: dict[str, list[StepDependency]] = {}
    before: dict[str, set[str]] = {}
    filled_by: dict[tuple[PartRole | None, str], str] = {}
    for sheet_step in placed:
        named = [
            (sheet_step.names[after.step], after) for after in sheet_step.step.after if after.step in sheet_step.names
        ]
        here = [StepDependency(name, after.at_least, after.at_most) for name, after in named if name in kept]
        # Where one of them follows another, that other was named for when this one is left out: it is waited for already.
        here = [wait for wait in here if not any(wait.step in before[other.step] for other in here)]
        further = list(dict.fromkeys(wait for name, _ in named if name not in kept for wait in waits[name]))
        if here:
            known = {wait.step for wait in here}.union(*(before[wait.step] for wait in here))
            further = [StepDependency(wait.step) for wait in further if wait.step not in known]
        own = [*here, *further]
        behind = {wait.step for wait in own}.union(*(before[wait.step] for wait in own))
        for name in _used_by(sheet_step, kept, waits, vessels.get(sheet_step.id, ()), filled_by):
            if name not in behind:
                own.append(StepDependency(name))
                behind |= {name, *before[name]}
        if sheet_step.id in vessels:
            filled_by[sheet_step.role, sheet_step.step.at] = sheet_step.id
        waits[sheet_step.id], before[sheet_step.id] = own, behind
    return waits


def _used_by(
    sheet_step: _SheetStep,
    kept: Mapping[str, _SheetStep],
    waits: Mapping[str, Sequence[StepDependency]],
    vessels: Sequence[str],
    filled_by: Mapping[tuple[PartRole | None, str], str],
) -> Iterator[str]:
    """The steps that made what a step uses: the last of each part that goes in at it, and what filled its vessels."""
    for role in dict.fromkeys(ingoing.role for ingoing in sheet_step.goes_in):
        last = sheet_step.names.get(role) if role else None
        if last is not None:
            yield from [last] if last in kept else [wait.step for wait in waits.get(last, ())]
    for vessel in vessels:
        if (sheet_step.role, vessel) in filled_by:
            yield filled_by[sheet_step.role, vessel]


def _fact(sheet_step: _SheetStep) -> str | None:
    """The fact that the step's minutes come from; a part's card says * where its role stands."""
    fact = sheet_step.step.minutes.fact
    return fact.replace("*", sheet_step.role) if fact and sheet_step.role else fact


def _step_minutes(sheet_step: _SheetStep, fact_book: FactBook, kitchen: Kitchen) -> float:
    minutes, fact = sheet_step.step.minutes, _fact(sheet_step)
    pieces = next((fact_book.number(key) for key in ("shape.pieces", "cut.pieces") if key in fact_book), 0.0)
    total = (minutes.fixed + minutes.per_piece * pieces) * kitchen.pace.get(sheet_step.id, 1.0)
    if fact:
        total += fact_book.number(fact)
    return total


def _minutes_range(sheet_step: _SheetStep, fact_book: FactBook, kitchen: Kitchen) -> MinutesRange | None:
    key = _fact(sheet_step)
    fact = fact_book.facts.get(key) if key else None
    if fact is None or fact.low is None or fact.high is None or not isinstance(fact.value, float):
        return None
    beside = _step_minutes(sheet_step, fact_book, kitchen) - fact.value
    return unchecked_model(MinutesRange, least=beside + fact.low, most=beside + fact.high)


def _to_hand(sheet_steps: Iterable[_SheetStep], calculation: Calculation) -> dict[str, list[IngredientToHand]]:
    """By step what is to hand at it. What is held back of a line is told where the line first goes in."""
    seen: set[str] = set()
    result: dict[str, list[IngredientToHand]] = {}
    for sheet_step in sheet_steps:
        items = []
        for ingoing in sheet_step.goes_in:
            ref = ingoing.contribution.ref
            items.append(_ingredient_to_hand(ingoing, calculation, is_first=ref not in seen))
            seen.add(ref)
        result[sheet_step.id] = items
    return result


def _ingredient_to_hand(ingoing: Ingoing, calculation: Calculation, *, is_first: bool) -> IngredientToHand:
    contribution = ingoing.contribution
    line = contribution.weighed
    density = line.g_per_ml if line else contribution.item.g_per_ml
    near = household(round(ingoing.grams, 3), g_per_ml=density, spoons=calculation.shelf.spoons)
    here = [share for share in line.shares if share.at and share.joins == contribution.joins] if line else []
    return unchecked_model(
        IngredientToHand,
        name=contribution.item.name,
        grams=ingoing.grams,
        household=near.text if near else "",
        splits=[
            say("{grams} {at}", grams=calculation.weight(share.grams * ingoing.share), at=share.at) for share in here
        ],
        act=ingoing.act,
        held_back=_held_back(line, calculation) if line and is_first else "",
    )


def _held_back(line: WeighedLine, calculation: Calculation) -> str:
    if line.reserve_g <= 0:
        return ""
    grams = calculation.weight(line.reserve_g)
    if line.line.reserve_for:
        return say("hold back {grams}: {reserve_for}", grams=grams, reserve_for=line.line.reserve_for)
    return say("hold back {grams}", grams=grams)


# A step over a burner that a school takes elsewhere: by the choice and the school, what it stands on instead.
_ELSEWHERE = {("cook", "microwave"): "microwave", ("grain", "cooker"): "cooker"}
# What a step is done in by one school only: by the step, the choice and the school.
_DONE_IN = {("pound", "pound", "machine"): "machine", ("toast", "puff", "glow"): "glow"}
_COLD_C = 12.0  # a soak no warmer than this stands in the fridge


def _resources_used(sheet_step: _SheetStep, calculation: Calculation) -> list[str]:
    """What the step stands on: as its card says, or where its school takes it; a steamer on a burner, unless it has a machine of
    its own; and the steamer, pot or pan that the sheet names."""
    uses: list[str] = list(sheet_step.step.uses)
    for (choice, school), thing in _ELSEWHERE.items():
        if (
            school in sheet_step.step.when.get(choice, ())
            and _school_followed(sheet_step, choice, calculation) == school
        ):
            uses = [thing, *(use for use in uses if use != "burner")]
    for (step, choice, school), thing in _DONE_IN.items():
        if sheet_step.step.id == step and _school_followed(sheet_step, choice, calculation) == school:
            uses = [*(use for use in uses if use != "burner"), thing]
    if "glow" in uses:  # a toaster where there is one: the oven is free then
        uses = [use if use != "glow" else "toaster" if calculation.kitchen.toasters else "oven" for use in uses]
    if sheet_step.step.id == "soak" and calculation.sheet.grain.soak_c <= _COLD_C:
        uses = ["fridge"]
    if "steamer" in uses:
        own = calculation.steamer.watts is not None
        uses = [use for use in uses if use != "burner"] if own else list(dict.fromkeys(["burner", *uses]))
    named = calculation.sheet.heat.vessel
    if "steamer" in uses and calculation.no_other_steamer:
        uses.append(f"steamer:{calculation.steamer.name}")
    elif (
        named
        and "burner" in uses
        and sheet_step.step.window
        and sheet_step.role is None
        and calculation.pot.name == named
    ):
        uses.append(f"pot:{named}")
    pan = calculation.bowl.parts[sheet_step.role].part.pan if sheet_step.role else calculation.bowl.base.part.pan
    if pan and "burner" in uses:
        uses.append(f"pan:{pan}")
    return uses


_A_CRUMB_G = 0.001
# What the scale shows of the base goes by the ledger: what joins at a later step is not on it yet.
_BY_LEDGER = ("mix.batch_g", "mix.cooked_g", "mix.scale_g", "grain.soaked_g", "grain.cook_water_g")


def _weight_target(sheet_step: _SheetStep, calculation: Calculation, entry: VesselEntry | None) -> WeightTarget | None:
    """What the scale should show: a fact, or for a part what it weighs when done, with its pan where that is known."""
    key, fact_book = sheet_step.step.weigh, calculation.fact_book
    if key == "mix.cooked_g" and "mix.scale_g" in fact_book:
        key = "mix.scale_g"
    if key == MADE:
        key = next(
            (k for k in (f"part.{sheet_step.role}.scale_g", f"part.{sheet_step.role}.made_g") if k in fact_book), None
        )
    if key is None or key not in fact_book:
        return None
    grams = fact_book.number(key)
    if entry and sheet_step.role is not None:
        outputs = calculation.bowl.parts[sheet_step.role].outputs
        grams -= sum(output.made.grams for output in outputs) - entry.after_g  # what joins it later
        if key.endswith("scale_g"):  # in its pan lies all that is made, the oil beside the curds
            grams += sum(output.made.grams for output in outputs[1:])
    if entry and key in _BY_LEDGER:
        here = LedgerStep(sheet_step.id, sheet_step.step, sheet_step.role, sheet_step.goes_in)
        grams = shown_on_scale(entry, here)
        if key == "mix.scale_g":
            grams += fact_book.number(key) - fact_book.number("mix.cooked_g")
    if grams <= 0:
        return None
    beyond = fact_book.number(key) - grams
    return unchecked_model(
        WeightTarget,
        key=key,
        label=fact_book.facts[key].label,
        grams=grams,
        beyond_g=beyond if abs(beyond) > _A_CRUMB_G else 0.0,
    )


def _times(count: int) -> str:
    return {0: say("not at all"), 1: say("once"), 2: say("twice")}.get(count) or say("{count} times", count=count)


def _part_name(sheet_step: _SheetStep, calculation: Calculation) -> str:
    return calculation.bowl.parts[sheet_step.role].part.called if sheet_step.role else ""


def _step_result(
    sheet_step: _SheetStep,
    calculation: Calculation,
    waits: Sequence[StepDependency],
    stages: Sequence[HeatStageResult],
    entry: VesselEntry | None,
    to_hand: list[IngredientToHand],
    *,
    is_last: bool,
) -> StepResult:
    step, fact_book = sheet_step.step, calculation.fact_book
    minutes, target = (
        _step_minutes(sheet_step, fact_book, calculation.kitchen),
        _weight_target(sheet_step, calculation, entry),
    )
    window = None
    if step.window:
        # With several loads, one after another, the window is that of the last.
        before = minutes - fact_book.number(step.window[1])
        first, done, latest = (before + fact_book.number(key) for key in step.window)
        window = unchecked_model(DonenessWindow, first_check=first, done=done, latest=latest)
    return unchecked_model(
        StepResult,
        id=sheet_step.id,
        part=sheet_step.role,
        title=translate(step.title).replace("{name}", _part_name(sheet_step, calculation)),
        words=translate(step.words).replace("{rinses}", _times(calculation.sheet.grain.rinses)),
        asks=step.asks,
        minutes=minutes,
        fact=_fact(sheet_step) or "",
        hands=step.hands,
        work=step.work,
        tools=list(step.tools),
        uses=_resources_used(sheet_step, calculation),
        after=[unchecked_model(StepWait, step=a.step, at_least=a.at_least, at_most=a.at_most) for a in waits],
        cue=CueResult(**{name: getattr(step.cue, name) for name in CueResult.model_fields}) if step.cue else None,
        between=_minutes_range(sheet_step, fact_book, calculation.kitchen),
        window=window,
        hangs=_sensitivities(calculation, step.window[1] if step.window else _fact(sheet_step)),
        target=target,
        to_hand=to_hand,
        vessel=entry,
        cautions=list(dict.fromkeys((*step.cautions, *(cautions_of_ingredients(calculation.bowl) if is_last else ())))),
        rhythm=unchecked_model(RhythmResult, every_s=step.rhythm.every_s, says=step.rhythm.says)
        if step.rhythm
        else None,
        count=_count_result(step, fact_book),
        bounds=bounds_of(calculation, target.key if target else None, stages, has_window=window is not None),
    )


def _sensitivities(calculation: Calculation, key: str | None) -> dict[EstimateId, float]:
    spread = calculation.spreads.get(key or "")
    if spread is None:
        return {}
    return {
        share.id: math.copysign(round(math.sqrt(share.share), 3), share.at_high - share.at_low)
        for share in spread.shares
    }


def _count_result(step: Step, fact_book: FactBook) -> CountResult | None:
    """What its card has counted; of what goes by the piece, the pieces."""
    if step.count:
        return unchecked_model(CountResult, of=step.count.of, what=step.count.what)
    pieces = next((fact_book.number(key) for key in ("shape.pieces", "cut.pieces") if key in fact_book), 0.0)
    if step.minutes.per_piece and pieces >= 2:
        return unchecked_model(CountResult, of=round(pieces), what="pieces")
    return None
