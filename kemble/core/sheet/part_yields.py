"""What a part yields: composition in, its outputs with their finished weights out."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass

from kemble.core.cards.family import Family, FamilyOutput
from kemble.core.facts.vocabulary import PartRole
from kemble.core.kitchen.larder import COMPONENTS, Composition

_CURD_WATER = 0.28  # of the curds is water that stays; kitchen estimate, 0.2-0.35
_CRISP_WATER = 0.05  # of the crisps is water that stays; kitchen estimate, 0.03-0.08
# Of what is in the coconut, what wringing gets out. Kitchen estimates: fat 0.45-0.7, water 0.75-0.9.
_WRUNG = {"water": 0.85, "fat": 0.6, "sugar": 0.8, "protein": 0.3, "salt": 0.8, "other": 0.3}
_FIRST_WATER = 0.35  # of the water comes with the first pressing


@dataclass(frozen=True, slots=True)
class PartYield:
    """An output when done, in grams: likely, low, high, and what is in it."""

    output: FamilyOutput
    grams: float
    low: float
    high: float
    composition: Composition


@dataclass(frozen=True, slots=True)
class PartInput:
    """What goes into a part: its composition, its dry legumes, and the fat of its fats and oils, in grams."""

    role: PartRole
    inside: Composition
    dry_g: float = 0.0
    fat_g: float = 0.0


def calculate_yields(family: Family | None, going: PartInput) -> tuple[PartYield, ...]:
    """The outputs of a part, what it is made for first. The base, and what follows no rule, is what went in."""
    if family is None:
        return (_as_it_is(FamilyOutput("base", "base", "flour"), going.inside),)
    rule = _RULES.get(family.finish.rule)
    part_yields = rule(family, going) if rule else ()
    if not part_yields:
        return (_as_it_is(family.main(going.role), going.inside),)
    main = family.main(going.role)
    return tuple(sorted(part_yields, key=lambda part_yield: part_yield.output is not main))


def as_weighed(made: tuple[PartYield, ...], grams: float) -> tuple[PartYield, ...]:
    """The outputs when the scale has shown what the first of them weighs: what it has less or more of is water, as far as
    there is any; beyond that all of it in proportion."""
    main = made[0]
    return (PartYield(main.output, grams, grams, grams, at_weight(main.composition, grams)), *made[1:])


def at_weight(inside: Composition, grams: float) -> Composition:
    """The same stuff at another weight: water gone off or taken up; where there is not so much water, less of it all."""
    if grams >= inside.solids:
        return inside.with_water(grams - inside.solids)
    return inside.scaled(grams / inside.total) if inside.total else inside


def _as_it_is(output: FamilyOutput, inside: Composition) -> PartYield:
    return PartYield(output, inside.total, inside.total, inside.total, inside)


def _single_yield(
    family: Family, going: PartInput, weights: tuple[float, float, float], done: Composition
) -> tuple[PartYield, ...]:
    return (PartYield(family.main(going.role), *weights, done),)


def _solids(family: Family, going: PartInput) -> tuple[PartYield, ...]:
    """Boiled down until solids are so much of it; never more than went in."""
    inside, target, raw = going.inside, family.finish.target, going.inside.total
    if inside.solids <= 0:
        return ()
    likely, low, high = (min(raw, inside.solids / (share / 100)) for share in (target.middle, target.high, target.low))
    return _single_yield(family, going, (likely, low, high), inside.with_water(likely - inside.solids))


def _times_dry(family: Family, going: PartInput) -> tuple[PartYield, ...]:
    """Cooked and dried until it weighs so many times its dry beans. Where the sheet says what they are cooked in (more water
    than beans), never more than went in; else they take up what they want of the pot's."""
    inside, target = going.inside, family.finish.target
    if going.dry_g <= 0:
        return ()
    most = inside.total if inside.water > going.dry_g else math.inf
    likely, low, high = (
        max(inside.solids, min(most, going.dry_g * times)) for times in (target.middle, target.low, target.high)
    )
    return _single_yield(family, going, (likely, low, high), inside.with_water(likely - inside.solids))


def _loss(family: Family, going: PartInput) -> tuple[PartYield, ...]:
    inside, target, raw = going.inside, family.finish.target, going.inside.total
    likely, low, high = (raw * (1 - share / 100) for share in (target.middle, target.high, target.low))
    done = inside.with_water(inside.water - (raw - likely))
    # What stays behind in the sieve takes more than its water with it: the rest of it shrinks alike.
    return _single_yield(family, going, (likely, low, high), done.scaled(likely / done.total) if done.total else done)


def _curd(family: Family, going: PartInput) -> tuple[PartYield, ...]:
    """Coconut cream parted: `target` per cent of its fat is oil, the solids and the rest of the fat are curds."""
    inside, target = going.inside, family.finish.target
    if inside.fat <= 0:
        return ()
    shares = (target.middle, target.low, target.high)
    oil, oil_low, oil_high = (inside.fat * share / 100 for share in shares)

    def curds_of(share: float) -> float:
        stays = inside.solids - inside.fat * share / 100
        return min(stays / (1 - _CURD_WATER), stays + inside.water)

    curds, curds_high, curds_low = (curds_of(share) for share in shares)
    held = Composition.of(
        (curds - (inside.solids - oil), inside.starch, inside.sugar, inside.fat - oil, *inside.parts[4:])
    )
    as_curds, as_oil = family.outputs
    return (
        PartYield(as_curds, curds, curds_low, curds_high, held),
        PartYield(as_oil, oil, oil_low, oil_high, _fat(oil)),
    )


def _fry(family: Family, going: PartInput) -> tuple[PartYield, ...]:
    """Something wet fried in oil: oil less what the crisps hold; crisps of its solids, that oil and a little water."""
    inside, target = going.inside, family.finish.target
    wet = inside.total - going.fat_g
    if going.fat_g <= 0 or wet <= 0:
        return ()
    held, held_low, held_high = (
        min(going.fat_g, wet * share / 100) for share in (target.middle, target.low, target.high)
    )
    solids = inside.with_water(0.0)
    stays = Composition.of(
        (0.0, solids.starch, solids.sugar, max(0.0, solids.fat - going.fat_g) + held, *solids.parts[4:])
    )
    crisps = stays.with_water(min(inside.water, stays.total * _CRISP_WATER / (1 - _CRISP_WATER)))
    as_oil, as_crisps = family.outputs
    oil = going.fat_g - held
    return (
        PartYield(as_oil, oil, going.fat_g - held_high, going.fat_g - held_low, _fat(oil)),
        PartYield(as_crisps, crisps.total, crisps.total - (held - held_low), crisps.total + (held_high - held), crisps),
    )


def _press(family: Family, going: PartInput) -> tuple[PartYield, ...]:
    """Wrung out twice: the first takes `target` per cent of the fat that comes out, and a third of the water."""
    inside, target = going.inside, family.finish.target
    if inside.fat <= 0:
        return ()
    out = Composition.of(getattr(inside, name) * _WRUNG.get(name, 0.0) for name in COMPONENTS)
    shares = (target.middle, target.low, target.high)

    def first(share: float) -> Composition:
        rest = _FIRST_WATER
        return Composition.of(
            (out.water * rest, 0.0, out.sugar * rest, out.fat * share / 100, *(value * rest for value in out.parts[4:]))
        )

    thick, low, high = (first(share) for share in shares)
    thin = Composition.of(a - b for a, b in zip(out.parts, thick.parts, strict=True))
    as_thick, as_thin = family.outputs
    return (
        PartYield(as_thick, thick.total, 0.85 * low.total, 1.15 * high.total, thick),
        PartYield(as_thin, thin.total, 0.85 * thin.total, 1.15 * thin.total, thin),
    )


def _fat(grams: float) -> Composition:
    return Composition.of((0.0, 0.0, 0.0, grams, 0.0, 0.0, 0.0, 0.0))


_RULES: dict[str, Callable[[Family, PartInput], tuple[PartYield, ...]]] = {
    "solids": _solids,
    "times-dry": _times_dry,
    "loss": _loss,
    "curd": _curd,
    "fry": _fry,
    "press": _press,
}
