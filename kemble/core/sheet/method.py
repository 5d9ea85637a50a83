"""The cook's own method: what this sheet's steps have otherwise than its cards say, and the steps that only this cook does.

The sheet keeps only what differs. An entry for a step that the sheet's choices do not have waits until they have it.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Annotated, Any, Literal

from pydantic import Discriminator, Field, StringConstraints, Tag, field_validator, model_validator
from pydantic_core import PydanticCustomError

from kemble.core.cards.card_parts import Hands
from kemble.core.cards.common_steps import COMMON_STEPS
from kemble.core.sheet.parts import SheetModel

MOST_ENTRIES = 80
MOST_MINUTES = 6000.0
OWN_MIN = 5.0  # of a step of the cook's own that no minutes were given for; kitchen estimate
# Besides the ids of cards: the way's own heat, its rest and its soak, whichever step that is under the sheet's choices.
HEAT, REST, SOAK = "heat", "rest", "soak"
# Those of them that are told by the fact of their minutes.
NAMES_BY_FACT: Mapping[str, str] = {"rest.cut_after_min": REST, "grain.soak_min": SOAK}

# A step of a card, of a part ("filling-grind"), of a stage ("bake-2"), or the cook's own.
StepName = Annotated[str, StringConstraints(pattern=r"^[a-z][a-z0-9-]*$", max_length=60)]
OwnName = Annotated[str, StringConstraints(pattern=r"^own-[a-z0-9-]*[a-z]$", max_length=40)]
Minutes = Annotated[float, Field(gt=0, le=MOST_MINUTES, allow_inf_nan=False)]
Per = Literal["piece", "load"]
OwnHands = Literal["both", "eye", "none"]
# What a step asks of its cook, as cards and plans call it.
OWN_HANDS: Mapping[OwnHands, Hands] = {"both": "held", "eye": "minded", "none": "free"}
OwnPlace = Literal["counter", "burner", "oven", "fridge", "freezer"]

_MINUTES = "above 0, at most 6000 minutes"
_STEP = "the id of a step, such as rest-batter"


class MethodStage(SheetModel):
    """One clock of a step that has several. Without minutes it has what the others leave of the step."""

    minutes: Minutes | None = Field(None, description=_MINUTES)
    power_pct: int | None = Field(None, ge=5, le=100, description="5 to 100 per cent of a microwave oven's power")
    note: str = Field("", max_length=200, description="at most 200 letters: what to do, or to look for")


class StepChange(SheetModel):
    """What one step has otherwise: its minutes and who gave them, its place, its words, clocks of its own, or that it is left
    out. `ours_min`: what Kemble's own time was when these minutes were given."""

    step: StepName = Field(description=_STEP)
    minutes: Minutes | None = Field(None, description=_MINUTES)
    per: Per | None = Field(None, description="piece or load; left out, the minutes are for all of them")
    by: str = Field("", max_length=60, description="a few words: who says so")
    ours_min: Minutes | None = Field(None, description=_MINUTES)
    use: Literal["ours", "given"] | None = Field(None, description="ours or given")
    skip: bool = False
    after: StepName | Literal[""] = Field("", description=_STEP)
    words: str = Field("", max_length=2000, description="at most 2000 letters")
    stages: tuple[MethodStage, ...] = Field((), max_length=6, description="at most 6 stages")

    @field_validator("stages")
    @classmethod
    def _one_open_stage(cls, value: tuple[MethodStage, ...]) -> tuple[MethodStage, ...]:
        if len(value) == 1 or sum(stage.minutes is None for stage in value) > 1:
            raise PydanticCustomError(
                "kemble_stages",
                "are not clocks of one step",
                {"accepts": "two to six stages, with minutes for every stage but one"},
            )
        return value

    @property
    def uses_given(self) -> bool:
        """Whether the given minutes are the ones that clocks and plans go by."""
        return self.minutes is not None and self.use != "ours"


class OwnStep(SheetModel):
    """A step of the cook's own, or a common one put where this cook does it. `at`: the vessel it stands in; left out, that of
    the step it comes after; "", none. `before`: the step that waits for it."""

    own: OwnName = Field(description="own- and letters, such as own-wipe-rim; no number at its end")
    common: str = Field("", max_length=40, description="a common step")
    title: str = Field("", max_length=80, description="1 to 80 letters")
    words: str = Field("", max_length=2000, description="at most 2000 letters")
    minutes: Minutes | None = Field(None, description=_MINUTES)
    per: Literal["piece"] | None = Field(None, description="piece; left out, the minutes are for all of them")
    hands: OwnHands | None = Field(None, description="both, eye or none")
    after: StepName | Literal[""] = Field("", description=_STEP)
    before: StepName | Literal[""] = Field("", description=_STEP)
    at: str | None = Field(None, max_length=40, description="a vessel, in at most 40 letters")
    on: OwnPlace | None = Field(None, description="counter, burner, oven, fridge or freezer")

    @model_validator(mode="after")
    def _has_a_title(self) -> OwnStep:
        if self.common and self.common not in COMMON_STEPS:
            raise PydanticCustomError(
                "kemble_common",
                '"{common}" is no common step',
                {"path": "common", "common": self.common, "accepts": ", ".join(COMMON_STEPS)},
            )
        if not self.title.strip() and not self.common:
            raise PydanticCustomError("kemble_own", "has no title", {"path": "title", "accepts": "1 to 80 letters"})
        return self


class MethodText(SheetModel):
    """A sentence of the cook's recipe that is no step."""

    text: str = Field(min_length=1, max_length=2000, description="1 to 2000 letters")
    after: StepName | Literal[""] = Field("", description=_STEP)


def kind_of_entry(value: Any) -> str:
    """Which kind of entry a document is meant to be: told by its key."""
    keys = value if isinstance(value, Mapping) else getattr(type(value), "model_fields", ())
    return next((f"entry-{key}" for key in ("own", "text") if key in keys), "entry-step")


Entry = StepChange | OwnStep | MethodText
MethodEntry = Annotated[
    Annotated[StepChange, Tag("entry-step")]
    | Annotated[OwnStep, Tag("entry-own")]
    | Annotated[MethodText, Tag("entry-text")],
    Discriminator(kind_of_entry),
]
Method = tuple[MethodEntry, ...]


def check_method(entries: Sequence[Entry]) -> None:
    """Raises PydanticCustomError, with a path, for a step that has two entries."""
    seen: set[str] = set()
    for i, entry in enumerate(entries):
        if isinstance(entry, MethodText):
            continue
        name, field = (entry.step, "step") if isinstance(entry, StepChange) else (entry.own, "own")
        if name in seen:
            raise PydanticCustomError(
                "kemble_method",
                '"{name}" has two entries',
                {"path": f"method.{i}.{field}", "name": name, "accepts": "one entry for each step"},
            )
        seen.add(name)


def change_of(entries: Sequence[Entry], step: str) -> StepChange | None:
    """The entry for a step by its id, or by one of the names that follow the choices."""
    return next((entry for entry in entries if isinstance(entry, StepChange) and entry.step == step), None)


def own_steps_in(entries: Sequence[Entry]) -> list[OwnStep]:
    return [entry for entry in entries if isinstance(entry, OwnStep)]


def stages_in(entries: Sequence[Entry]) -> dict[str, int]:
    """By step, how many stages the method gives it."""
    return {entry.step: len(entry.stages) for entry in entries if isinstance(entry, StepChange) and entry.stages}
