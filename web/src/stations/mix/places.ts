/** Where what is made can go, as one choice, and in words. */

import { t } from "@lingui/core/macro";
import type { OutputPlace, Part, PartId, Sheet, WayCard } from "../../api/client";

type Where = NonNullable<OutputPlace["where"]>;

const IN_A_TIN: Record<"under" | "wall" | "through" | "over", string> = {
  under: t`under it, in the tin`,
  wall: t`on the wall of the tin`,
  through: t`all through it`,
  over: t`over it`,
};
const OF_A_PIECE: Record<"within" | "round" | "over", string> = {
  within: t`inside each piece`,
  round: t`round each piece`,
  over: t`over each piece`,
};

export const WHERE_WORDS: Record<Where, string> = { ...OF_A_PIECE, ...IN_A_TIN };

/** An output as its part's rests name it: what a part is made for, the first of them, has no name of its own. */
export const outputKey = (nth: number, id: string) => (nth === 0 ? "" : id);

/** How many stages a step has: of its heat, or by the method. */
const stagesOf = (sheet: Sheet, id: string, heats: boolean): number =>
  (heats && sheet.heat.stages.length) ||
  sheet.method.flatMap((entry) => ("step" in entry && entry.step === id ? [entry.stages.length] : []))[0] ||
  1;

/** Every step at which something may join, as [id, words]: of a step in stages each of them. */
export const joinSteps = (way: WayCard, sheet: Sheet): [string, string][] =>
  way.steps.flatMap((step): [string, string][] => [
    [step.id, step.title],
    ...Array.from({ length: stagesOf(sheet, step.id, step.heats) - 1 }, (_, i): [string, string] => [
      `${step.id}-${i + 2}`,
      t`${step.title}, stage ${i + 2}`,
    ]),
  ]);

/** Of what goes into a part: the later stages of its own steps, where its method gives any. */
export const laterStages = (id: PartId, steps: readonly { id: string; title: string }[]) =>
  steps
    .filter((step) => step.id.startsWith(`${id}-`) && /-[2-9]$/.test(step.id))
    .map((step): [string, string] => [step.id.slice(id.length + 1), step.title]);

/** One choice as a word: a part, "beside", "kept", or "whole" and where. */
export const placeId = (place: OutputPlace) =>
  place.to === "whole" && place.where ? `whole ${place.where}` : place.to;

export function placeOf(id: string, joins = ""): OutputPlace {
  const [to, where] = id.split(" ") as [OutputPlace["to"], Where | undefined];
  return { to, where: where ?? null, joins };
}

/** Every place that an output of a part may go to: no part that it is itself made of. */
export function placesFor(sheet: Sheet, way: WayCard, id: PartId): [string, string][] {
  const wheres = way.form === "tin" ? IN_A_TIN : OF_A_PIECE;
  const into = sheet.parts.filter((part) => part.id !== id && !feeds(sheet, part.id, id));
  return [
    ...into.map((part): [string, string] => [part.id, t`into the ${part.name || part.id}`]),
    ...Object.entries(wheres).map(([where, words]): [string, string] => [`whole ${where}`, words]),
    ["beside", t`beside it, on the table`],
    ["kept", t`kept`],
  ];
}

/** Whether one part goes, straight or by others, into another. */
export function feeds(sheet: Sheet, from: PartId, into: PartId, seen: PartId[] = []): boolean {
  if (seen.includes(from)) return false;
  const part = sheet.parts.find((part) => part.id === from);
  const takers = sheet.parts.filter(
    (eachPart) =>
      eachPart.takes.some((take) => take.of.split(".")[0] === from) ||
      Object.values(part?.rest ?? {}).some((place) => place.to === eachPart.id),
  );
  return takers.some((taker) => taker.id === into || feeds(sheet, taker.id, into, [...seen, from]));
}

/** The parts that another may take of, each with its outputs: not itself, not the base, nothing it is made into. */
export const takeable = (sheet: Sheet, id: PartId): Part[] =>
  sheet.parts.filter((part) => part.id !== "base" && part.id !== id && !feeds(sheet, id, part.id));
