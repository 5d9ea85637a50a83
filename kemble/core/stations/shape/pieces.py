"""Pieces: dough or grain shared out, plain or with a filling in or round it; what runs out first; one of them measured."""

from __future__ import annotations

import math
from collections.abc import Mapping
from typing import Literal

import numpy as np

from kemble.core.cards.way import Form
from kemble.core.facts.fact import CONSERVATION, GEOMETRY, KITCHEN_ESTIMATE, FactBook, Origins
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.facts.vocabulary import PartId, role_of
from kemble.core.geometry.filled_ball import Ball, PieceDensities, sphere_mm
from kemble.core.kitchen.larder import Composition
from kemble.core.sentences import Words, say
from kemble.core.sheet.bowl import PartBowl
from kemble.core.stations.calculation import AnswerModel, Calculation
from kemble.core.stations.mix.mix import CHOI_OKOS, MixResult
from kemble.core.stations.mix.part_yields import FinishedPart
from kemble.core.stations.shape.leaf_parcels import leaf_parcel, leaves_to_a_parcel
from kemble.core.stations.shape.portioning_tools import RolledDrawing, disc, packet, roll_out, rope, scoop
from kemble.core.stations.shape.portions import (
    A_HAIR,
    MOST_PIECES,
    WITHIN,
    Cannot,
    PortionFix,
    Portions,
    WholeCentre,
    as_heart,
    ball_in,
    filling_of,
    heart_of,
    portioned,
    rolled_dough_g,
    stuff_of,
)

_HANDS_ML, _HANDS_EACH_ML = 200.0, 3.0  # set out for the hands, and a little a piece
_DUST_MM = (0.2, 0.1, 0.4)  # of starch on a brushed piece: likely, low, high; kitchen estimate
_A_FILM_MM = 0.05  # a layer thinner than that is none
_NEAR_TEARING_MM = 0.4  # a skin no thicker than the least and this is told before it tears
_LEAST_PASTE_MM = 2.0  # a thinner layer lets a whole fruit show through: then it is spoken of


class BallDrawing(AnswerModel):
    """One piece in section. `outside`: the filling is the shell and the dough the core. mm and g.

    The densities let the drawing follow a hand before the facts do.
    """

    kind: Literal["ball"] = "ball"
    form: Form = "ball"
    outside: bool = False
    outer_mm: float
    core_mm: float
    heart_mm: float = 0.0
    heart_g: float = 0.0
    heart_name: str = ""
    least_skin_mm: float
    near_skin_mm: float = 0.0
    dough_name: Words = "dough"
    piece_name: Words = "ball"
    piece_names: Words = "balls"
    dough_total_g: float
    filling_total_g: float
    dough_g_per_ml: float
    filling_g_per_ml: float
    filling_name: str
    filling_word: Words = "filling"
    rolled: RolledDrawing | None = None
    remedies: tuple[PortionFix, ...]
    cannot: Cannot = ""  # there is no such piece, and why: drawn as it was asked for, no station works with it

    @property
    def is_possible(self) -> bool:
        return not self.cannot


def shape_pieces(calculation: Calculation, mixed: MixResult) -> tuple[BallDrawing | None, Composition | None]:
    """Weights and sizes of the pieces: the drawing and what is within. With a problem noted, the piece that cannot be,
    or None where nothing of it is known."""
    way = calculation.way
    filling, heart = filling_of(mixed), heart_of(calculation.bowl, mixed.made)
    if heart and not heart.each_g:
        calculation.problem(
            "parts", say("nobody has said how heavy one {name} is", name=heart.name), say("the weight of one, in g")
        )
        return None, None
    stuff = stuff_of(calculation, filling, heart)
    portions, cannot = portioned(calculation, mixed, filling, heart, stuff)
    outside = way.wraps == "outside" and filling is not None
    within = portions.filling_g > 0
    ball = ball_in(portions, stuff, outside)
    if not cannot and within and (ball.inner_g <= 0 or ball.skin_mm < _A_FILM_MM):
        calculation.problem(
            "pieces",
            say(
                "{dough_g} and {filling_g} leave no layer round the other",
                dough_g=calculation.weight(portions.dough_g),
                filling_g=calculation.weight(portions.filling_g),
            ),
            say("more of what goes outside, or less inside"),
        )
        cannot = "layer"
    if cannot:
        return _piece_drawing(calculation, portions, ball, stuff, filling, heart, cannot=cannot), None
    _enter_weights(calculation, portions, heart)
    _enter_parts(calculation, mixed.made, portions, ball)
    _enter_sizes(calculation, portions, ball, heart)
    rolled = None
    if calculation.follows(way.rolled_when):
        rolled = roll_out(calculation, portions.dough_g, portions.dough_total)
        if rolled is None:
            return None, None
    least = _enter_least(calculation)
    _advise_on_pieces(calculation, portions, ball, heart, least)
    _enter_trim(calculation, portions)
    _enter_hands(calculation)
    drawing = _piece_drawing(
        calculation,
        portions,
        ball,
        stuff,
        filling,
        heart,
        least=least,
        rolled=rolled,
        remedies=_remedies(calculation, portions),
    )
    inside = [filling] if filling else []
    if heart:
        inside += [finished for part_id, finished in mixed.made.items() if role_of(part_id) == "heart"]
    return drawing, Composition.summed(part.composition for part in inside) if inside else None


def _remedies(calculation: Calculation, portions: Portions) -> tuple[PortionFix, ...]:
    fixes = (*portions.remedies(calculation), *leaf_parcel(calculation, portions))
    return tuple(_as_finished(calculation, fix) for fix in fixes)


def _piece_drawing(
    calculation: Calculation,
    portions: Portions,
    ball: Ball,
    stuff: PieceDensities,
    filling: FinishedPart | None,
    heart: WholeCentre | None,
    *,
    least: float = 0.0,
    rolled: RolledDrawing | None = None,
    remedies: tuple[PortionFix, ...] = (),
    cannot: Cannot = "",
) -> BallDrawing:
    """The piece in section, also one that cannot be: as it was asked for."""
    way = calculation.way
    outside = way.wraps == "outside" and filling is not None
    return unchecked_model(
        BallDrawing,
        kind="ball",
        form=way.form,
        outside=outside,
        outer_mm=ball.diameter_mm,
        core_mm=max(0.0, ball.core_mm) if portions.filling_g > 0 else 0.0,
        heart_mm=ball.heart_mm if heart else 0.0,
        heart_g=portions.heart_g,
        heart_name=heart.name if heart else "",
        least_skin_mm=least,
        near_skin_mm=least + _NEAR_TEARING_MM if least else 0.0,
        dough_name=way.word("dough"),
        piece_name=way.word("piece"),
        piece_names=way.many_pieces,
        dough_total_g=portions.dough_total,
        filling_total_g=portions.filling_total,
        dough_g_per_ml=stuff.inner_g_per_ml if outside else stuff.outer_g_per_ml,
        filling_g_per_ml=stuff.outer_g_per_ml if outside else stuff.inner_g_per_ml,
        filling_name=filling.name if filling else heart.name if heart else "",
        filling_word=way.word("filling"),
        rolled=rolled,
        remedies=remedies,
        cannot=cannot,
    )


_LABELS = {
    "dough_g": ("dough in a piece", "g"),
    "filling_g": ("within a piece", "g"),
    "piece_g": ("weight of a piece", "g"),
    "skin_pct": ("skin, of the whole", "%"),
    "skin_mm": ("skin", "mm"),
    "diameter_mm": ("across", "mm"),
}


def _enter_trim(calculation: Calculation, portions: Portions) -> None:
    """What a piece is begun with where some of its dough is pinched off once it is closed."""
    trim = (calculation.sheet.pieces.trim_pct or 0.0) / 100
    if not trim:
        return
    of: Origins = [
        "shape.base_g",
        calculation.from_sheet("pieces.trim_pct", say("pinched off"), round(100 * trim), "%"),
    ]
    pinch = calculation.fact_book.add(
        "shape.pinch_g",
        portions.dough_g / (1 - trim),
        say("what stays on the piece, and what is pinched off"),
        source=CONSERVATION,
        of=of,
    )
    calculation.fact_book.add(
        "shape.trim_g",
        (pinch - portions.dough_g) * portions.count,
        say("kneaded together it is the dough of the last pieces"),
        source=CONSERVATION,
        of=["shape.pinch_g", "shape.pieces"],
    )


def _enter_hands(calculation: Calculation) -> None:
    """Salted water for the hands, where a way wets them."""
    fact_book, salt = calculation.fact_book, calculation.way.hands_salt_pct
    if not salt:
        return
    ml = fact_book.add(
        "shape.hand_water_ml",
        _HANDS_ML + _HANDS_EACH_ML * fact_book.number("shape.pieces"),
        say("a bowl to dip both hands in, and what each piece takes along"),
        source=KITCHEN_ESTIMATE,
        of=["shape.pieces"],
    )
    fact_book.add(
        "shape.hand_salt_g",
        ml * salt / 100,
        say("{salt:g} % of it: tasted on the outside, no more", salt=salt),
        source=KITCHEN_ESTIMATE,
        of=["shape.hand_water_ml"],
    )


def _as_finished(calculation: Calculation, remedy: PortionFix) -> PortionFix:
    """A remedy changes weights and count; how a piece is finished stays."""
    asked = calculation.sheet.pieces
    if not (asked.bare_pct or asked.trim_pct):
        return remedy
    finished = remedy.pieces.model_copy(update={"bare_pct": asked.bare_pct, "trim_pct": asked.trim_pct})
    return remedy.model_copy(update={"pieces": finished})


def _least_skin(calculation: Calculation) -> float:
    """The thinnest outer layer that holds: by school, or between schools by how much of the water is scalded."""
    way, said = calculation.way, calculation.sheet.start.scald_pct
    if said is None or not way.scalds:
        return way.least_skin(calculation.schools)
    told = sorted(
        (share, way.least_skin({**calculation.schools, choice: school})) for choice, school, share in way.scalds
    )
    shares, leasts = zip(*told, strict=True)
    return float(np.interp(said / 100.0, shares, leasts))


def _measure_origins(calculation: Calculation) -> Origins:
    """The measures of a piece that the sheet says, as origins."""
    return [
        calculation.from_sheet(f"pieces.{name}", _LABELS[name][0], round(value, 2), _LABELS[name][1])
        for name, value in calculation.sheet.pieces.measures.items()
    ]


def _enter_least(calculation: Calculation) -> float:
    """How thin what lies outside may be, in mm; 0 where nothing says so."""
    least = _least_skin(calculation)
    if least:
        calculation.fact_book.add(
            "shape.least_skin_mm",
            least,
            say("thinner, it tears when it is closed"),
            source=KITCHEN_ESTIMATE,
            of=[
                origin
                for choice in calculation.way.choices
                if choice.station == "shape"
                for origin in calculation.school(choice.id)
            ],
        )
    return least


def _enter_weights(calculation: Calculation, portions: Portions, heart: WholeCentre | None) -> None:
    fact_book, asked, way = calculation.fact_book, calculation.sheet.pieces, calculation.way
    batch = "mix.cooked_g" if way.portions == "cooked" else "mix.batch_g"
    dough, filling = way.word("dough"), way.word("filling")
    enough: Origins = ["shape.base_enough_for"]
    weights: Origins = ["shape.base_g"]
    said = _measure_origins(calculation)
    rolled = rolled_dough_g(calculation, portions.dough_total)
    if rolled:
        size = calculation.size(calculation.sheet.rolled.length_mm or 0.0, calculation.sheet.rolled.width_mm or 0.0)
        said = [*said, calculation.from_sheet("rolled", say("rolled to"), size)]
    words = (
        say("what the cutter takes of all the {dough}, rolled to that size", dough=dough)
        if rolled
        else say("from two measures of the piece")
        if len(said) == 2 and not asked.dough_g
        else say("{dough} shared equally", dough=dough)
    )
    fact_book.add(
        "shape.base_g",
        portions.dough_g,
        say("as on the sheet") if asked.dough_g else words,
        source="sheet" if asked.dough_g else GEOMETRY,
        of=[batch, *said],
    )
    fact_book.add(
        "shape.base_enough_for",
        portions.base_for,
        say("all the {dough} over the {dough} in a piece", dough=dough),
        source=CONSERVATION,
        of=[batch, "shape.base_g"],
    )
    if heart:
        fact_book.add(
            "shape.heart_g",
            heart.each_g,
            say("one {name}", name=heart.name),
            source="sheet" if all(each.part.each_g for each in calculation.bowl.of_role("heart")) else "larder",
            of=[f"part.{each.id}.made_g" for each in calculation.bowl.of_role("heart")],
        )
    if portions.filling_g:
        weights.append("shape.filling_g")
        _enter_within(calculation, portions, heart, said)
    if portions.filling_g and portions.filling_total:
        enough.append("shape.filling_enough_for")
    _enter_count(calculation, portions, enough)
    fact_book.add(
        "shape.piece_g",
        portions.dough_g + portions.filling_g,
        say("{dough} and {filling} together", dough=dough, filling=filling) if portions.filling_g else dough,
        source=CONSERVATION,
        of=weights,
    )
    fact_book.add(
        "shape.left_over_g",
        portions.left_over_g,
        say("what is left of the other when the shorter is used up"),
        source=CONSERVATION,
        of=["shape.pieces", *enough],
    )


def _enter_count(calculation: Calculation, portions: Portions, enough: Origins) -> None:
    """How many pieces there are: whole ones, by whichever is short."""
    asked, way = calculation.sheet.pieces, calculation.way
    dough, filling = way.word("dough"), way.word("filling")
    wanted = calculation.from_sheet("pieces.count", say("pieces asked for"), asked.count or say("as many as it makes"))
    shorter = say("the shorter of {dough} and {filling}, whole pieces only", dough=dough, filling=filling)
    calculation.fact_book.add(
        "shape.pieces",
        float(portions.count),
        shorter if portions.filling_g else say("whole pieces only"),
        source=CONSERVATION,
        of=[*enough, wanted],
    )


def _enter_within(calculation: Calculation, portions: Portions, heart: WholeCentre | None, said: Origins) -> None:
    """What lies within a piece, how many that is enough for, and how much it is on its dough."""
    fact_book, asked, way = calculation.fact_book, calculation.sheet.pieces, calculation.way
    dough, filling = way.word("dough"), way.word("filling")
    within: Origins = [_had_fact(fact_book, part.id) for part in calculation.bowl.of_role("filling")]
    words = (
        say("from two measures of the piece") if len(said) == 2 else say("{filling} shared equally", filling=filling)
    )
    fact_book.add(
        "shape.filling_g",
        portions.filling_g,
        say("as on the sheet") if asked.filling_g else words,
        source="sheet" if asked.filling_g else GEOMETRY,
        of=[*within, *said, *(["shape.heart_g"] if heart else [])],
    )
    if heart and portions.filling_total:
        fact_book.add(
            "shape.paste_g",
            portions.paste_g,
            say("all that is within, less the {name}", name=heart.name),
            source=CONSERVATION,
            of=["shape.filling_g", "shape.heart_g"],
        )
    if portions.filling_total:
        fact_book.add(
            "shape.filling_enough_for",
            portions.filling_for if math.isfinite(portions.filling_for) else float(MOST_PIECES),
            say("all the {filling} over the {filling} in a piece", filling=filling),
            source=CONSERVATION,
            of=[*within, "shape.paste_g" if heart else "shape.filling_g"],
        )
    fact_book.add(
        "shape.filling_on_base_pct",
        100 * portions.filling_g / portions.dough_g,
        say("{filling} on {dough}, by weight", filling=filling, dough=dough),
        source=CONSERVATION,
        of=["shape.base_g", "shape.filling_g"],
    )


def share_parts(
    calculation: Calculation,
    made: dict[PartId, FinishedPart],
    count: int,
    pieces: str,
    diameter_mm: float | None = None,
) -> dict[str, PartId]:
    """What of each further part goes on a piece, and how far it goes. Returns the fact and the part of those that can run out.

    What is kept, or goes into another part, is no share of a piece. `diameter_mm` of a round piece says how much dust stays
    on it.
    """
    fact_book, way = calculation.fact_book, calculation.way
    enough: dict[str, PartId] = {}
    for part_id, finished in made.items():
        bowl = calculation.bowl.parts[part_id]
        part = bowl.part
        if part.role in way.counted or part.role in WITHIN or part.role == "wrapper":
            continue
        if bowl.main.place.to not in ("whole", "beside"):
            continue
        have = _had_fact(fact_book, part_id)
        share = finished.have / max(1, count)
        stays = _dust_that_stays(bowl, diameter_mm) if diameter_mm and not part.each_g else None
        if stays and stays[0] < share:
            fact_book.add(
                f"part.{part_id}.piece_g",
                stays[0],
                say("a film of it stays on the piece, the rest is brushed off"),
                source=KITCHEN_ESTIMATE,
                of=[have, pieces],
                low=stays[1],
                high=min(share, stays[2]),
            )
            continue
        fact_book.add(
            f"part.{part_id}.piece_g",
            part.each_g or share,
            say("as on the sheet") if part.each_g else say("shared equally"),
            source="sheet" if part.each_g else CONSERVATION,
            of=[have, pieces],
        )
        if part.each_g:
            fact_book.add(
                f"part.{part_id}.enough_for",
                finished.have / part.each_g,
                say("all of it over what goes on a piece"),
                source=CONSERVATION,
                of=[have, f"part.{part_id}.piece_g"],
            )
            enough[f"part.{part_id}.enough_for"] = part_id
    return enough


def _dust_that_stays(bowl: PartBowl, diameter_mm: float) -> tuple[float, float, float] | None:
    """Grams of raw starch that stay on a round piece once it is brushed: likely, low, high. None for what is meant to be
    eaten."""
    if not all("raw-starch" in each.item.tags for each in bowl.contributions):
        return None
    g_per_mm = math.pi * diameter_mm**2 * bowl.main.item.g_per_ml / 1000.0
    likely, low, high = (g_per_mm * mm for mm in _DUST_MM)
    return likely, low, high


def _had_fact(fact_book: FactBook, part_id: PartId) -> str:
    """The fact that says how much of a part this sheet has."""
    have = f"part.{part_id}.have_g"
    return have if have in fact_book else f"part.{part_id}.made_g"


def _share_what_is_within(calculation: Calculation, made: Mapping[PartId, FinishedPart], portions: Portions) -> None:
    """Of several fillings or hearts, what of each goes into a piece: fillings by how much there is of each."""
    fact_book, bowl = calculation.fact_book, calculation.bowl
    fillings, hearts = bowl.of_role("filling"), bowl.of_role("heart")
    if len(fillings) > 1 and portions.filling_total:
        for part in fillings:
            fact_book.add(
                f"part.{part.id}.piece_g",
                portions.paste_g * made[part.id].have / portions.filling_total,
                say("its share of what is within, by how much there is of each"),
                source=CONSERVATION,
                of=[_had_fact(fact_book, part.id), "shape.filling_g"],
            )
    for part in hearts if len(hearts) > 1 else ():
        heart = as_heart(part, made[part.id])
        fact_book.add(
            f"part.{part.id}.piece_g",
            heart.each_g,
            say("one {name}", name=heart.name),
            source="sheet" if part.part.each_g else "larder",
            of=[_had_fact(fact_book, part.id)],
        )


def _enter_parts(calculation: Calculation, made: dict[PartId, FinishedPart], portions: Portions, ball: Ball) -> None:
    """How far each further part goes, which of all runs out first, and the leaves to soak."""
    fact_book, way = calculation.fact_book, calculation.way
    enough: Origins = ["shape.base_enough_for"]
    if portions.filling_total:
        enough.append("shape.filling_enough_for")
    enough.extend(share_parts(calculation, made, portions.count, "shape.pieces", ball.diameter_mm))
    _share_what_is_within(calculation, made, portions)
    words = {"dough": way.word("dough"), "filling": way.word("filling"), "": "nothing"}
    first = portions.first_short
    fact_book.add(
        "shape.short_of",
        words.get(first, first),
        say("whichever is enough for the fewest pieces"),
        source=CONSERVATION,
        of=enough,
    )
    wrapper = next(iter(calculation.bowl.of_role("wrapper")), None)
    each = leaves_to_a_parcel(calculation)
    if each and wrapper and calculation.sheet.wrap.outer != "foil":
        spare = wrapper.family.spare_pct if wrapper.family else 0.0
        leaves = math.ceil(portions.count * each * (1 + spare / 100))
        fact_book.add(
            "shape.wrappers",
            float(leaves),
            say(
                "{each} to a {word}, and {spare:.0f} % over because some tear",
                each=each,
                word=way.word("piece"),
                spare=spare,
            ),
            source=KITCHEN_ESTIMATE,
            of=["shape.pieces"],
        )
        soaked = sum(
            contribution.grams / contribution.item.g_per_piece
            for contribution in wrapper.contributions
            if contribution.item.g_per_piece and "wraps" in contribution.item.tags
        )
        if soaked and soaked < leaves:
            says = say(
                "{leaves} leaves, spares in; the sheet has {soaked:.0f}. Some tear: soak more.",
                leaves=leaves,
                soaked=soaked,
            )
            calculation.advise("shape", "look", says, 2)


def _enter_heart(calculation: Calculation, ball: Ball, heart: WholeCentre, volumes: str) -> None:
    """The whole fruit or nut across, and how thick the filling lies round it."""
    fact_book = calculation.fact_book
    said = all(each.part.each_mm for each in calculation.bowl.of_role("heart"))
    fact_book.add(
        "shape.heart_mm",
        ball.heart_mm,
        say("as on the sheet") if said else say("a sphere of one {name}'s volume", name=heart.name),
        source="sheet" if said else volumes,
        of=["shape.heart_g"],
    )
    fact_book.add(
        "shape.paste_mm",
        (ball.core_mm - ball.heart_mm) / 2,
        say("half the difference of what lies within and the {name}", name=heart.name),
        source=GEOMETRY,
        of=["shape.core_mm", "shape.heart_mm"],
    )


def _enter_sizes(calculation: Calculation, portions: Portions, ball: Ball, heart: WholeCentre | None) -> None:
    """Diameters of piece, core and heart in mm, with the skin, and the disc, rope, spoon or packet that follow."""
    fact_book, way = calculation.fact_book, calculation.way
    outside, within = way.wraps == "outside" and portions.paste_g > 0, portions.filling_g > 0
    dough, stuff = way.word("dough"), way.word("filling")
    volumes = f"{GEOMETRY}; {CHOI_OKOS}"
    dough_ml = portions.dough_g / fact_book.number("mix.density_g_per_ml")
    outer_ml = ball.outer_g / ball.stuff.outer_g_per_ml
    if way.form == "packet":
        packet(calculation, outer_ml + (ball.inner_ml if within else 0.0), volumes)
    fact_book.add(
        "shape.diameter_mm",
        ball.diameter_mm,
        say("a sphere of the {dough}'s and the {stuff}'s volumes", dough=dough, stuff=stuff)
        if within
        else say("a sphere of the {dough}'s volume", dough=dough),
        source=volumes,
        of=["shape.piece_g", "mix.density_g_per_ml"],
    )
    if within:
        inner, shell = (dough, stuff) if outside else (stuff, dough)
        fact_book.add(
            "shape.core_mm",
            ball.core_mm,
            say("a sphere of the {inner}'s volume", inner=inner),
            source=volumes,
            of=["shape.base_g" if outside else "shape.filling_g"],
        )
        fact_book.add(
            "shape.skin_mm",
            ball.skin_mm,
            say("half the difference of piece and core: the {shell}", shell=shell),
            source=GEOMETRY,
            of=["shape.diameter_mm", "shape.core_mm"],
        )
        fact_book.add(
            "shape.skin_pct",
            100 * ball.outer_share,
            say("the {shell} outside, of the whole piece's weight", shell=shell),
            source=CONSERVATION,
            of=["shape.base_g", "shape.filling_g"],
        )
    if heart:
        _enter_heart(calculation, ball, heart, volumes)
    if within and way.form == "ball" and ball.skin_mm > _A_FILM_MM:
        disc(calculation, outer_ml * (1 - (calculation.sheet.pieces.bare_pct or 0.0) / 100), ball.skin_mm)
    if portions.paste_g > 0 and way.form == "ball":
        scoop(calculation, portions.paste_g, ball.stuff.outer_g_per_ml if outside else ball.stuff.inner_g_per_ml)
    if way.form in ("ball", "pull") and way.base == "flour":
        rope(calculation, dough_ml, sphere_mm(dough_ml) if way.portions == "cooked" else ball.diameter_mm)


def _advise_on_pieces(
    calculation: Calculation, portions: Portions, ball: Ball, heart: WholeCentre | None, least: float
) -> None:
    way = calculation.way
    skin_mm = ball.skin_mm
    if portions.filling_g and skin_mm < least:
        stuff = way.word("filling") if way.wraps == "outside" else "skin"
        says = say(
            "The {stuff} is {skin_mm}: under {least} it tears. Less inside, or more outside.",
            stuff=stuff,
            skin_mm=calculation.length(skin_mm, 1),
            least=calculation.length(least, 1),
        )
        calculation.advise("shape", "look", says, 1)
    elif portions.filling_g and skin_mm < least + _NEAR_TEARING_MM:
        stuff = way.word("filling") if way.wraps == "outside" else "skin"
        says = say(
            "The {stuff} is {skin_mm}, hardly more than the {least} at which it tears: handle it gently.",
            stuff=stuff,
            skin_mm=calculation.length(skin_mm, 1),
            least=calculation.length(least, 1),
        )
        calculation.advise("shape", "look", says, 3)
    if heart and portions.filling_total and (paste := (ball.core_mm - ball.heart_mm) / 2) < _LEAST_PASTE_MM:
        says = say(
            "Only {left} of {word} round the {name}: it shows through.",
            left=calculation.length(max(0.0, paste), 1),
            word=way.word("filling"),
            name=heart.name,
        )
        calculation.advise("shape", "look", says, 2)
    if portions.wanted and portions.can < portions.wanted:
        short = way.word("filling" if portions.short == "filling" else "dough")
        says = say(
            "The {part} is enough for {can}, not for {wanted}.", part=short, can=portions.can, wanted=portions.wanted
        )
        calculation.advise("shape", "look", says, 2)
    for name, have, each in portions.others:
        if have < portions.count * each - A_HAIR:
            says = say(
                "The {name} is enough for {can} of {wanted}: {missing} short.",
                name=name,
                can=math.floor(have / each + A_HAIR),
                wanted=portions.count,
                missing=calculation.weight(portions.count * each - have),
            )
            calculation.advise("shape", "look", says, 3)
    if portions.filling_g and way.form == "ball":
        says = say(
            "{capitalize} balled first, all equal. Cover what waits.", capitalize=way.word("filling").capitalize()
        )
        calculation.advise("shape", "before", says, 6)
    calculation.advise("shape", "before", say("Weigh the first three against the target. Cover what waits."), 8)
