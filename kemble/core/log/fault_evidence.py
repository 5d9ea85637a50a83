"""The causes of each fault, and the facts of a batch that speak for or against them.

One table: a fault, the steps at which it shows, and its causes, each with a witness. A witness reads what is known and
answers for, against, or nothing; it never guesses. Limits of a way's own ratios stand in its card (card.Evidence).
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Literal

from pydantic import BaseModel, ConfigDict

from kemble.core.cards.card_parts import Fault, stage_of
from kemble.core.facts.fact import Fact
from kemble.core.run.events import AnyEvent
from kemble.core.run.run_state import StepState
from kemble.core.sentences import Words, say
from kemble.core.stations.steps import DonenessWindow, StepResult

_SHORT, _FULL, _LONG = 0.8, 0.95, 1.25  # of what was told: clearly too short, as told, clearly too long
_OFF = 0.025  # a weight that is off by less says nothing
_CLEAR = 0.1  # a ratio that lies so far on the good side speaks against it


def _is_called(step: str, name: str) -> bool:
    """Whether a step is that one, a stage of it, or a part's of that name."""
    plain, _ = stage_of(step)
    return plain == name or plain.endswith(f"-{name}")


@dataclass(frozen=True, slots=True)
class BatchFacts:
    """A batch as witnesses see it: the facts it went by; where it was made, its steps and how they went, and its events."""

    facts: Mapping[str, Fact]
    steps: Mapping[str, StepResult] = field(default_factory=dict)
    states: Mapping[str, StepState] = field(default_factory=dict)
    events: Sequence[AnyEvent] = ()

    def number(self, key: str) -> float | None:
        fact = self.facts.get(key)
        return fact.value if fact is not None and isinstance(fact.value, float) else None

    def called(self, name: str) -> list[str]:
        """The steps of that name: the way's own, and those of its parts and stages."""
        return [step for step in self.steps if _is_called(step, name)]

    def lasted(self, step: str) -> float | None:
        state = self.states.get(step)
        if state is None or state.started is None or state.ended is None:
            return None
        return (state.ended - state.started).total_seconds() / 60


@dataclass(frozen=True, slots=True)
class Testimony:
    """What a witness says: for the cause, or against it, and in words why."""

    side: Literal["for", "against"]
    says: str


Witness = Callable[[BatchFacts, Fault], Testimony | None]


def fact_beyond_limit(key: str) -> Witness:
    """A fact of the batch, against the limit that the fault's card has for it."""

    def witness(batch: BatchFacts, fault: Fault) -> Testimony | None:
        limit = next((cause_evidence for cause_evidence in fault.evidence if cause_evidence.fact == key), None)
        fact, value = batch.facts.get(key), batch.number(key)
        if limit is None or fact is None or value is None:
            return None
        beyond = value < limit.than if limit.side == "low" else value > limit.than
        shown = f"{fact.label[:1].upper()}{fact.label[1:]} {fact.shown} {fact.unit}".strip()
        edge = f"{limit.than:g}"
        if beyond:
            return Testimony("for", f"{shown}: {'under' if limit.side == 'low' else 'over'} {edge}")
        room = (value / limit.than - 1) * (1 if limit.side == "low" else -1) if limit.than else 0.0
        return (
            Testimony("against", say("{shown}: well within {edge}", shown=shown, edge=edge)) if room > _CLEAR else None
        )

    return witness


def ended_early(*names: str) -> Witness:
    """A step that was ended clearly before it was told to."""
    return _lasting(names, lambda share, told, took: "for" if share < _SHORT else "against" if share >= _FULL else None)


def went_on_long(*names: str) -> Witness:
    """A step that went on clearly longer than it was told to."""
    return _lasting(names, lambda share, told, took: "for" if share > _LONG else "against" if share <= 1.05 else None)


def _lasting(names: Sequence[str], judge: Callable[[float, float, float], Literal["for", "against"] | None]) -> Witness:
    def witness(batch: BatchFacts, fault: Fault) -> Testimony | None:
        words = []
        for name in names:
            for step in batch.called(name):
                took, told = batch.lasted(step), batch.steps[step].ours.minutes
                if took is None or told <= 0:
                    continue
                side = judge(took / told, told, took)
                if side:
                    title = batch.steps[step].title
                    words.append(
                        Testimony(
                            side, say("{title}: {took:.0f} min, {told:.0f} told", title=title, took=took, told=told)
                        )
                    )
        return _loudest(words)

    return witness


def undercooked(batch: BatchFacts, fault: Fault) -> Testimony | None:
    """A heat with a window that was ended before its first look, or whose heart was read cold."""
    words = []
    for step, worked in batch.steps.items():
        took, state = batch.lasted(step), batch.states.get(step)
        if worked.ours.window is None or took is None or state is None:
            continue
        gel = batch.number("mix.gel_temperature_c")
        if state.probed and gel is not None:
            read = state.probed[-1]
            if read.celsius < gel and took - read.minute < 5:
                before = took - read.minute
                says = say(
                    "its heart was {read:.0f} °C {before:.0f} min before the end", read=read.celsius, before=before
                )
                words.append(Testimony("for", says))
        title, first = worked.title, worked.ours.window.first_check
        if took < first:
            says = say("{title}: {took:.0f} min, first look at {first:.0f}", title=title, took=took, first=first)
            words.append(Testimony("for", says))
        elif took >= worked.ours.window.done:
            words.append(_beside_likely(worked, worked.ours.window, took))
    return _loudest(words)


def overcooked(batch: BatchFacts, fault: Fault) -> Testimony | None:
    """A heat with a window that went on past its latest."""
    words = []
    for step, worked in batch.steps.items():
        took = batch.lasted(step)
        if worked.ours.window is None or took is None:
            continue
        title, latest = worked.title, worked.ours.window.latest
        if took > latest:
            says = say("{title}: {took:.0f} min, {latest:.0f} at the latest", title=title, took=took, latest=latest)
            words.append(Testimony("for", says))
        elif took <= worked.ours.window.done:
            words.append(_beside_likely(worked, worked.ours.window, took))
    return _loudest(words)


def _beside_likely(worked: StepResult, window: DonenessWindow, took: float) -> Testimony:
    """That a heat was as long as it was told, or on that side of it."""
    title, done = worked.title, window.done
    return Testimony(
        "against", say("{title}: {took:.0f} min, likely done at {done:.0f}", title=title, took=took, done=done)
    )


def began_late(*names: str) -> Witness:
    """A step that began later than it may after what it waits for: too cool, too stiff, dried."""

    def witness(batch: BatchFacts, fault: Fault) -> Testimony | None:
        words = []
        for name in names:
            for step in batch.called(name):
                state = batch.states.get(step)
                for wait in batch.steps[step].after:
                    before = batch.states.get(wait.step)
                    if wait.at_most is None or not state or not state.started or not before or not before.ended:
                        continue
                    gap = (state.started - before.ended).total_seconds() / 60
                    title = batch.steps[step].title
                    if gap > wait.at_most + 1:
                        words.append(
                            Testimony(
                                "for",
                                say(
                                    "{title} began after {gap:.0f} min, {at_most:.0f} at most",
                                    title=title,
                                    gap=gap,
                                    at_most=wait.at_most,
                                ),
                            )
                        )
                    else:
                        words.append(
                            Testimony(
                                "against", say("{title} began after {gap:.0f} min, in its time", title=title, gap=gap)
                            )
                        )
        return _loudest(words)

    return witness


def weight_off(key: str, side: Literal["over", "under"]) -> Witness:
    """A weight that was read over or under what the scale should have shown."""

    def witness(batch: BatchFacts, fault: Fault) -> Testimony | None:
        words = []
        for step, worked in batch.steps.items():
            state = batch.states.get(step)
            if worked.target is None or not worked.target.key.endswith(key) or not state or not state.weights:
                continue
            read, told = state.weights[-1].grams, worked.target.grams
            off = read / told - 1 if told else 0.0
            says = say("{label}: {read:.0f} g, {told:.0f} told", label=worked.target.label, read=read, told=told)
            if off > _OFF:
                words.append(Testimony("for" if side == "over" else "against", says))
            elif off < -_OFF:
                words.append(Testimony("for" if side == "under" else "against", says))
        return _loudest(words)

    return witness


def was_paused(*names: str) -> Witness:
    """A step that wants to be moved without a pause, and was paused."""

    def witness(batch: BatchFacts, fault: Fault) -> Testimony | None:
        for name in names:
            for step in batch.called(name):
                if any(event.kind == "paused" and event.step == step for event in batch.events):
                    return Testimony("for", say("{title} was paused", title=batch.steps[step].title))
        return None

    return witness


def wrong_order(first: str, second: str) -> Witness:
    """An order: the second was begun before the first was done, or the first was never done."""

    def witness(batch: BatchFacts, fault: Fault) -> Testimony | None:
        for name in batch.called(first):
            for other in batch.called(second):
                done, begun = batch.states.get(name), batch.states.get(other)
                if not begun or not begun.started:
                    continue
                title = batch.steps[name].title
                if not done or not done.ended or done.ended > begun.started:
                    return Testimony(
                        "for",
                        say(
                            "{title} was not done when {next_step} began",
                            title=title,
                            next_step=batch.steps[other].title.lower(),
                        ),
                    )
                return Testimony("against", say("{title} was done before", title=title))
        return None

    return witness


def _loudest(words: Sequence[Testimony]) -> Testimony | None:
    """One that speaks for it, else one against."""
    return next((testimony for testimony in words if testimony.side == "for"), words[0] if words else None)


@dataclass(frozen=True, slots=True)
class Cause:
    """A cause in words, and who can speak of it. Without a witness only the cook's eye can tell."""

    says: str
    witnesses: tuple[Witness, ...] = ()


@dataclass(frozen=True, slots=True)
class FaultEvidence:
    """A fault: the steps at which it shows (none: any), and its causes."""

    at: tuple[str, ...]
    causes: tuple[Cause, ...]


_DRY = Cause("too little water", (fact_beyond_limit("mix.hydration_pct"), weight_off("mix.cooked_g", "under")))
_WET = Cause("too much water", (fact_beyond_limit("mix.hydration_pct"), weight_off("mix.cooked_g", "over")))
_FAT = Cause("much fat", (fact_beyond_limit("mix.fat_pct"),))
_RAW = Cause("too short in the heat", (undercooked,))
_SOAKED_SHORT = Cause(
    "the soak was short or cold",
    (fact_beyond_limit("grain.uptake_pct"), ended_early("soak"), weight_off("grain.soaked_g", "under")),
)
_TOO_LONG = Cause("too long in the heat", (overcooked,))
_REDUCED = weight_off("made_g", "under")
_NOT_REDUCED = weight_off("made_g", "over")

SEEN: Mapping[str, FaultEvidence] = {
    "cracks": FaultEvidence(
        ("wrap", "portion", "divide", "cut-rounds", "dough", "rest-dough"),
        (
            _DRY,
            Cause("cooled below its window, or left uncovered", (began_late("wrap", "portion", "divide", "cut-rounds"),)),
            Cause("it did not rest", (ended_early("rest-dough"),)),
        ),
    ),
    "slumps": FaultEvidence(
        ("wrap", "portion", "divide", "cut", "dough", "stir"),
        (_WET, _RAW, Cause("too hot still", (ended_early("cool"),))),
    ),
    "leaks": FaultEvidence(
        ("wrap", "boil"),
        (
            Cause("skin too thin for it", (fact_beyond_limit("shape.skin_mm"),)),
            Cause("the filling was too soft", (ended_early("freeze-filling", "chill"),)),
            Cause("a dusty seam"),
        ),
    ),
    "tears": FaultEvidence(
        ("wrap", "cut-rounds"),
        (
            Cause("skin too thin for it", (fact_beyond_limit("shape.skin_mm"),)),
            Cause("the filling was too soft", (ended_early("freeze-filling", "chill"),)),
            Cause("a dusty seam"),
        ),
    ),
    "burst": FaultEvidence(("boil",), (Cause("a rolling boil"), Cause("trapped air, or a thin seam"), _TOO_LONG)),
    "cold-heart": FaultEvidence(
        ("boil", "serve"),
        (
            Cause("pieces too big", (fact_beyond_limit("shape.diameter_mm"),)),
            Cause("too many at once", (fact_beyond_limit("heat.pot_dip_c"),)),
            _RAW,
        ),
    ),
    "raw-heart": FaultEvidence(
        ("steam", "cut", "serve"), (_RAW, Cause("it lies too deep", (fact_beyond_limit("heat.depth_mm"),)), Cause("the lid was lifted"))
    ),
    "specks": FaultEvidence(
        ("mix", "sieve", "stir", "steam", "cut", "serve"),
        (Cause("lumps went in", (wrong_order("sieve", "pour"),)), _RAW),
    ),
    "creased": FaultEvidence(
        ("steam", "cool", "cut"),
        (Cause("steam too fierce", (fact_beyond_limit("heat.water_loss_g_per_min"),)), Cause("drops from the lid")),
    ),
    "pale-edge": FaultEvidence(
        ("steam", "cool", "cut"),
        (
            Cause("too little steam", (fact_beyond_limit("heat.water_loss_g_per_min"),)),
            Cause("too little water in it", (fact_beyond_limit("mix.hydration_pct"),)),
            Cause("dried while it waited", (went_on_long("cool"), began_late("cut", "serve"))),
        ),
    ),
    "boiled-dry": FaultEvidence(("steam", "boil"), (Cause("too little water in the pot"), _TOO_LONG)),
    "ragged-cut": FaultEvidence(("cut",), (Cause("cut too warm", (ended_early("cool", "set", "hang"),)), Cause("a dry knife"))),
    "sticks": FaultEvidence(
        ("cut", "cool"),
        (Cause("not lined", (wrong_order("line", "pour"),)), Cause("turned out hot", (ended_early("cool"),))),
    ),
    "rock": FaultEvidence(
        ("serve",),
        (
            Cause("little sugar", (fact_beyond_limit("mix.sugar_pct"),)),
            Cause("little fat", (fact_beyond_limit("mix.fat_pct"),)),
            Cause("kept cold"),
        ),
    ),
    "stale": FaultEvidence(("serve",), (Cause("kept cold"), Cause("little sugar", (fact_beyond_limit("mix.sugar_pct"),)))),
    "dense": FaultEvidence(("bake", "cut", "serve"), (_DRY, Cause("baked too long", (overcooked,)))),
    "wet-middle": FaultEvidence(
        ("bake", "cut"), (Cause("it lies too deep", (fact_beyond_limit("shape.depth_mm"),)), _RAW, Cause("the oven is slow"))
    ),
    "greasy": FaultEvidence(("bake", "cut", "fold-pan", "work-oil", "fold", "serve"), (_FAT, Cause("it split, or went in too fast"))),
    "hard": FaultEvidence(("cook-grain", "fold", "crush", "serve"), (_DRY, _SOAKED_SHORT, _RAW)),
    "mush": FaultEvidence(("cook-grain", "steam-grain", "crush", "fold"), (_WET, Cause("overcooked", (overcooked, went_on_long("cook-grain"))))),
    "paste-slides": FaultEvidence(
        ("close",),
        (Cause("too much of it", (fact_beyond_limit("shape.filling_on_base_pct"),)), Cause("the paste is soft", (_NOT_REDUCED,))),
    ),
    "tough": FaultEvidence(("snip", "serve"), (_DRY, Cause("it went cold", (began_late("snip"), went_on_long("cool"))))),
    "runs": FaultEvidence(("snip", "wrap", "thicken"), (_WET, _RAW, Cause("it was too warm still", (ended_early("cool"),)))),
    "burnt": FaultEvidence(("fold-pan", "stir"), (Cause("the stirring stopped", (was_paused("fold-pan", "stir"),)), _TOO_LONG)),
    "stiff": FaultEvidence(("wrap", "thicken"), (_DRY, Cause("thickened too long", (went_on_long("thicken"),)))),
    "hard-hearts": FaultEvidence(("steam-grain", "grind", "boil", "pound", "serve"), (_SOAKED_SHORT, _RAW, Cause("old grain"))),
    "packet-burst": FaultEvidence(("steam",), (Cause("overfilled"), Cause("no foil"), _TOO_LONG)),
    "burst-leaf": FaultEvidence(
        ("fold", "boil"),
        (
            Cause("overfilled", (fact_beyond_limit("mix.filling_pct"),)),
            Cause("a brittle leaf", (ended_early("soak-leaves", "blanch-leaves"),)),
            Cause("tied tight"),
        ),
    ),
    "water-logged": FaultEvidence(("boil", "hang"), (Cause("folded open"), Cause("not drained", (ended_early("hang"),)))),
    "sticks-leaf": FaultEvidence(("serve",), (Cause("no oil in the grain"), Cause("not drained", (ended_early("hang"),)))),
    "grainy": FaultEvidence(("pound", "shape"), (Cause("pounded too short", (ended_early("pound"),)), Cause("pounded too cold", (began_late("pound"),)), _RAW)),
    "slack": FaultEvidence(
        ("pound", "shape"),
        (_WET, Cause("not drained", (ended_early("drain"), weight_off("grain.soaked_g", "over"))), Cause("too much sprinkled")),
    ),
    "no-set": FaultEvidence(("stir-clean", "cool", "cut"), (Cause("the syrup was not reduced to its weight", (_NOT_REDUCED,)), _RAW, Cause("cut too soon", (ended_early("cool"),)))),
    "catches": FaultEvidence(("boil",), (Cause("heat high"), Cause("not stirred", (was_paused("boil"),)))),
    "paste-soft": FaultEvidence(("dry", "ball-filling", "ball-paste"), (Cause("taken off too wet", (_NOT_REDUCED,)), Cause("warm still", (ended_early("cool"),)))),
    "bitter-syrup": FaultEvidence(("burn",), (Cause("taken past amber", (went_on_long("burn"),)),)),
    "grainy-syrup": FaultEvidence(("burn",), (Cause("stirred while it melted"),)),
    "damp-coat": FaultEvidence(("serve", "lay"), (Cause("rolled too hot", (ended_early("cool"),)), Cause("rolled too early"))),
    "burnt-curd": FaultEvidence(("boil-off",), (Cause("left in the hot oil", (went_on_long("boil-off"), _REDUCED)),)),
    "thin-first": FaultEvidence(("first",), (Cause("cold or much water", (weight_off("made_g", "over"),)),)),
    "split-syrup": FaultEvidence(("reduce",), (Cause("boiled hard", (ended_early("reduce"),)), Cause("reduced too far", (_REDUCED,)))),
    "wet-filling": FaultEvidence(("chop", "chill"), (Cause("the fruit is wet", (weight_off("made_g", "over"),)), Cause("it was not chilled", (ended_early("chill"),)))),
    "glaze-burnt": FaultEvidence(("bake", "brush"), (Cause("on too early"), _TOO_LONG)),
    "brown-green": FaultEvidence(("stir", "green"), (Cause("cooked with the dough", (wrong_order("stir", "green"),)),)),
    "bitter-oil": FaultEvidence(("fry",), (Cause("taken to brown", (went_on_long("fry"),)),)),
    "grassy": FaultEvidence(("steep-leaf",), (Cause("steeped long", (went_on_long("steep-leaf"),)), Cause("boiled"))),
    "salty-filling": FaultEvidence(("season",), (Cause("salt or soy counted twice", (fact_beyond_limit("mix.salt_pct"),)),)),
    "soft-filling": FaultEvidence(
        ("grind", "chill", "ball-filling", "wrap"),
        (Cause("warm", (ended_early("chill", "freeze-filling"),)), Cause("much fat", (fact_beyond_limit("mix.fat_pct"),))),
    ),
    "lumpy-soup": FaultEvidence(("thicken",), (Cause("slurry poured in warm or all at once"),)),
    "strands-hard": FaultEvidence(("boil-clear",), (Cause("boiled dry too fast", (ended_early("boil-clear"), _REDUCED)),)),
    "weeps": FaultEvidence(("ready",), (Cause("the fruit is wet"),)),
    "thin-broth": FaultEvidence(("steep",), (Cause("steeped too short", (ended_early("steep"),)),)),
    "heart-slides": FaultEvidence(("ball-filling", "wrap"), (Cause("paste too thin round it", (fact_beyond_limit("shape.paste_mm"),)), Cause("the fruit is wet"))),
    "leaf-split": FaultEvidence(("fold", "trim", "wrap"), (Cause("a brittle leaf", (ended_early("soak-leaves", "blanch-leaves"),)),)),
}  # fmt: skip


class RankedCause(BaseModel):
    """A cause, and what speaks for it or against it."""

    model_config = ConfigDict(frozen=True)

    says: Words
    speaks_for: list[Words]
    speaks_against: list[Words]


class ExplainedFault(BaseModel):
    """A fault with its causes, the likeliest first; what to do now and what to change. `sure`: something speaks for one."""

    model_config = ConfigDict(frozen=True)

    id: str
    seen: Words
    now: Words
    next_time: Words
    causes: list[RankedCause]
    sure: bool


def explain_fault(fault: Fault, batch: BatchFacts) -> ExplainedFault:
    """Hold a fault against what is known of a batch: the causes that something speaks for first, those that something
    speaks against last."""
    seen = SEEN.get(fault.id)
    causes = [_cause(cause, batch, fault) for cause in seen.causes] if seen else [_cause_without_witness(fault.cause)]
    causes.sort(key=lambda ranked_cause: (-len(ranked_cause.speaks_for), len(ranked_cause.speaks_against)))
    return ExplainedFault(
        id=fault.id,
        seen=fault.seen,
        now=fault.now,
        next_time=fault.next_time,
        causes=causes,
        sure=any(ranked_cause.speaks_for for ranked_cause in causes),
    )


def _cause(cause: Cause, batch: BatchFacts, fault: Fault) -> RankedCause:
    words = [word for witness in cause.witnesses if (word := witness(batch, fault))]
    return RankedCause(
        says=cause.says,
        speaks_for=[word.says for word in words if word.side == "for"],
        speaks_against=[word.says for word in words if word.side == "against"],
    )


def _cause_without_witness(says: str) -> RankedCause:
    return RankedCause(says=says, speaks_for=[], speaks_against=[])


def at_step(faults: Sequence[Fault], step: str) -> tuple[list[Fault], list[Fault]]:
    """The faults that show at a step, and all others."""
    here = [fault for fault in faults if _shows_at_step(fault, step)]
    return here, [fault for fault in faults if fault not in here]


def _shows_at_step(fault: Fault, step: str) -> bool:
    names = SEEN[fault.id].at if fault.id in SEEN else ()
    return any(_is_called(step, name) for name in names)


def likeliest(faults: Sequence[Fault], facts: Mapping[str, Fact]) -> list[ExplainedFault]:
    """Before anything is made: what is likeliest to go wrong by the numbers of the sheet, and why."""
    batch = BatchFacts(facts)
    return [
        explained_fault for explained_fault in (explain_fault(fault, batch) for fault in faults) if explained_fault.sure
    ]
