"""Where the work can hurt someone: short words, shown at the step where they matter.

Usual kitchen care, not a validated safety process; local food law and licensed practice come first.
"""

from __future__ import annotations

from collections.abc import Mapping

from pydantic import BaseModel, ConfigDict

from kemble.core.sentences import Words


class Caution(BaseModel):
    model_config = ConfigDict(frozen=True)

    id: str
    title: Words
    says: Words


_TABLE: tuple[tuple[str, str, str], ...] = (
    (
        "choking",
        "Choking",
        "Sticky pieces can choke. Cut small for children and old people; sit, moisten, chew, with someone near. "
        "Not for infants or anyone who swallows badly.",
    ),
    ("steam", "Steam", "Heat down, then tilt the lid away from you. Dry cloths on the handles."),
    (
        "boil-dry",
        "Boiled dry",
        "A steamer that boils dry can scorch and crack. Heat off, and let it cool before any water goes in.",
    ),
    (
        "molten-sugar",
        "Molten sugar",
        "Amber sugar is far hotter than boiling water and clings. Off the heat, add hot liquid a little at a time, "
        "at arm's length: it erupts. No children at the stove.",
    ),
    ("hot-heart", "Hot heart", "The filling is hotter than the skin. Let a bowl stand two minutes; bite small."),
    (
        "public",
        "Serving the public",
        "For sale or public service, local food law, labelling and a licensed kitchen come first. "
        "These figures are not a safety validation.",
    ),
    (
        "spoilage",
        "Spoilage",
        "Something in it spoils: two hours out of the cold at the most, then chill it fast, and reheat it through.",
    ),
    ("infants", "Honey", "No honey for infants."),
    ("alcohol", "Alcohol", "There is alcohol in it: say so."),
    (
        "hot-dough",
        "Hot dough",
        "Dough straight from the heat clings and burns. Starch on the board, oil on the hands, and wait for its window.",
    ),
    (
        "microwave",
        "Microwaved dough",
        "It bubbles under its skin and bursts when it is stirred, and the bowl is hotter than it looks. "
        "A long spoon, dry cloths, half a minute's stand.",
    ),
    ("long-soak", "Long soak", "Over four hours in a warm room it sours and spoils: cold water, in the fridge."),
    (
        "hot-oil",
        "Hot oil",
        "Hot oil and anything wet spit. Dry what goes in, no lid, no water on a fire: heat off, lid on.",
    ),
    ("hot-paste", "Spitting paste", "Thick paste spits as it dries. A long spoon, a deep pan, low heat."),
    (
        "machine",
        "Machines and mallets",
        "Unplug before hands go in. With a mallet, one turns and one strikes, and they say so aloud.",
    ),
    (
        "hard-block",
        "Hard blocks",
        "A rigid block slips under a big knife. A damp cloth under it; cut it before it is rock.",
    ),
    (
        "toast",
        "Toasting",
        "It puffs and flows: dry rack, tongs, and let it stand. The middle is hotter than the crust.",
    ),
    (
        "beans",
        "Beans",
        "Raw beans upset the stomach: boil them properly. Kidney beans need ten minutes at a hard boil first.",
    ),
    ("plants", "Wild plants", "Pick only what you know for sure; leaves sold for food, washed; never from a roadside."),
    ("oven", "Oven", "Dry cloths; stand aside as the door opens. A full tin is heavy: a rack out, not a reach in."),
    (
        "rice-cold",
        "Cooked rice",
        "Cooked grain spoils when it stands warm. Eat it the same day, or cool it fast and chill it within two hours.",
    ),
)
# What an ingredient brings along by what it is (its tags on the shelf), whatever is made of it.
BROUGHT: Mapping[str, str] = {"honey": "infants", "alcohol": "alcohol"}
CAUTIONS: dict[str, Caution] = {row[0]: Caution(id=row[0], title=row[1], says=row[2]) for row in _TABLE}
