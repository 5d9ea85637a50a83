"""The cards of ways and of parts, as the screens choose from them."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from django.http import HttpRequest
from ninja import Router
from pydantic import BaseModel, field_validator

from kemble.core.cards.common_steps import COMMON_STEPS
from kemble.core.cards.faults import faults_of
from kemble.core.cards.parts import FAMILIES
from kemble.core.cards.taste_scales import SCALES, TasteId
from kemble.core.cards.way import Way
from kemble.core.cards.ways import WAYS
from kemble.core.change.school_comparison import SchoolQuestion, questions
from kemble.core.facts.vocabulary import PartRole
from kemble.core.sentences import Words
from kemble.core.sheet.parts import Line
from kemble.core.stations.traits import joined

router = Router(tags=["cards"])


class SchoolCard(BaseModel):
    id: str
    label: Words
    buys: Words


class ChoiceCondition(BaseModel):
    """The school of another choice under which one is open."""

    choice: str
    school: str


class ChoiceCard(BaseModel):
    id: str
    station: str
    title: Words
    default: str
    schools: list[SchoolCard]
    under: ChoiceCondition | None = None
    default_for: dict[str, str] = {}

    @field_validator("under", mode="before")
    @classmethod
    def _named(cls, value: Any) -> Any:
        """As a card's data has it, a pair."""
        return {"choice": value[0], "school": value[1]} if isinstance(value, tuple) else value


class TasteCard(BaseModel):
    id: str
    too_little: Words
    too_much: Words
    asked: bool  # of everybody; else only of whoever has more to say


class CommonStepCard(BaseModel):
    """A step that many cooks do, to be put into a method: after the last of `comes_after` that it has."""

    id: str
    title: Words
    words: Words
    minutes: float
    in_vessel: bool
    comes_after: list[str]


class FaultCard(BaseModel):
    id: str
    seen: Words
    cause: Words
    now: Words
    next_time: Words
    of: list[PartRole] = []  # shows only in what has one of these parts


class MapPoint(BaseModel):
    """A place on the map of water and sugar, in per cent of flour."""

    hydration_pct: float
    sugar_pct: float


class MapDirection(MapPoint):
    """What lies in one direction of the map."""

    says: Words


class StepName(BaseModel):
    """A step of a way, as what joins at it names it; `heats`: it may be taken in stages."""

    id: str
    title: Words
    heats: bool


class OutputName(BaseModel):
    """One of the things that a part makes."""

    id: str
    name: Words


class WayCard(BaseModel):
    """A way as the screens need it. `zone` is the outline of its working zone on the map.

    `parts` are the roles it usually has beside its base; `words` what it calls its dough, filling and piece. `scalds`
    and `batters` are by choice and school ("dough scald"): the share of water poured on boiling, and the °C at which a
    batter goes into its heat.
    """

    id: str
    name: Words
    says: Words
    kin: list[str]
    said: list[str]
    form: str
    base: str
    soaks: bool
    batter_c: float
    leaves_each: int
    scalds: dict[str, float]
    batters: dict[str, float]
    parts: list[str]
    words: dict[str, Words]
    zone: list[MapPoint]
    zone_words: list[MapDirection]
    choices: list[ChoiceCard]
    steps: list[StepName]
    questions: list[SchoolQuestion]
    tastes: list[TasteCard]
    faults: list[FaultCard]


class FamilyCard(BaseModel):
    """A part as it can be added to a sheet."""

    id: str
    name: Words
    says: Words
    roles: list[PartRole]
    finish: str
    outputs: list[OutputName]
    choices: list[ChoiceCard]
    lines: list[Line]


def _taste(way: Way, taste: TasteId) -> dict[str, Any]:
    scale = SCALES[taste]
    ends = {"too_little": scale.too_little, "too_much": scale.too_much}
    return {"id": taste, **ends, "asked": taste in way.tastes}


@router.get("/ways", response={200: list[WayCard]})
def ways(request: HttpRequest) -> list[WayCard]:
    return [
        WayCard.model_validate(
            {
                "id": way.id,
                "name": way.name,
                "says": way.says,
                "kin": list(way.kin),
                "said": list(way.said),
                "form": way.form,
                "base": way.base,
                "soaks": way.base == "grain",
                "batter_c": way.batter_c,
                "leaves_each": way.leaves_each,
                "scalds": {f"{choice} {school}": share for choice, school, share in way.scalds},
                "batters": {f"{choice} {school}": celsius for choice, school, celsius in way.batter_by},
                "parts": list(way.parts),
                "words": dict(way.words),
                "zone": [{"hydration_pct": x, "sugar_pct": y} for x, y in way.zone],
                "zone_words": [{"hydration_pct": x, "sugar_pct": y, "says": says} for x, y, says in way.zone_words],
                "choices": [asdict(choice) for choice in way.choices],
                "steps": [{"id": step.id, "title": step.title, "heats": step.window is not None} for step in way.steps],
                "questions": [question.model_dump() for question in questions(way)],
                "tastes": [_taste(way, taste) for taste in way.scales],
                "faults": [asdict(fault) for fault in faults_of(way)],
            }
        )
        for way in WAYS.values()
    ]


@router.get("/common-steps", response={200: list[CommonStepCard]})
def common_steps(request: HttpRequest) -> list[CommonStepCard]:
    """Every step that can be put into a method where its cook does it."""
    return [
        CommonStepCard.model_validate({**asdict(step), "words": joined(step.words)}) for step in COMMON_STEPS.values()
    ]


@router.get("/parts", response={200: list[FamilyCard]})
def families(request: HttpRequest) -> list[FamilyCard]:
    """Every kind of part that can be made beside a base."""
    return [
        FamilyCard.model_validate(
            {
                "id": family.id,
                "name": family.name,
                "says": family.says,
                "roles": list(family.roles),
                "finish": family.finish.says,
                "outputs": [{"id": output.id, "name": output.name} for output in family.outputs],
                "choices": [asdict(choice) for choice in family.choices],
                "lines": list(family.lines),
            }
        )
        for family in FAMILIES.values()
    ]
