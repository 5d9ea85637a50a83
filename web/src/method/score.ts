/**
 * The method as a score: which vessel holds how much of what from which step on, what goes in at the left, what is emptied
 * into what. Rows stand for steps; where they lie on the page is the drawing's affair.
 */

import type { StepResult } from "../api/client";
import { type Material, materialOf } from "../ui/materials";

/** What a vessel holds from the step at `from` until the one at `to`, where it is emptied, changed or the method ends. */
export interface Block {
  key: string;
  column: number;
  vessel: string;
  /** Named where it is first filled. */
  isFirst: boolean;
  from: number;
  to: number;
  grams: number;
  material: Material;
  /** The columns of what is emptied into it as it begins. */
  pouredFrom: number[];
  /** Grams that came or, negative, went by themselves. */
  change: number;
}

export interface Pour {
  row: number;
  from: number;
  to: number;
  grams: number;
  material: Material;
}

export interface GoesIn {
  row: number;
  column: number;
  items: { name: string; grams: number; material: Material }[];
}

export interface ScoreOfSteps {
  columns: number;
  blocks: Block[];
  pours: Pour[];
  goesIn: GoesIn[];
  /** By row: what the step's vessel holds after it; null where it holds nothing. */
  looks: (Material | null)[];
  most: number;
}

const CRUMB_G = 0.5;
const ENOUGH_COLUMNS = 4; // before one that is free again is used again: what is poured runs to the right
interface Held {
  key: string;
  column: number;
  part: StepResult["part"];
  holds: string;
  block: Block;
  kinds: Map<Material, number>;
  isCooked: boolean;
}

export function scoreOf(steps: readonly StepResult[]): ScoreOfSteps {
  const held = new Map<string, Held>();
  const columns: (string | null)[] = [];
  const score: ScoreOfSteps = { columns: 0, blocks: [], pours: [], goesIn: [], looks: [], most: 1 };

  const columnFor = (key: string): number => {
    const free = columns.length < ENOUGH_COLUMNS ? -1 : columns.indexOf(null);
    const at = free >= 0 ? free : columns.length;
    columns[at] = key;
    return at;
  };
  const keyOf = (part: StepResult["part"], vessel: string) => `${part ?? ""}/${vessel}`;

  steps.forEach((step, row) => {
    const entry = step.vessel;
    score.looks.push(null);
    if (!entry || (entry.after_g < CRUMB_G && entry.before_g < CRUMB_G)) return;
    const key = keyOf(step.part, entry.vessel);
    const before = held.get(key);
    const column = before?.column ?? columnFor(key);
    const tipped = entry.tipped.flatMap((content) => held.get(keyOf(step.part, content.vessel)) ?? []);
    // A part is listed where it goes in, under the name of what its vessel holds once it is made.
    const parts = [...held.values()].filter(
      (other) => other.part !== (step.part ?? null) && step.to_hand.some((item) => item.name === other.holds),
    );
    const kinds = new Map(before?.kinds);
    const add = (kind: Material, grams: number) => kinds.set(kind, (kinds.get(kind) ?? 0) + grams);
    for (const other of [...tipped, ...parts]) {
      const { block } = other;
      block.to = row;
      score.pours.push({ row, from: other.column, to: column, grams: block.grams, material: block.material });
      if (block.material === "filling") add("filling", block.grams);
      else for (const [kind, grams] of other.kinds) add(kind, grams);
      held.delete(other.key);
      columns[other.column] = null;
    }
    const items = step.to_hand
      .filter((item) => item.group !== "leaf" && !parts.some((other) => other.holds === item.name))
      .map((item) => ({
        name: item.act ? `${item.name}, ${item.act}` : item.name,
        grams: item.grams,
        material: materialOf(item.group ?? ""),
      }));
    if (items.length) score.goesIn.push({ row, column, items });
    for (const item of items) add(item.material, item.grams);
    const isCooked =
      step.window != null ||
      Math.abs(entry.change_g) > CRUMB_G ||
      [before, ...tipped].some((other) => other?.isCooked ?? false);
    const looks = looksOf(kinds, isCooked);
    const material = step.part === "filling" && (looks === "batter" || looks === "cooked") ? "filling" : looks;
    score.looks[row] = material;
    const isSame =
      before && Math.abs(before.block.grams - entry.after_g) < CRUMB_G && before.block.material === material;
    if (isSame) {
      held.set(key, { ...before, holds: entry.holds, kinds, isCooked });
      return;
    }
    if (before) before.block.to = row;
    const block: Block = {
      key: `${key} ${row}`,
      column,
      vessel: entry.vessel,
      isFirst: !before,
      from: row,
      to: steps.length,
      grams: entry.after_g,
      material,
      pouredFrom: score.pours.filter((pour) => pour.row === row && pour.to === column).map((pour) => pour.from),
      change: entry.change_g,
    };
    score.blocks.push(block);
    score.most = Math.max(score.most, entry.after_g);
    held.set(key, { key, column, part: step.part ?? null, holds: entry.holds, block, kinds, isCooked });
  });
  score.columns = columns.length;
  return score;
}

/** What a mixture looks like: its starch once it is wet is a batter, once it is hot is cooked. */
function looksOf(kinds: ReadonlyMap<Material, number>, isCooked: boolean): Material {
  const all = [...kinds.values()].reduce((sum, grams) => sum + grams, 0);
  const starch = (kinds.get("starch") ?? 0) / (all || 1);
  const water = (kinds.get("water") ?? 0) / (all || 1);
  if (starch > 0.15 && isCooked) return "cooked";
  if (starch > 0.15 && water > 0.15) return "batter";
  if (water > 0.2 && (kinds.get("sugar") ?? 0) / (all || 1) > 0.25) return "sugar";
  return [...kinds.entries()].sort((a, b) => b[1] - a[1])[0]?.[0] ?? "other";
}
