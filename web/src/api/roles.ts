/** What each of a household is, in words, and which places and pages are theirs. The server holds them to it. */

import { t } from "@lingui/core/macro";
import { useQuery } from "@tanstack/react-query";
import type { Role } from "./client";
import { sessionQuery } from "./queries";

interface Part {
  does: string;
  /** The ways out at the head of every page. */
  places: readonly (readonly [string, string])[];
  /** Pages that are theirs; all of them, where none is named. */
  pages?: RegExp;
}

const COOKS = [
  ["/", t`Counter`],
  ["/larder", t`Larder`],
  ["/shopping", t`Shopping`],
  ["/log", t`Log`],
  ["/kitchen", t`Kitchen`],
] as const;

export const ROLES: Record<Role, Part> = {
  owner: { does: t`does everything, and asks the others in`, places: COOKS },
  cook: { does: t`does everything with the sheets, the log and the kitchen`, places: COOKS },
  helper: {
    does: t`sees what is being made and planned, does steps, weighs and takes pictures; changes no sheet`,
    places: [
      ["/", t`Today`],
      ["/household", t`You`],
    ],
    pages: /^\/($|household$|make\/\d+$|occasions\/\d+\/for\/|sheets\/\d+\/hands$)/,
  },
  taster: {
    does: t`says how a batch is, and answers blind tastings without being told which is which`,
    places: [
      ["/", t`To taste`],
      ["/household", t`You`],
    ],
    pages: /^\/($|household$|log\/\d+\/taste$|log\/blind\/\d+$)/,
  },
};

export const isOf = (role: Role, path: string) => ROLES[role].pages?.test(path) ?? true;

/** What whoever sits here is in the household; the owner, until it is known. */
export const useRole = (): Role => useQuery(sessionQuery).data?.role ?? "owner";
export const cooks = (role: Role) => role === "owner" || role === "cook";
