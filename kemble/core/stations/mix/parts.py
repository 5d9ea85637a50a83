"""Parts: what each part beside the base yields, the weight at which it is done, and how far it goes."""

from __future__ import annotations

from dataclasses import dataclass

from kemble.core.cards.family import Finish
from kemble.core.facts.fact import CONSERVATION, KITCHEN_ESTIMATE, Origins, leaf
from kemble.core.facts.vocabulary import PartRole
from kemble.core.kitchen.larder import Composition
from kemble.core.sheet.bowl import PartBowl
from kemble.core.stations.heat.reducing import boil_down
from kemble.core.stations.working import Drawn, Working

_CURD_WATER = 0.28  # of the curds is water that stays; kitchen estimate, 0.2-0.35


class PartWorked(Drawn):
    """One part in numbers for its drawing: what goes in, what is left, what the scale shows."""

    role: str
    name: str
    family: str
    family_name: str
    says: str
    reduced: bool
    raw_g: float
    made_g: float
    low_g: float
    high_g: float
    scale_g: float | None
    pan: str
    kept_g: float
    kept_for: str
    away_g: float
    away_to: tuple[str, ...]
    made_on: str
    have_g: float


@dataclass(frozen=True, slots=True)
class Made:
    """A part when it is done. Grams; `composition` is of the whole of it, `have` what this sheet has of it."""

    role: PartRole
    name: str
    grams: float
    low: float
    high: float
    have: float
    composition: Composition

    @property
    def had(self) -> Composition:
        """The composition of what this sheet has."""
        return self.composition.scaled(self.have / self.grams) if self.grams else self.composition


def parts(working: Working) -> dict[PartRole, Made]:
    """Yield and finishing weight of every part beside the base, in the sheet's order."""
    return {role: _part(working, bowl) for role, bowl in working.bowl.parts.items() if role != "base"}


def _part(working: Working, bowl: PartBowl) -> Made:
    book, part, role = working.book, bowl.part, bowl.role
    finish = bowl.family.finish if bowl.family else Finish()
    raw = book.add(
        f"part.{role}.raw_g",
        bowl.grams,
        "everything that goes into it, reserves and shares for other parts left out",
        source=CONSERVATION,
        of=[
            leaf(contribution.weighed.ref, contribution.item.name, round(contribution.grams, 1), "g")
            for contribution in bowl.contributions
        ],
    )
    made = _finish(working, bowl, finish, raw)
    if finish.boils and raw:
        dry = bowl.of_group("legume")
        starts = finish.boils_from * dry if finish.rule == "times-dry" else raw
        oil = book.number(f"part.{role}.oil_g") if f"part.{role}.oil_g" in book else 0.0
        curds = made.grams if role != "oil" else bowl.composition.solids - oil
        left = curds + oil if finish.rule == "curd" else made.grams
        boil_down(working, bowl, finish.boils, max(0.0, starts - left))
    _sugar(working, bowl)
    away = made.grams * sum(other.share for other in part.made_for)
    kept = made.grams * part.kept
    of: Origins = [f"part.{role}.made_g"]
    if away:
        titles = ", ".join(other.sheet for other in part.made_for)
        book.add(f"part.{role}.away_g", away, f"for {titles}", source=CONSERVATION, of=of)
    if kept:
        book.add(f"part.{role}.kept_g", kept, part.kept_for or "kept back", source=CONSERVATION, of=of)
    have = made.grams - away - kept
    if away or kept:
        book.add(f"part.{role}.have_g", have, "what is left for this sheet", source=CONSERVATION, of=of)
    pan = next((pan for pan in working.kitchen.pans if pan.name == part.pan), None)
    if pan:
        book.add(
            f"part.{role}.scale_g",
            made.grams + pan.empty_g,
            f"with {pan.name}: stop when the scale shows it",
            source=CONSERVATION,
            of=[*of, working.from_kitchen("pans", pan.name, pan.empty_g, "g")],
            low=made.low + pan.empty_g,
            high=made.high + pan.empty_g,
        )
    return Made(role, part.name or role, made.grams, made.low, made.high, have, made.composition)


def _sugar(working: Working, bowl: PartBowl) -> None:
    """Sugar that is added, on the beans or nuts it sweetens, against the family's band."""
    family = bowl.family
    if family is None or family.sugar is None:
        return
    main = bowl.of_group(family.main)
    if not main:
        return
    added = [contribution for contribution in bowl.contributions if contribution.item.group != family.main]
    share = working.book.add(
        f"part.{bowl.role}.sugar_pct",
        100 * sum(contribution.composition.sugar for contribution in added) / main,
        "the sugar in everything else, on the weight of the beans or nuts",
        source=CONSERVATION,
        of=[
            leaf(contribution.weighed.ref, contribution.item.name, round(contribution.grams, 1), "g")
            for contribution in added
        ],
    )
    name, band = bowl.part.name or bowl.role, family.sugar
    if share < band.low:
        working.advise(
            "mix", "look", f"Little sugar in the {name}: under {band.low:g} % it dries and spoils sooner.", 4
        )
    if share > band.high:
        working.advise("mix", "look", f"Much sugar in the {name}: over {band.high:g} % it stays soft and weeps.", 4)


def _finish(working: Working, bowl: PartBowl, finish: Finish, raw: float) -> Made:
    """The weight when done, by the family's rule."""
    book, role, inside = working.book, bowl.role, bowl.composition
    dry = bowl.of_group("legume")
    target = finish.target
    of: Origins = [f"part.{role}.raw_g"]
    likely = low = high = raw
    source = f"{CONSERVATION}; target a {KITCHEN_ESTIMATE}"
    says = finish.says
    done = inside
    if finish.rule == "solids" and inside.solids > 0:
        likely, low, high = (
            min(raw, inside.solids / (share / 100)) for share in (target.middle, target.high, target.low)
        )
        done = inside.with_water(likely - inside.solids)
        if likely >= raw > 0 and raw - inside.solids < raw * (1 - target.high / 100):
            working.advise("mix", "look", f"The {bowl.part.name or role} is thicker than done already: let it down.", 3)
    elif finish.rule == "times-dry" and dry > 0:
        likely, low, high = (max(inside.solids, dry * times) for times in (target.middle, target.low, target.high))
        done = inside.with_water(likely - inside.solids)
    elif finish.rule == "loss":
        likely, low, high = (raw * (1 - share / 100) for share in (target.middle, target.high, target.low))
        done = inside.with_water(inside.water - (raw - likely))
        # What stays behind in the sieve takes more than its water with it: the rest of it shrinks alike.
        done = done.scaled(likely / done.total) if done.total else done
    elif finish.rule == "curd" and inside.fat > 0:
        return _curd(working, bowl, finish)
    else:
        says, source = "everything that goes in", CONSERVATION
    book.add(
        f"part.{role}.made_g",
        likely,
        says,
        source=source,
        of=of,
        low=low if low != high else None,
        high=high if low != high else None,
    )
    if likely < raw - 0.05:
        book.add(f"part.{role}.loss_g", raw - likely, "what went in, less what is made", source=CONSERVATION, of=[*of])
    if finish.rule in ("solids", "times-dry") and likely:
        book.add(
            f"part.{role}.solids_pct",
            100 * inside.solids / likely,
            "all that is not water, on its weight when done",
            source=CONSERVATION,
            of=[f"part.{role}.made_g"],
        )
    if dry and finish.rule == "times-dry":
        book.add(
            f"part.{role}.dry_ratio",
            likely / dry,
            "its weight on the dry beans",
            source=CONSERVATION,
            of=[f"part.{role}.made_g"],
        )
    return Made(role, bowl.part.name or role, likely, low, high, likely, done)


def _curd(working: Working, bowl: PartBowl, finish: Finish) -> Made:
    """Oil and curds of boiled coconut cream. As a topping its yield is the curds, as an oil the oil."""
    book, role, inside = working.book, bowl.role, bowl.composition
    of: Origins = [f"part.{role}.raw_g"]

    def curds(share: float) -> float:
        stays = inside.solids - inside.fat * share / 100
        return stays / (1 - _CURD_WATER)

    shares = (finish.target.middle, finish.target.low, finish.target.high)
    oil, oil_low, oil_high = (inside.fat * share / 100 for share in shares)
    likely, curd_high, curd_low = (curds(share) for share in shares)
    book.add(f"part.{role}.oil_g", oil, finish.says, source=KITCHEN_ESTIMATE, of=of, low=oil_low, high=oil_high)
    as_oil = role == "oil"
    made, low, high = (oil, oil_low, oil_high) if as_oil else (likely, curd_low, curd_high)
    book.add(
        f"part.{role}.made_g",
        made,
        "the oil that parts" if as_oil else "curds: the solids, the fat that stays, and about a quarter water",
        source=KITCHEN_ESTIMATE,
        of=of,
        low=low,
        high=high,
    )
    done = Composition.of(
        (0.0, 0.0, 0.0, oil, 0.0, 0.0, 0.0, 0.0)
        if as_oil
        else (likely * _CURD_WATER, inside.starch, inside.sugar, inside.fat - oil, *inside.parts[4:])
    )
    return Made(role, bowl.part.name or role, made, low, high, made, done)


def parts_worked(working: Working, made: dict[PartRole, Made]) -> tuple[PartWorked, ...]:
    """Each part for the screen."""
    found = []
    for role, one in made.items():
        bowl = working.bowl.parts[role]
        part, family, facts = bowl.part, bowl.family, working.book
        scale = f"part.{role}.scale_g"
        away = made[role].grams * sum(other.share for other in part.made_for)
        found.append(
            PartWorked.model_construct(
                role=role,
                name=one.name,
                family=family.id if family else "",
                family_name=family.name if family else "",
                says=family.finish.says if family else "",
                reduced=bool(family and family.finish.rule != "mixed") and one.grams < bowl.grams - 0.05,
                raw_g=bowl.grams,
                made_g=one.grams,
                low_g=one.low,
                high_g=one.high,
                scale_g=facts.number(scale) if scale in facts else None,
                pan=part.pan,
                kept_g=one.grams * part.kept,
                kept_for=part.kept_for,
                away_g=away,
                away_to=tuple(other.sheet for other in part.made_for),
                made_on=part.made_on,
                have_g=one.have,
            )
        )
    return tuple(found)


def base_worked(working: Working, raw: float, cooked: tuple[float, float, float]) -> PartWorked:
    """The base as a part of its own: with a weight to stop at where it is cooked down in a pan."""
    part, way, book = working.bowl.base.part, working.way, working.book
    likely, low, high = cooked
    return PartWorked.model_construct(
        role="base",
        name=part.name or "base",
        family="",
        family_name="",
        says="the water that its heat takes is gone",
        reduced=way.base == "flour" and way.portions == "cooked" and likely < 0.97 * raw,
        raw_g=raw,
        made_g=likely,
        low_g=low,
        high_g=high,
        scale_g=book.number("mix.scale_g") if "mix.scale_g" in book else None,
        pan=part.pan,
        kept_g=0.0,
        kept_for="",
        away_g=0.0,
        away_to=(),
        made_on="",
        have_g=likely,
    )
