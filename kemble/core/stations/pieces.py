"""Pieces: dough or grain shared out, plain or with a filling in or round it; what runs out first; one of them measured."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

from kemble.core.cards import PartRole
from kemble.core.facts import CONSERVATION, GEOMETRY, KITCHEN_ESTIMATE, Origins
from kemble.core.larder import Composition
from kemble.core.physics.thermal import fractions, properties
from kemble.core.stations.mix import CHOI_OKOS, Mixed
from kemble.core.stations.parts import Made
from kemble.core.stations.working import Drawn, Working
from kemble.core.ways.base import Form

ROPE_TO_BALL = 0.72  # a rope this thick is cut about as long as it is wide; kitchen estimate
DISC_TO_SKIN = 0.85  # a disc is pressed a little thinner than the skin it becomes; kitchen estimate
_MOST_PIECES = 500
LEAST_DOUGH_G = 0.5  # lighter than that is no piece
_A_CRUMB_G = 0.05  # less filling than that is none
_A_FILM_MM = 0.05  # a layer thinner than that is none
_A_HAIR = 1e-6  # so that 26 pieces are not 25 for a rounding
_AS_GOOD_AS_EVEN = 0.05  # of a piece
PACKET_MM = 18.0  # how thick a flat packet is folded; kitchen estimate, 12-25 mm
FOIL_OVER = 3.0  # a foil square is about so many times the side of its packet; it swells; kitchen estimate


class Remedy(Drawn):
    """One way to balance dough and filling: words for the button, and the piece or part it changes."""

    says: str
    count: int | None = None
    filling_g: float | None = None
    filling_part_factor: float | None = None
    dough_part_factor: float | None = None


class BallDrawing(Drawn):
    """One piece in section. `outside`: the filling is the shell and the dough the core. mm and g."""

    kind: Literal["ball"] = "ball"
    form: Form = "ball"
    outside: bool = False
    outer_mm: float
    core_mm: float
    least_skin_mm: float
    dough_name: str = "dough"
    piece_name: str = "ball"
    dough_total_g: float
    filling_total_g: float
    filling_name: str
    filling_word: str = "filling"
    remedies: tuple[Remedy, ...]


@dataclass(frozen=True, slots=True)
class Portions:
    """How dough and filling are shared out. Grams; `filling_g` is 0 for plain balls.

    `others` are further parts that go on each piece: name, grams there are, grams for each.
    """

    dough_total: float
    dough_g: float
    filling_total: float
    filling_g: float
    wanted: int | None
    others: tuple[tuple[str, float, float], ...] = ()

    @property
    def base_for(self) -> float:
        return self.dough_total / self.dough_g

    @property
    def filling_for(self) -> float:
        return self.filling_total / self.filling_g if self.filling_g else math.inf

    @property
    def can(self) -> int:
        """Whole pieces that dough and filling are both enough for."""
        return math.floor(min(self.base_for, self.filling_for) + _A_HAIR)

    @property
    def first_short(self) -> str:
        """The part that runs out first when every piece gets its own of everything; empty when none does."""
        needed = self.wanted or self.can
        enough = [(have / each, name) for name, have, each in self.others]
        if self.filling_g:
            enough.append((self.filling_for, "filling"))
        enough.append((self.base_for, "dough"))
        least, name = min(enough)
        if self.short != "nothing" and name in ("dough", "filling"):
            return self.short
        return name if least < needed - _AS_GOOD_AS_EVEN else ""

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
        """Grams left of the other when the shorter is used up."""
        if self.short == "filling":
            return self.dough_total - self.count * self.dough_g
        return self.filling_total - self.count * self.filling_g if self.short == "dough" else 0.0

    def remedies(self, dough: str, filling: str) -> tuple[Remedy, ...]:
        """Three ways to come out even: fewer pieces, a thinner share, or more of what is short, in the way's words."""
        few, many = self.can, math.floor(max(self.base_for, self.filling_for) + _A_HAIR) if self.filling_g else 0
        if self.short == "nothing" or few == many or few < 1:
            return ()
        fewer = Remedy(says=f"make {few}", count=few)
        if self.short == "filling":
            each, need = self.filling_total / many, many * self.filling_g
            return (
                fewer,
                Remedy(says=f"{many}, {each:.1f} g {filling} each", filling_g=round(each, 2)),
                Remedy(
                    says=f"{need - self.filling_total:.0f} g more {filling}",
                    filling_part_factor=need / self.filling_total,
                ),
            )
        each, need = self.filling_total / few, many * self.dough_g
        return (
            fewer,
            Remedy(says=f"{few}, {each:.1f} g {filling} each", count=few, filling_g=round(each, 2)),
            Remedy(says=f"{need - self.dough_total:.0f} g more {dough}", dough_part_factor=need / self.dough_total),
        )


def sphere_mm(volume_ml: float) -> float:
    """Diameter in mm of a sphere of `volume_ml`."""
    return 2.0 * math.cbrt(3.0 * volume_ml * 1000.0 / (4.0 * math.pi))


def pieces(working: Working, mixed: Mixed) -> tuple[BallDrawing, Composition | None] | None:
    """Weights and sizes of the pieces. Returns the drawing and the filling's composition; None if refused."""
    way = working.way
    filling = _filling(mixed)
    portions = _portions(working, mixed)
    if portions is None:
        return None
    _enter_weights(working, portions)
    _enter_parts(working, mixed.parts, portions)
    outer, core = _enter_sizes(working, portions, filling.composition if filling else None)
    if filling and (outer - core) / 2 < _A_FILM_MM:
        working.refuse(
            "pieces",
            f"{portions.dough_g:g} and {portions.filling_g:g} g leave no layer round the other",
            "more of what goes outside, or less inside",
        )
        return None
    _advise(working, portions, (outer - core) / 2)
    drawing = BallDrawing.model_construct(
        kind="ball",
        form=way.form,
        outside=way.wraps == "outside",
        outer_mm=outer,
        core_mm=core,
        least_skin_mm=way.least_skin_mm,
        dough_name=way.word("dough"),
        piece_name=way.word("piece"),
        dough_total_g=portions.dough_total,
        filling_total_g=portions.filling_total,
        filling_name=filling.name if filling else "",
        filling_word=way.word("filling"),
        remedies=portions.remedies(way.word("dough"), way.word("filling")),
    )
    return drawing, filling.composition if filling else None


def _filling(mixed: Mixed) -> Made | None:
    """The filling, if there is any in it."""
    found = mixed.parts.get("filling")
    return found if found and found.have > _A_CRUMB_G else None


def _portions(working: Working, mixed: Mixed) -> Portions | None:
    """Any of count, dough and filling in a piece may be left out: what is not said is shared equally."""
    asked, way = working.sheet.pieces, working.way
    filling = _filling(mixed)
    filling_total = filling.have if filling else None
    dough_total = working.book.number("mix.cooked_g" if way.portions == "cooked" else "mix.batch_g")
    dough_g = asked.dough_g or (dough_total / asked.count if asked.count else min(way.usual_piece_g, dough_total))
    filling_g = 0.0
    if filling_total is not None:
        shared_by = asked.count or max(1, math.floor(dough_total / dough_g + _A_HAIR))
        filling_g = asked.filling_g or filling_total / shared_by
    elif asked.filling_g:
        working.refuse(
            "pieces.filling_g", "there is no filling on the sheet", "a part with role filling, or nothing here"
        )
        return None
    for path, each, total, stuff in (
        ("pieces.dough_g", dough_g, dough_total, way.word("dough")),
        ("pieces.filling_g", filling_g, filling_total or 0.0, way.word("filling")),
    ):
        if each > total + _A_HAIR:
            working.refuse(
                path, f"{each:g} g a piece is more than the {total:.0f} g of {stuff}", f"at most {total:.0f} g"
            )
            return None
    if dough_g < LEAST_DOUGH_G:
        working.refuse(
            "pieces",
            f"{dough_g:.2g} g of {way.word('dough')} make no piece",
            f"at least {LEAST_DOUGH_G:g} g to each: fewer pieces, or more {way.word('dough')}",
        )
        return None
    others = tuple(
        (one.name, one.have, part.each_g)
        for role, one in mixed.parts.items()
        if (part := working.bowl.parts[role].part).each_g and role != "filling"
    )
    found = Portions(dough_total, dough_g, filling_total or 0.0, filling_g, asked.count, others)
    if found.count > _MOST_PIECES:
        working.refuse(
            "pieces",
            f"{found.count} pieces are more than one sheet holds",
            f"heavier pieces, at most {_MOST_PIECES} of them",
        )
        return None
    return found


def _enter_weights(working: Working, portions: Portions) -> None:
    book, asked, way = working.book, working.sheet.pieces, working.way
    batch = "mix.cooked_g" if way.portions == "cooked" else "mix.batch_g"
    dough, filling = way.word("dough"), way.word("filling")
    enough: Origins = ["shape.base_enough_for"]
    weights: Origins = ["shape.base_g"]
    book.add(
        "shape.base_g",
        portions.dough_g,
        "as on the sheet" if asked.dough_g else f"{dough} shared equally",
        source="sheet",
        of=[batch, working.from_sheet("pieces.dough_g", f"{dough} in a piece", round(portions.dough_g, 2), "g")],
    )
    book.add(
        "shape.base_enough_for",
        portions.base_for,
        f"all the {dough} over the {dough} in a piece",
        source=CONSERVATION,
        of=[batch, "shape.base_g"],
    )
    if portions.filling_g:
        enough.append("shape.filling_enough_for")
        weights.append("shape.filling_g")
        made = "part.filling.have_g" if "part.filling.have_g" in book else "part.filling.made_g"
        book.add(
            "shape.filling_g",
            portions.filling_g,
            "as on the sheet" if asked.filling_g else f"{filling} shared equally",
            source="sheet",
            of=[
                made,
                working.from_sheet("pieces.filling_g", f"{filling} in a piece", round(portions.filling_g, 2), "g"),
            ],
        )
        book.add(
            "shape.filling_enough_for",
            portions.filling_for,
            f"all the {filling} over the {filling} in a piece",
            source=CONSERVATION,
            of=[made, "shape.filling_g"],
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
        if role in way.counted or role in ("filling", "wrapper"):
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
    if portions.filling_g:
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


def _enter_sizes(working: Working, portions: Portions, filling: Composition | None) -> tuple[float, float]:
    """Diameters of piece and core in mm, with the skin, the disc, the rope or the packet that follow from them."""
    book, way = working.book, working.way
    dough_ml = portions.dough_g / book.number("mix.density_g_per_ml")
    filling_ml = portions.filling_g / (properties(fractions(filling), 20.0).rho / 1000.0) if filling else 0.0
    outer = sphere_mm(dough_ml + filling_ml)
    core = sphere_mm(dough_ml if way.wraps == "outside" and filling else filling_ml)
    skin = max(0.0, (outer - core) / 2)
    dough, stuff = way.word("dough"), way.word("filling")
    volumes = f"{GEOMETRY}; {CHOI_OKOS}"
    if way.form == "packet":
        side = math.sqrt((dough_ml + filling_ml) * 1000 / PACKET_MM)
        book.add(
            "shape.thick_mm", PACKET_MM, "flat enough to steam through", source=KITCHEN_ESTIMATE, of=["shape.piece_g"]
        )
        book.add(
            "shape.side_mm",
            side,
            "a square of the packet's volume, so thick",
            source=volumes,
            of=["shape.piece_g", "shape.thick_mm", "mix.density_g_per_ml"],
        )
        book.add(
            "shape.foil_mm",
            FOIL_OVER * side,
            "wide enough to fold twice and leave it room to swell",
            source=KITCHEN_ESTIMATE,
            of=["shape.side_mm"],
        )
    book.add(
        "shape.diameter_mm",
        outer,
        f"a sphere of the {dough}'s and the {stuff}'s volumes" if filling else f"a sphere of the {dough}'s volume",
        source=volumes,
        of=["shape.piece_g", "mix.density_g_per_ml"],
    )
    if filling:
        inner, shell = (dough, stuff) if way.wraps == "outside" else (stuff, dough)
        book.add(
            "shape.core_mm",
            core,
            f"a sphere of the {inner}'s volume",
            source=volumes,
            of=["shape.base_g" if way.wraps == "outside" else "shape.filling_g"],
        )
        book.add(
            "shape.skin_mm",
            skin,
            f"half the difference of piece and core: the {shell}",
            source=GEOMETRY,
            of=["shape.diameter_mm", "shape.core_mm"],
        )
    if filling and way.form == "ball" and skin > _A_FILM_MM:
        shell_ml = filling_ml if way.wraps == "outside" else dough_ml
        book.add(
            "shape.disc_mm",
            math.sqrt(4 * shell_ml * 1000 / (math.pi * DISC_TO_SKIN * skin)),
            "a disc of the outer layer's volume, a little thinner than it will be",
            source=f"{GEOMETRY}; thickness a {KITCHEN_ESTIMATE}",
            of=["shape.base_g", "shape.skin_mm"],
        )
    if way.form in ("ball", "pull") and way.base == "flour":
        rope = max(1, round(ROPE_TO_BALL * (sphere_mm(dough_ml) if way.portions == "cooked" else outer)))
        book.add(
            "shape.rope_mm",
            float(rope),
            "about seven tenths of the ball",
            source=KITCHEN_ESTIMATE,
            of=["shape.diameter_mm"],
        )
        book.add(
            "shape.rope_cut_mm",
            dough_ml * 1000 / (math.pi * rope**2 / 4),
            f"the {dough}'s volume as a piece of rope",
            source=GEOMETRY,
            of=["shape.base_g", "shape.rope_mm"],
        )
    return outer, core


def _advise(working: Working, portions: Portions, skin_mm: float) -> None:
    way = working.way
    least = way.least_skin_mm
    if portions.filling_g and skin_mm < least:
        stuff = way.word("filling") if way.wraps == "outside" else "skin"
        says = f"The {stuff} is {skin_mm:.1f} mm: under {least:g} it tears. Less inside, or more outside."
        working.advise("shape", "look", says, 1)
    if portions.wanted and portions.can < portions.wanted:
        short = way.word("filling" if portions.short == "filling" else "dough")
        says = f"The {short} is enough for {portions.can}, not for {portions.wanted}."
        working.advise("shape", "look", says, 2)
    for name, have, each in portions.others:
        if have < portions.count * each - _A_HAIR:
            says = f"The {name} is enough for {have / each:.0f} of {portions.count}: {portions.count * each - have:.0f} g short."
            working.advise("shape", "look", says, 3)
    if portions.filling_g and way.form == "ball":
        says = f"{way.word('filling').capitalize()} balled first, all equal. Cover what waits."
        working.advise("shape", "before", says, 6)
    working.advise("shape", "before", "Weigh the first three against the target. Cover what waits.", 8)
