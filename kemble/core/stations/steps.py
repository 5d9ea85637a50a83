"""The steps of a sheet: those of its parts, then its way's, as schools and parts call for, with minutes from the facts."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from functools import partial
from typing import Any, Literal

from pydantic import BaseModel, ConfigDict, model_validator

from kemble.core.cards.card_contract import MADE
from kemble.core.cards.card_parts import Brings, Cue, Looks, Step, StepDependency, Work
from kemble.core.facts.fact import FactBook
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.facts.vocabulary import PartId
from kemble.core.kitchen.document import Kitchen
from kemble.core.kitchen.estimates import EstimateId
from kemble.core.kitchen.household_measure import household_measure
from kemble.core.sentences import Words, say
from kemble.core.sheet.bowl import WeighedLine
from kemble.core.sheet.method import StepChange, own_steps_in
from kemble.core.stations.calculation import Calculation
from kemble.core.stations.cautions import cautions_of_ingredients
from kemble.core.stations.claims import Amounts, Ingoing
from kemble.core.stations.finished_cake import wanted_on_pieces
from kemble.core.stations.heat.heat_stages import HeatStageResult
from kemble.core.stations.impossible_gaps import gaps_that_cannot_hold
from kemble.core.stations.ledger import LedgerStep, VesselEntry, fold_ledger, shown_on_scale
from kemble.core.stations.method_steps import FIELDS, LaidMethod, MethodResult, lay_method, names_that_follow
from kemble.core.stations.reading_bounds import ReadingBounds, bounds_of
from kemble.core.stations.sheet_steps import (
    SheetStep,
    fact_of,
    is_called_for,
    lay_steps,
    school_followed,
    title_on_sheet,
)
from kemble.core.stations.staged_steps import staged_steps
from kemble.core.stations.traits import joined
from kemble.core.stations.vessel_sizes import tools_with_size, vessel_sizes


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
    step it goes in. `held_back`: what of its line is kept back, and what for. `made`: it is made before, and cannot be weighed
    out ahead."""

    name: Words
    grams: float
    household: str
    splits: list[str]
    act: Words = ""  # kept runs of before have none of these
    held_back: Words = ""
    group: str = ""
    made: bool = False
    ingredient: str = ""  # of what a card brings


class TinFill(TextModel):
    """How much of one mass goes into each tin of a size, where it fills several: by their floors, so that all stand as deep."""

    size: Words
    count: int
    grams: float


class PredictedTime(TextModel):
    """Kemble's own time of a step for which another one is used."""

    minutes: float
    between: MinutesRange | None = None
    window: DonenessWindow | None = None


class GivenTime(TextModel):
    """Minutes that somebody gave for a step, for all of it, and who did. `is_used`: clocks and plans go by it."""

    minutes: float
    by: str = ""
    is_used: bool = True


class StepResult(TextModel):
    """One step with its minutes. `hands`: held takes a cook whole, minded a little, free not at all.

    `minutes` are those that clocks and plans go by; where they are `given`, Kemble's own stand in `predicted`. `own_words` are
    the cook's, `texts` sentences of the recipe that come after it, `entry` the name that an entry of the method goes by here. `serves`: with its end people eat.

    `asks` is what must be so before it begins; empty when nothing is. `hangs`: of what nobody knows of its minutes, the
    signed share of each estimate in their standard deviation, so that steps which hang on the same are late together.
    """

    id: str
    part: PartId | None = None  # that it makes; kept runs of before do not say
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
    brings: list[IngredientToHand] = []  # that no line of the sheet says; `act` is what for
    # What follows is of the method; kept plans of before have none of it.
    tins: list[TinFill] = []
    given: GivenTime | None = None
    predicted: PredictedTime | None = None
    entry: str = ""
    own_words: str = ""
    texts: list[str] = []
    serves: bool = False

    @property
    def ours(self) -> PredictedTime:
        """Kemble's own time, whichever is used."""
        return self.predicted or unchecked_model(
            PredictedTime, minutes=self.minutes, between=self.between, window=self.window
        )

    @model_validator(mode="before")
    @classmethod
    def _one_caution(cls, data: Any) -> Any:
        """Plans that were kept when a step had one caution, or none, open still."""
        if isinstance(data, dict) and "caution" in data:
            item = data["caution"]
            return {**{k: v for k, v in data.items() if k != "caution"}, "cautions": [item] if item else []}
        return data


_MOVED_SHARE = 0.1  # Kemble's own time has changed by more than this since another was given: it is said


def steps_of(
    calculation: Calculation, stages: Sequence[HeatStageResult], amounts: Amounts
) -> tuple[list[StepResult], MethodResult]:
    """The steps in working order, a heat in `stages` as so many, with the cook's method laid over them. A step left out hands
    its predecessors on to those that waited for it. `amounts` are what soak and heat bring or take, in grams."""
    placed = lay_steps(calculation, staged_steps(calculation, calculation.way.steps, stages), amounts)
    called = {sheet_step.id: sheet_step for sheet_step in placed if is_called_for(sheet_step, calculation)}
    laid = lay_method(calculation, placed, called, partial(_minutes_by_method, calculation))
    entries = fold_ledger(
        laid.order.in_vessels,
        calculation.bowl,
        calculation.fact_book,
        amounts,
        _left_over(calculation),
    )
    sizes = vessel_sizes(laid.order.in_vessels, entries)
    in_order = [each for each in laid.placed if each.id in laid.kept]
    to_hand = _to_hand(in_order, calculation)
    steps = [
        _step_result(
            sheet_step,
            calculation,
            laid.order.waits[sheet_step.id],
            stages,
            entries.get(sheet_step.id),
            to_hand[sheet_step.id],
            vessel_ml=sizes.get(sheet_step.id),
            is_last=sheet_step.id == laid.last,
        )
        for sheet_step in in_order
    ]
    if calculation.sheet.method:
        steps = _with_gaps_that_hold([_with_method(step, laid, calculation) for step in steps], laid)
    return steps, laid.result


def _minutes_by_method(calculation: Calculation, sheet_step: SheetStep) -> float:
    return _step_minutes(sheet_step, calculation.fact_book, calculation.kitchen)


def _with_gaps_that_hold(steps: Sequence[StepResult], laid: LaidMethod) -> list[StepResult]:
    """The steps by the minutes that are used: a gap that no plan can keep with those is given up, and said."""
    waits = {step.id: [StepDependency(w.step, w.at_least, w.at_most) for w in step.after] for step in steps}
    given_up = gaps_that_cannot_hold({step.id: step.minutes for step in steps}, waits)
    if not given_up:
        return list(steps)
    for step, i in given_up:
        wait = waits[step][i]
        says = say(
            "“{title}” should come within {minutes:.0f} min of “{before}”: by this method it cannot.",
            title=laid.title(step),
            minutes=wait.at_most,
            before=laid.title(wait.step),
        )
        laid.note(step, says)
    return [
        step.model_copy(
            update={
                "after": [
                    wait.model_copy(update={"at_most": None}) if (step.id, i) in given_up else wait
                    for i, wait in enumerate(step.after)
                ]
            }
        )
        for step in steps
    ]


def _is_unsafe(step: StepResult, minutes: float, laid: LaidMethod) -> bool:
    """Whether what is eaten may be raw after so many minutes: it is looked at only later, or must be cooked through."""
    if step.window:
        return minutes < step.window.first_check
    least = step.between.least if step.between else step.minutes
    return bool(laid.kept[step.id].step.needed) and minutes < least


def _with_method(step: StepResult, laid: LaidMethod, calculation: Calculation) -> StepResult:
    """A step with what the cook's method says of it: which time is used, whose words stand first."""
    entry, texts = laid.changes.get(step.id), laid.texts.get(step.id, [])
    own = next((own for own in own_steps_in(calculation.sheet.method) if own.own == step.id), None)
    changes: dict[str, Any] = {"texts": texts} if texts else {}
    if own is not None and own.words:
        changes["own_words"] = own.words
    if entry is not None:
        changes["entry"] = entry.step
        if entry.words:
            changes["own_words"] = entry.words
        if entry.minutes is not None and not entry.stages:
            step = _with_time_of(step, entry, laid, calculation)
    return step.model_copy(update=changes) if changes else step


def _with_time_of(step: StepResult, entry: StepChange, laid: LaidMethod, calculation: Calculation) -> StepResult:
    """A step with the time that its entry gives, and what is to be said of that."""
    assert entry.minutes is not None
    facts = calculation.fact_book
    by_load = step.window is not None or entry.per == "load"
    loads = max(1.0, facts.number("heat.loads")) if by_load and "heat.loads" in facts else 1.0
    minutes = entry.minutes * (_piece_count(facts) if entry.per == "piece" else loads)
    is_field = step.fact in FIELDS
    staged = step.window is not None and bool(calculation.sheet.heat.stages)
    too_short = entry.use is None and _is_unsafe(step, minutes, laid)
    given = GivenTime(minutes=minutes, by=entry.by, is_used=entry.uses_given and not (is_field or staged or too_short))
    if too_short:
        laid.note(step.id, say("By then it may be raw within: Kemble's own time is used until you choose the other."))
    if entry.uses_given and is_field:
        laid.not_followed(step.id, say("Its minutes stand in Mix: they are the ones used."))
    if entry.uses_given and staged:
        laid.not_followed(step.id, say("The stages of its heat say how long: they stand in Heat."))
    if entry.ours_min and abs(step.minutes / entry.ours_min - 1) > _MOVED_SHARE:
        laid.note(
            step.id,
            say(
                "It was given when Kemble's own time was {before:.0f} min; that is {now:.0f} min now.",
                before=entry.ours_min,
                now=step.minutes,
            ),
        )
    return with_given_time(step, given)


def with_given_time(step: StepResult, given: GivenTime) -> StepResult:
    """A step with a time that somebody gave for it: where it is used, it is the one that clocks and plans go by, and ours stands
    in `predicted`.

    Of what is done by its looks the clock rings at the given time: the first look comes no later, and nothing is past its
    latest before. What is only waited for then lasts as long as was said; hands have no spread of Kemble's either.
    """
    if not given.is_used:
        return step.model_copy(update={"given": given})
    ours, judged = step.ours, step.window is not None or step.cue is not None
    window = ours.window and unchecked_model(
        DonenessWindow,
        first_check=min(ours.window.first_check, given.minutes),
        done=ours.window.done,
        latest=max(ours.window.latest, given.minutes),
    )
    return step.model_copy(
        update={
            "given": given,
            "predicted": ours,
            "minutes": given.minutes,
            "window": window,
            "between": step.between if judged else None,
            "hangs": step.hangs if judged else {},
        }
    )


def _left_over(calculation: Calculation) -> dict[PartId, float]:
    """Grams of what goes into, round or over the pieces that none of them takes; negative, what they lack of it."""
    if calculation.sheet.in_tray or "shape.pieces" not in calculation.fact_book:
        return {}
    return {output.part_id: output.rest - wanted for output, wanted in wanted_on_pieces(calculation)}


def _step_minutes(sheet_step: SheetStep, fact_book: FactBook, kitchen: Kitchen) -> float:
    minutes, fact = sheet_step.step.minutes, fact_of(sheet_step)
    pieces = _piece_count(fact_book)
    total = (minutes.fixed + minutes.per_piece * pieces) * kitchen.pace.get(sheet_step.id, 1.0)
    if fact:
        total += fact_book.number(fact)
    return total


def _piece_count(fact_book: FactBook) -> float:
    """How many pieces there are; 0 where nothing is portioned or cut."""
    return next((fact_book.number(key) for key in ("shape.pieces", "cut.pieces") if key in fact_book), 0.0)


def _minutes_range(sheet_step: SheetStep, fact_book: FactBook, kitchen: Kitchen) -> MinutesRange | None:
    key = fact_of(sheet_step)
    fact = fact_book.facts.get(key) if key else None
    if fact is None or fact.low is None or fact.high is None or not isinstance(fact.value, float):
        return None
    beside = _step_minutes(sheet_step, fact_book, kitchen) - fact.value
    return unchecked_model(MinutesRange, least=beside + fact.low, most=beside + fact.high)


def _to_hand(sheet_steps: Iterable[SheetStep], calculation: Calculation) -> dict[str, list[IngredientToHand]]:
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
    near = household_measure(contribution.item, ingoing.grams, g_per_ml=density, spoons=calculation.shelf.spoons)
    # Where the step itself says at which moment so much goes in, the line's own words for it would say it twice.
    shares = line.shares if line and not ingoing.act else ()
    here = [share for share in shares if share.at and share.joins == contribution.joins]
    return unchecked_model(
        IngredientToHand,
        name=contribution.item.name,
        grams=ingoing.grams,
        household=near.text if near else "",
        splits=[
            say("{grams} {at}", grams=calculation.weight(share.grams * ingoing.share), at=share.at) for share in here
        ],
        act=ingoing.act,
        group=contribution.item.group,
        made=line is None,
        held_back=_held_back(line, calculation) if line and is_first else "",
    )


def _brought(brings: Brings, calculation: Calculation) -> IngredientToHand:
    item, facts = calculation.shelf.items[brings.ingredient], calculation.fact_book
    grams = brings.grams + brings.per_piece * _piece_count(facts)
    grams += facts.number(brings.fact) if brings.fact in facts else 0.0
    near = household_measure(item, grams, g_per_ml=item.g_per_ml, spoons=calculation.shelf.spoons)
    return unchecked_model(
        IngredientToHand,
        name=item.name,
        grams=grams,
        household=near.text if near else "",
        splits=[],
        act=brings.what_for,
        group=item.group,
        ingredient=item.id,
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


def _resources_used(sheet_step: SheetStep, calculation: Calculation) -> list[str]:
    """What the step stands on: as its card says, or where its school takes it; a steamer on a burner, unless it has a machine of
    its own; and the steamer, pot or pan that the sheet names."""
    uses: list[str] = list(sheet_step.step.uses)
    for (choice, school), thing in _ELSEWHERE.items():
        if (
            school in sheet_step.step.when.get(choice, ())
            and school_followed(sheet_step, choice, calculation) == school
        ):
            uses = [thing, *(use for use in uses if use != "burner")]
    for (step, choice, school), thing in _DONE_IN.items():
        if sheet_step.step.id == step and school_followed(sheet_step, choice, calculation) == school:
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
        and sheet_step.part_id is None
        and calculation.pot.name == named
    ):
        uses.append(f"pot:{named}")
    pan = calculation.bowl.parts[sheet_step.part_id].part.pan if sheet_step.part_id else calculation.bowl.base.part.pan
    if pan and "burner" in uses:
        uses.append(f"pan:{pan}")
    return uses


_A_CRUMB_G = 0.001
# What the scale shows of the base goes by the ledger: what joins at a later step is not on it yet.
_BY_LEDGER = ("mix.batch_g", "mix.cooked_g", "mix.scale_g", "grain.soaked_g", "grain.cook_water_g")


def _weight_target(sheet_step: SheetStep, calculation: Calculation, entry: VesselEntry | None) -> WeightTarget | None:
    """What the scale should show: a fact, or for a part what it weighs when done, with its pan where that is known."""
    key, fact_book = sheet_step.step.weigh, calculation.fact_book
    if key == "mix.cooked_g" and "mix.scale_g" in fact_book:
        key = "mix.scale_g"
    if key == MADE:
        key = next(
            (k for k in (f"part.{sheet_step.part_id}.scale_g", f"part.{sheet_step.part_id}.made_g") if k in fact_book),
            None,
        )
    if key is None or key not in fact_book:
        return None
    grams = fact_book.number(key)
    if entry and sheet_step.part_id is not None:
        outputs = calculation.bowl.parts[sheet_step.part_id].outputs
        grams -= sum(output.made.grams for output in outputs) - entry.after_g  # what joins it later
        if key.endswith("scale_g"):  # in its pan lies all that is made, the oil beside the curds
            grams += sum(output.made.grams for output in outputs[1:])
    if entry and key in _BY_LEDGER:
        here = LedgerStep(sheet_step.id, sheet_step.step, sheet_step.part_id, sheet_step.goes_in)
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


def _tin_fills(calculation: Calculation, entry: VesselEntry | None) -> list[TinFill]:
    """What goes into each tin at the step that fills them; nothing where there is one."""
    vessel = calculation.sheet.vessel
    is_filled = entry is not None and entry.vessel == "tin" and bool(entry.tipped)
    if not entry or not is_filled or calculation.way.form != "tin" or sum(count for _, count in vessel.tins) < 2:
        return []
    return [
        TinFill(size=calculation.tin_size(tin), count=count, grams=entry.after_g * tin.floor_mm2 / vessel.floor_mm2)
        for tin, count in vessel.tins
    ]


def _step_words(step: Step, calculation: Calculation) -> str:
    words = joined(step.words)
    if "{rinses}" in words:
        words = words.replace("{rinses}", _times(calculation.sheet.grain.rinses))
    if "{oven}" in words:
        heat = calculation.sheet.heat
        first = next((stage.oven_c for stage in heat.stages if stage.oven_c), heat.oven_c)
        words = words.replace("{oven}", calculation.degrees(first))
    return words


def _times(count: int) -> str:
    return {0: say("not at all"), 1: say("once"), 2: say("twice")}.get(count) or say("{count} times", count=count)


def _step_result(
    sheet_step: SheetStep,
    calculation: Calculation,
    waits: Sequence[StepDependency],
    stages: Sequence[HeatStageResult],
    entry: VesselEntry | None,
    to_hand: list[IngredientToHand],
    *,
    vessel_ml: float | None,
    is_last: bool,
) -> StepResult:
    step, fact_book = sheet_step.step, calculation.fact_book
    minutes, tins = _step_minutes(sheet_step, fact_book, calculation.kitchen), _tin_fills(calculation, entry)
    target = None if tins else _weight_target(sheet_step, calculation, entry)
    window = None
    if step.window:
        # With several loads, one after another, the window is that of the last.
        before = minutes - fact_book.number(step.window[1])
        first, done, latest = (before + fact_book.number(key) for key in step.window)
        window = unchecked_model(DonenessWindow, first_check=first, done=done, latest=latest)
    return unchecked_model(
        StepResult,
        id=sheet_step.id,
        part=sheet_step.part_id,
        title=title_on_sheet(sheet_step, calculation),
        words=_step_words(step, calculation),
        asks=joined(step.asks),
        minutes=minutes,
        fact=fact_of(sheet_step) or "",
        hands=step.hands,
        work=step.work,
        tools=tools_with_size(step.tools, step.at, vessel_ml, calculation.kitchen.volume_unit),
        uses=_resources_used(sheet_step, calculation),
        after=[unchecked_model(StepWait, step=a.step, at_least=a.at_least, at_most=a.at_most) for a in waits],
        cue=_cue_result(step.cue) if step.cue else None,
        between=_minutes_range(sheet_step, fact_book, calculation.kitchen),
        window=window,
        hangs=_sensitivities(calculation, step.window[1] if step.window else fact_of(sheet_step)),
        target=target,
        to_hand=to_hand,
        vessel=entry,
        cautions=list(dict.fromkeys((*step.cautions, *(cautions_of_ingredients(calculation.bowl) if is_last else ())))),
        rhythm=unchecked_model(RhythmResult, every_s=step.rhythm.every_s, says=step.rhythm.says)
        if step.rhythm
        else None,
        count=_count_result(step, fact_book),
        entry=next(names_that_follow(sheet_step), sheet_step.id),
        tins=tins,
        serves=is_last,
        brings=[item for each in step.brings if (item := _brought(each, calculation)).grams > 0],
        bounds=bounds_of(calculation, target.key if target else None, stages, has_window=window is not None),
    )


def _cue_result(cue: Cue) -> CueResult:
    return unchecked_model(CueResult, question=cue.question, how=cue.how, yes=cue.yes, no=cue.no, looks=cue.looks)


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
    pieces = _piece_count(fact_book)
    if step.minutes.per_piece and pieces >= 2:
        return unchecked_model(CountResult, of=round(pieces), what="pieces")
    return None
