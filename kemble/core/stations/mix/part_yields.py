"""What each part beside the base yields, the weight at which it is done, and how far it goes."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any

from kemble.core.cards.family import PartFinish
from kemble.core.facts.fact import CONSERVATION, KITCHEN_ESTIMATE, Origins, leaf
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.facts.vocabulary import PartId, PartRole
from kemble.core.kitchen.household_measure import household_measure
from kemble.core.kitchen.larder import Composition
from kemble.core.sentences import Words, say
from kemble.core.sheet.bowl import PartBowl, PartOutput, TakenOutput, dry_beans_g
from kemble.core.sheet.parts import OutputPlace
from kemble.core.stations.calculation import AnswerModel, Calculation
from kemble.core.stations.heat.reduction import boil_down

LEAST_RANGE = 0.01  # of a weight; a narrower range is not worth saying
_A_CRUMB_G = 0.05  # less of it is nothing


class OutputFlow(AnswerModel):
    """Some grams of an output and where they go: a part, whole, beside, kept, or another sheet."""

    to: str
    name: str
    grams: float
    where: str = ""
    joins: str = ""
    take: int = -1  # which of the taker's takes it is; -1 for a rest
    short_g: float = 0.0


class OutputResult(AnswerModel):
    """One thing that a part makes, and all the places that it goes to."""

    id: str
    name: Words
    group: str
    made_g: float
    place: OutputPlace  # where its rest goes: as the sheet says, else as is usual
    goes: tuple[OutputFlow, ...]
    household: str = ""  # as much of it in the household's measures


class PartResult(AnswerModel):
    """One part in numbers for its drawing: what goes in, what is left, what the scale shows."""

    id: PartId
    role: PartRole
    name: str
    family: str
    family_name: Words
    says: Words
    reduced: bool
    raw_g: float
    made_g: float
    low_g: float
    high_g: float
    scale_g: float | None
    pan: str
    kept_g: float
    kept_for: str
    away_g: float
    away_to: tuple[str, ...]
    made_on: str
    have_g: float
    nth: int = 0  # in which order the parts are made
    outputs: tuple[OutputResult, ...] = ()


@dataclass(frozen=True, slots=True)
class FinishedPart:
    """A part when it is done. Grams; `composition` is of the whole of it, `have` what this sheet has of it.

    `have` leaves out what is kept, made for other sheets, or taken into other parts.
    """

    id: PartId
    name: str
    grams: float
    low: float
    high: float
    have: float
    composition: Composition

    @property
    def had(self) -> Composition:
        """The composition of what this sheet has."""
        return self.composition.scaled(self.have / self.grams) if self.grams else self.composition


def yield_parts(calculation: Calculation) -> dict[PartId, FinishedPart]:
    """Yield and finishing weight of every part beside the base, in the sheet's order."""
    return {
        part_id: _yield_part(calculation, bowl) for part_id, bowl in calculation.bowl.parts.items() if part_id != "base"
    }


def _yield_part(calculation: Calculation, bowl: PartBowl) -> FinishedPart:
    fact_book, part, part_id = calculation.fact_book, bowl.part, bowl.id
    finish = bowl.family.finish if bowl.family else PartFinish()
    off = [
        math.hypot(
            *(
                contribution.grams * contribution.weighed.packing[side]
                for contribution in bowl.contributions
                if contribution.weighed
            )
        )
        for side in (0, 1)
    ]
    ranged = sum(off) > LEAST_RANGE * bowl.grams
    raw = fact_book.add(
        f"part.{part_id}.raw_g",
        bowl.grams,
        say("everything that goes into it, reserves and shares for other parts left out"),
        source=CONSERVATION,
        of=[
            leaf(contribution.ref, contribution.item.name, round(contribution.grams, 1), "g")
            for contribution in bowl.contributions
        ],
        low=bowl.grams - off[0] if ranged else None,
        high=bowl.grams + off[1] if ranged else None,
    )
    main, *others = bowl.outputs
    made = main.made
    _enter_made(calculation, bowl, finish, raw)
    if finish.boils and raw:
        dry = dry_beans_g(bowl.contributions)
        starts = finish.boils_from * dry if finish.rule == "times-dry" else raw
        boil_down(calculation, bowl, finish, max(0.0, starts - sum(output.made.grams for output in bowl.outputs)))
    _sugar(calculation, bowl)
    of: Origins = [f"part.{part_id}.made_g"]
    if main.away:
        titles = ", ".join(other.sheet for other in part.made_for)
        fact_book.add(
            f"part.{part_id}.away_g", main.away, say("for {titles}", titles=titles), source=CONSERVATION, of=of
        )
    if main.kept:
        fact_book.add(
            f"part.{part_id}.kept_g", main.kept, part.kept_for or say("kept back"), source=CONSERVATION, of=of
        )
    if main.taken:
        takers = ", ".join(
            dict.fromkeys(
                calculation.bowl.parts[taken.taker].part.called for taken in _takes_of(calculation, bowl, main)
            )
        )
        fact_book.add(
            f"part.{part_id}.taken_g", main.taken, say("into {takers}", takers=takers), source=CONSERVATION, of=of
        )
    if main.away or main.kept or main.taken:
        fact_book.add(
            f"part.{part_id}.have_g", main.rest, say("what is left for this sheet"), source=CONSERVATION, of=of
        )
    if others:
        _enter_others(calculation, bowl, others)
    _report_shortage(calculation, bowl)
    pan = next((pan for pan in calculation.kitchen.pans if pan.name == part.pan), None)
    if pan:
        fact_book.add(
            f"part.{part_id}.scale_g",
            made.grams + pan.empty_g,
            say("with {name}: stop when the scale shows it", name=pan.name),
            source=CONSERVATION,
            of=[*of, calculation.from_kitchen("pans", pan.name, pan.empty_g, "g")],
            low=made.low + pan.empty_g,
            high=made.high + pan.empty_g,
        )
    return FinishedPart(part_id, part.name or part_id, made.grams, made.low, made.high, main.rest, made.composition)


def _takes_of(calculation: Calculation, bowl: PartBowl, had: PartOutput) -> list[TakenOutput]:
    return [taken for taken in calculation.bowl.taken if (taken.source, taken.output) == (bowl.id, had.made.output.id)]


def _enter_others(calculation: Calculation, bowl: PartBowl, others: list[PartOutput]) -> None:
    """What is made beside what the part is made for."""
    likely, low, high = (sum(getattr(output.made, name) for output in others) for name in ("grams", "low", "high"))
    names = " and ".join(output.made.output.name for output in others)
    calculation.fact_book.add(
        f"part.{bowl.id}.also_g",
        likely,
        say("{names}, from the same pan", names=names),
        source=KITCHEN_ESTIMATE,
        of=[f"part.{bowl.id}.raw_g"],
        low=low if low != high else None,
        high=high if low != high else None,
    )


def _report_shortage(calculation: Calculation, bowl: PartBowl) -> None:
    """More is taken of it than is made: by how much, who goes without, and what helps."""
    lacking = 0.0
    for had in bowl.outputs:
        short = [taken for taken in _takes_of(calculation, bowl, had) if taken.short_g > _A_CRUMB_G]
        if not short:
            continue
        lacks = sum(taken.short_g for taken in short)
        lacking += lacks
        takers = " and ".join(
            say(
                "the {name} by {short_g}",
                name=calculation.bowl.parts[taken.taker].part.called,
                short_g=calculation.weight(taken.short_g),
            )
            for taken in short
        )
        made = had.made.grams
        helps = (
            say("Make {lacks:.0f} % more of it, or take less.", lacks=100 * lacks / made)
            if made
            else say("Put something into it.")
        )
        says = say(
            "Not enough {name}: {made} are made, and {takers} goes short. {helps}",
            name=had.item.name,
            made=calculation.weight(made),
            takers=takers,
            helps=helps,
        )
        calculation.advise("mix", "look", says, 0)
    if lacking:
        calculation.fact_book.add(
            f"part.{bowl.id}.short_g",
            lacking,
            say("asked of it, less what is made"),
            source=CONSERVATION,
            of=[f"part.{bowl.id}.made_g"],
        )


def _sugar(calculation: Calculation, bowl: PartBowl) -> None:
    """Sugar that is added, on the beans or nuts it sweetens, against the family's band."""
    family = bowl.family
    if family is None or family.sugar is None:
        return
    main = bowl.of_group(family.sweetened)
    if not main:
        return
    added = [contribution for contribution in bowl.contributions if contribution.item.group != family.sweetened]
    share = calculation.fact_book.add(
        f"part.{bowl.id}.sugar_pct",
        100 * sum(contribution.composition.sugar for contribution in added) / main,
        say("the sugar in everything else, on the weight of the beans or nuts"),
        source=CONSERVATION,
        of=[
            leaf(contribution.ref, contribution.item.name, round(contribution.grams, 1), "g") for contribution in added
        ],
    )
    name, band = bowl.part.called, family.sugar
    if share < band.low:
        calculation.advise(
            "mix",
            "look",
            say("Little sugar in the {name}: under {low:g} % it dries and spoils sooner.", name=name, low=band.low),
            4,
        )
    if share > band.high:
        calculation.advise(
            "mix",
            "look",
            say("Much sugar in the {name}: over {high:g} % it stays soft and weeps.", name=name, high=band.high),
            4,
        )


def _enter_made(calculation: Calculation, bowl: PartBowl, finish: PartFinish, raw: float) -> None:
    """The weight when done, by the family's rule."""
    fact_book, part_id, inside, made = calculation.fact_book, bowl.id, bowl.composition, bowl.main.made
    dry = dry_beans_g(bowl.contributions)
    of: Origins = [f"part.{part_id}.raw_g"]
    as_it_is = made.composition is inside
    if finish.rule == "curd" and not as_it_is:
        oil = next(output.made for output in bowl.outputs if output.made.output.group == "fat")
        fact_book.add(
            f"part.{part_id}.oil_g",
            oil.grams,
            finish.says,
            source=KITCHEN_ESTIMATE,
            of=of,
            low=oil.low,
            high=oil.high,
        )
    fact_book.add(
        f"part.{part_id}.made_g",
        made.grams,
        say("everything that goes in") if as_it_is else made.output.says or finish.says,
        source=CONSERVATION
        if as_it_is
        else say(
            "{conservation}; target a {kitchen_estimate}", conservation=CONSERVATION, kitchen_estimate=KITCHEN_ESTIMATE
        ),
        of=of,
        low=made.low if made.low != made.high else None,
        high=made.high if made.low != made.high else None,
    )
    if as_it_is or finish.rule == "curd":
        return
    thick = finish.rule == "solids" and made.grams >= raw > 0
    if thick and raw - inside.solids < raw * (1 - finish.target.high / 100):
        calculation.advise(
            "mix", "look", say("The {part} is thicker than done already: let it down.", part=bowl.part.called), 3
        )
    lost = raw - sum(output.made.grams for output in bowl.outputs)
    if lost > _A_CRUMB_G:
        fact_book.add(
            f"part.{part_id}.loss_g", lost, say("what went in, less what is made"), source=CONSERVATION, of=[*of]
        )
    if finish.rule in ("solids", "times-dry") and made.grams:
        fact_book.add(
            f"part.{part_id}.solids_pct",
            100 * inside.solids / made.grams,
            say("all that is not water, on its weight when done"),
            source=CONSERVATION,
            of=[f"part.{part_id}.made_g"],
        )
    if dry and finish.rule == "times-dry":
        fact_book.add(
            f"part.{part_id}.dry_ratio",
            made.grams / dry,
            say("its weight on the dry beans"),
            source=CONSERVATION,
            of=[f"part.{part_id}.made_g"],
        )


def part_results(calculation: Calculation, made: dict[PartId, FinishedPart]) -> tuple[PartResult, ...]:
    """Each part for the screen."""
    part_result = []
    for part_id, finished in made.items():
        bowl = calculation.bowl.parts[part_id]
        part, family, facts = bowl.part, bowl.family, calculation.fact_book
        scale = f"part.{part_id}.scale_g"
        main = bowl.main
        part_result.append(
            unchecked_model(
                PartResult,
                id=part_id,
                role=part.role,
                name=finished.name,
                family=family.id if family else "",
                family_name=family.name if family else "",
                says=family.finish.says if family else "",
                reduced=bool(family and family.finish.rule != "mixed") and finished.grams < bowl.grams - 0.05,
                raw_g=bowl.grams,
                made_g=finished.grams,
                low_g=finished.low,
                high_g=finished.high,
                scale_g=facts.number(scale) if scale in facts else None,
                pan=part.pan,
                kept_g=main.kept,
                kept_for=part.kept_for,
                away_g=main.away,
                away_to=tuple(other.sheet for other in part.made_for),
                made_on=part.made_on,
                have_g=finished.have,
                nth=calculation.bowl.order.index(part_id),
                outputs=tuple(_output_worked(calculation, had) for had in bowl.outputs),
            )
        )
    return tuple(part_result)


def _output_worked(calculation: Calculation, had: PartOutput) -> OutputResult:
    names = {part_id: bowl.part.called for part_id, bowl in calculation.bowl.parts.items()}
    part, place = calculation.bowl.parts[had.part_id].part, had.place
    goes = [
        _flowing(
            taken.taker,
            names[taken.taker],
            taken.grams,
            joins=_joining_words(calculation, taken),
            take=taken.index,
            short_g=taken.short_g,
        )
        for taken in _takes_of(calculation, calculation.bowl.parts[had.part_id], had)
    ]
    if had.kept:
        goes.append(_flowing("kept", part.kept_for or say("kept back"), had.kept))
    away = sum(other.share for other in part.made_for)
    if had.away:
        goes += [_flowing("sheet", other.sheet, had.away * other.share / away) for other in part.made_for]
    if had.rest > _A_CRUMB_G:
        name = names.get(place.to, "")
        goes.append(_flowing(place.to, name, had.rest, where=place.where or "", joins=place.joins))
    near = household_measure(had.item, had.made.grams, g_per_ml=had.item.g_per_ml, spoons=calculation.shelf.spoons)
    return unchecked_model(
        OutputResult,
        id=had.made.output.id,
        name=had.item.name,
        group=had.made.output.group,
        made_g=had.made.grams,
        place=place,
        household=near.text if near else "",
        goes=tuple(goes),
    )


def _flowing(to: str, name: str, grams: float, **more: Any) -> OutputFlow:
    return unchecked_model(OutputFlow, to=to, name=name, grams=grams, **more)


def _joining_words(calculation: Calculation, taken: TakenOutput) -> str:
    part = calculation.bowl.parts[taken.taker].part
    return part.takes[taken.index].joins if taken.index >= 0 else calculation.bowl.parts[taken.source].main.place.joins


def base_result(calculation: Calculation, raw: float, cooked: tuple[float, float, float]) -> PartResult:
    """The base as a part of its own: with a weight to stop at where it is cooked down in a pan."""
    part, way, fact_book = calculation.bowl.base.part, calculation.way, calculation.fact_book
    likely, low, high = cooked
    return unchecked_model(
        PartResult,
        id="base",
        role="base",
        name=part.name or "base",
        family="",
        family_name="",
        says=say("the water that its heat takes is gone"),
        reduced=way.base == "flour" and way.portions == "cooked" and likely < 0.97 * raw,
        raw_g=raw,
        made_g=likely,
        low_g=low,
        high_g=high,
        scale_g=fact_book.number("mix.scale_g") if "mix.scale_g" in fact_book else None,
        pan=part.pan,
        kept_g=0.0,
        kept_for="",
        away_g=0.0,
        away_to=(),
        made_on="",
        have_g=likely,
        nth=calculation.bowl.order.index("base"),
        outputs=(
            unchecked_model(
                OutputResult,
                id="base",
                name=part.name or way.word("dough"),
                group=way.base,
                made_g=likely,
                place=OutputPlace(to="whole", where="through"),
                goes=(_flowing("whole", "", likely, where="through"),),
            ),
        ),
    )
