"""What the API takes in. The name of each body parameter is its key here, so that an error finds its field."""

from __future__ import annotations

from datetime import datetime
from typing import Any, Literal

from pydantic import BaseModel, ConfigDict, Field

from kemble.core.change.adjust import Adjustment
from kemble.core.facts.vocabulary import PartRole
from kemble.core.kitchen.document import Kitchen
from kemble.core.run.run import EventKind
from kemble.core.run.weighing import BenchSetup, MarkKind
from kemble.core.sheet.document import Sheet


class _Body(BaseModel):
    model_config = ConfigDict(extra="forbid")


class _Write(_Body):
    """A change. With a `uid` it may be sent again by whoever is unsure of the answer, and is answered as the first time."""

    uid: str | None = Field(None, min_length=8, max_length=64, description="8 to 64 letters or figures, new for each")


MOST_NUMBER = 2**53 - 1  # beyond it a browser's numbers are no longer whole


def _number(of: str) -> Any:
    """A field for the number of something kept."""
    return Field(ge=1, le=MOST_NUMBER, description=f"the number of {of}")


class UseKey(_Body):
    key: str = Field(min_length=8, max_length=100, description="the key that the start command printed")


class SignIn(_Body):
    username: str = Field(min_length=1, max_length=150, description="your name")
    password: str = Field(min_length=1, max_length=200, description="your password")


class NewPassword(_Body):
    password: str = Field(min_length=10, max_length=200, description="at least 10 letters or figures")


class NewSheet(_Write):
    """From a way's own starting sheet (or, `blank`, from its flour or grain alone), or from a whole sheet (a copy)."""

    way: str | None = Field(None, max_length=40, description="a way")
    blank: bool = False
    sheet: Sheet | None = None


class SaveSheet(_Write):
    revision: int = Field(ge=1, le=MOST_NUMBER, description="the revision that was edited")
    sheet: Sheet


class WorkSheet(_Body):
    """A sheet to work, and optionally the one before it, to say what moved."""

    sheet: Sheet
    before: Sheet | None = None


class AdjustSheet(_Body):
    """What moved is told against `before`, or against the sheet itself."""

    sheet: Sheet
    to: Adjustment
    before: Sheet | None = None


class PastedList(_Body):
    text: str = Field(max_length=20_000, description="a list of ingredients, one a line")


class Wanted(_Body):
    sheet: int = _number("a sheet")
    times: int = Field(1, ge=1, le=20, description="a whole number from 1 to 20")


class GoShopping(_Body):
    wanted: list[Wanted] = Field(max_length=30, description="at most 30 sheets")


class SharePart(_Write):
    """A part of the sheet, and the sheet it is made for too."""

    role: PartRole = Field(description="a part of the sheet")
    with_sheet: int = _number("another sheet")


class PlanSheet(_Body):
    sheet: Sheet
    serve: str = Field(max_length=16, description="a date and time on the kitchen's clock, such as 2026-12-05T15:30")


class NewOccasion(_Write):
    sheet: int = _number("a sheet")
    serve: str = Field(max_length=16, description="a date and time on the kitchen's clock, such as 2026-12-05T15:30")
    title: str = Field("", max_length=120, description="at most 120 letters")
    people: int | None = Field(None, ge=1, le=1000, description="a whole number from 1 to 1000")


class NewRun(_Write):
    sheet: int | None = Field(None, ge=1, le=MOST_NUMBER, description="the number of a sheet")
    occasion: int | None = Field(None, ge=1, le=MOST_NUMBER, description="the number of an occasion")
    rehearse: bool = False


class NewEvent(_Body):
    """`at` is on the run's own clock; left out, it is now."""

    uid: str = Field(min_length=8, max_length=64, description="8 to 64 letters or figures, new for each event")
    kind: EventKind = Field(
        description="started, done, not_yet, weighed, probed, noted, fault, undone, redone or finished"
    )
    at: datetime | None = Field(None, description="an instant with its time zone")
    step: str | None = Field(None, max_length=40, description="a step of the run")
    grams: float | None = Field(None, gt=0, le=50_000, allow_inf_nan=False, description="above 0, at most 50 000 g")
    celsius: float | None = Field(None, ge=-60, le=400, allow_inf_nan=False, description="-60 to 400 °C")
    text: str = Field("", max_length=1000, description="at most 1000 letters")
    of: str | None = Field(None, max_length=64, description="the uid of the event that is undone or redone")


class Outcome(_Write):
    """How a batch came out. Tastes are marks from -2 (too little) over 0 (just right) to 2 (too much)."""

    tastes: dict[str, int] = Field({}, max_length=12, description="scales of the way")
    faults: list[str] = Field([], max_length=20, description="faults of the way")
    note: str = Field("", max_length=4000, description="at most 4000 letters")


class NewBench(_Write):
    sheet: int = _number("a sheet")
    setup: BenchSetup


class NewMark(_Body):
    uid: str = Field(min_length=8, max_length=64, description="8 to 64 letters or figures, new for each mark")
    kind: MarkKind = Field(description="piece, guess, whole, undone or closed")
    grams: float | None = Field(None, gt=0, le=50_000, allow_inf_nan=False, description="above 0, at most 50 000 g")


class LoadTray(_Body):
    """What to do with the simulated scale. `pinch` puts a lump on such as a hand takes that aims at `grams`."""

    do: Literal["put", "pinch", "lift", "unplug", "plug", "garble"] = Field(
        description="put, pinch, lift, unplug, plug or garble"
    )
    grams: float | None = Field(None, gt=0, le=20_000, allow_inf_nan=False, description="above 0, at most 20 000 g")


class StickProbe(_Body):
    """What to do with the simulated thermometer: into a step of a run that is in the heat, out again, or its plug."""

    do: Literal["into", "out", "unplug", "plug", "garble"] = Field(description="into, out, unplug, plug or garble")
    run: int | None = Field(None, ge=1, le=MOST_NUMBER, description="the number of a run")
    step: str | None = Field(None, max_length=40, description="a step of the run")


class AskSides(_Body):
    """A sheet, and a question on which its way's cooks differ."""

    sheet: Sheet
    question: str = Field(max_length=40, description="a question of the way")


class KettleTest(_Body):
    """Water brought to the boil on a burner, lid on."""

    water_ml: float = Field(ge=200, le=5000, allow_inf_nan=False, description="200 to 5000 ml")
    start_c: float = Field(ge=1, le=60, allow_inf_nan=False, description="1 to 60 °C")
    seconds: float = Field(ge=30, le=3600, allow_inf_nan=False, description="half a minute to an hour")


class SaveKitchen(_Write):
    """The kitchen over the revision that was edited; left out, over whatever there is."""

    revision: int | None = Field(None, ge=1, le=MOST_NUMBER, description="the revision that was edited")
    kitchen: Kitchen


BODIES: dict[str, type[BaseModel]] = {
    "use_key": UseKey,
    "sign_in": SignIn,
    "new_password": NewPassword,
    "new_sheet": NewSheet,
    "save": SaveSheet,
    "wanted": WorkSheet,
    "adjustment": AdjustSheet,
    "pasted": PastedList,
    "going": GoShopping,
    "sharing": SharePart,
    "planning": PlanSheet,
    "new_occasion": NewOccasion,
    "new_run": NewRun,
    "new_event": NewEvent,
    "outcome": Outcome,
    "save_kitchen": SaveKitchen,
    "new_bench": NewBench,
    "new_mark": NewMark,
    "load": LoadTray,
    "sticking": StickProbe,
    "asking_sides": AskSides,
    "kettle_test": KettleTest,
}
