/** What stands in the kitchen: each thing with its drawing, what it says of itself, and where its measures are typed. */

import { plural, t } from "@lingui/core/macro";
import type { FC } from "react";
import type { KitchenSettings } from "../api/client";
import type { Formatters } from "../ui/formatters";
import * as drawn from "./drawn";
import { CupsPanel } from "./panels/CupsPanel";
import { GuessesPanel } from "./panels/GuessesPanel";
import { ColdPanel, HobPanel, OvenPanel } from "./panels/HotAndCold";
import { MeasuredIn, PlacePanel } from "./panels/PlacePanel";
import { TinsPanel } from "./panels/TinsPanel";
import { PotsPanel, SteamersPanel } from "./panels/Vessels";
import * as vessels from "./vesselsDrawn";

export interface PanelProps {
  kitchen: KitchenSettings;
  set: (change: Partial<KitchenSettings>) => void;
}

export interface Thing {
  id: string;
  title: string;
  Draw: FC<{ kitchen: KitchenSettings }>;
  says: (kitchen: KitchenSettings, formatters: Formatters) => string;
  Panel: FC<PanelProps>;
}

const warm = (formatters: Formatters, celsius: number) => `${formatters.degrees(celsius)} ${formatters.degreesUnit()}`;
const span = (formatters: Formatters, all: number[]) =>
  all.length
    ? [...new Set([Math.min(...all), Math.max(...all)])].map((mm) => formatters.sizeWords(mm)).join(" to ")
    : "";
const known = (count: number, words: string) => (count ? [words] : []);

const place: Thing = {
  id: "place",
  title: t`Place and people`,
  Draw: drawn.Window,
  says: ({ altitude_m, room_c, cooks, quiet }, formatters) =>
    t`${altitude_m.toFixed(0)} m up, ${warm(formatters, room_c)}; ${plural(cooks, { one: "# cook", other: "# cooks" })}, quiet from ${formatters.timeWords(quiet.begins)}`,
  Panel: PlacePanel,
};
const tins: Thing = {
  id: "tins",
  title: t`Tins`,
  Draw: vessels.TinShelf,
  says: ({ tins: all }, formatters) =>
    all.length
      ? `${all.length}, ${span(
          formatters,
          all.map((tin) => (tin.shape === "round" ? tin.diameter_mm : tin.length_mm)),
        )}`
      : t`none yet`,
  Panel: TinsPanel,
};
const cups: Thing = {
  id: "cups",
  title: t`Cups, spoons, scoops`,
  Draw: vessels.Cups,
  says: ({ own_cup_ml, scoops, weighed }, formatters) =>
    [
      own_cup_ml ? t`your cup holds ${formatters.volumeWords(own_cup_ml, 0)}` : t`weigh your cup once`,
      ...known(scoops.length, plural(scoops.length, { one: "# scoop", other: "# scoops" })),
      ...known(
        weighed.length,
        plural(weighed.length, { one: "# ingredient weighed in one", other: "# ingredients weighed in one" }),
      ),
    ].join("; "),
  Panel: CupsPanel,
};
const guesses: Thing = {
  id: "guesses",
  title: t`What nobody knows exactly`,
  Draw: drawn.Notebook,
  says: ({ estimates, learned }) => {
    const here = new Set([...Object.keys(estimates), ...Object.keys(learned)]).size;
    return here ? t`${here} of them known here` : t`the table's own figures`;
  },
  Panel: GuessesPanel,
};
const units: Thing = {
  id: "units",
  title: t`Measured in`,
  Draw: drawn.Ruler,
  says: ({ temperature_unit, length_unit, weight_unit, volume_unit, clock_hours }) =>
    t`°${temperature_unit}, ${weight_unit}, ${volume_unit}, ${length_unit}, a clock of ${clock_hours} hours`,
  Panel: MeasuredIn,
};
const steamers: Thing = {
  id: "steamers",
  title: t`Steamers`,
  Draw: vessels.Steamers,
  says: ({ steamers: all }, formatters) =>
    all.length
      ? `${all.length}, ${span(
          formatters,
          all.map((item) => item.diameter_mm),
        )}`
      : "none",
  Panel: SteamersPanel,
};
const pots: Thing = {
  id: "pots",
  title: t`Pots and pans`,
  Draw: vessels.Pots,
  says: ({ pots: all, pans }) =>
    [
      plural(all.length, { one: "# pot to boil in", other: "# pots to boil in" }),
      ...known(pans.length, plural(pans.length, { one: "# pan", other: "# pans" })),
    ].join(", "),
  Panel: PotsPanel,
};
const hob: Thing = {
  id: "hob",
  title: t`Hob`,
  Draw: drawn.Hob,
  says: ({ burners, burner, estimates }) =>
    t`${plural(burners, { one: "# burner", other: "# burners" })}; high gives ${burner.high_w.toFixed(0)}\u00a0W${estimates.burner ? t`, timed here` : ""}`,
  Panel: HobPanel,
};
const oven: Thing = {
  id: "oven",
  title: t`Ovens, and what plugs in`,
  Draw: drawn.Ovens,
  says: ({ ovens, oven_shelves, toasters }) =>
    [
      ovens
        ? t`${plural(ovens, { one: "# oven", other: "# ovens" })}, ${plural(oven_shelves, { one: "# tray", other: "# trays" })} at once`
        : t`no oven`,
      ...known(toasters, plural(toasters, { one: "# grill", other: "# grills" })),
    ].join("; "),
  Panel: OvenPanel,
};
const cold: Thing = {
  id: "cold",
  title: t`Cold`,
  Draw: drawn.Cold,
  says: ({ fridge_c, freezer_c, cold_shelves }, formatters) =>
    t`${warm(formatters, fridge_c)} and ${warm(formatters, freezer_c)}; ${plural(cold_shelves, { one: "# shelf", other: "# shelves" })} each`,
  Panel: ColdPanel,
};

/** From the highest shelf down, and how high what stands on each. */
export const SHELVES: { highPx: number; things: Thing[] }[] = [
  { highPx: 52, things: [tins, units] },
  { highPx: 100, things: [cups, guesses, place] },
  { highPx: 88, things: [steamers, pots] },
  { highPx: 116, things: [hob, oven, cold] },
];

/** The thing of an address; the place itself where none is named. */
export const thingOf = (id: string | undefined): Thing =>
  SHELVES.flatMap((shelf) => shelf.things).find((thing) => thing.id === id) ?? place;
