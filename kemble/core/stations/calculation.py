"""What every station of one calculation reads and adds to: the inputs, the facts, the advice and the problems."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cached_property
from typing import Literal

from pydantic import BaseModel, ConfigDict

from kemble.core.cards.card_contract import ASKED, ChoiceId
from kemble.core.cards.way import HeatMethod, Way
from kemble.core.cards.ways import WAYS
from kemble.core.facts.fact import FactBook, Origin, leaf
from kemble.core.facts.problems import Problem
from kemble.core.facts.quantity import from_celsius, length_words, size_words, volume_words, weight_words
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.facts.vocabulary import PartId
from kemble.core.kitchen.document import Kitchen, Pot, Steamer, Tin
from kemble.core.kitchen.estimates import Estimate, EstimateId
from kemble.core.kitchen.shelf import Shelf
from kemble.core.physics.thermal import boiling_point_c
from kemble.core.physics.time_spread import Spread
from kemble.core.sentences import Words, say
from kemble.core.sheet.bowl import Bowl
from kemble.core.sheet.document import Sheet

StationId = Literal["mix", "shape", "heat", "cut"]


class AnswerModel(BaseModel):
    """Base of what the answer holds beside facts. Millimetres, grams, minutes and °C throughout."""

    model_config = ConfigDict(frozen=True)


class Advice(AnswerModel):
    """One sentence for the foot of a station. The lowest `rank` is the most useful."""

    station: StationId
    kind: Literal["look", "before", "good"]
    says: Words
    rank: int


class StandsIn(AnswerModel):
    """The steamer or the pot of the kitchen in which a heat stands."""

    kind: Literal["steamer", "pot"]
    name: str


@dataclass
class Calculation:
    """One pass of a sheet through the stations. Made afresh for each; never shared."""

    sheet: Sheet
    kitchen: Kitchen
    shelf: Shelf
    bowl: Bowl
    weighed: Mapping[str, float] = field(default_factory=dict)  # facts that a scale has shown, in grams
    fact_book: FactBook = field(default_factory=FactBook)
    advice: list[Advice] = field(default_factory=list)
    problems: list[Problem] = field(default_factory=list)
    spreads: dict[str, Spread] = field(default_factory=dict)  # of every time that was propagated, by its key
    _estimates: dict[EstimateId, Estimate] | None = None
    _origins: dict[EstimateId, Origin] = field(default_factory=dict)
    traits: dict[PartId | None, frozenset[str]] = field(default_factory=dict)  # by part, once they are asked for

    @property
    def way(self) -> Way:
        return WAYS[self.sheet.way]

    @property
    def estimates(self) -> dict[EstimateId, Estimate]:
        """The table of what nobody knows exactly, with the kitchen's own rows."""
        if self._estimates is None:
            self._estimates = self.kitchen.known
        return self._estimates

    def gel_c(self, of: Mapping[EstimateId, float]) -> float:
        """Where the starch of the sheet gels, with some estimates otherwise than likely."""
        likely = self.likely("gel_c")
        return self.fact_book.number("mix.gel_temperature_c") + of.get("gel_c", likely) - likely

    def likely(self, name: EstimateId) -> float:
        """The likely value of an estimate."""
        return self.estimates[name].value

    def rows_of(self, key: str) -> tuple[EstimateId, ...]:
        """The estimates that a fact with a window hangs on; none of a fact that has none."""
        spread = self.spreads.get(key)
        return tuple(share.id for share in spread.shares) if spread else ()

    @property
    def weighed_by(self) -> str:
        """The fact that what is cooked is as heavy as, in proportion: of grain that is steamed what it took up in its soak,
        since it gets no other water. Empty where a soak changes no weight."""
        return "grain.soaked_g" if "heat.gained_g" in self.fact_book else ""

    def fact_with(self, key: str, of: Mapping[EstimateId, float], *, over_likely: bool = False) -> float:
        """A fact with some estimates otherwise than likely, or by how much it is more: its own window says what each moves it
        by."""
        value, spread = 1.0 if over_likely else self.fact_book.number(key), self.spreads.get(key)
        for share in spread.shares if spread else ():
            row, moved = self.estimates[share.id], of.get(share.id)
            if moved is None or moved == row.value:
                continue
            end, moves = (row.low, share.at_low) if moved < row.value else (row.high, share.at_high)
            value *= math.exp(moves * (moved - row.value) / (end - row.value))
        return value

    @property
    def boil_c(self) -> float:
        """Where water boils at the kitchen's height."""
        return boiling_point_c(self.kitchen.altitude_m)

    @cached_property
    def heated(self) -> HeatMethod:
        """The way's heat, in the schools followed."""
        return self.way.heat_of(self.schools)

    @property
    def _steamed_mm(self) -> float:
        """How wide the tin is that a steamer must take; 0 where it is none."""
        return self.sheet.vessel.tin.across_mm if self.heated in ("steam", "dish") else 0.0

    @cached_property
    def steamer(self) -> Steamer:
        """The steamer that the sheet names, else one that takes its tin."""
        return self.kitchen.steamer(self.sheet.heat.vessel, self._steamed_mm)

    @property
    def no_other_steamer(self) -> bool:
        """Whether it must stand in that one: named, or the only one of several that takes its tin."""
        if self.steamer.name == self.sheet.heat.vessel:
            return True
        takes = [steamer for steamer in self.kitchen.steamers if steamer.room_mm >= self._steamed_mm]
        return len(takes) == 1 < len(self.kitchen.steamers)

    @cached_property
    def pot(self) -> Pot:
        """The pot that the sheet names, else the kitchen's first."""
        return self.kitchen.pot(self.sheet.heat.vessel)

    @property
    def batter_c(self) -> float:
        """At which the batter goes into its heat: as the sheet says, else as is usual."""
        said = self.sheet.start.batter_c
        return self.way.batter(self.schools) if said is None else said

    @cached_property
    def schools(self) -> dict[str, str]:
        """The school followed for every choice of the way."""
        return {choice.id: self.sheet.school(choice.id) for choice in self.way.choices}

    def follows(self, choice: tuple[str, str] | None) -> bool:
        """Whether the sheet follows that school of that choice."""
        return choice is not None and self.schools.get(choice[0]) == choice[1]

    def advise(self, station: StationId, kind: Literal["look", "before", "good"], says: str, rank: int) -> None:
        self.advice.append(unchecked_model(Advice, station=station, kind=kind, says=says, rank=rank))

    def problem(self, path: str, says: str, accepts: str) -> None:
        self.problems.append(Problem(path=path, says=says, accepts=accepts))

    def from_sheet(self, path: str, label: str, value: float | str, unit: str = "") -> Origin:
        return leaf(f"sheet:{path}", label, value, unit)

    def from_kitchen(self, path: str, label: str, value: float | str, unit: str = "") -> Origin:
        return leaf(f"kitchen:{path}", label, value, unit)

    def degrees(self, celsius: float) -> str:
        """A temperature in words, in the kitchen's own degrees."""
        unit = self.kitchen.temperature_unit
        return f"{from_celsius(celsius, unit):.0f} °{unit}"

    def apart(self, kelvin: float) -> str:
        """A difference of temperatures in words, in the kitchen's own degrees."""
        unit = self.kitchen.temperature_unit
        return f"{kelvin if unit == 'C' else kelvin * 1.8:.0f} °{unit}"

    def weight(self, grams: float, decimals: int | None = None) -> str:
        """A weight in words, in the kitchen's own unit."""
        return weight_words(grams, self.kitchen.weight_unit, decimals)

    def volume(self, ml: float) -> str:
        """A volume in words, in the kitchen's own unit."""
        return volume_words(ml, self.kitchen.volume_unit)

    def length(self, mm: float, decimals: int = 0) -> str:
        """A length in words, in the kitchen's own unit."""
        return length_words(mm, self.kitchen.length_unit, decimals)

    def size(self, *sides_mm: float) -> str:
        """The size of a bag or a cutter in words, in the kitchen's own unit."""
        return size_words(*sides_mm, unit=self.kitchen.length_unit)

    def tin_size(self, tin: Tin) -> str:
        return tin.size(self.kitchen.length_unit)

    def asked(self, choice: ChoiceId) -> str:
        """The school followed for a choice that code knows; its usual one in a way that does not leave it open."""
        return self.schools.get(choice) or (ASKED[choice] or ("",))[0]

    def estimated(self, name: EstimateId) -> Origin:
        """An estimate as an origin: the kitchen's own where it holds one."""
        if (origin := self._origins.get(name)) is None:
            row = self.estimates[name]
            learned = self.kitchen.learned.get(name)
            where = "learned:" if learned else "kitchen:estimates." if name in self.kitchen.estimates else "estimate:"
            words = (
                say("{words}, learned from {batches} of your makings", words=row.words, batches=learned.batches)
                if learned
                else row.words
            )
            origin = self._origins[name] = leaf(f"{where}{name}", words, round(row.value, 3), row.unit)
        return origin

    def school(self, choice_id: str) -> list[Origin]:
        """The school followed, as an origin; none in a way that does not leave it open."""
        choice, school_id = self.way.choice(choice_id), self.schools.get(choice_id, "")
        if choice is None:
            return []
        label = next((school.label for school in choice.schools if school.id == school_id), school_id)
        return [leaf(f"sheet:schools.{choice_id}", choice.title, label)]
