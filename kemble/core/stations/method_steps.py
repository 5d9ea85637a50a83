"""The cook's method laid over the steps that the cards give: steps left out, moved, in stages, and the cook's own.

What cannot be followed is not followed, and said at its step: a sheet is never refused for it, since its choices may change.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal

from kemble.core.cards.card_parts import Minutes, Resource, Sentence, Step, StepDependency, always, stage_of, stage_step
from kemble.core.cards.common_steps import COMMON_STEPS
from kemble.core.cards.step_names import title_of
from kemble.core.sentences import Words, say, translate
from kemble.core.sheet.method import (
    HEAT,
    NAMES_BY_FACT,
    OWN_HANDS,
    OWN_MIN,
    Entry,
    MethodStage,
    MethodText,
    OwnStep,
    StepChange,
    own_steps_in,
)
from kemble.core.stations.calculation import AnswerModel, Calculation
from kemble.core.stations.claims import Ingoing
from kemble.core.stations.sheet_steps import SheetStep, StepOrder, order_of_steps, title_on_sheet
from kemble.core.stations.traits import joined

_STAGE_WITHIN_MIN = 2.0  # one stage follows another at once
_LEAST_STAGE_MIN = 0.5
# Facts that are a field of the sheet: where there is a field, that says how long, and 0 leaves the step out.
FIELDS = frozenset({"grain.soak_min", "grain.drain_min"})


class MethodNote(AnswerModel):
    """What is to be said of an entry of the method, at a step: that it could not be followed, or what it broke."""

    step: str
    kind: Literal["not-followed", "look"]
    says: Words


class LeftOutStep(AnswerModel):
    """A step that the cook leaves out, by its id and its entry, and the one that it would come after; none where it would be
    the first."""

    id: str
    entry: str
    title: Words
    after: str


class DormantEntry(AnswerModel):
    """An entry for a step that these choices do not have: it waits until they do."""

    entry: str
    title: Words


class MethodResult(AnswerModel):
    """What became of the method: what is left out, what is to be said, and what waits for other choices."""

    left_out: tuple[LeftOutStep, ...] = ()
    notes: tuple[MethodNote, ...] = ()
    dormant: tuple[DormantEntry, ...] = ()


@dataclass(slots=True)
class LaidMethod:
    """The steps in working order with the cook's method laid over them. `kept`: those that are done; `last`: the one that
    serves; `changes`: by step, its entry; `texts`: by step, what is told behind it."""

    calculation: Calculation
    placed: list[SheetStep]
    kept: dict[str, SheetStep]
    order: StepOrder
    last: str
    changes: dict[str, StepChange]
    texts: dict[str, list[str]]
    left_out: list[LeftOutStep]
    notes: list[MethodNote]
    dormant: list[DormantEntry]

    def not_followed(self, step: str, says: str) -> None:
        self.notes.append(MethodNote(step=step, kind="not-followed", says=says))

    def note(self, step: str, says: str) -> None:
        self.notes.append(MethodNote(step=step, kind="look", says=says))

    def title(self, step: str) -> str:
        return next((title_on_sheet(each, self.calculation) for each in self.placed if each.id == step), step)

    def index(self, step: str) -> int:
        return next(i for i, each in enumerate(self.placed) if each.id == step)

    @property
    def result(self) -> MethodResult:
        return MethodResult(
            left_out=tuple(self.left_out),
            notes=tuple(self.notes),
            dormant=tuple(self.dormant),
        )


def lay_method(
    calculation: Calculation,
    placed: Sequence[SheetStep],
    called: Mapping[str, SheetStep],
    minutes_of: Callable[[SheetStep], float],
) -> LaidMethod:
    """The method of the sheet over its steps, in working order; `called` are those that choices and parts call for."""
    order = order_of_steps(placed, called)
    laid = LaidMethod(calculation, list(placed), dict(called), order, placed[-1].id, {}, {}, [], [], [])
    if not calculation.sheet.method:
        return laid
    names = {name: each.id for each in laid.kept.values() for name in (*names_that_follow(each), each.id)}
    _read_entries(laid, calculation.sheet.method, names)
    for step in [step for step, entry in laid.changes.items() if entry.skip]:
        _leave_out(laid, step)
    for own in own_steps_in(calculation.sheet.method):
        _put_own_step(laid, own)
    laid.order = order_of_steps(laid.placed, laid.kept, with_needs=True)
    changes = [(step, entry) for step, entry in laid.changes.items() if step in laid.kept]
    for step, entry in changes:
        if entry.after:
            _move(laid, step, names.get(entry.after, entry.after))
    for step, entry in changes:
        if entry.stages:
            _split_into_stages(laid, laid.kept[step], entry.stages, minutes_of)
    laid.order = _loosen(laid, order_of_steps(laid.placed, laid.kept), minutes_of)
    return laid


def _read_entries(laid: LaidMethod, entries: Iterable[Entry], names: Mapping[str, str]) -> None:
    """Each entry to its step; those of steps that are not called for lie dormant."""
    for entry in entries:
        if isinstance(entry, MethodText):
            laid.texts.setdefault(names.get(entry.after, entry.after), []).append(entry.text)
        elif isinstance(entry, StepChange) and entry.step in names:
            laid.changes.setdefault(names[entry.step], entry)
        elif isinstance(entry, StepChange):
            laid.dormant.append(DormantEntry(entry=entry.step, title=title_of(entry.step)))


def names_that_follow(step: SheetStep) -> Iterator[str]:
    """What else a way's own step is called: its heat, its rest, its soak, whichever the choices make that."""
    if step.part_id is None:
        if step.step.window:
            yield HEAT
        if (fact := step.step.minutes.fact) and fact in NAMES_BY_FACT:
            yield NAMES_BY_FACT[fact]


def _leave_out(laid: LaidMethod, step_id: str) -> None:
    """Leave a step out; what would go in at it goes in along the mass."""
    sheet_step = laid.kept[step_id]
    step = sheet_step.step
    if step_id == laid.last:
        return laid.not_followed(step_id, say("It is the last step: what is served is not left out."))
    if sheet_step.part_id is None and (stage_of(step.id)[0] in laid.calculation.way.cooks or step.window):
        return laid.not_followed(step_id, say("It cooks what is eaten: it is not left out."))
    if step.each:
        return laid.not_followed(step_id, say("The pieces are made at it: it is not left out."))
    if step.needed:
        return laid.not_followed(step_id, translate(step.needed))
    if (step.minutes.fact or "") in FIELDS:
        return laid.not_followed(step_id, say("Its minutes stand in Mix: 0 leaves it out."))
    later = [
        each
        for each in laid.placed[laid.index(step_id) + 1 :]
        if each.id in laid.kept and each.part_id == sheet_step.part_id
    ]
    taker = next((each for each in later if step.at in (each.step.at, *each.step.tips)), None)
    taker = taker or next((each for each in later if each.step.at), None)
    if taker is None and (sheet_step.goes_in or step.changes or step.weigh):
        return laid.not_followed(step_id, say("What goes in at it would go in nowhere: it is not left out."))
    if taker is not None:
        heir = replace(
            taker.step,
            tips=_tips_of_heir(step, taker.step),
            changes=(*step.changes, *taker.step.changes),
            weigh=taker.step.weigh or step.weigh,
        )
        _replace(laid, replace(taker, step=heir, goes_in=(*sheet_step.goes_in, *taker.goes_in)))
    _replace(laid, replace(sheet_step, goes_in=()))
    before = next((each.id for each in reversed(laid.placed[: laid.index(step_id)]) if each.id in laid.kept), "")
    del laid.kept[step_id]
    laid.left_out.append(
        LeftOutStep(id=step_id, entry=laid.changes[step_id].step, title=laid.title(step_id), after=before)
    )
    return None


def _tips_of_heir(step: Step, heir: Step) -> tuple[str, ...]:
    """The vessels that a step empties once one before it is left out: those that this would have emptied, in its place."""
    if not step.tips or not step.at:
        return heir.tips
    if step.at in heir.tips:
        at = heir.tips.index(step.at) + 1
        return (*heir.tips[:at], *step.tips, *heir.tips[at:])
    return (*step.tips, *heir.tips) if step.at == heir.at else heir.tips


def _replace(laid: LaidMethod, changed: SheetStep) -> None:
    laid.placed[laid.index(changed.id)] = changed
    if changed.id in laid.kept:
        laid.kept[changed.id] = changed


def _put_own_step(laid: LaidMethod, own: OwnStep) -> None:
    """A step of the cook's own, where it says; it stands in the vessel of the step that it comes after, or by itself."""
    ids = {each.id for each in laid.placed}
    if own.after and own.after not in ids:
        laid.dormant.append(DormantEntry(entry=own.own, title=_own_title(own)))
        return
    at = laid.index(own.after) + 1 if own.after else laid.index(own.before) if own.before in ids else 0
    while at < len(laid.placed) and laid.placed[at].id.startswith("own-") and own.after:
        at += 1  # after those that were put there before it
    before = laid.placed[laid.index(own.after)] if own.after else None
    step = _step_of(own, before)
    part_id = before.part_id if before else None
    waits = (StepDependency(own.after),) if own.after else ()
    sheet_step = SheetStep(own.own, step, part_id, {}, waits=waits)
    laid.placed.insert(at, sheet_step)
    laid.kept[own.own] = sheet_step
    goes_on = any(
        each.part_id == part_id and step.at in (each.step.at, *each.step.tips)
        for each in laid.placed[at + 1 :]
        if step.at and each.id in laid.kept
    )
    follower = own.before
    if follower and (follower not in ids or laid.index(follower) <= at):
        laid.not_followed(own.own, say("It cannot come before {title}.", title=laid.title(follower)))
        follower = ""
    if not follower and not goes_on and at < laid.index(laid.last):
        follower = laid.last  # done at some time before serving
    if follower:
        each = laid.placed[laid.index(follower)]
        _replace(laid, replace(each, waits=(*each.waits, StepDependency(own.own))))


def _own_title(own: OwnStep) -> str:
    return own.title.strip() or translate(COMMON_STEPS[own.common].title)


def _step_of(own: OwnStep, before: SheetStep | None) -> Step:
    common = COMMON_STEPS.get(own.common)
    in_vessel = common.in_vessel if common else True
    at = own.at if own.at is not None else before.step.at if before and in_vessel else ""
    hands = OWN_HANDS[own.hands] if own.hands else common.hands if common else "held"
    usual: tuple[Resource, ...] = common.uses if common else ("counter",) if hands == "held" else ()
    if own.minutes is None:
        minutes = Minutes(common.minutes, common.per_piece) if common else Minutes(OWN_MIN)
    else:
        minutes = Minutes(per_piece=own.minutes) if own.per == "piece" else Minutes(own.minutes)
    return Step(
        own.own,
        _own_title(own),
        common.words if common else (),
        minutes,
        hands,
        uses=(own.on,) if own.on else usual,
        at=at,
        work=common.work if common else "safe",
        tools=common.tools if common else (),
        cue=common.cue if common else None,
        cautions=common.cautions if common else (),
    )


def _move(laid: LaidMethod, step_id: str, after: str) -> None:
    """Put a step behind another, where nothing that it needs, or that needs it, stands against that."""
    moved = laid.kept[step_id]
    if after == step_id or after not in {each.id for each in laid.placed}:
        return laid.not_followed(step_id, say("There is no such step to come after."))
    order = [each for each in laid.placed if each.id != step_id]
    at = next(i for i, each in enumerate(order) if each.id == after) + 1
    while at < len(order) and order[at].id not in laid.kept:
        at += 1  # what is not called for stays with what it would follow
    order.insert(at, moved)
    if any(each.id == laid.last for each in order[:at]):
        return laid.not_followed(step_id, say("It is done before serving."))
    places = {each.id: i for i, each in enumerate(order)}
    for name, needs in laid.order.needs.items():
        for needed in needs:
            if name in laid.kept and places[needed] > places[name]:
                other = needed if name == step_id else name
                if name == step_id:
                    says = say("It needs what “{title}” makes: it cannot come before that.", title=laid.title(other))
                else:
                    says = say("“{title}” needs what it makes: it cannot come after that.", title=laid.title(other))
                return laid.not_followed(step_id, says)
    laid.placed = order
    _replace(laid, replace(moved, waits=(*moved.waits, StepDependency(after))))
    laid.order = order_of_steps(laid.placed, laid.kept, with_needs=True)
    if moved.step.asks:
        laid.note(step_id, joined(moved.step.asks))
    return None


def _split_into_stages(
    laid: LaidMethod, whole: SheetStep, stages: Sequence[MethodStage], minutes_of: Callable[[SheetStep], float]
) -> None:
    """A step as so many, each with its own clock, one at once after the other; what goes in does so at the first."""
    if whole.step.window or any(each.id == stage_step(whole.id, 2) for each in laid.placed):
        return laid.not_followed(whole.id, say("The stages of its heat stand in Heat."))
    ours = minutes_of(whole)
    left = max(_LEAST_STAGE_MIN, ours - sum(stage.minutes or 0.0 for stage in stages))
    steps: list[SheetStep] = []
    for number, stage in enumerate(stages, start=1):
        first, last = number == 1, number == len(stages)
        step = replace(
            whole.step,
            title=f"{translate(whole.step.title)}: {stage.note or say('stage {number}', number=number)}",
            words=_stage_words(whole.step, stage, first=first),
            minutes=Minutes(left if stage.minutes is None else stage.minutes),
            after=whole.step.after if first else (),
            tips=whole.step.tips if first else (),
            tools=whole.step.tools if first else (),
            asks=whole.step.asks if first else (),
            brings=whole.step.brings if first else (),
            changes=whole.step.changes if last else (),
            cue=whole.step.cue if last else None,
            weigh=whole.step.weigh if last else None,
            cautions=whole.step.cautions if first or last else (),
            variants=(),
        )
        steps.append(
            replace(
                whole,
                id=stage_step(whole.id, number),
                step=step,
                goes_in=[ingoing for ingoing in whole.goes_in if _stage_joined(ingoing, len(stages)) == number],
                waits=whole.waits if first else (StepDependency(steps[-1].id, 0, _STAGE_WITHIN_MIN),),
            )
        )
    at = laid.index(whole.id)
    laid.placed[at : at + 1] = steps
    laid.kept |= {step.id: step for step in steps}
    final = steps[-1].id
    laid.last = final if laid.last == whole.id else laid.last
    for i, each in enumerate(laid.placed):
        if each not in steps:
            names = {name: final if step == whole.id else step for name, step in each.names.items()}
            waits = tuple(replace(wait, step=final) if wait.step == whole.id else wait for wait in each.waits)
            if names != dict(each.names) or waits != each.waits:
                laid.placed[i] = replace(each, names=names, waits=waits)
                if each.id in laid.kept:
                    laid.kept[each.id] = laid.placed[i]
    return None


def _stage_joined(ingoing: Ingoing, count: int) -> int:
    """At which stage of a step something goes in: at the first, unless it says a later one that there is."""
    number = stage_of(ingoing.contribution.joins)[1] if ingoing.contribution.joins else 1
    return number if number <= count else 1


def _stage_words(step: Step, stage: MethodStage, *, first: bool) -> tuple[Sentence, ...]:
    power = say("At {power} % power.", power=stage.power_pct) if stage.power_pct else ""
    return (*(step.words if first else ()), *always(*((power,) if power else ())))


def _loosen(laid: LaidMethod, order: StepOrder, minutes_of: Callable[[SheetStep], float]) -> StepOrder:
    """A wait of at most so long over which the cook has put a step: that step's minutes are added, since no plan can keep it
    else, and where it is then longer than the card would have it, that is told."""
    own = [each for each in laid.placed if each.id.startswith("own-")]
    behind: dict[str, set[str]] = {}
    waits: dict[str, list[StepDependency]] = {}
    for each in laid.placed:
        here = order.waits[each.id]
        behind[each.id] = {wait.step for wait in here}.union(*(behind.get(wait.step, set()) for wait in here))
        waits[each.id] = list(here)
        for i, wait in enumerate(here):
            between = [step for step in own if step.id in behind[each.id] and wait.step in behind.get(step.id, ())]
            if wait.at_most is None or not between:
                continue
            more = sum(minutes_of(step) for step in between)
            waits[each.id][i] = replace(wait, at_most=wait.at_most + more)
            if more > wait.at_most:
                laid.note(
                    between[0].id,
                    say(
                        "“{title}” should come within {minutes:.0f} min of “{before}”: this keeps it longer.",
                        title=laid.title(each.id),
                        minutes=wait.at_most,
                        before=laid.title(wait.step),
                    ),
                )
    return StepOrder(waits, order.needs, order.in_vessels)
