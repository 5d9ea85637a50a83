"""Mix: what is in the pot, as ratios on the flour or the dry grain, weights, and the temperature at which it gels."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from kemble.core.cards.card_parts import Amount
from kemble.core.facts.fact import CONSERVATION, KITCHEN_ESTIMATE, WEIGHED, Origin, Origins, leaf
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.facts.vocabulary import PartId, role_of
from kemble.core.kitchen.estimates import EstimateId
from kemble.core.kitchen.larder import SOURCE, Composition
from kemble.core.physics.doneness import gel_temperature_c
from kemble.core.physics.thermal import fractions, properties
from kemble.core.sentences import Words, say
from kemble.core.sheet.bowl import Contribution, counts_raw
from kemble.core.sheet.part_yields import at_weight
from kemble.core.stations.calculation import AnswerModel, Calculation
from kemble.core.stations.finished_cake import sweetness_pct
from kemble.core.stations.mix import grain as grains
from kemble.core.stations.mix import part_yields as made_parts
from kemble.core.stations.mix.grain import GrainResult, SoakedGrain, soaked_beans_g
from kemble.core.stations.mix.line_results import LineResult, line_result, question
from kemble.core.stations.mix.part_yields import FinishedPart, PartResult
from kemble.core.stations.mix.scald import scald
from kemble.core.stations.time_windows import enter_with_range

CHOI_OKOS = "Choi-Okos densities of the components"
_WHOLE = ("fruit", "nut", "savoury", "grain")
WORTH_WEIGHING = 0.1  # a cup that is less uncertain than that, low to high, gains little by being weighed (again)
_LEAST_SHARE = 0.005  # of the bowl: less of a material is not drawn
_LEAST_SHARE_G = 0.05  # a smaller contribution is not worth a line in a because


class BarShare(AnswerModel):
    """One material of the bar."""

    material: str
    grams: float


class MixDrawing(AnswerModel):
    bar: tuple[BarShare, ...]
    in_zone: bool
    outcome: Words
    bite: Words = ""


@dataclass(frozen=True, slots=True)
class MixResult:
    """What Mix hands on: the drawing, the base as it is heated, what is shaped, and the parts beside it; and what is told
    of each line, of each part (the base first) and of the grain. `amounts`: what soak and heat bring or take, in grams."""

    drawing: MixDrawing
    heated: Composition
    shaped: Composition
    cooked: Composition
    made: dict[PartId, FinishedPart]
    lines: tuple[LineResult, ...]
    parts: tuple[PartResult, ...]
    grain: GrainResult | None
    amounts: Mapping[Amount, float]


@dataclass(frozen=True, slots=True)
class _CountedIngredient:
    """One thing that the ratios count: its composition and where it comes from."""

    composition: Composition
    name: str
    ref: str
    is_base: bool
    late: bool = False  # it joins once the base is cooked
    packing: tuple[float, float] = (0.0, 0.0)  # how far off its amount may be, as shares of it
    free_water: float | None = None  # grams; all of its water, where it is not held in something whole

    @property
    def free(self) -> Composition:
        """Its composition with the water that it gives up only."""
        return self.composition if self.free_water is None else self.composition.with_water(self.free_water)


def is_whole(contribution: Contribution, base: str) -> bool:
    """Whether it lies in the dough as it is, kernel or fruit, and keeps its water to itself."""
    item, line = contribution.item, contribution.weighed.line if contribution.weighed else None
    if line is None or item.group == base or item.group not in _WHOLE:
        return False
    return (line.state or next(iter(item.density))) == "whole"


def _counted_ingredients(
    calculation: Calculation, soaked: SoakedGrain | None, made: dict[PartId, FinishedPart]
) -> list[_CountedIngredient]:
    """Every line of the counted parts, as much of it as this sheet has, and the water of the soak."""
    way = calculation.way
    counteds = []
    for role in way.counted:
        for bowl in calculation.bowl.of_role(role):
            if not (role == "base" or counts_raw(calculation.sheet, bowl.part)):
                continue
            share = made[bowl.id].have / made[bowl.id].grams if bowl.id in made and made[bowl.id].grams else 1.0
            for contribution in bowl.contributions:
                composition = contribution.composition if share == 1.0 else contribution.composition.scaled(share)
                is_base = role == "base" and contribution.item.group == way.base
                packing = contribution.weighed.packing if contribution.weighed else (0.0, 0.0)
                late = role == "base" and way.joins_late(contribution.joins)
                free = (
                    composition.water * calculation.likely("whole_gives")
                    if role == "base" and is_whole(contribution, way.base)
                    else None
                )
                counteds.append(
                    _CountedIngredient(
                        composition, contribution.item.name, contribution.ref, is_base, late, packing, free
                    )
                )
    if soaked and soaked.beside > 0:
        water = Composition.of((soaked.beside, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0))
        counteds.append(_CountedIngredient(water, say("the soak"), "grain.uptake_g", False))
    beans = soaked_beans_g(calculation)
    if beans > 0:
        water = Composition.of((beans, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0))
        counteds.append(_CountedIngredient(water, say("the soak of the beans"), "grain.bean_uptake_g", False))
    return counteds


def _ratios(calculation: Calculation, counted: list[_CountedIngredient], base_g: float) -> dict[str, float]:
    """Water, sugar, fat and salt that are not the base's own, each with every line's contribution."""
    stuff = "flour" if calculation.way.base == "flour" else say("dry grain")
    ratios = {}
    for key, component in (("hydration", "water"), ("sugar", "sugar"), ("fat", "fat"), ("salt", "salt")):
        shares = [
            (getattr(counted_ingredient.free, component), counted_ingredient)
            for counted_ingredient in counted
            if not counted_ingredient.is_base
        ]
        shares.sort(key=lambda pair: -pair[0])
        of: list[str | Origin] = ["mix.base_g"]
        of += [
            leaf(
                counted.ref,
                say("{component} in {item}", component=component, item=counted.name.lower()),
                round(mass, 1),
                "g",
            )
            for mass, counted in shares
            if mass >= _LEAST_SHARE_G
        ]
        value = 100.0 * sum(mass for mass, _ in shares) / base_g
        low, high = _ratio_range(value, component, counted, base_g)
        ratios[key] = calculation.fact_book.add(
            f"mix.{key}_pct",
            value,
            say(
                "all the {component} that is not the {stuff}'s own, on 100 of {stuff}", component=component, stuff=stuff
            ),
            source=say("baker's percentage; {source}", source=SOURCE),
            of=of,
            low=low,
            high=high,
        )
    return ratios


def _ratio_range(
    value: float, component: str, counted: list[_CountedIngredient], base_g: float
) -> tuple[float, float] | tuple[None, None]:
    """Between what a ratio lies, where amounts were said by the cup. Lines are off independently of each other.

    More of the base lowers the ratio; more of anything else raises it by its own share.
    """
    down = up = 0.0
    for counted_ingredient in counted:
        loose, full = counted_ingredient.packing
        if counted_ingredient.is_base:
            share = value * counted_ingredient.composition.total / base_g
            loose, full = -full / (1 + full), -loose / (1 + loose)
        else:
            share = 100.0 * getattr(counted_ingredient.free, component) / base_g
        down += (share * loose) ** 2
        up += (share * full) ** 2
    low, high = math.sqrt(down), math.sqrt(up)
    return (value - low, value + high) if low + high > made_parts.LEAST_RANGE * value else (None, None)


def mix(calculation: Calculation) -> MixResult:
    """Ratios, batch, yields, volume and gel temperature."""
    way, bowl = calculation.way, calculation.bowl
    soaked = grains.soak_grain(calculation)
    made = made_parts.yield_parts(calculation)
    base_g = _enter_base(calculation)
    counted = _counted_ingredients(calculation, soaked, made)
    ratios = _ratios(calculation, counted, base_g)
    for group, key in (("egg", "mix.egg_pct"), ("legume", "mix.legume_pct")):
        grams = bowl.base.of_group(group)
        if grams:
            calculation.fact_book.add(
                key, 100 * grams / base_g, say("on the base's weight"), source=CONSERVATION, of=["mix.base_g"]
            )
    whole, stays, clings_g = _enter_batch(
        calculation, soaked, [counted_ingredient for counted_ingredient in counted if not counted_ingredient.late]
    )
    in_heat: list[Contribution] = []
    late: list[Contribution] = []
    for contribution in bowl.base.contributions:
        (late if way.joins_late(contribution.joins) else in_heat).append(contribution)
    heated = Composition.summed(contribution.composition for contribution in in_heat)
    beside = (soaked.beside if soaked else 0.0) + soaked_beans_g(calculation)
    if beside:
        heated = heated.with_water(heated.water + beside)
    cooked, heat_g = _enter_cooked(calculation, soaked, made, heated.scaled(stays), late)
    shaped = cooked if way.portions == "cooked" else whole
    _volume(calculation, shaped)
    _enter_gel(calculation, whole, heated, in_heat)
    scald(calculation, base_g)
    drawing = _drawing(calculation, whole, ratios)
    _advise_on_ratios(
        calculation, ratios["hydration"], sweetness_pct(calculation, ratios["sugar"], base_g), ratios["fat"]
    )
    lines = tuple(line_result(calculation, line, base_g) for line in bowl.lines)
    parts = (
        made_parts.base_result(calculation, heated.total, _cooked_range(calculation)),
        *made_parts.part_results(calculation, made),
    )
    worked_grain = grains.grain_worked(calculation, soaked) if soaked else None
    _enter_filling(calculation, made, base_g)
    beans_g = soaked_beans_g(calculation)
    amounts: dict[Amount, float] = {"soak": beside - beans_g, "beans": beans_g, "heat": heat_g, "clings": -clings_g}
    if soaked:
        amounts["stands-in"] = soaked.stands_in
    if "mix.scald_g" in calculation.fact_book:
        amounts["scald"] = calculation.fact_book.number("mix.scald_g")
    return MixResult(drawing, heated, shaped, cooked, made, lines, parts, worked_grain, amounts)


def _enter_base(calculation: Calculation) -> float:
    """The flour or the dry grain of the base, in grams: what every ratio is told on."""
    way = calculation.way
    kernels = [
        contribution for contribution in calculation.bowl.base.contributions if contribution.item.group == way.base
    ]
    return calculation.fact_book.add(
        "mix.base_g",
        sum(contribution.grams for contribution in kernels),
        say("the {base} of the base, as weighed", base="flour" if way.base == "flour" else say("dry grain")),
        source=CONSERVATION,
        of=[leaf(contribution.ref, contribution.item.name, contribution.grams, "g") for contribution in kernels],
    )


def _enter_batch(
    calculation: Calculation, soaked: SoakedGrain | None, mixed: Sequence[_CountedIngredient]
) -> tuple[Composition, float, float]:
    """All that goes into the batch, as a scale has shown it where one has; what share of the lines that is; and the grams that
    clung to bowls."""
    fact_book, way = calculation.fact_book, calculation.way
    whole = Composition.summed(counted.composition for counted in mixed)
    on_scale = calculation.weighed.get("mix.batch_g", whole.total)
    stays = on_scale / whole.total if whole.total else 1.0  # what clung to bowls took some of everything
    clings_g = whole.total - on_scale
    whole = whole.scaled(stays)
    off = [math.hypot(*(counted.composition.total * counted.packing[side] for counted in mixed)) for side in (0, 1)]
    ranged = sum(off) > made_parts.LEAST_RANGE * whole.total and "mix.batch_g" not in calculation.weighed
    fact_book.add(
        "mix.batch_g",
        whole.total,
        say("every line that goes into the batch, reserves held back")
        + (say(", and the water of the soak") if soaked and soaked.beside else ""),
        source=CONSERVATION,
        of=[leaf(counted.ref, counted.name, round(counted.composition.total, 1), "g") for counted in mixed],
        low=whole.total - off[0] if ranged else None,
        high=whole.total + off[1] if ranged else None,
    )
    _advise_cups(calculation, mixed)
    fact_book.add(
        "mix.water_g",
        whole.water,
        say("water in every line, the {base}'s own included", base=way.base),
        source=SOURCE,
        of=["mix.batch_g"],
    )
    return whole, stays, clings_g


def _enter_gel(
    calculation: Calculation, whole: Composition, heated: Composition, in_heat: Sequence[Contribution]
) -> None:
    """Where the starch of it gels, by the sugar in its free water and by how much of that there is."""
    in_water = 100.0 * whole.sugar / (whole.sugar + whole.water) if whole.sugar + whole.water else 0.0
    calculation.fact_book.add(
        "mix.sugar_in_water_pct",
        in_water,
        say("sugar divided by sugar and water together"),
        source=CONSERVATION,
        of=["mix.sugar_pct", "mix.water_g"],
    )
    gives = calculation.likely("whole_gives")
    bound = sum(
        contribution.composition.water * (1 - gives)
        for contribution in in_heat
        if is_whole(contribution, calculation.way.base)
    )
    free_g = max(0.0, heated.water - bound)
    gel = gel_temperature_c(heated.sugar / free_g if free_g else 2.0, free_g / heated.starch if heated.starch else 9.0)
    gels: EstimateId = "gel_c"
    enter_with_range(
        calculation,
        "mix.gel_temperature_c",
        say("{degrees} in plain water, raised by sugar and by want of water", degrees=calculation.degrees(65)),
        lambda is_: gel + is_[gels],
        (gels,),
        source=KITCHEN_ESTIMATE,
        of=["mix.sugar_in_water_pct", "mix.water_g", "mix.base_g"],
    )


def _drawing(calculation: Calculation, whole: Composition, ratios: Mapping[str, float]) -> MixDrawing:
    """What the bowl is made of, and what kind of dough that is."""
    soft = _softness(calculation, ratios["hydration"], ratios["sugar"])
    tender = _tenderness(calculation, ratios["sugar"], ratios["fat"])
    bar = (
        ("water", whole.water),
        ("sugar", whole.sugar),
        ("starch", whole.starch),
        ("fat", whole.fat),
        ("other", whole.protein + whole.fibre + whole.salt + whole.other),
    )
    return unchecked_model(
        MixDrawing,
        bar=tuple(unchecked_model(BarShare, material=m, grams=g) for m, g in bar if g >= _LEAST_SHARE * whole.total),
        in_zone=inside((ratios["hydration"], ratios["sugar"]), calculation.way.zone),
        outcome=next(words for limit, words in _OUTCOMES if soft <= limit),
        bite=next(words for limit, words in _BITES if tender <= limit),
    )


def _enter_filling(calculation: Calculation, made: Mapping[PartId, FinishedPart], base_g: float) -> None:
    """How much filling is made, on the base and on all of it."""
    fact_book = calculation.fact_book
    fillings = [finished for part_id, finished in made.items() if role_of(part_id) == "filling"]
    if not fillings:
        return
    of_fillings: Origins = [f"part.{finished.id}.made_g" for finished in fillings]
    share = fact_book.add(
        "mix.filling_pct",
        100 * sum(finished.have for finished in fillings) / base_g,
        say("filling made, on the base's dry weight"),
        source=CONSERVATION,
        of=[*of_fillings, "mix.base_g"],
    )
    of = "mix.cooked_g" if calculation.way.portions == "cooked" else "mix.batch_g"
    fact_book.add(
        "mix.filling_share_pct",
        100 * share * base_g / (share * base_g + 100 * fact_book.number(of)),
        say("filling made, on filling and dough together"),
        source=CONSERVATION,
        of=[*of_fillings, of],
    )


def _advise_cups(calculation: Calculation, mixed: Sequence[_CountedIngredient]) -> None:
    """What a cup leaves open, and what would settle it: the line that matters most, weighed once."""
    fact = calculation.fact_book.facts["mix.hydration_pct"]
    if fact.low is None or fact.high is None:
        return
    widest = max(mixed, key=lambda counted: counted.composition.total * (counted.packing[1] - counted.packing[0]))
    if widest.packing[1] - widest.packing[0] < WORTH_WEIGHING:
        return
    says = say(
        "By the cup the water may be {low:.0f} to {high:.0f} %. Weigh one cup of {item} once (Kitchen), and it is known.",
        low=fact.low,
        high=fact.high,
        item=widest.name.lower(),
    )
    calculation.advise("mix", "look", says, 5)


def _enter_on_scale(calculation: Calculation, likely: float, low: float, high: float) -> None:
    """What the scale shows with the pan on it, where that has been weighed empty. Grams."""
    pan = next((pan for pan in calculation.kitchen.pans if pan.name == calculation.bowl.base.part.pan), None)
    if pan:
        calculation.fact_book.add(
            "mix.scale_g",
            likely + pan.empty_g,
            say("with {name}: stop when the scale shows it", name=pan.name),
            source=CONSERVATION,
            of=["mix.cooked_g", calculation.from_kitchen("pans", pan.name, pan.empty_g, "g")],
            low=low + pan.empty_g,
            high=high + pan.empty_g,
        )


def _enter_cooked(
    calculation: Calculation,
    soaked: SoakedGrain | None,
    made: dict[PartId, FinishedPart],
    heated: Composition,
    late: Sequence[Contribution],
) -> tuple[Composition, float]:
    """What the batch weighs when cooked, entered; its composition, water lost taken off, what joins it then put in; and the
    grams that the heat brings (negative: takes)."""
    fact_book, way = calculation.fact_book, calculation.way
    of: Origins
    if soaked:
        likely, low, high = grains.enter_cooked_grain(calculation, soaked, heated.total)
        says, of = say("the cooked grain"), ["grain.cooked_g"]
    else:
        loss = way.loss(calculation.schools)
        likely, low, high = (heated.total * (1 - share / 100) for share in (loss.middle, loss.high, loss.low))
        says = (
            say("the base less {middle:g} % in this heat", middle=loss.middle)
            if loss.middle > 0
            else say("the base and {middle:g} % of water taken up", middle=-loss.middle)
            if loss.middle < 0
            else say("the base, nothing lost")
        )
        of = [
            "mix.batch_g",
            leaf(
                "way:cook_loss", say("lost in cooking"), say("{low:g} to {high:g}", low=loss.low, high=loss.high), "%"
            ),
        ]
    whole = [heated.with_water(heated.water - (heated.total - likely))]
    done = likely
    for contribution in late:
        likely, low, high = likely + contribution.grams, low + contribution.grams, high + contribution.grams
        whole.append(contribution.composition)
        of.append(leaf(contribution.ref, contribution.item.name, round(contribution.grams, 1), "g"))
        says += say(", and the {item} that joins it then", item=contribution.item.name.lower())
    for part_id, finished in made.items():
        if role_of(part_id) in way.counted and counts_raw(calculation.sheet, calculation.bowl.parts[part_id].part):
            likely, low, high = (
                total + part * (finished.have / finished.grams if finished.grams else 1.0)
                for total, part in ((likely, finished.grams), (low, finished.low), (high, finished.high))
            )
            whole.append(finished.had)
            of.append(f"part.{part_id}.made_g")
            says += say(" and the {name}", name=finished.name)
    shown = calculation.weighed.get("mix.cooked_g")
    if shown is not None:
        done += shown - likely
        likely = low = high = shown
        says = say("as it was weighed when cooked")
    fact_book.add(
        "mix.cooked_g",
        likely,
        says,
        source=KITCHEN_ESTIMATE if shown is None else WEIGHED,
        of=of,
        low=low,
        high=high,
    )
    _enter_on_scale(calculation, likely, low, high)
    cooked = Composition.summed(whole)
    return cooked if shown is None else at_weight(cooked, shown), done - heated.total


def _cooked_range(calculation: Calculation) -> tuple[float, float, float]:
    """The cooked batch: likely, low, high."""
    fact = calculation.fact_book.facts["mix.cooked_g"]
    likely = calculation.fact_book.number("mix.cooked_g")
    return likely, likely if fact.low is None else fact.low, likely if fact.high is None else fact.high


def _volume(calculation: Calculation, shaped: Composition) -> None:
    fact_book = calculation.fact_book
    density = properties(fractions(shaped), 25.0).rho / 1000.0
    of = "mix.cooked_g" if calculation.way.portions == "cooked" else "mix.batch_g"
    fact_book.add(
        "mix.density_g_per_ml",
        density,
        say("the components' volumes added up, at {degrees}", degrees=calculation.degrees(25)),
        source=CHOI_OKOS,
        of=[of, "mix.water_g"],
    )
    fact_book.add(
        "mix.volume_ml",
        fact_book.number(of) / density,
        say("weight divided by density"),
        source=CHOI_OKOS,
        of=[of, "mix.density_g_per_ml"],
    )


def inside(point: tuple[float, float], polygon: tuple[tuple[float, float], ...]) -> bool:
    """Whether a point lies inside a polygon, by counting crossings of a ray to the right."""
    x, y = point
    crossings = False
    for (x1, y1), (x2, y2) in zip(polygon, (*polygon[1:], polygon[0]), strict=True):
        if (y1 > y) != (y2 > y) and x < (x2 - x1) * (y - y1) / (y2 - y1) + x1:
            crossings = not crossings
    return crossings


def _softness_index(value: float) -> float:
    return max(-2.0, min(2.0, value))


def _softness(calculation: Calculation, hydration: float, sugar: float) -> float:
    """-2 firm to +2 soft against the way's midway point. Kitchen estimate: sugar counts half of water."""
    way = calculation.way
    water = (hydration - way.midway[0]) / ((way.hydration.high - way.hydration.low) / 2)
    sweet = (sugar - way.midway[1]) / ((way.sugar.high - way.sugar.low) / 2)
    soft = _softness_index(1.2 * water + 0.5 * sweet)
    return calculation.fact_book.add(
        "mix.softness",
        soft,
        say("how far water and sugar lie from the way's midway; an index, not a measurement"),
        source=KITCHEN_ESTIMATE,
        of=[
            "mix.hydration_pct",
            "mix.sugar_pct",
            leaf("way:midway", say("water midway"), way.midway[0], "%"),
            leaf("way:midway", say("sugar midway"), way.midway[1], "%"),
        ],
        low=max(-2.0, soft - 0.5),
        high=min(2.0, soft + 0.5),
    )


def _tenderness(calculation: Calculation, sugar: float, fat: float) -> float:
    """-2 chewy to +2 tender: sugar and fat both part the starch. Kitchen estimate: they count alike across their bands."""
    way = calculation.way
    rich = (fat - way.fat.middle) / max(1.0, (way.fat.high - way.fat.low) / 2)
    sweet = (sugar - way.sugar.middle) / max(1.0, (way.sugar.high - way.sugar.low) / 2)
    tender = _softness_index(0.8 * rich + 0.6 * sweet)
    return calculation.fact_book.add(
        "mix.tenderness",
        tender,
        say("how far sugar and fat lie from the middle of the way's bands; an index, not a measurement"),
        source=KITCHEN_ESTIMATE,
        of=["mix.sugar_pct", "mix.fat_pct"],
        low=max(-2.0, tender - 0.6),
        high=min(2.0, tender + 0.6),
    )


_OUTCOMES = (
    (-1.2, "firm and dense"),
    (-0.5, "on the firm side"),
    (0.5, "midway between firm and soft"),
    (1.2, "on the soft side"),
    (9.0, "very soft and slow to set"),
)
_BITES = (
    (-1.0, "very chewy"),
    (-0.35, "chewy"),
    (0.35, "with some chew"),
    (1.0, "tender"),
    (9.0, "very tender"),
)


def _advise_on_ratios(calculation: Calculation, hydration: float, sugar: float, fat: float) -> None:
    way = calculation.way
    kernels = {
        contribution.item.id
        for contribution in calculation.bowl.base.contributions
        if contribution.item.group == way.base
    }
    if "rice-flour" in kernels:
        calculation.advise(
            "mix", "look", say("Plain rice flour bakes and boils dry and short. Is it the sweet rice packet?"), 0
        )
    if kernels == {"plain-rice"}:
        calculation.advise(
            "mix", "look", say("Plain rice stays apart and will not hold. Is it the sweet rice packet?"), 0
        )
    checks = (
        (
            hydration < way.hydration.low,
            say("Dry for this way: it works from {low:g} % water.", low=way.hydration.low),
            1,
        ),
        (
            hydration > way.hydration.high,
            say("Wet for this way: it works up to {high:g} % water.", high=way.hydration.high),
            1,
        ),
        (
            sugar < way.sugar.low,
            say("Little sugar for this way: under {low:g} % it is hard as stone tomorrow.", low=way.sugar.low),
            2,
        ),
        (
            sugar > way.sugar.high,
            say("Very sweet for this way: over {high:g} % it is slow to gel and slow to set.", high=way.sugar.high),
            2,
        ),
        (fat < way.fat.low, say("Little fat: under {low:g} % it sticks to the knife.", low=way.fat.low), 4),
        (fat > way.fat.high, say("Much fat: over {high:g} % the outside turns greasy.", high=way.fat.high), 4),
    )
    for wrong, says, rank in checks:
        if wrong:
            calculation.advise("mix", "look", says, rank)
    for line in calculation.bowl.lines:
        asks = question(calculation, line)
        if asks:
            calculation.advise("mix", "look", f"{line.item.name}: {asks}", 3)
    calculation.advise(
        "mix", "good", say("On the map, drag the bean or nudge it with the arrow keys: water across, sugar up."), 9
    )


def advise_limits(calculation: Calculation) -> None:
    """The way's further bands, on whatever facts they name."""
    for limit in calculation.way.limits:
        if limit.fact in calculation.fact_book:
            value = calculation.fact_book.number(limit.fact)
            says = limit.too_little if value < limit.low else limit.too_much if value > limit.high else ""
            if says:
                calculation.advise("mix", "look", says, 2)
