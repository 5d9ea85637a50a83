"""What the API gives out, beside the core's own types."""

from __future__ import annotations

from datetime import datetime

from pydantic import BaseModel

from kemble.core.cards.cautions import Caution
from kemble.core.change.sides import Question
from kemble.core.facts.fact import Fact, Moved
from kemble.core.facts.quantity import TemperatureUnit
from kemble.core.facts.vocabulary import PartRole
from kemble.core.kitchen.document import Kitchen
from kemble.core.kitchen.larder import Ingredient
from kemble.core.log.taste import Compared, LikelyFault, Verdict
from kemble.core.plan.schedule import Plan
from kemble.core.run.run import Event, Heart, Note, RunState
from kemble.core.run.weighing import BenchSetup, BenchState, Eye
from kemble.core.sheet.document import Line, Sheet
from kemble.core.stations.chain import Worked
from kemble.server.devices.ears import ProbeLive, ScaleLive


class Session(BaseModel):
    """Who is asking. `has_password`: other browsers can come in with one."""

    signed_in: bool
    name: str
    has_password: bool


class KitchenOpen(BaseModel):
    kitchen: Kitchen
    set_up: bool
    revision: int


class SchoolCard(BaseModel):
    id: str
    label: str
    buys: str


class ChoiceCard(BaseModel):
    id: str
    station: str
    title: str
    default: str
    schools: list[SchoolCard]


class TasteCard(BaseModel):
    id: str
    too_little: str
    too_much: str


class FaultCard(BaseModel):
    id: str
    seen: str
    cause: str
    now: str
    next_time: str


class MapPoint(BaseModel):
    """A place on the map of water and sugar, in per cent of flour."""

    hydration_pct: float
    sugar_pct: float


class ZoneWord(MapPoint):
    """What lies in one direction of the map."""

    says: str


class WayCard(BaseModel):
    """A way as the screens need it. `zone` is the outline of its working zone on the map.

    `parts` are the roles it usually has beside its base; `words` what it calls its dough, filling and piece.
    """

    id: str
    name: str
    says: str
    kin: list[str]
    form: str
    base: str
    soaks: bool
    batter_c: float
    parts: list[str]
    words: dict[str, str]
    zone: list[MapPoint]
    zone_words: list[ZoneWord]
    choices: list[ChoiceCard]
    questions: list[Question]
    tastes: list[TasteCard]
    faults: list[FaultCard]


class IngredientCard(Ingredient):
    """An ingredient as this kitchen has it. `own`: the cook's own, or the cook's own figures for one of the larder."""

    own: bool
    figures: str


class ExchangeCard(BaseModel):
    """What can stand in for an ingredient; `to` is empty for leaving it out."""

    to: str
    label: str
    says: str


class FamilyCard(BaseModel):
    """A part as it can be added to a sheet."""

    id: str
    name: str
    says: str
    roles: list[PartRole]
    finish: str
    choices: list[ChoiceCard]
    lines: list[Line]


class SheetCard(BaseModel):
    """A sheet in a list. `problem`: why it cannot be worked out; then some of its numbers may be missing."""

    id: int
    title: str
    way: str
    changed: datetime
    numbers: list[str]
    problem: str


class SheetPage(BaseModel):
    """Some sheets of all that were sought, the newest first. Pages count from 1."""

    sheets: list[SheetCard]
    page: int
    pages: int
    total: int


class Dot(BaseModel):
    """An earlier batch on the map."""

    id: int
    title: str
    hydration_pct: float
    sugar_pct: float
    verdict: Verdict
    made: datetime


class SheetOpen(BaseModel):
    id: int
    revision: int
    changed: datetime
    sheet: Sheet
    worked: Worked
    dots: list[Dot]


class Rippled(BaseModel):
    """A sheet worked, and what moved since the one before."""

    sheet: Sheet
    worked: Worked
    moved: list[Moved]
    says: list[str]


class OccasionOpen(BaseModel):
    id: int
    sheet: int
    sheet_title: str
    way: str
    title: str
    people: int | None
    serve: datetime
    plan: Plan


class RunCard(BaseModel):
    """`state` is as it stood when the clock on the wall showed `wall`."""

    id: int
    title: str
    way: str
    rehearsed: bool
    wall: datetime
    state: RunState


class RunOpen(BaseModel):
    """`now` is on the run's own clock, which goes `pace` times as fast as the one on the wall: it showed `clock_began`
    when that one showed `began`, and shows `now` when that one shows `wall`.

    `state` is `events` folded over `plan`, looked at now; a page without the network folds on by itself.
    """

    id: int
    sheet: int | None
    title: str
    way: str
    pace: int
    began: datetime
    clock_began: datetime
    wall: datetime
    now: datetime
    events: list[Event]
    unit: TemperatureUnit
    plan: Plan
    state: RunState
    heart: Heart | None
    facts: dict[str, Fact]
    cautions: list[Caution]
    batch: int | None


class BatchCard(BaseModel):
    id: int
    run: int
    title: str
    way: str
    made: datetime
    rehearsed: bool
    verdict: Verdict
    tastes: dict[str, int]
    hydration_pct: float
    sugar_pct: float
    note: str


class LogWay(BaseModel):
    """How many batches of a way are in the log, and how many of them came out just right."""

    way: str
    batches: int
    right: int


class LogPage(BaseModel):
    """Some batches of one way, the newest first, and the newest of them as dots on its map. Pages count from 1."""

    ways: list[LogWay]
    way: str | None
    batches: list[BatchCard]
    dots: list[Dot]
    page: int
    pages: int
    total: int


class Dropped(BaseModel):
    """Something thrown away that can be brought back `until` then. `kind`: sheet, plan, run, batch, ingredient, tin."""

    kind: str
    id: int
    title: str
    dropped: datetime
    until: datetime


class BatchOpen(BatchCard):
    sheet: int | None
    pieces: str
    compared: list[Compared]
    faults: list[LikelyFault]
    notes: list[Note]
    facts: dict[str, Fact]


class BenchCard(BaseModel):
    """A mass shared out on the scale."""

    id: int
    began: datetime
    setup: BenchSetup
    state: BenchState


class BenchOpen(BenchCard):
    sheet: int | None


class EyeDay(BaseModel):
    """How the eye did on one day, such as 2026-12-05."""

    day: str
    eye: Eye


class ScaleCard(BaseModel):
    """The kitchen's scale and what it last showed. `simulated`: it ships with Kemble, its tray loaded from the page."""

    simulated: bool
    live: ScaleLive


class ProbeCard(BaseModel):
    """The kitchen's thermometer and what it last showed. `simulated`: it ships with Kemble."""

    simulated: bool
    live: ProbeLive


class BurnerTold(BaseModel):
    """What a kettle test says of a burner."""

    net_w: float
    says: str
