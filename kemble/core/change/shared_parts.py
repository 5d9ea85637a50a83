"""A part that one sheet makes for another too: the one makes more of it, the other takes its share."""

from __future__ import annotations

from kemble.core.change.adjust import scale_part
from kemble.core.computing_guard import computes
from kemble.core.facts.problems import refuse
from kemble.core.facts.vocabulary import PartId
from kemble.core.kitchen.document import Kitchen
from kemble.core.kitchen.shelf import Shelf
from kemble.core.sentences import say
from kemble.core.sheet.bowl import weigh
from kemble.core.sheet.document import Sheet
from kemble.core.sheet.parts import MadeFor, Part, PartialAmount
from kemble.core.stations.calculation import Calculation
from kemble.core.stations.mix.part_yields import FinishedPart, yield_parts


@computes
def share_part(giver: Sheet, taker: Sheet, part_id: PartId, kitchen: Kitchen) -> tuple[Sheet, Sheet]:
    """`giver` makes as much more of its part as `taker` makes of its own; `taker` then has it from there.

    Grams are conserved: what the giver has for itself stays, and what leaves it is what the taker needs. Raises
    Refused where either has no such part, or where one of them has it from elsewhere already.
    """
    if giver.title == taker.title:
        refuse("with", say("has the same title"), say("two sheets with titles of their own"))
    ours, theirs = _finished_part(giver, part_id, kitchen), _finished_part(taker, part_id, kitchen)
    part, other = _part_of(giver, part_id), _part_of(taker, part_id)
    for sheet, each_part in ((giver, part), (taker, other)):
        if each_part.made_on:
            refuse(
                "role",
                say("{title} has it from {made_on}", title=sheet.title, made_on=each_part.made_on),
                say("a part made on its sheet"),
            )
    if other.made_for:
        refuse("with", say("makes it for others itself"), say("a sheet that keeps its own"))
    whole = ours.grams + theirs.grams
    smaller = ours.grams / whole
    shares = (
        *(share.model_copy(update={"share": share.share * smaller}) for share in part.made_for),
        MadeFor(sheet=taker.title, share=theirs.grams / whole),
    )
    bigger = scale_part(part, 1 / smaller).model_copy(update={"made_for": shares, "kept": _scaled_kept(part, smaller)})
    had = scale_part(part, theirs.grams / ours.grams)
    taken = other.model_copy(
        update={"lines": had.lines, "family": part.family, "name": part.name or other.name, "made_on": giver.title}
    )
    return _with_part(giver, bigger), _with_part(taker, taken)


def unshare_part(giver: Sheet, taker: Sheet, part_id: PartId) -> tuple[Sheet, Sheet]:
    """Each makes its own again: the giver as much less, the taker what it had."""
    part, other = _part_of(giver, part_id), _part_of(taker, part_id)
    share = sum(share.share for share in part.made_for if share.sheet == taker.title)
    if not share or other.made_on != giver.title:
        refuse("with", say("does not share this part"), say("a sheet that it is made for"))
    rest = 1 - share
    smaller = scale_part(part, rest).model_copy(
        update={
            "made_for": tuple(
                share.model_copy(update={"share": share.share / rest})
                for share in part.made_for
                if share.sheet != taker.title
            ),
            "kept": _scaled_kept(part, 1 / rest),
        }
    )
    return _with_part(giver, smaller), _with_part(taker, other.model_copy(update={"made_on": ""}))


def _part_of(sheet: Sheet, part_id: PartId) -> Part:
    part = sheet.part(part_id)
    if part is None or part_id == "base":
        refuse(
            "role",
            say("{title} has no {role} to share", title=sheet.title, role=part_id),
            say("a part beside the base"),
        )
    return part


def _finished_part(sheet: Sheet, part_id: PartId, kitchen: Kitchen) -> FinishedPart:
    _part_of(sheet, part_id)
    shelf = Shelf(kitchen)
    bowl = weigh(sheet, shelf)
    own = sum(line.grams for line in bowl.lines if line.part_id == part_id)
    if abs(own - bowl.parts[part_id].grams) > 1e-6:
        refuse(
            "role",
            say(
                "some of the {role} of {title} is held back or shared with its other parts",
                role=part_id,
                title=sheet.title,
            ),
            say("a part whose lines are its own"),
        )
    return yield_parts(Calculation(sheet, kitchen, shelf, bowl))[part_id]


def _with_part(sheet: Sheet, part: Part) -> Sheet:
    return sheet.model_copy(
        update={"parts": tuple(part if each_part.id == part.id else each_part for each_part in sheet.parts)}
    )


def _scaled_kept(part: Part, factor: float) -> PartialAmount | None:
    """What is kept of a part that is made larger or smaller: an amount stays, a share is of another whole."""
    if part.kept is None or part.kept.share is None:
        return part.kept
    return PartialAmount(share=min(1.0, part.kept.share * factor))
