"""Mix: what is in the pot, as ratios on the flour, weights and the temperature at which it will gel."""

from __future__ import annotations

from kemble.core.facts import CONSERVATION, KITCHEN_ESTIMATE, Origin, leaf
from kemble.core.larder import SOURCE, Composition
from kemble.core.physics.doneness import gel_temperature_c
from kemble.core.physics.thermal import fractions, properties
from kemble.core.quantity import Measures, household
from kemble.core.sheet import Line, Sheet
from kemble.core.stations.working import Drawn, Working, composition_of

CHOI_OKOS = "Choi-Okos densities of the components"


class BarShare(Drawn):
    """One material of the bar."""

    material: str
    grams: float


class LineWorked(Drawn):
    """One line of the bowl as it is shown: grams, share of the flour, nearest household measure."""

    part: int
    line: int
    name: str
    group: str
    grams: float
    used_g: float
    pct: float
    household: str
    household_error_pct: float
    splits: tuple[str, ...]
    allergens: tuple[str, ...]
    look_alike: str


class MixDrawing(Drawn):
    bar: tuple[BarShare, ...]
    lines: tuple[LineWorked, ...]
    in_zone: bool
    outcome: str


def _without_flour(sheet: Sheet, component: str) -> tuple[float, list[Origin]]:
    """Grams of a component from every base line but the flour, and each line's contribution, largest first."""
    found = []
    for i, line in enumerate(sheet.base.lines):
        if line.item.group == "flour":
            continue
        mass = getattr(line.item.composition(line.used_g), component)
        if mass >= 0.05:
            found.append(
                (
                    mass,
                    leaf(
                        f"sheet:parts.base.lines.{i}",
                        f"{component} in {line.item.name.lower()}",
                        round(mass, 1),
                        "g",
                    ),
                )
            )
    found.sort(key=lambda pair: -pair[0])
    total = sum(
        getattr(line.item.composition(line.used_g), component)
        for line in sheet.base.lines
        if line.item.group != "flour"
    )
    return total, [origin for _, origin in found]


def _worked_line(part_index: int, line_index: int, line: Line, base_g: float, measures: Measures) -> LineWorked:
    item = line.item
    near = household(line.grams, g_per_ml=item.g_per_ml, measures=measures)
    return LineWorked.model_construct(
        part=part_index,
        line=line_index,
        name=item.name,
        group=item.group,
        grams=line.grams,
        used_g=line.used_g,
        pct=100.0 * line.used_g / base_g,
        household=near.text if near else "",
        household_error_pct=near.error_pct if near else 0.0,
        splits=tuple(f"{split.share * line.used_g:.0f} g {split.at}" for split in line.splits),
        allergens=item.allergens,
        look_alike=item.look_alike,
    )


def inside(point: tuple[float, float], polygon: tuple[tuple[float, float], ...]) -> bool:
    """Whether a point lies inside a polygon, by counting crossings of a ray to the right."""
    x, y = point
    crossings = False
    for (x1, y1), (x2, y2) in zip(polygon, (*polygon[1:], polygon[0]), strict=True):
        if (y1 > y) != (y2 > y) and x < (x2 - x1) * (y - y1) / (y2 - y1) + x1:
            crossings = not crossings
    return crossings


def _softness(hydration: float, sugar: float, working: Working) -> float:
    """-2 firm to +2 soft against the way's midway point. Kitchen estimate: sugar counts half of water."""
    way = working.way
    water = (hydration - way.midway[0]) / ((way.hydration.high - way.hydration.low) / 2)
    sweet = (sugar - way.midway[1]) / ((way.sugar.high - way.sugar.low) / 2)
    return max(-2.0, min(2.0, 1.2 * water + 0.5 * sweet))


_OUTCOMES = (
    (-1.2, "firm and dense"),
    (-0.5, "on the firm side"),
    (0.5, "midway, soft but sliceable"),
    (1.2, "on the soft side"),
    (9.0, "very soft and slow to set"),
)


def mix(working: Working) -> tuple[MixDrawing, Composition]:
    """Ratios, batch, volume and gel temperature of the base. Returns the drawing and the base's composition."""
    sheet, book, way = working.sheet, working.book, working.way
    base = composition_of(sheet.base)
    flour = [line for line in sheet.base.lines if line.item.group == "flour"]
    base_g = book.add(
        "mix.base_g",
        sum(line.used_g for line in flour),
        "the flour of the base, as weighed",
        source=CONSERVATION,
        of=[leaf("sheet:parts.base", line.item.name, line.used_g, "g") for line in flour],
    )
    ratios = {}
    for key, component in (("hydration", "water"), ("sugar", "sugar"), ("fat", "fat"), ("salt", "salt")):
        mass, origins = _without_flour(sheet, component)
        ratios[key] = book.add(
            f"mix.{key}_pct",
            100.0 * mass / base_g,
            f"all the {component} that is not the flour's own, on 100 of flour",
            source=f"baker's percentage; {SOURCE}",
            of=["mix.base_g", *origins],
        )
    batch_g = book.add(
        "mix.batch_g",
        base.total,
        "every line of the base, reserves held back",
        source=CONSERVATION,
        of=[
            leaf(f"sheet:parts.base.lines.{i}", line.item.name, round(line.used_g, 1), "g")
            for i, line in enumerate(sheet.base.lines)
        ],
    )
    book.add(
        "mix.water_g",
        base.water,
        "water in every line, the flour's own included",
        source=SOURCE,
        of=["mix.batch_g"],
    )
    loss = way.cook_loss_pct
    book.add(
        "mix.cooked_g",
        batch_g * (1 - loss.middle / 100),
        f"the batch less {loss.middle:g} % in this heat"
        if loss.middle > 0
        else f"the batch and {-loss.middle:g} % of water taken up",
        source=KITCHEN_ESTIMATE,
        of=["mix.batch_g", leaf("way:cook_loss", "lost in cooking", f"{loss.low:g} to {loss.high:g}", "%")],
        low=batch_g * (1 - loss.high / 100),
        high=batch_g * (1 - loss.low / 100),
    )
    density = properties(fractions(base), 25.0).rho / 1000.0
    book.add(
        "mix.density_g_per_ml",
        density,
        f"the components' volumes added up, at {working.degrees(25)}",
        source=CHOI_OKOS,
        of=["mix.batch_g", "mix.water_g"],
    )
    book.add(
        "mix.volume_ml",
        batch_g / density,
        "batch divided by its density",
        source=CHOI_OKOS,
        of=["mix.batch_g", "mix.density_g_per_ml"],
    )
    in_water = 100.0 * base.sugar / (base.sugar + base.water)
    book.add(
        "mix.sugar_in_water_pct",
        in_water,
        "sugar divided by sugar and water together",
        source=CONSERVATION,
        of=["mix.sugar_pct", "mix.water_g"],
    )
    gel = gel_temperature_c(
        base.sugar / base.water if base.water else 2.0, base.water / base.starch if base.starch else 9.0
    )
    book.add(
        "mix.gel_temperature_c",
        gel,
        f"{working.degrees(65)} in plain water, raised by sugar and by want of water",
        source=KITCHEN_ESTIMATE,
        of=["mix.sugar_in_water_pct", "mix.water_g", "mix.base_g"],
        low=gel - 4,
        high=gel + 4,
    )
    soft = _softness(ratios["hydration"], ratios["sugar"], working)
    book.add(
        "mix.softness",
        soft,
        "how far water and sugar lie from the way's midway; an index, not a measurement",
        source=KITCHEN_ESTIMATE,
        of=[
            "mix.hydration_pct",
            "mix.sugar_pct",
            leaf("way:midway", "water midway", way.midway[0], "%"),
            leaf("way:midway", "sugar midway", way.midway[1], "%"),
        ],
        low=max(-2.0, soft - 0.5),
        high=min(2.0, soft + 0.5),
    )
    in_zone = inside((ratios["hydration"], ratios["sugar"]), way.zone)
    _advise(working, ratios["hydration"], ratios["sugar"], ratios["fat"], in_zone)
    lines = tuple(
        _worked_line(p, i, line, base_g, working.kitchen.measures)
        for p, part in enumerate(sheet.parts)
        for i, line in enumerate(part.lines)
    )
    bar = (
        ("water", base.water),
        ("sugar", base.sugar),
        ("starch", base.starch),
        ("fat", base.fat),
        ("other", base.protein + base.fibre + base.salt + base.other),
    )
    drawing = MixDrawing.model_construct(
        bar=tuple(BarShare.model_construct(material=m, grams=g) for m, g in bar if g >= 0.5),
        lines=lines,
        in_zone=in_zone,
        outcome=next(words for limit, words in _OUTCOMES if soft <= limit),
    )
    return drawing, base


def _advise(working: Working, hydration: float, sugar: float, fat: float, in_zone: bool) -> None:
    way = working.way
    flours = {line.ingredient for line in working.sheet.base.lines if line.item.group == "flour"}
    if "rice-flour" in flours:
        working.advise("mix", "look", "Plain rice flour bakes and boils dry and short. Is it the sweet rice packet?", 0)
    checks = (
        (
            hydration < way.hydration.low,
            f"Dry for this way: it works from {way.hydration.low:g} % water. It may crack.",
            1,
        ),
        (
            hydration > way.hydration.high,
            f"Wet for this way: it works up to {way.hydration.high:g} % water. It may slump.",
            1,
        ),
        (
            sugar < way.sugar.low,
            f"Little sugar for this way: under {way.sugar.low:g} % it is hard as stone tomorrow.",
            2,
        ),
        (
            sugar > way.sugar.high,
            f"Very sweet for this way: over {way.sugar.high:g} % it is slow to gel and slow to set.",
            2,
        ),
        (fat < way.fat.low, f"Little oil: under {way.fat.low:g} % it sticks to the knife.", 4),
        (fat > way.fat.high, f"Much fat: over {way.fat.high:g} % the skin turns greasy.", 4),
    )
    for wrong, says, rank in checks:
        if wrong:
            working.advise("mix", "look", says, rank)
    working.advise("mix", "good", "Drag the bean, or nudge it with the arrow keys: water across, sugar up.", 9)
