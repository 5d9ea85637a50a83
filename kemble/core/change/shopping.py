"""Shopping: what several sheets need, in packs, less what is in the larder, with spares."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field

from pydantic import BaseModel, ConfigDict

from kemble.core.facts.problems import Refused
from kemble.core.facts.vocabulary import Group
from kemble.core.kitchen.document import Kitchen, LarderStock
from kemble.core.kitchen.household_measure import household_measure
from kemble.core.kitchen.larder import Ingredient
from kemble.core.kitchen.shelf import Shelf
from kemble.core.sentences import Words, format_figure, say
from kemble.core.sheet.bowl import weigh
from kemble.core.sheet.document import Sheet
from kemble.core.stations.cautions import allergens
from kemble.core.stations.work_sheet import WorkResult, work

# The order in which a list is walked, and what each shelf is called.
SHELVES: tuple[tuple[str, tuple[Group, ...]], ...] = (
    ("Flour, starch, grain and beans", ("flour", "grain", "legume", "dust")),
    ("Sugar, honey and syrup", ("sugar",)),
    ("Fat and eggs", ("fat", "egg")),
    ("Milks and juices", ("liquid",)),
    ("Nuts and seeds", ("nut",)),
    ("Fruit and pastes", ("fruit", "paste")),
    ("Savoury", ("savoury",)),
    ("Herbs, spice and salt", ("herb", "flavour", "salt")),
    ("Leaves, paper and string", ("leaf",)),
)
_A_HAIR = 1e-6


class ShoppingLine(BaseModel):
    """One thing to buy. Grams; `packs` is None where it is sold loose or made at home."""

    model_config = ConfigDict(frozen=True)

    ingredient: str
    name: Words
    group: Group
    shelf: Words
    need_g: float
    spare_g: float
    have_g: float
    buy_g: float
    packs: int | None
    pack: Words
    pack_g: float | None
    carry_g: float  # in packs; what is sold loose or made at home is none of the shop's
    left_g: float
    pieces: float | None
    household: str
    cost: float | None
    allergens: list[Words]
    look_alike: Words
    sheets: list[str]


class ShoppingList(BaseModel):
    """`cost` is None until a price is entered; `unpriced` counts what it leaves out."""

    model_config = ConfigDict(frozen=True)

    lines: list[ShoppingLine]
    allergens: list[Words]
    notes: list[str]
    cost: float | None
    unpriced: int
    currency: str
    text: str


@dataclass
class _NeededIngredient:
    item: Ingredient
    grams: float = 0.0
    spare: float = 0.0
    sheets: list[str] = field(default_factory=list)


def shopping(sheets: Sequence[Sheet], kitchen: Kitchen) -> ShoppingList:
    """Everything that `sheets` need, once for each time a sheet is given.

    A part that another sheet of the list makes is bought there. Raises Refused for a line that cannot be weighed.
    """
    shelf = Shelf(kitchen)
    needs: dict[str, _NeededIngredient] = {}
    holds: set[str] = set()
    notes: list[str] = []
    titles = {sheet.title for sheet in sheets}
    for sheet in sheets:
        try:
            bowl = weigh(sheet, shelf)
        except Refused as refused:
            raise Refused(
                [problem.model_copy(update={"path": f"{sheet.title}: {problem.path}"}) for problem in refused.problems]
            ) from None
        worked = work(sheet, kitchen)
        brought = _brought(worked, shelf)
        holds.update(allergens(bowl, (item for item, _ in brought)))
        for weighed_line in bowl.lines:
            part = sheet.parts[weighed_line.part]
            if part.made_on in titles:
                continue
            if part.made_on:
                note = say(
                    "{part} for {title}: {made_on} makes it, but is not on this list.",
                    part=part.called,
                    title=sheet.title,
                    made_on=part.made_on,
                )
                notes.extend([note] if note not in notes else [])
            if "tap" in weighed_line.item.tags:
                continue
            _add(needs, weighed_line.item, weighed_line.grams, sheet)
        for item, grams in brought:
            _add(needs, item, grams, sheet)
        _add_spares(sheet, worked, shelf, needs)
    stock = {entry.ingredient: entry for entry in kitchen.stock}
    lines = [_shopping_line(need, stock.get(name), shelf) for name, need in needs.items()]
    order = [name for name, _ in SHELVES]
    lines.sort(key=lambda line: (order.index(line.shelf), line.name))
    priced = [line.cost for line in lines if line.cost is not None]
    cost = sum(priced) if priced else None
    unpriced = sum(1 for line in lines if line.cost is None and line.buy_g > _A_HAIR)
    return ShoppingList(
        lines=lines,
        allergens=sorted(holds),
        notes=notes,
        cost=cost,
        unpriced=unpriced,
        currency=kitchen.currency,
        text=_list_text(lines, sorted(holds), notes, cost, unpriced, kitchen.currency),
    )


def _brought(worked: WorkResult, shelf: Shelf) -> list[tuple[Ingredient, float]]:
    """What the steps need and no line says, in grams: oil for the tin, an egg to fry in. Water comes from the tap."""
    brought = [(shelf.items[item.ingredient], item.grams) for step in worked.steps for item in step.brings]
    return [(item, grams) for item, grams in brought if "tap" not in item.tags]


def _add(needs: dict[str, _NeededIngredient], item: Ingredient, grams: float, sheet: Sheet) -> None:
    need = needs.setdefault(item.id, _NeededIngredient(item))
    need.grams += grams
    if sheet.title not in need.sheets:
        need.sheets.append(sheet.title)


def _add_spares(sheet: Sheet, worked: WorkResult, shelf: Shelf, needs: dict[str, _NeededIngredient]) -> None:
    """Leaves over and above the sheet's, where it has fewer than its pieces and their spares want."""
    wrapper = next(iter(sheet.parts_of("wrapper")), None)
    if wrapper is None or wrapper.made_on:
        return
    wanted = worked.facts.get("shape.wrappers")
    leaves = [
        (item, shelf.grams(item, line.amount.value, line.amount.unit))
        for line in wrapper.lines
        if "wraps" in (item := shelf.items[line.ingredient]).tags
    ]
    if wanted is None or len(leaves) != 1 or leaves[0][0].g_per_piece is None:
        return
    item, grams = leaves[0]
    missing = float(wanted.value) * (item.g_per_piece or 0.0) - grams
    if missing > 0 and item.id in needs:
        needs[item.id].spare += missing


def _shopping_line(need: _NeededIngredient, stock: LarderStock | None, shelf: Shelf) -> ShoppingLine:
    item = need.item
    pack_name, pack_g = item.pack or ("", None)
    if stock and stock.pack_g:
        pack_name, pack_g = pack_name or "pack", stock.pack_g
    have = stock.grams if stock else 0.0
    buy = max(0.0, need.grams + need.spare - have)
    packs = math.ceil(buy / pack_g - _A_HAIR) if pack_g else None
    cost = None
    if stock and stock.price is not None and packs is not None:
        cost = packs * stock.price
    near = household_measure(item, buy, g_per_ml=shelf.g_per_ml(item), spoons=shelf.spoons) if buy > _A_HAIR else None
    return ShoppingLine(
        ingredient=item.id,
        name=item.name,
        group=item.group,
        shelf=next(name for name, groups in SHELVES if item.group in groups),
        need_g=need.grams,
        spare_g=need.spare,
        have_g=have,
        buy_g=buy,
        packs=packs,
        pack=pack_name,
        pack_g=pack_g,
        carry_g=packs * pack_g if packs and pack_g else 0.0,
        left_g=have - need.grams - need.spare + (packs * pack_g if packs and pack_g else 0.0 if packs == 0 else buy),
        pieces=(need.grams + need.spare) / item.g_per_piece if item.g_per_piece else None,
        household=near.text if near else "",
        cost=cost,
        allergens=list(item.allergens),
        look_alike=item.look_alike,
        sheets=need.sheets,
    )


def _grams(grams: float) -> str:
    return (
        say("{grams:.2f} kg", grams=grams / 1000)
        if grams >= 1000
        else f"{grams:.0f} g"
        if grams >= 10
        else f"{format_figure(grams, '.1f')} g"
    )


def _list_text(
    lines: list[ShoppingLine], holds: list[str], notes: list[str], cost: float | None, unpriced: int, currency: str
) -> str:
    """The list as plain text, to copy or print."""
    rows: list[str] = []
    for name, _ in SHELVES:
        wanted = [line for line in lines if line.shelf == name and line.buy_g > _A_HAIR]
        if not wanted:
            continue
        rows += [name, *(f"- {_bought(line)}" for line in wanted), ""]
    at_home = [line for line in lines if line.buy_g <= _A_HAIR]
    if at_home:
        rows += [say("In the larder already"), *(f"- {line.name}, {_grams(line.need_g)}" for line in at_home), ""]
    if holds:
        rows += [say("Allergens: {allergens}.", allergens=", ".join(holds)), ""]
    rows += notes
    if cost is not None:
        left_out = say(", {unpriced} without a price", unpriced=unpriced) if unpriced else ""
        rows.append(say("About {cost:.2f} {currency}", cost=cost, currency=currency).rstrip() + f"{left_out}.")
    return "\n".join(rows).strip() + "\n"


def packs_to_carry(line: ShoppingLine) -> str:
    """What is carried home of it: "2 bags of 500 g"."""
    if not line.packs or not line.pack_g:
        return say("{grams}, loose or made at home", grams=_grams(line.buy_g))
    packs = f"{line.pack}{'s' if line.packs > 1 and not line.pack.endswith('x') else ''}"
    return say("{count} {pack} of {grams}", count=line.packs, pack=packs, grams=_grams(line.pack_g))


def _bought(line: ShoppingLine) -> str:
    text = f"{line.name}: {packs_to_carry(line)}"
    if line.packs and line.pack_g:
        text += say(" ({grams} needed)", grams=_grams(line.buy_g))
    return f"{text}. {line.look_alike}" if line.look_alike else text
