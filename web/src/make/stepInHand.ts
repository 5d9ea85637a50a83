/** Which step is in hand: over all runs that are made together, for one cook or for whoever looks. */

import { FOR_NOW, moreUrgent, urgency } from "../runs/fold";
import { doneWith, type Making } from "../runs/useFlow";
import type { InHand } from "./props";

export const keyOf = (making: Making, step: string) => `${making.id} ${step}`;

/** Every step of the flow, in the order of its plan. */
export const allOf = (makings: Making[]): InHand[] =>
  makings
    .flatMap((making) => {
      const states = new Map(making.state.steps.map((step) => [step.id, step]));
      return making.plan.scheduled.flatMap(({ step }) => {
        const standing = states.get(step.id);
        return standing ? [{ making, step, standing }] : [];
      });
    })
    .sort((a, b) => Date.parse(a.standing.expected_starts) - Date.parse(b.standing.expected_starts));

/** Whether a step is this cook's: given to nobody, to them, or asking for no hands. */
export const isMine = ({ step, standing }: InHand, me: string) =>
  !me || !standing.who || standing.who === me || step.hands === "free";

/** What wants to be looked at first. */
export function mostUrgent(all: InHand[], now: number, me: string): InHand | undefined {
  const ranked = all.flatMap((inHand) => {
    const rank = isMine(inHand, me) ? urgency(inHand.standing, inHand.step.hands, now) : null;
    return rank ? [{ one: inHand, rank }] : [];
  });
  return ranked.sort((a, b) => moreUrgent(a.rank, b.rank))[0]?.one;
}

/** What waits for hands: the first that can be begun or looked at, whatever is on the screen. */
export const waitsForHands = (all: InHand[], now: number, me: string) =>
  mostUrgent(
    all.filter((inHand) => inHand.step.hands !== "free"),
    now,
    me,
  );

/** What a cook's hands come to after the step in hand. */
export const nextOf = (all: InHand[], me: string, but: InHand | undefined) =>
  all.find(
    (inHand) =>
      inHand !== but &&
      inHand.step.hands !== "free" &&
      (inHand.standing.status === "ready" || inHand.standing.status === "waiting") &&
      isMine(inHand, me),
  );

/**
 * What a cook goes straight on to once the step in hand is done: what would be in hand then, where it can be begun, and where it
 * is for now or waited for this step.
 */
export function straightOn(all: InHand[], inHand: InHand, now: number, me: string): InHand | null {
  const { making, step, standing } = inHand;
  if (standing.status !== "running") return null;
  const makings = [...new Set(all.map((inHand) => inHand.making))];
  const after = allOf(
    makings.map((eachMaking) => (eachMaking === making ? doneWith(eachMaking, step.id, now) : eachMaking)),
  );
  const then = mostUrgent(after, now, me);
  if (then?.standing.status !== "ready") return null;
  const isNow = urgency(then.standing, then.step.hands, now)?.[0] === FOR_NOW;
  const waited = then.making.id === making.id && then.step.after.some((item) => item.step === step.id);
  return isNow || waited ? then : null;
}

/** The step before or after another in the order of the plan. */
export function beside(all: InHand[], key: string | null, by: 1 | -1): InHand | undefined {
  const open = all.filter((inHand) => inHand.standing.status !== "done");
  const at = open.findIndex((inHand) => keyOf(inHand.making, inHand.step.id) === key);
  return open[(at + by + open.length) % open.length];
}

export const cooksOf = (all: InHand[]) => [...new Set(all.map((inHand) => inHand.standing.who).filter(Boolean))].sort();
