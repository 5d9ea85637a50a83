"""work(): a sheet and a kitchen in; facts, drawings, advice, cautions and steps out. Pure."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from pydantic import BaseModel, ConfigDict, Field

from kemble.core.cards.cautions import Caution
from kemble.core.computing_guard import computes
from kemble.core.facts.fact import Fact
from kemble.core.facts.problems import Problem, Refused
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.kitchen.document import Kitchen
from kemble.core.kitchen.shelf import Shelf
from kemble.core.physics.time_spread import Spread
from kemble.core.sentences import Words, say
from kemble.core.sheet.bowl import weigh
from kemble.core.sheet.document import Sheet
from kemble.core.stations.calculation import Advice, Calculation, StandsIn
from kemble.core.stations.cautions import allergens, cautions
from kemble.core.stations.cut.cut import CutDrawing, cut
from kemble.core.stations.cut.rest import Cooling, rest
from kemble.core.stations.finished_cake import enter_whole_pieces, enter_whole_tray
from kemble.core.stations.given_times import GivenTimeComparison, compare_given_times
from kemble.core.stations.heat.core_curve import CoreCurve, core_curve
from kemble.core.stations.heat.doneness_checks import DonenessCheck, checks
from kemble.core.stations.heat.finishes import finishing
from kemble.core.stations.heat.heat import NOT_HEATED, HeatDrawing, heat
from kemble.core.stations.heat.heat_stages import HeatStageResult, minutes_after_open_stage
from kemble.core.stations.heat.other_times import enter_other_times
from kemble.core.stations.method_steps import MethodResult
from kemble.core.stations.mix.grain import GrainResult
from kemble.core.stations.mix.line_results import LineResult
from kemble.core.stations.mix.mix import MixDrawing, advise_limits, mix
from kemble.core.stations.mix.part_yields import PartResult
from kemble.core.stations.shape.pieces import BallDrawing
from kemble.core.stations.shape.shape import TinDrawing, shape
from kemble.core.stations.steps import StepResult, steps_of
from kemble.core.stations.time_windows import Sensitivity, heat_sensitivities

SUM_OF_STEPS = "sum over the steps"


class Drawings(BaseModel):
    """Geometry for the screens, and nothing else; a station that could not be worked out has none."""

    model_config = ConfigDict(frozen=True)

    mix: MixDrawing | None = None
    shape: BallDrawing | TinDrawing | None = Field(None, discriminator="kind")
    heat: HeatDrawing | None = Field(None, discriminator="kind")
    cut: CutDrawing | None = None


class WorkResult(BaseModel):
    """The whole answer. `problems` is empty when every station could be worked out."""

    model_config = ConfigDict(frozen=True)

    facts: dict[str, Fact]
    advice: list[Advice]
    cautions: list[Caution]
    allergens: list[Words]
    steps: list[StepResult]
    drawings: Drawings
    problems: list[Problem]
    checks: list[DonenessCheck] = []
    lines: list[LineResult] = []  # the weighed lines
    parts: list[PartResult] = []
    grain: GrainResult | None = None
    core: CoreCurve | None = None
    hangs: list[Sensitivity] = []  # what the window of the heat hangs on, the most first
    given_times: list[GivenTimeComparison] = []  # times that somebody gave, beside ours
    method: MethodResult = MethodResult()
    stages: list[HeatStageResult] = []  # of heats in several stages, in order
    cooling: Cooling | None = None
    stands_in: StandsIn | None = None


@computes
def work(sheet: Sheet, kitchen: Kitchen, weighed: Mapping[str, float] | None = None) -> WorkResult:
    """Work a sheet through Mix, Shape, Heat, Rest and Cut.

    `weighed` are facts that a scale has shown in the making (run/actual_batch.py), in grams: they stand in place of what would
    be worked out, and all that follows goes by them.

    What cannot be worked out (a line that cannot be weighed here, a tin smaller than its batter) stands in `problems`,
    and the facts before it are there. A fault of ours raises as it is.
    """
    return _work(sheet, kitchen, weighed or {})[0]


@computes
def work_with_spreads(sheet: Sheet, kitchen: Kitchen) -> tuple[WorkResult, dict[str, Spread]]:
    """work(), and with it what every time and amount that is told with a range hangs on, by its key."""
    return _work(sheet, kitchen, {})


def _work(sheet: Sheet, kitchen: Kitchen, weighed: Mapping[str, float]) -> tuple[WorkResult, dict[str, Spread]]:
    """The stations in working order, each reading the facts before it, and what each hands on put together."""
    shelf = Shelf(kitchen)
    try:
        bowl = weigh(sheet, shelf, weighed)
    except Refused as refused:
        return result_without_facts(refused.problems), {}
    calculation = Calculation(sheet, kitchen, shelf, bowl, weighed)
    mixed = mix(calculation)
    if sheet.in_tray:
        enter_whole_tray(calculation, mixed.cooked)
    shaped = shape(calculation, mixed)
    form = shaped.drawing if shaped.drawing and shaped.drawing.is_possible else None
    if form and not sheet.in_tray:
        enter_whole_pieces(calculation, mixed.cooked)
    heated = heat(calculation, mixed.heated, mixed.shaped, shaped.filling, form) if form else NOT_HEATED
    cooling, cut_drawing = None, None
    if form and heated.own:
        cooling = rest(calculation, mixed.shaped, shaped.filling, form)
        if isinstance(form, TinDrawing):
            cut_drawing = cut(calculation, mixed, form)
        finishing(calculation, mixed.shaped)
        enter_other_times(calculation, heated.stands_in)
    advise_limits(calculation)
    steps, method = (
        ([], MethodResult()) if calculation.problems else steps_of(calculation, heated.stages, mixed.amounts)
    )
    looks = checks(calculation.fact_book)
    times = list(compare_given_times(calculation, steps))
    core = (
        core_curve(heated.own.curve, calculation.fact_book, minutes_after_open_stage(heated.stages))
        if heated.own
        else None
    )
    _enter_hands(calculation, steps)
    brought = [shelf.items[item.ingredient] for step in steps for item in step.brings]
    result = unchecked_model(
        WorkResult,
        facts=calculation.fact_book.facts,
        advice=sorted(calculation.advice, key=lambda advice: advice.rank),
        cautions=cautions(bowl, calculation.way, (caution for step in steps for caution in step.cautions), brought),
        allergens=allergens(bowl, brought),
        steps=steps,
        drawings=unchecked_model(
            Drawings,
            mix=mixed.drawing,
            shape=shaped.drawing,
            heat=heated.own.drawing if heated.own else None,
            cut=cut_drawing,
        ),
        problems=calculation.problems,
        checks=looks,
        lines=list(mixed.lines),
        parts=list(mixed.parts),
        grain=mixed.grain,
        core=core,
        stages=list(heated.stages),
        hangs=heat_sensitivities(calculation),
        given_times=times,
        method=method,
        cooling=cooling,
        stands_in=heated.stands_in,
    )
    return result, calculation.spreads


def _enter_hands(calculation: Calculation, steps: Sequence[StepResult]) -> None:
    """How long the steps keep a cook's hands, and how long they are to be looked at."""
    for hands, says in (
        ("held", say("every step that leaves no hand free")),
        ("minded", say("every step to be looked at")),
    ):
        minutes = sum((step.minutes for step in steps if step.hands == hands), 0.0)
        calculation.fact_book.add(f"work.{hands}_min", minutes, says, source=SUM_OF_STEPS)


def result_without_facts(problems: list[Problem]) -> WorkResult:
    """The answer where nothing can be worked out, such as while a line cannot be weighed."""
    return unchecked_model(
        WorkResult, facts={}, advice=[], cautions=[], allergens=[], steps=[], drawings=Drawings(), problems=problems
    )
