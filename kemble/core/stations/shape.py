"""Shape: pieces and their skin, or the depth in the tin; what runs out first."""

from __future__ import annotations

import math
from typing import Literal

from kemble.core.facts import CONSERVATION, GEOMETRY, KITCHEN_ESTIMATE, leaf
from kemble.core.kitchen import Tin
from kemble.core.larder import Composition
from kemble.core.physics.thermal import fractions, properties
from kemble.core.stations.mix import CHOI_OKOS
from kemble.core.stations.working import Drawn, Working, composition_of

ROPE_TO_BALL = 0.72  # kitchen estimate: a rope this thick is cut about as long as it is wide
DISC_TO_SKIN = 0.85  # kitchen estimate: a disc is pressed a little thinner than the skin it becomes
_MOST_PIECES = 500


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


class TinDrawing(Drawn):
    kind: Literal["tin"] = "tin"
    tin: Tin
    count: int
    depth_mm: float


ShapeDrawing = BallDrawing | TinDrawing


def sphere_mm(volume_ml: float) -> float:
    """Diameter in mm of a sphere of `volume_ml`."""
    return 2.0 * math.cbrt(3.0 * volume_ml * 1000.0 / (4.0 * math.pi))


def shape(working: Working) -> tuple[ShapeDrawing, Composition | None] | None:
    """Pieces or depth, by the way's form. Returns the drawing and the filling's composition; None if refused."""
    return _ball(working) if working.way.form == "ball" else _tin(working)


def _tin(working: Working) -> tuple[ShapeDrawing, None] | None:
    book, vessel = working.book, working.sheet.vessel
    tin, count = vessel.tin, vessel.count
    size = [
        working.from_sheet("vessel.tin", "tin", tin.size),
        working.from_sheet("vessel.count", "tins", count),
    ]
    volume_ml = book.number("mix.volume_ml")
    depth = volume_ml * 1000.0 / (tin.floor_mm2 * count)
    room = tin.height_mm - depth
    if room < 2.0:
        holds = tin.floor_mm2 * (tin.height_mm - 2.0) * count / 1000.0
        enough = math.ceil(volume_ml * 1000.0 / (tin.floor_mm2 * (tin.height_mm - 2.0)))
        working.refuse(
            "vessel.tin",
            f"{volume_ml:.0f} ml of batter do not fit: {count} {tin.size} tin{'s' if count > 1 else ''} "
            f"{tin.height_mm:.0f} mm high hold {holds:.0f} ml",
            f"a height of at least {math.ceil(depth + 2)} mm, or {enough} tins, or a larger tin",
        )
        return None
    book.add("shape.tins", float(count), "as on the sheet", source="sheet", of=size[1:])
    book.add(
        "shape.depth_mm",
        depth,
        "volume over the floor of the tins",
        source=GEOMETRY,
        of=["mix.volume_ml", *size],
    )
    book.add(
        "shape.headroom_mm",
        room,
        "height of the tin less the depth",
        source=GEOMETRY,
        of=[
            "shape.depth_mm",
            working.from_sheet("vessel.tin.height_mm", "height of the tin", tin.height_mm, "mm"),
        ],
    )
    if room < 8:
        working.advise(
            "shape",
            "look",
            f"Only {room:.0f} mm below the brim: it swells as it steams, and may run over.",
            1,
        )
    if depth < 12:
        working.advise("shape", "look", "A thin layer: it cooks fast and dries at the edge. Cover it.", 3)
    if depth > 50:
        working.advise(
            "shape",
            "look",
            "Deep: time goes with the square of the depth. Two tins would be much quicker.",
            2,
        )
    working.advise("shape", "before", "Line the tin before you mix. Batter that waits in the bowl settles.", 8)
    return TinDrawing.model_construct(kind="tin", tin=tin, count=count, depth_mm=depth), None


def _ball(working: Working) -> tuple[ShapeDrawing, Composition | None] | None:
    sheet, book, way = working.sheet, working.book, working.way
    pieces = sheet.pieces
    dough_total = book.number("mix.batch_g")
    part = sheet.part("filling")
    filling = composition_of(part) if part else None
    filling_total = filling.total if filling else 0.0
    if pieces.filling_g and not part:
        working.refuse(
            "pieces.filling_g",
            "there is no filling on the sheet",
            "a part with role filling, or nothing here",
        )
        return None

    dough_g = pieces.dough_g or (dough_total / pieces.count if pieces.count else 18.0)
    if dough_g > dough_total:
        working.refuse(
            "pieces.dough_g",
            f"{dough_g:g} g a piece is more than the {dough_total:.0f} g of dough",
            f"at most {dough_total:.0f} g",
        )
        return None
    base_for = dough_total / dough_g
    filling_g = 0.0
    if part:
        filling_g = pieces.filling_g or filling_total / (pieces.count or max(1, math.floor(base_for + 1e-6)))
        if filling_g > filling_total:
            working.refuse(
                "pieces.filling_g",
                f"{filling_g:g} g a piece is more than the {filling_total:.0f} g of filling",
                f"at most {filling_total:.0f} g",
            )
            return None
    filling_for = filling_total / filling_g if filling_g else math.inf
    can = math.floor(min(base_for, filling_for) + 1e-6)
    count = min(pieces.count or can, can)
    if count > _MOST_PIECES:
        working.refuse(
            "pieces",
            f"{count} pieces are more than one sheet holds",
            f"heavier pieces, at most {_MOST_PIECES} of them",
        )
        return None

    asked = [
        working.from_sheet("pieces.count", "pieces asked for", pieces.count or "as many as it makes"),
        working.from_sheet("pieces.dough_g", "dough in a piece", round(dough_g, 2), "g"),
    ]
    book.add(
        "shape.base_g",
        dough_g,
        "as on the sheet" if pieces.dough_g else "dough shared equally",
        source="sheet",
        of=["mix.batch_g", *asked],
    )
    book.add(
        "shape.base_enough_for",
        base_for,
        "all the dough over the dough in a piece",
        source=CONSERVATION,
        of=["mix.batch_g", "shape.base_g"],
    )
    if filling:
        assert part is not None
        book.add(
            "mix.filling_g",
            filling_total,
            "every line of the filling",
            source=CONSERVATION,
            of=[
                leaf(f"sheet:parts.filling.lines.{i}", line.item.name, round(line.used_g, 1), "g")
                for i, line in enumerate(part.lines)
            ],
        )
        book.add(
            "shape.filling_g",
            filling_g,
            "as on the sheet" if pieces.filling_g else "filling shared equally",
            source="sheet",
            of=[
                "mix.filling_g",
                working.from_sheet("pieces.filling_g", "filling in a piece", round(filling_g, 2), "g"),
            ],
        )
        book.add(
            "shape.filling_enough_for",
            filling_for,
            "all the filling over the filling in a piece",
            source=CONSERVATION,
            of=["mix.filling_g", "shape.filling_g"],
        )
    book.add(
        "shape.pieces",
        float(count),
        "the shorter of dough and filling, whole pieces only",
        source=CONSERVATION,
        of=["shape.base_enough_for", *(["shape.filling_enough_for"] if filling else []), asked[0]],
    )
    book.add(
        "shape.piece_g",
        dough_g + filling_g,
        "dough and filling together",
        source=CONSERVATION,
        of=["shape.base_g", *(["shape.filling_g"] if filling else [])],
    )
    short, left = _balance(base_for, filling_for, count, dough_g, filling_g, dough_total, filling_total)
    book.add(
        "shape.short_of",
        short,
        "whichever makes fewer pieces",
        source=CONSERVATION,
        of=["shape.base_enough_for", *(["shape.filling_enough_for"] if filling else [])],
    )
    book.add(
        "shape.left_over_g",
        left,
        "what is left of the other when the shorter is used up",
        source=CONSERVATION,
        of=["shape.pieces", "shape.short_of"],
    )

    dough_ml = dough_g / book.number("mix.density_g_per_ml")
    core_ml = filling_g / (properties(fractions(filling), 20.0).rho / 1000.0) if filling else 0.0
    outer, core = sphere_mm(dough_ml + core_ml), sphere_mm(core_ml) if core_ml else 0.0
    skin = (outer - core) / 2
    book.add(
        "shape.diameter_mm",
        outer,
        "a sphere of the dough's and the filling's volumes",
        source=f"{GEOMETRY}; {CHOI_OKOS}",
        of=["shape.piece_g", "mix.density_g_per_ml"],
    )
    if filling:
        book.add(
            "shape.core_mm",
            core,
            "a sphere of the filling's volume",
            source=f"{GEOMETRY}; {CHOI_OKOS}",
            of=["shape.filling_g"],
        )
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

    if filling and skin < way.least_skin_mm:
        working.advise(
            "shape",
            "look",
            f"The skin is {skin:.1f} mm: under {way.least_skin_mm:g} it tears. Less filling, or more dough to each.",
            1,
        )
    if pieces.count and can < pieces.count:
        working.advise("shape", "look", f"The {short} is enough for {can}, not for {pieces.count}.", 2)
    if filling:
        working.advise(
            "shape",
            "before",
            "Filling balls frozen hard first, a few at a time to the board. Cover the dough that waits.",
            6,
        )
    working.advise("shape", "before", "Weigh the first three against the target. Cover the dough that waits.", 8)
    drawing = BallDrawing.model_construct(
        kind="ball",
        outer_mm=outer,
        core_mm=core,
        least_skin_mm=way.least_skin_mm,
        dough_total_g=dough_total,
        filling_total_g=filling_total,
        filling_name=part.name if part else "",
        remedies=tuple(_remedies(short, base_for, filling_for, dough_g, filling_g, filling_total, dough_total)),
    )
    return drawing, filling


def _balance(
    base_for: float,
    filling_for: float,
    count: int,
    dough_g: float,
    filling_g: float,
    dough_total: float,
    filling_total: float,
) -> tuple[str, float]:
    """What runs out first, and the grams left of the other."""
    if math.isinf(filling_for) or abs(base_for - filling_for) < 0.05:
        return "nothing", 0.0
    if filling_for < base_for:
        return "filling", dough_total - count * dough_g
    return "dough", filling_total - count * filling_g


def _remedies(
    short: str,
    base_for: float,
    filling_for: float,
    dough_g: float,
    filling_g: float,
    filling_total: float,
    dough_total: float,
) -> list[Remedy]:
    """Three ways to come out even: fewer pieces, a thinner share, or more of what is short."""
    if short == "nothing":
        return []
    few, many = math.floor(min(base_for, filling_for) + 1e-6), math.floor(max(base_for, filling_for) + 1e-6)
    if few == many or few < 1:
        return []
    found = [Remedy(says=f"make {few}", count=few)]
    if short == "filling":
        each = filling_total / many
        found.append(Remedy(says=f"{many}, {each:.1f} g filling each", filling_g=round(each, 2)))
        found.append(
            Remedy(
                says=f"{many * filling_g - filling_total:.0f} g more filling",
                filling_part_factor=many * filling_g / filling_total,
            )
        )
    else:
        each = filling_total / few
        found.append(Remedy(says=f"{few}, {each:.1f} g filling each", count=few, filling_g=round(each, 2)))
        found.append(
            Remedy(
                says=f"{many * dough_g - dough_total:.0f} g more dough",
                dough_part_factor=many * dough_g / dough_total,
            )
        )
    return found
