/**
 * What a page says where the kitchen's documents hold a word of their own: "just right" is kept as it is written, and read
 * in the page's language.
 */

import { t } from "@lingui/core/macro";

const SAID: Record<string, string> = {
  // verdicts
  "just right": t`just right`,
  "too soft": t`too soft`,
  "too firm": t`too firm`,
  untasted: t`untasted`,
  // patterns of a knife
  squares: t`squares`,
  oblongs: t`oblongs`,
  strips: t`strips`,
  diamonds: t`diamonds`,
  triangles: t`triangles`,
  wedges: t`wedges`,
  rings: t`rings`,
  // roles of a part
  base: t`base`,
  liquid: t`liquid`,
  syrup: t`syrup`,
  filling: t`filling`,
  broth: t`broth`,
  topping: t`topping`,
  coat: t`coat`,
  glaze: t`glaze`,
  oil: t`oil`,
  herb: t`herb`,
  wrapper: t`wrapper`,
  heart: t`heart`,
  crust: t`crust`,
  layer: t`layer`,
  decoration: t`decoration`,
  // heats, hands, places, ways out
  low: t`low`,
  "medium-low": t`medium-low`,
  medium: t`medium`,
  "medium-high": t`medium-high`,
  high: t`high`,
  off: t`off`,
  held: t`held`,
  minded: t`minded`,
  free: t`free`,
  eat: t`eat`,
  "work it": t`work it`,
  metal: t`metal`,
  glass: t`glass`,
  ceramic: t`ceramic`,
  round: t`round`,
  oblong: t`oblong`,
  cook: t`cook`,
  helper: t`helper`,
  taster: t`taster`,
  owner: t`owner`,
  // tastes
  softness: t`softness`,
  sweetness: t`sweetness`,
  chew: t`chew`,
  richness: t`richness`,
  skin: t`skin`,
  paste: t`paste`,
  fragrance: t`fragrance`,
  grind: t`grind`,
  seasoning: t`seasoning`,
  smoothness: t`smoothness`,
  stickiness: t`stickiness`,
  salt: t`salt`,
  surface: t`surface`,
  colour: t`colour`,
  scent: t`scent`,
  warmth: t`warmth`,
  // what a food is of
  water: t`water`,
  starch: t`starch`,
  sugar: t`sugar`,
  fat: t`fat`,
  protein: t`protein`,
  fibre: t`fibre`,
  other: t`other`,
  // how it lies in a spoon
  spooned: t`spooned`,
  sifted: t`sifted`,
  packed: t`packed`,
  whole: t`whole`,
  sliced: t`sliced`,
  ground: t`ground`,
  melted: t`melted`,
  poured: t`poured`,
  // two ways side by side
  hers: t`hers`,
  mine: t`mine`,
  // what a way begins with
  flour: t`flour`,
  grain: t`grain`,
  time: t`time`,
  value: t`value`,
  // units that are words
  days: t`days`,
  pieces: t`pieces`,
  times: t`times`,
  "min more": t`min more`,
  "°C less": t`°C less`,
  "% of dry": t`% of dry`,
};

/** A word of a document as it is read; what is none of them stays as it is. */
export const said = (word: string) => SAID[word] ?? word;
