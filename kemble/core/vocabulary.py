"""The vocabulary of facts: every key that a station may enter, its words, unit and shown decimals."""

from __future__ import annotations

from typing import NamedTuple, get_args

from kemble.core.cards import PartRole


class Key(NamedTuple):
    label: str
    unit: str
    decimals: int


KEYS: dict[str, Key] = {
    # Mix
    "mix.base_g": Key("flour or dry grain", "g", 0),
    "mix.hydration_pct": Key("effective hydration", "%", 0),
    "mix.sugar_pct": Key("sugar to flour", "%", 0),
    "mix.fat_pct": Key("fat to flour", "%", 1),
    "mix.salt_pct": Key("salt to flour", "%", 2),
    "mix.batch_g": Key("batch before cooking", "g", 0),
    "mix.water_g": Key("water in the batch", "g", 0),
    "mix.cooked_g": Key("weight when cooked", "g", 0),
    "mix.scale_g": Key("when cooked, pan and all on the scale", "g", 0),
    "mix.volume_ml": Key("volume when it is shaped", "ml", 0),
    "mix.density_g_per_ml": Key("density when it is shaped", "g/ml", 2),
    "mix.sugar_in_water_pct": Key("sugar in the sugar and water", "%", 0),
    "mix.gel_temperature_c": Key("starch gels at", "°C", 0),
    "mix.softness": Key("softness index, -2 firm to +2 soft", "", 1),
    "mix.tenderness": Key("tenderness index, -2 chewy to +2 tender", "", 1),
    "mix.egg_pct": Key("egg to flour", "%", 0),
    "mix.legume_pct": Key("dry beans to grain", "%", 0),
    "mix.filling_pct": Key("filling to flour or dry grain", "%", 0),
    "mix.filling_share_pct": Key("filling in the whole", "%", 0),
    # Grain
    "grain.dry_g": Key("dry grain", "g", 0),
    "grain.soak_min": Key("soak", "min", 0),
    "grain.drain_min": Key("drain", "min", 0),
    "grain.soak_end_pct": Key("most it takes up in water so warm", "% of dry", 0),
    "grain.uptake_pct": Key("taken up in the soak", "% of dry", 1),
    "grain.uptake_g": Key("water taken up in the soak", "g", 0),
    "grain.cling_g": Key("water that clings after draining", "g", 0),
    "grain.soaked_g": Key("drained grain on the scale", "g", 0),
    "grain.total_water_g": Key("water the cooked grain is to have", "g", 0),
    "grain.cook_water_g": Key("liquid to pour on", "g", 0),
    "grain.pot_water_g": Key("taken up in the pot", "g", 0),
    "grain.cooked_g": Key("cooked grain", "g", 0),
    # Shape
    "shape.pieces": Key("pieces", "", 0),
    "shape.piece_g": Key("weight of a piece", "g", 1),
    "shape.base_g": Key("dough in a piece", "g", 1),
    "shape.filling_g": Key("filling in a piece", "g", 1),
    "shape.paste_g": Key("filling round the heart", "g", 1),
    "shape.paste_mm": Key("filling round the heart", "mm", 1),
    "shape.heart_g": Key("whole fruit or nut", "g", 1),
    "shape.heart_mm": Key("whole fruit or nut across", "mm", 0),
    "shape.filling_on_base_pct": Key("filling on its dough or rice", "%", 0),
    "shape.diameter_mm": Key("diameter", "mm", 0),
    "shape.core_mm": Key("filling across", "mm", 0),
    "shape.skin_mm": Key("skin", "mm", 1),
    "shape.skin_pct": Key("skin, of the whole", "%", 0),
    "shape.scoop": Key("nearest spoon or scoop", "", 0),
    "shape.scoop_g": Key("a spoon or scoop of it", "g", 1),
    "shape.cutter_mm": Key("cutter", "mm", 0),
    "shape.sheet_thick_mm": Key("roll out to", "mm", 1),
    "shape.sheet_cm2": Key("sheet of dough", "cm²", 0),
    "shape.cut_first": Key("cut from the first sheet", "", 0),
    "shape.cut_of_sheet": Key("cut in all", "", 0),
    "shape.trimmings_g": Key("trimmings left", "g", 0),
    "shape.disc_mm": Key("flatten to", "mm", 0),
    "shape.rope_mm": Key("rope across", "mm", 0),
    "shape.rope_cut_mm": Key("cut the rope every", "mm", 0),
    "shape.base_enough_for": Key("dough is enough for", "pieces", 1),
    "shape.filling_enough_for": Key("filling is enough for", "pieces", 1),
    "shape.short_of": Key("runs out first", "", 0),
    "shape.left_over_g": Key("left over of the other", "g", 0),
    "shape.thick_mm": Key("thickness of a packet", "mm", 0),
    "shape.side_mm": Key("side of a packet", "mm", 0),
    "shape.wrappers": Key("leaves to soak, spares in", "", 0),
    "shape.foil_mm": Key("foil, round the packet", "mm", 0),
    "shape.foil_across_mm": Key("foil, across", "mm", 0),
    "shape.tins": Key("tins", "", 0),
    "shape.depth_mm": Key("how deep it lies", "mm", 0),
    "shape.headroom_mm": Key("room below the brim", "mm", 0),
    # Heat
    "heat.boil_c": Key("water boils here at", "°C", 1),
    "heat.depth_mm": Key("depth that the heat must cross", "mm", 0),
    "heat.first_check_min": Key("first check", "min", 0),
    "heat.done_min": Key("likely done", "min", 0),
    "heat.latest_min": Key("latest", "min", 0),
    "heat.float_min": Key("floats at", "min", 0),
    "heat.core_hot_min": Key("hot within at", "min", 0),
    "heat.heart_done_c": Key("heart when done", "°C", 0),
    "heat.deeper_min": Key("one centimetre deeper", "min more", 0),
    "heat.colder_min": Key("put in colder", "min more", 0),
    "heat.cover_min": Key("the other cover", "min more", 0),
    "heat.power_w": Key("power into it", "W", 0),
    "heat.lost_g": Key("water lost by then", "g", 0),
    "heat.double_min": Key("twice as much", "min more", 0),
    "heat.level_min": Key("a third less heat", "min more", 0),
    "heat.needs_min": Key("time at heat it needs", "min", 0),
    "heat.thicker_min": Key("half a centimetre thicker", "min more", 0),
    "heat.cooler_min": Key("an oven cooler than its dial", "min more", 0),
    "heat.skin_min": Key("the top has a skin from", "min", 0),
    "heat.browns_min": Key("the top is golden at", "min", 0),
    "heat.dried_pct": Key("dries in the oven by", "%", 0),
    "heat.water_ml": Key("water to start with", "ml", 0),
    "heat.water_loss_g_per_min": Key("water boiled off", "g/min", 0),
    "heat.top_up_at_min": Key("top up at", "min", 0),
    "heat.top_up_ml": Key("top up with, boiling", "ml", 0),
    "heat.loads": Key("loads", "", 0),
    "heat.load_pieces": Key("pieces in a load", "", 0),
    "heat.pot_dip_c": Key("pot falls by, when loaded", "°C less", 0),
    # Rest and cut
    "rest.handle_from_min": Key("can be handled from", "min", 0),
    "rest.handle_until_min": Key("best handled until", "min", 0),
    "rest.cut_after_min": Key("cuts clean after", "min", 0),
    "rest.cut_at_c": Key("heart when it cuts clean", "°C", 0),
    "rest.freeze_filling_min": Key("filling frozen hard after", "min", 0),
    "rest.soften_min": Key("filling softens on the counter in", "min", 0),
    "rest.take_out": Key("filling to take out at a time", "", 0),
    "cut.rows": Key("rows", "", 0),
    "cut.columns": Key("columns", "", 0),
    "cut.pieces": Key("pieces cut", "", 0),
    "cut.piece_g": Key("weight of a cut piece", "g", 0),
    "cut.piece_mm": Key("side of a cut piece", "mm", 0),
    "cut.corners": Key("corner pieces", "", 0),
    "cut.edges": Key("edge pieces", "", 0),
    "cut.offcut_pct": Key("offcuts", "%", 0),
    "keep.room_h": Key("keeps at room temperature", "h", 0),
    "keep.cold_h": Key("keeps cold", "h", 0),
    "keep.hard_after_h": Key("turns hard after", "h", 0),
}

# What every part beside the base has, where it applies.
_OF_A_PART: dict[str, Key] = {
    "raw_g": Key("goes in", "g", 0),
    "made_g": Key("made", "g", 0),
    "loss_g": Key("boiled off or left behind", "g", 0),
    "scale_g": Key("pan and all on the scale", "g", 0),
    "kept_g": Key("kept back", "g", 0),
    "away_g": Key("made for other sheets", "g", 0),
    "have_g": Key("for this sheet", "g", 0),
    "piece_g": Key("for each piece", "g", 1),
    "enough_for": Key("is enough for", "pieces", 1),
    "oil_g": Key("oil that parts", "g", 0),
    "sugar_pct": Key("sugar to its main ingredient", "%", 0),
    "dry_ratio": Key("on the dry beans", "times", 2),
    "solids_pct": Key("solids when done", "%", 0),
}
KEYS |= {
    f"part.{role}.{name}": Key(f"{role}: {key.label}", key.unit, key.decimals)
    for role in get_args(PartRole)
    if role != "base"
    for name, key in _OF_A_PART.items()
}
