"""Which moves of the hands a sheet's steps ask for, drawn for its own piece (geometry/hand_moves.py)."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence

from pydantic import BaseModel, ConfigDict

from kemble.core.cards.card_parts import stage_of
from kemble.core.cards.ways import WAYS
from kemble.core.facts.fact import number_of
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.geometry import hand_moves
from kemble.core.geometry.leaf_folds import BARE, EDGE_OF_WIDTH, EDGES_LONG, LeafParcel
from kemble.core.sentences import Words, say
from kemble.core.sheet.document import Sheet
from kemble.core.stations.shape.pieces import BallDrawing
from kemble.core.stations.shape.shape import TinDrawing
from kemble.core.stations.work_sheet import WorkResult

_RAW_G_PER_ML = 1.15  # of grain packed raw in a leaf; for how high it stands in the cone; kitchen estimate
_ROOM = 0.75  # of a parcel is filled raw: the grain swells; kitchen estimate


class StrokeDrawing(BaseModel):
    model_config = ConfigDict(frozen=True)

    kind: str
    points: list[tuple[float, float]]
    closed: bool


class MeasureDrawing(BaseModel):
    """A length and its ends. mm."""

    model_config = ConfigDict(frozen=True)

    start: tuple[float, float]
    end: tuple[float, float]
    mm: float


class PushDrawing(BaseModel):
    model_config = ConfigDict(frozen=True)

    start: tuple[float, float]
    end: tuple[float, float]


class HandFrameDrawing(BaseModel):
    """One move, in mm, for the right hand. `estimate`: dough stretches as it likes."""

    model_config = ConfigDict(frozen=True)

    says: Words
    box: tuple[float, float, float, float]
    strokes: list[StrokeDrawing]
    pushes: list[PushDrawing]
    spans: list[MeasureDrawing]
    estimate: bool


class HandsDrawing(BaseModel):
    """Every step of a sheet at which hands are drawn, its moves in order."""

    model_config = ConfigDict(frozen=True)

    steps: dict[str, list[HandFrameDrawing]]


def hands_of(sheet: Sheet, worked: WorkResult) -> HandsDrawing:
    """The moves of a worked sheet; nothing for a step whose measures it does not have."""
    hand_frame_drawings_by_name: dict[str, list[HandFrameDrawing]] = {}
    for step in worked.steps:
        rule = _MOVES.get(stage_of(step.id)[0])
        frames = rule(sheet, worked) if rule else []
        if frames:
            hand_frame_drawings_by_name[step.id] = [_frame_drawing(frame) for frame in frames]
    return unchecked_model(HandsDrawing, steps=hand_frame_drawings_by_name)


def _frame_drawing(frame: hand_moves.HandFrame) -> HandFrameDrawing:
    return unchecked_model(
        HandFrameDrawing,
        says=frame.says,
        box=frame.box,
        strokes=[
            unchecked_model(
                StrokeDrawing, kind=hand_stroke.kind, points=list(hand_stroke.points), closed=hand_stroke.closed
            )
            for hand_stroke in frame.strokes
        ],
        pushes=[unchecked_model(PushDrawing, start=hand_push.start, end=hand_push.end) for hand_push in frame.pushes],
        spans=[
            unchecked_model(MeasureDrawing, start=hand_measure.start, end=hand_measure.end, mm=hand_measure.mm)
            for hand_measure in frame.spans
        ],
        estimate=frame.estimate,
    )


def _cone(sheet: Sheet, worked: WorkResult) -> Sequence[hand_moves.HandFrame]:
    """A parcel of the measured leaf; where nobody has measured one, of the smallest that would hold the parcel."""
    leaf, facts, way = sheet.wrap.leaf_mm, worked.facts, WAYS[sheet.way]
    leaves = round(sheet.wrap.leaves or way.leaves_each or 0)
    edge = number_of(facts, "shape.edge_mm")
    if way.form != "parcel" or not leaves:
        return []
    if leaf is None or edge <= 0:
        ml = number_of(facts, "shape.piece_g") / _RAW_G_PER_ML / _ROOM
        edge = (ml * 1000.0 * 6 * math.sqrt(2)) ** (1 / 3)
        leaf = (EDGES_LONG * edge, edge / EDGE_OF_WIDTH / (1 + BARE * (leaves - 1)))
    filling = number_of(facts, "shape.filling_g") / _RAW_G_PER_ML
    grain = number_of(facts, "shape.base_g") / _RAW_G_PER_ML
    fills: list[tuple[hand_moves.Kind, float]] = [("grain", grain / 2), ("filling", filling), ("grain", grain / 2)]
    if filling <= 0:
        fills = [("grain", grain)]
    return hand_moves.cone(leaf[0], leaf[1], leaves, BARE, edge, fills, LeafParcel(edge).string_mm)


def _wrap(sheet: Sheet, worked: WorkResult) -> Sequence[hand_moves.HandFrame]:
    """A flat packet in foil, or a skin drawn over a ball."""
    facts = worked.facts
    side, thick = number_of(facts, "shape.side_mm"), number_of(facts, "shape.thick_mm")
    if side and thick and number_of(facts, "shape.foil_mm"):
        return hand_moves.packet(
            side, thick, number_of(facts, "shape.foil_mm"), number_of(facts, "shape.foil_across_mm")
        )
    return _draw_skin_over(sheet, worked)


def _draw_skin_over(sheet: Sheet, worked: WorkResult) -> Sequence[hand_moves.HandFrame]:
    drawing, disc = worked.drawings.shape, number_of(worked.facts, "shape.disc_mm")
    if not isinstance(drawing, BallDrawing) or not disc or drawing.core_mm <= 0:
        return []
    what, within = drawing.dough_name, drawing.filling_word
    if drawing.outside:
        what, within = within, what
    return hand_moves.draw_skin_over(disc, drawing.core_mm, drawing.outer_mm, say("the {part}", part=what), within)


def _rope(sheet: Sheet, worked: WorkResult) -> Sequence[hand_moves.HandFrame]:
    across, every = number_of(worked.facts, "shape.rope_mm"), number_of(worked.facts, "shape.rope_cut_mm")
    pieces = round(number_of(worked.facts, "shape.pieces"))
    return hand_moves.rope(across, every, pieces) if across and every and pieces else []


def _turn_out(sheet: Sheet, worked: WorkResult) -> Sequence[hand_moves.HandFrame]:
    drawing = worked.drawings.shape
    if not isinstance(drawing, TinDrawing) or drawing.bag:
        return []
    tin = drawing.tin
    wide = tin.diameter_mm if tin.shape == "round" else tin.length_mm
    lined = sheet.vessel.lining != "none"
    return hand_moves.turned_out(float(wide or 0.0), tin.height_mm, drawing.depth_mm, lined=lined)


_MOVES: Mapping[str, Callable[[Sheet, WorkResult], Sequence[hand_moves.HandFrame]]] = {
    "fold": _cone,
    "wrap": _wrap,
    "close": _draw_skin_over,
    "cut-rounds": _draw_skin_over,
    "divide": _rope,
    "portion": _rope,
    "snip": _rope,
    "cut": _turn_out,
}
