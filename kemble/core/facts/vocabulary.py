"""The list of fact keys: each with its words, unit and the decimals that are shown."""

from __future__ import annotations

from typing import Literal, NamedTuple, get_args

PartRole = Literal[
    "base", "syrup", "filling", "broth", "topping", "coat", "glaze", "oil", "herb", "wrapper", "heart",
    "liquid", "crust", "layer", "decoration",
]  # fmt: skip

# A part of a sheet by name: its role; of further parts of that role, "syrup-2" and so on. In stored sheets, facts and steps.
PartId = str
MOST_OF_A_ROLE = 9
PART_ID = rf"^(?:{'|'.join(get_args(PartRole))})(?:-[2-{MOST_OF_A_ROLE}])?$"


def role_of(part_id: PartId) -> PartRole:
    """The role of the part that is named so: "syrup" of "syrup-2".

    >>> role_of("syrup-2"), role_of("filling")
    ('syrup', 'filling')
    """
    role: PartRole = part_id.partition("-")[0]  # type: ignore[assignment]
    return role


Group = Literal[
    "flour",
    "grain",
    "legume",
    "liquid",
    "sugar",
    "fat",
    "egg",
    "nut",
    "fruit",
    "paste",
    "flavour",
    "herb",
    "savoury",
    "salt",
    "dust",
    "leaf",
]


class FactKey(NamedTuple):
    label: str
    unit: str
    decimals: int


KEYS: dict[str, FactKey] = {
    # Mix
    "mix.base_g": FactKey("flour or dry grain", "g", 0),
    "mix.hydration_pct": FactKey("effective hydration", "%", 0),
    "mix.sugar_pct": FactKey("sugar to flour", "%", 0),
    "mix.fat_pct": FactKey("fat to flour", "%", 1),
    "mix.salt_pct": FactKey("salt to flour", "%", 2),
    "mix.batch_g": FactKey("batch before cooking", "g", 0),
    "mix.water_g": FactKey("water in the batch", "g", 0),
    "mix.cooked_g": FactKey("weight when cooked", "g", 0),
    "mix.scale_g": FactKey("when cooked, pan and all on the scale", "g", 0),
    "mix.volume_ml": FactKey("volume when it is shaped", "ml", 0),
    "mix.density_g_per_ml": FactKey("density when it is shaped", "g/ml", 2),
    "mix.sugar_in_water_pct": FactKey("sugar in the sugar and water", "%", 0),
    "mix.gel_temperature_c": FactKey("starch gels at", "°C", 0),
    "mix.softness": FactKey("softness index, -2 firm to +2 soft", "", 1),
    "mix.tenderness": FactKey("tenderness index, -2 chewy to +2 tender", "", 1),
    "mix.egg_pct": FactKey("egg to flour", "%", 0),
    "mix.legume_pct": FactKey("dry beans to grain", "%", 0),
    "mix.filling_pct": FactKey("filling to flour or dry grain", "%", 0),
    "mix.filling_share_pct": FactKey("filling in the whole", "%", 0),
    # Grain
    "grain.dry_g": FactKey("dry grain", "g", 0),
    "grain.soak_min": FactKey("soak", "min", 0),
    "grain.drain_min": FactKey("drain", "min", 0),
    "grain.soak_end_pct": FactKey("most it takes up in water so warm", "% of dry", 0),
    "grain.uptake_pct": FactKey("taken up in the soak", "% of dry", 1),
    "grain.uptake_g": FactKey("water taken up in the soak", "g", 0),
    "grain.bean_soak_min": FactKey("soak of the beans", "min", 0),
    "grain.bean_uptake_g": FactKey("water taken up by the beans", "g", 0),
    "grain.cling_g": FactKey("water that clings after draining", "g", 0),
    "grain.soaked_g": FactKey("drained grain on the scale", "g", 0),
    "grain.total_water_g": FactKey("water the cooked grain is to have", "g", 0),
    "grain.cook_water_g": FactKey("liquid to pour on", "g", 0),
    "grain.pot_water_g": FactKey("taken up in the pot", "g", 0),
    "grain.left_water_g": FactKey("water left on the floor", "g", 0),
    "grain.cooked_g": FactKey("cooked grain", "g", 0),
    "grain.cook_min": FactKey("grain cooked ahead", "min", 0),
    # Shape
    "shape.pieces": FactKey("pieces", "", 0),
    "shape.piece_g": FactKey("weight of a piece", "g", 1),
    "shape.base_g": FactKey("dough in a piece", "g", 1),
    "shape.filling_g": FactKey("filling in a piece", "g", 1),
    "shape.paste_g": FactKey("filling round the heart", "g", 1),
    "shape.paste_mm": FactKey("filling round the heart", "mm", 1),
    "shape.heart_g": FactKey("whole fruit or nut", "g", 1),
    "shape.heart_mm": FactKey("whole fruit or nut across", "mm", 0),
    "shape.filling_on_base_pct": FactKey("filling on its dough or rice", "%", 0),
    "shape.diameter_mm": FactKey("diameter", "mm", 0),
    "shape.core_mm": FactKey("filling across", "mm", 0),
    "shape.skin_mm": FactKey("skin", "mm", 1),
    "shape.skin_pct": FactKey("skin, of the whole", "%", 0),
    "shape.scoop": FactKey("nearest spoon or scoop", "", 0),
    "shape.scoop_g": FactKey("a spoon or scoop of it", "g", 1),
    "shape.cutter_mm": FactKey("cutter", "mm", 0),
    "shape.sheet_thick_mm": FactKey("roll out to", "mm", 1),
    "shape.sheet_cm2": FactKey("sheet of dough", "cm²", 0),
    "shape.cut_first": FactKey("cut from the first sheet", "", 0),
    "shape.cut_of_sheet": FactKey("cut in all", "", 0),
    "shape.trimmings_g": FactKey("trimmings left", "g", 0),
    "shape.least_skin_mm": FactKey("least skin that holds", "mm", 1),
    "shape.disc_mm": FactKey("flatten to", "mm", 0),
    "shape.rope_mm": FactKey("rope across", "mm", 0),
    "shape.rope_cut_mm": FactKey("cut the rope every", "mm", 0),
    "shape.base_enough_for": FactKey("dough is enough for", "pieces", 1),
    "shape.filling_enough_for": FactKey("filling is enough for", "pieces", 1),
    "shape.short_of": FactKey("runs out first", "", 0),
    "shape.left_over_g": FactKey("left over of the other", "g", 0),
    "shape.thick_mm": FactKey("thickness of a packet", "mm", 0),
    "shape.side_mm": FactKey("side of a packet", "mm", 0),
    "mix.scald_g": FactKey("water poured on boiling", "g", 0),
    "mix.scald_cool_g": FactKey("water kept cool", "g", 0),
    "mix.scald_c": FactKey("dough once it is mixed", "°C", 0),
    "mix.scald_cooked_pct": FactKey("flour that it cooks", "%", 0),
    "mix.scald_takes_g": FactKey("more water it can take", "g", 0),
    "shape.pinch_g": FactKey("dough to begin a piece with", "g", 1),
    "shape.trim_g": FactKey("pinched off, back to the dough", "g", 0),
    "shape.hand_water_ml": FactKey("water for the hands", "ml", 0),
    "shape.hand_salt_g": FactKey("salt in it", "g", 1),
    "cut.met": FactKey("whole things that the knife meets", "", 0),
    "shape.packet_ml": FactKey("volume of a packet", "ml", 0),
    "shape.leaf_holds_g": FactKey("a parcel of these leaves holds", "g", 0),
    "shape.leaf_rice_g": FactKey("grain in it", "g", 0),
    "shape.leaf_filling_g": FactKey("filling in it", "g", 0),
    "shape.edge_mm": FactKey("edge of the parcel", "mm", 0),
    "shape.string_mm": FactKey("string to a parcel", "mm", 0),
    "shape.string_m": FactKey("string in all", "m", 1),
    "shape.strip_mm": FactKey("strip round the wall, long", "mm", 0),
    "shape.strip_wide_mm": FactKey("strip, wide", "mm", 0),
    "shape.floor_mm": FactKey("piece for the floor, across", "mm", 0),
    "shape.lining_leaves": FactKey("leaves that line it, spares in", "", 0),
    "shape.rolled_mm": FactKey("rolled to that size, thick", "mm", 1),
    "shape.rolled_cut_g": FactKey("a cut of it weighs", "g", 1),
    "shape.wrappers": FactKey("leaves to soak, spares in", "", 0),
    "shape.foil_mm": FactKey("foil, round the packet", "mm", 0),
    "shape.foil_across_mm": FactKey("foil, across", "mm", 0),
    "shape.tins": FactKey("tins", "", 0),
    "shape.depth_mm": FactKey("how deep it lies", "mm", 0),
    "shape.headroom_mm": FactKey("room below the brim", "mm", 0),
    # Heat
    "heat.boil_c": FactKey("water boils here at", "°C", 1),
    "heat.depth_mm": FactKey("depth that the heat must cross", "mm", 0),
    "heat.first_check_min": FactKey("first check", "min", 0),
    "heat.set_min": FactKey("set through at", "min", 0),
    "heat.steam_c": FactKey("the steam is", "°C", 0),
    "heat.done_min": FactKey("likely done", "min", 0),
    "heat.latest_min": FactKey("latest", "min", 0),
    "heat.float_min": FactKey("floats at", "min", 0),
    "heat.core_hot_min": FactKey("hot within at", "min", 0),
    "heat.heart_done_c": FactKey("heart when done", "°C", 0),
    "heat.deeper_min": FactKey("one centimetre deeper", "min more", 0),
    "heat.colder_min": FactKey("put in colder", "min more", 0),
    "heat.cover_min": FactKey("the other cover", "min more", 0),
    "heat.tin_min": FactKey("another sort of tin", "min more", 0),
    "heat.fuller_min": FactKey("a fuller pot", "min more", 1),
    "heat.lid_min": FactKey("one look under the lid", "min more", 1),
    "heat.door_min": FactKey("one look into the oven", "min more", 1),
    "heat.unsoaked_min": FactKey("not soaked at all", "min more", 0),
    "heat.top_sets_min": FactKey("the top has set at", "min", 0),
    "heat.top_looks": FactKey("the top", "", 0),
    "heat.gained_g": FactKey("steam taken up", "g", 0),
    "heat.glaze_at_min": FactKey("glaze goes on at", "min", 0),
    "heat.bare_min": FactKey("in the oven before its glaze", "min", 0),
    "heat.pound_min": FactKey("pounding", "min", 0),
    "heat.pound_hot_min": FactKey("stays hot enough to pound", "min", 0),
    "heat.power_w": FactKey("power into it", "W", 0),
    "heat.lost_g": FactKey("water lost by then", "g", 0),
    "heat.double_min": FactKey("twice as much", "min more", 0),
    "heat.level_min": FactKey("a third less heat", "min more", 0),
    "heat.needs_min": FactKey("time at heat it needs", "min", 0),
    "heat.thicker_min": FactKey("half a centimetre thicker", "min more", 0),
    "heat.cooler_min": FactKey("an oven cooler than its dial", "min more", 0),
    "heat.skin_min": FactKey("the top has a skin from", "min", 0),
    "heat.browns_min": FactKey("the top is golden at", "min", 0),
    "heat.dried_min": FactKey("dried to its chew at", "min", 0),
    "heat.dried_pct": FactKey("dries in the oven by", "%", 0),
    "heat.to_boil_min": FactKey("the water to the boil in", "min", 0),
    "heat.caramel_min": FactKey("sugar to amber in", "min", 0),
    "heat.melt_min": FactKey("sugar melted in", "min", 0),
    "heat.syrup_cools_min": FactKey("syrup cooled in", "min", 0),
    "heat.thicken_min": FactKey("thick in", "min", 1),
    "heat.water_ml": FactKey("water to start with", "ml", 0),
    "heat.water_loss_g_per_min": FactKey("water boiled off", "g/min", 0),
    "heat.top_up_at_min": FactKey("top up at", "min", 0),
    "heat.top_up_ml": FactKey("top up with, boiling", "ml", 0),
    "heat.loads": FactKey("loads", "", 0),
    "heat.all_loads_min": FactKey("all loads", "min", 0),
    "heat.waits_c": FactKey("first load, when the last is out", "°C", 0),
    "heat.load_pieces": FactKey("pieces in a load", "", 0),
    "heat.pot_dip_c": FactKey("the pot, just loaded", "°C less", 0),
    # What is done with it once it has set
    "finish.side_min": FactKey("each side", "min", 1),
    "finish.each_min": FactKey("a panful or rack", "min", 0),
    "finish.frozen_min": FactKey("straight from the freezer", "min more", 0),
    "finish.loads": FactKey("panfuls or racks", "", 0),
    "finish.all_min": FactKey("all of it", "min", 0),
    # Rest and cut
    "rest.batter_min": FactKey("batter stands for", "min", 0),
    "rest.rigid_min": FactKey("rigid after", "min", 0),
    "rest.firm_h": FactKey("slices thin after", "h", 0),
    "rest.handle_from_min": FactKey("can be handled from", "min", 0),
    "rest.handle_until_min": FactKey("best handled until", "min", 0),
    "rest.shaping_min": FactKey("shaping takes", "min", 0),
    "rest.chill_min": FactKey("rolled sheet chilled for", "min", 0),
    "rest.cut_after_min": FactKey("cuts clean after", "min", 0),
    "rest.cut_counter_min": FactKey("cuts clean on the counter in", "min", 0),
    "rest.cut_fridge_min": FactKey("cuts clean by the fridge in", "min", 0),
    "rest.cut_at_c": FactKey("heart when it cuts clean", "°C", 0),
    "rest.freeze_filling_min": FactKey("filling frozen hard after", "min", 0),
    "rest.soften_min": FactKey("filling softens on the counter in", "min", 0),
    "rest.take_out": FactKey("filling to take out at a time", "", 0),
    "cut.rows": FactKey("rows", "", 0),
    "cut.columns": FactKey("columns", "", 0),
    "cut.pieces": FactKey("pieces cut", "", 0),
    "cut.piece_g": FactKey("weight of a cut piece", "g", 0),
    "cut.piece_mm": FactKey("side of a cut piece", "mm", 0),
    "cut.corners": FactKey("corner pieces", "", 0),
    "cut.edges": FactKey("edge pieces", "", 0),
    "cut.offcut_pct": FactKey("offcuts", "%", 0),
    "work.held_min": FactKey("hands taken whole", "min", 0),
    "work.minded_min": FactKey("hands taken a little", "min", 0),
    # What is eaten: what is in it and on it together
    "whole.g": FactKey("all of it", "g", 0),
    "whole.piece_g": FactKey("a finished piece", "g", 1),
    "whole.water_pct": FactKey("water in all of it", "%", 0),
    "whole.sugar_pct": FactKey("sugar in all of it", "%", 0),
    "whole.fat_pct": FactKey("fat in all of it", "%", 0),
    "whole.sweetness_pct": FactKey("sugar that ends in it, to flour", "%", 0),
    "keep.room_h": FactKey("out on the counter, the safe rule", "h", 0),
    "keep.eaten_h": FactKey("cooks eat it within", "h", 0),
    "keep.cold_h": FactKey("keeps cold", "h", 0),
    "keep.frozen_days": FactKey("keeps frozen", "days", 0),
    "keep.hard_after_h": FactKey("turns hard after", "h", 0),
    "keep.hard_cold_h": FactKey("in the fridge, hard after", "h", 0),
    "keep.eat_within_h": FactKey("at its best for", "h", 0),
    "keep.limited_by": FactKey("what limits it first", "", 0),
    "keep.restore": FactKey("what softens it again", "", 0),
}

# What every part beside the base has, where it applies.
_OF_A_PART: dict[str, FactKey] = {
    "raw_g": FactKey("goes in", "g", 0),
    "made_g": FactKey("made", "g", 0),
    "loss_g": FactKey("boiled off or left behind", "g", 0),
    "scale_g": FactKey("pan and all on the scale", "g", 0),
    "kept_g": FactKey("kept back", "g", 0),
    "away_g": FactKey("made for other sheets", "g", 0),
    "taken_g": FactKey("goes into other parts", "g", 0),
    "short_g": FactKey("asked of it and not there", "g", 0),
    "also_g": FactKey("made beside it", "g", 0),
    "have_g": FactKey("for this sheet", "g", 0),
    "piece_g": FactKey("for each piece", "g", 1),
    "enough_for": FactKey("is enough for", "pieces", 1),
    "oil_g": FactKey("oil that parts", "g", 0),
    "boil_off_g_per_min": FactKey("boils off", "g/min", 0),
    "boil_off_min": FactKey("boiled down in", "min", 0),
    "boils_min": FactKey("at the boil in", "min", 0),
    "coats_min": FactKey("coats a spoon from", "min", 0),
    "stiff_min": FactKey("sets stiff when cold from", "min", 0),
    "soft_min": FactKey("soft in", "min", 0),
    "caramel_min": FactKey("amber in", "min", 0),
    "sugar_pct": FactKey("sugar to its main ingredient", "%", 0),
    "dry_ratio": FactKey("on the dry beans", "times", 2),
    "solids_pct": FactKey("solids when done", "%", 0),
}
KEYS |= {  # of the first part of a role: vocabulary_key() of a further one
    f"part.{role}.{name}": FactKey(f"{role}: {key.label}", key.unit, key.decimals)
    for role in get_args(PartRole)
    if role != "base"
    for name, key in _OF_A_PART.items()
}


def fact_label(fact: str) -> str:
    """What a fact is called; of a further part of a role, with the part's own id."""
    key = vocabulary_key(fact)
    label = KEYS[key].label
    return label if key == fact else f"{fact.split('.')[1]}:{label.partition(':')[2]}"


def vocabulary_key(fact: str) -> str:
    """Where a fact stands in KEYS: what is said of the first part of a role is said of its further parts too.

    >>> vocabulary_key("part.syrup-2.made_g"), vocabulary_key("mix.batch_g")
    ('part.syrup.made_g', 'mix.batch_g')
    """
    room, _, rest = fact.partition(".")
    part, _, name = rest.partition(".")
    return f"part.{role_of(part)}.{name}" if room == "part" and name else fact
