"""Portions: how dough, filling and a whole heart are shared out over pieces, and what to do when they do not come out even."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

from kemble.core.facts.unchecked import unchecked_model
from kemble.core.facts.vocabulary import PartId, PartRole, role_of
from kemble.core.geometry.filled_ball import Ball, Measure, PieceDensities, ball_of, sphere_ml
from kemble.core.geometry.rolled_dough import cutter_mm2
from kemble.core.kitchen.larder import Composition
from kemble.core.physics.thermal import fractions, properties
from kemble.core.sentences import Words, say
from kemble.core.sheet.bowl import Bowl, PartBowl
from kemble.core.sheet.document import Pieces
from kemble.core.stations.calculation import AnswerModel, Calculation
from kemble.core.stations.mix.mix import MixResult
from kemble.core.stations.mix.part_yields import FinishedPart

WITHIN: tuple[PartRole, ...] = ("filling", "heart")  # the parts that lie within a piece
MOST_PIECES = 500
_MOST_FILLING_G = 300.0  # in a piece, as a sheet takes it
LEAST_DOUGH_G = 0.5  # lighter than that is no piece
_LEAST_SAID_G = 0.1  # no kitchen scale shows less
_A_CRUMB_G = 0.05  # less filling than that is none
A_HAIR = 1e-6  # so that 26 pieces are not 25 for a rounding
_AS_GOOD_AS_EVEN = 0.05  # of a piece


class PortionFix(AnswerModel):
    """One way to balance dough and filling: words for the button, the pieces then, and the parts of a role made so many times."""

    says: Words
    pieces: Pieces
    role: PartRole | None = None
    factor: float = 1.0


# Of a piece that cannot be: too little dough or filling for one, no layer left round the other, or no such size.
Cannot = Literal["", "dough", "filling", "layer", "size"]


@dataclass(frozen=True, slots=True)
class WholeCentre:
    """A whole fruit or nut in the middle of each piece: its name, its own weight and volume, and how much there is."""

    name: str
    each_g: float
    each_ml: float
    have_g: float


@dataclass(frozen=True, slots=True)
class Portions:
    """How dough and filling are shared out. Grams; `filling_g` is all that is within, the heart with it; 0 when plain.

    `others` are further parts that go on or in each piece: name, grams there are, grams for each.
    """

    dough_total: float
    dough_g: float
    filling_total: float
    filling_g: float
    wanted: int | None
    heart_g: float = 0.0
    others: tuple[tuple[str, float, float], ...] = ()

    @property
    def paste_g(self) -> float:
        """Of the filling part itself in each piece."""
        return max(0.0, self.filling_g - self.heart_g)

    @property
    def base_for(self) -> float:
        return self.dough_total / self.dough_g

    @property
    def filling_for(self) -> float:
        return self.filling_total / self.paste_g if self.paste_g > A_HAIR else math.inf

    @property
    def can(self) -> int:
        """Whole pieces that dough and filling are both enough for."""
        return math.floor(min(self.base_for, self.filling_for) + A_HAIR)

    @property
    def first_short(self) -> str:
        """The part that runs out first when every piece gets its own of everything; empty when none does."""
        needed = self.wanted or self.can
        enough = [(have / each, name) for name, have, each in self.others]
        if not math.isinf(self.filling_for):
            enough.append((self.filling_for, "filling"))
        enough.append((self.base_for, "dough"))
        least, name = min(enough)
        if self.short != "nothing" and name in ("dough", "filling"):
            return self.short
        if least < needed - _AS_GOOD_AS_EVEN:
            return name
        return "" if self.short == "nothing" else self.short

    @property
    def count(self) -> int:
        return min(self.wanted or self.can, self.can)

    @property
    def short(self) -> Literal["dough", "filling", "nothing"]:
        """What runs out first."""
        if math.isinf(self.filling_for) or abs(self.base_for - self.filling_for) < _AS_GOOD_AS_EVEN:
            return "nothing"
        return "filling" if self.filling_for < self.base_for else "dough"

    @property
    def left_over_g(self) -> float:
        """Grams left of the other when the shorter is used up; of the dough itself where there is no other."""
        if self.short == "filling" or math.isinf(self.filling_for):
            return self.dough_total - self.count * self.dough_g
        return self.filling_total - self.count * self.paste_g if self.short == "dough" else 0.0

    def remedies(self, calculation: Calculation) -> tuple[PortionFix, ...]:
        """Three ways to come out even: fewer pieces, a thinner share, or more of what is short."""
        dough, filling = calculation.way.word("dough"), calculation.way.word("filling")
        few = self.can
        many = few if math.isinf(self.filling_for) else math.floor(max(self.base_for, self.filling_for) + A_HAIR)
        if self.short == "nothing" or few == many or few < 1 or many > MOST_PIECES:
            return ()

        def shared(count: int | None, paste_g: float) -> Pieces:
            within = round(paste_g + self.heart_g, 2)
            return unchecked_model(Pieces, count=count, dough_g=self.dough_g, filling_g=within)

        if self.short == "filling":
            each, need = self.filling_total / many, many * self.paste_g
            thinner = PortionFix(
                says=say("{many}, {each} {filling} each", many=many, each=calculation.weight(each, 1), filling=filling),
                pieces=shared(None, each),
            )
            more = PortionFix(
                says=say("{need} more {filling}", need=calculation.weight(need - self.filling_total), filling=filling),
                pieces=shared(None, self.paste_g),
                role="filling",
                factor=need / self.filling_total,
            )
        else:
            each, need = self.filling_total / few, many * self.dough_g
            thinner = PortionFix(
                says=say("{few}, {each} {filling} each", few=few, each=calculation.weight(each, 1), filling=filling),
                pieces=shared(few, each),
            )
            more = PortionFix(
                says=say("{need} more {dough}", need=calculation.weight(need - self.dough_total), dough=dough),
                pieces=shared(None, self.paste_g),
                role="base",
                factor=need / self.dough_total,
            )
        fewer = PortionFix(says=say("make {few}", few=few), pieces=shared(few, self.paste_g))
        return tuple(fix for fix in (fewer, thinner, more) if (fix.pieces.filling_g or 0.0) <= _MOST_FILLING_G)


def filling_of(mixed: MixResult) -> FinishedPart | None:
    """The filling, if there is any in it; several as one."""
    fillings = [
        finished
        for part_id, finished in mixed.made.items()
        if role_of(part_id) == "filling" and finished.have > _A_CRUMB_G
    ]
    if len(fillings) < 2:
        return fillings[0] if fillings else None
    return FinishedPart(
        "filling",
        say("{count} fillings", count=len(fillings)),
        sum(finished.grams for finished in fillings),
        sum(finished.low for finished in fillings),
        sum(finished.high for finished in fillings),
        sum(finished.have for finished in fillings),
        Composition.summed(finished.composition for finished in fillings),
    )


def heart_of(bowl: Bowl, made: dict[PartId, FinishedPart]) -> WholeCentre | None:
    """The whole fruit or nut: as heavy as the sheet says, or as one of it weighs in the larder; 0 g if neither tells. Of
    several, all that lie in a piece together, and as much as is there for the fewest pieces."""
    hearts = [
        as_heart(part, made[part.id])
        for part in bowl.of_role("heart")
        if part.id in made and made[part.id].have > _A_CRUMB_G
    ]
    if len(hearts) < 2:
        return hearts[0] if hearts else None
    each_g = sum(heart.each_g for heart in hearts) if all(heart.each_g for heart in hearts) else 0.0
    enough_for = min(heart.have_g / heart.each_g for heart in hearts) if each_g else 0.0
    return WholeCentre(
        " and ".join(heart.name for heart in hearts),
        each_g,
        sum(heart.each_ml for heart in hearts),
        each_g * enough_for,
    )


def as_heart(part: PartBowl, finished: FinishedPart) -> WholeCentre:
    each = part.part.each_g or next((p.item.g_per_piece for p in part.contributions if p.item.g_per_piece), 0.0)
    if part.part.each_mm:
        ml = sphere_ml(part.part.each_mm)
    else:
        ml = each / (properties(fractions(finished.composition), 20.0).rho / 1000.0)
    return WholeCentre(finished.name, each, ml, finished.have)


def stuff_of(calculation: Calculation, filling: FinishedPart | None, heart: WholeCentre | None) -> PieceDensities:
    dough = calculation.fact_book.number("mix.density_g_per_ml")
    paste = properties(fractions(filling.composition), 20.0).rho / 1000.0 if filling else 1.0
    outer, inner = (paste, dough) if calculation.way.wraps == "outside" and filling else (dough, paste)
    # A skin that leaves some of what is within bare covers so much less of it: as if it weighed so much less.
    outer *= 1 - (calculation.sheet.pieces.bare_pct or 0.0) / 100
    return PieceDensities(outer, inner, heart.each_g if heart else 0.0, heart.each_ml if heart else 0.0)


def ball_in(portions: Portions, stuff: PieceDensities, outside: bool) -> Ball:
    if outside and portions.filling_g:
        return Ball(portions.paste_g, portions.dough_g + portions.heart_g, stuff)
    return Ball(portions.dough_g, portions.filling_g, stuff)


def portioned(
    calculation: Calculation,
    mixed: MixResult,
    filling: FinishedPart | None,
    heart: WholeCentre | None,
    stuff: PieceDensities,
) -> tuple[Portions, Cannot]:
    """Any of count, weights and sizes may be left out: what is not said is shared equally.

    Why there can be no such piece, with a problem noted; told with what can still be drawn, the dough of it at least.
    """
    way = calculation.way
    dough_total = calculation.fact_book.number("mix.cooked_g" if way.portions == "cooked" else "mix.batch_g")
    filling_total = filling.have if filling else 0.0
    plain = Portions(dough_total, _usual_dough_g(calculation, dough_total), filling_total, 0.0, None)
    for name, grams in calculation.sheet.pieces.measures.items():
        if name.endswith("_g") and grams < _LEAST_SAID_G:
            calculation.problem(
                f"pieces.{name}",
                say("{grams} is too little to weigh", grams=calculation.weight(grams)),
                say("{least_said_g} or more", least_said_g=calculation.weight(_LEAST_SAID_G)),
            )
            return plain, "size"
    if filling or heart:
        shared = _filled_portion(calculation, dough_total, filling_total, heart, stuff)
    else:
        shared = _plain_portion(calculation, dough_total, stuff)
    if shared is None:
        return plain, "size"
    dough_g, filling_g = shared
    others = tuple(
        (finished.name, finished.have, part.each_g)
        for part_id, finished in mixed.made.items()
        if (part := calculation.bowl.parts[part_id].part).each_g and part.role not in WITHIN
    )
    if heart:
        others += ((heart.name, heart.have_g, heart.each_g),)
    portions = Portions(
        dough_total,
        dough_g,
        filling_total,
        filling_g,
        calculation.sheet.pieces.count,
        heart.each_g if heart else 0.0,
        others,
    )
    return portions, _cannot(calculation, portions)


def _plain_portion(calculation: Calculation, dough_total: float, stuff: PieceDensities) -> tuple[float, float] | None:
    """Dough alone: its weight, the piece's, or the piece's diameter, else shared by the count or as usual."""
    asked = calculation.sheet.pieces
    said = asked.measures
    for name in ("filling_g", "skin_pct", "skin_mm"):
        if name in said:
            accepts = say("a part with role filling, or nothing here")
            calculation.problem(f"pieces.{name}", say("there is no filling on the sheet"), accepts)
            return None
    if len(said) > 1:
        calculation.problem(
            f"pieces.{list(said)[1]}", say("is one measure too many of a plain piece"), say("one of its measures")
        )
        return None
    if asked.diameter_mm is not None:
        return sphere_ml(asked.diameter_mm) * stuff.outer_g_per_ml, 0.0
    if rolled_g := rolled_dough_g(calculation, dough_total):
        return rolled_g, 0.0
    return _usual_dough_g(calculation, dough_total, asked.dough_g or asked.piece_g), 0.0


def rolled_dough_g(calculation: Calculation, dough_total: float) -> float | None:
    """Grams of dough under the cutter, where all the dough is rolled to a size and nothing else says what a piece weighs."""
    rolled, asked = calculation.sheet.rolled, calculation.sheet.pieces
    if (
        not calculation.follows(calculation.way.rolled_when)
        or asked.count
        or not asked.measures.keys() <= {"filling_g"}
    ):
        return None
    if rolled.length_mm is None or rolled.width_mm is None or rolled.cutter_mm is None:
        return None
    return dough_total * min(1.0, cutter_mm2(rolled.cutter_mm, rolled.shape) / (rolled.length_mm * rolled.width_mm))


def _usual_dough_g(calculation: Calculation, dough_total: float, said: float | None = None) -> float:
    asked = calculation.sheet.pieces
    return said or (dough_total / asked.count if asked.count else min(calculation.way.usual_piece_g, dough_total))


# The measures of the sheet as those of a ball: dough outside and filling within, or the other way round.
_INSIDE: dict[str, Measure] = {
    "dough_g": "outer_g",
    "filling_g": "inner_g",
    "piece_g": "piece_g",
    "skin_pct": "outer_share",
    "skin_mm": "skin_mm",
    "diameter_mm": "diameter_mm",
}
_OUTSIDE: dict[str, Measure] = {**_INSIDE, "dough_g": "inner_g", "filling_g": "outer_g"}


def _filled_portion(
    calculation: Calculation, dough_total: float, filling_total: float, heart: WholeCentre | None, stuff: PieceDensities
) -> tuple[float, float] | None:
    """Dough and filling of a piece, from two of its measures, or one and what there is to share, or that alone."""
    said = calculation.sheet.pieces.measures
    if rolled_g := rolled_dough_g(calculation, dough_total):
        said = {**said, "dough_g": rolled_g}
    heart_g = heart.each_g if heart else 0.0
    outside = (
        calculation.way.wraps == "outside" and filling_total > 0
    )  # without a coat, what is whole lies in the dough
    if heart and not filling_total:
        if "filling_g" in said:
            calculation.problem(
                "pieces.filling_g",
                say("there is only the {name} within", name=heart.name),
                say("nothing here, or a filling"),
            )
            return None
        said = {**said, "filling_g": heart_g}
        if len(said) > 2:
            calculation.problem(
                "pieces", say("the {name} is one measure already", name=heart.name), say("one more measure of a piece")
            )
            return None
    if heart and said.get("filling_g", math.inf) < heart_g - A_HAIR:
        calculation.problem(
            "pieces.filling_g",
            say(
                "the {name} weighs {heart_g}, more than the {filling_g} it is to lie in",
                name=heart.name,
                heart_g=calculation.weight(heart_g),
                filling_g=calculation.weight(said["filling_g"]),
            ),
            say("at least {heart_g}, or a smaller one", heart_g=calculation.weight(heart_g)),
        )
        return None
    said = said if len(said) == 2 else _completed(calculation, said, dough_total, filling_total, heart_g)
    names = _OUTSIDE if outside else _INSIDE
    given = {names[name]: value / 100 if name == "skin_pct" else value for name, value in said.items()}
    if outside and heart:  # it lies in the dough, though the sheet counts it with the filling
        by = {"inner_g": heart_g, "outer_g": -heart_g}
        given = {measure: value + by.get(measure, 0.0) for measure, value in given.items()}
    ball = ball_of(given, stuff)
    if ball is None:
        which = " and ".join(
            _TOLD[name].format(calculation.length(value, 1) if name.endswith("_mm") else value)
            for name, value in said.items()
        )
        measures = list(calculation.sheet.pieces.measures)
        path = f"pieces.{measures[-1]}" if measures else "pieces"
        calculation.problem(
            path, say("no piece has {layer}", layer=which), say("a thinner skin, a larger piece, or less inside")
        )
        return None
    if outside:
        return ball.inner_g - heart_g, ball.outer_g + heart_g
    return ball.outer_g, ball.inner_g


_TOLD = {
    "dough_g": "{:.3g} g of dough",
    "filling_g": "{:.3g} g within",
    "piece_g": "a weight of {:.3g} g",
    "skin_pct": "{:.3g} % skin",
    "skin_mm": "a skin of {}",
    "diameter_mm": "{} across",
}


def _completed(
    calculation: Calculation, said: dict[str, float], dough_total: float, filling_total: float, heart_g: float
) -> dict[str, float]:
    """A second measure where one or none is said: by the count, else so that dough and filling come out even."""
    asked = calculation.sheet.pieces
    if asked.count:
        if "dough_g" in said or not said:
            dough = said.get("dough_g", dough_total / asked.count)
            return {"dough_g": dough, "filling_g": filling_total / asked.count + heart_g}
        return {**said, "dough_g": dough_total / asked.count}
    if ("piece_g" in said or "diameter_mm" in said) and filling_total and not heart_g:
        share = dough_total / (dough_total + filling_total)
        return {**said, "skin_pct": 100 * (1 - share if calculation.way.wraps == "outside" else share)}
    if "piece_g" in said and filling_total:
        even = dough_total / (dough_total + filling_total)
        return {**said, "dough_g": max(A_HAIR, (said["piece_g"] - heart_g) * even)}
    dough = said.get("dough_g") or min(calculation.way.usual_piece_g, dough_total)
    if said and "dough_g" not in said:
        return {**said, "dough_g": dough}
    shared_by = max(1, math.floor(dough_total / dough + A_HAIR))
    return {"dough_g": dough, "filling_g": filling_total / shared_by + heart_g}


def _cannot(calculation: Calculation, portions: Portions) -> Cannot:
    """What there is too little of for a piece, and whether there would be more pieces than a sheet holds."""
    way = calculation.way
    wanted: tuple[tuple[Cannot, str, float, float, str], ...] = (
        ("dough", "pieces.dough_g", portions.dough_g, portions.dough_total, way.word("dough")),
        ("filling", "pieces.filling_g", portions.paste_g, portions.filling_total, way.word("filling")),
    )
    for which, path, each, total, stuff in wanted:
        if each > total + A_HAIR:
            calculation.problem(
                path,
                say(
                    "{each} a piece is more than the {total} of {stuff}",
                    each=calculation.weight(each),
                    total=calculation.weight(total),
                    stuff=stuff,
                ),
                say("at most {total}", total=calculation.weight(total)),
            )
            return which
    if portions.dough_g < LEAST_DOUGH_G:
        calculation.problem(
            "pieces",
            say(
                "{dough_g} of {word} make no piece",
                dough_g=calculation.weight(portions.dough_g),
                word=way.word("dough"),
            ),
            say(
                "at least {least_dough_g} to each: fewer pieces, or more {word}",
                least_dough_g=calculation.weight(LEAST_DOUGH_G),
                word=way.word("dough"),
            ),
        )
        return "dough"
    if portions.count > MOST_PIECES:
        calculation.problem(
            "pieces",
            say("{count} pieces are more than one sheet holds", count=portions.count),
            say("heavier pieces, at most {most_pieces} of them", most_pieces=MOST_PIECES),
        )
        return "size"
    return ""
