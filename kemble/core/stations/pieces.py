"""Pieces: dough or grain shared out, plain or with a filling in or round it; what runs out first; one of them measured."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

from kemble.core.bowl import Bowl
from kemble.core.cards import PartRole
from kemble.core.facts import CONSERVATION, GEOMETRY, KITCHEN_ESTIMATE, Origins
from kemble.core.geometry.ball import Ball, Measure, Stuff, ball_of, sphere_ml, sphere_mm
from kemble.core.larder import Composition
from kemble.core.physics.thermal import fractions, properties
from kemble.core.sheet import Pieces
from kemble.core.stations.mix import CHOI_OKOS, Mixed
from kemble.core.stations.parts import Made
from kemble.core.stations.tools import RolledDrawing, disc, packet, roll_out, rope, scoop
from kemble.core.stations.working import Drawn, Working
from kemble.core.ways.base import Form

_MOST_PIECES = 500
_MOST_FILLING_G = 300.0  # in a piece, as a sheet takes it
LEAST_DOUGH_G = 0.5  # lighter than that is no piece
_A_CRUMB_G = 0.05  # less filling than that is none
_A_FILM_MM = 0.05  # a layer thinner than that is none
_A_HAIR = 1e-6  # so that 26 pieces are not 25 for a rounding
_AS_GOOD_AS_EVEN = 0.05  # of a piece
_NEAR_TEARING_MM = 0.4  # a skin no thicker than the least and this is told before it tears; kitchen estimate
_LEAST_PASTE_MM = 2.0  # a thinner layer lets a whole fruit show through; kitchen estimate


class Remedy(Drawn):
    """One way to balance dough and filling: words for the button, the pieces then, and a part made so many times."""

    says: str
    pieces: Pieces
    part: PartRole | None = None
    factor: float = 1.0


class BallDrawing(Drawn):
    """One piece in section. `outside`: the filling is the shell and the dough the core. mm and g.

    `held` are the measures that the sheet says; the densities let the drawing follow a hand before the facts do.
    """

    kind: Literal["ball"] = "ball"
    form: Form = "ball"
    outside: bool = False
    outer_mm: float
    core_mm: float
    heart_mm: float = 0.0
    heart_g: float = 0.0
    heart_name: str = ""
    least_skin_mm: float
    near_skin_mm: float = 0.0
    dough_name: str = "dough"
    piece_name: str = "ball"
    dough_total_g: float
    filling_total_g: float
    dough_g_per_ml: float
    filling_g_per_ml: float
    filling_name: str
    filling_word: str = "filling"
    held: tuple[str, ...] = ()
    rolled: RolledDrawing | None = None
    remedies: tuple[Remedy, ...]


@dataclass(frozen=True, slots=True)
class Heart:
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
        return self.filling_total / self.paste_g if self.paste_g > _A_HAIR else math.inf

    @property
    def can(self) -> int:
        """Whole pieces that dough and filling are both enough for."""
        return math.floor(min(self.base_for, self.filling_for) + _A_HAIR)

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

    def remedies(self, dough: str, filling: str) -> tuple[Remedy, ...]:
        """Three ways to come out even: fewer pieces, a thinner share, or more of what is short, in the way's words."""
        few = self.can
        many = few if math.isinf(self.filling_for) else math.floor(max(self.base_for, self.filling_for) + _A_HAIR)
        if self.short == "nothing" or few == many or few < 1 or many > _MOST_PIECES:
            return ()

        def shared(count: int | None, paste_g: float) -> Pieces:
            within = round(paste_g + self.heart_g, 2)
            return Pieces.model_construct(count=count, dough_g=self.dough_g, filling_g=within)

        if self.short == "filling":
            each, need = self.filling_total / many, many * self.paste_g
            thinner = Remedy(says=f"{many}, {each:.1f} g {filling} each", pieces=shared(None, each))
            more = Remedy(
                says=f"{need - self.filling_total:.0f} g more {filling}",
                pieces=shared(None, self.paste_g),
                part="filling",
                factor=need / self.filling_total,
            )
        else:
            each, need = self.filling_total / few, many * self.dough_g
            thinner = Remedy(says=f"{few}, {each:.1f} g {filling} each", pieces=shared(few, each))
            more = Remedy(
                says=f"{need - self.dough_total:.0f} g more {dough}",
                pieces=shared(None, self.paste_g),
                part="base",
                factor=need / self.dough_total,
            )
        fewer = Remedy(says=f"make {few}", pieces=shared(few, self.paste_g))
        return tuple(one for one in (fewer, thinner, more) if (one.pieces.filling_g or 0.0) <= _MOST_FILLING_G)


def pieces(working: Working, mixed: Mixed) -> tuple[BallDrawing, Composition | None] | None:
    """Weights and sizes of the pieces. Returns the drawing and what is within; None if refused."""
    way = working.way
    filling, heart = _filling(mixed), heart_of(working.bowl, mixed.parts)
    if heart and not heart.each_g:
        working.refuse("parts", f"nobody has said how heavy one {heart.name} is", "the weight of one, in g")
        return None
    stuff = _stuff(working, filling, heart)
    portions = _portions(working, mixed, filling, heart, stuff)
    if portions is None:
        return None
    outside = way.wraps == "outside"
    within = portions.filling_g > 0
    ball = _ball(portions, stuff, outside)
    if within and (ball.inner_g <= 0 or ball.skin_mm < _A_FILM_MM):
        working.refuse(
            "pieces",
            f"{portions.dough_g:.3g} and {portions.filling_g:.3g} g leave no layer round the other",
            "more of what goes outside, or less inside",
        )
        return None
    _enter_weights(working, portions, heart)
    _enter_parts(working, mixed.parts, portions)
    _enter_sizes(working, portions, ball, heart)
    rolled = None
    if working.follows(way.rolled_when):
        rolled = roll_out(working, portions.dough_g, portions.dough_total)
        if rolled is None:
            return None
    least = way.least_skin(working.schools)
    _advise(working, portions, ball, heart, least)
    drawing = BallDrawing.model_construct(
        kind="ball",
        form=way.form,
        outside=outside,
        outer_mm=ball.diameter_mm,
        core_mm=ball.core_mm if within else 0.0,
        heart_mm=ball.heart_mm if heart else 0.0,
        heart_g=portions.heart_g,
        heart_name=heart.name if heart else "",
        least_skin_mm=least,
        near_skin_mm=least + _NEAR_TEARING_MM if least else 0.0,
        dough_name=way.word("dough"),
        piece_name=way.word("piece"),
        dough_total_g=portions.dough_total,
        filling_total_g=portions.filling_total,
        dough_g_per_ml=stuff.inner_g_per_ml if outside else stuff.outer_g_per_ml,
        filling_g_per_ml=stuff.outer_g_per_ml if outside else stuff.inner_g_per_ml,
        filling_name=filling.name if filling else heart.name if heart else "",
        filling_word=way.word("filling"),
        held=tuple(working.sheet.pieces.measures),
        rolled=rolled,
        remedies=portions.remedies(way.word("dough"), way.word("filling")),
    )
    inside = [part.composition for part in (filling, mixed.parts.get("heart")) if part]
    return drawing, Composition.summed(inside) if inside else None


def _filling(mixed: Mixed) -> Made | None:
    """The filling, if there is any in it."""
    found = mixed.parts.get("filling")
    return found if found and found.have > _A_CRUMB_G else None


def heart_of(bowl: Bowl, made: dict[PartRole, Made]) -> Heart | None:
    """The whole fruit or nut: as heavy as the sheet says, or as one of it weighs in the larder; 0 g if neither tells."""
    part, found = bowl.parts.get("heart"), made.get("heart")
    if part is None or found is None or found.have <= _A_CRUMB_G:
        return None
    each = part.part.each_g or next((p.item.g_per_piece for p in part.poured if p.item.g_per_piece), 0.0)
    if part.part.each_mm:
        ml = sphere_ml(part.part.each_mm)
    else:
        ml = each / (properties(fractions(found.composition), 20.0).rho / 1000.0)
    return Heart(found.name, each, ml, found.have)


def _stuff(working: Working, filling: Made | None, heart: Heart | None) -> Stuff:
    dough = working.book.number("mix.density_g_per_ml")
    paste = properties(fractions(filling.composition), 20.0).rho / 1000.0 if filling else 1.0
    outer, inner = (paste, dough) if working.way.wraps == "outside" and filling else (dough, paste)
    return Stuff(outer, inner, heart.each_g if heart else 0.0, heart.each_ml if heart else 0.0)


def _ball(portions: Portions, stuff: Stuff, outside: bool) -> Ball:
    if outside and portions.filling_g:
        return Ball(portions.paste_g, portions.dough_g + portions.heart_g, stuff)
    return Ball(portions.dough_g, portions.filling_g, stuff)


def _portions(
    working: Working, mixed: Mixed, filling: Made | None, heart: Heart | None, stuff: Stuff
) -> Portions | None:
    """Any of count, weights and sizes may be left out: what is not said is shared equally. None if refused."""
    way = working.way
    dough_total = working.book.number("mix.cooked_g" if way.portions == "cooked" else "mix.batch_g")
    filling_total = filling.have if filling else 0.0
    if filling or heart:
        shared = _filled(working, dough_total, filling_total, heart, stuff)
    else:
        shared = _plain(working, dough_total, stuff)
    if shared is None:
        return None
    dough_g, filling_g = shared
    others = tuple(
        (one.name, one.have, part.each_g)
        for role, one in mixed.parts.items()
        if (part := working.bowl.parts[role].part).each_g and role not in ("filling", "heart")
    )
    if heart:
        others += ((heart.name, heart.have_g, heart.each_g),)
    found = Portions(
        dough_total,
        dough_g,
        filling_total,
        filling_g,
        working.sheet.pieces.count,
        heart.each_g if heart else 0.0,
        others,
    )
    return found if _holds(working, found) else None


def _plain(working: Working, dough_total: float, stuff: Stuff) -> tuple[float, float] | None:
    """Dough alone: its weight, the piece's, or the piece's diameter, else shared by the count or as usual."""
    asked = working.sheet.pieces
    said = asked.measures
    for name in ("filling_g", "skin_pct", "skin_mm"):
        if name in said:
            accepts = "a part with role filling, or nothing here"
            working.refuse(f"pieces.{name}", "there is no filling on the sheet", accepts)
            return None
    if len(said) > 1:
        working.refuse(f"pieces.{list(said)[1]}", "is one measure too many of a plain piece", "one of its measures")
        return None
    if asked.diameter_mm is not None:
        return sphere_ml(asked.diameter_mm) * stuff.outer_g_per_ml, 0.0
    return _usual_dough(working, dough_total, asked.dough_g or asked.piece_g), 0.0


def _usual_dough(working: Working, dough_total: float, said: float | None = None) -> float:
    asked = working.sheet.pieces
    return said or (dough_total / asked.count if asked.count else min(working.way.usual_piece_g, dough_total))


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


def _filled(
    working: Working, dough_total: float, filling_total: float, heart: Heart | None, stuff: Stuff
) -> tuple[float, float] | None:
    """Dough and filling of a piece, from two of its measures, or one and what there is to share, or that alone."""
    asked = working.sheet.pieces
    said = asked.measures
    heart_g = heart.each_g if heart else 0.0
    outside = working.way.wraps == "outside"
    if heart and not filling_total:
        if "filling_g" in said:
            working.refuse("pieces.filling_g", f"there is only the {heart.name} within", "nothing here, or a filling")
            return None
        said = {**said, "filling_g": heart_g}
        if len(said) > 2:
            working.refuse("pieces", f"the {heart.name} is one measure already", "one more measure of a piece")
            return None
    if heart and said.get("filling_g", math.inf) < heart_g - _A_HAIR:
        working.refuse(
            "pieces.filling_g",
            f"the {heart.name} weighs {heart_g:g} g, more than the {said['filling_g']:g} g it is to lie in",
            f"at least {heart_g:g} g, or a smaller one",
        )
        return None
    said = said if len(said) == 2 else _completed(working, said, dough_total, filling_total, heart_g)
    names = _OUTSIDE if outside else _INSIDE
    given = {names[name]: value / 100 if name == "skin_pct" else value for name, value in said.items()}
    if outside and heart:  # it lies in the dough, though the sheet counts it with the filling
        by = {"inner_g": heart_g, "outer_g": -heart_g}
        given = {measure: value + by.get(measure, 0.0) for measure, value in given.items()}
    ball = ball_of(given, stuff)
    if ball is None:
        which = " and ".join(_TOLD[name].format(value) for name, value in said.items())
        path = f"pieces.{list(asked.measures)[-1]}" if asked.measures else "pieces"
        working.refuse(path, f"no piece has {which}", "a thinner skin, a larger piece, or less inside")
        return None
    if outside:
        return ball.inner_g - heart_g, ball.outer_g + heart_g
    return ball.outer_g, ball.inner_g


_TOLD = {
    "dough_g": "{:.3g} g of dough",
    "filling_g": "{:.3g} g within",
    "piece_g": "a weight of {:.3g} g",
    "skin_pct": "{:.3g} % skin",
    "skin_mm": "a skin of {:.3g} mm",
    "diameter_mm": "{:.3g} mm across",
}


def _completed(
    working: Working, said: dict[str, float], dough_total: float, filling_total: float, heart_g: float
) -> dict[str, float]:
    """A second measure where one or none is said: by the count, else so that dough and filling come out even."""
    asked = working.sheet.pieces
    if asked.count:
        if "dough_g" in said or not said:
            dough = said.get("dough_g", dough_total / asked.count)
            return {"dough_g": dough, "filling_g": filling_total / asked.count + heart_g}
        return {**said, "dough_g": dough_total / asked.count}
    if ("piece_g" in said or "diameter_mm" in said) and filling_total and not heart_g:
        share = dough_total / (dough_total + filling_total)
        return {**said, "skin_pct": 100 * (1 - share if working.way.wraps == "outside" else share)}
    if "piece_g" in said and filling_total:
        even = dough_total / (dough_total + filling_total)
        return {**said, "dough_g": max(_A_HAIR, (said["piece_g"] - heart_g) * even)}
    dough = said.get("dough_g") or min(working.way.usual_piece_g, dough_total)
    if said and "dough_g" not in said:
        return {**said, "dough_g": dough}
    shared_by = max(1, math.floor(dough_total / dough + _A_HAIR))
    return {"dough_g": dough, "filling_g": filling_total / shared_by + heart_g}


def _holds(working: Working, found: Portions) -> bool:
    """Whether there is enough of everything for a piece, and not more pieces than a sheet holds."""
    way = working.way
    for path, each, total, stuff in (
        ("pieces.dough_g", found.dough_g, found.dough_total, way.word("dough")),
        ("pieces.filling_g", found.paste_g, found.filling_total, way.word("filling")),
    ):
        if each > total + _A_HAIR:
            working.refuse(
                path, f"{each:.3g} g a piece is more than the {total:.0f} g of {stuff}", f"at most {total:.0f} g"
            )
            return False
    if found.dough_g < LEAST_DOUGH_G:
        working.refuse(
            "pieces",
            f"{found.dough_g:.2g} g of {way.word('dough')} make no piece",
            f"at least {LEAST_DOUGH_G:g} g to each: fewer pieces, or more {way.word('dough')}",
        )
        return False
    if found.count > _MOST_PIECES:
        working.refuse(
            "pieces",
            f"{found.count} pieces are more than one sheet holds",
            f"heavier pieces, at most {_MOST_PIECES} of them",
        )
        return False
    return True


_LABELS = {
    "dough_g": ("dough in a piece", "g"),
    "filling_g": ("within a piece", "g"),
    "piece_g": ("weight of a piece", "g"),
    "skin_pct": ("skin, of the whole", "%"),
    "skin_mm": ("skin", "mm"),
    "diameter_mm": ("across", "mm"),
}


def _said(working: Working) -> Origins:
    """The measures of a piece that the sheet says, as origins."""
    return [
        working.from_sheet(f"pieces.{name}", _LABELS[name][0], round(value, 2), _LABELS[name][1])
        for name, value in working.sheet.pieces.measures.items()
    ]


def _enter_weights(working: Working, portions: Portions, heart: Heart | None) -> None:
    book, asked, way = working.book, working.sheet.pieces, working.way
    batch = "mix.cooked_g" if way.portions == "cooked" else "mix.batch_g"
    dough, filling = way.word("dough"), way.word("filling")
    enough: Origins = ["shape.base_enough_for"]
    weights: Origins = ["shape.base_g"]
    said = _said(working)
    words = "from two measures of the piece" if len(said) == 2 and not asked.dough_g else f"{dough} shared equally"
    book.add(
        "shape.base_g",
        portions.dough_g,
        "as on the sheet" if asked.dough_g else words,
        source="sheet" if asked.dough_g else GEOMETRY,
        of=[batch, *said],
    )
    book.add(
        "shape.base_enough_for",
        portions.base_for,
        f"all the {dough} over the {dough} in a piece",
        source=CONSERVATION,
        of=[batch, "shape.base_g"],
    )
    if heart:
        book.add(
            "shape.heart_g",
            heart.each_g,
            f"one {heart.name}",
            source="sheet" if working.bowl.parts["heart"].part.each_g else "larder",
            of=["part.heart.made_g"],
        )
    if portions.filling_g:
        weights.append("shape.filling_g")
        made = "part.filling.have_g" if "part.filling.have_g" in book else "part.filling.made_g"
        within: Origins = [made] if made in book else []
        words = "from two measures of the piece" if len(said) == 2 else f"{filling} shared equally"
        book.add(
            "shape.filling_g",
            portions.filling_g,
            "as on the sheet" if asked.filling_g else words,
            source="sheet" if asked.filling_g else GEOMETRY,
            of=[*within, *said, *(["shape.heart_g"] if heart else [])],
        )
        if heart and portions.filling_total:
            book.add(
                "shape.paste_g",
                portions.paste_g,
                f"all that is within, less the {heart.name}",
                source=CONSERVATION,
                of=["shape.filling_g", "shape.heart_g"],
            )
        if portions.filling_total:
            enough.append("shape.filling_enough_for")
            book.add(
                "shape.filling_enough_for",
                portions.filling_for if math.isfinite(portions.filling_for) else float(_MOST_PIECES),
                f"all the {filling} over the {filling} in a piece",
                source=CONSERVATION,
                of=[made, "shape.paste_g" if heart else "shape.filling_g"],
            )
        book.add(
            "shape.filling_on_base_pct",
            100 * portions.filling_g / portions.dough_g,
            f"{filling} on {dough}, by weight",
            source=CONSERVATION,
            of=["shape.base_g", "shape.filling_g"],
        )
    wanted = working.from_sheet("pieces.count", "pieces asked for", asked.count or "as many as it makes")
    book.add(
        "shape.pieces",
        float(portions.count),
        f"the shorter of {dough} and {filling}, whole pieces only" if portions.filling_g else "whole pieces only",
        source=CONSERVATION,
        of=[*enough, wanted],
    )
    book.add(
        "shape.piece_g",
        portions.dough_g + portions.filling_g,
        f"{dough} and {filling} together" if portions.filling_g else dough,
        source=CONSERVATION,
        of=weights,
    )
    book.add(
        "shape.left_over_g",
        portions.left_over_g,
        "what is left of the other when the shorter is used up",
        source=CONSERVATION,
        of=["shape.pieces", *enough],
    )


def share_parts(working: Working, made: dict[PartRole, Made], count: int, pieces: str) -> dict[str, PartRole]:
    """What of each further part goes on a piece, and how far it goes. Returns the fact and the role of those that can run out."""
    book, way = working.book, working.way
    enough: dict[str, PartRole] = {}
    for role, one in made.items():
        if role in way.counted or role in ("filling", "heart", "wrapper"):
            continue
        part = working.bowl.parts[role].part
        have = f"part.{role}.have_g" if f"part.{role}.have_g" in book else f"part.{role}.made_g"
        book.add(
            f"part.{role}.piece_g",
            part.each_g or one.have / max(1, count),
            "as on the sheet" if part.each_g else "shared equally",
            source="sheet" if part.each_g else CONSERVATION,
            of=[have, pieces],
        )
        if part.each_g:
            book.add(
                f"part.{role}.enough_for",
                one.have / part.each_g,
                "all of it over what goes on a piece",
                source=CONSERVATION,
                of=[have, f"part.{role}.piece_g"],
            )
            enough[f"part.{role}.enough_for"] = role
    return enough


def _enter_parts(working: Working, made: dict[PartRole, Made], portions: Portions) -> None:
    """How far each further part goes, which of all runs out first, and the leaves to soak."""
    book, way = working.book, working.way
    enough: Origins = ["shape.base_enough_for"]
    if portions.filling_total:
        enough.append("shape.filling_enough_for")
    enough.extend(share_parts(working, made, portions.count, "shape.pieces"))
    words = {"dough": way.word("dough"), "filling": way.word("filling"), "": "nothing"}
    first = portions.first_short
    book.add(
        "shape.short_of",
        words.get(first, first),
        "whichever is enough for the fewest pieces",
        source=CONSERVATION,
        of=enough,
    )
    wrapper = working.bowl.parts.get("wrapper")
    if way.leaves_each and wrapper:
        spare = wrapper.family.spare_pct if wrapper.family else 0.0
        leaves = math.ceil(portions.count * way.leaves_each * (1 + spare / 100))
        book.add(
            "shape.wrappers",
            float(leaves),
            f"{way.leaves_each} to a {way.word('piece')}, and {spare:.0f} % over because some tear",
            source=KITCHEN_ESTIMATE,
            of=["shape.pieces"],
        )
        soaked = sum(
            poured.grams / poured.item.g_per_piece
            for poured in wrapper.poured
            if poured.item.g_per_piece and poured.item.id in _LEAVES
        )
        if soaked and soaked < leaves:
            says = f"{leaves} leaves, spares in; the sheet has {soaked:.0f}. Some tear: soak more."
            working.advise("shape", "look", says, 2)


_LEAVES = ("bamboo-leaf", "banana-leaf", "corn-husk", "vine-leaf")


def _enter_sizes(working: Working, portions: Portions, ball: Ball, heart: Heart | None) -> None:
    """Diameters of piece, core and heart in mm, with the skin, and the disc, rope, spoon or packet that follow."""
    book, way = working.book, working.way
    outside, within = way.wraps == "outside", portions.filling_g > 0
    dough, stuff = way.word("dough"), way.word("filling")
    volumes = f"{GEOMETRY}; {CHOI_OKOS}"
    dough_ml = portions.dough_g / book.number("mix.density_g_per_ml")
    outer_ml = ball.outer_g / ball.stuff.outer_g_per_ml
    if way.form == "packet":
        packet(working, outer_ml + (ball.inner_ml if within else 0.0), volumes)
    book.add(
        "shape.diameter_mm",
        ball.diameter_mm,
        f"a sphere of the {dough}'s and the {stuff}'s volumes" if within else f"a sphere of the {dough}'s volume",
        source=volumes,
        of=["shape.piece_g", "mix.density_g_per_ml"],
    )
    if within:
        inner, shell = (dough, stuff) if outside else (stuff, dough)
        book.add(
            "shape.core_mm",
            ball.core_mm,
            f"a sphere of the {inner}'s volume",
            source=volumes,
            of=["shape.base_g" if outside else "shape.filling_g"],
        )
        book.add(
            "shape.skin_mm",
            ball.skin_mm,
            f"half the difference of piece and core: the {shell}",
            source=GEOMETRY,
            of=["shape.diameter_mm", "shape.core_mm"],
        )
        book.add(
            "shape.skin_pct",
            100 * ball.outer_share,
            f"the {shell} outside, of the whole piece's weight",
            source=CONSERVATION,
            of=["shape.base_g", "shape.filling_g"],
        )
    if heart:
        book.add(
            "shape.heart_mm",
            ball.heart_mm,
            "as on the sheet" if working.bowl.parts["heart"].part.each_mm else f"a sphere of one {heart.name}'s volume",
            source="sheet" if working.bowl.parts["heart"].part.each_mm else volumes,
            of=["shape.heart_g"],
        )
        book.add(
            "shape.paste_mm",
            (ball.core_mm - ball.heart_mm) / 2,
            f"half the difference of what lies within and the {heart.name}",
            source=GEOMETRY,
            of=["shape.core_mm", "shape.heart_mm"],
        )
    if within and way.form == "ball" and ball.skin_mm > _A_FILM_MM:
        disc(working, outer_ml, ball.skin_mm)
    if portions.paste_g > 0 and way.form == "ball":
        scoop(working, portions.paste_g, ball.stuff.outer_g_per_ml if outside else ball.stuff.inner_g_per_ml)
    if way.form in ("ball", "pull") and way.base == "flour":
        rope(working, dough_ml, sphere_mm(dough_ml) if way.portions == "cooked" else ball.diameter_mm)


def _advise(working: Working, portions: Portions, ball: Ball, heart: Heart | None, least: float) -> None:
    way = working.way
    skin_mm = ball.skin_mm
    if portions.filling_g and skin_mm < least:
        stuff = way.word("filling") if way.wraps == "outside" else "skin"
        says = f"The {stuff} is {skin_mm:.1f} mm: under {least:g} it tears. Less inside, or more outside."
        working.advise("shape", "look", says, 1)
    elif portions.filling_g and skin_mm < least + _NEAR_TEARING_MM:
        stuff = way.word("filling") if way.wraps == "outside" else "skin"
        says = f"The {stuff} is {skin_mm:.1f} mm, hardly more than the {least:g} at which it tears: handle it gently."
        working.advise("shape", "look", says, 3)
    if heart and portions.filling_total and (paste := (ball.core_mm - ball.heart_mm) / 2) < _LEAST_PASTE_MM:
        says = f"Only {max(0.0, paste):.1f} mm of {way.word('filling')} round the {heart.name}: it shows through."
        working.advise("shape", "look", says, 2)
    if portions.wanted and portions.can < portions.wanted:
        short = way.word("filling" if portions.short == "filling" else "dough")
        says = f"The {short} is enough for {portions.can}, not for {portions.wanted}."
        working.advise("shape", "look", says, 2)
    for name, have, each in portions.others:
        if have < portions.count * each - _A_HAIR:
            says = f"The {name} is enough for {math.floor(have / each + _A_HAIR)} of {portions.count}: {portions.count * each - have:.0f} g short."
            working.advise("shape", "look", says, 3)
    if portions.filling_g and way.form == "ball":
        says = f"{way.word('filling').capitalize()} balled first, all equal. Cover what waits."
        working.advise("shape", "before", says, 6)
    working.advise("shape", "before", "Weigh the first three against the target. Cover what waits.", 8)
