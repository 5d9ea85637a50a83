"""The finished cake: what is eaten, with everything that is in it and on it."""

from __future__ import annotations

from kemble.core.facts.fact import CONSERVATION, Origin, leaf
from kemble.core.facts.vocabulary import PartId, role_of
from kemble.core.kitchen.larder import SOURCE, Composition
from kemble.core.sentences import say
from kemble.core.sheet.bowl import PartOutput
from kemble.core.stations.calculation import Calculation


def ends_in_it(calculation: Calculation) -> list[PartOutput]:
    """The outputs whose rest goes in or on what is eaten; leaves and paper are not, nor a filling of what is sheeted."""
    sheeted = calculation.follows(calculation.way.sheeted_when)
    return [
        had
        for bowl in calculation.bowl.parts.values()
        for had in bowl.outputs
        if had.place.to == "whole" and had.rest > 0 and had.made.output.group != "leaf"
        if not (sheeted and had.place.where == "within")
    ]


def sweetness_pct(calculation: Calculation, of_base_pct: float, base_g: float) -> float:
    """Sugar on 100 of flour or dry grain: in a tin, where all lies together, that of every part that ends in it."""
    if calculation.way.form != "tin":
        return of_base_pct
    return of_base_pct + sum(100 * had.composition(had.rest).sugar / base_g for had in ends_in_it(calculation))


def tray_g(calculation: Calculation) -> float:
    """What lies in the tray when it is cut: all of it, but for what each piece is then coated with."""
    coats = sum(had.rest for had in ends_in_it(calculation) if had.place.where == "round")
    return calculation.fact_book.number("whole.g") - coats


def enter_whole_tray(calculation: Calculation, cooked: Composition) -> None:
    """All of it in its tins. `cooked` is the base once it is done."""
    body = calculation.fact_book.number("mix.cooked_g")
    share = body / cooked.total if cooked.total else 1.0
    parts = [(had, had.rest) for had in ends_in_it(calculation)]
    _enter_whole(calculation, cooked.scaled(share), body, parts, [])
    if parts:
        _sweetness(calculation)


def goes_on_pieces(calculation: Calculation) -> list[tuple[PartOutput, float]]:
    """Of each output that ends in or on the pieces, the grams that do: no more than there is, no more than a piece takes."""
    return [(had, min(had.rest, wanted)) for had, wanted in wanted_on_pieces(calculation)]


def wanted_on_pieces(calculation: Calculation) -> list[tuple[PartOutput, float]]:
    """Of each output that ends in or on the pieces, the grams that all of them would take."""
    fact_book, count = calculation.fact_book, calculation.fact_book.number("shape.pieces")
    parts = []
    for had in ends_in_it(calculation):
        key = _piece_fact(calculation, had.part_id)
        is_main = had is calculation.bowl.parts[had.part_id].main
        each = fact_book.number(key) if is_main and key in fact_book else had.rest / count if count else 0.0
        parts.append((had, each * count))
    return parts


def _piece_fact(calculation: Calculation, part_id: PartId) -> str:
    """The fact that says how much of a part goes in or on a piece. Of several fillings or hearts each has its own."""
    role, own = role_of(part_id), f"part.{part_id}.piece_g"
    if role not in _EACH or own in calculation.fact_book:
        return own
    return next((fact for fact in _EACH[role] if fact in calculation.fact_book), own)


def enter_whole_pieces(calculation: Calculation, cooked: Composition) -> None:
    """One finished piece, and all of them: the dough of it cooked, and of every part what goes in or on one."""
    fact_book = calculation.fact_book
    if "shape.pieces" not in fact_book:
        return
    count, dough = fact_book.number("shape.pieces"), fact_book.number("shape.base_g")
    total = fact_book.number("mix.cooked_g" if calculation.way.portions == "cooked" else "mix.batch_g")
    used = min(1.0, count * dough / total) if total else 0.0
    _enter_whole(
        calculation,
        cooked.scaled(used),
        fact_book.number("mix.cooked_g") * used,
        goes_on_pieces(calculation),
        ["shape.pieces", "shape.base_g"],
    )
    if count:
        fact_book.add(
            "whole.piece_g",
            fact_book.number("whole.g") / count,
            say("cooked, with what is in it and on it"),
            source=CONSERVATION,
            of=["whole.g", "shape.pieces"],
        )


_EACH: dict[str, tuple[str, ...]] = {"filling": ("shape.paste_g", "shape.filling_g"), "heart": ("shape.heart_g",)}


def _enter_whole(
    calculation: Calculation, body: Composition, body_g: float, parts: list[tuple[PartOutput, float]], of: list[str]
) -> None:
    fact_book = calculation.fact_book
    named: list[Origin] = [
        leaf(f"part.{had.part_id}.made_g", had.item.name, round(grams, 1), "g") for had, grams in parts if grams > 0
    ]
    whole = Composition.summed([body, *(had.composition(grams) for had, grams in parts)])
    names = ", ".join(had.item.name.lower() for had, grams in parts if grams > 0)
    total = fact_book.add(
        "whole.g",
        body_g + sum(grams for _, grams in parts),
        say("the {word} once it is done", word=calculation.way.word("dough"))
        + (say(", with {names}", names=names) if names else ""),
        source=CONSERVATION,
        of=["mix.cooked_g", *of, *named],
    )
    for key, component in (("water", whole.water), ("sugar", whole.sugar), ("fat", whole.fat)):
        fact_book.add(
            f"whole.{key}_pct",
            100 * component / total if total else 0.0,
            say("{key} in the dough and in all that ends in it, on its weight", key=key),
            source=SOURCE,
            of=["whole.g"],
        )


def _sweetness(calculation: Calculation) -> None:
    fact_book = calculation.fact_book
    base_g = fact_book.number("mix.base_g")
    fact_book.add(
        "whole.sweetness_pct",
        sweetness_pct(calculation, fact_book.number("mix.sugar_pct"), base_g),
        say("the sugar of the batter, and of all that ends in it, on 100 of flour or dry grain"),
        source=SOURCE,
        of=["mix.sugar_pct", "mix.base_g", "whole.g"],
    )
