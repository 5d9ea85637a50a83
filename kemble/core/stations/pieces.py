"""Pieces: balls of dough, plain or round a filling; what runs out first, and the geometry of one."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

from kemble.core.facts import CONSERVATION, GEOMETRY, KITCHEN_ESTIMATE, Origins, leaf
from kemble.core.larder import Composition
from kemble.core.physics.thermal import fractions, properties
from kemble.core.stations.mix import CHOI_OKOS
from kemble.core.stations.working import Drawn, Working, composition_of

USUAL_DOUGH_G = 18.0  # where the sheet says neither how many nor how heavy
ROPE_TO_BALL = 0.72  # a rope this thick is cut about as long as it is wide; kitchen estimate
DISC_TO_SKIN = 0.85  # a disc is pressed a little thinner than the skin it becomes; kitchen estimate
_MOST_PIECES = 500
_A_HAIR = 1e-6  # so that 26 pieces are not 25 for a rounding
_AS_GOOD_AS_EVEN = 0.05  # of a piece


class Remedy(Drawn):
    """One way to balance dough and filling: words for the button, and the piece or part it changes."""

    says: str
    count: int | None = None
    filling_g: float | None = None
    filling_part_factor: float | None = None
    dough_part_factor: float | None = None


class BallDrawing(Drawn):
    kind: Literal["ball"] = "ball"
    outer_mm: float
    core_mm: float
    least_skin_mm: float
    dough_total_g: float
    filling_total_g: float
    filling_name: str
    remedies: tuple[Remedy, ...]


@dataclass(frozen=True, slots=True)
class Portions:
    """How dough and filling are shared out. Grams; `filling_g` is 0 for plain balls."""

    dough_total: float
    dough_g: float
    filling_total: float
    filling_g: float
    wanted: int | None

    @property
    def base_for(self) -> float:
        return self.dough_total / self.dough_g

    @property
    def filling_for(self) -> float:
        return self.filling_total / self.filling_g if self.filling_g else math.inf

    @property
    def can(self) -> int:
        """Whole pieces that both are enough for."""
        return math.floor(min(self.base_for, self.filling_for) + _A_HAIR)

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

    @property
    def remedies(self) -> tuple[Remedy, ...]:
        """Three ways to come out even: fewer pieces, a thinner share, or more of what is short."""
        few, many = self.can, math.floor(max(self.base_for, self.filling_for) + _A_HAIR) if self.filling_g else 0
        if self.short == "nothing" or few == many or few < 1:
            return ()
        fewer = Remedy(says=f"make {few}", count=few)
        if self.short == "filling":
            each, need = self.filling_total / many, many * self.filling_g
            return (
                fewer,
                Remedy(says=f"{many}, {each:.1f} g filling each", filling_g=round(each, 2)),
                Remedy(
                    says=f"{need - self.filling_total:.0f} g more filling",
                    filling_part_factor=need / self.filling_total,
                ),
            )
        each, need = self.filling_total / few, many * self.dough_g
        return (
            fewer,
            Remedy(says=f"{few}, {each:.1f} g filling each", count=few, filling_g=round(each, 2)),
            Remedy(says=f"{need - self.dough_total:.0f} g more dough", dough_part_factor=need / self.dough_total),
        )


def sphere_mm(volume_ml: float) -> float:
    """Diameter in mm of a sphere of `volume_ml`."""
    return 2.0 * math.cbrt(3.0 * volume_ml * 1000.0 / (4.0 * math.pi))


def pieces(working: Working) -> tuple[BallDrawing, Composition | None] | None:
    """Weights and sizes of the balls. Returns the drawing and the filling's composition; None if refused."""
    part = working.sheet.part("filling")
    filling = composition_of(part) if part else None
    portions = _portions(working, filling.total if filling else None)
    if portions is None:
        return None
    _enter_weights(working, portions)
    outer, core = _enter_sizes(working, portions, filling)
    _advise(working, portions, (outer - core) / 2)
    drawing = BallDrawing.model_construct(
        kind="ball",
        outer_mm=outer,
        core_mm=core,
        least_skin_mm=working.way.least_skin_mm,
        dough_total_g=portions.dough_total,
        filling_total_g=portions.filling_total,
        filling_name=part.name if part else "",
        remedies=portions.remedies,
    )
    return drawing, filling


def _portions(working: Working, filling_total: float | None) -> Portions | None:
    """Any of count, dough and filling in a piece may be left out: what is not said is shared equally."""
    asked = working.sheet.pieces
    dough_total = working.book.number("mix.batch_g")
    dough_g = asked.dough_g or (dough_total / asked.count if asked.count else USUAL_DOUGH_G)
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
        ("pieces.dough_g", dough_g, dough_total, "dough"),
        ("pieces.filling_g", filling_g, filling_total or 0.0, "filling"),
    ):
        if each > total:
            working.refuse(
                path, f"{each:g} g a piece is more than the {total:.0f} g of {stuff}", f"at most {total:.0f} g"
            )
            return None
    found = Portions(dough_total, dough_g, filling_total or 0.0, filling_g, asked.count)
    if found.count > _MOST_PIECES:
        working.refuse(
            "pieces",
            f"{found.count} pieces are more than one sheet holds",
            f"heavier pieces, at most {_MOST_PIECES} of them",
        )
        return None
    return found


def _enter_weights(working: Working, portions: Portions) -> None:
    book, asked = working.book, working.sheet.pieces
    part = working.sheet.part("filling")
    enough: Origins = ["shape.base_enough_for"]
    weights: Origins = ["shape.base_g"]
    book.add(
        "shape.base_g",
        portions.dough_g,
        "as on the sheet" if asked.dough_g else "dough shared equally",
        source="sheet",
        of=["mix.batch_g", working.from_sheet("pieces.dough_g", "dough in a piece", round(portions.dough_g, 2), "g")],
    )
    book.add(
        "shape.base_enough_for",
        portions.base_for,
        "all the dough over the dough in a piece",
        source=CONSERVATION,
        of=["mix.batch_g", "shape.base_g"],
    )
    if part:
        enough.append("shape.filling_enough_for")
        weights.append("shape.filling_g")
        book.add(
            "mix.filling_g",
            portions.filling_total,
            "every line of the filling",
            source=CONSERVATION,
            of=[
                leaf(f"sheet:parts.filling.lines.{i}", line.item.name, round(line.used_g, 1), "g")
                for i, line in enumerate(part.lines)
            ],
        )
        book.add(
            "shape.filling_g",
            portions.filling_g,
            "as on the sheet" if asked.filling_g else "filling shared equally",
            source="sheet",
            of=[
                "mix.filling_g",
                working.from_sheet("pieces.filling_g", "filling in a piece", round(portions.filling_g, 2), "g"),
            ],
        )
        book.add(
            "shape.filling_enough_for",
            portions.filling_for,
            "all the filling over the filling in a piece",
            source=CONSERVATION,
            of=["mix.filling_g", "shape.filling_g"],
        )
    wanted = working.from_sheet("pieces.count", "pieces asked for", asked.count or "as many as it makes")
    book.add(
        "shape.pieces",
        float(portions.count),
        "the shorter of dough and filling, whole pieces only",
        source=CONSERVATION,
        of=[*enough, wanted],
    )
    book.add(
        "shape.piece_g",
        portions.dough_g + portions.filling_g,
        "dough and filling together",
        source=CONSERVATION,
        of=weights,
    )
    book.add("shape.short_of", portions.short, "whichever makes fewer pieces", source=CONSERVATION, of=enough)
    book.add(
        "shape.left_over_g",
        portions.left_over_g,
        "what is left of the other when the shorter is used up",
        source=CONSERVATION,
        of=["shape.pieces", "shape.short_of"],
    )


def _enter_sizes(working: Working, portions: Portions, filling: Composition | None) -> tuple[float, float]:
    """Diameters of ball and core in mm, with the skin, the disc and the rope that follow from them."""
    book = working.book
    dough_ml = portions.dough_g / book.number("mix.density_g_per_ml")
    core_ml = portions.filling_g / (properties(fractions(filling), 20.0).rho / 1000.0) if filling else 0.0
    outer, core = sphere_mm(dough_ml + core_ml), sphere_mm(core_ml)
    skin = (outer - core) / 2
    volumes = f"{GEOMETRY}; {CHOI_OKOS}"
    book.add(
        "shape.diameter_mm",
        outer,
        "a sphere of the dough's and the filling's volumes",
        source=volumes,
        of=["shape.piece_g", "mix.density_g_per_ml"],
    )
    if filling:
        book.add("shape.core_mm", core, "a sphere of the filling's volume", source=volumes, of=["shape.filling_g"])
        book.add(
            "shape.skin_mm",
            skin,
            "half the difference of ball and filling",
            source=GEOMETRY,
            of=["shape.diameter_mm", "shape.core_mm"],
        )
        book.add(
            "shape.disc_mm",
            math.sqrt(4 * dough_ml * 1000 / (math.pi * DISC_TO_SKIN * skin)),
            "a disc of the dough's volume, a little thinner than the skin",
            source=f"{GEOMETRY}; thickness a {KITCHEN_ESTIMATE}",
            of=["shape.base_g", "shape.skin_mm"],
        )
    rope = round(ROPE_TO_BALL * outer)
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
        "the dough's volume as a piece of rope",
        source=GEOMETRY,
        of=["shape.base_g", "shape.rope_mm"],
    )
    return outer, core


def _advise(working: Working, portions: Portions, skin_mm: float) -> None:
    least = working.way.least_skin_mm
    if portions.filling_g and skin_mm < least:
        says = f"The skin is {skin_mm:.1f} mm: under {least:g} it tears. Less filling, or more dough to each."
        working.advise("shape", "look", says, 1)
    if portions.wanted and portions.can < portions.wanted:
        says = f"The {portions.short} is enough for {portions.can}, not for {portions.wanted}."
        working.advise("shape", "look", says, 2)
    if portions.filling_g:
        says = "Filling balls frozen hard first, a few at a time to the board. Cover the dough that waits."
        working.advise("shape", "before", says, 6)
    working.advise("shape", "before", "Weigh the first three against the target. Cover the dough that waits.", 8)
