/** What each of a household is, in words, and which places and pages are theirs. The server holds them to it. */

import { useQuery } from "@tanstack/react-query";
import type { Role } from "../api/client";
import { sessionQuery } from "../api/queries";

interface Part {
  does: string;
  /** The ways out at the head of every page. */
  places: readonly (readonly [string, string])[];
  /** Pages that are theirs; all of them, where none is named. */
  pages?: RegExp;
}

const COOKS = [
  ["/", "Counter"],
  ["/larder", "Larder"],
  ["/shopping", "Shopping"],
  ["/log", "Log"],
  ["/kitchen", "Kitchen"],
] as const;

export const ROLES: Record<Role, Part> = {
  owner: { does: "does everything, and asks the others in", places: COOKS },
  cook: { does: "does everything with the sheets, the log and the kitchen", places: COOKS },
  helper: {
    does: "sees what is being made and planned, does steps, weighs and takes pictures; changes no sheet",
    places: [
      ["/", "Today"],
      ["/household", "You"],
    ],
    pages: /^\/($|household$|make\/\d+$|occasions\/\d+\/for\/|sheets\/\d+\/hands$)/,
  },
  taster: {
    does: "says how a batch is, and answers blind tastings without being told which is which",
    places: [
      ["/", "To taste"],
      ["/household", "You"],
    ],
    pages: /^\/($|household$|log\/\d+\/taste$|log\/blind\/\d+$)/,
  },
};

export const isOf = (role: Role, path: string) => ROLES[role].pages?.test(path) ?? true;

/** What whoever sits here is in the household; the owner, until it is known. */
export const useRole = (): Role => useQuery(sessionQuery).data?.role ?? "owner";
export const cooks = (role: Role) => role === "owner" || role === "cook";
