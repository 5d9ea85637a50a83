/** Every heat as the screens have it: what it is drawn in, what its curve is of, and its word on the line. */

import { t } from "@lingui/core/macro";
import type { ReactNode } from "react";
import type { Facts, HeatDrawing, HeatOf, SteamerDrawing } from "../../api/client";
import { GrainPot } from "./GrainPot";
import { Oven } from "./Oven";
import { Parcels } from "./Parcels";
import { Pot } from "./Pot";
import { Steamer, type Within } from "./Steamer";
import { StirredPan } from "./StirredPan";

interface Kind<K extends HeatDrawing["kind"]> {
  /** What the bold line of the curve is the temperature of. */
  core: string;
  /** What the dotted line is of, and how far below it that is written, in px. */
  outside: string;
  below: number;
  /** The word after the minutes on the line along the top. */
  word: (drawing: HeatOf<K>) => string;
  draw: (drawing: HeatOf<K>, facts: Facts, at: number) => ReactNode;
}

const inSteam = (steamer: SteamerDrawing, facts: Facts, within: Within, at: number) => (
  <Steamer steamer={steamer} facts={facts} within={within} at={at} />
);

const STIRRED = { pan: t`stirred`, gather: t`stirred`, microwave: t`in bursts` };
const GRAIN = { steam: t`steam`, lid: t`lid shut`, cooker: t`rice cooker` };

const KINDS: { [K in HeatDrawing["kind"]]: Kind<K> } = {
  steam: {
    core: t`heart`,
    outside: t`top`,
    below: 18,
    word: () => t`steam`,
    draw: (drawing, facts, at) =>
      inSteam(
        drawing.steamer,
        facts,
        { kind: "tin", tin: drawing.tin, depthMm: drawing.depth_mm, covered: drawing.covered },
        at,
      ),
  },
  boil: {
    core: t`heart`,
    outside: t`skin`,
    below: 34,
    word: () => "",
    draw: (drawing, facts) => <Pot drawing={drawing} facts={facts} />,
  },
  bake: {
    core: t`heart`,
    outside: t`top`,
    below: 18,
    word: () => t`baked`,
    draw: (drawing, facts) => <Oven drawing={drawing} facts={facts} />,
  },
  wrapped: {
    core: t`heart`,
    outside: t`under the leaf`,
    below: -10,
    word: () => t`in its leaf`,
    draw: (drawing, facts, at) =>
      drawing.steamer ? (
        inSteam(drawing.steamer, facts, { kind: "packets", thickMm: drawing.thick_mm, sideMm: drawing.side_mm }, at)
      ) : (
        <Parcels thick={drawing.thick_mm} />
      ),
  },
  stirred: {
    core: t`the mass`,
    outside: "",
    below: 18,
    word: (drawing) => STIRRED[drawing.method],
    draw: (drawing) => <StirredPan drawing={drawing} />,
  },
  grain: {
    core: t`slowest grain`,
    outside: "",
    below: 18,
    word: (drawing) => GRAIN[drawing.how],
    draw: (drawing, facts, at) =>
      drawing.steamer ? (
        inSteam(drawing.steamer, facts, { kind: "bed", depthMm: drawing.bed_mm }, at)
      ) : (
        <GrainPot drawing={drawing} />
      ),
  },
};

/** The kind of a drawing, to be asked with that same drawing. */
export const kindOf = (drawing: HeatDrawing) => KINDS[drawing.kind] as Kind<HeatDrawing["kind"]>;
