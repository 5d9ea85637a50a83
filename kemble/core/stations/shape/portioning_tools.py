"""Tools: what a piece's weight and size come to with the hands, a spoon, a rope, a rolled sheet, a leaf or foil."""

from __future__ import annotations

import math
from collections.abc import Sequence

from kemble.core.facts.fact import CONSERVATION, GEOMETRY, KITCHEN_ESTIMATE
from kemble.core.facts.quantity import HouseholdMeasure, nearest_spoon
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.geometry.rolled_dough import CutterShape, Rolling, cutter_mm2, rollings
from kemble.core.kitchen.estimates import EstimateId
from kemble.core.sentences import say
from kemble.core.sheet.document import RolledDough
from kemble.core.stations.calculation import AnswerModel, Calculation
from kemble.core.stations.time_windows import enter_with_range, scaled_by_estimates

_THINNEST_MM = 1.5  # dough rolled thinner than that tears on the board: then it is spoken of
_CUTTER_OFF = 0.15  # a cutter so much smaller or larger than the disc wanted is told


class RollingDrawing(AnswerModel):
    """`sheets` alike, each so many mm, with the middles of the cutters on it."""

    sheets: int
    length_mm: float
    width_mm: float
    middles: tuple[tuple[float, ...], ...]


class RolledDrawing(AnswerModel):
    """Dough rolled out and cut: the first rolling and what is rolled again. mm."""

    cutter_mm: float
    shape: CutterShape
    thick_mm: float
    rollings: tuple[RollingDrawing, ...]


def disc(calculation: Calculation, outer_ml: float, skin_mm: float) -> None:
    """The disc to flatten the outer layer to, belly in the middle."""
    pressed: EstimateId = "disc"
    enter_with_range(
        calculation,
        "shape.disc_mm",
        say("a disc of the outer layer's volume, a little thinner than it will be"),
        lambda is_: math.sqrt(4 * outer_ml * 1000 / (math.pi * is_[pressed] * skin_mm)),
        (pressed,),
        source=say("{geometry}; thickness a {kitchen_estimate}", geometry=GEOMETRY, kitchen_estimate=KITCHEN_ESTIMATE),
        of=["shape.base_g", "shape.skin_mm"],
    )


def rope(calculation: Calculation, dough_ml: float, ball_mm: float) -> None:
    """A rope, and how long each piece of it is."""
    across = max(1, round(calculation.likely("rope") * ball_mm))
    calculation.fact_book.add(
        "shape.rope_mm",
        float(across),
        say("about seven tenths of the ball"),
        source=KITCHEN_ESTIMATE,
        of=["shape.diameter_mm", calculation.estimated("rope")],
    )
    calculation.fact_book.add(
        "shape.rope_cut_mm",
        dough_ml * 1000 / (math.pi * across**2 / 4),
        say("the dough's volume as a piece of rope"),
        source=GEOMETRY,
        of=["shape.base_g", "shape.rope_mm"],
    )


def scoop(calculation: Calculation, grams: float, g_per_ml: float) -> None:
    """The spoon or scoop of the drawer nearest to a ball of filling, and what it comes to."""
    kitchen = calculation.kitchen
    scoops = tuple((scoop.name, scoop.ml) for scoop in kitchen.scoops)
    household_measure: HouseholdMeasure = nearest_spoon(grams, g_per_ml=g_per_ml, spoons=kitchen.spoons, scoops=scoops)
    ball = "shape.paste_g" if "shape.paste_g" in calculation.fact_book else "shape.filling_g"
    drawer = calculation.from_kitchen("scoops", "scoops", ", ".join(name for name, _ in scoops) or say("spoons only"))
    calculation.fact_book.add(
        "shape.scoop",
        household_measure.text,
        say("the nearest in the drawer, level"),
        source=KITCHEN_ESTIMATE,
        of=[ball, drawer],
    )
    calculation.fact_book.add(
        "shape.scoop_g",
        grams * (1 + household_measure.error_pct / 100),
        say("its volume by the filling's density"),
        source=CONSERVATION,
        of=["shape.scoop"],
    )


def packet(calculation: Calculation, volume_ml: float, volumes: str) -> None:
    """A flat packet: its side, and the rectangle of foil that goes round it."""
    fact_book, said = calculation.fact_book, calculation.sheet.wrap.thick_mm
    folded: EstimateId = "packet_mm"
    thick = said or calculation.likely(folded)
    side = math.sqrt(volume_ml * 1000 / thick)
    fact_book.add(
        "shape.packet_ml",
        volume_ml,
        say("what is in it by its densities"),
        source=volumes,
        of=["shape.piece_g", "mix.density_g_per_ml"],
    )
    if said:
        fact_book.add("shape.thick_mm", thick, say("as on the sheet"), source="sheet", of=["shape.piece_g"])
    else:
        enter_with_range(
            calculation,
            "shape.thick_mm",
            say("flat enough to steam through"),
            scaled_by_estimates(1.0, folded),
            (folded,),
            source=KITCHEN_ESTIMATE,
            of=["shape.piece_g"],
        )
    fact_book.add(
        "shape.side_mm",
        side,
        say("a square of the packet's volume, so thick"),
        source=volumes,
        of=["shape.piece_g", "shape.thick_mm", "mix.density_g_per_ml"],
    )
    if calculation.sheet.wrap.outer == "leaf":
        return
    swell, fold = calculation.likely("foil_swell"), calculation.likely("foil_fold_mm")
    for key, length, says in (
        ("shape.foil_mm", swell * 2 * (side + thick) + fold, say("once round, a seam, a tenth to swell")),
        (
            "shape.foil_across_mm",
            swell * (side + thick) + 2 * fold,
            say("across, an end folded on either side, a tenth to swell"),
        ),
    ):
        fact_book.add(
            key,
            length,
            says,
            source=say("{geometry}; seams a {kitchen_estimate}", geometry=GEOMETRY, kitchen_estimate=KITCHEN_ESTIMATE),
            of=["shape.side_mm", "shape.thick_mm"],
        )


def roll_out(calculation: Calculation, dough_g: float, dough_total: float) -> RolledDrawing | None:
    """The dough rolled out, so thick that a cut weighs what a piece wants. None, with a problem noted, if it cannot be."""
    fact_book, rolled = calculation.fact_book, calculation.sheet.rolled
    g_per_ml = fact_book.number("mix.density_g_per_ml")
    wanted = fact_book.number("shape.disc_mm") if "shape.disc_mm" in fact_book else None
    cutter = rolled.cutter_mm or max(10.0, 5.0 * round((wanted or fact_book.number("shape.diameter_mm")) / 5))
    each_mm2 = cutter_mm2(cutter, rolled.shape)
    thick = dough_g / g_per_ml * 1000 / each_mm2
    area = dough_total / g_per_ml * 1000 / thick
    found_rollings = rollings(
        area,
        board=_board(rolled, area),
        cutter=cutter,
        shape=rolled.shape,
        gap=rolled.gap_mm,
        packing=rolled.packing,
        again=rolled.again,
    )
    if not found_rollings:
        calculation.problem(
            "rolled.cutter_mm",
            say("a cutter of {cutter} is wider than the sheet that this dough gives", cutter=calculation.size(cutter)),
            say("a smaller cutter, more dough, or a larger board"),
        )
        return None
    asked = calculation.from_sheet("rolled.cutter_mm", "cutter", cutter, "mm")
    says = say("as on the sheet") if rolled.cutter_mm else say("the disc it wants, to half a centimetre")
    fact_book.add("shape.cutter_mm", cutter, says, source="sheet" if rolled.cutter_mm else GEOMETRY, of=[asked])
    _enter_sheet(calculation, thick, area, found_rollings, found_rollings[-1].left_mm2 / each_mm2 * dough_g)
    _rolled_to_size(calculation, dough_total / g_per_ml, each_mm2, g_per_ml)
    _advise_rolled(calculation, cutter, wanted, thick, sum(rolling.count for rolling in found_rollings))
    return unchecked_model(
        RolledDrawing,
        cutter_mm=cutter,
        shape=rolled.shape,
        thick_mm=thick,
        rollings=tuple(
            unchecked_model(
                RollingDrawing,
                sheets=rolling.sheets,
                length_mm=rolling.length,
                width_mm=rolling.width,
                middles=tuple((p.x, p.y) for p in rolling.places),
            )
            for rolling in found_rollings
        ),
    )


def _board(rolled: RolledDough, area_mm2: float) -> tuple[float, float]:
    """mm: the sheet itself, where the dough is rolled to just that size; else the board."""
    length, width = rolled.length_mm, rolled.width_mm
    if length and width and abs(length * width / area_mm2 - 1) < 1e-6:
        return length, width
    return rolled.board_length_mm, rolled.board_width_mm


def _enter_sheet(
    calculation: Calculation, thick: float, area: float, sequence: Sequence[Rolling], left_g: float
) -> None:
    """The sheet of dough, what is cut from it and from its trimmings, and what is left. mm, mm2, g."""
    fact_book, rolled = calculation.fact_book, calculation.sheet.rolled
    packing = calculation.from_sheet("rolled.packing", "laid", rolled.packing)
    again = calculation.from_sheet("rolled.again", say("trimmings rolled again"), rolled.again, "times")
    disc_mm = None if rolled.cutter_mm or "shape.disc_mm" not in fact_book else fact_book.number("shape.disc_mm")
    enter_with_range(
        calculation,
        "shape.sheet_thick_mm",
        say("so that a cut weighs what a piece wants"),
        # A cutter that follows the disc cuts a thinner sheet the wider that is.
        lambda is_: thick * (disc_mm / calculation.fact_with("shape.disc_mm", is_)) ** 2 if disc_mm else thick,
        calculation.rows_of("shape.disc_mm") if disc_mm else (),
        source=GEOMETRY,
        of=["shape.base_g", "shape.cutter_mm", "mix.density_g_per_ml"],
    )
    fact_book.add(
        "shape.sheet_cm2", area / 100, say("all the dough, so thick"), source=GEOMETRY, of=["shape.sheet_thick_mm"]
    )
    fact_book.add(
        "shape.cut_first",
        float(sequence[0].count),
        say("cutters that fit on the first sheet"),
        source=GEOMETRY,
        of=["shape.sheet_cm2", "shape.cutter_mm", packing],
    )
    fact_book.add(
        "shape.cut_of_sheet",
        float(sum(rolling.count for rolling in sequence)),
        say("with what the trimmings give, rolled again"),
        source=GEOMETRY,
        of=["shape.cut_first", again],
    )
    fact_book.add(
        "shape.trimmings_g",
        left_g,
        say("what is left at the end"),
        source=CONSERVATION,
        of=["shape.cut_of_sheet", "shape.base_g"],
    )


def _rolled_to_size(calculation: Calculation, volume_ml: float, each_mm2: float, g_per_ml: float) -> None:
    """All the dough as one sheet of a size: how thick it is, and what the cutter takes from it."""
    rolled, fact_book = calculation.sheet.rolled, calculation.fact_book
    if rolled.length_mm is None or rolled.width_mm is None:
        return
    size = calculation.from_sheet("rolled", say("rolled to"), calculation.size(rolled.length_mm, rolled.width_mm))
    thick = fact_book.add(
        "shape.rolled_mm",
        volume_ml * 1000 / (rolled.length_mm * rolled.width_mm),
        say("all the dough over a sheet of that size"),
        source=GEOMETRY,
        of=["mix.density_g_per_ml", size],
    )
    fact_book.add(
        "shape.rolled_cut_g",
        thick * each_mm2 / 1000 * g_per_ml,
        say("the cutter's area, so thick"),
        source=GEOMETRY,
        of=["shape.rolled_mm", "shape.cutter_mm"],
    )


def _advise_rolled(calculation: Calculation, cutter: float, wanted: float | None, thick: float, cut: int) -> None:
    wants = int(calculation.fact_book.number("shape.pieces"))
    if thick < _THINNEST_MM:
        says = say(
            "Rolled to {thick} it tears on the board: a smaller cutter, or more dough in a piece.",
            thick=calculation.length(thick, 1),
        )
        calculation.advise("shape", "look", says, 1)
    elif wanted and abs(cutter / wanted - 1) > _CUTTER_OFF:
        short = say("hardly meets round the filling") if cutter < wanted else say("folds double at the seam")
        says = say(
            "The piece wants a disc of {disc}: one of {cutter} {short}.",
            disc=calculation.size(round(wanted)),
            cutter=calculation.size(cutter),
            short=short,
        )
        calculation.advise("shape", "look", says, 3)
    if cut < wants:
        says = say(
            "The cutter gives {cut} of {wants}: press the trimmings together, or roll them once more.",
            cut=cut,
            wants=wants,
        )
        calculation.advise("shape", "look", says, 2)
