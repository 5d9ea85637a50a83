"""Say what is fixed and let the rest follow: a sheet in, the adjusted sheet out.

Each adjustment keeps the sheet's own units and rounds nothing, so that going there and back gives the same sheet.
"""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, ConfigDict, Field

from kemble.core.physics.thermal import fractions, properties
from kemble.core.problems import Problem, Refused
from kemble.core.sheet import MOST_AMOUNT, Amount, Line, Part, PartRole, Sheet
from kemble.core.stations.working import composition_of

By = Literal["ratio", "base", "batch", "depth", "part"]


class Adjustment(BaseModel):
    """One thing to fix.

    ratio: `hydration_pct` and `sugar_pct` of the base, by its main liquid and its main sugar.
    base: `grams` of flour. batch: `grams` of the whole base. depth: `mm` in the tins. part: a part times `factor`.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    by: By
    hydration_pct: float | None = Field(None, gt=0, le=400, description="above 0, at most 400 %")
    sugar_pct: float | None = Field(None, ge=0, le=300, description="0 to 300 %")
    grams: float | None = Field(None, gt=0, le=MOST_AMOUNT, description="above 0, at most 50 000 g")
    mm: float | None = Field(None, gt=0, le=200, description="above 0, at most 200 mm")
    factor: float | None = Field(None, gt=0, le=1000, description="above 0, at most 1000")
    role: PartRole = "base"


def adjust(sheet: Sheet, to: Adjustment) -> Sheet:
    """The sheet with the adjustment made. Raises Refused when it lacks what the adjustment needs."""
    if to.by == "ratio":
        return _ratio(sheet, _need(to, "hydration_pct"), _need(to, "sugar_pct"))
    if to.by == "part":
        return scale_part(sheet, to.role, _need(to, "factor"))
    if to.by == "base":
        flour = sum(line.used_g for line in sheet.base.lines if line.item.group == "flour")
        return scale(sheet, _need(to, "grams") / flour)
    if to.by == "batch":
        return scale(sheet, _need(to, "grams") / composition_of(sheet.base).total)
    vessel = sheet.vessel
    volume_mm3 = vessel.tin.floor_mm2 * vessel.count * _need(to, "mm")
    base = composition_of(sheet.base)
    return scale(sheet, volume_mm3 * properties(fractions(base), 25.0).rho / 1e6 / base.total)


def _need(to: Adjustment, name: str) -> float:
    value = getattr(to, name)
    if value is None:
        accepts = Adjustment.model_fields[name].description or ""
        raise Refused([Problem(path=f"to.{name}", says="is missing", accepts=accepts)])
    return float(value)


def scale(sheet: Sheet, factor: float) -> Sheet:
    """Every part times `factor`; pieces and tins stay as they are."""
    return _checked(sheet.model_copy(update={"parts": tuple(_times(part, factor) for part in sheet.parts)}))


def scale_part(sheet: Sheet, role: PartRole, factor: float) -> Sheet:
    if sheet.part(role) is None:
        raise Refused([Problem(path="to.role", says=f"there is no {role} on the sheet", accepts="a part of the sheet")])
    parts = tuple(_times(part, factor) if part.role == role else part for part in sheet.parts)
    return _checked(sheet.model_copy(update={"parts": parts}))


def _times(part: Part, factor: float) -> Part:
    return part.model_copy(update={"lines": tuple(_line_times(line, factor) for line in part.lines)})


def _line_times(line: Line, factor: float) -> Line:
    def times(amount: Amount) -> Amount:
        return amount.model_copy(update={"value": amount.value * factor})

    reserve = times(line.reserve) if line.reserve else None
    return line.model_copy(update={"amount": times(line.amount), "reserve": reserve})


def _checked(sheet: Sheet) -> Sheet:
    """Copies skip validation: look again at what scaling can break."""
    for p, part in enumerate(sheet.parts):
        for i, line in enumerate(part.lines):
            if not 0 < line.amount.value <= MOST_AMOUNT:
                raise Refused(
                    [
                        Problem(
                            path=f"parts.{p}.lines.{i}.amount.value",
                            says=f"would become {line.amount.value:.6g}",
                            accepts=Amount.model_fields["value"].description or "",
                        )
                    ]
                )
    return sheet


def _ratio(sheet: Sheet, hydration_pct: float, sugar_pct: float) -> Sheet:
    """Solve for the main liquid and the main sugar so that water and sugar on the flour come out as asked.

    Two equations, two unknowns: liquids carry some sugar (juice), sugars some water (honey). A base without a sugar
    line moves its water alone.
    """
    lines = sheet.base.lines
    flour = sum(line.used_g for line in lines if line.item.group == "flour")
    liquid, sugar = _main(lines, "liquid"), _main(lines, "sugar")
    if liquid is None:
        raise Refused(
            [Problem(path="parts", says="the base has no liquid to change", accepts="a line of water or milk")]
        )
    moving = [liquid] if sugar is None else [liquid, sugar]
    want_water, want_sugar = hydration_pct / 100 * flour, sugar_pct / 100 * flour
    for i, line in enumerate(lines):
        if line.item.group != "flour" and i not in moving:
            still = line.item.composition(line.used_g)
            want_water -= still.water
            want_sugar -= still.sugar
    per_liquid = lines[liquid].item.composition(1.0)
    if sugar is None:
        masses = {liquid: want_water / per_liquid.water}
    else:
        per_sugar = lines[sugar].item.composition(1.0)
        det = per_liquid.water * per_sugar.sugar - per_sugar.water * per_liquid.sugar
        masses = {
            liquid: (want_water * per_sugar.sugar - per_sugar.water * want_sugar) / det,
            sugar: (per_liquid.water * want_sugar - want_water * per_liquid.sugar) / det,
        }
    changed = list(lines)
    for i, used_g in masses.items():
        held = lines[i].grams - lines[i].used_g
        if used_g <= 0:
            raise Refused(
                [
                    Problem(
                        path="to.hydration_pct" if i == liquid else "to.sugar_pct",
                        says=f"would leave no {lines[i].item.name.lower()} in the bowl",
                        accepts="a little more",
                    )
                ]
            )
        factor = (used_g + held) / lines[i].grams
        amount = lines[i].amount
        changed[i] = lines[i].model_copy(update={"amount": amount.model_copy(update={"value": amount.value * factor})})
    base = sheet.base.model_copy(update={"lines": tuple(changed)})
    parts = tuple(base if part.role == "base" else part for part in sheet.parts)
    return _checked(sheet.model_copy(update={"parts": parts}))


def _main(lines: tuple[Line, ...], group: str) -> int | None:
    """The heaviest line of a group."""
    found = [(line.used_g, i) for i, line in enumerate(lines) if line.item.group == group]
    return max(found)[1] if found else None
