"""The same sheet calculated under each school of a question, with the facts side by side.

Nothing is decided here: each side is worked out in full, and what differs between them is shown.
"""

from __future__ import annotations

from dataclasses import dataclass

from pydantic import BaseModel, ConfigDict

from kemble.core.cards.way import Choice, Way
from kemble.core.cards.ways import WAYS
from kemble.core.computing_guard import computes
from kemble.core.facts.fact import Fact, number_of
from kemble.core.facts.problems import Problem, refuse
from kemble.core.kitchen.document import Kitchen
from kemble.core.sentences import Words, say
from kemble.core.sheet.document import Sheet
from kemble.core.sheet.soaks import SOAKS, soaked
from kemble.core.stations.work_sheet import work

# What is worth comparing, most telling first. A row is shown when it differs, or exists on one side only.
COMPARED = (
    "heat.float_min",
    "heat.core_hot_min",
    "heat.heart_done_c",
    "grain.uptake_pct",
    "grain.cook_water_g",
    "heat.needs_min",
    "grain.cook_min",
    "heat.lost_g",
    "heat.dried_pct",
    "heat.water_ml",
    "heat.top_up_at_min",
    "heat.water_loss_g_per_min",
    "heat.top_looks",
    "heat.top_sets_min",
    "heat.power_w",
    "mix.cooked_g",
    "shape.skin_mm",
    "shape.least_skin_mm",
    "shape.trimmings_g",
    "rest.shaping_min",
    "rest.chill_min",
    "heat.pound_min",
    "heat.pound_hot_min",
    "rest.handle_from_min",
    "rest.handle_until_min",
    "rest.freeze_filling_min",
    "rest.cut_after_min",
    "rest.cut_at_c",
    "finish.all_min",
    "keep.hard_after_h",
    "work.held_min",
    "work.minded_min",
)
MOST_ROWS = 8


class SchoolComparison(BaseModel):
    """One school: its words, its window in minutes, and what it shows in each row (empty where it has nothing)."""

    model_config = ConfigDict(frozen=True)

    id: str
    label: Words
    buys: Words
    followed: bool
    first: float | None
    done: float | None
    latest: float | None
    shown: tuple[str, ...]
    says: tuple[Words, ...]
    problems: tuple[Problem, ...]


class SchoolsCompared(BaseModel):
    """A question on which cooks differ, its schools, and the rows in which they do."""

    model_config = ConfigDict(frozen=True)

    id: str
    title: str
    rows: tuple[str, ...]
    units: tuple[str, ...]
    sides: tuple[SchoolComparison, ...]


class SchoolQuestion(BaseModel):
    """A question that a way has two sides to."""

    model_config = ConfigDict(frozen=True)

    id: str
    title: Words
    station: str


@dataclass(frozen=True, slots=True)
class _ComparedSchool:
    id: str
    label: str
    buys: str
    followed: bool
    sheet: Sheet


def questions(way: Way) -> list[SchoolQuestion]:
    """Everything on which the cooks of a way differ."""
    school_questions = [
        SchoolQuestion(id=choice.id, title=choice.title, station=choice.station) for choice in way.choices
    ]
    if way.base == "grain":
        school_questions.insert(0, SchoolQuestion(id="soak", title=say("The grain is soaked"), station="mix"))
    return school_questions


@computes
def compare_schools(sheet: Sheet, kitchen: Kitchen, question: str) -> SchoolsCompared:
    """Work the sheet under every school of a question. Raises Refused for a question that the way does not have."""
    way = WAYS[sheet.way]
    asked = {school_question.id: school_question for school_question in questions(way)}
    if question not in asked:
        refuse("question", say('"{question}" is not asked here', question=question), ", ".join(asked))
    choice = way.choice(question)  # the soak is a question, and no choice of the card
    schools = _schools_to_compare(sheet, choice) if choice else _soaked(sheet)
    worked = [work(school.sheet, kitchen) for school in schools]
    facts = [result.facts for result in worked]
    rows = [key for key in COMPARED if _differs(key, facts)][:MOST_ROWS]
    known = {key: next(facts_by_name[key] for facts_by_name in facts if key in facts_by_name) for key in rows}
    return SchoolsCompared(
        id=question,
        title=asked[question].title,
        rows=tuple(known[key].label for key in rows),
        units=tuple(known[key].unit for key in rows),
        sides=tuple(
            SchoolComparison(
                id=school.id,
                label=school.label,
                buys=school.buys,
                followed=school.followed,
                first=number_of(facts_by_name, "heat.first_check_min")
                if "heat.first_check_min" in facts_by_name
                else None,
                done=_number_or_none(facts_by_name, "heat.done_min"),
                latest=_number_or_none(facts_by_name, "heat.latest_min"),
                shown=tuple(facts_by_name[key].shown if key in facts_by_name else "" for key in rows),
                says=tuple(advice.says for advice in full.advice if advice.kind == "look" and advice.rank <= 1),
                problems=tuple(full.problems),
            )
            for school, facts_by_name, full in zip(schools, facts, worked, strict=True)
        ),
    )


def _schools_to_compare(sheet: Sheet, choice: Choice) -> list[_ComparedSchool]:
    now = sheet.school(choice.id)
    return [
        _ComparedSchool(
            school.id,
            school.label,
            school.buys,
            school.id == now,
            sheet.model_copy(update={"schools": {**sheet.schools, choice.id: school.id}}),
        )
        for school in choice.schools
    ]


def _soaked(sheet: Sheet) -> list[_ComparedSchool]:
    """Soaked not at all, an hour, overnight in the cold; and as on the sheet, when that is none of them."""
    now = sheet.grain
    schools = [
        _ComparedSchool(side, label, buys, minutes == now.soak_min, soaked(sheet, side))
        for side, minutes, label, buys in SOAKS
    ]
    if not any(school.followed for school in schools):
        words = (
            f"{now.soak_min / 60:.1f} h".replace(".0 h", " h")
            if now.soak_min >= 60
            else say("{soak_min:.0f} min", soak_min=now.soak_min)
        )
        schools.append(_ComparedSchool("now", say("{words}, as on the sheet", words=words), "", True, sheet))
    return schools


def _differs(key: str, facts: list[dict[str, Fact]]) -> bool:
    """Whether a reader would see a difference."""
    seen = {facts_by_name[key].shown if key in facts_by_name else None for facts_by_name in facts}
    return len(seen) > 1


def _number_or_none(facts: dict[str, Fact], key: str) -> float | None:
    return number_of(facts, key) if key in facts else None
