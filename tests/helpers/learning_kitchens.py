"""Simulated kitchens whose truth is known: the solvers themselves with every estimate drawn, and cooks who look now and then.

The learner knows only how windows bend about the craft's own values; the truth is worked by the solver at its own.
"""

import math
import random
from functools import lru_cache

import pytest

from kemble.core.kitchen.document import Kitchen, OwnEstimate
from kemble.core.kitchen.estimates import ANEW, ESTIMATES
from kemble.core.learn.observations import Observation
from kemble.core.learn.posterior import learn
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.heat import steam
from kemble.core.stations.work_sheet import work, work_with_spreads

DONE = "heat.done_min"
LOOKS_MIN = 5.0


def cake(tin_mm=180, times=1.0, way="set-cake"):
    """The starting cake in another tin, so many times as much of it."""
    document = default_sheet(way).model_dump(mode="json")
    document["vessel"]["tin"]["diameter_mm"] = tin_mm
    for part in document["parts"]:
        for line in part["lines"]:
            line["amount"]["value"] *= times
    return sheet_from(document)


@lru_cache(maxsize=32)
def _told(document):
    sheet = sheet_from(__import__("json").loads(document))
    return work_with_spreads(sheet, Kitchen())[1][DONE]


def told(sheet):
    return _told(sheet.model_dump_json())


class House:
    """A kitchen with a truth of its own."""

    def __init__(self, seed, noise=0.05):
        self.chance = random.Random(seed)
        self.noise = noise
        self.true = {name: self.chance.gauss(0, 1) for name in ESTIMATES if name not in ANEW}

    def takes(self, sheet, *, anew=True):
        """Minutes that a heat really takes: by the solver, at this kitchen's values, with the chance of one making."""
        off = {name: self.true[name] for name in self.true}
        if anew:
            off |= {name: self.chance.gauss(0, 1) for name in ANEW}
        hangs = {share.id for share in told(sheet).shares}
        own = {}
        for name in hangs:
            value = ESTIMATES[name].at(off.get(name, 0.0))
            own[name] = OwnEstimate(value=value, low=min(value, value * 0.9999), high=max(value, value * 1.0001))
        minutes = work(sheet, Kitchen(estimates=own)).facts[DONE].value
        return minutes * math.exp(self.chance.gauss(0, self.noise)) if anew else minutes

    def makes(self, sheet, *, odd=1.0):
        """A making as its sight: looked at every five minutes from the first look on; `odd` times as long as it is."""
        of, minutes = told(sheet), self.takes(sheet) * odd
        looks = [of.first + LOOKS_MIN * i for i in range(60)]
        end = next(at for at in looks if at >= minutes or at is looks[-1])
        before = max((at for at in looks if at < end), default=None)
        moves = {share.id: (share.at_low, share.at_high) for share in of.shares}
        return [Observation("time", DONE, "", of.likely, before, end, 0.07, moves)]

    def stands_by(self, sheet, *, every=0.0):
        """A making that somebody stands by, as at a pot of balls: ended when it is done, or at a look every so many minutes,
        with "not yet" pressed at those before."""
        of, minutes = told(sheet), self.takes(sheet)
        end = every * math.ceil(minutes / every) if every else minutes
        low = max(end - every, 0.1) if every else end
        moves = {share.id: (share.at_low, share.at_high) for share in of.shares}
        return [Observation("time", DONE, "", of.likely, low, end, 0.03, moves)]


class Finer(House):
    """A kitchen whose truth is worked on another grid than the learner's: nearly twice as many cells, over twice the steps."""

    def takes(self, sheet, *, anew=True):
        told(sheet)  # the learner's own, on its grid
        with pytest.MonkeyPatch.context() as patch:
            patch.setattr(steam, "_CELLS", 37)
            patch.setattr(steam, "_STEPS", 240)
            _forget()
            result = super().takes(sheet, anew=anew)
        _forget()
        return result


def _forget():
    for kept in (steam._vertical_decay, steam._sideways_decay):
        kept.cache_clear()


def knowing(batches):
    """A kitchen that has learned from some makings."""
    result = learn(batches)
    return Kitchen(learned=result.known(), together=tuple(result.together()))


def off(house, sheet, batches):
    """How far the likely time is off what it takes in this kitchen, as a logarithm."""
    likely = work(sheet, knowing(batches)).facts[DONE].value
    return abs(math.log(likely / house.takes(sheet, anew=False)))
