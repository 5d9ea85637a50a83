"""Say what is fixed and let the rest follow: a sheet in, the adjusted sheet out, and what there is to say of it.

Each adjustment keeps the sheet's own units and rounds nothing, so that going there and back gives the same sheet.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Literal, NoReturn, TypeVar

import numpy as np
from pydantic import BaseModel, ConfigDict, Field, ValidationError

from kemble.core.change.diets import DIETS, DietId, stand_in
from kemble.core.change.exchanges import Exchange, exchange_for
from kemble.core.computing_guard import computes
from kemble.core.facts.fact import FactBook
from kemble.core.facts.problems import Refused, problems_from, refuse
from kemble.core.facts.quantity import UnitId
from kemble.core.facts.vocabulary import PART_ID, PartId, PartRole, role_of
from kemble.core.kitchen.document import Kitchen
from kemble.core.kitchen.larder import Ingredient
from kemble.core.kitchen.shelf import Shelf
from kemble.core.physics.soaking import most_pct, soak_for
from kemble.core.sentences import say
from kemble.core.sheet.bowl import Bowl, WeighedLine, weigh
from kemble.core.sheet.document import Cut, Grain, Pieces, Sheet
from kemble.core.sheet.parts import MOST_AMOUNT, Amount, Line, Part, PartialAmount
from kemble.core.stations.calculation import Calculation
from kemble.core.stations.mix.grain import RINSE_MIN
from kemble.core.stations.mix.mix import mix
from kemble.core.stations.shape.portions import WITHIN, WholeCentre, as_heart, heart_of
from kemble.core.stations.shape.shape import shape

By = Literal[
    "ratio",
    "filling_share",
    "base",
    "batch",
    "cooked",
    "depth",
    "pieces",
    "people",
    "line",
    "have",
    "part",
    "exchange",
    "diet",
    "unit",
]


class Adjustment(BaseModel):
    """One thing to fix.

    ratio: any of `hydration_pct`, `sugar_pct` and `fat_pct`, the others held, by the main liquid, sugar and fat.
    filling_share: `share_pct` of filling in filling and dough. base: `grams` of flour or dry grain. batch: `grams`
    before cooking. cooked: `grams` after it. depth: `mm` in the tins. pieces: `count` of `piece_g` and `filling_g`
    each. people: `people` with `each` pieces. line: there is only so much of line `line` of part `part`, by `grams` or
    by `amount` in the unit that it is written in; everything follows. have: there are only `grams` of the part `role`, made; everything follows. part: the part `role` times
    `factor`. exchange: line `line` of part `part` for `ingredient`. diet: every line that `diet` bars for
    what stands in for it. unit: the same amount of that line in `unit`, as this kitchen measures.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    by: By
    hydration_pct: float | None = Field(None, gt=0, le=400, description="above 0, at most 400 %")
    sugar_pct: float | None = Field(None, ge=0, le=300, description="0 to 300 %")
    fat_pct: float | None = Field(None, ge=0, le=200, description="0 to 200 %")
    share_pct: float | None = Field(None, gt=0, lt=95, description="above 0, under 95 %")
    grams: float | None = Field(None, gt=0, le=MOST_AMOUNT, description="above 0, at most 50 000 g")
    amount: float | None = Field(None, gt=0, le=MOST_AMOUNT, description="above 0, at most 50 000")
    mm: float | None = Field(None, gt=0, le=200, description="above 0, at most 200 mm")
    count: int | None = Field(None, ge=1, le=500, description="a whole number from 1 to 500")
    piece_g: float | None = Field(None, gt=0, le=500, description="above 0, at most 500 g")
    filling_g: float | None = Field(None, gt=0, le=300, description="above 0, at most 300 g")
    people: int | None = Field(None, ge=1, le=500, description="a whole number from 1 to 500")
    each: float | None = Field(None, gt=0, le=50, description="above 0, at most 50 pieces")
    factor: float | None = Field(None, gt=0, le=1000, description="above 0, at most 1000")
    part: int | None = Field(None, ge=0, le=11, description="the number of a part, from 0")
    line: int | None = Field(None, ge=0, le=39, description="the number of a line, from 0")
    unit: UnitId | None = Field(None, description="a unit")
    diet: DietId | None = Field(None, description=" or ".join(DIETS))
    ingredient: str | None = Field(None, max_length=80, description="what to take instead; empty to leave it out")
    part_id: PartId = Field("base", pattern=PART_ID, description="a part of the sheet")
    role: PartRole | None = Field(None, description="a role: every part of it, in place of one")


@dataclass(frozen=True, slots=True)
class AdjustedSheet:
    sheet: Sheet
    says: list[str] = field(default_factory=list)


@computes
def adjust(sheet: Sheet, to: Adjustment, kitchen: Kitchen) -> AdjustedSheet:
    """The sheet with the adjustment made. Raises Refused when it lacks what the adjustment needs."""
    before = _SheetBefore(sheet, kitchen)
    try:
        if to.by == "exchange":
            return _exchange(before, to)
        if to.by == "diet":
            return _diet(before, to)
        return AdjustedSheet(_checked(_ROUTES[to.by](before, to)))
    except ValidationError as error:  # what would come of it is more than a sheet holds
        raise Refused(problems_from(error, Sheet)) from None


class _SheetBefore:
    """The sheet as it stands, weighed and mixed in one kitchen."""

    def __init__(self, sheet: Sheet, kitchen: Kitchen) -> None:
        self.sheet, self.kitchen = sheet, kitchen
        self.shelf = Shelf(kitchen)
        self.bowl: Bowl = weigh(sheet, self.shelf)
        self._calculation = Calculation(sheet, kitchen, self.shelf, self.bowl)
        self._mixed = mix(self._calculation)

    @property
    def fact_book(self) -> FactBook:
        return self._calculation.fact_book

    def shaped(self) -> FactBook:
        """The facts with those of the pieces. Raises Refused where they cannot be shaped."""
        shape(self._calculation, self._mixed)
        if self._calculation.problems:
            raise Refused(self._calculation.problems)
        return self._calculation.fact_book

    @property
    def sheeted(self) -> bool:
        """Whether the mass is rolled out in a bag."""
        return self._calculation.follows(self._calculation.way.sheeted_when)

    @property
    def heart(self) -> WholeCentre | None:
        return heart_of(self.bowl, self._mixed.made)

    def each_heart_g(self, part: Part) -> float:
        """One whole fruit or nut of a part."""
        return as_heart(self.bowl.parts[part.id], self._mixed.made[part.id]).each_g

    @property
    def dough_g(self) -> float:
        """What is shared out over pieces."""
        return self.fact_book.number("mix.cooked_g" if self._calculation.way.portions == "cooked" else "mix.batch_g")

    def have_g(self, *parts: Part) -> float:
        """What this sheet has of some parts when they are done. Raises Refused when that is nothing."""
        have = sum(self._mixed.made[part.id].have for part in parts)
        if have <= 0:
            names = " and ".join(part.called for part in parts)
            refuse("to", say("there is nothing in the {role}", role=names), say("a part with lines in it"))
        return have

    @property
    def in_tray(self) -> bool:
        return self.sheet.in_tray

    @property
    def counted(self) -> tuple[PartRole, ...]:
        return self._calculation.way.counted


def _need(to: Adjustment, name: str) -> float:
    value = getattr(to, name)
    if value is None:
        accepts = Adjustment.model_fields[name].description or ""
        refuse(f"to.{name}", say("is missing"), accepts)
    return float(value)


def scale(sheet: Sheet, factor: float) -> Sheet:
    """Every part times `factor`; pieces and tins stay as they are."""
    return sheet.model_copy(update={"parts": tuple(scale_part(part, factor) for part in sheet.parts)})


def _scale_parts(sheet: Sheet, factors: Mapping[PartId, float]) -> Sheet:
    parts = tuple(scale_part(part, factors.get(part.id, 1.0)) for part in sheet.parts)
    return sheet.model_copy(update={"parts": parts})


def scale_part(part: Part, factor: float) -> Part:
    """Lines, and what is taken or kept by amount; shares follow by themselves."""
    return part.model_copy(
        update={
            "lines": tuple(_line_times(line, factor) for line in part.lines),
            "takes": tuple(_scale_partial(take, factor) for take in part.takes),
            "kept": _scale_partial(part.kept, factor) if part.kept else None,
        }
    )


_SomeOf = TypeVar("_SomeOf", bound=PartialAmount)


def _scale_partial(some: _SomeOf, factor: float) -> _SomeOf:
    return some.model_copy(update={"amount": _scale_amount(some.amount, factor)}) if some.amount else some


def _scale_amount(amount: Amount, factor: float) -> Amount:
    return amount.model_copy(update={"value": amount.value * factor})


def _line_times(line: Line, factor: float) -> Line:
    reserve = _scale_amount(line.reserve, factor) if line.reserve else None
    return line.model_copy(update={"amount": _scale_amount(line.amount, factor), "reserve": reserve})


def _checked(sheet: Sheet) -> Sheet:
    """Copies skip validation: look again at what scaling can break."""
    for p, part in enumerate(sheet.parts):
        for i, line in enumerate(part.lines):
            if not 0 < line.amount.value <= MOST_AMOUNT:
                refuse(
                    f"parts.{p}.lines.{i}.amount.value",
                    say("would become {value:.6g}", value=line.amount.value),
                    Amount.model_fields["value"].description or "",
                )
    return sheet


def _adjust_base(before: _SheetBefore, to: Adjustment) -> Sheet:
    return scale(before.sheet, _need(to, "grams") / before.fact_book.number("mix.base_g"))


def _adjust_batch(before: _SheetBefore, to: Adjustment) -> Sheet:
    return scale(before.sheet, _need(to, "grams") / before.fact_book.number("mix.batch_g"))


def _adjust_cooked(before: _SheetBefore, to: Adjustment) -> Sheet:
    return scale(before.sheet, _need(to, "grams") / before.fact_book.number("mix.cooked_g"))


def _depth(before: _SheetBefore, to: Adjustment) -> Sheet:
    if not before.in_tray:
        refuse("to.by", say("this way fills no tin"), say("pieces, or a weight"))
    bag = before.sheet.bag
    if before.sheeted:
        cooked_g = (
            bag.length_mm * bag.width_mm * _need(to, "mm") / 1000.0 * before.fact_book.number("mix.density_g_per_ml")
        )
        return scale(before.sheet, cooked_g / before.fact_book.number("mix.cooked_g"))
    volume_ml = before.sheet.vessel.floor_mm2 * _need(to, "mm") / 1000.0
    return scale(before.sheet, volume_ml / before.fact_book.number("mix.volume_ml"))


def _adjust_part(before: _SheetBefore, to: Adjustment) -> Sheet:
    parts = _parts_meant(before.sheet, to)
    if not parts:
        _refuse_part(to, say("there is no {role} on the sheet", role=to.role or to.part_id))
    return _scale_parts(before.sheet, dict.fromkeys((part.id for part in parts), _need(to, "factor")))


def _adjust_line(before: _SheetBefore, to: Adjustment) -> Sheet:
    line = _scooped(before, to)
    if to.amount is not None:
        return scale(before.sheet, to.amount / line.line.amount.value)
    return scale(before.sheet, _need(to, "grams") / line.grams)


def _have(before: _SheetBefore, to: Adjustment) -> Sheet:
    parts = [part for part in _parts_meant(before.sheet, to) if part.role != "base"]
    if not parts:
        _refuse_part(to, say("no {role} is made beside the base", role=to.role or to.part_id))
    return scale(before.sheet, _need(to, "grams") / before.have_g(*parts))


def _parts_meant(sheet: Sheet, to: Adjustment) -> Sequence[Part]:
    """Every part of the role, where one is given; else the part that is named."""
    if to.role is not None:
        return sheet.parts_of(to.role)
    return [part for part in sheet.parts if part.id == to.part_id]


def _refuse_part(to: Adjustment, says: str) -> NoReturn:
    refuse("to.role" if to.role else "to.part_id", says, say("a part of the sheet"))


def _scooped(before: _SheetBefore, to: Adjustment) -> WeighedLine:
    part, line = _need(to, "part"), _need(to, "line")
    found_line = next(
        (weighed_line for weighed_line in before.bowl.lines if (weighed_line.part, weighed_line.index) == (part, line)),
        None,
    )
    if found_line is None:
        refuse("to.line", say("is not on the sheet"), say("a line of the sheet"))
    return found_line


def _change_unit(before: _SheetBefore, to: Adjustment) -> Sheet:
    """The same grams, written in another unit."""
    weighed_line = _scooped(before, to)
    if to.unit is None:
        refuse("to.unit", say("is missing"), say("a unit"))
    unit, line = to.unit, weighed_line.line
    try:
        value = before.shelf.amount(weighed_line.item, weighed_line.grams, unit, line.state)
        held = before.shelf.amount(weighed_line.item, weighed_line.reserve_g, unit, line.state) if line.reserve else 0.0
    except ValueError as error:
        refuse("to.unit", f"{weighed_line.item.name} {error}", say("g, ml, or a cup that has been weighed"))
    written = line.model_copy(
        update={
            "amount": Amount(value=value, unit=unit),
            "reserve": Amount(value=held, unit=unit) if line.reserve else None,
        }
    )
    return _with_lines(
        before.sheet, lambda p, i, old: written if (p, i) == (weighed_line.part, weighed_line.index) else old
    )


def _filling_share(before: _SheetBefore, to: Adjustment) -> Sheet:
    fillings = before.sheet.parts_of("filling")
    if not fillings:
        refuse("to.by", say("there is no filling on the sheet"), say("a part with role filling"))
    share = _need(to, "share_pct") / 100
    wanted = share / (1 - share) * before.dough_g
    pieces = Pieces(count=before.sheet.pieces.count, dough_g=before.sheet.pieces.dough_g)
    factor = wanted / before.have_g(*fillings)
    scaled = _scale_parts(before.sheet, {part.id: factor for part in fillings})
    return scaled.model_copy(update={"pieces": pieces})


def _adjust_pieces(before: _SheetBefore, to: Adjustment) -> Sheet:
    """So many pieces, so heavy: each part scaled to give just that."""
    count = int(_need(to, "count"))
    if before.in_tray:
        factor = count * _need(to, "piece_g") / before.fact_book.number("mix.cooked_g")
        return scale(before.sheet, factor).model_copy(update={"cut": _cut_by_count(before.sheet.cut, count)})
    dough, filling = to.piece_g, to.filling_g
    fills = any(part.role in WITHIN for part in before.sheet.parts)
    if dough is None or (filling is None and fills):
        fact_book = before.shaped()  # what is not said stays as it is
        dough = fact_book.number("shape.base_g") if dough is None else dough
        if filling is None and "shape.filling_g" in fact_book:
            filling = fact_book.number("shape.filling_g")
    if filling is not None and not fills:
        refuse("to.filling_g", say("there is no filling on the sheet"), say("nothing, or a filling"))
    return _for_pieces(before, count, dough, filling)


def _cut_by_count(cut: Cut, count: int) -> Cut:
    """The same pattern, cut by the count."""
    return cut.model_copy(update={"pieces": count, "side_mm": None, "long_mm": None, "piece_g": None})


def _for_pieces(before: _SheetBefore, count: int, dough: float, filling: float | None) -> Sheet:
    by = count * dough / before.dough_g
    factors = {part.id: by for part in before.sheet.parts}
    heart, fillings = before.heart, before.sheet.parts_of("filling")
    if heart is not None and heart.each_g:
        for part in before.sheet.parts_of("heart"):
            factors[part.id] = count * before.each_heart_g(part) / before.have_g(part)
    if filling is not None and fillings:
        paste = filling - (heart.each_g if heart else 0.0)
        if paste <= 0:
            refuse("to.filling_g", say("leaves nothing round the fruit or nut"), say("more within"))
        factor = count * paste / before.have_g(*fillings)
        factors |= {part.id: factor for part in fillings}
    for part in before.sheet.parts:
        if part.each_g and part.role not in WITHIN:
            factors[part.id] = count * part.each_g / before.have_g(part)
    pieces = Pieces(count=count, dough_g=dough, filling_g=filling)
    return _scale_parts(before.sheet, factors).model_copy(update={"pieces": pieces})


def _people(before: _SheetBefore, to: Adjustment) -> Sheet:
    """So many for each of so many, the pieces as heavy as they are now."""
    count = math.ceil(_need(to, "people") * _need(to, "each") - 1e-9)
    if before.in_tray:
        piece_g = before.fact_book.number("mix.cooked_g") / before.sheet.cut.pieces
        return _adjust_pieces(before, Adjustment(by="pieces", count=count, piece_g=piece_g))
    return _adjust_pieces(before, Adjustment(by="pieces", count=count))


# Ratios: which group of the counted parts carries a component, and the fact that says how much there is.
_MOVERS: tuple[tuple[str, str, str], ...] = (
    ("hydration_pct", "water", "liquid"),
    ("sugar_pct", "sugar", "sugar"),
    ("fat_pct", "fat", "fat"),
)
_SUCH_AS = {"liquid": "water or milk", "sugar": "sugar or honey", "fat": "butter or oil"}


def _ratio(before: _SheetBefore, to: Adjustment) -> Sheet:
    """Solve for the main liquid, sugar and fat so that each ratio comes out as asked and the others as they were.

    As many equations as lines that can move: liquids carry some sugar (juice), sugars some water (honey), butter
    both. A ratio that no line can move stays as it comes. Grain that is not poured on takes its water from the soak.
    """
    asked = {name: getattr(to, name) for name, _, _ in _MOVERS if getattr(to, name) is not None}
    if not asked:
        refuse("to", say("no ratio is given"), say("hydration_pct, sugar_pct or fat_pct"))
    soaks = "grain.uptake_g" in before.fact_book and "grain.cook_water_g" not in before.fact_book
    movers: dict[str, tuple[str, WeighedLine]] = {}
    for name, component, group in _MOVERS:
        if name == "hydration_pct" and soaks:
            continue
        main = _main(before, group)
        if main is not None:
            movers[name] = (component, main)
        elif name in asked and (len(asked) == 1 or name == "hydration_pct"):
            refuse(
                "parts",
                say("there is no {group} to change", group=group),
                say("a line of {such_as}", such_as=_SUCH_AS[group]),
            )
    sheet = _hold_ratios(before, movers, asked) if movers else before.sheet
    if soaks and to.hydration_pct is not None:
        sheet = _soak_longer(_SheetBefore(sheet, before.kitchen), to.hydration_pct)
    return sheet


def _hold_ratios(before: _SheetBefore, movers: dict[str, tuple[str, WeighedLine]], asked: dict[str, float]) -> Sheet:
    """Every ratio that a line can move, as asked or as it was. Fat that was not asked for gives way if it must."""
    base_g = before.fact_book.number("mix.base_g")

    def solved(names: list[str]) -> Sheet:
        targets = [asked.get(name, before.fact_book.number(f"mix.{name}")) * base_g / 100 for name in names]
        return _solve_ratios(before, [movers[name] for name in names], targets)

    try:
        return solved(list(movers))
    except Refused:
        if "fat_pct" in asked or "fat_pct" not in movers:
            raise
        rest = [name for name in movers if name != "fat_pct"]
        return solved(rest) if rest else before.sheet


def _solve_ratios(before: _SheetBefore, movers: list[tuple[str, WeighedLine]], targets: list[float]) -> Sheet:
    components = [component for component, _ in movers]
    base_g = before.fact_book.number("mix.base_g")
    pct = {component: f"mix.{name}" for name, component, _ in _MOVERS}
    gram = [
        [getattr(line.item.composition(1.0), c) * _counted_share(before, line) for _, line in movers]
        for c in components
    ]
    still = [
        before.fact_book.number(pct[c]) * base_g / 100 - sum(row[j] * movers[j][1].used_g for j in range(len(movers)))
        for c, row in zip(components, gram, strict=True)
    ]
    try:
        used = np.linalg.solve(np.array(gram), np.array(targets) - np.array(still))
    except np.linalg.LinAlgError:
        refuse("to", say("liquid, sugar and fat cannot be told apart here"), say("a plain liquid"))
    lines = {}
    for (component, weighed_line), grams in zip(movers, used, strict=True):
        if grams <= 1e-6:
            names = {"water": "hydration_pct", "sugar": "sugar_pct", "fat": "fat_pct"}
            refuse(
                f"to.{names[component]}",
                say("would leave no {item} in the bowl", item=weighed_line.item.name.lower()),
                say("a little more"),
            )
        lines[weighed_line.part, weighed_line.index] = (float(grams) + weighed_line.reserve_g) / weighed_line.grams
    return _with_lines(before.sheet, lambda p, i, line: _amount_times(line, lines.get((p, i), 1.0)))


def _counted_share(before: _SheetBefore, line: WeighedLine) -> float:
    """How much of a line's used grams the ratios count: not what goes to other parts, is kept or is made for others."""
    share = 0.0
    for each in line.shares:
        part = before.sheet.part(each.to)
        if part is not None and part.role in before.counted:
            made = f"part.{each.to}.made_g"
            have = 1.0
            if made in before.fact_book and before.fact_book.number(made):
                have = before.have_g(part) / before.fact_book.number(made)
            share += each.grams / line.used_g * have
    return share


def _main(before: _SheetBefore, group: str) -> WeighedLine | None:
    """The heaviest line of a group in the counted parts."""
    lines = [
        line
        for line in before.bowl.lines
        if line.item.group == group and role_of(line.part_id) in before.counted and _counted_share(before, line) > 0.2
    ]
    return max(lines, key=lambda line: line.used_g, default=None)


def _soak_longer(before: _SheetBefore, hydration_pct: float) -> Sheet:
    """The soak that gives a hydration, in the water that the sheet soaks in."""
    fact_book, grain = before.fact_book, before.sheet.grain
    uptake = hydration_pct - (fact_book.number("mix.hydration_pct") - fact_book.number("grain.uptake_pct"))
    most = most_pct(grain.soak_c)
    minutes = soak_for(uptake, grain.soak_c) if uptake > 0 else None
    longest = float(next(m.le for m in Grain.model_fields["soak_min"].metadata if hasattr(m, "le")))
    soak = None if minutes is None else minutes - RINSE_MIN * grain.rinses
    if soak is None or not 0 <= soak <= longest:
        refuse(
            "to.hydration_pct",
            say("soaking alone does not give that: in water so warm the grain takes up to {most:.0f} %", most=most),
            say("a little less, warmer water, or water sprinkled on"),
        )
    return before.sheet.model_copy(update={"grain": grain.model_copy(update={"soak_min": soak})})


def _with_lines(sheet: Sheet, change: Callable[[int, int, Line], Line]) -> Sheet:
    parts = tuple(
        part.model_copy(update={"lines": tuple(change(p, i, line) for i, line in enumerate(part.lines))})
        for p, part in enumerate(sheet.parts)
    )
    return sheet.model_copy(update={"parts": parts})


def _amount_times(line: Line, factor: float) -> Line:
    """The line's amount times a factor; its reserve stays."""
    if factor == 1.0:
        return line
    return line.model_copy(update={"amount": line.amount.model_copy(update={"value": line.amount.value * factor})})


_ROUTES: dict[str, Callable[[_SheetBefore, Adjustment], Sheet]] = {
    "ratio": _ratio,
    "filling_share": _filling_share,
    "base": _adjust_base,
    "batch": _adjust_batch,
    "cooked": _adjust_cooked,
    "depth": _depth,
    "pieces": _adjust_pieces,
    "people": _people,
    "line": _adjust_line,
    "have": _have,
    "part": _adjust_part,
    "unit": _change_unit,
}


def _exchange(before: _SheetBefore, to: Adjustment) -> AdjustedSheet:
    """One ingredient for another, keeping what it was there for; water and sugar re-balanced by the main lines."""
    line = _scooped(before, to)
    if to.ingredient is None:
        refuse("to.ingredient", say("is missing"), say("what to take instead"))
    swap = exchange_for(line.item, to.ingredient, before.shelf)
    if swap is None:
        refuse(
            "to.ingredient",
            say("there is no exchange of {item} for that", item=line.item.name.lower()),
            say("one of its exchanges"),
        )
    lines = _exchanged_lines(line, swap, before.shelf)
    part = before.sheet.parts[line.part]
    new_lines = (*part.lines[: line.index], *lines, *part.lines[line.index + 1 :])
    if not new_lines:
        refuse("to.ingredient", say("would leave the part empty"), say("another exchange"))
    parts = tuple(
        part.model_copy(update={"lines": new_lines}) if p == line.part else each
        for p, each in enumerate(before.sheet.parts)
    )
    sheet = _checked(before.sheet.model_copy(update={"parts": parts}))
    return AdjustedSheet(*_rebalanced(before, sheet, line, swap))


def _diet(before: _SheetBefore, to: Adjustment) -> AdjustedSheet:
    """Every line that the diet bars exchanged in turn, in whichever part it stands; what has no stand-in is said."""
    if to.diet is None:
        refuse("to.diet", say("is missing"), " or ".join(DIETS))
    diet, says, stays = DIETS[to.diet], list[str](), list[str]()
    now, done = before, set[tuple[int, str]]()
    while True:
        barred = [line for line in now.bowl.lines if diet.bars(line.item) and (line.part, line.item.id) not in done]
        if not barred:
            break
        line = barred[0]
        done.add((line.part, line.item.id))
        instead = stand_in(line.item, diet, now.shelf.items)
        alone = len(now.sheet.parts[line.part].lines) == 1 and not now.sheet.parts[line.part].takes
        if instead is None or (not instead and alone):
            stays.append(line.item.name.lower())
            continue
        swap = Adjustment(by="exchange", part=line.part, line=line.index, ingredient=instead)
        adjusted_sheet = _exchange(now, swap)
        now = _SheetBefore(adjusted_sheet.sheet, before.kitchen)
        comes = now.shelf.items[instead].name.lower() if instead else "nothing"
        says += [
            say("{first}{others} for {item}.", first=comes[0].upper(), others=comes[1:], item=line.item.name.lower()),
            *adjusted_sheet.says,
        ]
    if stays:
        says.append(say("Nothing here stands in for {items}: take it out, or leave it.", items=" and ".join(stays)))
    if not says:
        says.append(say("There is nothing in it that would have to go."))
    return AdjustedSheet(now.sheet, says)


def _exchanged_lines(line: WeighedLine, swap: Exchange, shelf: Shelf) -> list[Line]:
    """The lines that stand where one stood, in grams; splits and reserve keep their shares."""
    lines = []
    for ingredient, grams in swap.masses(line.item, line.grams, shelf):
        item: Ingredient = shelf.items[ingredient]
        reserve = grams * line.reserve_g / line.grams
        stays = ingredient == line.item.id
        update: dict[str, object] = {
            "ingredient": ingredient,
            "amount": Amount(
                value=shelf.amount(item, grams, line.line.amount.unit, line.line.state), unit=line.line.amount.unit
            )
            if stays
            else Amount(value=grams, unit="g"),
            "reserve": Amount(value=reserve, unit="g") if reserve else None,
            "state": line.line.state if stays else None,
        }
        lines.append(line.line.model_copy(update=update))
    return lines


def _rebalanced(before: _SheetBefore, sheet: Sheet, line: WeighedLine, swap: Exchange) -> tuple[Sheet, list[str]]:
    """Hold water and sugar where they were, as far as the lines allow, and say what was done."""
    says = [swap.says]
    if role_of(line.part_id) not in before.counted:
        return sheet, says
    held = Adjustment(
        by="ratio",
        hydration_pct=before.fact_book.number("mix.hydration_pct"),
        sugar_pct=before.fact_book.number("mix.sugar_pct"),
    )
    try:
        balanced = _checked(_ratio(_SheetBefore(sheet, before.kitchen), held))
    except Refused as refused:
        return sheet, [*says, say("Water and sugar could not be held: {says}.", says=refused.problems[0].says)]
    moved = []
    shelf = before.shelf
    for was, now in zip(weigh(sheet, shelf).lines, weigh(balanced, shelf).lines, strict=True):
        by = now.grams - was.grams
        if abs(by) >= 0.5:
            moved.append(f"{abs(by):.0f} g {'more' if by > 0 else 'less'} {now.item.name.lower()}")
    if moved:
        says.append(say("To hold water and sugar where they were: {moved}.", moved=", ".join(moved)))
    after = _SheetBefore(balanced, before.kitchen)
    for key, words in (("mix.fat_pct", "Fat"), ("mix.egg_pct", "Egg")):
        old = before.fact_book.number(key) if key in before.fact_book else 0.0
        new = after.fact_book.number(key) if key in after.fact_book else 0.0
        if abs(new - old) >= 0.5:
            says.append(say("{words} goes from {old:.0f} to {new:.0f} %.", words=words, old=old, new=new))
    return balanced, says
